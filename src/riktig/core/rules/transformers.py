"""Whether every transformer is guarded: ahead against a short circuit, and against more than it can give."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from riktig.core.catalogue import Can
from riktig.core.job import PinRef
from riktig.core.keys import DeviceKey
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.rules.view import View
from riktig.core.schematic import PASS, Device, Net, NetClass, joined_nets, reached
from riktig.core.standards import rule, transformer_primary_share, transformer_secondary

__all__ = ["TRANSFORMERS"]

OVER = 1.25
"""What a guard behind a transformer may be above its current (NEC 450.3(B), IEC 61558-1 by the maker; from memory)."""


@dataclass(frozen=True, slots=True)
class _Guards:
    """What guards one transformer: ahead of it and behind, A; ``open_ahead`` where a line reaches it past any guard."""

    device: Device
    va: float
    first_v: float
    second_v: float
    ahead: tuple[Device, ...]
    behind: tuple[Device, ...]
    open_ahead: bool
    open_behind: bool


def transformers_guarded(view: View) -> ClauseResult:
    """Each transformer has a guard ahead, and one behind that opens before it gives more than it can.

    Source:
        IEC 60204-1 7.2.7; NFPA 79 7.2.11 and NEC 450.3(B); from memory.
    """
    findings: list[Finding] = []
    evidence: list[str] = []
    clause = view.source("E18")
    for guards in _all_guards(view):
        text, verdict, remedy = _judged(view, guards)
        if verdict is Verdict.MEETS:
            evidence.append(text)
        else:
            findings.append(Finding("E18", verdict, text, DeviceKey(guards.device.id), clause, remedy))
    lines = tuple(evidence) or ("no transformer that is fed",)
    return ClauseResult("E18", Group.PROTECTION, "Transformers guarded", clause, lines, tuple(findings))


def _all_guards(view: View) -> Iterable[_Guards]:
    of_pin, parts = view.nets.of_pin, view.sizing.parts
    joined = joined_nets(
        view.circuits, view.nets, lambda device, unit: unit.behaviour in PASS and not device.kind.is_protective
    )
    touching: dict[PinRef, list[Device]] = {}
    loads: set[PinRef] = set()
    supplied: set[PinRef] = set()
    for device in view.circuits.devices:
        nets = [net for pin in device.kind.pins if (net := of_pin.get(device.pin(pin.name)))]
        if device.kind.can(Can.SUPPLY):
            supplied |= {net.id for net in nets if net.net_class is not NetClass.EARTH and not net.is_shared}
        elif device.kind.is_protective:
            for net in nets:
                touching.setdefault(net.id, []).append(device)
        elif any(unit.behaviour not in PASS for unit in device.kind.units) and not device.kind.can(Can.TRANSFORMS):
            loads |= {net.id for net in nets}
    for device in view.circuits.devices:
        first, back, live = (of_pin.get(device.pin(pin)) for pin in ("1", "3", "5"))
        if not device.kind.can(Can.TRANSFORMS) or not (first and back and live):
            continue
        primary = reached(joined, [net.id for net in (first, back) if not net.is_shared])
        secondary = reached(joined, [live.id])
        yield _Guards(
            device,
            parts[device.id].rated_va,
            _primary_v(view, back),
            view.practice.transformer_v,
            _devices_on(touching, primary),
            _devices_on(touching, secondary),
            bool(primary & supplied),
            bool(secondary & loads),
        )


def _primary_v(view: View, back: Net) -> float:
    supply = view.supply
    return supply.voltage_to_neutral_v if back.net_class is NetClass.NEUTRAL else supply.voltage_v


def _devices_on(touching: Mapping[PinRef, list[Device]], nets: Iterable[PinRef]) -> tuple[Device, ...]:
    by_id = {device.id: device for net in nets for device in touching.get(net, ())}
    return tuple(by_id.values())


TWO_A = 2.0
"""Primary current from which NEC 450.3(B) takes the place of 430.72(C)(4), A."""


def _judged(view: View, guards: _Guards) -> tuple[str, Verdict, str]:
    """What is to be said of one transformer, how it stands, and what mends it."""
    name, parts = f"{view.tag(guards.device.id)}, {guards.va:g} VA", view.sizing.parts
    add = "Put a fuse behind it that opens at its own current."
    if guards.open_ahead or not guards.ahead:
        return f"{name}: a line reaches it past any fuse or breaker.", Verdict.FAILS, "Put fuses ahead of it."
    first_a, second_a = guards.va / guards.first_v, guards.va / guards.second_v
    ahead = max(parts[device.id].rated_a for device in guards.ahead)
    behind = sum(parts[device.id].rated_a for device in guards.behind)
    american = view.rulebook.north_american
    most = max(OVER * second_a, transformer_secondary(guards.va).value * 120.0 / guards.second_v if american else 0.0)
    tags = ", ".join(f"{view.tag(d.id)} {parts[d.id].rated_a:g} A" for d in (*guards.ahead, *guards.behind))
    if behind and not guards.open_behind and behind <= most + 1e-9:
        share = ahead / first_a
        name_of = "control transformer primary" if first_a < TWO_A else "control transformer primary from 2 a"
        if share > rule(name_of).value + 1e-9:
            text = f"{name}: {tags}; what guards it ahead lets through {share:.0%} of its primary current."
            verdict = Verdict.FAILS if american else Verdict.JUDGE
            return text, verdict, "Take smaller fuses ahead of it, or compare with its maker's sheet and sign."
        return f"{name}: {tags}; it gives {second_a:.2f} A", Verdict.MEETS, ""
    alone = transformer_primary_share(first_a).value if american else rule("transformer primary margin").value * OVER
    lets = f"what guards it ahead lets through {ahead / first_a:.0%} of its power"
    if ahead <= alone * first_a + 1e-9:
        text = f"{name}: nothing behind it opens at the {second_a:.2f} A it gives; {lets}."
        return text, Verdict.JUDGE, f"{add} Or compare with its maker's sheet, and sign."
    return f"{name}: nothing opens before it is overloaded: {lets}.", Verdict.FAILS, add


TRANSFORMERS = (transformers_guarded,)
