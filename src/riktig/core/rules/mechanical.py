"""Clauses about conductors, clamps, marking and papers."""

from dataclasses import replace

from riktig.core.catalogue import Can
from riktig.core.ids import DeviceId, device_id
from riktig.core.job import INCOMER_ID, Colours, circuit_of
from riktig.core.keys import DeviceKey, Key, PartKey, WireKey
from riktig.core.labels import LONGEST_MARKER, Medium
from riktig.core.plate import apart
from riktig.core.rules.guarded_neutrals import returned_currents, shared_neutrals
from riktig.core.rules.guarded_wires import TAP_MM, GuardedWires
from riktig.core.rules.model import ClauseResult, Finding, Group, QuickFix, Verdict
from riktig.core.rules.view import View
from riktig.core.schematic import INCOMING_CABLE, outside_device
from riktig.core.sizing import Laid, Section
from riktig.core.sizing.electrical import basis_of
from riktig.core.sizing.sections import section_of
from riktig.core.sizing.starter import in_panel
from riktig.core.standards import conductor_name, minimum_section
from riktig.core.wiring import WiringStage

__all__ = ["MECHANICAL"]

MARK_ALL_ABOVE = 10
"""Wires above which every one is marked (common practice, no source)."""


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


def conductors_protected(view: View) -> ClauseResult:
    """Every wire carries what stands ahead of it lets through, or what stands behind it can take."""
    american = view.practice.rulebook.north_american
    clause = view.source("W05")
    laid = replace(in_panel(basis_of(view.loads, view.supply, view.practice, view.enclosure, ())[0]), control=True)
    findings: list[Finding] = []
    looked_at = 0
    carries_of = {mm2: _carries(mm2, laid) for mm2 in {wire.mm2 for wire in view.wiring.wires}}
    guarded = GuardedWires(view)
    for wire, limit in guarded.limits():
        looked_at += 1
        if american and view.sizing.feeder.enough and wire.mm2 >= view.sizing.feeder.mm2:
            continue  # a feeder of motors is sized by its load and protected by 430.62
        carries = carries_of[wire.mm2]
        verdict = limit.verdict(carries, wire.length)
        if verdict is Verdict.MEETS:
            continue
        what = f"Wire {wire.name}, {conductor_name(wire.mm2)}"
        text = f"{what}, carries {carries:.1f} A; {limit.ahead:g} A stand ahead of it"
        remedy = "Take a thicker wire, or protect it by a smaller device."
        if verdict is Verdict.JUDGE and limit.behind:
            text += f", and breakers of {limit.behind:g} A behind it."
            remedy = "Sign what they feed at once, or take a thicker wire."
        elif verdict is Verdict.JUDGE:
            text += ", and what it leads to has no figure."
            remedy = "Give it a fuse of its own, or sign that its current and its short circuit are looked after."
        elif limit.all_guards and wire.length > TAP_MM and carries * 1.0001 >= limit.behind:
            text += f". As a tap it may be {TAP_MM / 1000:g} m long, and it is {wire.length / 1000:.1f} m."
            remedy = "Bring its breaker nearer, take a thicker wire, or protect it by a smaller device."
        else:
            text += "."
        findings.append(Finding("W05", verdict, text, WireKey(wire.key), clause, remedy))
    neutrals = 0
    for wire, amps in returned_currents(view, guarded):
        neutrals += 1
        carries = carries_of[wire.mm2]
        if amps > carries * 1.0001:
            text = f"Neutral {wire.name}, {conductor_name(wire.mm2)}, carries {carries:.1f} A"
            text += f"; {amps:.1f} A can return by it."
            remedy = "Take a thicker neutral, or give each way its own."
            findings.append(Finding("W05", Verdict.FAILS, text, WireKey(wire.key), clause, remedy))
    aside = len(view.wiring.wires) - looked_at - neutrals
    evidence = (
        f"{looked_at} live wires of the supply against what protects them",
        f"{neutrals} neutrals against all that returns by them on one line",
        f"{aside} not looked at: earths, returns of control, what another panel feeds",
    )
    return ClauseResult("W05", Group.WIRING, "Wires of the supply protected", clause, evidence, tuple(findings))


def neutrals_cut_off_together(view: View) -> ClauseResult:
    """What shares a neutral is cut off by one device: else it stays live by the breaker that is left on."""
    clause = view.source("E14")
    findings: list[Finding] = []
    owners = {size.circuit: size.load for size in view.sizing.loads}
    for terminal, guards in shared_neutrals(view, GuardedWires(view)):
        shown = " and ".join(view.tag(guard) for guard in guards)
        text = f"{view.pin_label(terminal.pin('f'))} is the neutral of loads behind {shown}, which open one by one."
        load = owners.get(terminal.circuit)
        shares = any(other.neutral_of == load for other in view.loads)
        fix = QuickFix("A neutral each", "own neutrals", load) if load and shares else None
        remedy = "Give each its own neutral, or put them behind one breaker whose poles open together."
        findings.append(Finding("E14", Verdict.FAILS, text, DeviceKey(terminal.id), clause, remedy, fix))
    for left, right in apart(view.layout, view.circuits):
        together = next((tied for tied in view.circuits.tied if {left, right} <= set(tied)), None)
        if together:
            shown = f"{view.tag(left)} and {view.tag(right)}"
            text = f"{shown} share a neutral and stand apart: no handle tie reaches both."
            head = owners.get(circuit_of(together[0]))
            fix = QuickFix("A neutral each", "own neutrals", head) if head else None
            remedy = "Put them side by side, or give each its own neutral."
            findings.append(Finding("E14", Verdict.FAILS, text, DeviceKey(right), clause, remedy, fix))
    terminals = sum(device.kind.can(Can.NEUTRAL_TERMINAL) for device in view.circuits.devices)
    evidence = [f"{terminals} neutral terminals, each with what returns by it"]
    evidence += [f"one handle opens {' and '.join(view.tag(device) for device in tied)}" for tied in view.circuits.tied]
    return ClauseResult("E14", Group.PROTECTION, "Shared neutrals", clause, tuple(evidence), tuple(findings))


def _carries(mm2: float, laid: Laid) -> float:
    """What a wire carries, A: one of a size that the table does not have, like the next smaller one; 0 below all."""
    known = max((size for size in laid.sizes if size <= mm2 + 1e-9), default=0.0)
    return section_of(known, 0.0, "", laid).carries_a if known else 0.0


def least_sections(view: View) -> ClauseResult:
    """No conductor thinner than the rulebook's least."""
    clause = view.source("W02")
    findings = []
    for wire in view.wiring.wires:
        control = wire.stage in (WiringStage.CONTROL, WiringStage.DOOR, WiringStage.NEUTRAL)
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


def colours(view: View) -> ClauseResult:
    """Conductors in the colours of the rulebook."""
    clause = view.source("W03")
    used = sorted({(wire.stage.value, wire.colour) for wire in view.wiring.wires})
    findings = []
    if view.practice.colours is not Colours.RULEBOOK:
        findings.append(
            Finding(
                "W03",
                Verdict.JUDGE,
                f"Conductors are coloured so: {view.practice.colours.value}. The rulebook recommends black for "
                "power; another agreed scheme is allowed.",
                PartKey("practice"),
                clause,
                "Agree it with the customer, and sign; or follow the rulebook.",
                QuickFix("Follow the rulebook", "colours"),
            )
        )
    return ClauseResult(
        "W03",
        Group.WIRING,
        "Conductor colours",
        clause,
        tuple(f"{stage}: {colour}" for stage, colour in used),
        tuple(findings),
    )


def nameplate_complete(view: View) -> ClauseResult:
    """The nameplate says all it must."""
    clause = view.source("M01")
    findings = [
        Finding(
            "M01",
            Verdict.FAILS,
            f"Nameplate: {field.name.lower()} missing.",
            PartKey("nameplate"),
            clause,
            "Fill it in at the head of the Brief.",
        )
        for field in view.labels.nameplate
        if field.required and not field.value
    ]
    filled = [f"{f.name}: {f.value}" for f in view.labels.nameplate if f.value]
    return ClauseResult("M01", Group.MARKING, "Nameplate", clause, tuple(filled), tuple(findings))


def wires_marked(view: View) -> ClauseResult:
    """Both ends of every wire carry a marker that can hold its text."""
    clause = view.source("M02")
    markers = view.labels.on(Medium.WIRE)
    findings = [
        Finding(
            "M02",
            Verdict.FAILS,
            f"“{label.lines[0]}” is longer than a marker holds ({LONGEST_MARKER} characters).",
            label.key,
            clause,
            "Shorten the tag, or let markers say the number only.",
            QuickFix("Markers say the number", "short markers"),
        )
        for label in markers
        if len(label.lines[0]) > LONGEST_MARKER >= len(label.lines[0].split()[0])
    ]
    bare = sum(wire.net in view.names.number for wire in view.wiring.wires) - len(markers) // 2
    if bare and len(view.wiring.wires) > MARK_ALL_ABOVE:
        findings.append(
            Finding(
                "M02",
                Verdict.JUDGE,
                f"{bare} wires have no marker; above {MARK_ALL_ABOVE} wires in a panel every wire is marked.",
                PartKey("practice"),
                clause,
                "Mark every wire.",
                QuickFix("Mark every wire", "mark all"),
            )
        )
    return ClauseResult(
        "M02",
        Group.MARKING,
        "Wire markers",
        clause,
        (f"{len(markers)} markers for {len(view.wiring.wires)} wires",),
        tuple(findings),
    )


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
    named = {label.key: label.lines[0] for label in view.labels.on(Medium.LEGEND)}
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


MECHANICAL = (
    conductors_protected,
    neutrals_cut_off_together,
    conductor_currents,
    least_sections,
    colours,
    nameplate_complete,
    wires_marked,
    still_live_said,
    lamps_have_meaning,
)
