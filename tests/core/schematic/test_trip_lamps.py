"""The trip lamp by the overload alone, or by the breaker too (common practice, no source)."""

import pytest

from riktig.core.exports.lists import schedule
from riktig.core.job import (
    CircuitId,
    Command,
    ControlTap,
    DeviceId,
    Job,
    Protection,
    Rulebook,
    Start,
    TripLamp,
    add_load,
    new_job,
    set_practice,
)
from riktig.core.proving import FUNCTION
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import CIRCUITS, NETS, with_names_recorded
from riktig.core.simulation import Runner, panel_of
from tests.shared_plan import plan_for


def job(start: Start, by: TripLamp, book: Rulebook = Rulebook.IEC, **said: object) -> Job:
    command = Command.BOTH_WAYS if start is Start.REVERSING else Command.BUTTONS
    made = add_load(new_job("T", "trip"), "saw", 3.0, start=start, command=command, **said)  # type: ignore[arg-type]
    return with_names_recorded(set_practice(made, trip_lamp=by, rulebook=book))


def lit(made: Job, *steps: str) -> bool:
    evaluation = plan_for(made)
    panel = panel_of(made, evaluation.get(CIRCUITS), evaluation.get(NETS))
    runner = Runner(panel, CircuitId("c1"))
    for step in steps:
        runner.do(step)
    return DeviceId("c1.H.trip") in panel.on


STARTS = [Start.DIRECT, Start.REVERSING, Start.STAR_DELTA, Start.SOFT, Start.DRIVE]


@pytest.mark.parametrize("book", Rulebook)
@pytest.mark.parametrize("start", STARTS)
def test_an_open_breaker_lights_the_lamp_where_practice_says_so(start: Start, book: Rulebook) -> None:
    both, alone = job(start, TripLamp.BREAKER_TOO, book), job(start, TripLamp.OVERLOAD, book)
    assert not lit(both) and not lit(alone)
    assert lit(both, "open F") and not lit(alone, "open F")
    assert lit(both, "trip F")
    assert not lit(both, "open F", "close F")


@pytest.mark.parametrize("start", [Start.DIRECT, Start.STAR_DELTA])
def test_the_overload_still_lights_it(start: Start) -> None:
    assert lit(job(start, TripLamp.BREAKER_TOO), "trip guard")


@pytest.mark.parametrize("start", STARTS)
def test_the_breaker_is_bought_with_its_contact_and_the_test_opens_it(start: Start) -> None:
    evaluation = plan_for(job(start, TripLamp.BREAKER_TOO))
    bought = [row for row in schedule("bom", evaluation).rows if str(row[1]).endswith("signal contact")]
    assert [row[2] for row in bought] == [1] and "+ SB-1" in str(bought[0][0])
    done = [step.done for step in evaluation.get(FUNCTION)]
    assert "open F3" in done or "open F1" in done
    outcome = next(r for r in evaluation.get(RULES) if r.code == "C11")
    assert not [f for f in outcome.findings if f.verdict is Verdict.FAILS]


def test_a_motor_protector_needs_no_second_contact_and_fuses_have_none() -> None:
    for protection in (Protection.PROTECTOR, Protection.FUSES):
        made = job(Start.DIRECT, TripLamp.BREAKER_TOO, protection=protection)
        assert not [r for r in schedule("bom", plan_for(made)).rows if "signal contact" in str(r[1])]
        assert lit(made, "open F") is (protection is Protection.PROTECTOR)


def test_a_lamp_that_would_be_dark_with_its_breaker_gets_no_contact() -> None:
    made = set_practice(job(Start.DIRECT, TripLamp.BREAKER_TOO), control_tap=ControlTap.AFTER)
    assert not [r for r in schedule("bom", plan_for(made)).rows if "signal contact" in str(r[1])]
