"""What happens when two buttons that call opposite contactors are pressed at the same instant."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from itertools import combinations

from riktig.core.catalogue import Behaviour, Can
from riktig.core.evaluation import KeyedCache, Memory
from riktig.core.ids import device_id
from riktig.core.job import Circuit, CircuitId, CircuitInputs, DeviceId
from riktig.core.schematic import Circuits, Device, all_circuits, find_nets
from riktig.core.simulation.behaviour import on_its_own
from riktig.core.simulation.interlock_check import PAIRS
from riktig.core.simulation.panel import control_volts
from riktig.core.simulation.run import Panel

__all__ = ["PressedTogether", "pressed_together"]


@dataclass(frozen=True, slots=True)
class PressedTogether:
    """Two buttons pressed at once from rest, and what their contactors did.

    ``both_in``: both were in together; ``race``: each opens the other's path, and chance decides.
    """

    circuit: CircuitId
    buttons: tuple[DeviceId, DeviceId]
    contactors: tuple[DeviceId, DeviceId]
    both_in: bool
    race: bool
    locked: bool
    """A mechanical interlock stands between the two."""


def pressed_together(
    inputs: CircuitInputs, circuits: Circuits, memory: Memory | None = None
) -> tuple[PressedTogether, ...]:
    """Every two buttons of a circuit that has opposite contactors, pressed at the same instant from rest.

    Args:
        inputs: What the circuits follow from.
        circuits: All devices and rungs of the job.
        memory: What was tried before; without it the same, only slower.
    """
    cache: KeyedCache[tuple[PressedTogether, ...]] = (memory or Memory()).memo(tuple, "pressed together")
    whole = all_circuits(inputs)
    volts = control_volts(inputs.loads, inputs.supply, inputs.practice)
    tried: list[PressedTogether] = []
    for circuit in whole:
        pair = _opposites(circuit.id, circuits.by_id)
        if pair is None:
            continue
        small = on_its_own(circuits, whole, circuit)

        def of_circuit(
            small: Circuits = small, circuit: Circuit = circuit, pair: tuple[DeviceId, DeviceId] = pair
        ) -> tuple[PressedTogether, ...]:
            return tuple(
                _press(Panel(small, find_nets(small), inputs.supply, volts), circuit.id, buttons, pair)
                for buttons in combinations(_buttons(small.devices, circuit.id), 2)
            )

        tried += cache.get(circuit.id, (small.devices, small.rungs, inputs.supply, volts), of_circuit)
    return tuple(tried)


def _opposites(circuit: CircuitId, devices: Mapping[DeviceId, Device]) -> tuple[DeviceId, DeviceId] | None:
    """The contactors of a circuit that one button each calls: forward and reverse."""
    first, second = (device_id(circuit, role) for role in PAIRS[0])
    return (first, second) if first in devices and second in devices else None


def _buttons(devices: Iterable[Device], circuit: CircuitId) -> list[DeviceId]:
    """The push-buttons of a circuit that close a contact."""
    return [
        device.id
        for device in devices
        if device.circuit == circuit
        and any(unit.symbol == "push" and unit.behaviour is Behaviour.NO for unit in device.kind.units)
    ]


def _press(
    panel: Panel, circuit: CircuitId, buttons: tuple[DeviceId, DeviceId], pair: tuple[DeviceId, DeviceId]
) -> PressedTogether:
    for button in buttons:
        units = panel.network.devices[button].kind.units
        if panel.network.devices[button].kind.can(Can.STATION):
            panel.operator_state.pressed_units |= {(button, u.name) for u in units if u.behaviour is Behaviour.NO}
        else:
            panel.operator_state.pressed.add(button)
    panel.run_until_stable()
    both_in = any(event.wrong and event.text.startswith("Both in") for event in panel.events)
    race = set(pair) <= set(panel.restless)
    circuit_devices = [device for device in panel.circuits.devices if device.circuit == circuit]
    locked = any(device.kind.can(Can.LOCKS_OPPOSITES) for device in circuit_devices)
    return PressedTogether(circuit, buttons, pair, both_in, race, locked)
