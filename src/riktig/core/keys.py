"""What can be chosen in the window and pointed at by a finding: a value for each kind of thing.

A mark of a drawing, a row of details, a finding and the selection of the window carry a key. The text form,
“device:c1.K”, stands in lists and drawings for other programs: ``str`` writes it, ``read_key`` reads it.
"""

from collections.abc import Callable
from dataclasses import dataclass

from riktig.core.ids import CircuitId, DeviceId, ElementId, LoadId, PinRef, WireId, device_of_element, read_pin

__all__ = [
    "BatchKey",
    "CircuitKey",
    "DeviceKey",
    "DuctKey",
    "ElementKey",
    "HoleKey",
    "Key",
    "LoadKey",
    "NetKey",
    "OpeningKey",
    "PartKey",
    "PieceKey",
    "PinKey",
    "PlaceKey",
    "RailKey",
    "ValueKey",
    "WireKey",
    "device_of",
    "read_key",
]


@dataclass(frozen=True, slots=True)
class DeviceKey:
    """A device of the panel or of the field."""

    device: DeviceId

    def __str__(self) -> str:
        return f"device:{self.device}"


@dataclass(frozen=True, slots=True)
class PinKey:
    """A pin of a device."""

    pin: PinRef

    def __str__(self) -> str:
        return f"pin:{self.pin}"


@dataclass(frozen=True, slots=True)
class NetKey:
    """A potential, by the id of its net."""

    net: PinRef

    def __str__(self) -> str:
        return f"net:{self.net}"


@dataclass(frozen=True, slots=True)
class WireKey:
    """A wire inside the panel."""

    wire: WireId

    def __str__(self) -> str:
        return f"wire:{self.wire}"


@dataclass(frozen=True, slots=True)
class ElementKey:
    """A drawn element: a contact, a coil, the poles of a breaker."""

    element: ElementId

    def __str__(self) -> str:
        return f"element:{self.element}"


@dataclass(frozen=True, slots=True)
class LoadKey:
    """A load of the Brief; an empty id is the load that is to be added."""

    load: LoadId

    def __str__(self) -> str:
        return f"load:{self.load}"


@dataclass(frozen=True, slots=True)
class CircuitKey:
    """A circuit."""

    circuit: CircuitId

    def __str__(self) -> str:
        return f"circuit:{self.circuit}"


@dataclass(frozen=True, slots=True)
class ValueKey:
    """A sized value, by its key in the sizing: ``c1.breaker``, ``panel.box``."""

    value: str

    def __str__(self) -> str:
        return f"value:{self.value}"


@dataclass(frozen=True, slots=True)
class HoleKey:
    """A hole, by its number."""

    number: str

    def __str__(self) -> str:
        return f"hole:{self.number}"


@dataclass(frozen=True, slots=True)
class OpeningKey:
    """An opening of the builder's own, counted from 1."""

    number: int

    def __str__(self) -> str:
        return f"opening:{self.number}"


@dataclass(frozen=True, slots=True)
class RailKey:
    """A rail by its name."""

    name: str

    def __str__(self) -> str:
        return f"rail:{self.name}"


@dataclass(frozen=True, slots=True)
class DuctKey:
    """A duct by its name."""

    name: str

    def __str__(self) -> str:
        return f"duct:{self.name}"


@dataclass(frozen=True, slots=True)
class PieceKey:
    """A piece of rail, duct or cover to be cut, by its name."""

    name: str

    def __str__(self) -> str:
        return f"piece:{self.name}"


@dataclass(frozen=True, slots=True)
class PlaceKey:
    """A place on the sheets of the circuits: sheet, column and row, or a sheet alone."""

    place: str

    def __str__(self) -> str:
        return f"place:{self.place}"


@dataclass(frozen=True, slots=True)
class BatchKey:
    """A batch of wires by its number."""

    number: int

    def __str__(self) -> str:
        return f"batch:{self.number}"


@dataclass(frozen=True, slots=True)
class PartKey:
    """A part of the panel or of the Brief that there is once: “door”, “nameplate”, “supply”."""

    name: str

    def __str__(self) -> str:
        return self.name


Key = (
    DeviceKey
    | PinKey
    | NetKey
    | WireKey
    | ElementKey
    | LoadKey
    | CircuitKey
    | ValueKey
    | HoleKey
    | OpeningKey
    | RailKey
    | DuctKey
    | PieceKey
    | PlaceKey
    | BatchKey
    | PartKey
)

_READ: dict[str, Callable[[str], Key]] = {
    "device": lambda text: DeviceKey(DeviceId(text)),
    "pin": lambda text: PinKey(read_pin(text)),
    "net": lambda text: NetKey(read_pin(text)),
    "wire": lambda text: WireKey(WireId(text)),
    "element": lambda text: ElementKey(ElementId(text)),
    "load": lambda text: LoadKey(LoadId(text)),
    "circuit": lambda text: CircuitKey(CircuitId(text)),
    "value": ValueKey,
    "hole": HoleKey,
    "opening": lambda text: OpeningKey(int(text)),
    "rail": RailKey,
    "duct": DuctKey,
    "piece": PieceKey,
    "place": PlaceKey,
    "batch": lambda text: BatchKey(int(text)),
}


def read_key(text: str) -> Key | None:
    """A key from its text form; None for an empty text."""
    kind, colon, rest = text.partition(":")
    if colon and kind in _READ:
        return _READ[kind](rest)
    return PartKey(text) if text else None


def device_of(key: Key | None) -> DeviceId | None:
    """The device that a key names, or that its pin or element belongs to; None for anything else."""
    match key:
        case DeviceKey(device):
            return device
        case PinKey(pin):
            return pin.device
        case ElementKey(element):
            return device_of_element(element)
    return None
