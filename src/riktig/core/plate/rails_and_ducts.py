"""Rails and ducts moved, made longer or wider, added and taken away: what there is to the plate beside its parts."""

from dataclasses import replace

from riktig.core.errors import RiktigError
from riktig.core.geometry import Rect
from riktig.core.plate.model import EDGE, Duct, Layout, Rail

__all__ = ["RailsAndDucts", "duct_changed", "rail_changed", "with_duct", "with_rail", "without"]

RailsAndDucts = tuple[tuple[Rail, ...], tuple[Duct, ...]]
"""All rails and all ducts."""
LEAST_LENGTH = 20.0
"""The shortest rail or duct, mm (chosen by us: room for one screw)."""
STUB = 200.0
"""Length of a duct that is newly put on, mm (chosen by us: something to take hold of)."""


def rail_changed(
    layout: Layout, number: int, *, y: float | None = None, x1: float | None = None, x2: float | None = None
) -> RailsAndDucts:
    """One rail elsewhere or of another length; it stays at least 20 mm long.

    Args:
        layout: The plate: where everything stands.
        number: Which, counted from 1.
        y: A new line, mm; None leaves it.
        x1: A new left end, mm; None leaves it.
        x2: A new right end, mm; None leaves it.
    """
    rails = []
    for rail in layout.rails:
        if rail.number == number:
            left = rail.x1 if x1 is None else min(x1, (rail.x2 if x2 is None else x2) - LEAST_LENGTH)
            right = rail.x2 if x2 is None else max(x2, left + LEAST_LENGTH)
            rail = Rail(number, round(rail.y if y is None else y, 1), round(left, 1), round(right, 1))
        rails.append(rail)
    return tuple(rails), layout.ducts


def duct_changed(layout: Layout, number: int, rect: Rect) -> RailsAndDucts:
    """One duct elsewhere, longer or wider.

    Args:
        layout: The plate: where everything stands.
        number: Which, counted from 1.
        rect: The rectangle, mm from the datum.
    """
    rect = Rect(
        round(rect.x, 1),
        round(rect.y, 1),
        round(max(rect.width, LEAST_LENGTH), 1),
        round(max(rect.height, LEAST_LENGTH), 1),
    )
    return layout.rails, tuple(replace(d, rect=rect) if d.number == number else d for d in layout.ducts)


def with_rail(layout: Layout, y: float) -> RailsAndDucts:
    """One rail more, between the uprights.

    Args:
        layout: The plate: where everything stands.
        y: From the datum down, mm.
    """
    number = max((rail.number for rail in layout.rails), default=0) + 1
    uprights = [duct.rect for duct in layout.ducts if duct.upright]
    left = min((rect.right for rect in uprights), default=EDGE)
    right = max((rect.x for rect in uprights), default=layout.plate.width - EDGE)
    return (*layout.rails, Rail(number, round(y, 1), left, max(right, left + LEAST_LENGTH))), layout.ducts


def with_duct(layout: Layout, x: float, y: float, width: float, *, upright: bool) -> RailsAndDucts:
    """One duct more: a short upright at a point, or a level one between the uprights at a height.

    Args:
        layout: The plate: where everything stands.
        x: From the datum to the right, mm.
        y: From the datum down, mm.
        width: Outer width, mm.
        upright: Whether the duct stands upright.
    """
    number = max((duct.number for duct in layout.ducts), default=0) + 1
    uprights = [duct.rect for duct in layout.ducts if duct.upright]
    if upright:
        rect = Rect(round(x, 1), round(y, 1), width, STUB)
    else:
        left = min((rect.right for rect in uprights), default=EDGE)
        right = max((rect.x for rect in uprights), default=layout.plate.width - EDGE)
        rect = Rect(left, round(y, 1), max(right - left, LEAST_LENGTH), width)
    return layout.rails, (*layout.ducts, Duct(number, rect, upright))


def without(layout: Layout, name: str) -> RailsAndDucts:
    """A rail or duct less; ``set_furniture`` refuses a rail that parts stand on.

    Args:
        layout: The plate: where everything stands.
        name: What it is called.

    Raises:
        RiktigError: it is the last rail, or the last upright duct, without which no wire finds its way.
    """
    rails = tuple(rail for rail in layout.rails if rail.name != name)
    ducts = tuple(duct for duct in layout.ducts if duct.name != name)
    if layout.rails and not rails:
        raise RiktigError(f"{name} is the last rail, so it was not taken away.")
    if layout.ducts and not any(duct.upright for duct in ducts):
        raise RiktigError(f"{name} is the last upright duct, so it was not taken away: no wire would find its way.")
    return rails, ducts
