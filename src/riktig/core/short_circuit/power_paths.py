"""The power circuits from the incoming supply on: every part of them with the guards ahead of it."""

from collections import deque
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

from riktig.core.catalogue import Behaviour, Can, Part, ShortCircuitFigures, Unit, short_circuit_figures
from riktig.core.ids import DeviceId, PinRef
from riktig.core.job import Supply
from riktig.core.schematic import Circuits, Device, Nets, Zone

__all__ = ["PowerPart", "PowerPaths", "power_paths"]

_LINES = ("L1", "L2", "L3")


@dataclass(frozen=True, slots=True)
class PowerPart:
    """A part of a power circuit: the guards ahead of it from the supply on, and whether it is one itself.

    ``feeds_guards`` says of a guard that others stand behind it.
    """

    device: Device
    part: Part
    figures: ShortCircuitFigures
    ahead: tuple[DeviceId, ...]
    is_guard: bool
    feeds_guards: bool = False

    @property
    def id(self) -> DeviceId:
        """Its device."""
        return self.device.id

    def volts(self, supply: Supply) -> float:
        """The voltage that it breaks: of one pole that between line and neutral, where there is one."""
        poles = sum(unit.behaviour is Behaviour.POLE for unit in self.device.kind.units)
        return supply.voltage_to_neutral_v if poles == 1 and supply.neutral else supply.voltage_v

    @property
    def is_transformer(self) -> bool:
        """Whether it parts what is behind it from the supply."""
        return self.device.kind.can(Can.TRANSFORMS)


@dataclass(frozen=True)
class PowerPaths:
    """All parts of the power circuits in the order in which the current reaches them; what is behind transformers."""

    parts: tuple[PowerPart, ...]
    behind_transformers: Mapping[DeviceId, tuple[PowerPart, ...]]
    of_net: Mapping[PinRef, tuple[DeviceId, ...]]
    """The guards ahead of every net of the power circuits, by the id of the net."""

    def part(self, device: DeviceId) -> PowerPart:
        """The part of a device.

        Raises:
            KeyError: it is in no power circuit.
        """
        return self._by_id[device]

    @cached_property
    def _by_id(self) -> dict[DeviceId, PowerPart]:
        behind = (part for some in self.behind_transformers.values() for part in some)
        return {part.id: part for part in (*behind, *self.parts)}

    def behind(self, guard: DeviceId) -> tuple[PowerPart, ...]:
        """Every part that has a guard ahead of it."""
        return tuple(part for part in self.parts if guard in part.ahead)


def power_paths(
    circuits: Circuits,
    nets: Nets,
    parts: Mapping[DeviceId, Part],
    figures: Mapping[str, ShortCircuitFigures],
    *,
    north_american: bool,
) -> PowerPaths:
    """The parts of all power circuits.

    Args:
        circuits: All devices and rungs of the job.
        nets: All nets of these circuits.
        parts: What is bought for every device.
        figures: The figures of the builder's own parts by their reference.
        north_american: Which market's figures count.

    Method:
        From the lines of the supply, net by net, through poles, main contacts, heaters and terminals. Auxiliary
        contacts lead into control circuits and are not followed; of those only the guard that taps them counts. A drive
        ends the way: it limits what flows behind it. A transformer ends it too; what is behind is looked at apart.
        Supplies of direct current and monitors are loads of control circuits: of them too the guard alone counts.
    """
    walk = _Walk(circuits, nets)
    lines = [d.pin(name) for d in circuits.devices if d.kind.can(Can.SUPPLY) for name in _LINES]
    order, of_net = walk.from_pins(lines)

    def made(device: Device, ahead: tuple[DeviceId, ...]) -> PowerPart | None:
        part = parts.get(device.id)
        if part is None or device.zone is Zone.FIELD:
            return None
        part_figures = figures.get(part.ref) or short_circuit_figures(part, north_american=north_american)
        return PowerPart(device, part, part_figures, ahead, device.kind.is_protective)

    carrying = [power for device, ahead in order.items() if (power := made(circuits.by_id[device], ahead))]
    feeding = {guard for power in carrying if power.is_guard for guard in power.ahead}
    whole = tuple(_with_role(power, feeds=power.id in feeding) for power in carrying)
    behind: dict[DeviceId, tuple[PowerPart, ...]] = {}
    for power in whole:
        if power.is_transformer:
            part_figures = walk.from_pins([power.device.pin("5")], stop=power.id)[0]
            reached = [
                part for d, ahead in part_figures.items() if (part := made(circuits.by_id[d], (*power.ahead, *ahead)))
            ]
            behind[power.id] = tuple(part for part in reached if part.id not in order)
    return PowerPaths(whole, behind, of_net)


def _with_role(power: PowerPart, *, feeds: bool) -> PowerPart:
    return PowerPart(power.device, power.part, power.figures, power.ahead, power.is_guard, power.is_guard and feeds)


class _Walk:
    """Ways through the power circuits."""

    def __init__(self, circuits: Circuits, nets: Nets) -> None:
        self._circuits, self._nets = circuits, nets

    def from_pins(
        self, starts: list[PinRef], stop: DeviceId | None = None
    ) -> tuple[dict[DeviceId, tuple[DeviceId, ...]], dict[PinRef, tuple[DeviceId, ...]]]:
        """Every device that is reached with the guards passed on the shortest way to it, and those of every net."""
        reached: dict[PinRef, tuple[DeviceId, ...]] = {}
        devices: dict[DeviceId, tuple[DeviceId, ...]] = {}
        waiting: deque[tuple[PinRef, tuple[DeviceId, ...]]] = deque()
        for pin in starts:
            net = self._nets.of_pin.get(pin)
            if net is not None and net.id not in reached:
                reached[net.id] = ()
                waiting.append((net.id, ()))
        while waiting:
            net_id, ahead = waiting.popleft()
            for pin in self._nets.of_pin[net_id].pins:
                device = self._circuits.by_id[pin.device]
                if device.id == stop or not self._is_power(device, pin):
                    continue
                if device.zone is not Zone.FIELD:
                    devices.setdefault(device.id, ahead)
                behind = (*ahead, device.id) if device.kind.is_protective else ahead
                for other in self._through(device, pin):
                    if other not in reached:
                        reached[other] = behind
                        waiting.append((other, behind))
        return devices, reached

    def _is_power(self, device: Device, pin: PinRef) -> bool:
        """Whether a pin of a device takes part in a power circuit: no coil, no lamp, no auxiliary contact."""
        kind = device.kind
        if kind.can(Can.TRANSFORMS) or kind.can(Can.SURGE) or kind.can(Can.VARIES_SPEED):
            return True
        return any(pin.marking in unit.pins and _leads(device, unit) for unit in kind.units)

    def _through(self, device: Device, pin: PinRef) -> list[PinRef]:
        """The nets on the other sides of what leads on."""
        others = [
            device.pin(other)
            for unit in device.kind.units
            if pin.marking in unit.pins and _leads(device, unit)
            for other in unit.pins
            if other != pin.marking
        ]
        return [net.id for other in others if (net := self._nets.of_pin.get(other)) is not None]


def _leads(device: Device, unit: Unit) -> bool:
    """Whether a unit leads power on."""
    if unit.symbol == "link":
        return False
    if unit.behaviour in (Behaviour.POLE, Behaviour.HEATER, Behaviour.JOINT):
        return True
    main = unit.behaviour is Behaviour.NO and unit.symbol == "contactor"
    electronic = device.kind.can(Can.STARTS_SOFTLY) and unit.name in ("1-2", "3-4", "5-6")
    return main or electronic
