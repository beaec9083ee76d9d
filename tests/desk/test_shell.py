"""The shell: route card, finder, details, drawer, themes, and the keyboard."""

import sys
from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QLabel, QPushButton, QWidget

from riktig.core.errors import RiktigError
from riktig.core.job import ControlSupply, set_practice, set_supply
from riktig.core.keys import Key, read_key
from riktig.core.views import STATIONS
from riktig.core.work import Progress
from riktig.desk.background import Work
from riktig.desk.rescue import install
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.theme import DARK, LIGHT
from tests.conftest import Doing
from tests.desk.conftest import Waiter, press, settle_window


def inside(window: MainWindow) -> QWidget:
    widget = window.details.widget()
    assert widget is not None
    return widget


def words(window: MainWindow) -> str:
    return " ".join(label.text() for label in inside(window).findChildren(QLabel))


def test_the_route_card_has_the_stations_in_the_order_of_work(window: MainWindow) -> None:
    assert tuple(stop.name for stop in window.route.stops) == STATIONS
    assert all(stop.accessibleDescription() for stop in window.route.stops)
    assert window.route.stops[4].status.line.startswith("31 wires")


def test_the_route_card_is_walked_by_arrow_keys_and_entered_by_enter(window: MainWindow) -> None:
    window.route.stops[0].setFocus()
    press(window.route.stops[0], Qt.Key.Key_Down)
    press(window.route.stops[1], Qt.Key.Key_Down)
    press(window.route.stops[2], Qt.Key.Key_Return)
    assert window.current == "Plate"
    QTest.mouseClick(window.route.stops[5], Qt.MouseButton.LeftButton)
    assert window.current == "Terminals"


@pytest.mark.parametrize(
    ("typed", "key", "station"),
    [
        ("K1", read_key("device:c1.K"), "Brief"),
        ("D4", read_key("duct:D4"), "Plate"),
        ("M1-U", read_key("net:c1.FO:2"), "Circuits"),
        ("K1:13", read_key("pin:c1.K:13"), "Circuits"),
    ],
)
def test_the_finder_goes_to_what_was_typed(window: MainWindow, typed: str, key: Key | None, station: str) -> None:
    window.go_to("Brief")
    finder = window.strip.finder
    finder.setFocus()
    QTest.keyClicks(finder, typed)
    press(finder, Qt.Key.Key_Return)
    assert window.session.selection == key
    assert window.current == station


def test_the_finder_is_walked_by_arrow_keys_and_left_by_escape(window: MainWindow) -> None:
    finder = window.strip.finder
    QTest.keyClicks(finder, "earth")
    press(finder, Qt.Key.Key_Down)
    assert finder.hits.currentRow() == 1
    press(finder, Qt.Key.Key_Escape)
    assert finder.text() == ""
    QTest.keyClicks(finder, "no such thing")
    press(finder, Qt.Key.Key_Return)
    assert window.session.selection is None


def test_the_details_say_what_where_and_why_and_its_links_lead_on(window: MainWindow) -> None:
    window.session.select(read_key("device:c1.K"))
    settle_window()
    text = words(window)
    assert "K1" in text
    assert "Why 9 A AC-3" in text
    assert "IEC 60947-4-1" in text
    links = [b for b in inside(window).findChildren(QPushButton) if "go there" in b.accessibleName()]
    links[0].click()
    settle_window()
    assert window.session.selection != read_key("device:c1.K")
    window.session.select(None)
    settle_window()
    assert "Select a device, terminal, wire or hole" in words(window)


def test_findings_open_lead_there_and_are_mended(window: MainWindow, session: Session) -> None:
    session.edit("straight", Doing(lambda job: set_practice(job, control_supply=ControlSupply.DIRECT)))
    session.edit("no neutral", Doing(lambda job: set_supply(job, neutral=False)))
    settle_window()
    assert window.drawer.counts[0].text() == "✗ 2 fail", "the neutral, and coils at 400 V"
    window.drawer.opener.click()
    settle_window()
    buttons = {b.text(): b for b in window.drawer.findChildren(QPushButton) if b.isVisible()}
    buttons["The supply brings a neutral"].click()
    settle_window()
    assert session.job.supply.neutral
    assert window.drawer.counts[0].text() == "✗ 0 fail"
    assert session.undo_name == "The supply brings a neutral"


def test_one_selection_serves_every_station(window: MainWindow, session: Session) -> None:
    wire = read_key("wire:c1.FO:96~c1.S.stop:1")
    session.select(wire)
    for name in STATIONS:
        window.go_to(name)
        settle_window()
        assert session.selection == wire
    assert "Wire 8" in words(window)


def test_the_theme_turns_by_key_and_back(window: MainWindow) -> None:
    press(window, Qt.Key.Key_T, Qt.KeyboardModifier.ControlModifier)
    assert window.theme is DARK
    for name in STATIONS:
        window.go_to(name)
    press(window, Qt.Key.Key_T, Qt.KeyboardModifier.ControlModifier)
    assert window.theme is LIGHT


def test_f6_goes_round_the_panes_and_f9_folds_the_details(window: MainWindow) -> None:
    window.go_to("Plate")
    assert not window.details.isVisible(), "nothing is selected: it has nothing to say"
    window.session.select(read_key("wire:c1.FO:96~c1.S.stop:1"))
    settle_window()
    seen = []
    for _ in range(4):
        press(window, Qt.Key.Key_F6)
        focus = QApplication.focusWidget()
        seen.append(
            next(
                (
                    n
                    for n, p in (
                        ("route", window.route),
                        ("station", window.stations["Plate"]),
                        ("details", window.details),
                        ("drawer", window.drawer),
                    )
                    if focus and (p is focus or p.isAncestorOf(focus))
                ),
                "",
            )
        )
    assert set(seen) == {"route", "station", "details", "drawer"}
    press(window, Qt.Key.Key_F9)
    assert not window.details.isVisible()
    press(window, Qt.Key.Key_F9)
    assert window.details.isVisible()


def test_undo_and_redo_say_what_they_would_do(window: MainWindow, session: Session) -> None:
    assert not window.strip.undo.isEnabled()
    session.edit("straight", Doing(lambda job: set_practice(job, control_supply=ControlSupply.DIRECT)))
    session.edit("no neutral", Doing(lambda job: set_supply(job, neutral=False)))
    settle_window()
    assert "no neutral" in window.strip.undo.toolTip()
    window.strip.undo.click()
    settle_window()
    assert session.job.supply.neutral
    assert "no neutral" in window.strip.redo.toolTip()


def test_the_window_fits_its_usual_size_on_a_busy_day_too(window: MainWindow, session: Session) -> None:
    session.who = "Ingebjorg Tveit"
    for name in ("Build", "Prove"):
        window.go_to(name)
        for _ in range(9):
            press(window.stations[name], Qt.Key.Key_Space)
            press(window.stations[name], Qt.Key.Key_Return)
    session.say("A very long sentence about what has happened to the panel since this morning. " * 3)
    settle_window()
    assert len(session.records) == 9
    assert window.minimumSizeHint().width() <= 1280
    assert window.minimumSizeHint().height() <= 800


def test_a_bug_in_a_slot_reaches_the_one_handler_and_the_window_goes_on(
    window: MainWindow, session: Session, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, said: list[tuple[str, bool]]
) -> None:
    told: list[str] = []
    monkeypatch.setattr(sys, "__excepthook__", lambda *error: None)
    before = sys.excepthook
    install(session, lambda text, rescued: told.append(text))
    try:
        sys.excepthook(ZeroDivisionError, ZeroDivisionError("ours"), None)
        assert "everything confirmed are safe" in told[0]
        assert list(tmp_path.glob("*-rescued-1.json"))
        sys.excepthook(RiktigError, RiktigError("Yours.", hint="Do this."), None)
        assert said[-1] == ("Yours. Do this.", True)
        assert len(told) == 1
    finally:
        sys.excepthook = before
    window.go_to("Wires")
    assert window.current == "Wires"


def test_what_is_not_in_the_file_is_said_before_the_window_closes(window: MainWindow, session: Session) -> None:
    assert session.file
    session.unwritten = "an edit"
    session.file.read_only = True
    assert not window.close(), "it stays open and says so"
    assert "not in the file" in window.drawer.message
    session.file.read_only = False
    session.write_again()
    assert session.unwritten == ""


@pytest.mark.parametrize(("outcome", "expected"), [("result", "done"), ("error", "failed"), ("stop", "stopped")])
def test_background_work_ends_in_one_way(app: QApplication, wait_until: Waiter, outcome: str, expected: str) -> None:
    heard: list[str] = []

    def job(progress: Progress) -> object:
        progress.step(0.5, "half")
        if outcome == "error":
            raise RiktigError("no")
        while outcome == "stop":
            progress.step(0.6, "more")
        return 42

    work = Work(job)
    for name in ("done", "failed"):
        getattr(work, name).connect(lambda value, name=name: heard.append(name))
    work.stopped.connect(lambda: heard.append("stopped"))
    work.start()
    if outcome == "stop":
        work.stop()
    wait_until(lambda: bool(heard))
    work.wait()
    assert heard == [expected]
