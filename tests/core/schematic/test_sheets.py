"""Sheets: every element has one place, coil and contacts refer to each other, nothing overlaps."""

import pytest
from shapely import box as shape

from riktig.core.annotation import SHEET_DRAWINGS
from riktig.core.evaluation import Evaluation
from riktig.core.geometry import Drawing, Text, bounds_of
from riktig.core.job import Insertable, Job, add_load
from riktig.core.schematic import CIRCUITS, SHEETS, contact_places, elements_of, insert_contact, with_names_recorded
from tests.core.schematic.builders import START, STOP, one_motor
from tests.effort import some
from tests.shared_plan import plan_for


def texts(drawing: Drawing) -> list[str]:
    return [mark.text for mark in drawing.shapes if isinstance(mark, Text)]


def test_every_element_stands_on_a_sheet_inside_its_grid(two_motors: Job) -> None:
    evaluation = plan_for(two_motors)
    places = evaluation.get(SHEETS).places
    for rung in some(evaluation.get(CIRCUITS).rungs):
        for element in elements_of(rung.path):
            place = places[element.id]
            assert 0 <= place.column <= 9
            assert place.row in "ABCDEF"


def test_columns_run_from_nought_to_nine_and_rows_from_a_to_f(evaluation: Evaluation[Job]) -> None:
    for drawing in some(evaluation.get(SHEET_DRAWINGS)):
        assert [*"0123456789"] == list(texts(drawing)[:10])
        assert [*"ABCDEF"] == list(texts(drawing)[10:16])


def test_coils_carry_the_places_of_their_contacts_and_contacts_that_of_their_coil(evaluation: Evaluation[Job]) -> None:
    circuits, sheets = evaluation.get(CIRCUITS), evaluation.get(SHEETS)
    contactor = next(d for d in circuits.devices if d.kind_id == "contactor")
    rows = dict(contact_places(sheets, circuits, contactor))
    assert rows["21-22"] == rows["31-32"] == "spare"
    for unit, element in (("1-2", "c1.K/1-2"), ("13-14", "c1.K/13-14"), ("43-44", "c1.K/43-44")):
        assert rows[unit] == str(sheets.places[element])  # type: ignore[index]
    coil = sheets.places["c1.K/A1-A2"]  # type: ignore[index]
    control = texts(evaluation.get(SHEET_DRAWINGS)[1])
    assert control.count(f"coil {coil}") == 2
    assert rows["13-14"] in control


def test_numbers_tags_and_pin_markings_are_written(evaluation: Evaluation[Job]) -> None:
    control = set(texts(evaluation.get(SHEET_DRAWINGS)[1]))
    assert {"F2", "F3", "S1", "S2", "K1", "H1", "H2", "95", "96", "13", "14", "A1", "A2", "X1"} <= control
    assert {"7", "8", "9", "10", "11", "12"} <= control
    power = set(texts(evaluation.get(SHEET_DRAWINGS)[0]))
    assert {"W1", "X1", "Q1", "F1", "K1", "F3", "X2", "M1", "1", "4", "M1-U", "L1", "N", "PE"} <= power


@pytest.mark.parametrize("extra", range(4))
def test_marks_stay_on_the_sheet_and_seats_of_a_control_sheet_do_not_overlap(extra: int) -> None:
    job = one_motor()
    for n in range(extra):
        job = with_names_recorded(insert_contact(job, STOP, Insertable.STOP_BUTTON, f"stop {n}"))
        job = with_names_recorded(insert_contact(job, START, Insertable.START_BUTTON, f"start {n}", parallel=True))
    evaluation = plan_for(job)
    for drawing in some(evaluation.get(SHEET_DRAWINGS)):
        for mark in some(drawing.shapes):
            if not isinstance(mark, Text):
                assert bounds_of(mark).x >= 0
                assert bounds_of(mark).right <= drawing.width
    seats = evaluation.get(SHEETS).sheets[1].seats
    shapes = [shape(s.x - 4, s.top + 0.1, s.x + 4, s.bottom - 0.1) for s in seats]
    for i, one in some(enumerate(shapes)):
        assert not any(one.intersects(other) for other in shapes[i + 1 :])


def test_a_fourth_motor_opens_another_power_sheet(two_motors: Job) -> None:
    job = add_load(add_load(two_motors, "belt", 1.1), "fan", 3)
    sheets = plan_for(job).get(SHEETS).sheets
    assert [s.kind.value for s in sheets] == ["power"] * 2 + ["control"] * 5 + ["earth tree"] + ["symbols used"]
    assert [s.number for s in sheets] == [*range(1, 10)]


def test_the_same_job_gives_the_same_drawing(demo: Job) -> None:
    assert Evaluation(demo).get(SHEET_DRAWINGS) == Evaluation(demo).get(SHEET_DRAWINGS)
