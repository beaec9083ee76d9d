"""The connections of a sheet as lines, each with the net that it carries."""

from collections.abc import Mapping

from riktig.core.catalogue import Can
from riktig.core.geometry import Line, Shape
from riktig.core.job import DeviceId, PinRef
from riktig.core.keys import NetKey
from riktig.core.schematic.layout.ladder_page import turned
from riktig.core.schematic.layout.power_sheets import BUS_GAP, INCOMER_X
from riktig.core.schematic.layout.sheet_model import LINE_GAP, DrawnLine, Sheet, SheetElement
from riktig.core.schematic.model.elements import Device, Pole
from riktig.core.schematic.netlist.nets import Net

__all__ = ["ends_of", "net_lines", "net_shapes", "wire_shapes"]

Spot = tuple[float, float]
END = 1.6
"""Of an element that shows which net it is on, mm."""


def net_shapes(sheet: Sheet, devices: Mapping[DeviceId, Device], of_pin: dict[PinRef, Net], net: Net) -> list[Shape]:
    """A net everywhere it goes on a sheet, thick: its lines, and the ends of the elements that it joins.

    Args:
        sheet: The sheet.
        devices: All devices by their ids.
        of_pin: The net of every pin.
        net: The net.
    """

    def thick(x1: float, y1: float, x2: float, y2: float) -> Line:
        return Line(x1, y1, x2, y2, "act", 0.9)

    shapes: list[Shape] = [
        thick(mark.x1, mark.y1, mark.x2, mark.y2)
        for mark in wire_shapes(sheet, devices, of_pin)
        if isinstance(mark, Line) and mark.key == NetKey(net.id)
    ]
    for seat in sheet.seats:
        for _, x, first, last in ends_of(seat, devices):
            if first in net.pins:
                shapes.append(thick(x, seat.top, x, seat.top + END))
            if last in net.pins:
                shapes.append(thick(x, seat.bottom - END, x, seat.bottom))
    if sheet.bus:
        for line, node in enumerate(sheet.bus.nodes):
            if node in net.nodes:
                y = sheet.bus.y + line * BUS_GAP
                shapes.append(thick(sheet.bus.x1, y, sheet.bus.x2, y))
    return [turned(shape) for shape in shapes] if sheet.is_ladder else shapes


def net_lines(sheet: Sheet, devices: Mapping[DeviceId, Device], of_pin: dict[PinRef, Net]) -> list[Line]:
    """Every line of a sheet that carries a net, keyed by it: connections, and the lines across a power sheet.

    Args:
        sheet: The sheet.
        devices: All devices by their ids.
        of_pin: The net of every pin.
    """
    lines = [mark for mark in wire_shapes(sheet, devices, of_pin) if isinstance(mark, Line) and mark.key]
    if sheet.bus:
        at = {node: net for net in of_pin.values() for node in net.nodes}
        for line, node in enumerate(sheet.bus.nodes):
            if node in at:
                y, key = sheet.bus.y + line * BUS_GAP, NetKey(at[node].id)
                lines.append(Line(sheet.bus.x1, y, sheet.bus.x2, y, layer="circuit", key=key))
                if any(devices[seat.element.device].kind.can(Can.MAIN_SWITCH) for seat in sheet.seats):
                    x = INCOMER_X + line * LINE_GAP
                    lines.append(Line(x, sheet.bus.y - 2, x, y, layer="circuit", key=key))
    return lines


def ends_of(seat: SheetElement, devices: Mapping[DeviceId, Device]) -> list[tuple[Pole, float, PinRef, PinRef]]:
    """The poles of an element where it stands: each with its x, mm, and its upper and lower pin.

    Args:
        seat: The element on its sheet.
        devices: All devices by their ids.
    """
    runs = []
    for index, pole in enumerate(seat.element.poles):
        pins = devices[pole.device].kind.unit(pole.unit).pins
        first, last = (pins[-1], pins[0]) if pole.flipped else (pins[0], pins[-1])
        x = seat.x + index * LINE_GAP
        runs.append((pole, x, PinRef(pole.device, first), PinRef(pole.device, last)))
    return runs


def wire_shapes(sheet: Sheet, devices: Mapping[DeviceId, Device], of_pin: dict[PinRef, Net]) -> list[Shape]:
    """The connections of a sheet, keyed by the net of the elements that they begin or end at."""
    at: dict[Spot, PinRef] = {}
    for seat in sheet.seats:
        for _, x, first, last in ends_of(seat, devices):
            for pin, y in ((first, seat.top), (last, seat.bottom)):
                net = of_pin.get(pin)
                if net:
                    at.setdefault(_spot(x, y), net.id)
    _spread(list(sheet.wires), at)
    return [
        Line(w.x1, w.y1, w.x2, w.y2, width=0.35, layer="circuit", key=NetKey(net) if net else None)
        for w in sheet.wires
        for net in (at.get(_spot(w.x1, w.y1)),)
    ]


def _spread(left: list[DrawnLine], at: dict[Spot, PinRef]) -> None:
    """Carries the nets along the wires from end to end until none is left that can be told."""
    while left:
        rest = []
        for wire in left:
            a, b = _spot(wire.x1, wire.y1), _spot(wire.x2, wire.y2)
            known = at.get(a) or at.get(b)
            if known:
                at.setdefault(a, known)
                at.setdefault(b, known)
            else:
                rest.append(wire)
        if len(rest) == len(left):
            return
        left = rest


def _spot(x: float, y: float) -> Spot:
    return (round(x, 2), round(y, 2))
