"""The window on a job of the server: followed live, handed in aside, a choice where both changed a part, the board."""

from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from sqlalchemy.engine import Engine

from riktig.core.edits import ChangeLoad
from riktig.core.job import change_load
from riktig.core.records import FindingNoted, NoteKept, Record
from riktig.core.store import JobFile
from riktig.demo_job import wash_drum
from riktig.desk.app import application
from riktig.desk.server.board_dialog import BoardDialog, keep_server
from riktig.desk.server.both_changed_dialog import BothChangedDialog, part_words
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.stations.handover import HandoverStation
from riktig.server.address import ServerAddress
from riktig.server.exchange import exchange
from riktig.server.moving import put
from riktig.server.opening import open_server_job
from riktig.server.server_job import ServerJob
from tests.server.conftest import Cluster
from tests.waiting import let_pass

Address = Callable[..., ServerAddress]
Way = Callable[..., Engine]
NOW = "2026-12-01T08:00:00+01:00"
LOAD = wash_drum().loads[0].id


def until(true: Callable[[], object], seconds: float = 20.0) -> None:
    for _ in range(int(seconds / 0.02)):
        if true():
            return
        let_pass(20)
    raise TimeoutError


@pytest.fixture
def window(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Iterator[MainWindow]:
    for name in ("CONFIG", "DATA", "CACHE", "STATE"):
        monkeypatch.setenv(f"XDG_{name}_HOME", str(tmp_path / name.lower()))
    monkeypatch.setenv("HOME", str(tmp_path))
    application()
    window = MainWindow(Session(who="Ida"))
    window.show()
    yield window
    window.close()
    window.deleteLater()
    let_pass(1)


@pytest.fixture
def on_server(tmp_path: Path, shop: Address, way: Way) -> None:
    file = JobFile.create(tmp_path / "drum.riktig", wash_drum(), who="Ida", at=NOW)
    put(way(), shop(), file)
    file.close()


@pytest.fixture
def eve(tmp_path: Path, shop: Address, way: Way, on_server: None) -> Iterator[ServerJob]:
    job = open_server_job(way("eve"), shop("eve"), tmp_path / "eve", who="Eve")
    yield job
    job.close()


def typed(address: ServerAddress) -> str:
    return address.url.render_as_string(hide_password=False) + f"?job={address.job}"


def swap(job: ServerJob, engine: Engine) -> None:
    job.take(exchange(engine, job.address, job.known(), job.waiting))


def notes(records: tuple[Record, ...] | list[Record]) -> list[str]:
    return [record.facts.text for record in records if isinstance(record.facts, NoteKept)]


def hand_over(window: MainWindow) -> HandoverStation:
    window.go_to("Hand over")
    station = window.stations["Hand over"]
    assert isinstance(station, HandoverStation)
    return station


def not_in_step(window: MainWindow) -> bool:
    """Whether Hand over lists, on the screen, that this bench and the server are not in step."""
    shown = hand_over(window).missing
    return any("not in step" in shown.item(row).text() for row in range(shown.count()))


def test_what_two_benches_do_is_at_the_other_within_a_second(
    window: MainWindow, eve: ServerJob, shop: Address, way: Way
) -> None:
    assert window.jobs.open_named(typed(shop()))
    session = window.session
    until(lambda: not window.server.words)
    assert session.record("job", NoteKept("from the window", "job"))
    until(lambda: isinstance(session.file, ServerJob) and not session.file.waiting)
    swap(eve, way("eve"))
    assert notes(eve.records()) == ["from the window"]
    eve.add_records([Record("e1", "job", NoteKept("from Eve", "job"), "Eve", NOW, 1)])
    swap(eve, way("eve"))
    until(lambda: len(session.records) == 2, 5.0)
    assert notes(session.records) == ["from the window", "from Eve"]
    eve.add_revision(change_load(eve.job(), LOAD, kw=3.0), who="Eve", at=NOW, why="kW")
    swap(eve, way("eve"))
    until(lambda: session.job.loads[0].kw == 3.0, 5.0)
    assert not session.undo_name, "an undo from here would take back what Eve did"


def test_without_the_server_work_goes_on_and_is_handed_in_when_it_is_back(
    window: MainWindow, eve: ServerJob, shop: Address, way: Way, cluster: Cluster
) -> None:
    assert window.jobs.open_named(typed(shop()))
    until(lambda: not window.server.words)
    cluster.stop("immediate")
    try:
        assert window.session.record("job", NoteKept("alone", "job"))
        assert window.session.edit("kW", ChangeLoad(LOAD, {"kw": 3.0}))
        until(lambda: "cannot be reached" in window.server.words)
        assert window.server.words.startswith("1 entry and 1 change of the plan wait to be handed in")
        until(lambda: "cannot be reached" in window.drawer.kept.text())
        assert not_in_step(window), "what other benches find meanwhile is not known here"
        texts = [item.text for item in hand_over(window).gates.missing()]
        assert any("1 entry and 1 change of the plan wait to be handed in" in text for text in texts)
    finally:
        cluster.start()
    until(lambda: not window.server.words)
    until(lambda: not not_in_step(window))
    swap(eve, way("eve"))
    assert notes(eve.records()) == ["alone"]
    assert eve.job().loads[0].kw == 3.0


def test_what_both_changed_is_shown_side_by_side_and_settled_in_the_window(
    window: MainWindow, eve: ServerJob, shop: Address, way: Way
) -> None:
    assert window.jobs.open_named(typed(shop()))
    until(lambda: not window.server.words)
    line = window.server._line
    assert line is not None
    line.blockSignals(True)  # the bench is deaf for a while
    eve.add_revision(change_load(eve.job(), LOAD, kw=3.0, cable_m=50.0), who="Eve", at=NOW, why="kW")
    swap(eve, way("eve"))
    let_pass(400)
    line.blockSignals(False)
    window.session.edit("kW", ChangeLoad(LOAD, {"kw": 5.5}))
    until(lambda: window.findChildren(BothChangedDialog))
    (dialog,) = window.findChildren(BothChangedDialog)
    (path,) = dialog.here
    assert path == f"loads · {LOAD} · kw"
    assert (dialog.here[path].text(), dialog.there[path].text()) == ("5.5", "3.0")
    assert dialog.there[path].isChecked(), "nobody's work is written over unasked"
    dialog.reject()
    assert window.session.record("job", NoteKept("work goes on", "job"))
    until(lambda: window.server.words == "1 change of the plan waits to be handed in, both changed the same part")
    let_pass(300)
    assert not dialog.isVisible(), "who wants to settle it later is not asked at every tick"
    window.session.edit("cable", ChangeLoad(LOAD, {"cable_m": 60.0}))
    both = [path, f"loads · {LOAD} · cable_m"]

    def shown() -> list[BothChangedDialog]:
        dialogs = window.findChildren(BothChangedDialog)
        return [dialog for dialog in dialogs if dialog.isVisible() and list(dialog.here) == both]

    until(shown)
    (dialog,) = shown()
    dialog.here[path].click()
    dialog.hand_in()
    until(lambda: not window.server.words)
    swap(eve, way("eve"))
    for job in (window.session.job, eve.job()):
        assert (job.loads[0].kw, job.loads[0].cable_m) == (5.5, 50.0)


def test_the_board_says_who_is_on_what_and_opens_a_job(
    window: MainWindow, on_server: None, shop: Address, way: Way
) -> None:
    assert window.jobs.open_named(typed(shop()))
    until(lambda: not window.server.words and window.server._line is not None)
    keep_server(shop().with_job("").url.render_as_string(hide_password=False))
    board = BoardDialog(window.session, window.jobs.open_on_server, window)
    board.show()
    until(lambda: board.rows and board.rows[0].here)
    (row,) = board.rows
    assert row.job == "drum"
    assert row.here[0].startswith("Ida (")
    item = board.table.item(0, 0)
    assert item is not None
    assert item.text().startswith("drum")
    board.open_row(0)
    assert board.result() == 1
    board.close()


def test_an_open_job_is_put_on_the_server_and_opened_there(window: MainWindow, shop: Address, tmp_path: Path) -> None:
    window.session.open(JobFile.create(tmp_path / "own.riktig", wash_drum(), who="Ida", at=NOW))
    keep_server(shop().with_job("").url.render_as_string(hide_password=False))
    board = BoardDialog(window.session, window.jobs.open_on_server, window)
    board.put()
    assert isinstance(window.session.file, ServerJob)
    assert window.session.file.address.job == window.session.job.number
    board.close()


def test_what_cannot_be_reached_is_said_and_the_job_at_hand_stays(window: MainWindow, tmp_path: Path) -> None:
    window.session.open(JobFile.create(tmp_path / "own.riktig", wash_drum(), who="Ida", at=NOW))
    assert not window.jobs.open_named("postgresql://ida@127.0.0.1:1/riktig?job=x")
    assert "cannot be reached" in window.drawer.message
    assert not window.jobs.open_named("postgresql://")
    assert window.session.file is not None
    assert window.session.file.path.name == "own.riktig"


def test_a_part_is_called_by_its_name() -> None:
    job = wash_drum()
    assert part_words(f"loads · {LOAD} · cable_m", job) == f"loads, {job.loads[0].name}: cable m"


def test_who_may_not_change_the_plan_is_told_so_and_can_still_work(
    window: MainWindow, on_server: None, shop: Address, way: Way
) -> None:
    assert window.jobs.open_named(typed(shop("ben")))
    session = window.session
    until(lambda: not window.server.words)
    assert not session.edit("kW", ChangeLoad(LOAD, {"kw": 3.0}))
    assert "may not change the plan" in window.drawer.message
    assert session.job.loads[0].kw != 3.0
    assert not session.unwritten
    assert session.record("job", NoteKept("Ben was here", "job"))
    until(lambda: isinstance(session.file, ServerJob) and not session.file.waiting)
    assert not session.record("job", FindingNoted("a burr", "job"))
    assert "may not record findings" in window.drawer.message
