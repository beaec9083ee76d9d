"""Suspects on plate and sheets: every one that is listed has its number where it stands, and nothing else has one."""

import re

import pytest
from tests.effort import some
from tests.shared_plan import plan_for

from riktig.core.annotation import SHEET_DRAWINGS
from riktig.core.evaluation import Evaluation
from riktig.core.geometry import Drawing, Line, Poly, Rect, Text, bounds_of
from riktig.core.job import Job
from riktig.core.keys import DeviceKey, NetKey, WireKey
from riktig.core.proving import DEAD_PANEL, PIN_PLACES, Suspect, fault_keys, single_faults
from riktig.core.schematic import NETS
from riktig.core.simulation import FaultKind, InjectedFault
from riktig.core.views import MOST_NUMBERED, device_of, sheets_of_suspects, suspects_on_plate
from riktig.core.wiring import BARE_PLATE_DRAWING, WIRING

NUMBERS = re.compile(r"\d+(, \d+)*")


@pytest.fixture
def faults(evaluation: Evaluation[Job]) -> dict[FaultKind, list[InjectedFault]]:
    of_kind: dict[FaultKind, list[InjectedFault]] = {}
    for fault in single_faults(evaluation.get(DEAD_PANEL)):
        of_kind.setdefault(fault.wrong, []).append(fault)
    return of_kind


def badges(before: Drawing, after: Drawing) -> list[Text]:
    """The numbers that were added to a drawing."""
    return [mark for mark in after.shapes[len(before.shapes) :] if isinstance(mark, Text)]


def sheets(evaluation: Evaluation[Job], suspects: list[Suspect]) -> tuple[Drawing, ...]:
    return sheets_of_suspects(evaluation.get(SHEET_DRAWINGS), evaluation.get(WIRING), evaluation.get(NETS), suspects)


def plate(evaluation: Evaluation[Job], suspects: list[Suspect]) -> Drawing:
    bare, places = evaluation.get(BARE_PLATE_DRAWING), evaluation.get(PIN_PLACES)
    return suspects_on_plate(bare, evaluation.get(WIRING), places, suspects)


def test_every_suspect_has_its_number_on_a_sheet(
    evaluation: Evaluation[Job], faults: dict[FaultKind, list[InjectedFault]]
) -> None:
    listed = [Suspect((of_kind[0],), 0.1, 1) for of_kind in faults.values()][:MOST_NUMBERED]
    before = {sheet.title: sheet for sheet in evaluation.get(SHEET_DRAWINGS)}
    numbers: set[int] = set()
    for page in some(sheets(evaluation, listed)):
        for text in badges(before[page.title], page):
            assert NUMBERS.fullmatch(text.text)
            numbers |= {int(number) for number in text.text.split(", ")}
    assert numbers == set(range(1, len(listed) + 1))


def test_a_wire_is_drawn_on_its_way_and_at_its_net_and_nowhere_else(
    evaluation: Evaluation[Job], faults: dict[FaultKind, list[InjectedFault]]
) -> None:
    fault = faults[FaultKind.OFF][0]
    (key,) = fault_keys((fault,))
    assert isinstance(key, WireKey)
    wire = evaluation.get(WIRING).by_key[key.wire]
    suspects = [Suspect((fault,), 1.0, 1)]
    added = plate(evaluation, suspects).shapes[len(evaluation.get(BARE_PLATE_DRAWING).shapes) :]
    assert {mark.key for mark in added if isinstance(mark, Poly) and mark.layer == "route"} == {key}
    red = [
        mark
        for page in sheets(evaluation, suspects)
        for mark in page.shapes
        if isinstance(mark, Line) and mark.role == "fails" and mark.key
    ]
    assert {mark.key for mark in some(red)} == {NetKey(wire.net)}


def test_a_part_is_framed_where_it_is_drawn(
    evaluation: Evaluation[Job], faults: dict[FaultKind, list[InjectedFault]]
) -> None:
    fault = faults[FaultKind.BLOWN][0]
    (key,) = fault_keys((fault,))
    assert isinstance(key, DeviceKey)
    bare = evaluation.get(BARE_PLATE_DRAWING)
    drawn = plate(evaluation, [Suspect((fault,), 1.0, 1)])
    frames = [bounds_of(mark) for mark in drawn.shapes[len(bare.shapes) :] if isinstance(mark, Poly)]
    marks = [bounds_of(mark) for mark in bare.shapes if mark.key and device_of(mark.key) == key.device]

    def inside(inner: Rect, outer: Rect) -> bool:
        return outer.x <= inner.x and outer.y <= inner.y and inner.right <= outer.right and inner.bottom <= outer.bottom

    body = max(marks, key=lambda area: area.width * area.height)
    assert any(inside(body, frame) for frame in frames)


def test_places_that_no_reading_tells_apart_share_a_number(
    evaluation: Evaluation[Job], faults: dict[FaultKind, list[InjectedFault]]
) -> None:
    first, second, third = faults[FaultKind.OFF][:3]
    drawn = plate(evaluation, [Suspect((first,), 0.6, 1, ((second,),)), Suspect((third,), 0.4, 1)])
    assert sorted(text.text for text in badges(evaluation.get(BARE_PLATE_DRAWING), drawn)) == ["1", "1", "2"]


def test_nothing_suspected_leaves_no_sheet_and_the_plate_as_it_is() -> None:
    from riktig.demo_job import wash_drum

    evaluation = plan_for(wash_drum())
    assert sheets(evaluation, []) == ()
    assert plate(evaluation, []).shapes == evaluation.get(BARE_PLATE_DRAWING).shapes
