"""Circuits in the real window: the recipe book, the sheets at a glance, changes by key and by menu, hover, places."""

import json
from pathlib import Path

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtGui import QAction
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QDialogButtonBox, QMenu, QMessageBox

from riktig.core.annotation import SHEET_DRAWINGS
from riktig.core.exports import schedule
from riktig.core.geometry import Poly, Text
from riktig.core.job import (
    CircuitId,
    Command,
    ElementId,
    Insertable,
    OwnRung,
    Recipe,
    Rulebook,
    Start,
    add_load,
    change_load,
    set_practice,
)
from riktig.core.keys import NetKey, PlaceKey, WireKey, read_key
from riktig.core.schematic import CIRCUIT_TEMPLATES, CIRCUITS, NAMES, SHEETS, circuit_template_of, elements_of
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.stations.circuits import CircuitsStation
from riktig.desk.stations.circuits.own import DeviceAsked, RungAsked
from riktig.desk.theme import DARK
from tests.conftest import Doing
from tests.desk.conftest import click_on, press, settle_window
from tests.effort import share
from tests.shared_plan import plan_for
from tests.test_cli import RUNGS

STOP, START, COIL = (read_key(f"element:c1.{one}") for one in ("S.stop/1-2", "S.start/3-4", "K/A1-A2"))


@pytest.fixture
def station(window: MainWindow) -> CircuitsStation:
    window.go_to("Circuits")
    station = window.stations["Circuits"]
    assert isinstance(station, CircuitsStation)
    station.show_sheet(1)
    settle_window()
    return station


def entries(menu: QMenu) -> list[QAction]:
    """All entries, those of submenus too, each submenu opened first."""
    found: list[QAction] = []
    for action in menu.actions():
        sub = action.menu()
        if isinstance(sub, QMenu):
            sub.aboutToShow.emit()
            found += entries(sub)
        elif action.text():
            found.append(action)
    return found


def path(session: Session, rung: str = "run") -> list[str]:
    found = next(r for r in session.evaluation.get(CIRCUITS).rungs if r.id == f"c1.{rung}")
    return [e.id.removeprefix("c1.") for e in elements_of(found.path)]


class TestByKey:
    def test_i_opens_what_may_be_put_in_and_the_first_entry_is_ready_for_enter(
        self, station: CircuitsStation, session: Session
    ) -> None:
        click_on(station.view, STOP)
        menus: list[QMenu] = []
        station.popup_under = lambda button, menu: menus.append(menu)  # type: ignore[method-assign]
        press(station.view, Qt.Key.Key_I)
        press(station.view, Qt.Key.Key_A)
        assert [len(menu.actions()) > 10 for menu in menus] == [True, True]
        menus[0].actions()[0].trigger()
        settle_window()
        assert path(session)[1:3] == ["S.stop/1-2", "x1/1-2"]
        menus[1].actions()[1].trigger()
        settle_window()
        assert session.undo_name == "put in a start button on the door"

    def test_an_element_is_moved_taken_out_and_brought_back_by_keys_alone(
        self, station: CircuitsStation, session: Session, window: MainWindow
    ) -> None:
        session.select(STOP)
        station.view.setFocus()
        press(station.view, Qt.Key.Key_M)
        assert "Choose the element after which it goes" in station.hint.text()
        press(station.view, Qt.Key.Key_Escape)
        press(station.view, Qt.Key.Key_M)
        session.select(COIL)
        press(station.view, Qt.Key.Key_Return)
        assert path(session)[-2:] == ["K/A1-A2", "S.stop/1-2"]
        session.select(STOP)
        press(station.view, Qt.Key.Key_Delete)
        assert "S.stop/1-2" not in path(session)
        press(window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
        press(window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
        assert path(session) == ["FO/95-96", "S.stop/1-2", "S.start/3-4", "K/13-14", "K/A1-A2"]

    def test_o_shows_all_sheets_and_a_click_turns_to_one(self, station: CircuitsStation, session: Session) -> None:
        press(station.view, Qt.Key.Key_O)
        assert station.pages.currentWidget() is station.overview
        assert len(station.overview.pages) == len(session.evaluation.get(SHEETS).sheets)
        station.overview.pages[0].click()
        settle_window()
        assert station.pages.currentWidget() is station.view
        assert station.sheet == 0


class TestMenus:
    def test_every_entry_of_the_menu_of_an_element_can_be_done_and_undone(
        self, station: CircuitsStation, session: Session
    ) -> None:
        click_on(station.view, START)
        before = session.job
        names = [action.text() for action in entries(station.full_menu())]
        assert len(names) > 60
        direct = [(n, name) for n, name in enumerate(names) if not name.endswith("…") and name != "Delete"]
        done = 0
        tried = share(direct, 0)
        for n, name in tried:
            session.select(START)
            entries(station.full_menu())[n].trigger()
            if session.job is not before:
                done += 1
                session.undo()
            assert session.job is before, name
        assert len(direct) > 60
        assert done > 0.9 * len(tried)

    def test_the_menu_of_a_circuit_offers_its_parameters_and_what_it_must_do(
        self, station: CircuitsStation, session: Session
    ) -> None:
        menu = station.changes.circuit_menu(CircuitId("c1"))
        words = {action.text(): action for action in entries(menu)}
        words["fills"].trigger()
        settle_window()
        assert session.job.circuits[1].param("pump", "") == "fills"
        session.undo()
        words["Function, step by step"].trigger()
        settle_window()
        assert station.pages.currentWidget() is station.behaviour
        assert {row.sign for row in station.behaviour.steps.rows} == {"✓"}
        assert "press S2" in {row.done for row in station.behaviour.steps.rows}
        station.behaviour.back.click()
        assert station.pages.currentWidget() is station.view

    def test_a_circuit_that_was_spoilt_says_at_which_step(self, station: CircuitsStation, session: Session) -> None:
        session.select(read_key("element:c1.K/13-14"))
        station.out.click()
        station.show_behaviour(CircuitId("c1"))
        failing = [row for row in station.behaviour.steps.rows if row.passed is False]
        assert (failing[0].done, failing[0].otherwise) == ("release S2", "K1 is off, not on; M1 is off, not forward")

    def test_a_lost_change_is_made_elsewhere_from_the_menu(self, station: CircuitsStation, session: Session) -> None:
        station.put_in(ElementId("c1.H.run/X1-X2"), Insertable.LAMP, "beside it", parallel=True)
        load = session.job.loads[0].id
        session.edit("no run lamp", Doing(lambda job: change_load(job, load, run_lamp=False)))
        assert session.evaluation.get(CIRCUITS).clashes
        session.select(COIL)
        lost = next(a for a in entries(station.full_menu()) if a.text().startswith("Apply the unresolved change here"))
        lost.trigger()
        assert session.evaluation.get(CIRCUITS).clashes == ()
        assert "x1/X1-X2" in path(session)

    def test_a_rung_file_is_added_and_a_wrong_one_says_where(
        self, station: CircuitsStation, session: Session, tmp_path: Path, said: list[tuple[str, bool]]
    ) -> None:
        good, bad = tmp_path / "good.json", tmp_path / "bad.json"
        good.write_text(json.dumps(RUNGS), encoding="utf-8")
        bad.write_text(json.dumps(RUNGS).replace('"H"', '"H9:1-2"'), encoding="utf-8")
        station.changes.add_file(good)
        assert session.job.circuits[-1].title == "bay light"
        before = session.job
        station.changes.add_file(bad)
        assert session.job is before
        assert "$.rungs[0].path" in said[-1][0]
        boxes = station.findChildren(QMessageBox)
        assert any("$.rungs[0].path, character 1" in box.informativeText() for box in boxes)
        station.changes.add_file(tmp_path / "none.json")
        assert "cannot be read" in said[-1][0]


class TestOwn:
    def test_a_rung_of_ones_own_says_what_is_wrong_while_it_is_written(
        self, station: CircuitsStation, session: Session
    ) -> None:
        from riktig.core.schematic import add_rung, named_nodes

        asked = RungAsked(
            named_nodes(session.job), 1, lambda rung: (add_rung(session.job, CircuitId("c1"), rung), None)[1], station
        )
        ok = asked.buttons.button(QDialogButtonBox.StandardButton.Ok)
        assert not ok.isEnabled()
        QTest.keyClicks(asked.title, "second lamp")
        QTest.keyClicks(asked.path, "K:13-99")
        assert not ok.isEnabled()
        assert "has no unit 13-99" in asked.wrong.text()
        asked.path.setText("K:31-32")
        assert ok.isEnabled()
        assert isinstance(asked.rung(), OwnRung)
        asked.reject()

    def test_a_device_of_ones_own_needs_a_free_role_and_a_purpose(
        self, station: CircuitsStation, session: Session
    ) -> None:
        from riktig.core.schematic import add_device

        asked = DeviceAsked(lambda one: (add_device(session.job, CircuitId("c1"), one), None)[1], station)
        ok = asked.buttons.button(QDialogButtonBox.StandardButton.Ok)
        QTest.keyClicks(asked.purpose, "damper")
        QTest.keyClicks(asked.role, "K")
        assert "already" in asked.wrong.text()
        asked.role.setText("K two")
        assert "one word" in asked.wrong.text()
        asked.role.setText("K.two")
        assert ok.isEnabled()
        asked.reject()


class TestBook:
    def test_every_recipe_has_a_card_with_a_picture_and_words(self, station: CircuitsStation) -> None:
        station.add.click()
        settle_window()
        assert len(station.chooser.cards) == len(CIRCUIT_TEMPLATES)
        for entry in CIRCUIT_TEMPLATES:
            card = station.chooser.cards[entry.recipe.value]
            assert card.accessibleDescription() == entry.when
            assert not card.icon().isNull()

    def test_a_circuit_is_chosen_named_and_added_by_keys(self, station: CircuitsStation, session: Session) -> None:
        station.add.click()
        station.chooser.choose(circuit_template_of(Recipe.PHASE_MONITOR))
        station.chooser.choices["holds"].setCurrentText("all loads")
        QTest.keyClicks(station.chooser.title, "shed contactor")
        press(station.chooser.title, Qt.Key.Key_Return)
        added = session.job.circuits[-1]
        assert (added.recipe, added.title) == (Recipe.PHASE_MONITOR, "shed contactor")
        assert [(p.name, p.value) for p in added.params] == [("holds", "all loads")]
        assert station.pages.currentWidget() is station.view
        assert added.id in session.evaluation.get(SHEETS).sheets[station.sheet].circuits

    def test_a_recipe_that_follows_from_the_brief_leads_there(
        self, station: CircuitsStation, window: MainWindow
    ) -> None:
        station.add.click()
        station.chooser.choose(circuit_template_of(Recipe.STAR_DELTA))
        assert station.chooser.go.text() == "Ask for it in the Brief"
        station.chooser.go.click()
        settle_window()
        assert window.current == "Brief"

    def test_the_pictures_follow_rulebook_and_theme(self, station: CircuitsStation, session: Session) -> None:
        station.add.click()
        card = station.chooser.cards[Recipe.LEVEL_ALARM.value]
        first = card.icon().pixmap(100, 100).toImage()
        session.edit("rulebook", Doing(lambda job: set_practice(job, rulebook=Rulebook.UL)))
        station.set_theme(DARK)
        station.open_book()
        assert card.icon().pixmap(100, 100).toImage() != first


class TestReading:
    def test_the_pointer_on_a_conductor_shows_where_its_net_goes(
        self, station: CircuitsStation, session: Session
    ) -> None:
        number = session.evaluation.get(NAMES).number
        net = next(n for n, text in number.items() if text == "8")
        station.show_hovered(NetKey(net))
        assert station.hint.text().startswith("8:  ")
        assert "F3:96" in station.hint.text()
        assert "On sheet 2" in station.hint.text()
        assert len(station.view.overlay) >= 1
        station.show_hovered(None)
        assert list(station.view.overlay) == []

    def test_a_place_in_colour_leads_to_where_it_goes_on(self, station: CircuitsStation, session: Session) -> None:
        arrow = next(a for sheet in session.evaluation.get(SHEETS).sheets for a in sheet.arrows if a.to.sheet == 1)
        station.view.chosen.emit(PlaceKey(arrow.to.full))
        settle_window()
        assert station.sheet == 0
        frame = station.view.overlay[0]
        assert isinstance(frame, Poly)
        assert frame.dashed

    @pytest.mark.parametrize(("typed", "sheet"), [("2.3", 1), ("1.4.C", 0), ("sheet 3", 2)])
    def test_the_finder_knows_places(
        self, window: MainWindow, station: CircuitsStation, typed: str, sheet: int
    ) -> None:
        found = window.search(typed)
        assert found[0].key == PlaceKey(typed.removeprefix("sheet "))
        window.show_thing(found[0].key)
        settle_window()
        assert station.sheet == sheet

    def test_a_place_that_is_not_there_is_said(self, station: CircuitsStation, said: list[tuple[str, bool]]) -> None:
        station.jump("77.1")
        assert said[-1] == ("There is no sheet 77; the last is 4.", True)

    def test_zoom_pan_and_fit_keep_what_is_chosen(self, station: CircuitsStation, session: Session) -> None:
        click_on(station.view, COIL)
        scale = station.view.scale
        press(station.view, Qt.Key.Key_Plus)
        assert station.view.scale > scale
        station.view.pan(QPoint(5000, 0).toPointF())
        station.view.reveal(COIL)
        at = station.view.centre_of(COIL)
        assert at is not None
        assert station.view.rect().contains(at.toPoint())
        press(station.view, Qt.Key.Key_0)
        assert station.view.scale == pytest.approx(scale)
        assert session.selection == COIL

    def test_a_wire_chosen_elsewhere_shows_its_net_here(
        self, window: MainWindow, station: CircuitsStation, session: Session
    ) -> None:
        from riktig.core.wiring import WIRING

        wire = next(
            w for w in session.evaluation.get(WIRING).wires if w.start.label == "F3:96" or w.end.label == "F3:96"
        )
        session.select(WireKey(wire.key))
        station.show_selection(WireKey(wire.key))
        assert NetKey(wire.net) in station.view.selection

    def test_the_other_rulebook_turns_every_sheet(self, station: CircuitsStation, session: Session) -> None:
        before = {d.title: d for d in session.evaluation.get(SHEET_DRAWINGS)}
        session.edit("rulebook", Doing(lambda job: set_practice(job, rulebook=Rulebook.UL)))
        settle_window()
        after = session.evaluation.get(SHEET_DRAWINGS)
        assert all(drawing != before.get(drawing.title) for drawing in after if "Earth" not in drawing.title)
        assert "OL" in {m.text for d in after for m in d.shapes if isinstance(m, Text)}


def test_forty_sheets_are_reached_by_the_overview(session: Session, window: MainWindow) -> None:
    from riktig.core.job import add_load

    def many(job: object) -> object:
        for n in range(14):
            job = add_load(job, f"pump {n}", 1.5)  # type: ignore[arg-type]
        return job

    session.edit("many", Doing(many))  # type: ignore[arg-type]
    window.go_to("Circuits")
    station = window.stations["Circuits"]
    assert isinstance(station, CircuitsStation)
    count = len(plan_for(session.job).get(SHEETS).sheets)
    assert count > 20
    station.show_all()
    assert len(station.overview.pages) == count
    station.overview.pages[-1].click()
    assert station.sheet == count - 1


class TestTrace:
    def test_t_shows_it_arrows_walk_enter_leads_to_the_sheet(self, station: CircuitsStation, session: Session) -> None:
        click_on(station.view, COIL)
        QTest.keyClick(station.view, Qt.Key.Key_T)
        assert station.pages.currentWidget() is station.trace
        here = station.trace.stop()
        assert here is not None
        assert here.key == COIL or str(here.key).startswith("element:c1.K/")
        QTest.keyClick(station.trace.view, Qt.Key.Key_Up)
        before = station.trace.stop()
        assert before is not None
        assert before.key != here.key
        assert session.selection == before.key
        QTest.keyClick(station.trace.view, Qt.Key.Key_Return)
        assert station.pages.currentWidget() is station.view
        assert session.selection == before.key

    def test_it_is_printed_to_one_page_or_says_why_not(
        self, station: CircuitsStation, session: Session, said: list[tuple[str, bool]], tmp_path: Path
    ) -> None:
        session.select(read_key("device:c1.M"))
        station.show_trace()
        station.trace.save_as(tmp_path / "trace.pdf")
        assert (tmp_path / "trace.pdf").read_bytes().startswith(b"%PDF")
        station.trace.save_as(tmp_path / "nowhere" / "trace.pdf")
        assert said[-1][1]
        assert "could not be written" in said[-1][0]

    def test_one_stays_at_the_ends_and_goes_over_to_the_next_way(
        self, station: CircuitsStation, session: Session
    ) -> None:
        session.select(read_key("device:c1.M"))
        station.show_trace()
        page = station.trace.page
        assert page is not None
        assert len(page.columns) > 1
        for _ in range(40):
            QTest.keyClick(station.trace.view, Qt.Key.Key_Up)
        assert station.trace.at == (0, 0)
        for _ in range(40):
            QTest.keyClick(station.trace.view, Qt.Key.Key_Right)
        assert station.trace.at[0] == len(page.columns) - 1
        for _ in range(40):
            QTest.keyClick(station.trace.view, Qt.Key.Key_Down)
        assert station.trace.at[1] == len(page.columns[-1]) - 1
        QTest.keyClick(station.trace.view, Qt.Key.Key_Escape)
        assert station.pages.currentWidget() is station.view

    def test_it_follows_an_edit_and_its_undo(self, station: CircuitsStation, session: Session) -> None:
        session.select(read_key("device:c1.K"))
        station.show_trace()
        before = station.trace.page
        assert before is not None
        stop = ElementId(str(STOP).removeprefix("element:"))
        station.put_in(stop, Insertable.FIELD_CONTACT, "hatch")
        settle_window()
        after = station.trace.page
        assert after is not None
        assert sum(map(len, after.columns)) > sum(map(len, before.columns))
        session.undo()
        settle_window()
        assert station.trace.page is not None
        assert station.trace.page.columns == before.columns

    def test_what_cannot_be_followed_is_said(
        self, station: CircuitsStation, session: Session, said: list[tuple[str, bool]]
    ) -> None:
        session.select(None)
        station.show_trace()
        assert station.pages.currentWidget() is station.view
        assert "Choose a device" in said[-1][0]


def test_the_controller_of_the_brief_is_asked_where_its_addresses_begin(window: MainWindow, session: Session) -> None:
    """It is in no circuit of the document until something of it is chosen."""
    session.edit("a belt", Doing(lambda job: add_load(job, "belt", 1.5, start=Start.DRIVE, command=Command.CONTROLLER)))
    window.go_to("Circuits")
    settle_window()
    station = window.stations["Circuits"]
    assert isinstance(station, CircuitsStation)
    menu = station.changes.circuit_menu(CircuitId("s4"))
    sub = next(action.menu() for action in menu.actions() if action.text() == "Outputs from byte")
    assert isinstance(sub, QMenu)
    assert [action.text() for action in sub.actions() if action.isChecked()] == ["0"]
    next(action for action in sub.actions() if action.text() == "64").trigger()
    settle_window()
    assert any("%QX64.0" in str(row[0]) for row in schedule("io", session.evaluation).rows)
    assert session.undo_name == "outputs from byte: 64"
