"""Red-lines at tasks of any stage: noted on the spot, accepted into the drawing, or rejected and done again."""

from collections.abc import Iterator

import pytest

from riktig.core.production import REJECTED, BuildStage, red_lines
from riktig.desk.session import Session
from riktig.desk.stations.build import BuildStation
from tests.desk.conftest import open_gates


@pytest.fixture
def station(session: Session) -> Iterator[BuildStation]:
    station = BuildStation(session)
    station.refresh()
    station.resize(1000, 700)
    station.show()
    session.records_changed.connect(station.refresh)
    open_gates(session)
    yield station
    station.close()


@pytest.mark.parametrize("stage", [BuildStage.RECEIVE, BuildStage.PARTS, BuildStage.STRIPS, BuildStage.TAGS])
def test_a_task_of_any_stage_can_be_red_lined_and_is_done_again_when_that_is_rejected(
    stage: BuildStage, station: BuildStation, session: Session
) -> None:
    station.show_stage(stage)
    page = station.tasks
    task = page.task
    assert task is not None
    title, subject = task.task.title, task.task.subject
    assert page.note_red_line("stands one place further right")
    page.list.setCurrentRow([state.task.title for state in page.state.tasks].index(title) if page.state else 0)
    page.do_now()
    (line,) = red_lines(session.records)
    assert line.said.name == title
    assert line.said.drawn, "what the drawing says stands beside it"
    assert not page.note_red_line("  ")
    station.changes.refresh()
    assert station.changes.open_count == 1
    done = [state for state in page.state.tasks if state.task.subject == subject] if page.state else []
    assert done
    assert done[0].done is not None
    assert station.changes.answer_with(line, REJECTED, "the cover does not fit there")
    assert station.changes.open_count == 0
    station.show_stage(stage)
    after = [state for state in page.state.tasks if state.task.subject == subject] if page.state else []
    assert after[0].done is None
