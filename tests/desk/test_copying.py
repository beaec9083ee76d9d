"""Tables and lists copied as text, by keys, in the real window."""

from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QLineEdit, QListWidget

from riktig.core.wiring import WIRING
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.widgets import ScheduleTable
from tests.desk.conftest import settle_window

CTRL = Qt.KeyboardModifier.ControlModifier


def copied(window: MainWindow, *, whole: bool = False) -> list[list[str]]:
    """What stands on the clipboard after the keys, row by row."""
    here = QApplication.focusWidget() or window
    QTest.keyClick(here, Qt.Key.Key_C, CTRL | Qt.KeyboardModifier.ShiftModifier if whole else CTRL)
    return [line.split("\t") for line in QApplication.clipboard().text().splitlines()]


def test_one_row_of_a_table_and_all_of_it_with_headings(window: MainWindow, session: Session) -> None:
    window.go_to("Wires")
    station = window.stations["Wires"]
    next(b for b in station.findChildren(type(window.effect.more)) if b.text() == "From – to").click()
    settle_window()
    table = next(t for t in station.findChildren(ScheduleTable) if t.isVisible())
    table.selectRow(2)
    table.setFocus()
    (row,) = copied(window)
    wire = session.evaluation.get(WIRING).wires[2]
    assert wire.number in row
    assert wire.start.label in row
    rows = copied(window, whole=True)
    assert len(rows) == 1 + len(session.evaluation.get(WIRING).wires)
    assert "From" in rows[0]
    assert len({len(cells) for cells in rows}) == 1, "every row has as many cells"
    assert "Copied" in window.drawer.message


def test_a_list_is_copied_without_headings(window: MainWindow) -> None:
    window.go_to("Build")
    settle_window()
    lines = window.stations["Build"].findChild(QListWidget)
    assert isinstance(lines, QListWidget)
    lines.setFocus()
    rows = copied(window, whole=True)
    assert window.drawer.message.startswith("Copied")
    assert len(rows) == lines.count()
    assert len(copied(window)) == 1


def test_in_a_field_its_own_text_is_copied(window: MainWindow) -> None:
    window.go_to("Brief")
    field = next(line for line in window.stations["Brief"].findChildren(QLineEdit) if line.text() == "KS-0417")
    field.setFocus()
    field.selectAll()
    assert copied(window) == [["KS-0417"]]


def test_where_there_is_no_list_that_is_said(window: MainWindow) -> None:
    window.go_to("Brief")
    settle_window()
    window.setFocus()
    QApplication.clipboard().setText("before")
    for action in window.menus["Edit"].actions():
        if action.text() == "Copy":
            action.trigger()
    assert QApplication.clipboard().text() == "before"
    assert "no table or list" in window.drawer.message
