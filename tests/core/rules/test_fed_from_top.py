"""E19: a breaker or contactor that is fed from below is said by name; every recipe feeds from above."""

from dataclasses import replace

import pytest
from tests.shared_plan import plan_for

from riktig.core.ids import CircuitId, DeviceId
from riktig.core.job import Circuit, Job, OwnDevice, OwnRung, Recipe, Rulebook, Start, add_load, new_job, set_practice
from riktig.core.keys import DeviceKey
from riktig.core.rules import RULES, ClauseResult, Verdict
from riktig.core.schematic import with_names_recorded
from riktig.demo_job import frost_fan, kelp_shed


def judged(job: Job) -> ClauseResult:
    return next(result for result in plan_for(job).get(RULES) if result.code == "E19")


def every_start(rulebook: Rulebook = Rulebook.IEC) -> Job:
    job = set_practice(new_job("B-3", "bakery"), rulebook=rulebook)
    for start in Start:
        if start is not Start.WAY:
            job = add_load(job, start.value, 5.5, start=start)
    return with_names_recorded(job)


@pytest.mark.parametrize(
    "job", [kelp_shed(), frost_fan(), every_start(), every_start(Rulebook.UL)], ids=["shed", "fan", "IEC", "UL"]
)
def test_what_the_recipes_draw_is_fed_from_above(job: Job) -> None:
    result = judged(job)
    assert result.findings == ()
    assert int(result.evidence[0].split()[0]) > 5, "poles that were looked at"


@pytest.mark.parametrize(("path", "below"), [("F.x:1-2", ""), ("<F.x:1-2", "2")])
def test_a_breaker_of_his_own_is_judged_by_the_side_that_the_supply_reaches(path: str, below: str) -> None:
    devices = (OwnDevice("F.x", "way_breaker", "plate", "extra"), OwnDevice("E.x", "lamp", "door", "extra", "EXTRA"))
    rung = OwnRung("own1", "extra", "main.L1", f"{path} E.x:X1-X2", "N", "power")
    free = Circuit(CircuitId("c90"), Recipe.FREE, title="free", devices=devices, rungs=(rung,))
    job = kelp_shed()
    result = judged(with_names_recorded(replace(job, circuits=(*job.circuits, free))))
    assert [f.where for f in result.findings] == ([DeviceKey(DeviceId("c90.F.x"))] if below else [])
    for finding in result.findings:
        assert finding.verdict is Verdict.JUDGE
        assert f"at {below}:" in finding.message
        assert "upper clamps" in finding.remedy


def test_a_breaker_that_no_supply_reaches_is_for_a_person_to_judge() -> None:
    devices = (OwnDevice("F.x", "way_breaker", "plate", "extra"), OwnDevice("E.x", "lamp", "door", "extra", "EXTRA"))
    rung = OwnRung("own1", "extra", "nowhere", "F.x:1-2 E.x:X1-X2", "elsewhere", "power")
    free = Circuit(CircuitId("c90"), Recipe.FREE, title="free", devices=devices, rungs=(rung,))
    job = kelp_shed()
    (finding,) = judged(with_names_recorded(replace(job, circuits=(*job.circuits, free)))).findings
    assert finding.verdict is Verdict.JUDGE
    assert "is not to be seen" in finding.message
