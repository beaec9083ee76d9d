"""Every station in the real window: what it shows and what its gestures do."""

import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QLabel, QLineEdit, QPushButton, QTableView

from riktig.core.annotation import SHEET_PEN
from riktig.core.geometry import Point, Text
from riktig.core.job import ControlTap, DeviceId, ElementId, Insertable
from riktig.core.keys import WireKey, read_key
from riktig.core.labels import Medium
from riktig.core.plate import LAYOUT, RULER
from riktig.core.production import BuildStage, Operation
from riktig.core.records import GatePassed, TakenBack, WireDone
from riktig.core.schematic import CIRCUITS, NAMES, SHEETS
from riktig.core.wiring import WIRING
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.stations.brief import BriefStation
from riktig.desk.stations.brief.fields import Answer, ChoiceField
from riktig.desk.stations.build import BuildStation
from riktig.desk.stations.circuits import CircuitsStation
from riktig.desk.stations.door import DoorStation
from riktig.desk.stations.labels import LabelsStation
from riktig.desk.stations.plate import PlateStation
from riktig.desk.stations.terminals import TerminalsStation
from riktig.desk.stations.wires import WiresStation
from tests.conftest import Doing
from tests.desk.conftest import click_on, drag, open_gates, press, settle_window
from tests.effort import some


def field(window: MainWindow, name: str) -> Answer:
    found = [w for w in window.stations["Brief"].findChildren(Answer) if w.accessibleName() == name and w.isVisible()]
    assert len(found) == 1, name
    return found[0]


def answer(window: MainWindow, name: str, text: str) -> None:
    widget = field(window, name)
    widget.setFocus()
    widget.selectAll()
    QTest.keyClicks(widget, text)
    press(widget, Qt.Key.Key_Return)


class TestBrief:
    @pytest.fixture(autouse=True)
    def at_the_brief(self, window: MainWindow) -> None:
        window.go_to("Brief")
        settle_window()

    def test_an_answer_changes_the_job_and_what_is_proposed(self, window: MainWindow, session: Session) -> None:
        answer(window, "Power of the wash drum", "7.5")
        assert session.job.loads[0].kw == 7.5
        chips = [b.text() for b in window.stations["Brief"].findChildren(QPushButton) if b.isVisible()]
        assert any("Overload set to  15.5 A" in text for text in chips)

    @pytest.mark.parametrize("text", ["0", "-3", "1e9", "abc"])
    def test_a_power_that_cannot_be_is_said_and_the_job_stays(
        self, window: MainWindow, session: Session, said: list[tuple[str, bool]], text: str
    ) -> None:
        before = session.job
        answer(window, "Power of the wash drum", text)
        assert session.job is before
        assert said[-1][1]
        assert field(window, "Power of the wash drum").property("wrong") is True
        answer(window, "Power of the wash drum", "5.5")
        assert session.job.loads[0].kw == 5.5

    @pytest.mark.parametrize(
        ("name", "text", "read"),
        [
            ("Title", "Wash bay", lambda job: job.title == "Wash bay"),
            ("Protected upstream at", "25", lambda job: job.supply.upstream_a == 25),
            ("Nameplate current of the wash drum", "8,1", lambda job: job.loads[0].nameplate_a == 8.1),
            ("Spare room", "30", lambda job: job.practice.spare_share == 0.3),
            ("Degree of protection", "IP54", lambda job: job.enclosure.rating == "IP54"),
            ("Air temperature", "45", lambda job: job.enclosure.ambient_c == 45),
        ],
    )
    def test_every_kind_of_answer_reaches_the_job(
        self, window: MainWindow, session: Session, name: str, text: str, read: object
    ) -> None:
        answer(window, name, text)
        assert read(session.job)  # type: ignore[operator]

    def test_a_choice_of_practice_is_made_by_key(self, window: MainWindow, session: Session) -> None:
        picks = {p.accessibleName(): p for p in window.stations["Brief"].findChildren(ChoiceField)}
        pick = picks["Control supply taken"]
        pick.setFocus()
        press(pick, Qt.Key.Key_Down)
        assert session.job.practice.control_tap is ControlTap.AFTER

    def test_a_motor_is_added_and_taken_out_again(self, window: MainWindow, session: Session) -> None:
        station = window.stations["Brief"]
        assert isinstance(station, BriefStation)
        QTest.keyClicks(station.new.name, "rinse pump")
        QTest.keyClicks(station.new.power, "1.5")
        press(station.new.power, Qt.Key.Key_Return)
        assert [load.name for load in session.job.loads] == ["wash drum", "rinse pump"]
        out = next(b for b in station.findChildren(QPushButton) if b.accessibleName() == "Remove the wash drum")
        out.click()
        settle_window()
        assert [load.name for load in session.job.loads] == ["rinse pump"]


class TestCircuits:
    @pytest.fixture
    def station(self, window: MainWindow) -> CircuitsStation:
        window.go_to("Circuits")
        station = window.stations["Circuits"]
        assert isinstance(station, CircuitsStation)
        station.show_sheet(1)
        settle_window()
        return station

    def test_a_click_on_an_element_selects_it(self, station: CircuitsStation, session: Session) -> None:
        click_on(station.view, read_key("element:c1.S.stop/1-2"))
        assert session.selection == read_key("element:c1.S.stop/1-2")
        assert station.after.isEnabled()

    def test_a_contact_is_put_in_and_the_drawing_reflows(self, station: CircuitsStation, session: Session) -> None:
        click_on(station.view, read_key("element:c1.S.stop/1-2"))
        station.put_in(ElementId("c1.S.stop/1-2"), Insertable.STOP_BUTTON, "stop at the bay")
        settle_window()
        words = {m.text for m in station.view.drawing.shapes if isinstance(m, Text)}
        assert {"S3", "13"} <= words
        assert session.undo_name == "put in a stop button on the door"

    def test_an_element_is_taken_out_and_brought_back(self, station: CircuitsStation, session: Session) -> None:
        click_on(station.view, read_key("element:c1.H.run/X1-X2"))
        station.out.click()
        settle_window()
        assert not any(d.id == "c1.H.run" for d in session.evaluation.get(CIRCUITS).devices)
        session.undo()
        assert any(d.id == "c1.H.run" for d in session.evaluation.get(CIRCUITS).devices)

    def test_power_elements_offer_no_change_of_their_path(self, station: CircuitsStation) -> None:
        station.show_sheet(0)
        click_on(station.view, read_key("element:c1.F/1-2"))
        assert not station.after.isEnabled()
        assert station.name.isEnabled()

    def test_a_thing_on_another_sheet_turns_to_it(self, window: MainWindow, station: CircuitsStation) -> None:
        window.show_thing(read_key("device:c1.M"))
        assert station.sheet == 0
        window.show_thing(read_key("device:c1.S.start"))
        assert station.sheet == 1


class TestPlate:
    @pytest.fixture
    def station(self, window: MainWindow) -> PlateStation:
        window.go_to("Plate")
        settle_window()
        station = window.stations["Plate"]
        assert isinstance(station, PlateStation)
        return station

    def test_a_part_is_dragged_along_its_rail_as_one_step(self, station: PlateStation, session: Session) -> None:
        start = station.view.centre_of(read_key("device:c1.FC"))
        assert start is not None
        mm = station.view.to_px(Point(60, 0.0)).x() - station.view.to_px(Point(0, 0.0)).x()
        before = session.evaluation.get(LAYOUT).seat(DeviceId("c1.FC"))
        drag(station.view, start, QPointF(start.x() + mm, start.y()))
        after = session.evaluation.get(LAYOUT).seat(DeviceId("c1.FC"))
        assert before is not None
        assert after is not None
        assert after.rect.x - before.rect.x == pytest.approx(60, abs=2)
        assert session.undo_name == "move F2"
        session.undo()
        assert session.evaluation.get(LAYOUT).seat(DeviceId("c1.FC")) == before

    def test_while_dragging_it_says_by_how_many_mm_a_thing_does_not_fit(
        self, station: PlateStation, session: Session
    ) -> None:
        start = station.view.centre_of(read_key("device:c1.FC"))
        assert start is not None
        other = station.view.centre_of(read_key("device:c1.F"))
        assert other is not None
        before = session.job
        drag(station.view, start, QPointF(other.x(), start.y()), drop=False)
        words = [m.text for m in station.view.overlay if isinstance(m, Text)]
        assert any("mm more room beside F1" in text or "mm more room beside F2" in text for text in words)
        press(station.view, Qt.Key.Key_Escape)
        assert session.job is before, "Esc: nothing happened"

    def test_a_part_is_dragged_to_another_rail(self, station: PlateStation, session: Session) -> None:
        start = station.view.centre_of(read_key("device:c1.FC"))
        assert start is not None
        rail = session.evaluation.get(LAYOUT).rails[1]
        target = station.view.to_px(Point(rail.x1 + RULER + 120, rail.y + RULER))
        drag(station.view, start, target)
        seat = session.evaluation.get(LAYOUT).seat(DeviceId("c1.FC"))
        assert seat is not None
        assert seat.rail == 2

    def test_arrow_keys_nudge_by_a_mm_and_join_to_one_step(self, station: PlateStation, session: Session) -> None:
        click_on(station.view, read_key("device:c1.FC"))
        x = session.evaluation.get(LAYOUT).seat(DeviceId("c1.FC")).rect.x  # type: ignore[union-attr]
        for _ in range(3):
            press(station.view, Qt.Key.Key_Right)
        press(station.view, Qt.Key.Key_Right, Qt.KeyboardModifier.ShiftModifier)
        assert session.evaluation.get(LAYOUT).seat(DeviceId("c1.FC")).rect.x == x + 13  # type: ignore[union-attr]
        session.undo()
        assert session.evaluation.get(LAYOUT).seat(DeviceId("c1.FC")).rect.x == x  # type: ignore[union-attr]

    def test_a_locked_part_is_not_moved_and_says_so(
        self, station: PlateStation, session: Session, said: list[tuple[str, bool]]
    ) -> None:
        click_on(station.view, read_key("device:c1.FC"))
        press(station.view, Qt.Key.Key_L)
        press(station.view, Qt.Key.Key_Right)
        assert "locked" in said[-1][0]

    def test_mark_out_and_cut_list_are_views_of_the_same_plate(self, station: PlateStation) -> None:
        station.marking.click()
        assert station.metal.isVisible()
        assert "mark-out" in station.metal.mark.view.drawing.title
        station.cutting.click()
        assert station.view.drawing.title == "Cut list"
        station.cutting.click()
        assert station.view.drawing.title == "Mounting plate"


class TestLists:
    def test_the_door_shows_its_holes_and_marks_them_out(self, window: MainWindow, session: Session) -> None:
        window.go_to("Door")
        station = window.stations["Door"]
        assert isinstance(station, DoorStation)
        click_on(station.view, read_key("device:c1.S.start"))
        assert session.selection == read_key("device:c1.S.start")
        assert "6 holes" in station.words.text()
        station.marking.click()
        assert "mark-out" in station.metal.mark.view.drawing.title

    def test_a_batch_card_lists_its_wires_and_a_row_selects_one(self, window: MainWindow, session: Session) -> None:
        window.go_to("Wires")
        station = window.stations["Wires"]
        assert isinstance(station, WiresStation)
        click_on(station.cards, read_key("batch:2"))
        model = station.table.model()
        assert model.rowCount() == len(session.evaluation.get(WIRING).batches[1].wires)
        station.table.selectRow(0)
        assert session.selection == WireKey(session.evaluation.get(WIRING).batches[1].wires[0])
        station.listed.click()
        assert model.rowCount() == 31

    def test_strips_turn_with_the_selection(self, window: MainWindow, session: Session) -> None:
        window.go_to("Terminals")
        station = window.stations["Terminals"]
        assert isinstance(station, TerminalsStation)
        session.select(read_key("device:c1.X.V"))
        assert station.strip == 1
        click_on(station.view, read_key("device:c1.X.U"))
        assert session.selection == read_key("device:c1.X.U")

    @pytest.mark.parametrize("medium", list(Medium), ids=lambda m: m.value)
    def test_every_medium_of_labels_is_shown(self, window: MainWindow, medium: Medium) -> None:
        window.go_to("Labels")
        station = window.stations["Labels"]
        assert isinstance(station, LabelsStation)
        station.turn(medium)
        assert station.view.drawing.title == medium.value
        assert "to print" in station.words.text()


class TestBuild:
    @pytest.fixture
    def station(self, window: MainWindow, session: Session) -> BuildStation:
        open_gates(session)
        window.go_to("Build")
        settle_window()
        station = window.stations["Build"]
        assert isinstance(station, BuildStation)
        station.show_stage(BuildStage.WIRES)
        return station

    def test_space_ticks_all_of_a_wire_and_goes_on(self, station: BuildStation, session: Session) -> None:
        first = station.wires.key
        for _ in Operation:
            press(station.wires.list, Qt.Key.Key_Space)
        assert session.progress.complete == 1
        assert station.wires.key != first
        assert {r.who for r in session.records} == {"Ida"}
        assert len({r.when for r in session.records if isinstance(r.facts, WireDone)}) == 6

    def test_a_number_key_ticks_one_thing_and_backspace_takes_it_back(
        self, station: BuildStation, session: Session
    ) -> None:
        press(station.wires.list, Qt.Key.Key_2)
        assert session.progress.count(Operation.MARKED) == 1
        press(station.wires.list, Qt.Key.Key_Backspace)
        assert session.progress.count(Operation.MARKED) == 0
        kinds = [type(r.facts) for r in session.records if not isinstance(r.facts, GatePassed)]
        assert kinds == [WireDone, TakenBack]

    def test_a_scanned_number_goes_to_its_wire(self, station: BuildStation, said: list[tuple[str, bool]]) -> None:
        QTest.keyClicks(station.scan, "M1-U")
        press(station.scan, Qt.Key.Key_Return)
        assert station.wires.number.text() == "M1-U"
        QTest.keyClicks(station.scan, "999")
        press(station.scan, Qt.Key.Key_Return)
        assert "Nothing in this panel is called “999”" in said[-1][0]

    def test_after_an_edit_the_station_says_which_ticks_went_and_why(
        self, station: BuildStation, session: Session, said: list[tuple[str, bool]]
    ) -> None:
        wire = next(w for w in session.evaluation.get(WIRING).wires if w.name == "9 S2:3 to S1:2")
        session.select(WireKey(wire.key))
        for _ in Operation:
            press(station.wires.list, Qt.Key.Key_Space)
        from riktig.core.schematic import insert_contact

        session.edit(
            "second stop",
            Doing(lambda job: insert_contact(job, ElementId("c1.S.stop/1-2"), Insertable.STOP_BUTTON, "x")),
        )
        settle_window()
        lines = station.stale_words.text().splitlines()
        assert len(lines) == len(session.progress.stale) == len(Operation)
        assert all("the wire is gone: remove it" in line for line in lines)
        assert station.stale_area.isVisible()
        assert "9 S2:3 to S1:2" in said[-1][0]


def test_every_control_has_a_name_for_those_who_cannot_see_it(window: MainWindow) -> None:
    for name in some(window.stations):
        window.go_to(name)
        for widget in some(window.findChildren(QPushButton)):
            if widget.isVisible() and not isinstance(widget.parent(), QTableView):
                assert widget.text() or widget.accessibleName()
        for edit in [*window.findChildren(QLineEdit), *window.findChildren(QTableView)]:
            if edit.objectName() != "qt_spinbox_lineedit":
                assert edit.accessibleName(), name


def test_tags_shown_are_those_of_the_plan(window: MainWindow, session: Session) -> None:
    window.show_thing(read_key("device:c1.K"))
    settle_window()
    tag = session.evaluation.get(NAMES).tag[DeviceId("c1.K")]
    assert tag == "K1"
    assert any(label.text() == tag for label in window.details.findChildren(QLabel)), "the details is headed by it"
    pen, sheets = session.evaluation.get(SHEET_PEN), session.evaluation.get(SHEETS).sheets
    drawn = [shape for n in range(len(sheets)) for shape in pen.drawing(n).shapes if isinstance(shape, Text)]
    assert any(shape.text == tag for shape in drawn), "and so is the contactor on its sheet"
