"""What a load does when its selector is turned from hand to automatic and back, at every level of its tank."""

from dataclasses import dataclass

from riktig.core.catalogue import Behaviour, Can
from riktig.core.evaluation import KeyedCache, Memory
from riktig.core.ids import device_id
from riktig.core.job import Circuit, CircuitId, CircuitInputs, DeviceId
from riktig.core.schematic import MOTOR, Circuits, Device, Zone, all_circuits, find_nets
from riktig.core.simulation.behaviour import on_its_own
from riktig.core.simulation.panel import control_volts
from riktig.core.simulation.run import Panel
from riktig.core.simulation.tank import set_level, tanks_of

__all__ = ["Transfer", "transfers_of"]

WAYS = (("hand", "off", "auto"), ("hand", "auto"), ("auto", "off", "hand"), ("auto", "hand"))
"""From where to where; without the middle the selector is turned past it at once."""


@dataclass(frozen=True, slots=True)
class Transfer:
    """A selector turned one way in one state of the field, and whether the load ran before and after."""

    circuit: CircuitId
    motor: DeviceId
    selector: DeviceId
    way: tuple[str, ...]
    field: str
    ran: bool
    runs: bool


def transfers_of(inputs: CircuitInputs, circuits: Circuits, memory: Memory | None = None) -> tuple[Transfer, ...]:
    """Every load with a selector for hand, off and automatic, turned every way in every state of its field.

    Args:
        inputs: What the circuits follow from.
        circuits: All devices and rungs of the job.
        memory: What was tried before; without it the same, only slower.
    """
    cache: KeyedCache[tuple[Transfer, ...]] = (memory or Memory()).memo(tuple, "transfers of a circuit")
    whole = all_circuits(inputs)
    volts = control_volts(inputs.loads, inputs.supply, inputs.practice)
    transfers: list[Transfer] = []
    for circuit in whole:
        selector = _selector(circuits, circuit.id)
        if selector is None or device_id(circuit.id, MOTOR) not in circuits.by_id:
            continue
        small = on_its_own(circuits, whole, circuit)

        def of_circuit(
            small: Circuits = small, circuit: Circuit = circuit, selector: DeviceId = selector
        ) -> tuple[Transfer, ...]:
            return tuple(
                _turned(Panel(small, find_nets(small), inputs.supply, volts), circuit.id, selector, way, field)
                for field in _fields(small, circuit.id)
                for way in WAYS
            )

        transfers += cache.get(circuit.id, (small.devices, small.rungs, inputs.supply, volts), of_circuit)
    return tuple(transfers)


def _selector(circuits: Circuits, circuit: CircuitId) -> DeviceId | None:
    mine = (d for d in circuits.devices if d.circuit == circuit and d.kind.can(Can.HAND_OFF_AUTO))
    return next((device.id for device in mine), None)


def _fields(circuits: Circuits, circuit: CircuitId) -> tuple[str, ...]:
    """The states of the field that are tried: levels of a tank, or contacts at rest and moved."""
    if any(tank.circuit == circuit for tank in tanks_of(circuits)):
        return ("level below the floats", "level between the floats", "level above the floats")
    return ("contacts in the field at rest", "contacts in the field moved")


def _turned(panel: Panel, circuit: CircuitId, selector: DeviceId, way: tuple[str, ...], field: str) -> Transfer:
    motor = device_id(circuit, MOTOR)
    _set_field(panel, circuit, field, first=way[0] == "auto")
    panel.operator_state.position[selector] = way[0]
    panel.run_until_stable()
    if way[0] == "auto":
        _set_field(panel, circuit, field, first=False)
    ran = panel.turns(motor) != "off"
    for position in way[1:]:
        panel.operator_state.position[selector] = position
        panel.run_until_stable()
    return Transfer(circuit, motor, selector, way, field, ran, panel.turns(motor) != "off")


def _set_field(panel: Panel, circuit: CircuitId, field: str, *, first: bool) -> None:
    """Brings the tank to its level; ``first`` begins where the pump starts, so that it ran before."""
    tank = next((tank for tank in tanks_of(panel.circuits) if tank.circuit == circuit), None)
    if tank is not None:
        heights = sorted(height for role, _, height in tank.floats if role != "alarm")
        levels = {"below": heights[0] / 2, "between": sum(heights) / len(heights), "above": heights[-1] + 0.01}
        starts = levels["below" if tank.fills else "above"]
        set_level(panel, tank, starts if first else levels[field.split()[1]])
        return
    moved = {d.id for d in panel.circuits.devices if d.circuit == circuit and _is_field_contact(d)}
    pressed = panel.operator_state.pressed
    (pressed.update if field.endswith("moved") else pressed.difference_update)(moved)
    panel.run_until_stable()


def _is_field_contact(device: Device) -> bool:
    contacts = any(unit.behaviour in (Behaviour.NO, Behaviour.NC) for unit in device.kind.units)
    return contacts and device.zone is Zone.FIELD and not device.kind.can(Can.STATION)
