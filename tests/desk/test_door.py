"""The Door station in the real window: operators dragged, nudged, locked; from behind; openings of one's own."""

import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtWidgets import QMenu

from riktig.core.door import DOOR, PlacedOperator
from riktig.core.geometry import Point, Text
from riktig.core.holes import METAL_HOLES
from riktig.core.job import DeviceId, set_enclosure
from riktig.core.keys import DeviceKey
from riktig.core.plate import LAYOUT, RULER
from riktig.core.rules import RULES, Verdict
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.stations.door import DoorStation
from tests.conftest import Doing
from tests.desk.conftest import click_on, drag, press, settle_window

S1, S2, H1, Q = (DeviceId(name) for name in ("c1.S.stop", "c1.S.start", "c1.H.run", "c0.Q"))


@pytest.fixture
def station(window: MainWindow) -> DoorStation:
    window.go_to("Door")
    settle_window()
    station = window.stations["Door"]
    assert isinstance(station, DoorStation)
    return station


def seat_of(session: Session, device: DeviceId) -> PlacedOperator:
    seat = session.evaluation.get(DOOR).seat(device)
    assert seat is not None
    return seat


def at(station: DoorStation, x: float, y: float) -> QPointF:
    return station.view.to_px(Point(x + RULER, y + RULER))


def drag_to(station: DoorStation, device: DeviceId, x: float, y: float, *, drop: bool = True) -> None:
    seat = seat_of(station.session, device)
    drag(station.view, at(station, seat.x, seat.y), at(station, x, y), drop=drop)


def said_on(station: DoorStation) -> str:
    return " ".join(mark.text for mark in station.view.overlay if isinstance(mark, Text))


def test_a_dragged_operator_stays_where_it_is_dropped_and_is_one_step_of_undo(
    station: DoorStation, session: Session
) -> None:
    before = {seat.device: (seat.x, seat.y) for seat in session.evaluation.get(DOOR).seats}
    drag_to(station, S1, 255.0, 430.0)
    after = seat_of(session, S1)
    assert after.x == pytest.approx(255.0, abs=1.5)
    assert after.y == pytest.approx(430.0, abs=1.5)
    assert {k: v for k, v in before.items() if k != S1} == {
        seat.device: (seat.x, seat.y) for seat in session.evaluation.get(DOOR).seats if seat.device != S1
    }
    assert session.undo_name == "move S1"
    session.undo()
    assert (seat_of(session, S1).x, seat_of(session, S1).y) == before[S1]


def test_while_it_is_dragged_it_catches_on_the_lines_of_others_and_says_where_it_is(
    station: DoorStation, session: Session
) -> None:
    line = seat_of(session, H1).y
    drag_to(station, S1, 290.0, line + 2.5, drop=False)
    assert f"↓ {line:g}" in said_on(station)
    station.view.gesture.cancel()  # type: ignore[union-attr]


def test_what_does_not_fit_says_so_by_how_much_while_one_drags(station: DoorStation, session: Session) -> None:
    other = seat_of(session, S2)
    drag_to(station, S1, other.x + 8, other.y, drop=False)
    assert "too near S2" in said_on(station)
    drag_to(station, S1, other.x + 8, other.y)
    assert "Does not fit: " in station.words.text()
    assert any(r.code == "P02" and r.verdict is Verdict.FAILS for r in session.evaluation.get(RULES))


def test_the_handle_is_not_dragged_from_its_shaft(
    station: DoorStation, session: Session, said: list[tuple[str, bool]]
) -> None:
    before = seat_of(session, Q)
    drag_to(station, Q, before.x + 60, before.y + 60)
    assert seat_of(session, Q) == before


def test_several_are_chosen_by_a_frame_and_go_together(station: DoorStation, session: Session) -> None:
    one, other = seat_of(session, S2), seat_of(session, S1)
    drag(station.view, at(station, one.x - 80, one.y - 10), at(station, other.x + 40, other.y + 25))
    assert set(station.chosen) == {S1, S2}
    drag_to(station, S1, other.x + 70, other.y + 40)
    moved = seat_of(session, S2)
    assert moved.x - one.x == pytest.approx(seat_of(session, S1).x - other.x)
    assert moved.y - one.y == pytest.approx(seat_of(session, S1).y - other.y)


def test_keys_nudge_and_lock(station: DoorStation, session: Session, said: list[tuple[str, bool]]) -> None:
    click_on(station.view, DeviceKey(S1))
    before = seat_of(session, S1)
    for _ in range(3):
        press(station.view, Qt.Key.Key_Right)
    press(station.view, Qt.Key.Key_Down, Qt.KeyboardModifier.ShiftModifier)
    after = seat_of(session, S1)
    assert (after.x - before.x, after.y - before.y) == (3.0, 10.0)
    press(station.view, Qt.Key.Key_L)
    assert seat_of(session, S1).locked
    press(station.view, Qt.Key.Key_Left)
    assert "locked" in said[-1][0]
    assert seat_of(session, S1).x == after.x


def test_plan_for_me_puts_all_but_the_locked_back(station: DoorStation, session: Session) -> None:
    first = {seat.device: (seat.x, seat.y) for seat in session.evaluation.get(DOOR).seats}
    drag_to(station, H1, 300.0, 480.0)
    station.plan_button.click()
    settle_window()
    assert {seat.device: (seat.x, seat.y) for seat in session.evaluation.get(DOOR).seats} == first


def test_rows_and_columns_by_the_menu(station: DoorStation, session: Session) -> None:
    station.chosen = (S1, S2)
    menu = QMenu()
    station.fill_menu(menu)
    acts = {act.text(): act for act in menu.actions()}
    assert not acts["At even distances"].isEnabled()
    drag_to(station, S1, 250.0, 420.0)
    station.chosen = (S1, S2)
    acts["In one column"].trigger()
    assert seat_of(session, S2).x == seat_of(session, S1).x


def test_from_behind_left_and_right_change_over_and_nothing_is_dragged(station: DoorStation, session: Session) -> None:
    front = station.view.centre_of(DeviceKey(S1))
    press(station.view, Qt.Key.Key_B)
    assert station.view.drawing.title == "Door, from behind"
    words = " ".join(m.text for m in station.view.drawing.shapes if isinstance(m, Text))
    assert "58 deep" in words
    assert front is not None
    before = seat_of(session, S1)
    spot = station.view.centre_of(DeviceKey(S1))
    assert spot is not None
    drag(station.view, spot, spot + QPointF(60, 40))
    assert seat_of(session, S1) == before
    click_on(station.view, DeviceKey(S1))
    press(station.view, Qt.Key.Key_Right)
    assert seat_of(session, S1).x == before.x - 1, "to the right as one sees it"


def test_what_stands_behind_is_laid_over_the_door(station: DoorStation, session: Session) -> None:
    station.shadows.click()
    laid = [mark.text for mark in station.view.laid if isinstance(mark, Text)]
    assert {"K1", "Q1", "D1"} <= set(laid)
    things = len(session.evaluation.get(LAYOUT).seats) + len(session.evaluation.get(LAYOUT).ducts)
    assert len([m for m in station.view.laid if not isinstance(m, Text)]) == things


def test_two_doors_are_drawn_with_a_datum_each(station: DoorStation, session: Session) -> None:
    session.edit("two doors", Doing(lambda job: set_enclosure(job, doors=2)))
    settle_window()
    assert station.view.drawing.title == "Doors, from the front"
    assert "170 × 570 mm and 170 × 570 mm" in station.words.text()


def test_an_opening_of_ones_own_is_added_found_wanting_and_taken_out(
    station: DoorStation, session: Session, said: list[tuple[str, bool]]
) -> None:
    row = station.openings
    row.add.click()
    assert "needs words" in said[-1][0]
    row.surface.setCurrentText("right side")
    row.purpose.setText("socket")
    row.rating.setText("IP44")
    row.fields["x"].setValue(80.0)
    row.add.click()
    settle_window()
    hole = next(h for h in session.evaluation.get(METAL_HOLES) if h.purpose == "socket")
    assert (hole.number, hole.x, hole.drill, hole.rating) == ("SR1", 80.0, 22.5, "IP44")
    assert any(f.code == "P06" and "IP44" in f.message for r in session.evaluation.get(RULES) for f in r.findings)
    station.refresh()
    row.drop.click()
    assert not session.job.openings


def test_the_shaft_says_where_how_long_and_what_a_wall_does_to_it(station: DoorStation) -> None:
    said = station.shaft.text()
    assert "centre 82, 112.5 mm, cut it to 129.5 mm" in said
    assert "misses by 0.4 mm at worst" in said


def test_the_details_of_an_operator_are_its_build_up(
    window: MainWindow, station: DoorStation, session: Session
) -> None:
    from riktig.core.views import details_of

    click_on(station.view, DeviceKey(S1))
    found = details_of(session.evaluation, DeviceKey(S1), session.records)
    assert found is not None
    section = next(s for s in found.sections if s.title.startswith("Build-up"))
    rows = {row.name: row.value for row in section.rows}
    assert rows["5"] == "NC block 1-2 left"
    assert rows["Contacts"] == "1 of 6 places"
    assert rows["Moved by"] == "anyone"


def test_what_is_chosen_is_cut_from_the_side_and_the_door_does_not_jump(station: DoorStation) -> None:
    before = (station.view.scale, station.view.centre_of(DeviceKey(S1)))
    click_on(station.view, DeviceKey(S1))
    assert station.section.drawing.title == "S1, cut from the side"
    assert (station.view.scale, station.view.centre_of(DeviceKey(S1))) == before
    click_on(station.view, DeviceKey(Q))
    assert station.section.drawing.title == "Q1, cut from the side"
