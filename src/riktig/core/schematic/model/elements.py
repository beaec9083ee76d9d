"""What recipes yield: devices, and rungs that join them."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from enum import Enum

from riktig.core.catalogue import Kind, Unit, kind
from riktig.core.ids import role_of
from riktig.core.job import Change, CircuitId, DeviceId, ElementId, PinRef
from riktig.core.schematic.model.roles import LOADS

__all__ = [
    "Band",
    "Branch",
    "Circuits",
    "Clash",
    "Device",
    "Element",
    "Landing",
    "Parallel",
    "Pole",
    "Rung",
    "Series",
    "Zone",
    "elements_of",
    "outside_device",
    "touched",
]


class Zone(Enum):
    """Where a device stands."""

    PLATE = "plate"
    DOOR = "door"
    FIELD = "field"


@dataclass(frozen=True, slots=True)
class Device:
    """A device: its role in its circuit, its kind, and what it is for.

    ``strip`` groups the terminals of one strip; ``mark`` is the terminal's own marking.
    ``under`` is the device it is plugged under. ``legend`` is the text on the door plate. ``colour``
    is that of a lamp, empty when the kind decides; ``least_a`` what it is at least rated for, A. ``volts`` is what a
    supply from elsewhere gives, V, 0 where the Brief does not say, ``direct`` whether as direct current, and
    ``protected_a`` what protects it there, A. ``tied`` is the breaker whose handle moves that of this one too.
    ``pins`` are its pins by their markings, ``unit_pins`` its units with theirs.
    """

    id: DeviceId
    circuit: CircuitId
    kind_id: str
    zone: Zone
    purpose: str
    strip: str = ""
    mark: str = ""
    under: DeviceId | None = None
    legend: str = ""
    colour: str = ""
    least_a: float = 0.0
    volts: float = 0.0
    direct: bool = False
    protected_a: float = 0.0
    tied: DeviceId | None = None
    kind: Kind = field(init=False, repr=False, compare=False)
    pins: Mapping[str, PinRef] = field(init=False, repr=False, compare=False)
    unit_pins: tuple[tuple[Unit, tuple[PinRef, ...]], ...] = field(init=False, repr=False, compare=False)

    def __post_init__(self) -> None:
        made = kind(self.kind_id)
        pins = {pin.name: PinRef(self.id, pin.name) for pin in made.pins}
        object.__setattr__(self, "kind", made)
        object.__setattr__(self, "pins", pins)
        units = tuple((unit, tuple(pins[name] for name in unit.pins)) for unit in made.units)
        object.__setattr__(self, "unit_pins", units)

    @property
    def role(self) -> str:
        """What it is in its circuit: “K”, “S.stop”; ``roles`` names those that decide about something."""
        return role_of(self.id)

    def pin(self, name: str) -> PinRef:
        """One of its pins; one that its kind does not have lies in no net."""
        return self.pins.get(name) or PinRef(self.id, name)


@dataclass(frozen=True, slots=True)
class Pole:
    """One unit of one device, as one line of a path crosses it. ``flipped``: load side first."""

    device: DeviceId
    unit: str
    flipped: bool = False


@dataclass(frozen=True, slots=True)
class Element:
    """What a path crosses: one pole a line (three in a motor path, one in a control path).

    ``cross``: onto which line each pole leads; empty when each stays on its own.
    """

    id: ElementId
    poles: tuple[Pole, ...]
    cross: tuple[int, ...] = ()

    def leads_to(self, line: int) -> int:
        """The line on which a pole that begins on ``line`` ends."""
        return self.cross[line] if self.cross else line

    @property
    def device(self) -> DeviceId:
        """The device of its first pole."""
        return self.poles[0].device


@dataclass(frozen=True, slots=True)
class Landing:
    """Pins that a path merely touches: a motor's, a cable's. One pin a line."""

    device: DeviceId
    pins: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Series:
    """One after the other."""

    parts: "tuple[Branch, ...]"


@dataclass(frozen=True, slots=True)
class Parallel:
    """Side by side between the same two nodes."""

    parts: "tuple[Branch, ...]"


Branch = Element | Landing | Series | Parallel


class Band(Enum):
    """Which kind of sheet a rung is drawn on."""

    INCOMING = "incoming"
    POWER = "power"
    TAP = "control supply"
    CONTROL = "control"


@dataclass(frozen=True, slots=True)
class Rung:
    """A path between named nodes, one node a line; an empty tuple where it ends by itself."""

    id: str
    circuit: CircuitId
    band: Band
    title: str
    start: tuple[str, ...]
    end: tuple[str, ...]
    path: Series


@dataclass(frozen=True, slots=True)
class Clash:
    """A change that no longer finds what it was made to: kept, and said. ``change`` is None for anything else."""

    circuit: CircuitId
    text: str
    change: Change | None = None


@dataclass(frozen=True, slots=True)
class Circuits:
    """All devices and rungs of the job, in the order of its circuits.

    ``earths`` are the pins to be bonded to the earth bar, in order; ``undrawn`` the circuits that
    are sized but cannot be drawn. ``titles`` names every circuit, in order. ``by_id`` are the devices by
    their ids.
    """

    devices: tuple[Device, ...]
    rungs: tuple[Rung, ...]
    earths: tuple[PinRef, ...]
    clashes: tuple[Clash, ...] = ()
    undrawn: tuple[CircuitId, ...] = ()
    titles: tuple[tuple[CircuitId, str], ...] = ()
    by_id: Mapping[DeviceId, Device] = field(init=False, repr=False, compare=False)

    def __post_init__(self) -> None:
        object.__setattr__(self, "by_id", {device.id: device for device in self.devices})

    def device(self, device_id: DeviceId) -> Device:
        """The device with that id.

        Raises:
            KeyError: there is none.
        """
        return self.by_id[device_id]

    @property
    def tied(self) -> tuple[tuple[DeviceId, ...], ...]:
        """Breakers that one handle opens, in their order."""
        groups: dict[DeviceId, list[DeviceId]] = {}
        for device in self.devices:
            if device.tied and device.tied in self.by_id:
                groups.setdefault(device.tied, [device.tied]).append(device.id)
        return tuple(tuple(group) for group in groups.values())


def outside_device(circuits: Circuits, circuit: CircuitId) -> Device:
    """The load that a circuit serves: what it feeds in the field, or its first device.

    Args:
        circuits: All devices and rungs of the job.
        circuit: Which circuit.

    Raises:
        IndexError: the circuit has no device.
    """
    circuit_devices = [device for device in circuits.devices if device.circuit == circuit]
    return next((device for device in circuit_devices if device.role in LOADS), circuit_devices[0])


def elements_of(branch: Branch) -> Iterator[Element]:
    """The elements of a tree, from source to load, left to right."""
    match branch:
        case Element():
            yield branch
        case Series(parts) | Parallel(parts):
            for part in parts:
                yield from elements_of(part)
        case Landing():
            return


def touched(branch: Branch) -> set[DeviceId]:
    """The devices that a path crosses or touches."""
    match branch:
        case Element(poles=poles):
            return {pole.device for pole in poles}
        case Landing(device=device):
            return {device}
        case Series(parts) | Parallel(parts):
            return {device_id for part in parts for device_id in touched(part)}
