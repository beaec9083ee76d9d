"""By telephone: the patterns of the drum by hand, the true cause found by answers, and what is never said."""

import pytest
from tests.core.schematic.samples import SAMPLES, sample
from tests.effort import share
from tests.shared_plan import plan_for

from riktig.core.exports import schedule
from riktig.core.job import CircuitId, Job, ResetBy, set_practice
from riktig.core.proving import (
    ENERGISED,
    NEVER,
    PANEL_FACTS,
    TelephoneTable,
    likely_causes,
    next_question,
    telephone_table,
    what_nobody_does,
    who_resets,
)
from riktig.demo_job import kelp_shed, wash_drum


def table_of(job: Job, circuit: str) -> TelephoneTable:
    evaluation = plan_for(job)
    return telephone_table(evaluation.get(PANEL_FACTS), evaluation.get(ENERGISED), CircuitId(circuit))


DRUM = table_of(wash_drum(), "c1")


def seen(table: TelephoneTable, words: str) -> dict[str, bool]:
    row = next(n for n, cause in enumerate(table.causes) if cause.words.startswith(words))
    return {sighting.key: table.seen[row][n] for n, sighting in enumerate(table.sightings)}


def test_what_is_seen_of_the_drum_by_hand() -> None:
    """Lamps: runs, tripped. Then: runs, a clack. At rest nothing is lit; a tripped overload lights its lamp alone."""
    sound = seen(DRUM, "The panel may be as it should be")
    assert not sound["lit c1.H.run"]
    assert not sound["lit c1.H.trip"]
    assert sound["runs"]
    tripped = seen(DRUM, "The overload F3")
    assert tripped["lit c1.H.trip"]
    assert not tripped["runs"]
    assert not tripped["clack"]
    motor_breaker = seen(DRUM, "F1")
    assert motor_breaker["clack"], "control comes from before the motor breaker's outgoing side"
    assert not motor_breaker["runs"]
    control = seen(DRUM, "F2")
    assert not control["clack"]


@pytest.mark.parametrize("circuit", ["c1", "c2", "c4"])
def test_who_answers_as_it_is_is_led_to_the_cause(circuit: str) -> None:
    table = table_of(kelp_shed(), circuit)
    for row, cause in enumerate(table.causes):
        answers: dict[str, bool] = {}
        while (asked := next_question(table, answers)) is not None:
            number = [sighting.key for sighting in table.sightings].index(asked.key)
            answers[asked.key] = table.seen[row][number]
        left = likely_causes(table, answers)
        assert cause in [likely.cause for likely in left]
        patterns = {table.seen[table.causes.index(likely.cause)] for likely in left}
        assert len(patterns) == 1, "what no answer from outside tells apart stays together"
        assert len(answers) <= len(table.sightings)


def test_it_is_never_sure_and_says_what_nobody_does() -> None:
    answers = seen(DRUM, "The overload F3")
    likely = likely_causes(DRUM, answers)
    assert sum(cause.share for cause in likely) == pytest.approx(0.9), "a tenth is kept for what is not looked at"
    assert any("door" in words for words in NEVER)
    assert any("reset" in words.casefold() for words in NEVER)
    for cause in DRUM.causes:
        assert cause.skilled
    for sighting in DRUM.sightings:
        assert "open" not in sighting.question.casefold()
        assert "reset" not in sighting.question.casefold(), "nobody is asked to reset"


def test_answers_that_fit_nothing_say_so() -> None:
    both = {"lit c1.H.run": True, "lit c1.H.trip": True, "runs": False}
    assert likely_causes(DRUM, both) == ()
    assert next_question(DRUM, both) is None


@pytest.mark.parametrize("name", share(SAMPLES, 1)[::8])
def test_every_kind_of_load_can_be_spoken_about(name: str) -> None:
    job = sample(name)
    for circuit in [circuit.id for circuit in job.circuits][:2]:
        table = table_of(job, circuit)
        assert len({cause.words for cause in table.causes}) == len(table.causes)
        assert {len(row) for row in table.seen} == {len(table.sightings)}
        first = next_question(table, {})
        if first is not None:
            assert first.question.endswith("?")


def test_a_load_that_waits_for_another_panel_is_asked_as_if_it_were_released() -> None:
    """The drying fan of the shed runs only while another panel lets it; its own control fuse stops it, no other."""
    table = table_of(kelp_shed(), "c1")
    assert seen(table, "The panel may be as it should be")["runs"]
    assert not seen(table, "F7")["runs"]
    assert seen(table, "F9")["runs"], "the breaker of another load is no cause"


def test_who_puts_in_again_what_has_tripped_is_a_practice_and_nobody_does_so_twice() -> None:
    """IEC 60050-195 tells skilled from instructed persons (from memory); an ordinary person never opens the door."""
    for reset_by in ResetBy:
        first, second, third = what_nobody_does(reset_by)
        assert "door" in first
        assert "before its cause is known" in second
        assert "keep away" in third
        assert "once" in who_resets("tripped", reset_by)
        assert who_resets("coil", reset_by) == "", "a coil that is open is not put in again"
    assert what_nobody_does(ResetBy.SKILLED) == NEVER
    rows = {
        by: {row["reset"] for row in schedule("lamps", plan_for(set_practice(wash_drum(), reset_by=by))).as_dicts()}
        for by in ResetBy
    }
    assert any("skilled person, once" in str(text) for text in rows[ResetBy.SKILLED])
    assert any("instructed person, once" in str(text) for text in rows[ResetBy.INSTRUCTED])
