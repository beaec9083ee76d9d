"""Clauses about protective conductors and bonds."""

from riktig.core.catalogue import Can, Kind
from riktig.core.job import role_of
from riktig.core.keys import DeviceKey, PinKey, WireKey
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.rules.view import View
from riktig.core.schematic import DOOR_BONDS, NetClass, Zone
from riktig.core.standards import conductor_name, nec_protective_size, protective_section

__all__ = ["EARTHING"]

LEAST_MM2 = 2.08
"""Protective conductors of small circuits that the Brief does not list (IEC 60204-1 8.2.2 with protection
against damage; NEC 250.30(A)(1) up to 1000 VA, 14 AWG; both from memory: fairly sure)."""


def _is_of_the_supply(kind: Kind) -> bool:
    return kind.can(Can.MAIN_SWITCH) or kind.can(Can.EARTH_STUD) or kind.can(Can.EARTH_BAR)


def protective_sections(view: View) -> ClauseResult:
    """Protective conductors no thinner than their circuit asks."""
    american = view.practice.rulebook.north_american
    clause = "NEC 250.122, from memory" if american else "IEC 60204-1 8.2.2, Table 1"
    findings = []
    evidence = []
    aside = {c.circuit for c in view.circuits.devices if not _is_of_the_supply(c.kind)} - {
        c.circuit for c in view.circuits.devices if c.kind.can(Can.MAIN_SWITCH)
    }
    for wire in view.wiring.wires:
        if wire.colour != "green-yellow":
            continue
        load = view.sizing.load_of(wire.circuit)
        small = load is None and wire.circuit in aside
        phase = load.section.mm2 if load else wire.mm2 if small else view.sizing.feeder.mm2
        need = protective_section(phase).value
        if american:
            guard = load.proposal.amount("breaker") if load else view.supply.upstream_a
            need = min(nec_protective_size(guard).value, phase)
        if small:
            need = LEAST_MM2
        evidence.append(f"{wire.end.label}: {conductor_name(wire.mm2)} for {conductor_name(phase)} phase")
        door_bond = role_of(wire.end.pin.device) in DOOR_BONDS
        if wire.mm2 < need and not door_bond:
            findings.append(
                Finding(
                    "E08",
                    Verdict.FAILS,
                    f"The protective conductor to {wire.end.label} is {conductor_name(wire.mm2)}; it must be "
                    f"{conductor_name(need)}.",
                    WireKey(wire.key),
                    clause,
                    "Use the larger section.",
                )
            )
    return ClauseResult(
        "E08", Group.EARTHING, "Protective conductor sections", clause, tuple(evidence), tuple(findings)
    )


def everything_bonded(view: View) -> ClauseResult:
    """Every point marked for earth has a conductor of its own to the bar."""
    clause = "IEC 60204-1 8.2.1 and 8.2.3"
    landed = {end.pin for w in view.wiring.wires for end in (w.start, w.end)}
    points = view.circuits.earths
    findings = [
        Finding(
            "E09",
            Verdict.FAILS,
            f"{view.pin_label(pin)} has no protective conductor.",
            PinKey(pin),
            clause,
            "Give it a way on the earth bar.",
        )
        for pin in points
        if pin not in landed
    ]
    for device in view.circuits.devices:
        if device.kind.needs_earth:
            net, outside = view.nets.of_pin.get(device.pin("PE")), device.zone is Zone.FIELD
            if net is None or net.net_class is not NetClass.EARTH:
                findings.append(
                    Finding(
                        "E09",
                        Verdict.FAILS,
                        f"{view.tag(device.id)} has no {'earth core' if outside else 'protective conductor'}.",
                        DeviceKey(device.id),
                        clause,
                        "Give its cable an earth core." if outside else "Give it a way on the earth bar.",
                    )
                )
    return ClauseResult(
        "E09",
        Group.EARTHING,
        "Everything bonded",
        clause,
        (f"{len(points)} points, each from a way of its own",),
        tuple(findings),
    )


EARTHING = (protective_sections, everything_bonded)
