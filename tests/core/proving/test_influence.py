"""What a fault cannot reach it does not change: held against trying it, fault by fault."""

from collections.abc import Callable
from random import Random

import pytest
from tests.core.proving.test_live_trial import seen_with
from tests.effort import times
from tests.shared_plan import plan_for

from riktig.core.evaluation import Evaluation
from riktig.core.ids import DeviceId, read_pin
from riktig.core.job import CircuitId, Job
from riktig.core.proving import (
    DEAD_PANEL,
    ENERGISED,
    LIVE_SCRIPTS,
    LiveEvidence,
    LiveTrial,
    SeenAfterStep,
    single_faults,
)
from riktig.core.simulation import FaultKind, InjectedFault
from riktig.demo_job import frost_fan, kelp_shed, wash_drum


def trial_of(evaluation: Evaluation[Job], circuit: CircuitId) -> LiveTrial:
    """Every step of a circuit seen as the sound panel does it."""
    evidence = LiveEvidence(seen_with(evaluation, circuit, []), ())
    faults = single_faults(evaluation.get(DEAD_PANEL))
    return LiveTrial(evaluation.get(ENERGISED), evaluation.get(LIVE_SCRIPTS), evidence, faults)


@pytest.mark.parametrize(
    ("build", "name"),
    [(wash_drum, "c0"), (wash_drum, "c1"), (frost_fan, "s1"), (frost_fan, "c1"), (kelp_shed, "s2"), (kelp_shed, "s4")],
)
def test_what_is_not_reached_does_as_the_sound_panel(build: Callable[[], Job], name: str) -> None:
    evaluation = plan_for(build())
    trial = trial_of(evaluation, CircuitId(name))
    faults = single_faults(evaluation.get(DEAD_PANEL))
    spared = [fault for fault in faults if not trial.reaches(fault)]
    assert spared
    for fault in Random(3).sample(spared, min(len(spared), times(40, 600))):
        assert trial.agreement((fault,)) == (True, 0), fault


def test_each_kind_of_fault_in_the_circuit_itself_reaches_it() -> None:
    evaluation = plan_for(frost_fan())
    trial = trial_of(evaluation, CircuitId("c1"))
    own = [fault for fault in single_faults(evaluation.get(DEAD_PANEL)) if fault.what.startswith("c1.K")]
    reached = {fault.wrong for fault in own if trial.reaches(fault)}
    assert {FaultKind.STUCK, FaultKind.WELDED, FaultKind.OPEN_COIL, FaultKind.WRONG_BLOCK} <= reached


def test_of_another_motor_only_what_may_trip_or_is_shared_reaches() -> None:
    """The contact that holds the other motor in hangs on the same control voltage, and moves nothing here."""
    evaluation = plan_for(frost_fan())
    trial = trial_of(evaluation, CircuitId("c1"))
    assert not trial.reaches(InjectedFault(FaultKind.WELDED, "c2.K", "13-14"))
    assert not trial.reaches(InjectedFault(FaultKind.OPEN_COIL, "c2.K", "A1-A2"))
    assert not trial.reaches(InjectedFault(FaultKind.BLOWN, "c2.FC", "1-2")), "its own control fuse"
    assert trial.reaches(InjectedFault(FaultKind.BLOWN, "c1.FC", "1-2"))
    assert trial.reaches(InjectedFault(FaultKind.BLOWN, "s1.FS", "1-2")), "the fuse of the whole control circuit"


def test_what_is_measured_is_reached_like_what_is_seen() -> None:
    evaluation = plan_for(frost_fan())
    seen = seen_with(evaluation, CircuitId("c1"), [])
    make, scripts = evaluation.get(ENERGISED), evaluation.get(LIVE_SCRIPTS)
    coil = read_pin("c2.K:A1")
    fault = InjectedFault(FaultKind.STUCK, "c2.K", "13-14")
    assert not LiveTrial(make, scripts, LiveEvidence(seen, ()), []).reaches(fault)
    assert LiveTrial(make, scripts, LiveEvidence(seen, ((coil, coil, 0.0),)), []).reaches(fault)
    both = (*seen, SeenAfterStep(CircuitId("c2"), 1, ((DeviceId("c2.K"), "off"),), as_expected=True))
    assert LiveTrial(make, scripts, LiveEvidence(both, ()), []).reaches(fault)
