"""What is wired: wires with their ends, and the batches they are made in."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from enum import Enum

from riktig.core.geometry import Point
from riktig.core.ids import WireId
from riktig.core.job import CircuitId, DeviceId, PinRef
from riktig.core.standards import Why, conductor_name
from riktig.core.wiring.batch_costs import Work
from riktig.core.wiring.network_cables import NetworkCable

__all__ = [
    "ASSEMBLY",
    "JUMPER",
    "Batch",
    "Crowded",
    "Segment",
    "Wire",
    "WireEnd",
    "WireId",
    "Wiring",
    "WiringStage",
    "WorkCompared",
    "wire_key",
]


JUMPER = "jumper "
"""What the name of a plug-in jumper between terminals begins with."""
ASSEMBLY = "assembly "
"""What the name of a link module, comb or busbar begins with."""


def wire_key(a: PinRef, b: PinRef) -> WireId:
    """The same for the same two pins, whatever number the wire carries.

    Args:
        a: One end.
        b: The other end.
    """
    first, second = sorted((a, b))
    return WireId(f"{first}~{second}")


class WiringStage(Enum):
    """What a wire belongs to, in the words of the batch card; in the usual order of the work.

    ``FIELD`` is what lands on terminals of the field, where the practice leaves that until the end.
    """

    MAINS = "Main supply"
    NEUTRAL = "Neutrals"
    FEED = "Feeds of the circuits"
    LOAD = "Motors and other loads"
    CONTROL = "Control, AC"
    DC = "Control, DC"
    EXCEPTED = "Live with the main switch off"
    EARTH = "Earths"
    DOOR = "Door loom"
    FIELD = "Field terminals"


@dataclass(frozen=True, slots=True)
class WireEnd:
    """One end: the pin, its label (“K1:13”), what goes on it, and how it is fixed.

    ``shared`` is the other wire in the same twin ferrule, if there is one. ``torque_n_m`` is 0 where it is not known.
    """

    pin: PinRef
    label: str
    fitting: str
    strip: float
    torque_n_m: float
    shared: WireId | None = None


@dataclass(frozen=True, slots=True)
class Wire:
    """One conductor inside the panel. ``length`` is its own, ``cut`` what it is cut to, mm.

    ``detour`` is how much longer its way is than the shortest, mm: there a duct would be too full, or a signal would
    lie beside the pulses of a drive.
    """

    key: WireId
    net: PinRef
    number: str
    start: WireEnd
    end: WireEnd
    mm2: float
    colour: str
    length: float
    cut: float
    stage: WiringStage
    circuit: CircuitId
    ducts: tuple[str, ...]
    route: tuple[Point, ...]
    via_door: bool
    why: Why
    detour: float = 0.0

    @property
    def name(self) -> str:
        """Number and ends: “9 S1:2 to K1:13”."""
        return f"{self.number} {self.start.label} to {self.end.label}"

    def cut_to(self, length: float) -> "Wire":
        """The same wire cut to a length."""
        return replace(self, cut=length)


@dataclass(frozen=True, slots=True)
class Batch:
    """Wires made together: alike in stage, section and colour, between the same two areas.

    ``areas`` are those: a rail such as “R2”, a leaf of the door such as “door”. ``cut`` is the longest of them,
    ``total`` all that is cut and ``waste`` what is trimmed of it, mm. ``minutes`` is what it takes beside stripping and
    landing, ``cost`` that and the waste.
    """

    number: int
    stage: WiringStage
    mm2: float
    colour: str
    wires: tuple[WireId, ...]
    cut: float
    total: float
    waste: float
    places: str
    areas: tuple[str, str]
    minutes: float
    cost: float

    @property
    def name(self) -> str:
        """“Control, plate, 1 mm² red”."""
        return f"{self.stage.value}, {conductor_name(self.mm2)} {self.colour}"


@dataclass(frozen=True, slots=True)
class WorkCompared:
    """The work of cutting all wires: as planned, in the same batches to exact lengths, and one wire at a time."""

    planned: Work
    exact: Work
    one_at_a_time: Work


@dataclass(frozen=True, slots=True)
class Crowded:
    """A clamp that would hold more than it may, or conductors that do not go together."""

    pin: PinRef
    label: str
    text: str


@dataclass(frozen=True, slots=True)
class Segment:
    """A piece of a duct with one fill: from and to, mm from the plate's datum, and the share of its section."""

    begin: float
    end: float
    share: float


@dataclass(frozen=True, slots=True)
class Wiring:
    """All wires in the order they go in, their batches, the fill along every duct by its name, and trouble.

    ``joined`` names the comb, busbar, link or rail that joins a pin to others without a wire: the same text for all of
    one potential.
    ``by_key`` are the wires by their keys, ``on_device`` those that land on each device.
    """

    wires: tuple[Wire, ...]
    batches: tuple[Batch, ...]
    segments: dict[str, tuple[Segment, ...]]
    crowded: tuple[Crowded, ...]
    unrouted: tuple[PinRef, ...]
    joined: Mapping[PinRef, str]
    strays: tuple[PinRef, ...] = ()
    """Clamps that an order of the builder names and that are not on its potential any more."""
    network: tuple[NetworkCable, ...] = ()
    """The cables of a network, those inside the panel first."""
    off_jumpers: tuple[PinRef, ...] = ()
    """Terminals that a jumper of the builder's names and does not join: elsewhere, or on another potential, now."""
    by_key: Mapping[WireId, Wire] = field(init=False, repr=False, compare=False)
    on_device: Mapping[DeviceId, tuple[Wire, ...]] = field(init=False, repr=False, compare=False)

    def __post_init__(self) -> None:
        landed: dict[DeviceId, list[Wire]] = {}
        for wire in self.wires:
            for device in dict.fromkeys((wire.start.pin.device, wire.end.pin.device)):
                landed.setdefault(device, []).append(wire)
        object.__setattr__(self, "by_key", {wire.key: wire for wire in self.wires})
        object.__setattr__(self, "on_device", {device_id: tuple(wires) for device_id, wires in landed.items()})

    @property
    def fill(self) -> dict[str, float]:
        """The share of its section that wires take at the fullest place of every duct."""
        return {name: max((s.share for s in parts), default=0.0) for name, parts in self.segments.items()}

    def joined_with(self, pin: PinRef) -> tuple[PinRef, ...]:
        """All pins that the comb, busbar, link or rail of a pin joins, itself among them; only itself without one."""
        if pin not in self.joined:
            return (pin,)
        return tuple(other for other, name in self.joined.items() if name == self.joined[pin])

    @property
    def jumpers(self) -> tuple[tuple[PinRef, ...], ...]:
        """The terminals that each plug-in jumper joins, in the order of their strip."""
        return self._joined_by(JUMPER)

    @property
    def links(self) -> tuple[tuple[PinRef, ...], ...]:
        """The clamps that each link module, comb or busbar joins, potential by potential."""
        return tuple(pins for pins in self._joined_by(ASSEMBLY) if len(pins) > 1)

    def _joined_by(self, what: str) -> tuple[tuple[PinRef, ...], ...]:
        groups: dict[str, list[PinRef]] = {}
        for pin, name in self.joined.items():
            if name.startswith(what):
                groups.setdefault(name, []).append(pin)
        return tuple(tuple(pins) for pins in groups.values())

    def wire(self, key: WireId) -> Wire | None:
        """The wire with that key; None where there is none."""
        return self.by_key.get(key)
