"""The session: one edit is one step of undo and one revision; records outlive undo; faults are said."""

from pathlib import Path

import pytest

from riktig.core.edits import SetHeading, SetPractice
from riktig.core.job import ElementId, Insertable, Job, add_load, set_heading, set_practice, set_supply
from riktig.core.production import Operation, tick_facts
from riktig.core.records import NewRecord
from riktig.core.rules import RULES
from riktig.core.schematic import insert_contact
from riktig.core.store import JobFile
from riktig.core.wiring import WIRING
from riktig.desk.rescue import rescue
from riktig.desk.session import Session
from tests.conftest import Doing, FakeClock
from tests.core.schematic.builders import STOP


def title(text: str) -> SetHeading:
    return SetHeading({"title": text})


def test_an_edit_is_in_the_file_when_it_is_said(session: Session) -> None:
    seen: list[str] = []
    session.changed.connect(lambda before, after: seen.append(session.file.job().title))  # type: ignore[union-attr]
    assert session.edit("title", title("A"))
    assert seen == ["A"]


def test_undo_and_redo_are_exact_and_named(session: Session) -> None:
    first = session.job
    session.edit("title", title("A"))
    second = session.job
    assert (session.undo_name, session.redo_name) == ("title", "")
    session.undo()
    assert session.job is first
    assert (session.undo_name, session.redo_name) == ("", "title")
    session.redo()
    assert session.job is second
    session.undo()
    session.edit("other", title("B"))
    assert session.redo_name == ""
    session.redo()
    assert session.job.title == "B"


def test_nudges_with_one_key_are_one_step_of_undo(session: Session) -> None:
    for n in range(5):
        session.edit("nudge", SetPractice({"end_allowance": 30.0 + n}), merge="nudge a")
    session.edit("nudge", Doing(lambda job: set_practice(job, end_allowance=50.0)), merge="nudge b")
    session.undo()
    assert session.job.practice.end_allowance == 34
    session.undo()
    assert session.job.practice.end_allowance == 35


@pytest.mark.parametrize(
    ("change", "words"),
    [
        (lambda job: insert_contact(job, ElementId("nowhere"), Insertable.STOP_BUTTON, ""), "not in a control path"),
        (lambda job: set_practice(job, duct_width=1.0), "cannot be planned"),
    ],
    ids=["what the core refuses", "what no value can be"],
)
def test_a_refused_edit_is_said_and_changes_nothing(
    session: Session, said: list[tuple[str, bool]], change: object, words: str
) -> None:
    before = session.job
    assert not session.edit("wrong", Doing(change))  # type: ignore[arg-type]
    assert session.job is before
    assert session.undo_name == ""
    assert words in said[-1][0]
    assert said[-1][1]


def test_records_outlive_undo_and_reopening(session: Session, tmp_path: Path) -> None:
    wire = session.evaluation.get(WIRING).wires[0]
    session.place = "Brief"
    session.edit("title", title("A"))
    session.place = "Build"
    assert session.record(wire.key, tick_facts(wire, Operation.CUT))
    session.place = "Brief"
    session.undo()
    assert session.undo_name == "wire L1 X1:L1 to Q1:1 cut"
    assert session.progress.count(Operation.CUT) == 1
    path = session.file.path  # type: ignore[union-attr]
    session.open(JobFile(path, who="Ida", read_only=True))
    assert session.progress.count(Operation.CUT) == 1
    assert session.records[0].who == "Ida"
    assert session.records[0].revision == 2


def test_an_edit_says_exactly_which_ticks_it_took(session: Session) -> None:
    for wire in session.evaluation.get(WIRING).wires:
        session.record_all([NewRecord(wire.key, tick_facts(wire, o)) for o in Operation])
    heard: list[object] = []
    session.lost.connect(heard.append)
    session.edit("second stop", Doing(lambda job: insert_contact(job, STOP, Insertable.STOP_BUTTON, "second")))
    assert {stale.name for stale in session.lost_last} == {"9 S2:3 to S1:2"}
    assert len(heard) == 1
    session.edit("title", title("A"))
    assert session.lost_last == ()
    assert len(heard) == 1


def test_a_full_disk_keeps_the_edit_on_the_screen_and_writes_it_later(
    session: Session, said: list[tuple[str, bool]], demo: Job
) -> None:
    assert session.file
    session.file.limit_pages(1)
    for n in range(60):
        session.edit(f"title {n}", SetHeading({"title": f"title {n}" * 40}))
        if session.unwritten:
            break
    assert session.unwritten
    assert "disk is full" in said[-1][0]
    assert session.file.job() != session.job
    wire = session.evaluation.get(WIRING).wires[0]
    kept = session.records
    refused = not session.record(wire.key, tick_facts(wire, Operation.CUT))
    assert refused is (session.records == kept), "a tick that is not in the file is not shown as done"
    session.file.limit_pages(100000)
    session.write_again()
    assert session.unwritten == ""
    assert session.file.job() == session.job


def test_in_a_second_window_nothing_can_be_changed_and_it_says_who_has_the_job(
    session: Session, clock: FakeClock
) -> None:
    heard: list[str] = []
    second = Session(who="Ola", clock=clock)
    second.said.connect(lambda text, wrong: heard.append(text))
    second.open(JobFile(session.file.path, who="Ola"))  # type: ignore[union-attr]
    assert "Ida on" in heard[-1]
    assert not second.edit("title", title("B"))
    assert second.job.title == session.job.title
    second.close()


def test_a_bug_leaves_a_rescued_job_and_a_report(session: Session, tmp_path: Path) -> None:
    try:
        raise ZeroDivisionError("a mistake of ours")
    except ZeroDivisionError as error:
        rescued = rescue(session, error, tmp_path)
    from riktig.core.store import load_job

    assert "a mistake of ours" in rescued.report.read_text(encoding="utf-8")
    assert rescued.job == tmp_path / "KS-0417-rescued-1.json"
    assert load_job(rescued.job.read_text(encoding="utf-8")) == session.job


def test_only_our_own_errors_are_taken_for_the_users(session: Session, said: list[tuple[str, bool]]) -> None:
    def with_a_bug(job: Job) -> Job:
        raise ValueError("not enough values to unpack")

    before = session.job
    with pytest.raises(ValueError, match="unpack"):
        session.edit("a bug", Doing(with_a_bug))
    assert said == []
    assert not session.edit("absurd", Doing(lambda job: set_supply(job, voltage_v=-4.0)))
    assert said[-1][0].startswith("That cannot be planned:")
    assert session.job is before


def test_a_change_of_title_judges_no_clause_again(session: Session) -> None:
    session.edit("a load", Doing(lambda job: add_load(job, "fan", 1.5)))
    rules, wiring = session.evaluation.get(RULES), session.evaluation.get(WIRING)
    session.edit("title", Doing(lambda job: set_heading(job, title="another")))
    before = session.evaluation.computed
    assert session.evaluation.get(RULES) is rules
    assert session.evaluation.get(WIRING) is wiring
    assert session.evaluation.computed == before, "nothing was computed"
