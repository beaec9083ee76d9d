"""A trial that begins where a fault is first felt agrees with the whole script on a panel made with the fault."""

from collections.abc import Callable, Sequence

import pytest
from tests.effort import times
from tests.shared_plan import plan_for

from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.ids import read_pin
from riktig.core.job import CircuitId, Job
from riktig.core.proving import (
    DEAD_PANEL,
    ENERGISED,
    LIVE_SCRIPTS,
    LiveEvidence,
    LiveTrial,
    SeenAfterStep,
    single_faults,
    states_after,
    watched_in,
)
from riktig.core.simulation import FaultKind, InjectedFault
from riktig.demo_job import frost_fan, kelp_shed, wash_drum


def seen_with(
    evaluation: Evaluation[Job], circuit: CircuitId, faults: Sequence[InjectedFault]
) -> tuple[SeenAfterStep, ...]:
    """What is seen of a circuit whose panel has faults, after every step of its script."""
    make, script = evaluation.get(ENERGISED), evaluation.get(LIVE_SCRIPTS)[circuit]
    sound, panel = make(), make(faults)
    watched = watched_in(sound, circuit)
    asked, came = (states_after(made, circuit, script, watched) for made in (sound, panel))
    return tuple(
        SeenAfterStep(circuit, number, tuple(after.items()), after == sound_after)
        for number, (after, sound_after) in enumerate(zip(came, asked, strict=False), 1)
    )


def agreement_from_power_on(
    evaluation: Evaluation[Job], seen: Sequence[SeenAfterStep], faults: Sequence[InjectedFault]
) -> bool:
    """The same question, answered by doing the whole script on a panel that is made with the faults."""
    try:
        panel = evaluation.get(ENERGISED)(faults)
    except RiktigError:
        return False
    if panel.shorts:
        return False
    circuit = seen[0].circuit
    script = evaluation.get(LIVE_SCRIPTS)[circuit][: len(seen)]
    devices = [panel.network.devices[did] for did, _ in seen[0].seen]
    came = states_after(panel, circuit, script, devices)
    return all(after[device] == does for entry, after in zip(seen, came, strict=True) for device, does in entry.seen)


CASES = [
    (wash_drum, "c1", InjectedFault(FaultKind.STUCK, "c1.K", "13-14")),
    (wash_drum, "c1", InjectedFault(FaultKind.OPEN_COIL, "c1.H.trip", "X1-X2")),
    (wash_drum, "c1", InjectedFault(FaultKind.SHORT, "", "c1.K:5", "c1.K:13")),
    (kelp_shed, "c3", InjectedFault(FaultKind.WRONG_BLOCK, "c3.K", "13-14")),
    (frost_fan, "c1", InjectedFault(FaultKind.OPEN_COIL, "c1.K", "A1-A2")),
]


@pytest.mark.parametrize(("build", "name", "fault"), CASES)
def test_a_trial_agrees_with_the_whole_script(build: Callable[[], Job], name: str, fault: InjectedFault) -> None:
    evaluation = plan_for(build())
    circuit = CircuitId(name)
    seen = seen_with(evaluation, circuit, [fault])
    assert any(not entry.as_expected for entry in seen)
    every = [each for each in single_faults(evaluation.get(DEAD_PANEL)) if each.wrong is not FaultKind.SWAPPED]
    own = [each for each in every if each.what.startswith(f"{circuit}.") or each.where.startswith(f"{circuit}.")]
    tried = list(dict.fromkeys([fault, *own[:: times(11, 2)], *every[:: times(97, 11)]]))
    trial = LiveTrial(evaluation.get(ENERGISED), evaluation.get(LIVE_SCRIPTS), LiveEvidence(seen, ()), tried)
    answers = {each: trial.agreement((each,))[0] for each in tried}
    assert answers == {each: agreement_from_power_on(evaluation, seen, [each]) for each in tried}
    assert answers[fault]


def test_a_fault_of_two_is_tried_from_the_step_in_which_the_first_is_felt() -> None:
    evaluation = plan_for(wash_drum())
    pair = (
        InjectedFault(FaultKind.STUCK, "c1.K", "13-14"), InjectedFault(FaultKind.OPEN_COIL, "c1.H.trip", "X1-X2"),
    )  # fmt: skip
    seen = seen_with(evaluation, CircuitId("c1"), pair)
    trial = LiveTrial(evaluation.get(ENERGISED), evaluation.get(LIVE_SCRIPTS), LiveEvidence(seen, ()), pair)
    assert trial.agreement(pair)[0]
    assert [trial.agreement((fault,))[0] for fault in pair] == [False, False]


def test_what_is_measured_counts_where_a_fault_is_never_felt() -> None:
    """Between two points of one potential no voltage stands, so a reading of 400 V there fits no panel at all."""
    evaluation = plan_for(wash_drum())
    seen = seen_with(evaluation, CircuitId("c1"), [InjectedFault(FaultKind.STUCK, "c1.K", "13-14")])
    pin = read_pin("c1.K:13")
    far = InjectedFault(FaultKind.OPEN_COIL, "c0.none", "X1-X2")
    make, scripts = evaluation.get(ENERGISED), evaluation.get(LIVE_SCRIPTS)
    assert LiveTrial(make, scripts, LiveEvidence(seen, ((pin, pin, 400.0),)), []).agreement((far,)) == (False, 0)


def test_a_fork_goes_its_own_way() -> None:
    evaluation = plan_for(wash_drum())
    circuit, script = CircuitId("c1"), evaluation.get(LIVE_SCRIPTS)[CircuitId("c1")]
    panel = evaluation.get(ENERGISED)()
    watched = watched_in(panel, circuit)
    fork = panel.fork()
    before = panel.volts.at[:], set(panel.on), panel.connectivity.closed[:]
    came = states_after(fork, circuit, script, watched)
    assert (panel.volts.at, panel.on, panel.connectivity.closed) == before
    assert came == states_after(panel, circuit, script, watched)


def test_metal_across_two_clamps_joins_them() -> None:
    """Across the holding contact the contactor comes in by itself, as soon as there is power."""
    panel = plan_for(wash_drum()).get(ENERGISED)()
    assert "c1.K" not in panel.on
    panel.bridge(*(panel.network.point[read_pin(pin)] for pin in ("c1.K:13", "c1.K:14")))
    assert "c1.K" in panel.on
    assert not panel.shorts


def test_metal_between_two_lines_is_a_short_that_a_guard_clears() -> None:
    panel = plan_for(wash_drum()).get(ENERGISED)()
    panel.bridge(*(panel.network.point[read_pin(pin)] for pin in ("c1.F:2", "c1.F:4")))
    assert panel.shorts
    assert "c1.F" in panel.operator_state.tripped
