"""What an emergency stop stops, and what a person has to judge about it."""

from riktig.core.catalogue import Behaviour, Can, Unit
from riktig.core.job import DeviceId, PinRef, Recipe
from riktig.core.keys import DeviceKey
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.rules.view import View
from riktig.core.schematic import PASS, Device, joined_nets, reached

__all__ = ["EMERGENCY"]

CHANNELS = (("S11", "S12"), ("S21", "S22"))
"""The pins of a safety relay between which each channel is closed."""


def emergency_stop(view: View) -> ClauseResult:
    """With the emergency stop pressed no load can run; how good it must be, a person says."""
    clause = view.source("C13")
    title = "Emergency stop"
    stops = [device for device in view.circuits.devices if device.kind.can(Can.MUSHROOM)]
    if not stops:
        return _none_drawn(view, title, clause)
    whole = {circuit.id for circuit in view.own_circuits if circuit.recipe is Recipe.EMERGENCY_STOP}
    of_all = [device for device in stops if device.circuit in whole]
    running = _still_running(view, {device.id for device in of_all}) if of_all else []
    findings = [
        Finding(
            "C13",
            Verdict.FAILS,
            f"{view.tag(device.id)} can stay in with {view.tag(of_all[0].id)} pressed.",
            DeviceKey(device.id),
            clause,
            "Feed it from behind the emergency stop.",
        )
        for device in running
    ]
    channels = max(sum(unit.behaviour is Behaviour.NC for unit in device.kind.units) for device in stops)
    how = f"stop category 0, {channels} channel{'s' if channels != 1 else ''} at {view.tag(stops[0].id)}"
    findings.append(
        Finding(
            "C13",
            Verdict.JUDGE,
            f"Drawn is {how}. Whether category and performance are enough, the risk assessment of the machine decides.",
            DeviceKey(stops[0].id),
            clause,
            "Sign with the risk assessment, its category and its performance level as the evidence.",
        )
    )
    switched = sum(_starts(device) for device in view.circuits.devices)
    counted = f"{switched - len(running)} of {switched} contactors, soft starters, drives and valves cannot stay in"
    evidence = (how, counted if of_all else "it stands in the path of single loads: which, a person says")
    return ClauseResult("C13", Group.CONTROL, title, clause, evidence, tuple(findings))


def _none_drawn(view: View, title: str, clause: str) -> ClauseResult:
    """Whether the machine needs one is not to be seen in the panel; where nothing moves nothing is asked."""
    moving = [device for device in view.circuits.devices if device.kind.is_motor or device.kind.can(Can.ACTUATES)]
    evidence = ("none is drawn", f"{len(moving)} motors and actuators")
    if not moving:
        return ClauseResult("C13", Group.CONTROL, title, clause, evidence, (), "no motor and no actuator is drawn")
    words = "No emergency stop is drawn. Whether the machine needs one in the panel, its risk assessment decides."
    remedy = "Add one, or sign with the risk assessment of the machine as the evidence."
    finding = Finding("C13", Verdict.JUDGE, words, DeviceKey(moving[0].id), clause, remedy)
    return ClauseResult("C13", Group.CONTROL, title, clause, evidence, (finding,))


def _starts(device: Device) -> bool:
    """Whether a device lets a load run, or moves by itself: a contactor, a soft starter, a drive, a valve."""
    can = device.kind.can
    return can(Can.ACTUATES) or can(Can.SWITCHES_LOAD) or can(Can.STARTS_SOFTLY) or can(Can.VARIES_SPEED)


def _still_running(view: View, pressed: set[DeviceId]) -> list[Device]:
    """What can stay in: every contact may be closed, but those of the stop and of what can no longer be fed.

    Method:
        What no source reaches has fallen, so its closing contacts are open; until nothing more falls.
    """
    fallen = set(pressed)
    while True:
        fed = _fed(view, fallen)
        fresh = {
            device.id
            for device in view.circuits.devices
            if device.id not in fallen and device.kind.has_coil and not _is_held(view, device, fallen, fed)
        }
        if not fresh:
            break
        fallen |= fresh
    return [d for d in view.circuits.devices if _starts(d) and d.id not in fallen and _runs(view, d, fallen, fed)]


def _is_held(view: View, device: Device, fallen: set[DeviceId], fed: set[PinRef]) -> bool:
    """Whether a coil can be in: it is fed, and both channels of a safety relay are closed."""
    return _is_fed(view, device, fed) and (
        not device.kind.can(Can.TWO_CHANNELS) or all(_closes(view, device, *pins, fallen) for pins in CHANNELS)
    )


def _closes(view: View, device: Device, out: str, back: str, fallen: set[DeviceId]) -> bool:
    """Whether a loop that a device feeds itself can come back to it."""
    a, b = view.nets.of_pin.get(device.pin(out)), view.nets.of_pin.get(device.pin(back))
    return bool(a and b and b.id in _reach(view, {a.id}, fallen))


def _is_fed(view: View, device: Device, fed: set[PinRef]) -> bool:
    nets = view.nets.of_pin
    coils = [unit for unit in device.kind.units if unit.behaviour is Behaviour.COIL]
    return any((net := nets.get(device.pin(pin))) and net.id in fed for unit in coils for pin in unit.pins)


def _runs(view: View, device: Device, fallen: set[DeviceId], fed: set[PinRef]) -> bool:
    """Whether it can be told to run: by its coil, or by its own loop from its 24 V or S1 to its input."""
    can, nets = device.kind.can, view.nets.of_pin
    if can(Can.ACTUATES):
        return any((net := nets.get(device.pin(pin.name))) and net.id in fed for pin in device.kind.pins)
    if not (can(Can.VARIES_SPEED) or can(Can.STARTS_SOFTLY)):
        return _is_fed(view, device, fed)
    first, last = ("24", "R1") if can(Can.VARIES_SPEED) else ("S1", "S2")
    supply = nets.get(device.pin("A1"))
    if can(Can.STARTS_SOFTLY) and (supply is None or supply.id not in fed):
        return False
    return _closes(view, device, first, last, fallen)


def _fed(view: View, fallen: set[DeviceId]) -> set[PinRef]:
    """The nets that the live side of any source reaches."""
    seeds: set[PinRef] = set()
    for device in view.circuits.devices:
        pins: list[str] = ["L1", "L2", "L3"] if device.kind.can(Can.SUPPLY) else []
        pins += [unit.pins[0] for unit in device.kind.units if unit.behaviour is Behaviour.SOURCE]
        seeds |= {net.id for pin in pins if (net := view.nets.of_pin.get(device.pin(pin)))}
    return _reach(view, seeds, fallen)


def _reach(view: View, seeds: set[PinRef], fallen: set[DeviceId]) -> set[PinRef]:
    """What the seeds reach; of what has fallen only through its opening contacts, of a stop through none."""

    def leads_on(device: Device, unit: Unit) -> bool:
        if unit.behaviour not in PASS or unit.symbol == "link":
            return False
        opening = unit.behaviour is Behaviour.NC and not device.kind.can(Can.MUSHROOM)
        return opening or device.id not in fallen

    return reached(joined_nets(view.circuits, view.nets, leads_on), seeds)


EMERGENCY = (emergency_stop,)
