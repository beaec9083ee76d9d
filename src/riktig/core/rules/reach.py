"""Handle and operators within reach, and start beside its stop in one order over the whole door."""

from collections import defaultdict
from collections.abc import Iterator
from dataclasses import dataclass

from riktig.core.catalogue import Can
from riktig.core.door import PlacedOperator
from riktig.core.job import DeviceId
from riktig.core.keys import DeviceKey, Key, PartKey
from riktig.core.rules.model import ClauseResult, Finding, Group, QuickFix, Verdict
from riktig.core.rules.view import View
from riktig.core.standards import rule

__all__ = ["REACH"]

BESIDE_MM = 120.0
"""From the hole of a stop to that of its start (chosen by us: a hand's width)."""


def within_reach(view: View) -> ClauseResult:
    """The handle of the main switch and all operators hang between the lowest and the highest reach."""
    clause = view.source("P12")
    title = "Handle and operators within reach"
    american = view.rulebook.north_american
    highest = rule("highest handle in north america" if american else "highest handle")
    lowest = rule("lowest operator")
    heights: list[tuple[float, str, Key]] = []
    top = view.enclosure.height - view.enclosure.door_datum[1]
    for shaft in view.shafts:
        heights.append((top - shaft.on_door.y, f"handle of {view.tag(shaft.device)}", DeviceKey(shaft.device)))
    for seat in view.door.seats:
        if view.circuits.device(seat.device).kind.pins:
            heights.append((top - seat.y, view.tag(seat.device), DeviceKey(seat.device)))
    if not heights:
        return ClauseResult("P12", Group.PLATE, title, clause, (), (), "neither handle nor operator is drawn")
    low, high = min(heights, key=lambda item: item[0]), max(heights, key=lambda item: item[0])
    least_floor, most_floor = lowest.value - low[0], highest.value - high[0]
    evidence = [
        f"lowest: {low[1]}, {low[0]:.0f} mm above the lower edge of the box; highest: {high[1]}, {high[0]:.0f} mm",
        f"allowed from {lowest.value:g} to {highest.value:g} mm above the floor",
    ]
    if least_floor > most_floor:
        text = (
            f"From {low[1]} to {high[1]} are {high[0] - low[0]:.0f} mm: no height of the box brings both within reach."
        )
        finding = Finding("P12", Verdict.FAILS, text, low[2], clause, "Move the lowest up, or the handle down.")
        return ClauseResult("P12", Group.PLATE, title, clause, tuple(evidence), (finding,))
    window = f"{max(least_floor, 0):.0f} to {max(most_floor, 0):.0f} mm"
    hung = view.enclosure.above_floor
    if most_floor < 0:
        text = f"{high[1]} stands {high[0]:.0f} mm above the lower edge: too high wherever the box stands."
        finding = Finding("P12", Verdict.FAILS, text, high[2], clause, "Move it down, or take a lower box.")
        return ClauseResult("P12", Group.PLATE, title, clause, tuple(evidence), (finding,))
    if hung is None:
        text = f"How high the box hangs is not known; its lower edge may be {window} above the floor."
        remedy = "Enter the height in the Brief, with the enclosure, or sign that it will hang so."
        finding = Finding("P12", Verdict.JUDGE, text, PartKey("enclosure"), clause, remedy)
        return ClauseResult("P12", Group.PLATE, title, clause, tuple(evidence), (finding,))
    evidence.append(f"the box hangs {hung:g} mm above the floor")
    fits = round((max(least_floor, 0.0) + most_floor) / 2, -1)
    fix = QuickFix(f"Hang it {fits:g} mm above the floor", "hung at", f"{fits:g}")
    findings = [
        Finding("P12", Verdict.FAILS, f"{name} stands {hung + height:.0f} mm above the floor.", key, clause,
                f"Hang the box {window} above the floor.", fix)
        for height, name, key in (low, high)
        if not lowest.value - 0.5 <= hung + height <= highest.value + 0.5
    ]  # fmt: skip
    return ClauseResult("P12", Group.PLATE, title, clause, tuple(evidence), tuple(findings))


@dataclass(frozen=True, slots=True)
class _Pair:
    """A start and its stop on the door: how far the start stands to the right of the stop and below it, mm."""

    start: DeviceId
    stop: DeviceId
    across: float
    down: float

    @property
    def order(self) -> str:
        if abs(self.across) >= abs(self.down):
            return "start right of stop" if self.across > 0 else "start left of stop"
        return "start below stop" if self.down > 0 else "start above stop"


def start_beside_stop(view: View) -> ClauseResult:
    """Start and stop of one load stand together, and in the same order all over the door."""
    clause = view.source("P13")
    findings: list[Finding] = []
    by_order: dict[str, list[_Pair]] = defaultdict(list)
    for pair in _pairs(view):
        by_order[pair.order].append(pair)
        apart = max(abs(pair.across), abs(pair.down))
        if apart > BESIDE_MM:
            text = f"{view.tag(pair.start)} stands {apart:.0f} mm from its stop {view.tag(pair.stop)}."
            remedy = "Set them side by side, or sign that nobody can take another button for it."
            findings.append(Finding("P13", Verdict.JUDGE, text, DeviceKey(pair.start), clause, remedy))
    evidence = tuple(
        f"{order}: {', '.join(f'{view.tag(pair.start)} and {view.tag(pair.stop)}' for pair in pairs)}"
        for order, pairs in by_order.items()
    )
    if len(by_order) > 1:
        rarest = min(by_order.values(), key=len)
        text = f"The order of start and stop changes over the door: {'; '.join(evidence)}."
        remedy = "Set them in one order, or sign that the legends suffice."
        findings.append(Finding("P13", Verdict.JUDGE, text, DeviceKey(rarest[0].start), clause, remedy))
    none = "" if by_order else "no start with a stop of its own stands on the door"
    return ClauseResult("P13", Group.PLATE, "Start beside its stop", clause, evidence, tuple(findings), none)


def _pairs(view: View) -> Iterator[_Pair]:
    """Of every circuit on the door its stop, with the start that stands nearest."""
    buttons: dict[str, tuple[list[PlacedOperator], list[PlacedOperator]]] = defaultdict(lambda: ([], []))
    for seat in view.door.seats:
        kind = view.circuits.device(seat.device).kind
        starts, stops = buttons[seat.group]
        if kind.can(Can.STARTS):
            starts.append(seat)
        elif kind.can(Can.STOPS):
            stops.append(seat)
    for starts, stops in buttons.values():
        if starts and stops:
            stop = stops[0]
            start = min(starts, key=lambda seat: abs(seat.x - stop.x) + abs(seat.y - stop.y))
            yield _Pair(start.device, stop.device, start.x - stop.x, start.y - stop.y)


REACH = (within_reach, start_beside_stop)
