"""What a circuit must do by its recipe, tried on the circuit as it is drawn now."""

from dataclasses import dataclass, replace

from riktig.core.errors import RiktigError
from riktig.core.job import CircuitId, DeviceId, Job, Recipe, circuit_inputs
from riktig.core.schematic import Circuits, all_circuits, find_nets, script_of, touched
from riktig.core.simulation.panel import panel_of
from riktig.core.simulation.script import StepResult, run_script

__all__ = ["ScriptOutcome", "behaviour_of", "with_tags"]

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
    steps = script_of(own_circuit, load, job.signals, whole)
    if not steps:
        return None
    title = dict(circuits.titles).get(circuit, str(circuit))
    wanted = {circuit.id for circuit in whole if circuit.recipe in _COMMON} | {circuit}
    if own_circuit.recipe is Recipe.LAMP_TEST:
        wanted |= {circuit.id for circuit in whole}
    small = _only(circuits, wanted)
    try:
        return ScriptOutcome(circuit, title, _run(job, small, circuit, steps))
    except RiktigError as error:
        return ScriptOutcome(circuit, title, (), str(error))


def _run(job: Job, circuits: Circuits, circuit: CircuitId, steps: tuple[str, ...]) -> tuple[StepResult, ...]:
    nets = find_nets(circuits)
    return run_script(circuits, nets, circuit, steps, panel_of(job, circuits, nets))


def _only(circuits: Circuits, wanted: set[CircuitId]) -> Circuits:
    """The circuits ``wanted`` and those whose devices their paths go through."""
    owner = {device.id: device.circuit for device in circuits.devices}
    while True:
        met = {owner[did] for rung in circuits.rungs if rung.circuit in wanted for did in touched(rung.path)}
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
