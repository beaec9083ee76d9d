"""What a circuit must do by its recipe, tried on the circuit as it is drawn now."""

from dataclasses import dataclass, replace
from functools import partial

from riktig.core.errors import RiktigError
from riktig.core.evaluation import KeyedCache, Memory
from riktig.core.ids import circuit_of_node
from riktig.core.job import Circuit, CircuitId, CircuitInputs, DeviceId, Job, Recipe, Supply, circuit_inputs
from riktig.core.schematic import Circuits, all_circuits, find_nets, script_of, touched
from riktig.core.simulation.panel import control_volts, panel_of
from riktig.core.simulation.run import Panel
from riktig.core.simulation.script import StepResult, run_script, try_script

__all__ = ["ScriptOutcome", "behaviour_of", "on_its_own", "with_tags"]

_COMMON = {
    Recipe.INCOMER,
    Recipe.CONTROL_SUPPLY,
    Recipe.DC_SUPPLY,
    Recipe.LIMITED_SUPPLY,
    Recipe.CONTROLLER,
    Recipe.EMERGENCY_STOP,
    Recipe.PHASE_MONITOR,
}
"""Circuits that others need to work at all."""


@dataclass(frozen=True, slots=True)
class ScriptOutcome:
    """The steps of one circuit with what came of them; ``broken`` says why they could not be done."""

    circuit: CircuitId
    title: str
    steps: tuple[StepResult, ...]
    broken: str = ""

    @property
    def passed(self) -> bool:
        """Whether everything was as the recipe promises."""
        return not self.broken and all(step.passed for step in self.steps)


def behaviour_of(job: Job, circuits: Circuits, circuit: CircuitId) -> ScriptOutcome | None:
    """Runs the script of a circuit, with the supplies and whatever its paths go through; None without a script.

    Args:
        job: The job; it is not changed.
        circuits: All devices and rungs of the job.
        circuit: Which circuit.

    Returns:
        What every step gave; None when the circuit has no script.
    """
    whole = all_circuits(circuit_inputs(job))
    own_circuit = next((own_circuit for own_circuit in whole if own_circuit.id == circuit), None)
    if own_circuit is None:
        return None
    load = next((load for load in job.loads if load.id == own_circuit.load), None)
    steps = script_of(own_circuit, load, job.signals, whole, job.supply.system.lines, job.practice)
    if not steps:
        return None
    title = dict(circuits.titles).get(circuit, str(circuit))
    small = on_its_own(circuits, whole, own_circuit)
    try:
        return ScriptOutcome(circuit, title, _run(job, small, circuit, steps))
    except RiktigError as error:
        return ScriptOutcome(circuit, title, (), str(error))


def behaviours_of(inputs: CircuitInputs, circuits: Circuits, memory: Memory | None = None) -> tuple[ScriptOutcome, ...]:
    """Every circuit tried by the script of its recipe; one without a script has no steps.

    A circuit of which nothing changed, with all that its paths go through, is not tried again. A step that names
    what is no longer there is refused, and the next is tried.

    Args:
        inputs: What the circuits follow from.
        circuits: All devices and rungs of the job.
        memory: What was tried before; without it the same, only slower.

    Returns:
        One outcome a circuit, in the order of the circuits.
    """
    cache: KeyedCache[tuple[StepResult, ...]] = (memory or Memory()).memo(tuple, "behaviour of a circuit")
    whole = all_circuits(inputs)
    loads = {load.id: load for load in inputs.loads}
    titles = dict(circuits.titles)
    volts = control_volts(inputs.loads, inputs.supply, inputs.practice)
    outcomes = []
    for circuit in whole:
        if circuit.id not in titles:
            continue  # it cannot be drawn, which is a finding of its own
        load = loads.get(circuit.load) if circuit.load else None
        steps = script_of(circuit, load, inputs.signals, whole, inputs.supply.system.lines, inputs.practice)
        small = on_its_own(circuits, whole, circuit)
        reads = (small.devices, small.rungs, steps, inputs.supply, volts)
        tried = cache.get(circuit.id, reads, partial(_try, small, circuit.id, steps, inputs.supply, volts))
        outcomes.append(ScriptOutcome(circuit.id, titles[circuit.id], tried))
    return tuple(outcomes)


def _try(
    circuits: Circuits, circuit: CircuitId, steps: tuple[str, ...], supply: Supply, volts: float
) -> tuple[StepResult, ...]:
    if not steps:
        return ()
    return try_script(Panel(circuits, find_nets(circuits), supply, volts), circuit, steps)


def on_its_own(circuits: Circuits, whole: tuple[Circuit, ...], circuit: Circuit) -> Circuits:
    """One circuit with the supplies and whatever its paths go through: enough to try it.

    Args:
        circuits: All devices and rungs of the job.
        whole: Every circuit, those that the Brief implies too.
        circuit: Which of them.
    """
    return _only(circuits, _wanted(whole, circuit))


def _wanted(whole: tuple[Circuit, ...], circuit: Circuit) -> set[CircuitId]:
    """The circuits that one needs to be tried: the supplies; for the lamp test all."""
    if circuit.recipe is Recipe.LAMP_TEST:
        return {other.id for other in whole}
    return {other.id for other in whole if other.recipe in _COMMON} | {circuit.id}


def _run(job: Job, circuits: Circuits, circuit: CircuitId, steps: tuple[str, ...]) -> tuple[StepResult, ...]:
    nets = find_nets(circuits)
    return run_script(circuits, nets, circuit, steps, panel_of(job, circuits, nets))


def _only(circuits: Circuits, wanted: set[CircuitId]) -> Circuits:
    """The circuits ``wanted`` and those whose devices or nodes their paths go through."""
    owner = {device.id: device.circuit for device in circuits.devices}
    drawn = set(owner.values())
    while True:
        circuit_rungs = [rung for rung in circuits.rungs if rung.circuit in wanted]
        met = {owner[device_id] for rung in circuit_rungs for device_id in touched(rung.path)}
        met |= {
            of for rung in circuit_rungs for node in (*rung.start, *rung.end) if (of := circuit_of_node(node)) in drawn
        }
        if met <= wanted:
            break
        wanted |= met
    devices = tuple(device for device in circuits.devices if device.circuit in wanted)
    known = {device.id for device in devices}
    return replace(
        circuits,
        devices=devices,
        rungs=tuple(rung for rung in circuits.rungs if rung.circuit in wanted),
        earths=tuple(pin for pin in circuits.earths if pin.device in known),
    )


def with_tags(text: str, circuit: CircuitId, tags: dict[DeviceId, str]) -> str:
    """A step or an expectation with each device called by its tag instead of its role.

    Args:
        text: The text.
        circuit: Which circuit.
        tags: The tag of every device.
    """
    words = []
    for word in text.split(" "):
        bare = word.rstrip(",;")
        tag = tags.get(DeviceId(f"{circuit}.{bare}")) or tags.get(DeviceId(bare))
        words.append(f"{tag}{word[len(bare) :]}" if tag else word)
    return " ".join(words)
