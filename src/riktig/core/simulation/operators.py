"""What of a panel can be moved by hand, by level, by heat or by a program, and to which positions."""

from dataclasses import dataclass
from enum import Enum

from riktig.core.catalogue import Behaviour, Can
from riktig.core.errors import RiktigError
from riktig.core.job import CircuitId, DeviceId
from riktig.core.schematic import Circuits, Device, Zone, io_address
from riktig.core.simulation.phase_rotation import LINES
from riktig.core.simulation.run import Panel

__all__ = ["Operator", "Touch", "operate", "operators_of", "position_of"]


class Touch(Enum):
    """How a thing is moved."""

    LINE = "line of the supply"
    SWITCH = "switched by its handle"
    GUARD = "trips and is reset"
    HOLD = "held down"
    TURN = "turned"
    MOVE = "moved and stays: by level, heat, a door, a carriage, a struck mushroom"
    OUTPUT = "switched by the program"
    SOURCE = "another supply"
    SIGNAL = "given by the program, in percent"


@dataclass(frozen=True, slots=True)
class Operator:
    """One thing to operate: its device (none for a line), the unit where one device has several, its positions.

    The first position is that at rest.
    """

    touch: Touch
    device: DeviceId | None
    unit: str
    circuit: CircuitId | None
    positions: tuple[str, ...]
    said: str
    """What it is, for where its tag does not say it."""

    @property
    def key(self) -> str:
        """Stable, for what stands on the screen."""
        return f"{self.device or ''}/{self.unit}"


def operators_of(circuits: Circuits) -> tuple[Operator, ...]:
    """Everything that can be operated, the supply first, then in the order of the devices."""
    operators = [Operator(Touch.LINE, None, line, None, ("there", "lost"), "of the incoming supply") for line in LINES]
    for device in circuits.devices:
        operators += _operators_of(device)
    return tuple(operators)


def _operators_of(device: Device) -> list[Operator]:
    kind = device.kind

    def operator_of(touch: Touch, *positions: str, unit: str = "", said: str = "") -> Operator:
        return Operator(touch, device.id, unit, device.circuit, positions, said or device.purpose)

    if kind.positions:
        return [operator_of(Touch.TURN if kind.can(Can.TURNED) else Touch.MOVE, *kind.positions)]
    if kind.can(Can.STATION):
        return [
            operator_of(Touch.HOLD, "free", "held", unit="1-2", said=f"{device.purpose}, stop"),
            operator_of(Touch.HOLD, "free", "held", unit="3-4", said=f"{device.purpose}, start"),
        ]
    if kind.can(Can.GIVES_OUTPUTS):
        used = [unit for unit in kind.units if io_address(device, unit.name)]
        return [
            operator_of(Touch.OUTPUT, "off", "on", unit=unit.name, said=io_address(device, unit.name) or unit.name)
            for unit in used
        ]
    if kind.can(Can.GIVES_LEVELS):
        return [operator_of(Touch.SIGNAL, "0", unit=channel, said=f"speed, output {channel}") for channel in ("0", "1")]
    if kind.can(Can.FOREIGN_SUPPLY):
        return [operator_of(Touch.SOURCE, "off", "on")]
    if kind.can(Can.OVERLOAD) or kind.can(Can.ELECTRONIC_STARTER):
        return [operator_of(Touch.GUARD, "set", "tripped")]
    symbols = {unit.symbol for unit in kind.units}
    if "push" in symbols:
        return [operator_of(Touch.HOLD, "free", "held")]
    if any(unit.behaviour is Behaviour.POLE for unit in kind.units) and "link" not in symbols:
        return [operator_of(Touch.SWITCH, "on", "off", *(("tripped",) if kind.is_protective else ()))]
    if kind.has_coil and device.zone is not Zone.FIELD:
        return [
            operator_of(Touch.HOLD, "free", "pushed in", unit="armature", said=f"{device.purpose}, armature by hand")
        ]
    return []


def position_of(panel: Panel, operator: Operator) -> str:
    """Where a thing stands.

    Args:
        panel: The panel with power on.
        operator: What is operated.
    """
    operator_state, device_id = panel.operator_state, operator.device
    rest, *others = operator.positions
    if device_id is None:
        return "lost" if operator.unit in operator_state.lost else "there"
    match operator.touch:
        case Touch.SWITCH:
            return (
                "tripped"
                if device_id in operator_state.tripped
                else "off"
                if device_id in operator_state.opened
                else "on"
            )
        case Touch.GUARD:
            return "tripped" if device_id in operator_state.tripped else "set"
        case Touch.TURN:
            return operator_state.position.get(device_id, "off")
        case Touch.OUTPUT:
            return "on" if (device_id, operator.unit) in operator_state.outputs else "off"
        case Touch.SOURCE:
            return "on" if device_id in operator_state.foreign else "off"
        case Touch.SIGNAL:
            return f"{100 * operator_state.reference.get(f'{device_id}:{operator.unit}', 0.0):.0f}"
    if operator.unit == "armature":
        moved = device_id in operator_state.pushed
    elif operator.unit:
        moved = (device_id, operator.unit) in operator_state.pressed_units
    else:
        moved = device_id in (
            operator_state.tripped if panel.network.devices[device_id].kind.can(Can.SURGE) else operator_state.pressed
        )
    return others[0] if moved else rest


def operate(panel: Panel, operator: Operator, position: str) -> None:
    """Moves a thing and lets everything follow.

    Args:
        panel: The panel with power on.
        operator: What is operated.
        position: The position it is put into.

    Raises:
        RiktigError: it has no such position.
    """
    if operator.touch is not Touch.SIGNAL and position not in operator.positions:
        raise RiktigError(f"It cannot be “{position}”.", hint=f"It can be {', '.join(operator.positions)}.")
    operator_state, device_id = panel.operator_state, operator.device
    if device_id is None:
        (operator_state.lost.add if position == "lost" else operator_state.lost.discard)(operator.unit)
    elif operator.touch is Touch.SWITCH:
        (operator_state.opened.add if position == "off" else operator_state.opened.discard)(device_id)
        (operator_state.tripped.add if position == "tripped" else operator_state.tripped.discard)(device_id)
    elif operator.touch is Touch.TURN:
        operator_state.position[device_id] = position
    elif operator.touch is Touch.OUTPUT:
        key = (device_id, operator.unit)
        (operator_state.outputs.add if position == "on" else operator_state.outputs.discard)(key)
    elif operator.touch is Touch.SIGNAL:
        operator_state.reference[f"{device_id}:{operator.unit}"] = min(max(float(position), 0.0), 100.0) / 100
    elif operator.unit and operator.unit != "armature":
        unit = (device_id, operator.unit)
        (
            operator_state.pressed_units.add
            if position != operator.positions[0]
            else operator_state.pressed_units.discard
        )(unit)
    else:
        kind = panel.network.devices[device_id].kind
        place = (
            operator_state.pushed
            if operator.unit == "armature"
            else operator_state.foreign
            if operator.touch is Touch.SOURCE
            else operator_state.tripped
            if operator.touch is Touch.GUARD or kind.can(Can.SURGE)
            else operator_state.pressed
        )
        (place.add if position != operator.positions[0] else place.discard)(device_id)
    panel.run_until_stable()
