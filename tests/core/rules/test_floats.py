"""C21: floats in their order, by the heights of the Brief; what lies between pump and tank is in simulation."""

import pytest
from tests.shared_plan import plan_for

from riktig.core.errors import ImpossibleValueError
from riktig.core.exports.lists import schedule
from riktig.core.job import CircuitId, Command, DeviceId, Job, add_load, new_job
from riktig.core.rules import RULES, ClauseResult, Verdict
from riktig.core.schematic import CIRCUITS, NETS, set_param, with_names_recorded
from riktig.core.simulation import Panel, set_level, tanks_of


def pump(*, fills: bool = False, **heights: object) -> Job:
    job = add_load(new_job("F", "cellar"), "sump pump", 1.1, command=Command.LEVEL, level_alarm=True, **heights)  # type: ignore[arg-type]
    job = with_names_recorded(job)
    return with_names_recorded(set_param(job, CircuitId("c1"), "pump", "fills")) if fills else job


def clause(job: Job) -> ClauseResult:
    return next(r for r in plan_for(job).get(RULES) if r.code == "C21")


def test_heights_that_nobody_gave_are_left_to_a_person() -> None:
    (found,) = clause(pump()).findings
    assert found.verdict is Verdict.JUDGE and "stop, then start, then alarm" in found.message


@pytest.mark.parametrize(
    ("fills", "stop", "start", "alarm", "right"),
    [
        (False, 0.3, 0.9, 1.4, True),
        (False, 0.9, 0.3, 1.4, False),
        (False, 0.3, 0.9, 0.8, False),
        (False, 0.3, 0.3, 1.4, False),
        (True, 0.9, 0.3, 1.4, True),
        (True, 0.3, 0.9, 1.4, False),
    ],
)
def test_the_order_follows_what_the_pump_does(
    fills: bool, stop: float, start: float, alarm: float, right: bool
) -> None:
    """Common practice, no source: emptying stops low and starts high, filling the other way round, the alarm on top."""
    result = clause(pump(fills=fills, stop_float_m=stop, start_float_m=start, alarm_float_m=alarm))
    assert [f.verdict for f in result.findings] == ([] if right else [Verdict.FAILS])
    if right:
        assert f"stop {stop:g} m" in result.evidence[0]


def test_one_height_left_out_is_not_said_to_meet() -> None:
    (found,) = clause(pump(stop_float_m=0.3, start_float_m=0.9)).findings
    assert found.verdict is Verdict.JUDGE


@pytest.mark.parametrize("height", [-0.1, 201.0, float("nan")])
def test_a_float_that_cannot_hang_there_is_refused(height: float) -> None:
    with pytest.raises(ImpossibleValueError):
        pump(stop_float_m=height)


def test_a_pump_that_fills_starts_low_and_stops_high() -> None:
    evaluation = plan_for(pump(fills=True))
    panel = Panel(evaluation.get(CIRCUITS), evaluation.get(NETS))
    (tank,) = tanks_of(panel.circuits)
    assert tank.fills and tank.faults() == ()
    panel.operator_state.position[DeviceId("c1.S.select")] = "auto"
    ran = []
    for level in (0.4, 0.1, 0.4, 0.7, 0.4, 0.1):
        tank = set_level(panel, tank, level)
        ran.append(panel.turns(DeviceId("c1.M")) != "off")
    assert ran == [False, True, True, False, False, True]
    assert "above the start float" in tank.moved("stop", 0.1).faults()[0]


def test_the_model_hangs_floats_where_the_brief_says_and_the_site_list_names_them() -> None:
    job = pump(stop_float_m=0.5, start_float_m=1.0, alarm_float_m=2.0)
    evaluation = plan_for(job)
    (tank,) = tanks_of(evaluation.get(CIRCUITS), {CircuitId("c1"): job.loads[0].float_heights})
    at = {role: height for role, _, height in tank.floats}
    assert at["start"] == pytest.approx(2 * at["stop"]) and at["alarm"] == pytest.approx(4 * at["stop"])
    assert any("0.5 m (stop), 1 m (start), 2 m (alarm)" in str(row[1]) for row in schedule("site", evaluation).rows)
