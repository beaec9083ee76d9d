"""Holes, screws and operator colours as the tables have them."""

from dataclasses import dataclass

from riktig.core.standards.figures import Figure
from riktig.core.standards.tables import table

__all__ = [
    "OperatorStack",
    "TappedHole",
    "allowed_colours",
    "operator_hole",
    "operator_pitch",
    "operator_stack",
    "self_drilling_point",
    "tapped_hole",
]


@dataclass(frozen=True, slots=True)
class TappedHole:
    """A thread, the drill before tapping it and the clearance hole, mm."""

    thread: str
    tap_drill: float
    clearance: float
    source: str


def tapped_hole(thread: str) -> TappedHole:
    """The drill for a metric thread such as “M5”.

    Source:
        ISO 2306 (tap drills), ISO 273 medium (clearance), from memory.

    Raises:
        KeyError: not in the table.
    """
    drills = table("tap_drills")
    for row in drills.rows:
        if row["thread"] == thread:
            return TappedHole(thread, float(row["tap_drill_mm"]), float(row["clearance_medium_mm"]), drills.source)
    raise KeyError(thread)


def self_drilling_point(thread: str) -> Figure:
    """Drill point of a self-drilling screw such as “ST4.8”, mm.

    Source:
        DIN 7504 / ISO 10666, from memory.

    Raises:
        KeyError: not in the table.
    """
    screws = table("self_drilling_screws")
    for row in screws.rows:
        if row["thread"] == thread:
            return Figure(float(row["drill_point_dia_mm"]), screws.source, screws.confidence)
    raise KeyError(thread)


@dataclass(frozen=True, slots=True)
class OperatorStack:
    """Contact places side by side, blocks behind each other, and the depth of a further block, mm."""

    ways: int
    layers: int
    block_depth: float


def operator_stack() -> OperatorStack:
    """How many blocks an operator of 22 mm takes.

    Source:
        Common practice, from memory; the part's own sheet decides.
    """
    rows = {row["what"]: row["value"] for row in table("operator_stacks").rows}
    ways, layers, deep = rows.values()
    return OperatorStack(int(ways), int(layers), float(deep))


def operator_pitch(size: str = "D22", *, legends: bool = True) -> tuple[float, float]:
    """The least distance between middles of operators, across and down, mm: one of the two is enough.

    Source:
        IEC 60947-5-1 (formerly EN 50007), from memory; down 40 bare to 50 with legends.

    Args:
        size: The size of the operators, such as “22”.
        legends: Whether they have legend plates.

    Raises:
        KeyError: not in the table.
    """
    for row in table("operator_holes").rows:
        if row["size"] == size:
            numbers = [float(word) for word in row["min_spacing_vertical_mm"].split() if word[0].isdigit()]
            return float(row["min_spacing_horizontal_mm"]), numbers[-1 if legends else 0]
    raise KeyError(size)


def operator_hole(size: str = "D22") -> Figure:
    """The door hole for a push-button or lamp, mm.

    Source:
        IEC 60947-5-1 (formerly EN 50007), from memory.

    Raises:
        KeyError: not in the table.
    """
    holes = table("operator_holes")
    for row in holes.rows:
        if row["size"] == size:
            return Figure(float(row["hole_dia_mm"]), holes.source, row["confidence"])
    raise KeyError(size)


def allowed_colours(element: str, function: str) -> tuple[tuple[str, ...], str]:
    """Colours allowed for an operator's function, and the source.

    Source:
        IEC 60204-1:2016 10.2.1 and Table 4, from memory.

    Args:
        element: “push-button” or “indicator light”.
        function: The start of the function's name in the table, such as “START / ON”.

    Raises:
        KeyError: not in the table.
    """
    colour_table = table("operator_colours")
    for row in colour_table.rows:
        if row["element"] == element and row["function"].startswith(function):
            text = row["allowed"].replace("(", ",").replace(")", ",")
            words = [word.strip() for word in text.split(",")]
            colours = [word.split()[0] for word in words if word]
            return tuple(colours), colour_table.source
    raise KeyError((element, function))
