"""The sheet of the routine verification: what it says of nothing, of a part, of all, and of what was signed for."""

import pytest
from tests.shared_plan import plan_for

from riktig.core.evaluation import Evaluation
from riktig.core.exports.verification import live_record, verification_record
from riktig.core.handover import missing_words
from riktig.core.job import Job
from riktig.core.production import WORK, BuildStage
from riktig.core.proving import LIVE_PLAN, TESTS, Outcome, ProvingStage, live_facts, reading_facts
from riktig.core.records import Facts, LiveReleased, Record
from riktig.demo_job import frost_fan, kelp_shed, wash_drum

METER = "M-34 4711, calibrated to 2999-12-31"
DRUM: Evaluation[Job] = plan_for(wash_drum())


def entries(*facts: tuple[str, Facts]) -> list[Record]:
    return [
        Record(f"r{n}", subject, entry, "Ida", "2026-12-01T08:00:00", 1) for n, (subject, entry) in enumerate(facts)
    ]


def everything(evaluation: Evaluation[Job]) -> list[Record]:
    dead: list[tuple[str, Facts]] = [
        (test.key, reading_facts(test, Outcome.PASSED, ohm=max(test.expected.low, 0.25), meter=METER, zero=0.2))
        for test in evaluation.get(TESTS).tests
    ]
    inspected: list[tuple[str, Facts]] = [
        (task.subject, task.facts) for task in evaluation.get(WORK) if task.stage is BuildStage.INSPECTION
    ]
    live: list[tuple[str, Facts]] = [
        (step.key, live_facts(step, Outcome.PASSED, f"{step.low:g}" if step.unit and step.low is not None else "",
                              "23.1" if step.trimmed else "", METER if step.unit else ""))
        for step in evaluation.get(LIVE_PLAN)
    ]  # fmt: skip
    return entries(*dead, *inspected, ("live tests", LiveReleased("Ola")), *live)


def states(evaluation: Evaluation[Job], log: list[Record]) -> dict[str, str]:
    return {str(row[1]): str(row[2]) for row in verification_record(evaluation, log).rows}


@pytest.mark.parametrize("make", [wash_drum, frost_fan, kelp_shed])
def test_of_a_panel_that_nobody_touched_everything_is_untested(make: object) -> None:
    evaluation = plan_for(make())  # type: ignore[operator]
    table = verification_record(evaluation, [])
    assert {row[2] for row in table.rows if row[1]} == {"untested"}
    assert [row[0] for row in table.rows[-2:]] == ["Carried out by, date:", "Released by, date:"]


def test_clauses_are_those_of_the_rulebook_of_the_job() -> None:
    """IEC 61439-1 clause 11 and IEC 60204-1 clause 18; NFPA 79 clause 18 (from memory)."""
    iec = " ".join(str(row[0]) for row in verification_record(DRUM, []).rows)
    american = " ".join(str(row[0]) for row in verification_record(plan_for(frost_fan()), []).rows)
    assert "IEC 61439-1 11.9" in iec
    assert "IEC 60204-1 18.6" in iec
    assert "NFPA" not in iec
    assert "NFPA 79 18.3" in american
    assert "IEC" not in american


def test_of_everything_passed_only_what_is_not_planned_here_stays_untested() -> None:
    log = everything(DRUM)
    now = states(DRUM, log)
    assert {asks for asks, state in now.items() if state == "untested"} == {
        "Voltage test",
        "Residual voltage",
        "Fault loop impedance",
    }
    assert now["Visual inspection"] == "done"
    row = next(row for row in verification_record(DRUM, log).rows if row[1] == "Continuity of the protective circuit")
    assert row[3:7] == ("4 of 4", row[4], METER, "Ida")
    assert str(row[4]).startswith("at most 0.0 Ω") or str(row[4]).startswith("at most 0.1 Ω")
    assert "limit below 0.1 Ω" in str(row[4])
    assert not any("live steps" in words or "dead tests" in words for words in missing_words(DRUM, log))


def test_a_failure_a_skip_and_what_was_signed_for_stand_on_it() -> None:
    tests = DRUM.get(TESTS).tests
    log = entries(
        (tests[0].key, reading_facts(tests[0], Outcome.FAILED, ohm=9.0, meter=METER)),
        (tests[9].key, reading_facts(tests[9], Outcome.SKIPPED, ohm=None, meter="", reason="the drive is not here")),
        ("live tests", LiveReleased("Ola", "only the loom", "Wire by wire: 35 not passed")),
    )
    now = states(DRUM, log)
    assert now["Continuity of the protective circuit"] == "failed"
    text = str(verification_record(DRUM, log).rows)
    assert "the drive is not here" in text
    assert "Live tests opened: only the loom" in text
    assert "Wire by wire: 35 not passed" in text


def test_a_trimmed_supply_stands_as_found_and_as_left() -> None:
    shed = plan_for(kelp_shed())
    log = everything(shed)
    assert "T2, adjusted: found 23.1 V, left 23.5 V" in str(verification_record(shed, log).rows)
    record = live_record(shed, log)
    assert len(record.rows) == len(shed.get(LIVE_PLAN))
    assert {row[5] for row in record.rows} == {"passed"}
    untouched = live_record(shed, [])
    assert {row[5] for row in untouched.rows} == {"to do"}
    stages = (ProvingStage.SETTINGS, ProvingStage.ENERGISE, ProvingStage.FUNCTION)
    assert {row[0] for row in untouched.rows} == {stage.value for stage in stages}
