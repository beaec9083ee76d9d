"""The panel as a meter finds it without power: every conductor, contact and consumer inside it, with its bounds.

Field cables and the supply are not connected. All else is as it is wired: what the builder changed counts.
"""

from collections import Counter
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from enum import Enum
from functools import cached_property
from itertools import combinations

import numpy as np
from numpy.typing import NDArray

from riktig.core.catalogue import Behaviour, Can, Clamp, Part, Unit
from riktig.core.ids import DeviceId, PinRef
from riktig.core.proving.switch_state import SwitchState, closed_in
from riktig.core.proving.tolerances import ELECTRONIC, JOINT, Ohms, unit_ohms, wire_ohms
from riktig.core.schematic import Circuits, Device, Net, Nets, Zone
from riktig.core.simulation import Rating, islands
from riktig.core.wiring import Wiring

__all__ = ["DeadPanel", "Piece", "PieceKind", "dead_panel"]

_LINES = ("L1", "L2", "L3")
_SWITCHES = (Behaviour.POLE, Behaviour.NO, Behaviour.NC)
_HANG_ON_LINES = (Can.VARIES_SPEED, Can.WATCHES_PHASES)


class PieceKind(Enum):
    """What a piece is."""

    WIRE = "wire"
    LINK = "jumper, link or comb"
    JOINT = "terminal or bar"
    PLUG = "plugged joint"
    CONTACT = "contact"
    PASSIVE = "coil, lamp or winding"


ALWAYS = (PieceKind.WIRE, PieceKind.LINK, PieceKind.JOINT, PieceKind.PLUG)
"""What leads on in every position of the switches."""


@dataclass(frozen=True, slots=True)
class Piece:
    """What joins two pins. ``what`` is the key of a wire, or the name of a unit of ``device``."""

    a: PinRef
    b: PinRef
    ohms: Ohms
    kind: PieceKind
    what: str = ""
    device: DeviceId | None = None
    unit: Unit | None = None


@dataclass(frozen=True)
class DeadPanel:
    """All pins inside the panel with a number each, and the pieces between them."""

    pins: tuple[PinRef, ...]
    pieces: tuple[Piece, ...]
    devices: Mapping[DeviceId, Device]
    node: Mapping[PinRef, int] = field(init=False, repr=False, compare=False)
    ends: NDArray[np.int64] = field(init=False, repr=False, compare=False)
    """The numbers of the two pins of every piece, of shape (pieces, 2)."""
    low: NDArray[np.float64] = field(init=False, repr=False, compare=False)
    high: NDArray[np.float64] = field(init=False, repr=False, compare=False)
    usual: NDArray[np.float64] = field(init=False, repr=False, compare=False)
    _masks: dict[SwitchState, NDArray[np.bool_]] = field(default_factory=dict, init=False, repr=False, compare=False)
    kept: dict[object, object] = field(default_factory=dict, init=False, repr=False, compare=False)
    """What others work out of the panel and need again, such as the searches of ``fault_effects``."""

    def __post_init__(self) -> None:
        node = {pin: number for number, pin in enumerate(self.pins)}
        ends = [(node[piece.a], node[piece.b]) for piece in self.pieces]
        object.__setattr__(self, "node", node)
        object.__setattr__(self, "ends", np.array(ends, dtype=np.int64).reshape(-1, 2))
        for name in ("low", "high", "usual"):
            values = [getattr(piece.ohms, name) for piece in self.pieces]
            object.__setattr__(self, name, np.array(values, dtype=np.float64))

    def closed(self, state: SwitchState) -> NDArray[np.bool_]:
        """Which pieces lead on while the switches stand so."""
        mask = self._masks.get(state)
        if mask is None:
            moved = state.moved | {device for device, _ in state.turned}
            if moved:  # what stands as without the hands is known
                mask = self.closed(SwitchState(state.off)).copy()
                looked_at = [number for device in moved for number in self._contacts.get(device, ())]
            else:
                mask = np.ones(len(self.pieces), dtype=bool)
                looked_at = [number for numbers in self._contacts.values() for number in numbers]
            for number in looked_at:
                piece = self.pieces[number]
                if piece.device and piece.unit:
                    mask[number] = closed_in(self.devices[piece.device], piece.unit, state)
            mask.setflags(write=False)
            self._masks[state] = mask
        return mask

    @cached_property
    def _contacts(self) -> dict[DeviceId, list[int]]:
        """The numbers of the contacts and poles of each device."""
        contacts: dict[DeviceId, list[int]] = {}
        for number, piece in enumerate(self.pieces):
            if piece.kind is PieceKind.CONTACT and piece.device:
                contacts.setdefault(piece.device, []).append(number)
        return contacts

    @cached_property
    def potentials(self) -> list[int]:
        """The number of what every pin is joined with whatever the switches do: by wires, links, joints and plugs."""
        always = np.array([piece.kind in ALWAYS for piece in self.pieces], dtype=bool)
        numbers: list[int] = islands(len(self.pins), self.ends[always]).tolist()
        return numbers

    @cached_property
    def joined_pins(self) -> Mapping[int, int]:
        """How many pins are of each of the numbers in ``potentials``."""
        return Counter(self.potentials)

    @cached_property
    def supplies(self) -> list[int]:
        """The number of the supply that every pin is of: what any contact, coil or lamp joins, but no transformer.

        The lines that one breaker or contactor switches are of one supply.
        """
        apart = (Can.TRANSFORMS, Can.MAKES_DC)
        makers = {device.id for device in self.devices.values() if any(device.kind.can(able) for able in apart)}
        joins = [piece.kind is not PieceKind.PASSIVE or piece.device not in makers for piece in self.pieces]
        poles: dict[DeviceId, list[int]] = {}
        for number, piece in enumerate(self.pieces):
            if (
                piece.unit
                and piece.device
                and (piece.unit.behaviour is Behaviour.POLE or piece.unit.symbol == "contactor")
            ):
                poles.setdefault(piece.device, []).append(int(self.ends[number, 0]))
        beside = [(first, other) for first, *others in poles.values() for other in others]
        ends = np.concatenate([self.ends[np.array(joins, dtype=bool)], np.array(beside, dtype=np.int64).reshape(-1, 2)])
        numbers: list[int] = islands(len(self.pins), ends).tolist()
        return numbers

    def with_pieces(self, pieces: Iterable[Piece]) -> "DeadPanel":
        """The same pins with other pieces between them: with a fault in it."""
        return replace(self, pieces=tuple(pieces))


def dead_panel(
    circuits: Circuits,
    nets: Nets,
    wiring: Wiring,
    parts: Mapping[DeviceId, Part],
    ratings: Mapping[DeviceId, tuple[Rating, ...]],
) -> DeadPanel:
    """The dead panel as it is wired.

    Args:
        circuits: All devices and rungs of the job.
        nets: All nets of these circuits.
        wiring: All wires, in the order of their batches.
        parts: What is bought for every device.
        ratings: For which voltages coils, lamps and transformers are bought.
    """
    inside = {device.id: device for device in circuits.devices if device.zone is not Zone.FIELD}
    pieces: list[Piece] = []
    pins: dict[PinRef, None] = {}
    for device in inside.values():
        pins.update(dict.fromkeys(device.pin(pin.name) for pin in device.kind.pins))
        pieces += _inside(device, parts.get(device.id), ratings.get(device.id, ()))
    for wire in wiring.wires:
        pieces.append(Piece(wire.start.pin, wire.end.pin, wire_ohms(wire), PieceKind.WIRE, str(wire.key)))
    for name, group in _joined(wiring).items():
        pieces += [Piece(group[0], pin, JOINT, PieceKind.LINK, name) for pin in group[1:]]
    pieces = [piece for piece in pieces if piece.a in pins and piece.b in pins]
    pieces += list(_other_pieces(nets, inside, pieces))
    return DeadPanel(tuple(pins), tuple(pieces), inside)


def _inside(device: Device, part: Part | None, ratings: Sequence[Rating]) -> Iterator[Piece]:
    """What lies between the pins of a device."""
    for unit in device.kind.units:
        ohms = unit_ohms(device, unit, part, ratings)
        if ohms is None or len(unit.pins) < 2:
            continue
        kind = PieceKind.PASSIVE
        if unit.behaviour is Behaviour.JOINT:
            kind = PieceKind.JOINT
        elif unit.behaviour in (*_SWITCHES, Behaviour.HEATER):
            kind = PieceKind.CONTACT
        first, *others = (device.pin(pin) for pin in unit.pins)
        ends = others if unit.behaviour is Behaviour.JOINT else others[-1:]
        for last in ends:
            yield Piece(first, last, ohms, kind, unit.name, device.id, unit)
    if any(device.kind.can(ability) for ability in _HANG_ON_LINES):
        lines = [pin.name for pin in device.kind.pins if pin.name in _LINES]
        for first_line, last_line in combinations(lines, 2):
            name = f"{first_line}-{last_line}"
            yield Piece(device.pin(first_line), device.pin(last_line), ELECTRONIC, PieceKind.PASSIVE, name, device.id)


def _joined(wiring: Wiring) -> dict[str, list[PinRef]]:
    groups: dict[str, list[PinRef]] = {}
    for pin, name in wiring.joined.items():
        groups.setdefault(name, []).append(pin)
    return groups


def _other_pieces(nets: Nets, inside: Mapping[DeviceId, Device], known: Sequence[Piece]) -> Iterator[Piece]:
    """What joins pins of one potential without a wire: the metal of a bar, and plugs with what they sit under.

    A pin that nothing joins stays alone: a wire to it is missing, and its potential is no evidence that it is there.
    """
    label = _labels([pin for net in nets.nets for pin in net.pins], known)
    for net in nets.nets:
        pins = [pin for pin in net.pins if pin.device in inside]
        for pin in pins:
            device = inside[pin.device]
            if device.kind.plugs_onto and device.kind.pin(pin.marking).clamp is Clamp.PLUG:
                seat = _seat(device, pins, inside)
                if seat and label[seat] != label[pin]:
                    yield Piece(seat, pin, JOINT, PieceKind.PLUG, "", device.id)
        yield from _bars(net, pins, inside, label)


def _seat(device: Device, pins: Sequence[PinRef], inside: Mapping[DeviceId, Device]) -> PinRef | None:
    """The pin that a plug sits in: of its own circuit's device that it is plugged under, or of another such."""
    onto = device.kind.plugs_onto
    fitting = [pin for pin in pins if onto and inside[pin.device].kind.can(onto)]
    same = [pin for pin in fitting if inside[pin.device].circuit == device.circuit]
    return next(iter((*same, *fitting)), None)


def _bars(
    net: Net, pins: Sequence[PinRef], inside: Mapping[DeviceId, Device], label: Mapping[PinRef, int]
) -> Iterator[Piece]:
    by_device: dict[DeviceId, list[PinRef]] = {}
    for pin in pins:
        if inside[pin.device].kind.pin(pin.marking).clamp is not Clamp.PLUG:
            by_device.setdefault(pin.device, []).append(pin)
    for device, bar_pins in by_device.items():
        seen = {label[bar_pins[0]]}
        for pin in bar_pins[1:]:
            if label[pin] not in seen and inside[device].kind.can(Can.EARTH_BAR):
                yield Piece(bar_pins[0], pin, JOINT, PieceKind.JOINT, "bar", device)
            seen.add(label[pin])


def _labels(pins: Sequence[PinRef], pieces: Sequence[Piece]) -> dict[PinRef, int]:
    """A number for each group of pins that wires, links and joints already join."""
    node = {pin: number for number, pin in enumerate(dict.fromkeys(pins))}
    whole = (PieceKind.WIRE, PieceKind.LINK, PieceKind.JOINT)
    ends = [(node[p.a], node[p.b]) for p in pieces if p.kind in whole and p.a in node and p.b in node]
    labels = islands(len(node), np.array(ends, dtype=np.int64).reshape(-1, 2)).tolist()
    return dict(zip(node, labels, strict=True))
