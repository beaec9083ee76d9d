"""The front of the panel with power on: which lamps are lit, what is pressed, where selectors and switches stand."""

from collections.abc import Iterable
from math import cos, pi, sin

from riktig.core.catalogue import Behaviour
from riktig.core.door import DoorPlan, PlacedOperator
from riktig.core.geometry import Align, Circle, Face, Line, Shape, Text
from riktig.core.job import DeviceId
from riktig.core.plate import RULER
from riktig.core.simulation.operators import Operator, position_of
from riktig.core.simulation.run import Panel

__all__ = ["front_shapes", "lit_lamps"]

LIT, RAYS, RAY = 13.0, 12, 8.0
"""Of a lit lamp: the ring around its lens, its rays and how long they are, mm: form says it, not colour alone."""
WORD = 9.0
"""Capitals of the word that says where something stands, mm."""


def lit_lamps(panel: Panel, door: DoorPlan) -> frozenset[DeviceId]:
    """The lamps of the door, those in buttons and on screens too, that are lit now."""
    return frozenset(seat.device for seat in door.seats if _is_lit(panel, seat.device))


def _is_lit(panel: Panel, device_id: DeviceId) -> bool:
    device = panel.network.devices.get(device_id)
    units = device.kind.units if device else ()
    return any(unit.behaviour is Behaviour.LAMP and panel.is_fed(device_id, unit.name) for unit in units)


def front_shapes(panel: Panel, door: DoorPlan, operators: Iterable[Operator]) -> list[Shape]:
    """What shows on the door, to be laid over its drawing from the front.

    Args:
        panel: The panel with power on.
        door: The door of the same circuits.
        operators: Everything that can be operated.
    """
    by_device: dict[DeviceId, list[Operator]] = {}
    for operator in operators:
        if operator.device is not None:
            by_device.setdefault(operator.device, []).append(operator)
    shapes: list[Shape] = []
    for seat in door.seats:
        x, y = seat.x + RULER, seat.y + RULER
        if _is_lit(panel, seat.device):
            shapes += _rays(x, y)
        words = [word for operator in by_device.get(seat.device, ()) if (word := _word(panel, operator))]
        if words:
            shapes.append(Circle(x, y, LIT - 2, "act", 1.4))
            shapes.append(_text_under(seat, ", ".join(words)))
    return shapes


def _word(panel: Panel, operator: Operator) -> str:
    """Where something stands that is not at rest; a selector is said at rest too."""
    now = position_of(panel, operator)
    if now == operator.positions[0] and len(operator.positions) < 3:
        return ""
    return {"held": "pressed"}.get(now, now)


def _rays(x: float, y: float) -> list[Shape]:
    shapes: list[Shape] = [Circle(x, y, LIT, "live", 1.6)]
    for number in range(RAYS):
        turn = 2 * pi * number / RAYS
        near, far = LIT + 1.5, LIT + 1.5 + RAY
        shapes.append(
            Line(x + near * cos(turn), y + near * sin(turn), x + far * cos(turn), y + far * sin(turn), "live", 1.4)
        )
    return shapes


def _text_under(seat: PlacedOperator, text: str) -> Text:
    at = seat.y + RULER + WORD / 2
    return Text(seat.x + RULER, at, text, WORD, "act", Face.BOLD, Align.MIDDLE, backed=True)
