"""Clauses about conductors, clamps, marking and papers."""

from riktig.core.catalogue import Can
from riktig.core.ids import DeviceId, device_id
from riktig.core.job import INCOMER_ID
from riktig.core.keys import DeviceKey, Key, PartKey, WireKey
from riktig.core.labels import Medium
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.rules.view import View
from riktig.core.schematic import INCOMING_CABLE, NetClass, outside_device
from riktig.core.sizing import Section
from riktig.core.standards import conductor_name, minimum_section

__all__ = ["MECHANICAL"]


def conductor_currents(view: View) -> ClauseResult:
    """Every conductor carries what its protection lets through."""
    clause = view.source("W01")
    sections: list[tuple[str, Key, Section]] = [("feeder", PartKey("supply"), view.sizing.feeder)]
    for size in view.sizing.loads:
        load = outside_device(view.circuits, size.circuit)
        sections += [
            (f"{view.tag(load.id)} power", DeviceKey(load.id), size.section),
            (f"{view.tag(load.id)} control", DeviceKey(load.id), size.control),
        ]
    findings = [
        Finding(
            "W01",
            Verdict.FAILS,
            f"The {name} conductors carry {s.carries_a:.1f} A in duct; they must carry {s.needs_a:g} A.",
            where,
            clause,
            "Use bars or parallel conductors: the table ends here.",
        )
        for name, where, s in sections
        if not s.enough
    ]
    evidence = [f"{name}: {s.name} carries {s.carries_a:.1f} A ≥ {s.needs_a:g} A" for name, _, s in sections]
    return ClauseResult("W01", Group.WIRING, "Conductor currents", clause, tuple(evidence), tuple(findings))


def least_sections(view: View) -> ClauseResult:
    """No conductor thinner than the rulebook's least."""
    clause = view.source("W02")
    findings = []
    class_of = {net.id: net.net_class for net in view.nets.nets}
    for wire in view.wiring.wires:
        control = class_of[wire.net] in (NetClass.CONTROL, NetClass.DC, NetClass.NEUTRAL)
        least = minimum_section("control circuits" if control else "power circuits").value
        if wire.mm2 < least:
            findings.append(
                Finding(
                    "W02",
                    Verdict.FAILS,
                    f"Wire {wire.name} is {conductor_name(wire.mm2)}; the least is {conductor_name(least)}.",
                    WireKey(wire.key),
                    clause,
                    "Use a thicker wire.",
                )
            )
    return ClauseResult(
        "W02", Group.WIRING, "Least sections", clause, (f"{len(view.wiring.wires)} wires",), tuple(findings)
    )


RATING = "Short-circuit rating"
"""The field of the nameplate that nobody fills in: it follows from the parts."""


def nameplate_complete(view: View) -> ClauseResult:
    """The nameplate says all it must."""
    clause = view.source("M01")
    findings = [
        Finding(
            "M01",
            Verdict.JUDGE if field.name == RATING else Verdict.FAILS,
            f"Nameplate: {field.name.lower()} missing ({field.clause}).",
            PartKey("nameplate"),
            clause,
            "See the clause “Short-circuit rating”: a figure of a part is missing."
            if field.name == RATING
            else "Fill it in at the head of the Brief.",
        )
        for field in view.labels.nameplate
        if field.required and not field.value
    ]
    filled = [f"{f.name}: {f.value}" for f in view.labels.nameplate if f.value]
    return ClauseResult("M01", Group.MARKING, "Nameplate", clause, tuple(filled), tuple(findings))


def still_live_said(view: View) -> ClauseResult:
    """What stays live with the main switch off is known, and said on a plate."""
    clause = view.source("M03")
    pins = [
        view.pin_label(pin)
        for net in view.live_off
        for pin in net.pins
        if pin.device != device_id(INCOMER_ID, INCOMING_CABLE)
    ]
    shown = sorted(set(pins))
    plates = view.labels.on(Medium.WARNING)
    named = {plate.key for plate in plates}
    elsewhere = {live_net.source for live_net in view.live_off} & {
        d.id for d in view.circuits.devices if d.kind.can(Can.FOREIGN_SUPPLY)
    }
    findings = []
    if any(DeviceKey(DeviceId(did)) not in named for did in elsewhere):
        findings.append(
            Finding(
                "M03",
                Verdict.FAILS,
                "A supply from elsewhere stays live with the main switch off, and no plate names it.",
                PartKey("sources"),
                clause,
                "Add a warning plate.",
            )
        )
    if shown and not plates:
        findings.append(
            Finding(
                "M03",
                Verdict.FAILS,
                "Parts stay live with the main switch off, and no plate says so.",
                PartKey("supply"),
                clause,
                "Add a warning plate.",
            )
        )
    return ClauseResult(
        "M03",
        Group.MARKING,
        "What stays live is said",
        clause,
        (f"live with the main switch off: {', '.join(shown)}",),
        tuple(findings),
    )


def lamps_have_meaning(view: View) -> ClauseResult:
    """Every operator and lamp on the door has a legend."""
    clause = view.source("M04")
    named = {label.key: " ".join(label.lines) for label in view.labels.on(Medium.LEGEND)}
    findings = [
        Finding(
            "M04",
            Verdict.FAILS,
            f"{view.tag(seat.device)} has no legend, so nobody can say what it means.",
            DeviceKey(seat.device),
            clause,
            "Give it a text.",
        )
        for seat in view.door.seats
        if not named.get(DeviceKey(seat.device))
    ]
    return ClauseResult(
        "M04", Group.MARKING, "Legends", clause, tuple(text for text in named.values() if text), tuple(findings)
    )


MECHANICAL = (conductor_currents, least_sections, nameplate_complete, still_live_said, lamps_have_meaning)
