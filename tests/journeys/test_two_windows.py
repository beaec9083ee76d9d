"""The same job in two windows: the second looks only, says who has it, and loses nothing."""

from pathlib import Path

from PySide6.QtWidgets import QApplication

from riktig.core.job import Job, set_heading
from riktig.core.production import BuildStage, Operation, tick_facts
from riktig.core.store import JobFile
from riktig.core.wiring import WIRING
from riktig.desk.following import Follower
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.stations.build import BuildStation
from tests.conftest import Doing, FakeClock
from tests.desk.conftest import app, settle_window

__all__ = ["app"]


def test_the_second_window_looks_only_until_the_first_is_closed(app: QApplication, tmp_path: Path, demo: Job) -> None:
    path = tmp_path / "shared.riktig"
    JobFile.create(path, demo, who="Ida", at="t").close()
    first = MainWindow(Session(who="Ida", clock=FakeClock()))
    second = MainWindow(Session(who="Ola", clock=FakeClock()))
    assert first.open_path(path)
    assert second.open_path(path)
    assert second.session.read_only
    assert "Ida on" in second.drawer.message

    # Everything can be seen in the second, nothing changed, nothing ticked.
    for name in second.stations:
        second.go_to(name)
        settle_window()
    assert not second.session.edit("title", Doing(lambda job: set_heading(job, title="x")))
    build = second.stations["Build"]
    assert isinstance(build, BuildStation)
    build.show_stage(BuildStage.WIRES)
    build.toggle(Operation.CUT)
    assert second.session.records == ()
    assert "Nothing was recorded" in second.drawer.message

    # The first works on; when it is closed, the second may open the job for itself.
    assert first.session.edit("title", Doing(lambda job: set_heading(job, title="first")))
    first.close()
    assert second.open_path(path)
    assert not second.session.read_only
    assert second.session.job.title == "first"
    assert second.session.edit("title", Doing(lambda job: set_heading(job, title="second")))
    second.close()
    file = JobFile(path, read_only=True)
    assert file.job().title == "second"
    file.close()


def test_the_second_window_follows_what_the_first_ticks_and_changes(
    app: QApplication, tmp_path: Path, demo: Job, clock: FakeClock
) -> None:
    path = tmp_path / "KS-0417.riktig"
    JobFile.create(path, demo, who="Ida", at=clock()).close()
    first, second = Session(who="Ida", clock=clock), Session(who="Ola", clock=clock)
    first.open(JobFile(path, who="Ida"))
    second.open(JobFile(path, who="Ola"))
    follower = Follower(second, second)
    assert second.read_only
    assert not follower.look()
    wire = first.evaluation.get(WIRING).wires[0]
    assert first.record(wire.key, tick_facts(wire, Operation.CUT))
    assert follower.look()
    assert second.progress.count(Operation.CUT) == 1
    assert second.records == first.records
    assert first.edit("title", Doing(lambda job: set_heading(job, title="changed elsewhere")))
    assert follower.look()
    assert second.job == first.job
    assert second.evaluation.document is second.job
    assert not follower.look(), "nothing came since"
    assert not Follower(first, first).look(), "who writes follows nobody"
    first.close()
    second.close()
