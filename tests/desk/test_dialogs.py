"""Every dialog: nothing cut, nothing over anything else, letters of 9 pt, a focus to begin with, and Esc closes it."""

from collections.abc import Callable, Iterator
from dataclasses import replace

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import (
    QAbstractButton,
    QAbstractSpinBox,
    QApplication,
    QDialog,
    QInputDialog,
    QLabel,
    QMessageBox,
    QPushButton,
    QWidget,
)

from riktig.core.errors import RiktigError
from riktig.core.ids import DeviceId, read_pin
from riktig.core.keys import DeviceKey, PinKey
from riktig.core.views import MOST_NUMBERED, STATIONS
from riktig.core.wiring import BARE_PLATE_DRAWING
from riktig.desk import theme
from riktig.desk.canvas import LEAST_PX
from riktig.desk.printing.preview import PrintPreview
from riktig.desk.shell import MainWindow
from riktig.desk.shell.commands import print_station
from riktig.desk.shell.go_on import COPY_WORDS, show_message
from riktig.desk.shell.guide import GuideWindow
from riktig.desk.shell.properties import show_properties
from riktig.desk.stations.circuits.live_script import ScriptAsked
from riktig.desk.stations.circuits.own import DeviceAsked, RungAsked
from riktig.desk.stations.prove import ProveStation
from riktig.desk.stations.prove.suspects_dialog import SuspectsDialog
from riktig.desk.stations.terminals import TerminalsStation
from riktig.desk.stations.wires import WiresStation
from riktig.desk.widgets import Station
from tests.desk.conftest import settle_window
from tests.desk.measure import cut_cells, cut_texts, overlapping_widgets
from tests.effort import share
from tests.waiting import let_pass

NODES = {f"potential {n}": f"potential {n}" for n in range(12)}
LONG = "The reading is 0.9 ohm; expected is 0 to 0.5 ohm, between XD1:L1 and Q1:2. What is wrong there? "


def refused(_: object) -> None:
    raise RiktigError("There is no contact 13-14 on Q1.", hint="Take one that is on it, such as 1-2.")


def meter_page(window: MainWindow) -> None:
    window.go_to("Prove")
    prove = window.stations["Prove"]
    assert isinstance(prove, ProveStation)
    prove.ask_meter()


def asked(window: MainWindow) -> None:
    dialog = QInputDialog(window)
    dialog.setLabelText(LONG)
    dialog.open()


def order_page(window: MainWindow) -> None:
    window.go_to("Wires")
    wires = window.stations["Wires"]
    assert isinstance(wires, WiresStation)
    window.session.select(PinKey(read_pin("c1.K:A2")))
    wires.order.click()


def cores_page(window: MainWindow) -> None:
    window.go_to("Terminals")
    terminals = window.stations["Terminals"]
    assert isinstance(terminals, TerminalsStation)
    window.session.select(DeviceKey(DeviceId("c1.M")))
    cable = terminals.cables.cable()
    assert cable is not None
    terminals.cables.ask_cores(cable)


def suspects_page(window: MainWindow) -> None:
    words = ["Wires from K1:A2 and PE:1 changed over at X1:N and X1:PE"] * MOST_NUMBERED
    plate = window.session.evaluation.get(BARE_PLATE_DRAWING)
    SuspectsDialog((plate, replace(plate, title="Sheet 2: control")), words, 108, window.theme, window).open()


OPENERS: dict[str, Callable[[MainWindow], object]] = {
    "keys": lambda window: QTest.keyClick(window, Qt.Key.Key_F1),
    "properties": lambda window: show_properties(window, window.session),
    "message": lambda window: show_message(
        window, f"KS-0417 was changed. {COPY_WORDS}", ("Go on in a copy", lambda: None)
    ),
    "script": lambda window: ScriptAsked(window, "", "press S1: K1 in", refused).open(),
    "rung": lambda window: RungAsked(NODES, 1, refused, window).open(),
    "wire order": order_page,
    "cores": cores_page,
    "suspects": suspects_page,
    "device": lambda window: DeviceAsked(refused, window).open(),
    "function": meter_page,
    "question": asked,
    "print": lambda window: print_station(window, window),
}


@pytest.fixture(params=[10.0, 13.0], ids=["usual letters", "large letters"])
def letters(request: pytest.FixtureRequest, app: QApplication) -> Iterator[float]:
    """The desktop asks for letters of that size, pt."""
    theme.grow_text(request.param)
    yield request.param
    theme.grow_text(10.0)


def open_dialog(window: MainWindow, name: str) -> QDialog:
    window.resize(1000, 700)
    window.go_to("Rules")
    settle_window()
    OPENERS[name](window)
    for _ in range(300):
        let_pass(20)
        dialogs = [w for w in QApplication.topLevelWidgets() if isinstance(w, QDialog) and w.isVisible()]
        if dialogs and (not isinstance(dialogs[-1], PrintPreview) or dialogs[-1].pages is not None):
            return dialogs[-1]
    raise AssertionError(f"the dialog {name} has not opened")


@pytest.mark.usefixtures("letters")
@pytest.mark.parametrize("name", share(OPENERS, 0))
def test_nothing_in_a_dialog_is_cut_or_lies_over_something(window: MainWindow, name: str) -> None:
    window.set_theme(window.theme)
    dialog = open_dialog(window, name)
    settle_window()
    assert [*cut_texts(dialog), *overlapping_widgets(dialog), *cut_cells(dialog)] == []
    texts = [w for w in dialog.findChildren(QWidget) if isinstance(w, QLabel | QPushButton) and w.isVisible()]
    assert texts
    assert [w.text() for w in texts if w.text() and w.fontInfo().pixelSize() < LEAST_PX] == []
    dialog.close()


@pytest.mark.parametrize("name", share(OPENERS, 1))
def test_a_dialog_begins_in_focus_has_a_title_and_goes_with_esc(window: MainWindow, name: str) -> None:
    dialog = open_dialog(window, name)
    assert dialog.windowTitle() or isinstance(dialog, QMessageBox | QInputDialog)
    focus = QApplication.focusWidget()
    assert focus is not None
    assert dialog.isAncestorOf(focus)
    QTest.keyClick(dialog, Qt.Key.Key_Escape)
    settle_window()
    assert not dialog.isVisible()


def test_the_guide_opens_beside_the_work_and_finds_words(window: MainWindow) -> None:
    window.go_to("Plate")
    settle_window()
    QTest.keyClick(window, Qt.Key.Key_F1, Qt.KeyboardModifier.ShiftModifier)
    settle_window()
    guide = next(child for child in window.findChildren(GuideWindow) if child.isVisible())
    assert not guide.isModal()
    text = guide.page.toPlainText()
    for name in STATIONS:
        assert name in text, name
    assert ".md" not in text, "no link to a paper that does not ship"
    guide.words.setText("mark both ends")
    QTest.keyClick(guide.words, Qt.Key.Key_Return)
    assert guide.page.textCursor().selectedText() == "mark both ends"
    guide.words.setText("no such words at all")
    QTest.keyClick(guide.words, Qt.Key.Key_Return)
    assert guide.said.text() == "The guide does not say “no such words at all”."
    window.go_to("Wires")
    assert window.current == "Wires", "the window behind it is in use"
    guide.close()


def test_every_control_says_what_it_is_to_who_does_not_see_it(window: MainWindow) -> None:
    """A name, or a text of its own; a button that is only a sign has a name."""
    seen = 0
    for name in window.stations:
        window.go_to(name)
        settle_window()
        for widget in window.findChildren(QWidget):
            if not widget.isVisible() or not widget.focusPolicy() & Qt.FocusPolicy.TabFocus:
                continue
            text = widget.text() if isinstance(widget, QAbstractButton) else ""
            inner = isinstance(widget.parent(), QAbstractSpinBox)  # the field of a number, which has the name
            bare = isinstance(widget, Station) or inner  # a station that takes keys is named by its heading
            assert widget.accessibleName() or len(text.strip("+-·…× ")) > 1 or bare, (name, widget)
            seen += 1
    assert seen > 300
