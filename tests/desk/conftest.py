"""A real window, off the screen, on a file of its own."""

import time
from collections.abc import Callable, Iterable, Iterator
from pathlib import Path

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QWidget

from riktig.core.evaluation import Evaluation
from riktig.core.job import Job
from riktig.core.keys import Key
from riktig.core.production import WORK, gate_facts, gate_subject, stage_states
from riktig.core.proving import DEAD_PANEL, OPEN_LINE, Instrument
from riktig.core.records import NewRecord
from riktig.core.simulation import InjectedFault
from riktig.core.store import JobFile
from riktig.core.views import statuses
from riktig.desk.app import application
from riktig.desk.canvas import DrawingView
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.shell.deriver import WHOLE
from riktig.desk.stations.prove import ProveStation
from riktig.devices import LEADS_OHM, BenchMeter, SimulatedPanel
from tests.conftest import FakeClock
from tests.shared_plan import one_of_equal, plan_for
from tests.waiting import let_pass


@pytest.fixture(scope="session")
def app() -> QApplication:
    return application()


def known(job: Job) -> Evaluation[Job]:
    """A plan of an equal job with all that the shell shows, derived once for all tests of this process."""
    plan = plan_for(job)
    if not all(map(plan.has, WHOLE)):
        statuses(plan, ())
        for result in WHOLE:
            plan.get(result)
    return plan


@pytest.fixture(autouse=True)
def none_left_open() -> Iterator[None]:
    """A window that a test leaves behind would keep the focus from those of the next."""
    yield
    for widget in QApplication.topLevelWidgets():
        widget.hide()


@pytest.fixture(autouse=True)
def shared_plans(monkeypatch: pytest.MonkeyPatch) -> None:
    """A window that opens a job which an earlier test has had need not work it out again."""
    read = JobFile.job
    monkeypatch.setattr(JobFile, "job", lambda file: one_of_equal(read(file)))
    monkeypatch.setattr("riktig.desk.session.Evaluation", plan_for)


@pytest.fixture
def session(app: QApplication, tmp_path: Path, demo: Job, clock: FakeClock) -> Iterator[Session]:
    session = Session(who="Ida", clock=clock)
    session.open(JobFile.create(tmp_path / "KS-0417.riktig", demo, who="Ida", at=clock()))
    session.evaluation = known(session.job)
    session.job = session.evaluation.document
    yield session
    session.close()


@pytest.fixture
def meter() -> BenchMeter:
    return BenchMeter()


@pytest.fixture
def window(
    session: Session, meter: BenchMeter, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> Iterator[MainWindow]:
    monkeypatch.setattr("riktig.desk.shell.start_page.jobs_folder", lambda: tmp_path / "Riktig")
    monkeypatch.setattr("riktig.desk.shell.main_window.jobs_folder", lambda: tmp_path / "Riktig")
    monkeypatch.setattr("riktig.desk.shell.jobs.jobs_folder", lambda: tmp_path / "Riktig")
    monkeypatch.setattr("riktig.desk.shell.job_pictures.pictures_folder", lambda: tmp_path / "pictures")
    monkeypatch.setattr("riktig.desk.user_settings.settings_file", lambda: tmp_path / "house.json")
    window = MainWindow(session, meter)
    window.show()
    settle_window()
    yield window
    session.unwritten = ""
    window.close()
    window.deleteLater()


LONGEST_S = 120.0
"""What is worked out aside may take this long on a machine that has much else to do; 40 motors take 5 s alone."""


def settle_window() -> None:
    """Lets everything that waits for the event loop happen, and what is worked out aside.

    Raises:
        TimeoutError: it did not come to an end; a test that went on would look at an unfinished window.
    """
    for _ in range(4):
        let_pass(1)
    windows = [widget for widget in QApplication.topLevelWidgets() if isinstance(widget, MainWindow)]
    until = time.monotonic() + LONGEST_S
    while any(window.deriver.busy for window in windows):
        if time.monotonic() > until:
            raise TimeoutError(f"the window is still working after {LONGEST_S:.0f} s")
        let_pass(4)


def open_gates(session: Session) -> None:
    """Passes the gates of all stages that are shut, so that wires can be ticked in a panel that nobody has built."""
    states = stage_states(session.evaluation.get(WORK), session.progress, session.records)
    shut = [state for state in states if not state.may_begin]
    session.record_all([NewRecord(gate_subject(s.stage), gate_facts(s, "a test of what comes after")) for s in shut])


BENCH_METER = Instrument("M-34", "4711", "2999-12-31", LEADS_OHM)


def type_reading(prove: ProveStation, faults: Iterable[InjectedFault] = ()) -> str:
    """Types what a meter would show for the test on the card, and returns it."""
    test = prove.current_test()
    assert test is not None
    if prove.instrument is None:
        prove.take_meter(BENCH_METER)
    panel = SimulatedPanel(prove.session.evaluation.get(DEAD_PANEL), faults=faults)
    ohm = prove.meter.read(test, panel)
    text = "open" if ohm == OPEN_LINE else f"{ohm:g}"
    prove.typed.setText(text)
    QTest.keyClick(prove.typed, Qt.Key.Key_Return)
    return text


@pytest.fixture
def said(session: Session) -> list[tuple[str, bool]]:
    heard: list[tuple[str, bool]] = []
    session.said.connect(lambda text, wrong: heard.append((text, wrong)))
    return heard


def press(widget: QWidget, key: Qt.Key, modifier: Qt.KeyboardModifier = Qt.KeyboardModifier.NoModifier) -> None:
    """One key, as typed."""
    QTest.keyClick(widget, key, modifier)
    settle_window()


def click_on(view: DrawingView, key: Key | None) -> None:
    """The left button on a thing of a drawing."""
    view.reveal(key)
    at = view.centre_of(key)
    assert at is not None, f"{key} is on the drawing"
    QTest.mouseClick(view, Qt.MouseButton.LeftButton, pos=at.toPoint())
    settle_window()


def drag(view: DrawingView, start: QPointF, *stops: QPointF, drop: bool = True) -> None:
    """Press, move in steps, and release."""
    QTest.mousePress(view, Qt.MouseButton.LeftButton, pos=start.toPoint())
    for stop in stops:
        half = (start + stop) / 2
        QTest.mouseMove(view, half.toPoint())
        QTest.mouseMove(view, stop.toPoint())
    if drop:
        QTest.mouseRelease(view, Qt.MouseButton.LeftButton, pos=stops[-1].toPoint() if stops else QPoint())
    settle_window()


Waiter = Callable[[Callable[[], bool]], None]


@pytest.fixture
def wait_until() -> Waiter:
    def wait(happened: Callable[[], bool]) -> None:
        for _ in range(6000):
            if happened():
                return
            let_pass(10)
        raise AssertionError("it did not happen within a minute")

    return wait
