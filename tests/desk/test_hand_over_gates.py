"""Hand over in the real window: missing things lead somewhere; issue, dispatch, site, as built, evidence, finding."""

from pathlib import Path

import pytest

from riktig.core.edits import ChangeLoad, SetHeading
from riktig.core.handover import JobIndex, as_built_of, check_pack, dispatched_of, issues_of, missing_of, visits_of
from riktig.core.job import set_heading
from riktig.core.records import ServiceVisit
from riktig.core.store import JobFile
from riktig.core.work import Progress
from riktig.demo_job import kelp_shed, wash_drum
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow, job_finder
from riktig.desk.shell.job_finder import JobFinder
from riktig.desk.stations.handover import HandoverStation
from tests.core.handover.complete import complete_entries
from tests.desk.conftest import Waiter, settle_window


@pytest.fixture
def station(window: MainWindow) -> HandoverStation:
    window.go_to("Hand over")
    settle_window()
    station = window.stations["Hand over"]
    assert isinstance(station, HandoverStation)
    return station


def test_every_missing_thing_leads_to_its_station(
    window: MainWindow, station: HandoverStation, session: Session
) -> None:
    missing = missing_of(session.evaluation, session.records)
    assert station.missing.count() == len(missing)
    for row, item in enumerate(missing):
        window.go_to("Hand over")
        settle_window()
        station.missing.setCurrentRow(row)
        station.lead()
        settle_window()
        assert window.current == item.station
        if item.key is not None:
            assert session.selection == item.key


def test_an_issue_freezes_the_job_under_the_next_letter(station: HandoverStation, session: Session) -> None:
    first = session.job.revision
    assert station.gates.letter == first
    assert station.gates.issue(first, "for consent")
    assert station.gates.letter != first
    session.edit("power", ChangeLoad(session.job.loads[0].id, {"kw": 5.5}))
    settle_window()
    assert any("have changed since issue" in item.text for item in missing_of(session.evaluation, session.records))
    assert station.gates.issue(station.gates.letter, "as agreed")
    settle_window()
    assert [issue.facts.letter for issue in issues_of(session.records)] == [first, session.job.revision]
    assert "as agreed" in station.history.text()
    dialog = station.compare_dialog()
    dialog.before.setCurrentIndex(0)
    dialog.compare()
    assert dialog.table.rowCount() > 0
    assert dialog.drawings
    dialog.sheet.setCurrentIndex(1)
    dialog._show()
    assert dialog.pages.currentWidget() is dialog.view


def test_without_a_reason_nothing_is_issued(
    station: HandoverStation, session: Session, said: list[tuple[str, bool]]
) -> None:
    assert not station.gates.issue("B", " ")
    assert said[-1][1]
    assert issues_of(session.records) == ()


def test_a_panel_that_lacks_something_leaves_only_with_a_reason(
    station: HandoverStation, session: Session, said: list[tuple[str, bool]]
) -> None:
    session.edit("serial", SetHeading({"serial": "0417-01"}))
    assert not station.gates.dispatch("shed", "")
    assert "things are missing" in said[-1][0]
    assert station.gates.dispatch("shed", "the rest is done there")
    settle_window()
    gone = dispatched_of(session.records)
    assert gone is not None
    assert "wires are not finished" in gone.facts.open_work
    assert "although the rest is done there" in station.history.text()
    assert not station.gates.close_as_built()
    assert as_built_of(session.records) is None


def test_the_whole_way_to_as_built(station: HandoverStation, session: Session) -> None:
    session.edit(
        "head", SetHeading({"maker": "Shop", "serial": "0417-01", "made": "2026-12", "standard": "IEC 61439-2"})
    )
    settle_window()
    assert session.record_all(complete_entries(session.evaluation))
    settle_window()
    station.refresh()
    assert station.missing.count() == 0
    assert "Nothing of what Riktig looks at is missing" in station.lacking.text()
    assert station.gates.dispatch("shed", "")
    assert station.gates.close_as_built()
    settle_window()
    assert as_built_of(session.records) is not None
    assert "Closed as built" in station.history.text()
    assert "no longer" not in station.history.text()
    session.edit("power", ChangeLoad(session.job.loads[0].id, {"kw": 5.5}))
    settle_window()
    station.refresh()
    assert "so it no longer is" in station.history.text()


def test_the_site_list_is_ticked_item_by_item_and_visits_are_noted(station: HandoverStation, session: Session) -> None:
    dialog = station.site_dialog()
    count = dialog.items.count()
    assert count > 3
    dialog.tick()
    assert session.records == (), "what came of it is asked for"
    dialog.outcome.setText("400 V, turns right")
    dialog.tick()
    assert sum(dialog.items.item(row).text().startswith("✓") for row in range(count)) == 1
    assert dialog.items.currentRow() == 1, "on to the next that is open"
    dialog.called_for.setText("fan trips")
    dialog.keep_visit()
    assert visits_of(session.records) == ()
    dialog.found.setText("filter cleaned")
    dialog.keep_visit()
    (visit,) = visits_of(session.records)
    assert visit.facts == ServiceVisit("fan trips", "filter cleaned")
    assert dialog.called_for.text() == ""


def test_the_evidence_is_one_archive_that_is_read_back(
    station: HandoverStation, session: Session, tmp_path: Path
) -> None:
    session.edit("serial", SetHeading({"serial": "0417-01"}))
    path = tmp_path / "evidence.zip"
    assert station.gates.pack(path)(Progress()) == path
    report = check_pack(path)
    assert report.is_whole
    assert report.serial == "0417-01"
    assert report.files > 40


class TestFinder:
    def test_a_job_is_found_by_its_serial_while_one_types(
        self, wait_until: Waiter, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
    ) -> None:
        place = tmp_path / "jobs"
        place.mkdir()
        for name, make, serial in (("a", kelp_shed, "S-1"), ("b", wash_drum, "S-2")):
            JobFile.create(place / f"{name}.riktig", set_heading(make(), serial=serial), who="Ida", at="2026").close()
        monkeypatch.setattr(job_finder, "jobs_folder", lambda: place)
        monkeypatch.setattr(job_finder, "index_file", lambda: tmp_path / "index.sqlite")
        finder, opened = JobFinder(), list[object]()
        finder.open_asked.connect(opened.append)
        finder.field.setText("S-2")
        wait_until(lambda: bool(finder.found))
        assert [job.path.name for job in finder.found] == ["b.riktig"]
        finder.field.returnPressed.emit()
        assert opened == [place / "b.riktig"]
        finder.field.setText("nothing of the kind")
        assert "No job in" in finder.words.text()
        finder.end()
        assert len(JobIndex(tmp_path / "index.sqlite").find("s-")) == 2
