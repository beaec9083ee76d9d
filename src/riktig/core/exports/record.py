"""The papers that speak of what was done: the build record and the test record."""

from collections.abc import Iterable

from riktig.core.evaluation import Evaluation
from riktig.core.exports.schedules import Schedule
from riktig.core.holes import HOLES, HoleWork
from riktig.core.job import Job
from riktig.core.plate import CUTS
from riktig.core.production import CRITICALS, Operation, hole_states, judged_all, piece_states, progress_of
from riktig.core.proving import TESTS, results_of
from riktig.core.records import DimensionRead, Record, log_of, taken_back
from riktig.core.rules import RULES, comparisons_of, findings_noted, judgements_of
from riktig.core.wiring import WIRING

__all__ = ["build_record", "inspection_record", "judgement_record", "measured_record", "metal_record", "test_record"]


def build_record(evaluation: Evaluation[Job], records: Iterable[Record]) -> Schedule:
    """Every wire with who did what and when; what is out of date is not shown as done.

    Args:
        evaluation: Of the job.
        records: The log, oldest first.
    """
    progress = progress_of(evaluation.get(WIRING), records)
    rows = []
    for state in progress.states:
        done = dict(state.done)
        cells = [
            f"{done[operation].who} {done[operation].when[:16]}" if operation in done else "" for operation in Operation
        ]
        rows.append((state.wire.number, state.wire.start.label, state.wire.end.label, *cells))
    columns = (
        ("number", "Number"),
        ("from", "From"),
        ("to", "To"),
        *((operation.name.lower(), operation.words.capitalize()) for operation in Operation),
    )
    return Schedule("build record", "Build record", columns, tuple(rows))


def test_record(evaluation: Evaluation[Job], records: Iterable[Record]) -> Schedule:
    """Every test with its reading and verdict; a reading out of date counts as to do.

    Args:
        evaluation: Of the job.
        records: The log, oldest first.
    """
    results = results_of(evaluation.get(TESTS), log_of(records))
    rows = []
    for test, reading in results.readings:
        cells = (
            (reading.text, reading.outcome.value, reading.meter, reading.who, reading.when[:16])
            if reading
            else ("", "to do", "", "", "")
        )
        rows.append((test.stage.value, test.title, test.black.label, test.red.label, test.expected.text, *cells))
    columns = (
        ("stage", "Stage"),
        ("title", "Test"),
        ("black", "Black"),
        ("red", "Red"),
        ("expected", "Expected"),
        ("reading", "Reading"),
        ("verdict", "Verdict"),
        ("meter", "Meter"),
        ("who", "Who"),
        ("when", "When"),
    )
    return Schedule("test record", "Record of the dead tests", columns, tuple(rows))


def metal_record(evaluation: Evaluation[Job], records: Iterable[Record]) -> Schedule:
    """Every hole and every piece with who did what and when; what is out of date is not shown as done.

    Args:
        evaluation: Of the job.
        records: The log, oldest first.
    """
    log = log_of(records)
    rows: list[tuple[str, ...]] = []
    for state in hole_states(evaluation.get(HOLES), log):
        hole = state.hole
        done = {work.value: f"{who.who} {who.when[:16]}".strip() for work, who, _ in state.done}
        cells = [done.get(work.value, "" if work in hole.operations else "–") for work in HoleWork]
        rows.append((hole.number, hole.face, hole.purpose, hole.tool_said, *cells))
    for piece in piece_states(evaluation.get(CUTS), log):
        cut = f"{piece.done.who} {piece.done.when[:16]}".strip() if piece.done else ""
        rows.append((piece.piece.name, piece.piece.stock, f"{piece.piece.length:g} mm", "saw", "–", "–", cut, "–"))
    columns = (
        ("number", "Number"),
        ("in", "In"),
        ("for", "For"),
        ("tool", "Tool"),
        *((work.name.lower(), work.value.capitalize()) for work in HoleWork),
    )
    return Schedule("metal record", "Record of holes and pieces", columns, tuple(rows))


def measured_record(evaluation: Evaluation[Job], records: Iterable[Record]) -> Schedule:
    """Every reading that was ever taken of a dimension, the last one of each with what it comes to.

    Args:
        evaluation: Of the job.
        records: The log, oldest first.
    """
    log = log_of(records)
    judged = {
        judgement.critical.key: judgement
        for judgement in judged_all(evaluation.get(CRITICALS), log, evaluation.document.practice)
    }
    gone = taken_back(log)
    readings = [(record, record.facts) for record in log if isinstance(record.facts, DimensionRead)]
    last = {record.subject: record.id for record, _ in readings}
    rows: list[tuple[str, ...]] = []
    for record, read in readings:
        judgement = judged.get(record.subject)
        verdict = judgement.gate.value if judgement and last[record.subject] == record.id else ""
        if record.id in gone:
            verdict = "taken back"
        elif judgement is None:
            verdict = "no longer on the drawing"
        rows.append((read.name, f"{read.nominal:g}", f"{read.value:g}", record.who, record.when[:16], verdict))
    rows += [
        (judgement.critical.name, f"{judgement.critical.nominal:g}", "", "", "", judgement.gate.value)
        for judgement in judged.values()
        if judgement.critical.key not in last
    ]
    columns = (
        ("dimension", "Dimension"),
        ("nominal", "Drawn, mm"),
        ("reading", "Read, mm"),
        ("who", "Who"),
        ("when", "When"),
        ("gate", "Gate"),
    )
    return Schedule("measured record", "Record of what was measured", columns, tuple(rows))


def judgement_record(evaluation: Evaluation[Job], records: Iterable[Record]) -> Schedule:
    """Every clause that a person has decided or compared with print: what, by whom, and whether that still counts."""
    results, log = {result.code: result for result in evaluation.get(RULES)}, log_of(records)
    rows = tuple(
        (
            code,
            results[code].title if code in results else judged.facts.title,
            judged.facts.reason,
            judged.record.who,
            judged.record.when[:16],
            judged.why_not or ("deviation" if judged.facts.deviation else "counts"),
        )
        for code, judged in sorted(judgements_of(results.values(), log).items())
    )
    compared = comparisons_of(results.values(), log)
    rows += tuple(
        (
            code,
            results[code].title if code in results else item.facts.title,
            f"compared with print: {item.facts.edition}",
            item.record.who,
            item.record.when[:16],
            item.why_not or "counts",
        )
        for code, item in sorted(compared.items())
    )
    columns = (
        ("code", "Code"),
        ("clause", "Clause"),
        ("decided", "Decided"),
        ("who", "Who"),
        ("when", "When"),
        ("state", "State"),
    )
    return Schedule("judgement record", "Record of judgements", columns, rows)


def inspection_record(evaluation: Evaluation[Job], records: Iterable[Record]) -> Schedule:
    """Every finding that somebody noted at the panel, in his own words, and how it was settled."""
    rows = tuple(
        (
            noted.facts.text,
            noted.facts.at,
            noted.facts.clause,
            noted.record.who,
            noted.record.when[:16],
            noted.how or "open",
            noted.settled.who if noted.settled else "",
        )
        for noted in findings_noted(records)
    )
    columns = (
        ("finding", "Finding"),
        ("at", "At"),
        ("clause", "Clause"),
        ("who", "Found by"),
        ("when", "When"),
        ("state", "Settled by"),
        ("settled_by", "Who"),
    )
    return Schedule("inspection record", "Findings at the panel", columns, rows)
