"""By keys alone: focus lands where work begins, Tab follows the eye and comes round, Space records nothing unasked."""

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QAbstractScrollArea, QApplication, QLabel, QPushButton, QScrollArea, QWidget

from riktig.core.job import Job
from riktig.core.keys import read_key
from riktig.core.views import STATIONS
from riktig.desk.canvas import DrawingView
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.widgets import ScheduleTable
from tests.desk.conftest import press, settle_window
from tests.effort import share

PAGES = {
    "Circuits": ("Energise", "All sheets", "Add …", "Renumber or retag …"),
    "Plate": ("Mark-out", "Cut list", "Parts"),
    "Door": ("Mark-out",),
    "Wires": ("From – to", "Numbers"),
    "Terminals": ("List",),
    "Labels": ("On the panel",),
}
MOST = 900
ROW_PX = 22
"""Widgets whose middles are nearer than this stand in one line."""
CTRL = Qt.KeyboardModifier.ControlModifier


def focused() -> QWidget:
    widget = QApplication.focusWidget()
    assert widget is not None, "something has the focus"
    return widget


def round_trip(start: QWidget) -> list[QWidget]:
    """What Tab goes through until it comes back to where it began; a trap fails."""
    chain, here = [start], start
    for _ in range(MOST):
        QTest.keyClick(here, Qt.Key.Key_Tab)
        follows = focused()
        assert follows is not here, f"Tab stays in {type(here).__name__} “{here.accessibleName()}”"
        if follows is start:
            return chain
        assert follows not in chain, "Tab goes in a circle that leaves out where it began"
        chain.append(follows)
        here = follows
    raise AssertionError(f"Tab does not come back within {MOST} steps")


def against_the_eye(chain: list[QWidget], page: QWidget) -> list[tuple[str, str]]:
    """Steps of Tab within a page that go up, or left in one line, other than into or out of what scrolls by itself."""
    wrong = []
    for before, after in zip(chain, [*chain[1:], chain[0]], strict=True):
        if not (page.isAncestorOf(before) and page.isAncestorOf(after)):
            continue
        if _scroller(before, page) is not _scroller(after, page):
            continue
        a, b = (widget.mapTo(page, QPoint(0, widget.height() // 2)) for widget in (before, after))
        same_line = abs(a.y() - b.y()) < ROW_PX
        beside = b.x() > a.x() + before.width() - 2
        if not beside and (b.y() < a.y() - ROW_PX or (same_line and b.x() < a.x())):
            wrong.append((before.accessibleName() or repr(before), after.accessibleName() or repr(after)))
    return wrong


def _scroller(widget: QWidget, page: QWidget) -> QWidget | None:
    parent = widget.parentWidget()
    while parent is not None and parent is not page:
        if isinstance(parent, QScrollArea):
            return parent
        parent = parent.parentWidget()
    return None


@pytest.mark.parametrize("name", share(STATIONS, 0))
def test_focus_lands_where_work_begins_by_key_by_click_and_by_link(
    window: MainWindow, session: Session, name: str
) -> None:
    number = STATIONS.index(name) + 1
    window.go_to("Brief" if name != "Brief" else "Wires")
    settle_window()
    press(window, Qt.Key.Key_Minus if number == 11 else Qt.Key(Qt.Key.Key_0 + number % 10), CTRL)
    assert window.current == name
    station = window.stations[name]
    begins = focused()
    assert begins is station.work_place()
    assert begins is station or station.isAncestorOf(begins)
    assert begins.isVisible()
    for other in window.route.stops:
        if other.name == name:
            window.strip.finder.setFocus()
            QTest.mouseClick(other, Qt.MouseButton.LeftButton)
            assert focused() is begins, "after a click on the route card"
            other.setFocus()
            QTest.keyClick(other, Qt.Key.Key_Return)
            assert focused() is begins, "after Enter on the route card"


def test_work_begins_in_the_picture_where_there_is_one(window: MainWindow) -> None:
    for name in ("Circuits", "Plate", "Door", "Wires", "Terminals", "Labels"):
        window.go_to(name)
        assert isinstance(focused(), DrawingView), name
    window.go_to("Build")
    assert isinstance(focused(), QAbstractScrollArea)


def test_after_the_finder_the_keys_are_those_of_the_station(window: MainWindow, session: Session) -> None:
    window.go_to("Plate")
    window.strip.finder.setFocus()
    QTest.keyClicks(window.strip.finder, "K1")
    settle_window()
    press(window.strip.finder, Qt.Key.Key_Return)
    assert session.selection is not None
    assert window.stations[window.current].isAncestorOf(focused())


@pytest.mark.parametrize("name", share(STATIONS, 1))
def test_tab_follows_the_eye_and_comes_round(window: MainWindow, name: str) -> None:
    window.go_to(name)
    settle_window()
    chain = round_trip(focused())
    station = window.stations[name]
    assert against_the_eye(chain, station) == []
    outside = [widget for widget in chain if widget is not station and not station.isAncestorOf(widget)]
    assert set(window.route.stops) <= set(outside)
    assert window.strip.finder in outside
    buttons = [b for b in station.findChildren(QPushButton) if b.isVisible() and b.isEnabled()]
    reached = [b for b in buttons if b.focusPolicy() & Qt.FocusPolicy.TabFocus]
    assert set(reached) <= set(chain), [b.text() for b in reached if b not in chain]


@pytest.mark.parametrize("name", share(PAGES, 2))
def test_tab_comes_round_on_every_page_of_a_station(window: MainWindow, name: str) -> None:
    for title in PAGES[name]:
        window.go_to(name)
        settle_window()
        station = window.stations[name]
        opener = next(b for b in station.findChildren(QPushButton) if b.text() == title)
        opener.click()
        settle_window()
        opener.setFocus()
        settle_window()
        chain = round_trip(focused())
        assert against_the_eye(chain, station) == [], title
        if opener.isCheckable() and opener.isChecked() and name not in ("Wires", "Labels", "Terminals"):
            opener.click()


def test_shift_tab_goes_the_same_way_back(window: MainWindow) -> None:
    window.go_to("Rules")
    settle_window()
    start = focused()
    there = round_trip(start)
    back, here = [], start
    for _ in there[1:]:
        QTest.keyClick(here, Qt.Key.Key_Backtab, Qt.KeyboardModifier.ShiftModifier)
        here = focused()
        back.append(here)
    assert back == there[:0:-1]


def test_a_table_lets_tab_go_and_is_walked_by_arrows(window: MainWindow, session: Session) -> None:
    window.go_to("Terminals")
    next(b for b in window.stations["Terminals"].findChildren(QPushButton) if b.text() == "List").click()
    table = next(iter(window.stations["Terminals"].findChildren(ScheduleTable)))
    table.setFocus()
    QTest.keyClick(table, Qt.Key.Key_Tab)
    assert focused() is not table
    table.setFocus()
    QTest.keyClick(table, Qt.Key.Key_Down)
    QTest.keyClick(table, Qt.Key.Key_Down)
    assert table.currentIndex().row() >= 1


@pytest.mark.parametrize("name", [name for name in STATIONS if name != "Brief"])
def test_space_where_focus_lands_records_only_what_the_bench_asks_for(
    window: MainWindow, session: Session, name: str
) -> None:
    """In Build and Prove the list and the card take Space as the tick and the reading; nowhere else is it one."""
    window.go_to(name)
    before, job = len(session.records), session.job
    if name == "Hand over":
        focused().clearFocus()  # the button that exports says what it does; it is tried elsewhere
        return
    press(focused(), Qt.Key.Key_Space)
    assert session.job is job
    assert len(session.records) == before + (name == "Build")


def test_a_details_link_moves_the_focus_only_with_the_station(window: MainWindow, session: Session) -> None:
    window.go_to("Plate")
    session.select(read_key("circuit:c1"))
    settle_window()
    window.show_thing(read_key("load:a"))
    assert window.current == "Brief"
    assert window.stations["Brief"].isAncestorOf(focused())


@pytest.fixture
def demo(request: pytest.FixtureRequest, demo: Job) -> Job:
    return getattr(request, "param", demo)


@pytest.mark.parametrize("demo", [Job(number="X-1")], indirect=True)
def test_a_station_without_anything_to_show_says_what_it_waits_for_and_leads_there(window: MainWindow) -> None:
    for name in STATIONS[1:]:
        window.go_to(name)
        settle_window()
        station = window.stations[name]
        assert station.empty, name
        assert station.note.isVisible()
        assert len(station.note.words.text().split(". ")) == 2, "what is missing, and what it comes from"
        if not station.usable_empty:
            assert focused() is station.note.lead, name
        press(station.note.lead, Qt.Key.Key_Space)
        assert window.current == "Brief"
        assert window.stations["Brief"].isAncestorOf(focused())
    window.go_to("Rules")
    rules = window.stations["Rules"]
    verdicts = [label for label in rules.findChildren(QLabel) if label.isVisible() and "meets" in label.text()]
    places = [(label, label.mapTo(rules, label.rect().center())) for label in verdicts]
    in_sight = [(label, at) for label, at in places if rules.rect().contains(at)]
    assert in_sight
    for label, at in in_sight:
        assert rules.childAt(at) is not label, "of an empty job nothing is said to meet a clause"


def test_with_a_load_the_note_is_gone(window: MainWindow) -> None:
    for name in STATIONS:
        window.go_to(name)
        assert not window.stations[name].empty, name
