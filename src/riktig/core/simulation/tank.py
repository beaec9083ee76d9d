"""A tank with floats, and a carriage between its end switches: what is dragged, and which contacts it moves."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from itertools import combinations

from riktig.core.catalogue import Behaviour, Can
from riktig.core.ids import device_id
from riktig.core.job import CircuitId, DeviceId
from riktig.core.schematic import MAIN_CONTACTOR, MOTOR, REVERSE, Branch, Circuits, Device, Element, Parallel, Series
from riktig.core.simulation.run import Panel

__all__ = ["Carriage", "Tank", "carriages_of", "set_level", "set_travel", "tanks_of"]

_EMPTYING = {"stop": 0.25, "start": 0.6, "alarm": 0.9}
_FILLING = {"start": 0.25, "stop": 0.6, "alarm": 0.9}
"""Where floats hang at first, as a share of the tank (chosen by us), from the bottom up."""
_FAULTS = {
    ("stop", "start"): "The start float must hang above the stop float, or the pump starts and stops at once.",
    ("start", "stop"): "The stop float must hang above the start float, or the pump that fills never rests.",
    ("start", "alarm"): "The alarm float must hang above the start float, or every filling is an alarm.",
    ("stop", "alarm"): "The alarm float must hang above the stop float.",
}
"""What is wrong when the first of two does not hang below the second."""


@dataclass(frozen=True, slots=True)
class Tank:
    """The floats of a circuit: their roles (“stop”, “start”, “alarm”), ids and heights as shares of the tank."""

    circuit: CircuitId
    floats: tuple[tuple[str, DeviceId, float], ...]
    level: float = 0.1
    fills: bool = False
    """Whether the pump fills it: it starts low and stops high."""

    def moved(self, role: str, height: float) -> "Tank":
        """The tank with one float hung elsewhere."""
        floats = tuple((r, d, min(max(height, 0.02), 0.98) if r == role else h) for r, d, h in self.floats)
        return replace(self, floats=floats)

    @property
    def order(self) -> tuple[str, ...]:
        """Its floats from the bottom up, as they must hang."""
        roles = [role for role, _, _ in self.floats]
        return tuple(role for role in (_FILLING if self.fills else _EMPTYING) if role in roles)

    def faults(self) -> tuple[str, ...]:
        """What is wrong with the heights: each float hangs above the one before it."""
        at = {role: height for role, _, height in self.floats}
        return tuple(_FAULTS[low, high] for low, high in combinations(self.order, 2) if at[high] <= at[low])


@dataclass(frozen=True, slots=True)
class Carriage:
    """The end switches of what a motor moves both ways: that ahead, that behind, and where it stands (0 to 1)."""

    circuit: CircuitId
    motor: DeviceId
    ahead: DeviceId
    behind: DeviceId
    at: float = 0.5


def tanks_of(circuits: Circuits, heights: Mapping[CircuitId, Mapping[str, float]] | None = None) -> tuple[Tank, ...]:
    """A tank for every circuit that has floats.

    Args:
        circuits: All devices and rungs of the job.
        heights: By circuit, where floats hang above the bottom, m; one at 0 hangs where ours do at first.
    """
    floats: dict[CircuitId, list[Device]] = {}
    for device in circuits.devices:
        if device.kind.can(Can.FLOAT):
            floats.setdefault(device.circuit, []).append(device)
    return tuple(_tank(circuit, members, (heights or {}).get(circuit, {})) for circuit, members in floats.items())


def _tank(circuit: CircuitId, floats: Iterable[Device], heights: Mapping[str, float]) -> Tank:
    by_role = {device.role.rpartition(".")[2]: device for device in floats}
    fills = any(
        unit.behaviour is Behaviour.NC for role, d in by_role.items() if role != "alarm" for unit in d.kind.units
    )
    usual = _FILLING if fills else _EMPTYING
    full = max(heights.values(), default=0.0) / max(usual.values())
    at = {role: heights.get(role, 0.0) / full if full else 0.0 for role in by_role}
    hung = tuple((role, device.id, at[role] or usual.get(role, 0.5)) for role, device in by_role.items())
    return Tank(circuit, hung, fills=fills)


def set_level(panel: Panel, tank: Tank, level: float) -> Tank:
    """The tank filled so far; its floats have moved and the panel has followed.

    Args:
        panel: The panel with power on.
        tank: The tank.
        level: How full, from 0 to 1.
    """
    filled = replace(tank, level=min(max(level, 0.0), 1.0))
    for _, float_id, height in filled.floats:
        (panel.operator_state.pressed.add if filled.level >= height else panel.operator_state.pressed.discard)(float_id)
    panel.run_until_stable()
    return filled


def carriages_of(circuits: Circuits) -> tuple[Carriage, ...]:
    """A carriage for every motor with two end switches; that in the way of the forward contactor lies ahead."""
    carriages = []
    ends: dict[CircuitId, list[DeviceId]] = {}
    for device in circuits.devices:
        if device.kind.can(Can.END_SWITCH):
            ends.setdefault(device.circuit, []).append(device.id)
    known = circuits.by_id
    for circuit, switches in ends.items():
        motor = device_id(circuit, MOTOR)
        if len(switches) != 2 or motor not in known:
            continue
        first, last = switches
        if any(_leads_back(rung.path, first, circuit, known) for rung in circuits.rungs):
            first, last = last, first
        carriages.append(Carriage(circuit, motor, first, last))
    return tuple(carriages)


def _leads_back(branch: Branch, switch: DeviceId, circuit: CircuitId, known: Mapping[DeviceId, Device]) -> bool:
    """Whether a switch lies in the path of the contactor that reverses: beside its coil, or the other's opener."""
    if not isinstance(branch, Series | Parallel):
        return False
    if isinstance(branch, Series):
        parts = [element.poles[0] for element in branch.parts if isinstance(element, Element)]
        if switch in {pole.device for pole in parts}:
            for pole in parts:
                behaviour = known[pole.device].kind.unit(pole.unit).behaviour
                if pole.device == device_id(circuit, REVERSE) and behaviour is Behaviour.COIL:
                    return True
                if pole.device == device_id(circuit, MAIN_CONTACTOR) and behaviour is Behaviour.NC:
                    return True
    return any(_leads_back(part, switch, circuit, known) for part in branch.parts)


def set_travel(panel: Panel, carriage: Carriage, at: float) -> Carriage:
    """The carriage moved; an end switch it reaches is pressed, and the panel has followed.

    Args:
        panel: The panel with power on.
        carriage: What travels.
        at: Where it stands, as a share of its travel from 0 to 1.
    """
    moved = replace(carriage, at=min(max(at, 0.0), 1.0))
    for switch_id, reached in ((moved.ahead, moved.at >= 0.999), (moved.behind, moved.at <= 0.001)):
        (panel.operator_state.pressed.add if reached else panel.operator_state.pressed.discard)(switch_id)
    panel.run_until_stable()
    return moved
