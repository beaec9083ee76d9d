"""The tables that the planner reckons with: units, wires, rails and the plate as numbers, each column by its name."""

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

__all__ = [
    "BEHIND",
    "CHANCE",
    "COLUMN",
    "RAIL",
    "UNIT",
    "WIRE",
    "Floats",
    "Numbers",
    "Order",
    "Places",
    "PlateFigures",
    "Question",
    "Table",
    "WalkPlan",
    "no_places",
]

Floats = NDArray[np.float64]
Numbers = NDArray[np.int64]
Table = NDArray[np.void]
"""An array whose columns have names."""


def _floats(*names: str) -> np.dtype[np.void]:
    return np.dtype([(name, np.float64) for name in names])


UNIT = _floats(
    "width", "left", "right", "above", "below", "terminal", "screwed", "heat", "low_voltage", "depth", "incomer",
    "fixed_row", "fixed_x", "up", "down",
)  # fmt: skip
"""A unit: its width, the room it asks for on each side and above and below its rail, mm; whether it is a terminal,
screwed, on extra-low voltage or the incomer (0 or 1); its heat, W; its depth, mm; the row (-1: free) and place it is
fixed to; how far its body reaches up and down from its rail, mm."""
WIRE = np.dtype(
    [(name, np.int64) for name in ("unit_a", "side_a", "unit_b", "side_b")]
    + [(name, np.float64) for name in ("x_a", "y_a", "x_b", "y_b", "count", "weight")]
)
"""A bundle of wires between two units: at both ends the unit, its side (0 top, 1 bottom) and the place from the unit's
left edge and from its rail, mm; how many conductors, and what they weigh: thick ones more. A wire to an upright duct
has -1 as its second unit, the upright (0 left, 1 right) as side and its y (nan: its foot) as place."""
COLUMN = np.dtype([("upper", np.int64), ("lower", np.int64)])
"""Two units of one circuit of which one had best stand under the other."""
BEHIND = _floats("left", "top", "right", "bottom", "depth")
"""What a part of the door leaves behind it: a rectangle on the plate, and the depth that is left there, mm."""
RAIL = _floats("y", "left", "length", "above", "below", "duct")
"""A rail that stays: its line, left end and length, the room above and below it, the middle of the duct above, mm."""
CHANCE = _floats("place", "kind", "other", "length", "spot", "accept")
"""What chance decides in one step of a walk, each from 0 up to 1."""


class PlateFigures(NamedTuple):
    """The plate and its practice, all as floats: sizes in mm, shares, and 0 or 1 for what is or is not so."""

    width: float
    height: float
    edge: float
    duct: float
    rail_free: float
    beside: float
    turned: float
    fixed: float
    foot: float
    past: float
    spare: float
    clear: float
    entry_top: float


class Question(NamedTuple):
    """Everything that the cost of a plan depends on beside the plan itself."""

    unit: Table
    wire: Table
    column: Table
    behind: Table
    rails: Table
    plate: PlateFigures


class Order(NamedTuple):
    """A plan: the units row after row, and where each row ends among them."""

    seq: Numbers
    ends: Numbers


class Places(NamedTuple):
    """Where a plan puts its units, filled by ``kernel.place``.

    ``x`` left edge and ``y`` rail of every unit, ``row`` its row; ``duct`` the middle of the duct above each row (nan:
    none); ``over`` what is too long and too high for the plate and lacks to the spare room; all in mm.
    """

    x: Floats
    y: Floats
    row: Numbers
    duct: Floats
    over: Floats


class WalkPlan(NamedTuple):
    """What a walk needs beside the question.

    ``strips`` says of every row whether it is for terminals, ``group`` of every unit which circuit it belongs to (-1:
    none), ``member`` which unit has a role in a circuit; ``hot`` is where the walk begins, mm of wire it may lose, and
    ``cool`` what that falls by at each step.
    """

    strips: Numbers
    group: Numbers
    member: Numbers
    hot: float
    cool: float


def no_places(units: int, rows: int) -> Places:
    """Places that nothing has been put into yet.

    Args:
        units: How many units there are, those that stay included.
        rows: How many rows.
    """
    return Places(np.zeros(units), np.zeros(units), np.zeros(units, np.int64), np.zeros(rows), np.zeros(3))
