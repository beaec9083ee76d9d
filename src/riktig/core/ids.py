"""Stable names of things: made once, never shown; a tag may change, an id does not."""

from typing import NamedTuple, NewType

__all__ = [
    "CircuitId",
    "ContactRef",
    "DeviceId",
    "ElementId",
    "LoadId",
    "PinRef",
    "SignalId",
    "SourceId",
    "WireId",
    "circuit_of",
    "device_id",
    "device_of_element",
    "read_contact",
    "read_pin",
    "read_wire",
    "role_of",
    "unit_of_element",
]

LoadId = NewType("LoadId", str)
SignalId = NewType("SignalId", str)
SourceId = NewType("SourceId", str)
CircuitId = NewType("CircuitId", str)
DeviceId = NewType("DeviceId", str)
"""The circuit's id, a point, and the device's role in it: ``c2.K``."""
ElementId = NewType("ElementId", str)
"""The device's id, a slash, and which of its units the element is: ``c2.K/13-14``."""
WireId = NewType("WireId", str)
"""The two pins of a wire in the order of their texts: ``c2.K:13~c2.K:A1``."""


class PinRef(NamedTuple):
    """A pin: its device and its marking. Pins sort as their text does."""

    device: DeviceId
    marking: str

    def __str__(self) -> str:
        """The text form, for files and papers: ``c2.K:13``."""
        return f"{self.device}:{self.marking}"

    def __lt__(self, other: tuple[DeviceId | str, ...]) -> bool:
        """Whether its text comes first: what is printed keeps one order, whatever a pin is made of."""
        return f"{self.device}:{self.marking}" < f"{other[0]}:{other[1]}"


class ContactRef(NamedTuple):
    """A contact of a device: the device and the unit."""

    device: DeviceId
    unit: str

    def __str__(self) -> str:
        """The text form, for files: ``c2.K:43-44``."""
        return f"{self.device}:{self.unit}"


def read_pin(text: str) -> PinRef:
    """A pin from its text form; a text without a colon is a device without a marking."""
    device, colon, marking = text.rpartition(":")
    return PinRef(DeviceId(device), marking) if colon else PinRef(DeviceId(text), "")


def read_wire(key: WireId) -> tuple[PinRef, PinRef]:
    """The two pins of a wire from its key."""
    first, _, second = key.partition("~")
    return read_pin(first), read_pin(second)


def read_contact(text: str) -> ContactRef:
    """A contact from its text form."""
    return ContactRef(*read_pin(text))


def device_id(circuit: CircuitId, role: str) -> DeviceId:
    """The id of what has a role in a circuit."""
    return DeviceId(f"{circuit}.{role}")


def circuit_of(device: DeviceId) -> CircuitId:
    """The circuit that a device belongs to."""
    return CircuitId(device.partition(".")[0])


def is_circuit_id(text: str) -> bool:
    """Whether a text has the form of a circuit's id: ``c2``, ``s1``."""
    return text[:1] in ("c", "s") and text[1:].isdecimal()


def circuit_of_node(node: str) -> CircuitId:
    """The circuit that a node would belong to by its name: ``c2`` of ``c2.neutral``; “main” of ``main.L1`` is none."""
    return CircuitId(node.partition(".")[0])


def role_of(device: DeviceId) -> str:
    """What a device is in its circuit: ``K`` of ``c2.K``, ``S.stop`` of ``c2.S.stop``."""
    return device.partition(".")[2]


def is_within(inner: DeviceId, outer: DeviceId) -> bool:
    """Whether a device belongs to another one of its circuit: ``c2.S.stop.Xa`` is the terminal of ``c2.S.stop``."""
    return inner.startswith(f"{outer}.")


def unit_of_element(element: ElementId) -> str:
    """Which of its device's units an element is: ``13-14`` of ``c2.K/13-14``."""
    return element.partition("/")[2]


def device_of_element(element: ElementId) -> DeviceId:
    """The device that an element is part of."""
    return DeviceId(element.partition("/")[0])
