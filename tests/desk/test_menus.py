"""The menu bar: everything that can be done, with keys and help, and what its entries do."""

from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QAction
from PySide6.QtWidgets import QApplication, QDialog, QLineEdit, QMenu, QPushButton, QTableWidget

from riktig.core.job import set_heading
from riktig.core.keys import read_key
from riktig.core.views import STATIONS
from riktig.desk.canvas import DrawingView
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.theme import DARK
from tests.conftest import Doing
from tests.desk.conftest import press, settle_window


def menus(window: MainWindow) -> dict[str, QMenu]:
    found = {}
    for action in window.menuBar().actions():
        menu = action.menu()
        assert isinstance(menu, QMenu)
        found[action.text().replace("&", "")] = menu
    return found


def entries(menu: QMenu) -> dict[str, QAction]:
    menu.aboutToShow.emit()
    return {action.text(): action for action in menu.actions() if action.text()}


def test_the_menus_stand_in_the_usual_order_and_every_entry_says_what_it_does(window: MainWindow) -> None:
    assert list(menus(window)) == ["File", "Edit", "View", "Station", "Go", "Help"]
    for title, menu in menus(window).items():
        if title != "Station":
            for text, action in entries(menu).items():
                assert action.menu() or (action.toolTip() and action.toolTip() != text), (title, text)


def test_no_two_entries_have_the_same_key(window: MainWindow) -> None:
    keys = [
        key.toString() for menu in menus(window).values() for action in menu.actions() for key in action.shortcuts()
    ]
    assert len(keys) > 20
    assert len(keys) == len(set(keys))


def test_every_station_is_one_entry_and_one_key_away(window: MainWindow) -> None:
    go = entries(menus(window)["Go"])
    assert tuple(go) == STATIONS
    for name, action in go.items():
        action.trigger()
        assert window.current == name
    press(window, Qt.Key.Key_3, Qt.KeyboardModifier.ControlModifier)
    assert window.current == STATIONS[2]


def test_undo_redo_and_selection_by_the_menu(window: MainWindow, session: Session) -> None:
    edit = entries(menus(window)["Edit"])
    session.edit("title", Doing(lambda job: set_heading(job, title="another")))
    edit["Undo"].trigger()
    assert session.job.title != "another"
    edit["Redo"].trigger()
    assert session.job.title == "another"
    session.select(read_key("device:c1.K"))
    edit["Select nothing"].trigger()
    assert session.selection is None


def test_undo_in_a_field_takes_back_what_was_typed_and_no_edit(window: MainWindow, session: Session) -> None:
    session.edit("title", Doing(lambda job: set_heading(job, title="another")))
    window.go_to("Brief")
    settle_window()
    field = next(f for f in window.stations["Brief"].findChildren(QLineEdit) if f.isVisible())
    field.setFocus()
    field.insert("xyz")
    press(field, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert "xyz" not in field.text()
    assert session.job.title == "another"


def test_the_view_menu_zooms_the_drawing_that_is_shown(window: MainWindow) -> None:
    window.go_to("Plate")
    settle_window()
    view = window.stations["Plate"].findChild(DrawingView)
    assert view is not None
    opens_at, shown = view.scale, entries(menus(window)["View"])
    shown["Larger"].trigger()
    assert view.scale == pytest.approx(1.2 * opens_at)
    shown["All of the drawing"].trigger()
    assert view.scale < opens_at
    shown["As it opens"].trigger()
    assert view.scale == pytest.approx(opens_at)
    shown["Light or dark"].trigger()
    assert window.theme is DARK


def test_the_station_menu_holds_its_buttons_and_presses_them(window: MainWindow) -> None:
    window.go_to("Plate")
    settle_window()
    station = window.stations["Plate"]
    shown = entries(menus(window)["Station"])
    buttons = {b.text(): b for b in station.findChildren(QPushButton) if b.isVisible() and b.toolTip()}
    assert set(shown) == set(buttons)
    assert {text: action.isEnabled() for text, action in shown.items()} == {
        t: b.isEnabled() for t, b in buttons.items()
    }
    shown["Cut list"].trigger()
    assert buttons["Cut list"].isChecked()
    window.show_start()
    assert list(entries(menus(window)["Station"])) == ["Nothing to do here"]


def test_jobs_of_late_are_opened_from_the_file_menu(window: MainWindow, session: Session, tmp_path: Path) -> None:
    window.new_job("NB-7", "Brine pump")
    window.new_job("NB-8", "Rinse pump")
    recent = menus(window)["File"].actions()[2].menu()
    assert isinstance(recent, QMenu)
    shown = entries(recent)
    assert set(shown) == {"NB-7", "NB-8"}
    shown["NB-7"].trigger()
    assert session.job.number == "NB-7"
    assert window.current == "Brief"


def test_f1_shows_all_keys_on_one_page(window: MainWindow) -> None:
    press(window, Qt.Key.Key_F1)
    page = next(w for w in QApplication.topLevelWidgets() if isinstance(w, QDialog) and w.windowTitle() == "Keys")
    table = page.findChild(QTableWidget)
    assert table is not None
    cells = [[table.item(n, column) for column in (1, 0)] for n in range(table.rowCount())]
    rows = {what.text(): keys.text() for what, keys in cells if what and keys}
    assert rows["Edit: Undo"] == "Ctrl+Z"
    assert rows["Go: Plate"] == "Ctrl+3"
    press(page, Qt.Key.Key_Escape)
    assert not page.isVisible()
    page.deleteLater()
