"""The Plate station in the real window: planned while one watches, moved by hand, typed, measured, layered."""

from collections.abc import Callable
from itertools import pairwise
from pathlib import Path

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QMenu

from riktig.core.edits import AddLoad
from riktig.core.geometry import Point, Poly, Text
from riktig.core.job import DeviceId, JoinHow, add_load
from riktig.core.keys import DeviceKey, WireKey, read_key
from riktig.core.plate import LAYOUT, RULER, Edge, Layout
from riktig.core.wiring import WIRING
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.stations.plate import PlateStation
from riktig.desk.stations.plate import layers as names
from tests.conftest import Doing
from tests.desk.conftest import drag, press, settle_window
from tests.waiting import let_pass

FC, F, Q, K = (DeviceId(name) for name in ("c1.FC", "c1.F", "c0.Q", "c1.K"))


@pytest.fixture
def station(window: MainWindow) -> PlateStation:
    window.go_to("Plate")
    settle_window()
    station = window.stations["Plate"]
    assert isinstance(station, PlateStation)
    return station


def layout_of(session: Session) -> Layout:
    return session.evaluation.get(LAYOUT)


def x_of(session: Session, device: DeviceId) -> float:
    seat = layout_of(session).seat(device)
    assert seat is not None
    return seat.rect.x


def at(station: PlateStation, x: float, y: float) -> QPointF:
    return station.view.to_px(Point(x + RULER, y + RULER))


def wait_for(there: Callable[[], bool], ms: int = 20_000) -> None:
    for _ in range(ms // 20):
        if there():
            return
        let_pass(20)
    raise AssertionError("it never came")


def choose(station: PlateStation, *devices: DeviceId) -> None:
    for n, device in enumerate(devices):
        spot = station.view.centre_of(DeviceKey(device))
        assert spot is not None
        modifier = Qt.KeyboardModifier.ControlModifier if n else Qt.KeyboardModifier.NoModifier
        QTest.mouseClick(station.view, Qt.MouseButton.LeftButton, modifier, spot.toPoint())


class TestPlanForMe:
    def test_it_betters_the_plan_as_one_step_and_says_what_it_reached(
        self, station: PlateStation, session: Session
    ) -> None:
        before, metres = session.job, sum(w.length for w in session.evaluation.get(WIRING).wires)
        station.plan_button.click()
        assert station.plan_button.text() == "Stop"
        wait_for(lambda: not station.run.running)
        settle_window()
        assert session.undo_name == "plan for me"
        assert layout_of(session).misfits == ()
        assert sum(w.length for w in session.evaluation.get(WIRING).wires) < metres
        assert "wire on the plate" in station.words.text()
        assert "no plan" in station.words.text() or "all plans" in station.words.text()
        session.undo()
        assert session.job is before
        assert "wire on the plate" not in station.words.text(), "what was reached is not what stands now"

    def test_it_can_be_stopped_and_keeps_the_best_so_far(
        self, station: PlateStation, session: Session, monkeypatch: pytest.MonkeyPatch
    ) -> None:
        monkeypatch.setattr("riktig.desk.stations.plate.plan_run.SECONDS", 60.0)
        for n in range(3):
            session.edit("add", AddLoad(f"pump {n}", {"kw": 1.5}))
        station.plan_button.click()
        wait_for(lambda: station.run.best is not None)
        station.plan_button.click()
        wait_for(lambda: not station.run.running, 5_000)
        assert session.undo_name == "plan for me"
        assert station.plan_button.text() == "Plan for me"

    def test_an_edit_meanwhile_ends_the_search_and_is_not_lost(
        self, station: PlateStation, session: Session, monkeypatch: pytest.MonkeyPatch
    ) -> None:
        monkeypatch.setattr("riktig.desk.stations.plate.plan_run.SECONDS", 60.0)
        for n in range(3):
            session.edit("add", AddLoad(f"pump {n}", {"kw": 1.5}))
        station.plan_button.click()
        wait_for(lambda: station.run.best is not None)
        session.edit("one more", Doing(lambda job: add_load(job, "belt", 0.75)))
        wait_for(lambda: not station.run.running, 5_000)
        assert session.undo_name == "one more"

    def test_what_is_locked_stays(self, station: PlateStation, session: Session) -> None:
        choose(station, FC)
        press(station.view, Qt.Key.Key_Right)
        press(station.view, Qt.Key.Key_L)
        seat = layout_of(session).seat(FC)
        station.plan_button.click()
        wait_for(lambda: not station.run.running)
        assert layout_of(session).seat(FC) == seat


class TestByHand:
    def test_with_shift_the_neighbours_make_room(self, station: PlateStation, session: Session) -> None:
        choose(station, FC)
        start = station.view.centre_of(DeviceKey(FC))
        other = layout_of(session).seat(F)
        assert start is not None
        assert other is not None
        end = at(station, other.rect.x + 8, other.rect.centre.y)
        QTest.mousePress(station.view, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.ShiftModifier, start.toPoint())
        for share in (0.3, 0.7, 1.0):
            spot = (start + (end - start) * share).toPoint()
            event_at(station, spot, Qt.KeyboardModifier.ShiftModifier)
        QTest.mouseRelease(station.view, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.ShiftModifier, end.toPoint())
        assert [m for m in layout_of(session).misfits if FC in (m.device, m.against)] == []
        assert x_of(session, F) > other.rect.x, "the breaker made room"
        session.undo()
        assert layout_of(session).seat(F) == other, "one step"

    def test_a_rail_is_dragged_with_all_that_stands_on_it(self, station: PlateStation, session: Session) -> None:
        rail = layout_of(session).rails[1]
        on_it = {s.device: s.rect for s in layout_of(session).seats if s.rail == 2}
        start = at(station, rail.x2 - 40, rail.y)
        drag(station.view, start, start + QPointF(0, 8 * station.view.scale))
        moved = layout_of(session).rails[1]
        assert moved.y == pytest.approx(rail.y + 8, abs=1)
        for seat in layout_of(session).seats:
            if seat.rail == 2:
                assert seat.rect.y - on_it[seat.device].y == pytest.approx(moved.y - rail.y)
        session.undo()
        assert layout_of(session).rails[1] == rail

    def test_the_end_of_a_rail_makes_it_shorter(self, station: PlateStation, session: Session) -> None:
        rail = layout_of(session).rails[0]
        start = at(station, rail.x2 - 2, rail.y)
        drag(station.view, start, start + QPointF(-30 * station.view.scale, 0))
        assert layout_of(session).rails[0].length == pytest.approx(rail.length - 30, abs=1.5)

    def test_a_duct_that_is_dragged_into_parts_says_so_and_they_say_so(
        self, station: PlateStation, session: Session
    ) -> None:
        duct = layout_of(session).ducts[3]
        start = at(station, duct.rect.x + 60, duct.rect.centre.y)
        drag(station.view, start, start + QPointF(0, 60 * station.view.scale), drop=False)
        assert any("mm more" in m.text or "mm in" in m.text for m in station.view.overlay if isinstance(m, Text))
        QTest.mouseRelease(station.view, Qt.MouseButton.LeftButton)
        assert layout_of(session).misfits

    def test_a_frame_chooses_and_the_arrows_move_all_of_it(self, station: PlateStation, session: Session) -> None:
        rail = layout_of(session).rails[0]
        edge = layout_of(session).plate.right + 6
        drag(station.view, at(station, edge, rail.y - 52), at(station, rail.x1 + 1, rail.y + 52))
        assert len(station.chosen) >= 2
        before = {lead: x_of(session, lead) for lead in station.chosen}
        press(station.view, Qt.Key.Key_Right)
        press(station.view, Qt.Key.Key_Right)
        assert {lead: x_of(session, lead) - 2 for lead in station.chosen} == pytest.approx(before)
        session.undo()
        assert {lead: x_of(session, lead) for lead in station.chosen} == before, "nudges are one step"

    def test_two_parts_swap_align_and_three_spread(self, station: PlateStation, session: Session) -> None:
        choose(station, Q, F)
        first = min(x_of(session, Q), x_of(session, F))
        station.actions_.swap()
        assert x_of(session, F) == first
        choose(station, F, K)
        station.actions_.align(Edge.MIDDLE)
        seats = [layout_of(session).seat(one) for one in (F, K)]
        assert seats[0] is not None
        assert seats[1] is not None
        assert seats[0].rect.centre.x == pytest.approx(seats[1].rect.centre.x, abs=0.01)
        choose(station, Q, F, FC)
        station.actions_.spread()
        assert len(station.chosen) == 3
        row = sorted((s.rect for s in layout_of(session).seats if s.device in (Q, F, FC)), key=lambda r: r.x)
        gaps = [b.x - a.right for a, b in pairwise(row)]
        assert gaps[0] == pytest.approx(gaps[1], abs=0.05)

    def test_what_cannot_be_done_is_said(
        self, station: PlateStation, session: Session, said: list[tuple[str, bool]]
    ) -> None:
        choose(station, FC)
        station.actions_.swap()
        assert said[-1] == ("Two different parts of the plate are needed to change places.", True)
        station.actions_.take_away("R1")
        assert "Parts stand on R1" in said[-1][0]

    def test_a_place_is_typed_in(self, station: PlateStation, session: Session) -> None:
        choose(station, FC)
        station.fields.box("from the rail's end").setValue(151.5)
        rail = layout_of(session).rails[0]
        assert x_of(session, FC) == rail.x1 + 151.5
        session.select(read_key("duct:D4"))
        settle_window()
        station.fields.box("height").setValue(40.0)
        duct = layout_of(session).duct("D4")
        assert duct is not None
        assert duct.rect.height == 40.0
        session.select(read_key("rail:R2"))
        settle_window()
        station.fields.box("at").setValue(260.0)
        assert layout_of(session).rails[1].y == 260.0

    def test_a_screwed_part_goes_anywhere(self, station: PlateStation, session: Session) -> None:
        bar = DeviceId("c0.PE")
        choose(station, bar)
        station.fields.box("y").setValue(470.0)
        seat = layout_of(session).seat(bar)
        assert seat is not None
        assert seat.rect.y == 470.0
        assert seat.rail == 0

    def test_rails_and_ducts_are_added_and_taken_away(self, station: PlateStation, session: Session) -> None:
        menu = QMenu()
        station.actions_.fill(menu)
        by_text = {action.text(): action for action in menu.actions()}
        by_text["Add a rail"].trigger()
        assert len(layout_of(session).rails) == 4
        session.select(read_key("rail:R4"))
        settle_window()
        press(station.view, Qt.Key.Key_Delete)
        assert len(layout_of(session).rails) == 3
        by_text["Add a vertical duct"].trigger()
        assert [duct.upright for duct in layout_of(session).ducts][-1]

    def test_measuring_says_along_down_and_straight(self, station: PlateStation, session: Session) -> None:
        press(station.view, Qt.Key.Key_M)
        seat = layout_of(session).seat(Q)
        assert seat is not None
        corner, far = seat.rect, layout_of(session).plate
        drag(station.view, at(station, corner.x + 1, corner.y + 1), at(station, far.right - 1, far.bottom - 1))
        words = [m.text for m in station.view.overlay if isinstance(m, Text)]
        along, down = far.right - corner.x, far.bottom - corner.y
        straight = (along**2 + down**2) ** 0.5
        assert words == [f"{along:.1f} along, {down:.1f} down: {straight:.1f} mm"], "its ends caught on the corners"
        assert session.undo_name == "", "measuring changes nothing"


def event_at(station: PlateStation, spot: QPoint, modifiers: Qt.KeyboardModifier) -> None:
    from PySide6.QtCore import QEvent
    from PySide6.QtGui import QMouseEvent
    from PySide6.QtWidgets import QApplication

    place = QPointF(spot)
    left = Qt.MouseButton.LeftButton
    event = QMouseEvent(QEvent.Type.MouseMove, place, station.view.mapToGlobal(place), left, left, modifiers)
    QApplication.sendEvent(station.view, event)


class TestLayers:
    @pytest.mark.parametrize("name", [names.WIRES, names.HEAT, names.ROOM, names.CLAMPS])
    def test_a_layer_is_laid_over_the_plate_and_taken_off_again(self, station: PlateStation, name: str) -> None:
        bare = len(station.view.laid)
        station.layers.shown[name].trigger()
        assert len(station.view.laid) > bare
        station.layers.shown[name].trigger()
        assert len(station.view.laid) == bare

    def test_the_wires_of_what_is_chosen_are_those_that_land_on_it(
        self, station: PlateStation, session: Session
    ) -> None:
        choose(station, K)
        shown = {m.key for m in station.view.laid if isinstance(m, Poly) and str(m.key).startswith("wire:")}
        mine = [w for w in session.evaluation.get(WIRING).wires if f"{K}:" in f"{w.start.pin} {w.end.pin}"]
        assert shown == {WireKey(wire.key) for wire in mine}
        assert shown

    def test_the_fill_of_the_ducts_can_be_hidden(self, station: PlateStation) -> None:
        assert any(mark.layer == "fill" for mark in station.view.drawing.shapes)
        station.layers.shown[names.FILL].trigger()
        assert not any(mark.layer == "fill" for mark in station.view.drawing.shapes)

    def test_what_is_mounted_has_a_tick_and_says_when_the_plan_moves_away(
        self, station: PlateStation, session: Session
    ) -> None:
        choose(station, FC)
        station.actions_.mount(True)
        station.layers.shown[names.DONE].trigger()
        assert [m.role for m in station.view.laid if m.layer == "mounted"] == ["meets"] * 3
        station.layers.shown[names.MINE].trigger()
        for _ in range(3):
            press(station.view, Qt.Key.Key_Right)
        words = [m.text for m in station.view.laid if isinstance(m, Text)]
        assert words == ["mounted 3 mm from here"]
        station.actions_.mount(False)
        station.refresh()
        assert not [m for m in station.view.laid if m.layer == "mounted"]


class TestParts:
    def test_a_part_of_ones_own_is_kept_drawn_and_chosen(self, station: PlateStation, session: Session) -> None:
        choose(station, K)
        station.parts_button.click()
        page = station.parts_page
        assert page.isVisible()
        assert not station.view.isVisible()
        page.ref.setText("KM-X")
        page.kind.setCurrentIndex(page.kind.findData("contactor"))
        assert "not known" in page.wrong.text()
        for name, value in (("width", 60.0), ("height", 90.0), ("depth", 100.0), ("rated_a", 12.0)):
            page.numbers[name].setValue(value)
        assert page.wrong.text() == ""
        shown = [m.text for m in page.view.drawing.shapes if isinstance(m, Text)]
        assert {"60", "90", "100", "KM-X"} <= set(shown), "the drawing follows the form"
        page.keep.click()
        assert [part.ref for part in session.job.parts] == ["KM-X"]
        page.pick.setCurrentIndex(page.pick.findData("KM-X"))
        page.pick.activated.emit(page.pick.currentIndex())
        seat = layout_of(session).seat(K)
        assert seat is not None
        assert seat.rect.width == 60.0
        page.drop.click()
        assert not session.job.parts
        session.undo()
        assert [part.ref for part in session.job.parts] == ["KM-X"]

    def test_what_cannot_be_kept_is_said_and_nothing_is_lost(
        self, station: PlateStation, session: Session, said: list[tuple[str, bool]]
    ) -> None:
        station.parts_button.click()
        page = station.parts_page
        page.ref.setText("KM-Y")
        page.numbers["width"].setValue(10_000)
        assert "10000 mm in width" in page.wrong.text()
        page.keep.click()
        assert "was not saved" in said[-1][0]
        assert session.job.parts == ()
        assert page.ref.text() == "KM-Y"

    def test_lists_of_parts_come_in_as_one_step_and_go_out(
        self, station: PlateStation, session: Session, tmp_path: Path, said: list[tuple[str, bool]]
    ) -> None:
        station.parts_button.click()
        good, bad, out = tmp_path / "good.csv", tmp_path / "bad.csv", tmp_path / "out.csv"
        good.write_text("ref,kind,width,height,depth\nA1,relay,22,70,80\nA2,relay,30,70,80\n", encoding="utf-8")
        bad.write_text("ref,kind\nA3,teapot\n", encoding="utf-8")
        station.parts_page.take_list(bad)
        assert "teapot" in said[-1][0]
        station.parts_page.take_list(good)
        assert [part.ref for part in session.job.parts] == ["A1", "A2"]
        station.parts_page.write_list(out)
        assert "A2" in out.read_text(encoding="utf-8")
        session.undo()
        assert session.job.parts == ()

    def test_two_parts_are_linked_and_taken_apart(self, station: PlateStation, session: Session) -> None:
        choose(station, F, K)
        station.actions_.join(JoinHow.LINK)
        stand = layout_of(session).stand_of(K)
        assert stand is not None
        assert F in stand.block.devices
        choose(station, F)
        station.actions_.separate()
        assert session.job.joins == ()


def test_a_window_that_closes_while_a_plan_is_sought_ends_the_search(
    window: MainWindow, station: PlateStation, session: Session, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("riktig.desk.stations.plate.plan_run.SECONDS", 60.0)
    for n in range(3):
        session.edit("add", AddLoad(f"pump {n}", {"kw": 1.5}))
    job = session.job
    station.plan_button.click()
    wait_for(lambda: station.run.best is not None)
    window.close()
    assert not station.run.work or station.run.work.isFinished()
    settle_window()
    assert session.job is job, "what was not asked to be kept is not kept"


def test_a_plate_is_planned_by_keys_alone(station: PlateStation, session: Session) -> None:
    station.plan_button.setFocus()
    QTest.keyClick(station.plan_button, Qt.Key.Key_Space)
    wait_for(lambda: not station.run.running)
    assert session.undo_name == "plan for me"
    station.view.setFocus()
    press(station.view, Qt.Key.Key_Period)
    for _ in range(40):
        if station.chosen:
            break
        press(station.view, Qt.Key.Key_Period)
    lead = station.chosen[0]
    before = x_of(session, lead)
    press(station.view, Qt.Key.Key_Right, Qt.KeyboardModifier.ShiftModifier)
    assert x_of(session, lead) == before + 10


def test_an_offcut_is_put_on_the_shelf_and_cut_from_first(station: PlateStation, session: Session) -> None:
    station.cutting.click()
    assert "the minimum" in station.words.text()
    shelf = station.shelf
    assert shelf.isVisible()
    shelf.stock.setCurrentText("rail 35 × 7.5")
    shelf.length.setValue(900.0)
    shelf.mark.setText("of the pump job")
    shelf.add.click()
    assert [one.mark for one in session.job.shelf] == ["of the pump job"]
    assert "of the pump job" in [m.text for m in station.view.drawing.shapes if isinstance(m, Text)]
    shelf.drop.click()
    assert session.job.shelf == ()


def test_the_plate_does_not_jump_under_the_pointer_when_something_is_chosen(
    station: PlateStation, session: Session
) -> None:
    """The details opens beside it and folds away again."""

    def place() -> object:
        return station.view.scale, station.view.centre_of(DeviceKey(F))

    before = place()
    for key in (DeviceKey(F), read_key("duct:D4"), read_key("rail:R1"), None):
        session.select(key)
        settle_window()
        assert place() == before
