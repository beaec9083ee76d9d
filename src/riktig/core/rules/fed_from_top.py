"""The line in at the top: which side of each breaker and contactor the supply reaches first."""

from collections import deque
from collections.abc import Callable

from riktig.core.catalogue import Behaviour, Can, Side
from riktig.core.ids import DeviceId, PinRef
from riktig.core.keys import DeviceKey
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.rules.view import View
from riktig.core.schematic import Device

__all__ = ["FED_FROM_TOP"]

CLOSED = (Behaviour.POLE, Behaviour.NC, Behaviour.NO, Behaviour.HEATER, Behaviour.JOINT)
"""What a way from the supply goes through."""


def line_in_at_the_top(view: View) -> ClauseResult:
    """Every pole of a breaker or contactor that the supply reaches from both sides at different distance, or one only.

    The way from the supply is counted in poles and contacts crossed, all closed; poles inside a loop of equal ways,
    such as those of a star point, are left out.
    """
    clause = view.source("E19")
    away = _away_from_supply(view)
    findings: list[Finding] = []
    judged = left_out = 0
    unsure: dict[DeviceId, None] = {}
    for device in view.circuits.devices:
        if not (device.kind.is_protective or device.kind.can(Can.SWITCHES_LOAD)):
            continue
        below: list[str] = []
        before, open_before = judged, left_out
        for unit in device.kind.units:
            if unit.behaviour is not Behaviour.POLE:
                continue
            top, foot = _sides(device, (unit.pins[0], unit.pins[-1]))
            if top is None or foot is None:
                continue
            near, far = away.get(device.pin(top)), away.get(device.pin(foot))
            if near is None or far is None or near == far:
                left_out += 1
                continue
            judged += 1
            if far < near:
                below.append(f"{foot}")
        if below:
            findings.append(_finding(view, device, below, clause))
        if left_out > open_before and judged == before:  # its other poles tell it of a neutral's
            unsure[device.id] = None
    if unsure:
        tags = ", ".join(view.tag(device) for device in unsure)
        words = f"The side that {tags} is fed from is not to be seen: the supply reaches neither side, or both alike."
        remedy = "See that what feeds them lands where their maker has it, and sign."
        findings.append(Finding("E19", Verdict.JUDGE, words, DeviceKey(next(iter(unsure))), clause, remedy))
    evidence = (
        f"{judged} poles of breakers and contactors, from the supply on",
        f"{left_out} poles that the supply reaches from neither side, or from both alike, are not judged",
    )
    return ClauseResult("E19", Group.PROTECTION, "Line in at the top", clause, evidence, tuple(findings))


def _finding(view: View, device: Device, below: list[str], clause: str) -> Finding:
    tag, clamps = view.tag(device.id), ", ".join(below)
    text = f"{tag} is fed from below, at {clamps}: with it off its lower clamps stay live, which nobody expects."
    remedy = (
        "Land the line on the upper clamps; or see in the part's data that it may be fed from below, and mark it so."
    )
    return Finding("E19", Verdict.JUDGE, text, DeviceKey(device.id), clause, remedy)


def _sides(device: Device, pins: tuple[str, str]) -> tuple[str | None, str | None]:
    """The upper and the lower pin of a pole; None where both are on one side."""
    by_side = {device.kind.pin(name).side: name for name in pins}
    return (by_side.get(Side.TOP), by_side.get(Side.BOTTOM)) if len(by_side) == 2 else (None, None)


def _away_from_supply(view: View) -> dict[PinRef, int]:
    """By pin, how many poles and contacts lie between it and the nearest source of its own kind."""
    of_pin, devices = view.nets.of_pin, view.circuits.devices
    begins = [
        of_pin[device.pin(pin)]
        for device in devices
        for unit in device.kind.units
        for pin in (unit.pins if unit.behaviour is Behaviour.SOURCE or device.kind.can(Can.SUPPLY) else ())
        if device.pin(pin) in of_pin
    ]
    begins += [
        of_pin[pin]
        for device in devices
        if device.kind.can(Can.SUPPLY)
        for pin in device.pins.values()
        if pin in of_pin
    ]
    beside: dict[PinRef, list[PinRef]] = {}
    for device in devices:
        for unit in device.kind.units:
            if unit.behaviour not in CLOSED:
                continue
            nets = [of_pin[device.pin(pin)].id for pin in unit.pins if device.pin(pin) in of_pin]
            for net in nets:
                beside.setdefault(net, []).extend(other for other in nets if other != net)
    away = {net.id: 0 for net in begins}
    todo = deque(away)
    while todo:
        net = todo.popleft()
        for other in beside.get(net, ()):
            if other not in away:
                away[other] = away[net] + 1
                todo.append(other)
    return {pin: away[net.id] for pin, net in of_pin.items() if net.id in away}


FED_FROM_TOP: tuple[Callable[[View], ClauseResult], ...] = (line_in_at_the_top,)
"""Clauses on which side is fed."""
