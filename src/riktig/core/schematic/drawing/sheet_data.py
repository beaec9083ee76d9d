"""What all sheets of a job read, and what is said of a device on them."""

from collections.abc import Mapping
from dataclasses import dataclass

from riktig.core.catalogue import Behaviour, Can
from riktig.core.job import CircuitId, DeviceId, ElementId, PinRef
from riktig.core.schematic.drawing.sheet_notes import SheetNotes
from riktig.core.schematic.model.controller_cards import io_address
from riktig.core.schematic.model.elements import Circuits, Device, Element, Zone
from riktig.core.schematic.netlist.nets import Net
from riktig.core.schematic.numbering.numbers import Names

__all__ = ["SheetData", "facts_of", "has_few_places", "is_main", "places_elsewhere", "words_of"]

FEW = 4
"""A device that is drawn at no more places names the others at each; cards of a controller have a list for it."""
_MAIN_UNITS = (Behaviour.POLE, Behaviour.HEATER, Behaviour.SOURCE, Behaviour.WINDING)


@dataclass(frozen=True, slots=True)
class SheetData:
    """What all sheets read: devices, nets by pin and node, names, and places in words."""

    devices: Mapping[DeviceId, Device]
    circuits: Circuits
    of_pin: dict[PinRef, Net]
    by_node: dict[str, Net]
    names: Names
    coils: dict[DeviceId, Element]
    at_coil: dict[DeviceId, str]
    used: dict[DeviceId, dict[str, str]]
    elsewhere: dict[DeviceId, str]
    touched: dict[DeviceId, str]
    titles: dict[CircuitId, str]
    north_american: bool
    rungs: dict[str, int]
    """The number of each rung by id, where numbers go by rung; otherwise empty."""
    notes: SheetNotes
    first: dict[DeviceId, ElementId]
    """The element of each device at which it is said what it is rated for, and its cable."""

    def rung_name(self, rung: str) -> str:
        """“rung 12”, or empty."""
        return f"rung {self.rungs[rung]}" if rung in self.rungs else ""

    def said_of(self, net: Net | None) -> tuple[object, ...] | None:
        """Everything that a sheet says of a net."""
        if net is None:
            return None
        return (net.id, self.names.number.get(net.id), net.net_class, self.notes.voltages.get(net.id))


def _purpose_within(device: Device, titles: dict[CircuitId, str]) -> str:
    """What a device is for, without the name of its circuit, which stands above its paths."""
    title = titles.get(device.circuit, "")
    if device.purpose.lower().startswith(f"{title.lower()}, "):
        return device.purpose[len(title) + 2 :]
    return device.purpose


def has_few_places(device: Device) -> bool:
    """Whether a device is named with its other places: not a terminal, not a card, not what has a coil."""
    kind = device.kind
    return not device.strip and not kind.has_coil and kind.point_pin is None


def words_of(data: SheetData, device: Device, element: Element, *, on_control: bool) -> str:
    """What is said under a tag: where the coil is, the address of a point, or what it is for.

    Args:
        data: What the sheets read.
        device: The device of the element.
        element: One that stands on a sheet.
        on_control: Whether that sheet is a control sheet.
    """
    address = io_address(device, element.poles[0].unit)
    if address:
        return address
    coil = data.coils.get(device.id)
    if coil and element.id != coil.id:
        return f"coil {data.at_coil.get(device.id, '')}"
    there = data.touched.get(device.id)
    if device.kind.can(Can.DRAWN_ELSEWHERE) and there and on_control:
        return f"also {there}"
    return _purpose_within(device, data.titles)


def places_elsewhere(data: SheetData, device: Device, element: Element) -> list[str]:
    """The other places of a device that is drawn at a few; of one with a coil they stand under the coil.

    Args:
        data: What the sheets read.
        device: The device of the element.
        element: One that stands on a sheet.
    """
    if not has_few_places(device) or device.kind.can(Can.DRAWN_ELSEWHERE):
        return []
    used = data.used.get(device.id, {})
    here = used.get(element.poles[0].unit, "")
    places = [place for place in dict.fromkeys(used.values()) if place != here]
    return places if len(places) < FEW else []


def facts_of(data: SheetData, device: Device, element: Element, *, on_control: bool) -> tuple[str, ...]:
    """What stands in lines of its own under a tag: the positions of a contact that is turned, ratings, the cable.

    Args:
        data: What the sheets read.
        device: The device of the element.
        element: One that stands on a sheet.
        on_control: Whether that sheet is a control sheet; a power sheet says at its foot what its loads are.
    """
    positions = device.kind.closing_positions(device.kind.unit(element.poles[0].unit))
    turned = (f"closed in {' and '.join(positions)}",) if positions else ()
    if data.first.get(device.id) != element.id or (device.zone is Zone.FIELD and not on_control):
        return turned
    return (*turned, *data.notes.ratings.get(device.id, ()), *data.notes.cables.get(device.id, ()))


def is_main(device: Device, element: Element) -> bool:
    """Whether a device may be described at an element: its main poles or its load, not a contact or a coil.

    Args:
        device: The device.
        element: One of its elements.
    """
    behaviour = device.kind.unit(element.poles[0].unit).behaviour
    if behaviour is Behaviour.LOAD:
        return not device.kind.can(Can.MAKES_DC)  # said at its output
    return len(element.poles) > 1 or behaviour in _MAIN_UNITS or device.zone is Zone.FIELD
