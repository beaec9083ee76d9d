"""The sheet of the routine verification: each clause with what was done for it, by the records as they are.

Untested is said as untested. It certifies nothing: who did it and who releases it sign.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from math import isinf

from riktig.core.evaluation import Evaluation
from riktig.core.exports.schedule_model import Schedule, Value
from riktig.core.job import Job, Practice
from riktig.core.production import WORK, BuildStage, StageState, progress_of, stage_states
from riktig.core.proving import (
    LIVE_PLAN,
    TESTS,
    CountedReading,
    LiveResult,
    Outcome,
    ProvingStage,
    Results,
    Test,
    live_results,
    ohm_text,
    results_of,
    without_leads,
)
from riktig.core.records import ClauseJudged, Counted, LiveReleased, Record, log_of
from riktig.core.rules import RULES, StandOfClauses, judgements_of, stand_of_clauses
from riktig.core.wiring import WIRING

__all__ = ["live_record", "verification_record"]

UNTESTED = "untested"
DECIDES = "engineer decides"


@dataclass(frozen=True, slots=True)
class _Clause:
    """A clause: its number, what it asks, and the stages of the proof that answer it; none: nothing here does."""

    number: str
    asks: str
    stages: tuple[ProvingStage, ...] = ()
    note: str = ""


_IEC = (
    _Clause("IEC 61439-1 11.4, IEC 60204-1 18.2.2", "Continuity of the protective circuit", (ProvingStage.BONDS,)),
    _Clause("IEC 61439-1 11.6", "Internal circuits and connections", (ProvingStage.WIRES, ProvingStage.SHORTS)),
    _Clause("IEC 61439-1 11.9, IEC 60204-1 18.3", "Insulation resistance", (ProvingStage.INSULATION,)),
    _Clause("IEC 61439-1 11.5", "Settings of overloads, timers and fuses", (ProvingStage.SETTINGS,)),
    _Clause("IEC 60204-1 18.4", "Voltage test", note="twice the rated voltage or 1000 V, where it is asked for"),
    _Clause("IEC 60204-1 18.5", "Residual voltage", note="60 V or less within 5 s, 1 s at pins that can be touched"),
    _Clause("IEC 60204-1 18.2.3", "Fault loop impedance", note="on site, with the supply that it will have"),
    _Clause(
        "IEC 61439-1 11.10, IEC 60204-1 18.6", "Operation and function", (ProvingStage.ENERGISE, ProvingStage.FUNCTION)
    ),
)
_NORTH_AMERICAN = (
    _Clause("NFPA 79 18.2", "Continuity of the equipment grounding circuit", (ProvingStage.BONDS,)),
    _Clause("common practice, no source", "Point to point, no shorts", (ProvingStage.WIRES, ProvingStage.SHORTS)),
    _Clause("NFPA 79 18.3", "Insulation resistance", (ProvingStage.INSULATION,)),
    _Clause("common practice, no source", "Settings of overloads, timers and fuses", (ProvingStage.SETTINGS,)),
    _Clause("NFPA 79 18.4", "Voltage test", note="twice the rated voltage or 1000 V, by the product standard"),
    _Clause("NFPA 79 18.5", "Residual voltage", note="60 V or less within 5 s, 1 s at exposed pins"),
    _Clause("NFPA 79 18.6", "Functional test", (ProvingStage.ENERGISE, ProvingStage.FUNCTION)),
)
"""Clauses from memory: IEC sure, NFPA 79 fairly sure."""


def verification_record(evaluation: Evaluation[Job], records: Iterable[Record]) -> Schedule:
    """Each clause of the routine verification with its state, readings, instruments, people, dates and deviations.

    Args:
        evaluation: Of the job.
        records: The log, oldest first.
    """
    log = log_of(records)
    job = evaluation.document
    results = results_of(evaluation.get(TESTS), log)
    live = live_results(evaluation.get(LIVE_PLAN), log)
    states = stage_states(evaluation.get(WORK), progress_of(evaluation.get(WIRING), log), log, job.practice.door_order)
    inspection = next((state for state in states if state.stage is BuildStage.INSPECTION), None)
    american = job.practice.rulebook.north_american
    rows: list[tuple[Value, ...]] = [_inspected(inspection, north_american=american)]
    for clause in _NORTH_AMERICAN if american else _IEC:
        if not clause.stages:
            rows.append((clause.number, clause.asks, UNTESTED, DECIDES, clause.note, "", "", ""))
        elif clause.stages[0].by_steps:
            rows.append(_of_live(clause, [r for r in live if r.step.stage in clause.stages]))
        else:
            rows.append(_of_dead(clause, results, _left_out(clause, job.practice)))
    rows += _deviations(log)
    rows += _accepted(
        stand_of_clauses(evaluation.get(RULES), log, job.practice.deviation_signed_by),
        judgements_of(evaluation.get(RULES), log),
    )
    rows += [(words, "", "", "", "", "", "", "") for words in ("Carried out by, date:", "Released by, date:")]
    columns = (
        ("clause", "Clause"), ("asks", "What it asks"), ("state", "State"), ("count", "How much"),
        ("readings", "Readings"), ("meter", "Instrument"), ("who", "By"), ("when", "When"),
    )  # fmt: skip
    return Schedule("verification", "Routine verification", columns, tuple(rows))


def _inspected(state: StageState | None, *, north_american: bool) -> tuple[Value, ...]:
    clause = "NFPA 79 18.1" if north_american else "IEC 61439-1 11.2 to 11.8"
    done = [task.done for task in state.tasks if task.done] if state else []
    whole = state is not None and state.complete and state.count > 0
    count = f"{len(done)} of {state.count}" if state else ""
    who = ", ".join(dict.fromkeys(task.who for task in done))
    return (
        clause,
        "Visual inspection",
        "done" if whole else UNTESTED,
        count,
        "",
        "",
        who,
        _days([d.when for d in done]),
    )


def _left_out(clause: _Clause, practice: Practice) -> str:
    """What the practice does not have read."""
    by_function = ProvingStage.WIRES in clause.stages and not practice.reads_control_wires
    return "control wires proved by their function alone (practice)" if by_function else ""


def _of_dead(clause: _Clause, results: Results, left_out: str) -> tuple[Value, ...]:
    readings = [(test, reading) for test, reading in results.readings if test.stage in clause.stages]
    read = [(test, reading) for test, reading in readings if reading is not None and reading.ohm is not None]
    outcomes = [reading.outcome if reading else Outcome.OPEN for _, reading in readings]
    skipped = [
        f"{test.title} skipped: {r.reason}" for test, r in readings if r is not None and r.outcome is Outcome.SKIPPED
    ]
    words = "; ".join(part for part in (_range(clause, read), left_out, *skipped[:3]) if part)
    return (clause.number, clause.asks, _state(outcomes), f"{outcomes.count(Outcome.PASSED)} of {len(readings)}", words,
            ", ".join(dict.fromkeys(r.meter for _, r in read if r.meter)),
            ", ".join(dict.fromkeys(r.who for _, r in read)), _days([r.when for _, r in read]))  # fmt: skip


def _range(clause: _Clause, read: Sequence[tuple[Test, CountedReading]]) -> str:
    """The worst of the readings against its limit: the most of what must be joined, the least of insulation."""
    values = [(without_leads(reading.ohm or 0.0, reading.zero), test) for test, reading in read]
    if not values:
        return ""
    if clause.stages == (ProvingStage.INSULATION,):
        value, test = min(values, key=lambda pair: pair[0])
        return f"at least {'open' if isinf(value) else ohm_text(value)}, limit {test.expected.text}"
    joined = [(value, test) for value, test in values if test.stage in (ProvingStage.BONDS, ProvingStage.WIRES)]
    if not joined:
        return ""
    value, test = max(joined, key=lambda pair: pair[0])
    return f"at most {ohm_text(value)} at {test.title}, limit {test.expected.text}"


def _of_live(clause: _Clause, results: Sequence[LiveResult]) -> tuple[Value, ...]:
    done = [result for result in results if result.said is not None]
    meters = dict.fromkeys(r.said.meter for r in done if r.said and r.said.meter)
    trimmed = [
        f"{r.step.title}: found {r.said.found or '–'} {r.step.unit}, left {r.said.value} {r.step.unit}"
        for r in done
        if r.said and r.step.trimmed and r.said.value
    ]
    passed = sum(result.outcome is Outcome.PASSED for result in results)
    return (clause.number, clause.asks, _state([r.outcome for r in results]), f"{passed} of {len(results)}",
            "; ".join(trimmed), ", ".join(meters), ", ".join(dict.fromkeys(r.who for r in done)),
            _days([r.when for r in done]))  # fmt: skip


def _state(outcomes: Sequence[Outcome]) -> str:
    if Outcome.FAILED in outcomes:
        return "failed"
    if outcomes and all(outcome is Outcome.PASSED for outcome in outcomes):
        return "passed"
    return "in part" if Outcome.PASSED in outcomes else UNTESTED


def _days(moments: Sequence[str]) -> str:
    days = sorted({moment[:10] for moment in moments})
    return days[0] if len(days) == 1 else f"{days[0]} to {days[-1]}" if days else ""


def _deviations(log: Sequence[Record]) -> list[tuple[Value, ...]]:
    """What was signed for when the live tests were opened with something open."""
    return [
        ("deviation", f"Live tests opened: {facts.reason}", "", facts.open_work, "", "", r.who, r.when[:10])
        for r, facts in log_of(log).said(LiveReleased)
        if facts.open_work
    ]


def _accepted(stand: StandOfClauses, judged: Mapping[str, Counted[ClauseJudged]]) -> list[tuple[Value, ...]]:
    """Clauses that fail and that somebody accepted, with the reason."""
    return [
        ("deviation", result.title, "fails", judged[result.code].facts.reason, "", "", judged[result.code].record.who,
         judged[result.code].record.when[:10])
        for result in stand.deviating
    ]  # fmt: skip


def live_record(evaluation: Evaluation[Job], records: Iterable[Record]) -> Schedule:
    """Every step under voltage with what was asked, what came, and by whom; what was not done says so.

    Args:
        evaluation: Of the job.
        records: The log, oldest first.
    """
    rows: list[tuple[Value, ...]] = []
    for result in live_results(evaluation.get(LIVE_PLAN), log_of(records)):
        record = result.said
        as_found = f"found {record.found} {record.unit}" if record and record.found else ""
        value = f"{record.value} {record.unit}".strip() if record and record.value else ""
        came = "; ".join(part for part in (as_found, value, record.reason if record else "") if part)
        rows.append(
            (result.step.stage.value, result.step.title, result.step.done, ", ".join(result.step.expected), came,
             result.outcome.value, record.meter if record else "", result.who, result.when[:16])
        )  # fmt: skip
    columns = (
        ("stage", "Stage"), ("title", "Of"), ("done", "Step"), ("expected", "Expected"), ("came", "What came"),
        ("verdict", "Verdict"), ("meter", "Meter"), ("who", "Who"), ("when", "When"),
    )  # fmt: skip
    return Schedule("live record", "Record of settings and live tests", columns, tuple(rows))
