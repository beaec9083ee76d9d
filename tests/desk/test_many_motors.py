"""A dozen motors: every station keeps to the window, and its buttons break into lines."""

from pathlib import Path

from riktig.core.edits import ChangeLoad
from riktig.core.job import Distribution, Job, Start, add_load, new_job, set_box, set_practice, set_supply
from riktig.core.rules import RULES, Verdict, findings_of
from riktig.core.schematic import with_names_recorded
from riktig.core.store import JobFile
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from tests.conftest import Doing
from tests.desk.conftest import settle_window
from tests.shared_plan import plan_for


def dozen() -> Job:
    job = set_practice(new_job("D-12", "dozen"), distribution=Distribution.BLOCKS, duct_width=80.0)
    job = set_supply(set_box(job, 1200.0, 1800.0, 400.0), upstream_a=125.0)
    for n in range(12):
        start = Start.STAR_DELTA if n % 6 == 0 else Start.DIRECT
        job = add_load(job, f"fan {n + 1}", 7.5 if n % 6 == 0 else 1.5, start=start)
    return with_names_recorded(job)


def test_no_station_pushes_the_window_wider(window: MainWindow, session: Session) -> None:
    session.edit("a dozen", Doing(lambda job: dozen()))
    window.resize(1280, 800)
    for station in window.stations:
        window.go_to(station)
        settle_window()
        assert window.minimumSizeHint().width() <= 1280, station
        assert window.width() == 1280, station


def test_a_dozen_starters_derive_without_a_failing_clause_of_circuits() -> None:
    found = [f for f in findings_of(plan_for(dozen()).get(RULES)) if f.verdict is Verdict.FAILS and f.code[0] in "EC"]
    assert found == []


def test_a_large_job_is_covered_until_its_wires_are_there_and_the_plate_is_shown_without_them(
    window: MainWindow, tmp_path: Path
) -> None:
    """Forty motors: the screen answers at once, and what it shows is of the job of now or is covered."""
    job = new_job("B", "many")
    for n in range(40):
        job = add_load(job, f"fan {n}", 1.5)
    window.session.open(JobFile.create(tmp_path / "many.riktig", with_names_recorded(job), who="Ida", at="t"))
    window.go_to("Wires")
    wires, plate = window.stations["Wires"], window.stations["Plate"]
    assert wires.covered, "nothing is shown of wires that are not there"
    settle_window()
    assert not wires.covered
    load = window.session.job.loads[0].id
    window.session.edit("power", ChangeLoad(load, {"kw": 11.0}))
    assert wires.covered, "the wires of before the edit are not shown as those of now"
    window.go_to("Plate")
    assert not plate.covered
    assert "wire … m" in plate.words.text()
    settle_window()
    assert "wire … m" not in plate.words.text()
    window.go_to("Wires")
    assert not wires.covered
