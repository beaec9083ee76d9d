"""Clauses about the plate and the door: what fits, what is placed, how full, how warm."""

from riktig.core.catalogue import Can
from riktig.core.job import EntrySide, Ventilation
from riktig.core.keys import DeviceKey, DuctKey, PartKey
from riktig.core.plate import apart, groups_of
from riktig.core.rules.model import ClauseResult, Finding, Group, QuickFix, Verdict
from riktig.core.rules.view import View
from riktig.core.standards import COMMON_PRACTICE
from riktig.core.wiring import duct_target, fill_limit

__all__ = ["PLATE_CLAUSES"]


def ducts_hold(view: View) -> ClauseResult:
    """Room is left in every duct."""
    limit = fill_limit(view.practice)
    clause = limit.source
    findings = [
        Finding(
            "P01",
            Verdict.FAILS,
            f"{use.name} is {use.share:.0%} full at its fullest place; {limit.value:.0%} is the limit.",
            DuctKey(use.name),
            clause,
            f"Use a duct {use.width:g} mm wide." if use.width else "No duct is wide enough: lead wires another way.",
            QuickFix("Next wider duct", "wider duct"),
        )
        for use in view.ducts
        if use.share > limit.value
    ]
    wanted = duct_target(view.practice)
    findings += [
        Finding(
            "P01",
            Verdict.JUDGE,
            f"{use.name} is {use.share:.0%} full at its fullest place; the practice stops at {wanted:.0%}.",
            DuctKey(use.name),
            clause,
            "Use the next wider duct, or sign that nothing more comes through it.",
            QuickFix("Next wider duct", "wider duct"),
        )
        for use in view.ducts
        if wanted + 1e-9 < use.share <= limit.value
    ]
    longer = [wire for wire in view.wiring.wires if wire.detour]
    detours = [
        f"{wire.number}: {wire.detour:.0f} mm further, by {' '.join(wire.ducts)}, for room or away from a drive"
        for wire in longer
    ]
    shared = [f"{use.name} holds {', '.join(use.families)}" for use in view.ducts if use.shared]
    return ClauseResult(
        "P01",
        Group.PLATE,
        "Duct fill",
        clause,
        (*(f"{use.name}: {use.share:.0%}" for use in view.ducts), *shared, *detours),
        tuple(findings),
    )


def everything_fits(view: View) -> ClauseResult:
    """Parts, doors and rails fit, with room for fingers."""
    clause = view.source("P02")
    findings = [
        Finding(
            "P02",
            Verdict.FAILS,
            f"{misfit.said(view.names.tag)}.",
            misfit.key,
            clause,
            "Move it, or take a larger enclosure.",
            QuickFix("Plan for me", "plan")
            if view.plate_fix
            else QuickFix("Next larger enclosure", "larger enclosure"),
        )
        for misfit in view.layout.misfits
    ]
    findings += [
        Finding(
            "P02",
            Verdict.FAILS,
            f"{misfit.said(view.names.tag)}.",
            misfit.key,
            clause,
            "Move it on the door, or take a larger enclosure.",
            QuickFix("Plan the door", "plan door")
            if view.door_fix
            else QuickFix("Next larger enclosure", "larger enclosure"),
        )
        for misfit in view.door.misfits
    ]
    return ClauseResult(
        "P02",
        Group.PLATE,
        "Everything fits",
        clause,
        (f"{len(view.layout.seats)} on the plate, {len(view.door.seats)} on the door",),
        tuple(findings),
    )


def everything_placed(view: View) -> ClauseResult:
    """Every part has a place, every screwed part its holes, and no hole spoils another."""
    clause = COMMON_PRACTICE
    findings = [
        Finding(
            "P03",
            Verdict.FAILS,
            blocker.text,
            blocker.where,
            clause,
            blocker.remedy,
            QuickFix("Plan for me", "plan") if blocker.by_planning else None,
        )
        for blocker in (*view.blockers, *view.gland_blockers)
    ]
    if view.enclosure.ventilation is Ventilation.FAN and not _has_fan(view):
        findings.append(
            Finding(
                "P03",
                Verdict.JUDGE,
                "The box is cooled by filter and fan, but neither fan nor filter has a cut-out.",
                PartKey("door"),
                clause,
                "Draw the fan in Circuits, or add openings for fan and filter on the Door station.",
            )
        )
    return ClauseResult(
        "P03", Group.PLATE, "Every part placed, with its holes", clause, (f"{len(view.holes)} holes",), tuple(findings)
    )


def _has_fan(view: View) -> bool:
    """Whether a fan is drawn, or an opening is made for one."""
    drawn = any(device.kind.can(Can.VENTILATES) for device in view.circuits.devices)
    return drawn or any("fan" in opening.purpose.lower() for opening in view.openings)


def kept_together(view: View) -> ClauseResult:
    """What is one thing stands side by side: a controller's cards, an interlock between its contactors."""
    findings = [
        Finding(
            "P10",
            Verdict.JUDGE,
            f"{view.tag(right)} does not stand beside {view.tag(left)}, to which it belongs.",
            DeviceKey(right),
            COMMON_PRACTICE,
            "Move them together, or sign that they work apart.",
            QuickFix("Plan for me", "plan"),
        )
        for left, right in apart(view.layout, view.circuits)
    ]
    groups = groups_of(view.circuits)
    none = "" if groups else "no controller with cards and no two contactors that exclude each other stand here"
    evidence = tuple(", ".join(map(view.tag, group)) for group in groups)
    title = "What belongs together"
    return ClauseResult("P10", Group.PLATE, title, COMMON_PRACTICE, evidence, tuple(findings), none)


def terminals_at_entry(view: View) -> ClauseResult:
    """Terminals stand towards the side where their cables come in: those of the supply, and those of the field.

    It counts what is filled: on a plate with room to spare the last row of parts is the row at the entry.
    """
    on_rails = [stand.body for stand in view.layout.stands if stand.rail]
    top, bottom = min((b.y for b in on_rails), default=0.0), max((b.bottom for b in on_rails), default=0.0)
    middle, box = (top + bottom) / 2, view.enclosure
    findings: list[Finding] = []
    evidence: list[str] = []
    for strip in view.strips.strips:
        seats = [seat for row in strip.rows if (seat := view.layout.seat(row.device))]
        if not seats:
            continue
        side = box.entry if strip.purpose == "incoming supply" else box.field_entry
        height = sum(seat.rect.centre.y for seat in seats) / len(seats)
        is_there = (height < middle) is (side is EntrySide.TOP)
        if is_there:
            evidence.append(f"{strip.tag}: {side.value}")
            continue
        text = f"{strip.tag} stands away from the {side.value}, where its cables come in: they cross the plate."
        remedy = "Move the strip, or say in the Brief where the cables come in."
        where = DeviceKey(strip.rows[0].device)
        findings.append(Finding("P11", Verdict.JUDGE, text, where, COMMON_PRACTICE, remedy))
    lines = tuple(evidence) or (f"{len(view.strips.strips)} strips",)
    return ClauseResult("P11", Group.PLATE, "Terminals at the cable entry", COMMON_PRACTICE, lines, tuple(findings))


def spare_room(view: View) -> ClauseResult:
    """Room to grow on the rails."""
    clause = f"spare room of the practice ({COMMON_PRACTICE})"
    want = view.practice.spare_share
    total = sum(rail.length for rail in view.layout.rails)
    free = sum(view.layout.free_on(rail) for rail in view.layout.rails)
    share = free / total if total else 1.0
    findings = []
    if share < want:
        findings.append(
            Finding(
                "P04",
                Verdict.FAILS,
                f"{share:.0%} of the rail is free; the practice asks for {want:.0%}.",
                PartKey("plate"),
                clause,
                "Take a larger enclosure.",
                QuickFix("Next larger enclosure", "larger enclosure"),
            )
        )
    evidence = [
        f"{rail.name}: {view.layout.free_on(rail):.0f} mm of {rail.length:.0f} mm free" for rail in view.layout.rails
    ]
    return ClauseResult("P04", Group.PLATE, "Spare room", clause, tuple(evidence), tuple(findings))


def stays_cool(view: View) -> ClauseResult:
    """The air inside stays at what everything is sized for."""
    clause = view.source("P05")
    inside_air = view.inside_air
    findings = []
    if inside_air.too_warm:
        findings.append(
            Finding(
                "P05",
                Verdict.FAILS,
                f"{inside_air.inside_c:g} °C inside with the loads running; "
                f"everything is sized for {inside_air.limit_c:g} °C.",
                PartKey("plate"),
                clause,
                f"Take {inside_air.remedy}."
                if inside_air.fan or inside_air.box
                else f"{inside_air.remedy.capitalize()}.",
                QuickFix(f"Take a box of {inside_air.box.name}", "cool box") if inside_air.box else None,
            )
        )
    evidence = (
        f"{inside_air.total_w:g} W, {inside_air.area_m2:.2f} m²: {inside_air.inside_c:g} °C",
        *inside_air.why.lines,
    )
    return ClauseResult("P05", Group.PLATE, "The box stays cool enough", clause, evidence, tuple(findings))


PLATE_CLAUSES = (
    ducts_hold,
    everything_fits,
    everything_placed,
    spare_room,
    stays_cool,
    kept_together,
    terminals_at_entry,
)
