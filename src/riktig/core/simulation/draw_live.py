"""A sheet with power on: what is live, what works, where power waits, what just moved; told by form, not colour."""

from riktig.core.catalogue import Behaviour, Can
from riktig.core.geometry import Align, Circle, Face, Line, Point, Poly, Shape, Text, bounds_of
from riktig.core.job import DeviceId, PinRef
from riktig.core.keys import NetKey
from riktig.core.schematic import LINE_GAP, POWER_BOTTOM, Device, Sheet, SheetElement, ends_of, net_lines, turned
from riktig.core.simulation.explain import Role
from riktig.core.simulation.run import Panel

__all__ = ["LEGEND", "live_shapes"]

LEGEND = (
    "Thick: live. Hollow: live from another supply. Thin: return. Dashed: live through a load, or one of several ways. "
    "Bar: closed. Ring: open. Dot: live up to here. Filled: energised. Corners: just changed."
)
LIVE, BACK, THROUGH = 0.95, 0.6, 0.6
LIVE_STATES = ("live", "other")
SYMBOL = 5.0
"""Half the height of a coil, lamp or winding in its seat, mm."""
WAITS = 1.1
"""Radius of the dot where power waits, mm."""
_LEADS = {Behaviour.POLE, Behaviour.NO, Behaviour.NC}
_WORKS = {Behaviour.COIL, Behaviour.LAMP, Behaviour.LOAD, Behaviour.INPUT}


def live_shapes(panel: Panel, sheet: Sheet, roles: dict[int, Role], moved: frozenset[DeviceId]) -> list[Shape]:
    """What power does on a sheet, to be laid over its drawing.

    Args:
        panel: The panel with power on.
        sheet: The sheet.
        roles: What every closed contact means now; see ``roles_of``.
        moved: The devices that moved in the last operation.
    """
    pen = _LivePen(panel, roles, moved)
    shapes: list[Shape] = []
    for line in net_lines(sheet, panel.network.devices, panel.nets.of_pin):
        shapes += pen.line(line)
    for seat in sheet.seats:
        shapes += pen.element(seat)
    for landing, x, _ in sheet.landings:
        device = panel.network.devices[landing.device]
        if device.kind.is_motor:
            shapes += pen.motor(device, x + (len(landing.pins) - 1) * LINE_GAP / 2)
    return [turned(shape) for shape in shapes] if sheet.is_ladder else shapes


class _LivePen:
    def __init__(self, panel: Panel, roles: dict[int, Role], moved: frozenset[DeviceId]) -> None:
        self.panel, self.roles, self.moved = panel, roles, moved
        devices = panel.network.devices.values()
        self._elsewhere = frozenset(str(device.id) for device in devices if device.kind.can(Can.FOREIGN_SUPPLY))

    def _state(self, pin: PinRef) -> str:
        """“live”, “other” (live from another supply), “back”, “through” a load, or empty."""
        point = self.panel.network.point.get(pin)
        if point is None:
            return ""
        pole = self.panel.source_of(point)
        if pole is not None:
            return "back" if pole.is_zero else "other" if pole.system in self._elsewhere else "live"
        known = self.panel.volts.at[point]
        return "through" if known is not None and abs(known[0]) + abs(known[1]) > 1.0 else ""

    def line(self, line: Line) -> list[Shape]:
        """A connection as live as its net."""
        state = self._state(line.key.net) if isinstance(line.key, NetKey) else ""
        return self._stroke(state, line.x1, line.y1, line.x2, line.y2)

    def _stroke(self, state: str, x1: float, y1: float, x2: float, y2: float, *, dashed: bool = False) -> list[Shape]:
        match state:
            case "live":
                return [Line(x1, y1, x2, y2, "live", LIVE, dashed)]
            case "other":
                hollow = Line(x1, y1, x2, y2, "paper", LIVE * 0.4)
                return [Line(x1, y1, x2, y2, "live", LIVE, dashed), hollow]
            case "back":
                return [Line(x1, y1, x2, y2, "return", BACK, dashed)]
            case "through":
                return [Line(x1, y1, x2, y2, "live", THROUGH, dashed=True)]
        return []

    def element(self, seat: SheetElement) -> list[Shape]:
        """A contact that leads on or not, a coil or lamp that works or not."""
        shapes: list[Shape] = []
        devices = self.panel.network.devices
        for pole, x, first, last in ends_of(seat, devices):
            unit = devices[pole.device].kind.unit(pole.unit)
            if unit.behaviour in _LEADS:
                shapes += self._contact(pole.device, pole.unit, x, seat, first, last)
            elif unit.behaviour is Behaviour.HEATER or unit.behaviour is Behaviour.JOINT:
                shapes += self._stroke(self._state(first), x, seat.top, x, seat.bottom)
                continue
            shapes += self._leads(x, seat, first, last) if unit.behaviour not in _LEADS else []
            if unit.behaviour in _WORKS and self.panel.is_fed(pole.device, pole.unit):
                shapes += self._works(x, (seat.top + seat.bottom) / 2, unit.behaviour)
        if seat.element.device in self.moved and shapes:
            shapes += _corners(seat)
        return shapes

    def _leads(self, x: float, seat: SheetElement, first: PinRef, last: PinRef) -> list[Shape]:
        """The lines inside the seat of a coil, a lamp or a winding, up to its symbol."""
        middle = (seat.top + seat.bottom) / 2
        shapes: list[Shape] = []
        if middle - SYMBOL > seat.top:
            shapes += self._stroke(self._state(first), x, seat.top, x, middle - SYMBOL)
            shapes += self._stroke(self._state(last), x, middle + SYMBOL, x, seat.bottom)
        return shapes

    def _contact(
        self, did: DeviceId, unit: str, x: float, seat: SheetElement, first: PinRef, last: PinRef
    ) -> list[Shape]:
        number = self.panel.contact.get((did, unit))
        middle = (seat.top + seat.bottom) / 2
        if number is None:
            return []
        if self.panel.connectivity.closed[number]:
            state = self._state(first)
            shared = self.roles.get(number) is Role.SHARED and state in LIVE_STATES
            stroke = self._stroke(state, x, seat.top, x, seat.bottom, dashed=shared)
            return stroke or [Line(x, seat.top + 1.6, x, seat.bottom - 1.6, "ink", 0.35)]
        shapes: list[Shape] = []
        behaviour = self.panel.units[did, unit].behaviour
        if behaviour is not Behaviour.NO:
            shapes.append(Circle(x, middle, 1.5, "ink", 0.4, "paper"))
        for pin, other, y in ((first, last, seat.top + 0.9), (last, first, seat.bottom - 0.9)):
            if self._state(pin) in LIVE_STATES and self._state(other) not in LIVE_STATES:
                shapes.append(Circle(x, y, WAITS, "live", 0.2, "live"))
        return shapes

    def _works(self, x: float, y: float, behaviour: Behaviour) -> list[Shape]:
        if behaviour is Behaviour.LAMP:
            ray = 2.0
            return [
                Circle(x, y, 3.2, "live", 0.5, "live"),
                Line(x - ray, y - ray, x + ray, y + ray, "paper", 0.5),
                Line(x - ray, y + ray, x + ray, y - ray, "paper", 0.5),
            ]
        wide, high = (4.2, 2.1) if behaviour is Behaviour.COIL else (3.0, 1.6)
        word = "IN" if behaviour is Behaviour.COIL else "ON"
        return [
            _box(x - wide, y - high, x + wide, y + high, "live"),
            Text(x, y + 1.1, word, 2.4, "paper", Face.BOLD, Align.MIDDLE),
        ]

    def motor(self, device: Device, middle: float) -> list[Shape]:
        """Which way a motor turns."""
        turns = self.panel.turns(device.id)
        if turns == "off":
            return []
        caption = {"star": "runs in star", "delta": "runs in delta"}.get(turns, f"runs {turns}")
        caption += self._speed(device)
        centre = POWER_BOTTOM + 9.0
        text = Text(middle - 9.5, centre + 6.0, caption, 3.0, "live", Face.BOLD, Align.RIGHT)
        box = bounds_of(text)
        backing = _box(box.x - 1, box.y - 0.6, box.right + 1, box.bottom, "paper")
        return [Circle(middle, centre, 8.2, "live", 1.1), backing, text]

    def _speed(self, motor: Device) -> str:
        """At which share of its speed a motor on a drive runs; empty for any other."""
        for device in self.panel.network.devices.values():
            if device.circuit == motor.circuit and device.kind.can(Can.VARIES_SPEED):
                return f" at {100 * self.panel.share(device.id, 'REF-COM'):.0f} %"
        return ""


def _box(x1: float, y1: float, x2: float, y2: float, role: str) -> Poly:
    corners = (Point(x1, y1), Point(x2, y1), Point(x2, y2), Point(x1, y2))
    return Poly(corners, role, 0.4, closed=True, fill=role)


def _corners(seat: SheetElement) -> list[Shape]:
    """Four corners around an element that moved last."""
    left, right = seat.x - 6.5, seat.x + LINE_GAP * (len(seat.element.poles) - 1) + 6.5
    top, bottom, arm = seat.top - 0.4, seat.bottom + 0.4, 2.2
    shapes: list[Shape] = []
    for x, dx in ((left, arm), (right, -arm)):
        for y, dy in ((top, arm), (bottom, -arm)):
            shapes.append(Poly((Point(x + dx, y), Point(x, y), Point(x, y + dy)), "act", 0.5))
    return shapes
