"""Whether the controller learns what its field devices do: each one moved, and what is fed otherwise then."""

from collections.abc import Iterable
from dataclasses import dataclass

from riktig.core.catalogue import Behaviour
from riktig.core.evaluation import KeyedCache, Memory
from riktig.core.job import Circuit, CircuitId, CircuitInputs, DeviceId, Recipe
from riktig.core.schematic import Circuits, Device, Zone, all_circuits, find_nets
from riktig.core.simulation.behaviour import on_its_own
from riktig.core.simulation.panel import control_volts
from riktig.core.simulation.run import Panel

__all__ = ["InputFollows", "inputs_follow"]


@dataclass(frozen=True, slots=True)
class InputFollows:
    """A device in the field that was moved, and whether anything of its circuit noticed."""

    circuit: CircuitId
    device: DeviceId
    noticed: bool


def inputs_follow(inputs: CircuitInputs, circuits: Circuits, memory: Memory | None = None) -> tuple[InputFollows, ...]:
    """Every contact in the field of a controller's circuit, moved from rest.

    Args:
        inputs: What the circuits follow from.
        circuits: All devices and rungs of the job.
        memory: What was tried before; without it the same, only slower.
    """
    cache: KeyedCache[tuple[InputFollows, ...]] = (memory or Memory()).memo(tuple, "inputs of a controller")
    whole = all_circuits(inputs)
    volts = control_volts(inputs.loads, inputs.supply, inputs.practice)
    tried: list[InputFollows] = []
    for circuit in whole:
        if circuit.recipe is not Recipe.CONTROLLER:
            continue
        small = on_its_own(circuits, whole, circuit)

        def of_circuit(small: Circuits = small, circuit: Circuit = circuit) -> tuple[InputFollows, ...]:
            panel = Panel(small, find_nets(small), inputs.supply, volts)
            return tuple(_moved(panel, circuit.id, device.id) for device in _contacts(small.devices, circuit.id))

        tried += cache.get(circuit.id, (small.devices, small.rungs, inputs.supply, volts), of_circuit)
    return tuple(tried)


def _contacts(devices: Iterable[Device], circuit: CircuitId) -> list[Device]:
    """The devices in the field of a circuit that tell something by a contact."""
    return [
        device
        for device in devices
        if device.circuit == circuit
        and device.zone is Zone.FIELD
        and any(unit.behaviour in (Behaviour.NO, Behaviour.NC) for unit in device.kind.units)
    ]


def _moved(panel: Panel, circuit: CircuitId, device: DeviceId) -> InputFollows:
    before = panel.fed_units
    panel.operator_state.pressed.add(device)
    panel.run_until_stable()
    noticed = panel.fed_units != before
    panel.operator_state.pressed.discard(device)
    panel.run_until_stable()
    return InputFollows(circuit, device, noticed)
