"""The record of the bench on paper, and what of it is missing for a hand-over."""

import pytest
from tests.shared_plan import plan_for

from riktig.core.evaluation import Evaluation
from riktig.core.exports.work_record import change_record, note_record, work_record
from riktig.core.handover import missing_of, missing_words
from riktig.core.job import Job
from riktig.core.production import (
    WORK,
    BuildStage,
    Operation,
    gate_facts,
    gate_subject,
    progress_of,
    stage_states,
    tick_facts,
)
from riktig.core.records import (
    ChangeClosed,
    ChangeOpened,
    ContactRead,
    Facts,
    NoteKept,
    PartReceived,
    PhotoKept,
    Record,
    RedLine,
    RedLineAnswered,
    TakenBack,
)
from riktig.core.wiring import WIRING
from riktig.demo_job import frost_fan

EVALUATION = plan_for(frost_fan())
TASKS = EVALUATION.get(WORK)
WIRES = EVALUATION.get(WIRING)


def missing_work(evaluation: Evaluation[Job], log: list[Record]) -> list[str]:
    """What of the bench is missing, beside the wires themselves."""
    return [
        item.text for item in missing_of(evaluation, log)
        if item.station == "Build" and "wires are not finished" not in item.text and "have changed" not in item.text
    ]  # fmt: skip


def entry(n: int, subject: str, facts: Facts, who: str = "Ida") -> Record:
    return Record(f"r{n}", subject, facts, who, "2026-12-01T08:00:00", 1)


def everything() -> list[Record]:
    """Wires first: what lands in a clamp of the supply after its second tightening would loosen it again."""
    ticks = [(wire.key, tick_facts(wire, operation)) for wire in WIRES.wires for operation in Operation]
    entries: list[tuple[str, Facts]] = [*ticks, *((task.subject, task.facts) for task in TASKS)]
    return [entry(n, subject, facts) for n, (subject, facts) in enumerate(entries)]


def passed_gate(records: list[Record]) -> Record:
    states = stage_states(TASKS, progress_of(WIRES, records), records)
    state = next(state for state in states if state.stage is BuildStage.WIRES)
    return entry(90_000, gate_subject(state.stage), gate_facts(state, "labels come on Friday"), "Ola")


def test_every_stage_that_is_not_finished_is_missing_and_none_that_is() -> None:
    plain = [stage for stage in BuildStage if any(task.stage is stage for task in TASKS)]
    assert len(missing_work(EVALUATION, [])) == len(plain)
    assert missing_work(EVALUATION, everything()) == []
    assert not [line for line in missing_words(EVALUATION, everything()) if "not done" in line or "wires" in line]


@pytest.mark.parametrize("stage", [stage for stage in BuildStage if not stage.is_wiring])
def test_one_task_left_out_is_named_by_its_stage(stage: BuildStage) -> None:
    left_out = next(task for task in TASKS if task.stage is stage)
    log = [record for record in everything() if record.facts != left_out.facts or record.subject != left_out.subject]
    assert missing_work(EVALUATION, log) == [
        f"{stage.value.lower()}: 1 of {sum(task.stage is stage for task in TASKS)} not done"
    ]


def test_a_gate_that_was_passed_is_missing_while_its_work_is_and_on_paper_for_good() -> None:
    gate = passed_gate([])
    assert any("labels come on Friday" in line for line in missing_work(EVALUATION, [gate]))
    whole = [gate, *everything()]
    assert missing_work(EVALUATION, whole) == []
    rows = [row for row in work_record(EVALUATION, whole).rows if "labels come on Friday" in str(row)]
    assert len(rows) == 1
    assert rows[0][0] == BuildStage.WIRES.value
    assert "Ola" in rows[0]


def test_the_record_has_what_was_entered_with_a_task() -> None:
    part = next(task for task in TASKS if isinstance(task.facts, PartReceived))
    read = next(task for task in TASKS if isinstance(task.facts, ContactRead) and task.facts.expected == "closed")
    assert isinstance(part.facts, PartReceived)
    assert isinstance(read.facts, ContactRead)
    wanted, contact = part.facts.wanted, read.facts
    log = [
        entry(1, part.subject, PartReceived(part.facts.part, wanted, wanted, "S-77", "B7")),
        entry(
            2,
            read.subject,
            ContactRead(contact.operator, contact.contact, contact.position, "closed", "0.3", 0.2, "M-1"),
        ),
    ]
    rows = {str(row[1]): row for row in work_record(EVALUATION, log).rows}
    assert rows[part.title][2] == f"{wanted} of {wanted}, serial S-77, batch B7"
    assert rows[read.title][2] == "0.3 Ω, leads 0.2 Ω, M-1"
    assert rows[read.title][3:] == ("Ida", "2026-12-01T08:00")


def test_open_orders_and_red_lines_are_missing_and_on_paper() -> None:
    log = [
        entry(1, "change:1", ChangeOpened("a lamp", "asked for", "customer", 1)),
        entry(2, "a~b", RedLine("9 S2:3 to K1:13", "S2:3 to K1:13", "at 14")),
    ]
    words = missing_work(EVALUATION, log)
    assert "change order 1 is open: a lamp" in words
    assert "a red-line is open: 9 S2:3 to K1:13" in words
    log += [
        entry(3, "change:1", ChangeClosed("1 wire")),
        entry(4, "a~b", RedLineAnswered("accepted", "r2", "drawn so")),
    ]
    assert not [line for line in missing_work(EVALUATION, log) if "open" in line]
    rows = change_record(EVALUATION, log).rows
    assert [row[-1] for row in rows] == ["closed by Ida 2026-12-01T08:00", "accepted: drawn so"]


def test_notes_and_photos_stand_on_paper_until_they_are_taken_back() -> None:
    log = [
        Record("n1", "device:a", NoteKept("clamp 13 is worn", "K1"), "Ida", "2026-12-01T08:00:00", 1),
        Record("n2", "device:a", PhotoKept("ab.jpg", "d", "o", "clamp.png", "K1"), "Ola", "2026-12-01T08:01:00", 1),
        Record("n3", "device:b", NoteKept("a slip", "K2"), "Ida", "2026-12-01T08:02:00", 1),
        Record("n4", "device:b", TakenBack("note"), "Ida", "2026-12-01T08:03:00", 1, corrects="n3"),
    ]
    assert note_record(EVALUATION, log).rows == (
        ("K1", "note", "clamp 13 is worn", "Ida", "2026-12-01T08:00"),
        ("K1", "photo", "clamp.png, kept as ab.jpg", "Ola", "2026-12-01T08:01"),
    )
