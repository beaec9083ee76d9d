"""The walk through the panel: offered with the demonstration, followed by keys alone, stopped at any time."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from riktig.core.job import Job, add_load, new_job
from riktig.core.schematic import with_names_recorded
from riktig.core.views import STATIONS, walk_steps
from riktig.demo_job import frost_fan, kelp_shed
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from tests.desk.conftest import settle_window
from tests.shared_plan import plan_for


@pytest.mark.parametrize(
    "job", [kelp_shed(), frost_fan(), with_names_recorded(add_load(new_job("W-1", "one"), "saw", 3.0))]
)
def test_seven_steps_in_the_order_of_work_on_one_load(job: Job) -> None:
    steps = walk_steps(plan_for(job))
    assert len(steps) == 7
    places = [STATIONS.index(step.station) for step in steps]
    assert places == sorted(places)
    assert steps[0].station == "Brief"
    assert steps[-1].station == "Prove"
    first = next(load for load in job.loads if load.is_motor)
    assert first.name in steps[0].text
    assert first.power_name in steps[0].text


def test_a_job_without_loads_has_no_walk(window: MainWindow, session: Session) -> None:
    assert walk_steps(plan_for(new_job("W-2", "empty"))) == ()


def test_it_is_offered_with_the_demonstration_and_followed_by_enter(window: MainWindow, session: Session) -> None:
    window.open_demo()
    settle_window()
    assert window.walk.isVisible()
    assert window.walk.at == -1
    window.walk.next.setFocus()
    seen = []
    for _ in range(7):
        here = QApplication.focusWidget()
        assert here is window.walk.next, "the next step is one key away"
        QTest.keyClick(here, Qt.Key.Key_Space)
        settle_window()
        seen.append(window.current)
    assert seen == ["Brief", "Circuits", "Plate", "Wires", "Rules", "Build", "Prove"]
    assert str(session.selection).startswith("wire:")
    QTest.keyClick(window.walk.next, Qt.Key.Key_Space)
    assert not window.walk.isVisible()


def test_it_can_be_refused_stopped_and_begun_from_the_menu(window: MainWindow) -> None:
    window.open_demo()
    settle_window()
    QTest.mouseClick(window.walk.stop, Qt.MouseButton.LeftButton)
    assert not window.walk.isVisible()
    next(a for a in window.menus["Help"].actions() if a.text() == "A walk through the panel").trigger()
    settle_window()
    assert window.walk.at == 0
    QTest.mouseClick(window.walk.next, Qt.MouseButton.LeftButton)
    QTest.mouseClick(window.walk.back, Qt.MouseButton.LeftButton)
    assert window.current == "Brief"
    QTest.mouseClick(window.walk.stop, Qt.MouseButton.LeftButton)
    assert not window.walk.isVisible()
