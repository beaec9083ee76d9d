"""Clauses on what lands on clamps, inside the panel and from the field, and on the cables that bring it."""

from collections import defaultdict
from collections.abc import Iterable

from riktig.core.job import PinRef
from riktig.core.keys import DeviceKey, PinKey
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.rules.view import View
from riktig.core.standards import clamp_range, conductor_name, is_awg
from riktig.core.terminals import EARTH_CORE, Cable, Core

__all__ = ["CLAMPS"]


def clamps_hold(view: View) -> ClauseResult:
    """No clamp holds more, thicker or mixed conductors than it may, on its inside and on its field side."""
    clause = view.source("W04")
    remedy = "Choose another clamp, or give the net a terminal of its own."
    findings = [
        Finding("W04", Verdict.FAILS, f"{crowded.label}: {crowded.text}.", PinKey(crowded.pin), clause, remedy)
        for crowded in view.wiring.crowded
    ]
    findings += [
        Finding(
            "W04",
            Verdict.FAILS,
            f"{view.pin_label(pin)} has no place, so no wire reaches it.",
            PinKey(pin),
            clause,
            "Place the part on the plate or door.",
        )
        for pin in view.wiring.unrouted
    ]
    cores = 0
    landed: dict[PinRef, list[tuple[Cable, Core]]] = defaultdict(list)
    for cable in view.strips.cables:
        for core in cable.cores:
            landed[core.panel_pin].append((cable, core))
            cores += 1
    for pin, of_cables in landed.items():
        findings += [
            Finding("W04", Verdict.FAILS, f"{view.pin_label(pin)}, field side: {text}.", PinKey(pin), clause, remedy)
            for text in _too_much(view, pin, of_cables)
        ]
    evidence = (f"{2 * len(view.wiring.wires)} ends of wires", f"{cores} cores from the field")
    return ClauseResult("W04", Group.WIRING, "Clamps", clause, evidence, tuple(findings))


def _too_much(view: View, pin: PinRef, landed: list[tuple[Cable, Core]]) -> Iterable[str]:
    clamp = view.sizing.parts[pin.device].clamp(pin.marking)
    if len(landed) > clamp.conductors:
        yield f"{len(landed)} cores where {clamp.conductors} may be clamped"
    for cable, core in landed:
        if not clamp.min_mm2 <= core.mm2 <= clamp.max_mm2:
            yield (
                f"{conductor_name(core.mm2)} of {cable.tag} in a clamp for "
                f"{clamp_range(clamp.min_mm2, clamp.max_mm2, awg=is_awg(core.mm2))}"
            )


def cables_whole(view: View) -> ClauseResult:
    """Everything in the field that the circuits join to the panel has a core for it, its protective conductor too."""
    clause = view.source("W06")
    findings: list[Finding] = []
    joined = 0
    sharing = {load.id for load in view.loads if load.neutral_of is not None}
    shares = {size.circuit for size in view.sizing.loads if size.load in sharing}  # their neutrals join in the field
    ends = [(cable, view.circuits.device(owner)) for cable in view.strips.cables for owner in cable.devices]
    for cable, device in ends:
        if not device.kind.units:
            continue  # a device on a network: its cable is bought ready made
        of_pin = view.nets.of_pin
        brought = {of_pin[core.field_pin].id for core in cable.cores if core.field_pin.device == device.id}
        for pin in device.kind.pins:
            net = of_pin.get(device.pin(pin.name))
            if net is None:
                continue
            joined += 1
            if net.id in brought or (pin.name == "N" and device.circuit in shares):
                continue
            tag = view.tag(device.id)
            if pin.name == "PE":
                text = f"{tag} has no protective conductor: no way of the earth bar is left for its cable."
                remedy = "Take a further earth bar, or a terminal beside its circuit."
            else:
                text = f"{tag}:{pin.name} is joined to the panel without a terminal, so no core leads to it."
                remedy = "Put a terminal between it and the panel."
            findings.append(Finding("W06", Verdict.FAILS, text, DeviceKey(device.id), clause, remedy))
    earths = sum(core.name == EARTH_CORE for cable in view.strips.cables for core in cable.cores)
    evidence = (f"{joined} points in the field, {earths} protective conductors among their cores",)
    return ClauseResult("W06", Group.WIRING, "Cables to the field", clause, evidence, tuple(findings))


CLAMPS = (clamps_hold, cables_whole)
