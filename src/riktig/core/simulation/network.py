"""The circuits as an electrical network: points, contacts that join them, consumers, and the poles of supplies."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from itertools import product
from math import sqrt

import numpy as np

from riktig.core.catalogue import Behaviour, Can, Part, Unit
from riktig.core.job import DeviceId, PinRef, Supply
from riktig.core.schematic import Circuits, Device, Nets
from riktig.core.simulation.conductors import Conductor, grouped
from riktig.core.simulation.figures import draw_of
from riktig.core.simulation.nodal import islands

__all__ = ["MAINS", "Consumer", "Contact", "Network", "SupplyPole", "build_network"]

MAINS = "mains"
"""The system of the incoming supply; every other has the id of the device that makes it."""
DC_V = 24.0
UNSTATED_V = 24.0
"""Of a supply from elsewhere of which the Brief does not say what it gives: what its relay is made for."""
_CONTACTS = {Behaviour.POLE, Behaviour.NO, Behaviour.NC, Behaviour.HEATER}
_CONSUMERS = {Behaviour.COIL, Behaviour.LAMP, Behaviour.LOAD, Behaviour.INPUT}


@dataclass(frozen=True, slots=True)
class Contact:
    """What leads on between two points while it is closed."""

    device: DeviceId
    unit: str
    a: int
    b: int


@dataclass(frozen=True, slots=True)
class Consumer:
    """What draws between two points: ohm at its voltage, what a meter reads of it cold, its voltage, V."""

    device: DeviceId
    unit: str
    a: int
    b: int
    ohm: float
    cold_ohm: float
    volts: float
    pick: float
    hold: float
    ends: tuple[str, str] = ("", "")
    """The markings of its pins; empty for an end inside the device."""


@dataclass(frozen=True, slots=True)
class SupplyPole:
    """One pole of a supply at a point: volts as phasor and as direct voltage, against the zero of its system."""

    system: str
    name: str
    point: int
    ac: complex
    dc: float
    pin: PinRef | None = None
    """None inside a device."""

    @property
    def is_zero(self) -> bool:
        """Whether it is what current returns to; a line that is earthed is none."""
        return self.ac == 0 and self.dc == 0 and not self.name.startswith("L")


@dataclass(frozen=True, slots=True)
class Network:
    """Points are numbered from 0; ``point`` is that of each pin, ``pins`` the pins of each point."""

    point: dict[PinRef, int]
    pins: tuple[tuple[PinRef, ...], ...]
    count: int
    contacts: tuple[Contact, ...]
    consumers: tuple[Consumer, ...]
    poles: tuple[SupplyPole, ...]
    devices: Mapping[DeviceId, Device]

    def at(self, device: DeviceId, pin: str) -> int | None:
        """The point of a pin; None where nothing is connected to it."""
        return self.point.get(PinRef(device, pin))


def build_network(
    circuits: Circuits,
    nets: Nets,
    supply: Supply,
    control_v: float,
    conductors: Sequence[Conductor],
    parts: Mapping[DeviceId, Part],
) -> Network:
    """The network of some circuits as they are wired.

    Args:
        circuits: All devices and rungs of the job.
        nets: All nets of these circuits.
        supply: The supply of the job.
        control_v: Voltage of the control transformer's secondary, V.
        conductors: What joins the pins; see ``conductors_of``.
        parts: The chosen parts: what is known of their coils and lamps counts, typical figures for the rest.
    """
    point = grouped(nets.of_pin, conductors)
    maker = _NetworkMaker(circuits, supply, control_v, point, parts)
    pins: list[list[PinRef]] = [[] for _ in range(max(point.values(), default=-1) + 1)]
    for pin, number in point.items():
        pins[number].append(pin)
    maker.make()
    inner = [()] * (maker.count - len(pins))
    return Network(
        point,
        (*map(tuple, pins), *inner),
        maker.count,
        tuple(maker.contacts),
        tuple(maker.consumers()),
        tuple(maker.poles),
        circuits.by_id,
    )


class _NetworkMaker:
    def __init__(
        self,
        circuits: Circuits,
        supply: Supply,
        control_v: float,
        point: dict[PinRef, int],
        parts: Mapping[DeviceId, Part],
    ) -> None:
        self.parts = parts
        self.circuits, self.supply, self.control_v, self.point = circuits, supply, control_v, point
        self.count = max(point.values(), default=-1) + 1
        self.contacts: list[Contact] = []
        self.poles: list[SupplyPole] = []
        self._zeros: dict[PinRef, int] = {}
        self._wanted: list[tuple[Device, Unit, str, int, int, float, tuple[str, str]]] = []

    def make(self) -> None:
        """Everything but the consumers' voltages, which need all poles."""
        for device in self.circuits.devices:
            self._supplies(device)
            self._inside(device)
            for unit in device.kind.units:
                if unit.behaviour in _CONTACTS:
                    a, b = self._node_of(device, unit.pins[0]), self._node_of(device, unit.pins[-1])
                    if a is not None and b is not None:
                        self.contacts.append(Contact(device.id, unit.name, a, b))
                elif unit.behaviour is Behaviour.WINDING:
                    self._winding(device, unit)
                elif unit.behaviour in _CONSUMERS and unit.name not in device.kind.own_loops:
                    self._between(device, unit, unit.name, unit.pins[0], unit.pins[-1])

    def _node_of(self, device: Device, pin: str) -> int | None:
        return self.point.get(device.pin(pin))

    def _drive_zero(self, device: Device) -> int:
        """The zero of a drive's own 24 V, brought out or not."""
        if device.pin("0") not in self._zeros:
            at = self._node_of(device, "0")
            self._zeros[device.pin("0")] = self._inner() if at is None else at
        return self._zeros[device.pin("0")]

    def _inner(self) -> int:
        self.count += 1
        return self.count - 1

    def _between(self, device: Device, unit: Unit, name: str, first: str, last: str, volts: float = 0.0) -> None:
        a, b = self._node_of(device, first), self._node_of(device, last)
        if device.kind.can(Can.VARIES_SPEED) and last == "0":
            b = self._drive_zero(device)
        if a is not None and b is not None:
            self._wanted.append((device, unit, name, a, b, volts, (first, last)))

    def _winding(self, device: Device, unit: Unit) -> None:
        """A winding of two ends, or of three that meet inside."""
        if len(unit.pins) == 2:
            self._between(device, unit, unit.name, *unit.pins, self.supply.voltage_v)
            return
        star = self._inner()
        for pin in unit.pins:
            at = self._node_of(device, pin)
            if at is not None:
                phase = self.supply.voltage_v / sqrt(3)
                self._wanted.append((device, unit, f"{unit.name}.{pin}", at, star, phase, (pin, "")))

    def _inside(self, device: Device) -> None:
        """What a device has between its pins beside its units."""
        if device.kind.can(Can.WATCHES_PHASES):
            for first, last in (("L1", "L2"), ("L2", "L3"), ("L3", "L1")):
                unit = Unit(f"{first}-{last}", (first, last), Behaviour.LOAD)
                self._between(device, unit, unit.name, first, last, self.supply.voltage_v)
        for loop in device.kind.own_loops:
            self._loop(device, loop)

    def _loop(self, device: Device, loop: str) -> None:
        """A loop that a device feeds itself and looks at whether it comes back: an input from its own 24 V."""
        unit = device.kind.unit(loop)
        out, back = (self._node_of(device, pin) for pin in unit.pins)
        if out is None or back is None:
            return
        zero, system = self._inner(), f"{device.id}:{loop}"
        self.poles += [
            SupplyPole(system, unit.pins[0], out, 0j, DC_V, device.pin(unit.pins[0])),
            SupplyPole(system, "inside", zero, 0j, 0.0),
        ]
        self._wanted.append((device, unit, loop, back, zero, DC_V, (unit.pins[1], "")))

    def _supplies(self, device: Device) -> None:
        kind, prefix = device.kind, str(device.id)
        if kind.can(Can.SUPPLY):
            for name, phasor in zip(("L1", "L2", "L3"), self.supply.phasors(), strict=False):
                self._pole(device, MAINS, name, phasor)
            self._pole(device, MAINS, "N")
            self._pole(device, MAINS, "PE")
        elif kind.can(Can.TRANSFORMS):
            self._pole(device, prefix, "5", complex(self.control_v))
            self._pole(device, prefix, "7")
        elif kind.can(Can.MAKES_DC):
            self._pole(device, prefix, "P", dc=DC_V)
            self._pole(device, prefix, "M")
        elif kind.can(Can.VARIES_SPEED):
            self._pole(device, prefix, "24", dc=DC_V)
            zero = device.pin("0") if self._node_of(device, "0") is not None else None
            self.poles.append(SupplyPole(prefix, "0", self._drive_zero(device), 0j, 0.0, zero))
        elif kind.can(Can.FOREIGN_SUPPLY):
            volts = device.volts or UNSTATED_V
            if device.direct or not device.volts:
                self._pole(device, prefix, "1", dc=volts)
            else:
                self._pole(device, prefix, "1", complex(volts))
            self._pole(device, prefix, "2")
        elif kind.can(Can.GIVES_LEVELS):
            for channel in ("0", "1"):
                self._pole(device, f"{prefix}:{channel}", f"AO{channel}", dc=10.0)
                self._pole(device, f"{prefix}:{channel}", f"C{channel}")

    def _pole(self, device: Device, system: str, pin: str, ac: complex = 0j, dc: float = 0.0) -> None:
        at = self._node_of(device, pin)
        if at is not None:
            self.poles.append(SupplyPole(system, pin, at, ac, dc, device.pin(pin)))

    def consumers(self) -> Iterable[Consumer]:
        """Each with the voltage it is made for: what the supplies it can be switched to give."""
        reach = self._reach()
        for device, unit, name, a, b, given, ends in self._wanted:
            draw = draw_of(device.kind, unit)
            volts = given or (DC_V if draw.dc else self._volts(reach[a], reach[b]))
            if device.kind.can(Can.VARIES_SPEED) and unit.name == "REF-COM":
                volts = 10.0
            part = self.parts.get(device.id)
            coil = unit.behaviour in _CONSUMERS
            ohm = volts * volts / ((part.coil_va_hold if part and coil else 0.0) or draw.va)
            cold = (part.coil_ohm if part and coil else 0.0) or draw.ohm or ohm
            yield Consumer(device.id, name, a, b, ohm, cold, volts, draw.pick, draw.hold, ends)

    def _reach(self) -> list[set[int]]:
        """By point, the poles that it could be joined to with every contact closed."""
        ends = np.array([(contact.a, contact.b) for contact in self.contacts], dtype=np.int64).reshape(-1, 2)
        label = islands(self.count, ends).tolist()
        by_root: dict[int, set[int]] = {}
        for number, pole in enumerate(self.poles):
            by_root.setdefault(label[pole.point], set()).add(number)
        return [by_root.get(root, set()) for root in label]

    def _volts(self, first: set[int], last: set[int]) -> float:
        """The least voltage between two poles of one system; that of the supply to neutral where there is none."""
        currents = [
            abs(complex(abs(self.poles[a].ac - self.poles[b].ac), self.poles[a].dc - self.poles[b].dc))
            for a, b in product(first, last)
            if self.poles[a].system == self.poles[b].system
        ]
        return min((volts for volts in currents if volts > 1.0), default=self.supply.voltage_to_neutral_v)
