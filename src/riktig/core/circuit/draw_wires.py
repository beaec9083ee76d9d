"""The connections of a sheet as lines, each with the net that it carries."""

from riktig.core.circuit.model import Device
from riktig.core.circuit.nets import Net
from riktig.core.circuit.sheet_model import LINE_GAP, Sheet, Wire
from riktig.core.geometry import Line, Mark
from riktig.core.job import DeviceId, PinId, pin_id

__all__ = ["wire_marks"]

Spot = tuple[float, float]


def wire_marks(sheet: Sheet, devices: dict[DeviceId, Device], of_pin: dict[PinId, Net]) -> list[Mark]:
    """The connections of a sheet, keyed by the net of the elements that they begin or end at."""
    at: dict[Spot, PinId] = {}
    for seat in sheet.seats:
        for index, pole in enumerate(seat.element.poles):
            pins = devices[pole.device].kind.unit(pole.unit).pins
            first, last = (pins[-1], pins[0]) if pole.flipped else (pins[0], pins[-1])
            x = seat.x + index * LINE_GAP
            for pin, y in ((first, seat.top), (last, seat.bottom)):
                net = of_pin.get(pin_id(pole.device, pin))
                if net:
                    at.setdefault(_spot(x, y), net.id)
    _spread(list(sheet.wires), at)
    return [
        Line(w.x1, w.y1, w.x2, w.y2, width=0.35, layer="circuit", key=f"net:{net}" if net else "")
        for w in sheet.wires
        for net in (at.get(_spot(w.x1, w.y1), ""),)
    ]


def _spread(left: list[Wire], at: dict[Spot, PinId]) -> None:
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
