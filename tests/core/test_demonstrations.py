"""The demonstrations are what we show first: planned, without a failing clause, and no longer than a plan would be."""

import pytest

from riktig.core.job import Job
from riktig.core.plate import LAYOUT
from riktig.core.rules import RULES, Verdict
from riktig.core.wiring import WIRING
from riktig.demo_job import DEMOS, demo_job
from tests.shared_plan import plan_for


def metres(job: Job) -> float:
    return sum(wire.length for wire in plan_for(job).get(WIRING).wires) / 1000


@pytest.mark.parametrize("name", DEMOS)
def test_a_demonstration_opens_planned_and_meets_its_rulebook(name: str) -> None:
    job = demo_job(name)
    evaluation = plan_for(job)
    assert job.plate is not None
    assert evaluation.get(LAYOUT).misfits == ()
    assert [r.code for r in evaluation.get(RULES) if r.verdict is Verdict.FAILS] == []
    assert metres(job) <= metres(DEMOS[name]())


def test_planning_saves_a_quarter_of_the_wire_of_a_large_panel() -> None:
    assert metres(demo_job("kelp-shed")) < 0.75 * metres(DEMOS["kelp-shed"]())
