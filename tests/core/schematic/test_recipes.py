"""The direct-on-line recipe against the control paths worked out by hand for every practice."""

import pytest

from riktig.core.job import ControlTap, EarthScheme, Job, OverloadContact, PracticeFields, RunLamp, change_load
from riktig.core.schematic import CIRCUITS, Band, elements_of
from tests.core.schematic.builders import one_motor
from tests.shared_plan import plan_for

TRIP, STOP, START, HOLD, COIL = "FO/95-96", "S.stop/1-2", "S.start/3-4", "K/13-14", "K/A1-A2"
LAMP = "H.run/X1-X2"

PATHS = [
    ({}, [TRIP, STOP, START, HOLD, COIL]),
    ({"overload_contact": OverloadContact.RETURN}, [STOP, START, HOLD, COIL, TRIP]),
    ({"run_lamp": RunLamp.COIL}, [TRIP, STOP, START, HOLD, COIL, LAMP]),
    ({"run_lamp": RunLamp.COIL, "overload_contact": OverloadContact.RETURN}, [STOP, START, HOLD, COIL, LAMP, TRIP]),
]


def path(job: Job, rung: str) -> list[str]:
    found = next(r for r in plan_for(job).get(CIRCUITS).rungs if r.id == f"c1.{rung}")
    return [e.id.removeprefix("c1.") for e in elements_of(found.path)]


@pytest.mark.parametrize(("practice", "wanted"), PATHS, ids=lambda v: "" if isinstance(v, list) else str(len(v)))
def test_the_control_path_runs_as_the_practice_says(practice: PracticeFields, wanted: list[str]) -> None:
    assert path(one_motor(**practice), "run") == wanted


def test_the_motor_path_runs_breaker_contactor_overload_terminals() -> None:
    assert path(one_motor(), "power") == ["F/1-2", "K/1-2", "FO/1-2", "X.U/i-f"]


@pytest.mark.parametrize(("run", "trip"), [(True, True), (True, False), (False, True), (False, False)])
def test_lamps_are_there_when_the_load_wants_them(run: bool, trip: bool) -> None:
    job = one_motor()
    job = change_load(job, job.loads[0].id, run_lamp=run, trip_lamp=trip)
    circuits = plan_for(job).get(CIRCUITS)
    lamps = {d.id for d in circuits.devices if d.kind_id == "lamp"}
    assert lamps == {f"c1.H.{name}" for name, wanted in (("run", run), ("trip", trip)) if wanted}
    control = [r.id for r in circuits.rungs if r.band is Band.CONTROL]
    assert control == ["c1.run", *(["c1.lamp"] if run else []), *(["c1.trip"] if trip else [])]


@pytest.mark.parametrize(("tap", "start"), [(ControlTap.BEFORE, ("main.L1",)), (ControlTap.AFTER, ())])
def test_the_control_supply_is_taken_where_the_practice_says(tap: ControlTap, start: tuple[str, ...]) -> None:
    rung = next(r for r in plan_for(one_motor(control_tap=tap)).get(CIRCUITS).rungs if r.band is Band.TAP)
    assert rung.start == start
    assert [e.id for e in elements_of(rung.path)] == ["c1.FC/1-2"]


@pytest.mark.parametrize(("scheme", "points"), [(EarthScheme.BESIDE, 5), (EarthScheme.BAR, 4)])
def test_every_bonded_point_is_listed_once(scheme: EarthScheme, points: int) -> None:
    earths = plan_for(one_motor(earths=scheme)).get(CIRCUITS).earths
    assert len(earths) == len(set(earths)) == points


def test_every_operator_has_a_legend_that_says_what_it_does() -> None:
    legends = {d.id: d.legend for d in plan_for(one_motor()).get(CIRCUITS).devices if d.legend}
    assert legends == {
        "c0.Q": "MAIN SWITCH",
        "c1.S.stop": "Wash drum STOP",
        "c1.S.start": "Wash drum START",
        "c1.H.run": "Wash drum RUNS",
        "c1.H.trip": "Wash drum TRIPPED",
    }
