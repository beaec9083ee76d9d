"""Every single fault of a panel shows somewhere: on a card of the dead plan, or in a step under voltage."""

import pytest
from tests.shared_plan import plan_for

from riktig.core.evaluation import Evaluation
from riktig.core.ids import DeviceId, PinRef, read_pin
from riktig.core.job import JOB_CIRCUIT_INPUTS, Job
from riktig.core.proving import DEAD_PANEL, ENERGISED, LIVE_PLAN, TESTS, Effects, ProvingStage, single_faults
from riktig.core.proving.fault_effects import BETWEEN, JOINED, OPEN, PERHAPS
from riktig.core.proving.function import ONLY_ON_PAPER
from riktig.core.schematic import CIRCUITS, NETS, all_circuits, script_of
from riktig.core.simulation import (
    CONDUCTORS,
    FaultKind,
    InjectedFault,
    Panel,
    conductors_with_faults,
    control_volts,
    inject_faults,
    meter_of,
    run_script,
)
from riktig.core.sizing import SIZING
from riktig.core.wiring import WIRING
from riktig.demo_job import wash_drum


def shows_dead(evaluation: Evaluation[Job], faults: list[InjectedFault]) -> set[InjectedFault]:
    tests = [test for test in evaluation.get(TESTS).tests if test.stage is not ProvingStage.INSULATION]
    effects = Effects(evaluation.get(DEAD_PANEL), [(), *((fault,) for fault in faults)])
    found: set[InjectedFault] = set()
    for state in dict.fromkeys(test.state for test in tests):
        sound, *wrong = effects.classes(state, [(t.black.pin, t.red.pin) for t in tests if t.state == state])
        for fault, classes in zip(faults, wrong, strict=True):
            opened = (sound <= PERHAPS) & (classes == OPEN)
            joined = (sound >= BETWEEN) & (classes == JOINED)
            if (opened | joined).any():
                found.add(fault)
    return found


def shows_live(evaluation: Evaluation[Job], fault: InjectedFault) -> bool:
    """In the function test of a circuit, or where it is measured: behind every pole, and behind loads at rest."""
    if fault.wrong is FaultKind.BLOWN or live_behind_a_load_at_rest(evaluation, fault):
        return True
    inputs, circuits, nets = evaluation.get(JOB_CIRCUIT_INPUTS), evaluation.get(CIRCUITS), evaluation.get(NETS)
    conductors = conductors_with_faults(evaluation.get(CONDUCTORS), [fault])
    volts = control_volts(inputs.loads, inputs.supply, inputs.practice)
    whole, loads = all_circuits(inputs), {load.id: load for load in inputs.loads}
    for circuit in whole:
        load = loads.get(circuit.load) if circuit.load else None
        script = script_of(circuit, load, inputs.signals, whole, inputs.supply.system.lines, inputs.practice)
        steps = tuple(text for text in script if text.split()[0] not in ONLY_ON_PAPER)
        panel = Panel(circuits, nets, inputs.supply, volts, conductors, evaluation.get(SIZING).parts)
        inject_faults(panel.operator_state, [fault])
        panel.run_until_stable()
        if panel.shorts or any(not result.passed for result in run_script(circuits, nets, circuit.id, steps, panel)):
            return True
    return False


def live_behind_a_load_at_rest(evaluation: Evaluation[Job], fault: InjectedFault) -> bool:
    """Whether a step that asks for dead points behind a contactor at rest finds voltage at one of them."""
    panel = evaluation.get(ENERGISED)((fault,))
    meter, earth = meter_of(panel), PinRef(DeviceId("c0.X.PE"), "i")
    idle = [step.key.removeprefix("idle:") for step in evaluation.get(LIVE_PLAN) if step.key.startswith("idle:")]
    pins = [PinRef(DeviceId(device), pin) for device in idle for pin in ("2", "4", "6")]
    return any(abs(meter.volts(earth, pin).value or 0.0) > 5.0 for pin in pins if pin in panel.network.point)


@pytest.fixture(scope="module")
def drum() -> Evaluation[Job]:
    return plan_for(wash_drum())


def concerns_nothing(evaluation: Evaluation[Job], fault: InjectedFault) -> bool:
    """Whether it is in a contact that no wire goes to, or between clamps of which one is free."""
    landed = {end.pin for wire in evaluation.get(WIRING).wires for end in (wire.start, wire.end)}
    if fault.wrong is FaultKind.SHORT:
        return not {read_pin(fault.where), read_pin(fault.to)} <= landed
    device = next((d for d in evaluation.get(CIRCUITS).devices if d.id == DeviceId(fault.what)), None)
    if device is None:
        return False
    unit = next(unit for unit in device.kind.units if unit.name == fault.where)
    return unit.symbol != "main" and not {device.pin(pin) for pin in unit.pins} <= landed


def test_every_single_fault_of_the_drum_shows_dead_or_live(drum: Evaluation[Job]) -> None:
    faults = list(single_faults(drum.get(DEAD_PANEL)))
    assert len(faults) > 150
    assert {fault.wrong for fault in faults} == set(FaultKind)
    dead = shows_dead(drum, faults)
    missed = [fault for fault in faults if fault not in dead and not shows_live(drum, fault)]
    assert not [fault for fault in missed if not concerns_nothing(drum, fault)]


def test_one_welded_pole_of_three_is_found_behind_the_load_at_rest(drum: Evaluation[Job]) -> None:
    """It lets nothing run, so that no function shows it; it leaves a line live."""
    fault = InjectedFault(FaultKind.WELDED, "c1.K", "3-4")
    assert fault not in shows_dead(drum, [fault])
    assert live_behind_a_load_at_rest(drum, fault)
    assert not live_behind_a_load_at_rest(drum, InjectedFault(FaultKind.STUCK, "c1.K", "13-14"))


@pytest.mark.parametrize(
    "fault",
    [
        InjectedFault(FaultKind.STUCK, "c1.K", "13-14"),
        InjectedFault(FaultKind.WRONG_BLOCK, "c1.K", "13-14"),
        InjectedFault(FaultKind.STUCK, "c1.S.start", "3-4"),
    ],
)
def test_a_contact_that_does_not_close_or_closes_the_wrong_way_stops_the_function(
    drum: Evaluation[Job], fault: InjectedFault
) -> None:
    """By hand: without its holding contact the contactor drops out with the button; the other block never rests."""
    circuits, nets = drum.get(CIRCUITS), drum.get(NETS)
    panel = Panel(circuits, nets, conductors=drum.get(CONDUCTORS))
    inject_faults(panel.operator_state, [fault])
    panel.run_until_stable()
    steps = ("rest: K off", "press S.start: K on", "release S.start: K on")
    results = run_script(circuits, nets, drum.document.circuits[1].id, steps, panel)
    assert any(not result.passed for result in results)
