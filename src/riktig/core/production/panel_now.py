"""The panel as it stands now: what is fixed, mounted, wired, tightened and tested, on the plate and on the doors."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass
from enum import Enum, IntEnum

from riktig.core.door import DoorPlan
from riktig.core.geometry import Align, Drawing, Face, Point, Poly, Rect, Shape, Text, bounds_of, run_of
from riktig.core.ids import DeviceId
from riktig.core.keys import DeviceKey, DuctKey, Key, RailKey
from riktig.core.plate import Layout, box
from riktig.core.production.ticks import BuildProgress
from riktig.core.production.work_model import BuildStage, StageState
from riktig.core.records import Operation
from riktig.core.schematic import Names

__all__ = ["HowFar", "PanelNow", "Shown", "draw_panel_now", "panel_now", "rings_around", "shown_for"]

GAP = 60.0
"""Between the plate and the doors, mm on the drawing (chosen by us)."""
RAIL_TALL = 35.0


class HowFar(IntEnum):
    """How far a part is, each step including those before it."""

    PLANNED = 0
    MOUNTED = 1
    WIRED = 2
    TIGHTENED = 3
    TESTED = 4

    @property
    def words(self) -> str:
        """What it is called in the legend."""
        return ("planned", "mounted", "wired", "tightened", "tested")[self]


_FILL = {
    HowFar.PLANNED: "", HowFar.MOUNTED: "card", HowFar.WIRED: "act soft", HowFar.TIGHTENED: "duct level",
    HowFar.TESTED: "act",
}  # fmt: skip


class Shown(Enum):
    """What of the panel is drawn."""

    PLATE = "plate"
    DOORS = "doors"
    ALL = "all"


@dataclass(frozen=True, slots=True)
class PanelNow:
    """How far every part is, and which rails and ducts are fixed and which lids are on."""

    parts: Mapping[DeviceId, HowFar]
    fixed: frozenset[Key]


def panel_now(stages: Collection[StageState], progress: BuildProgress, tested: Collection[DeviceId] = ()) -> PanelNow:
    """How far everything is, from the log.

    A part is wired when all its wires are landed on it, tightened when these are tightened; one without wires is as far
    as it is mounted. One that was wired but is not ticked as mounted is taken for what its wires say.

    Args:
        stages: All stages with their tasks.
        progress: What is done to the wires.
        tested: The devices all of whose wires have passed their tests.
    """
    parts: dict[DeviceId, HowFar] = {}
    fixed: set[Key] = set()
    for state in stages:
        for task in state.tasks:
            if task.done is None:
                continue
            if state.stage is BuildStage.RAILS:
                fixed.update(task.task.where)
            elif state.stage in (BuildStage.PARTS, BuildStage.OPERATORS):
                mounted = (key.device for key in task.task.where if isinstance(key, DeviceKey))
                parts.update(dict.fromkeys(mounted, HowFar.MOUNTED))
    least: dict[DeviceId, HowFar] = {}
    for wire_state in progress.states:
        done = [operation for operation, _ in wire_state.done]
        landed = HowFar.TIGHTENED if Operation.TIGHTENED in done else HowFar.WIRED
        for operation, end in (
            (Operation.LANDED_START, wire_state.wire.start), (Operation.LANDED_END, wire_state.wire.end)
        ):  # fmt: skip
            device, how_far = end.pin.device, landed if operation in done else HowFar.PLANNED
            if device not in least or how_far < least[device]:
                least[device] = how_far
    for device, how_far in least.items():
        if how_far > HowFar.PLANNED:
            proved = device in tested and how_far is HowFar.TIGHTENED
            parts[device] = HowFar.TESTED if proved else how_far
    return PanelNow(parts, frozenset(fixed))


def draw_panel_now(layout: Layout, door: DoorPlan, names: Names, now: PanelNow, shown: Shown = Shown.ALL) -> Drawing:
    """The plate, the doors from the front, or both side by side at one scale.

    Args:
        layout: The plate: where everything stands.
        door: The doors with what is fitted in them.
        names: Tags of devices.
        now: How far everything is.
        shown: What of the panel is drawn.
    """
    shapes: list[Shape] = []
    right = bottom = 0.0
    if shown is not Shown.DOORS:
        shapes += _plate(layout, names, now)
        right, bottom = layout.plate.right, layout.plate.bottom
    if shown is not Shown.PLATE:
        left = right + GAP if right else 0.0
        shapes += _doors(door, names, now, left)
        right, bottom = left + door.face.width, max(bottom, door.face.height)
    shapes += _legend(bottom + 14, right)
    return Drawing(right + 6, bottom + 20 + 4 * max(24.0, right / 44), tuple(shapes), "The panel as it stands")


def rings_around(drawing: Drawing, chosen: Collection[Key]) -> list[Shape]:
    """What marks things in the drawing of the panel: a ring around each, such as what the task at hand is about.

    Args:
        drawing: The panel as it stands.
        chosen: What is marked.
    """
    return [_ring(bounds_of(mark)) for mark in drawing.shapes if mark.key in chosen and isinstance(mark, Poly)]


def shown_for(chosen: Collection[Key], door: DoorPlan) -> Shown:
    """The doors when all that is marked is on them, else the plate."""
    on_door: set[Key] = {DeviceKey(seat.device) for seat in door.seats}
    return Shown.DOORS if chosen and on_door.issuperset(chosen) else Shown.PLATE


def _plate(layout: Layout, names: Names, now: PanelNow) -> list[Shape]:
    shapes: list[Shape] = [box(layout.plate, "line", 2.0, "panel")]
    ducts: list[tuple[Rect, Key, str]] = [(duct.rect, DuctKey(duct.name), "duct") for duct in layout.ducts]
    rails: list[tuple[Rect, Key, str]] = [
        (Rect(r.x1, r.y - RAIL_TALL / 2, r.length, RAIL_TALL), RailKey(r.name), "rail") for r in layout.rails
    ]
    for rect, key, fill in (*ducts, *rails):
        shapes.append(_outline(rect, key, is_there=key in now.fixed, fill=fill))
    for seat in layout.seats:
        part = DeviceKey(seat.device)
        shapes += _part(seat.rect, names.tag[seat.device], now.parts.get(seat.device, HowFar.PLANNED), part)
    return shapes


def _doors(door: DoorPlan, names: Names, now: PanelNow, left: float) -> list[Shape]:
    x, y = left - door.face.x, -door.face.y
    faces = [Rect(leaf.face.x + x, leaf.face.y + y, leaf.face.width, leaf.face.height) for leaf in door.leaves]
    shapes: list[Shape] = [box(face, "line", 2.0, "panel") for face in faces]
    for operator in door.seats:
        size = operator.hole or 40.0
        wide, tall = (operator.cut.width, operator.cut.height) if operator.cut else (size, size)
        rect = Rect(x + operator.x - wide / 2, y + operator.y - tall / 2, wide, tall)
        part = DeviceKey(operator.device)
        shapes += _part(rect, names.tag[operator.device], now.parts.get(operator.device, HowFar.PLANNED), part)
    return shapes


def _corners(rect: Rect) -> tuple[Point, ...]:
    return (
        Point(rect.x, rect.y), Point(rect.right, rect.y), Point(rect.right, rect.bottom), Point(rect.x, rect.bottom)
    )  # fmt: skip


def _outline(rect: Rect, key: Key | None, *, is_there: bool, fill: str) -> Shape:
    """What is fixed is filled and drawn through; what is only planned is an outline in dashes."""
    return Poly(
        _corners(rect), "second" if is_there else "third", 1.4, closed=True, fill=fill if is_there else "",
        dashed=not is_there, key=key,
    )  # fmt: skip


def _part(rect: Rect, tag: str, how_far: HowFar, key: Key) -> list[Shape]:
    shapes: list[Shape] = [_outline(rect, key, is_there=how_far > HowFar.PLANNED, fill=_FILL[how_far])]
    size = min((rect.width - 4) / max(run_of(tag, mono=True), 0.1), 17.0)
    if size >= 7.0:
        role = "on act" if how_far is HowFar.TESTED else "ink"
        middle = rect.y + rect.height / 2 + size * 0.36
        shapes.append(Text(rect.centre.x, middle, tag, size, role, Face.PRINTED, Align.MIDDLE, key=key))
    return shapes


def _ring(rect: Rect) -> Shape:
    return Poly(_corners(Rect(rect.x - 5, rect.y - 5, rect.width + 10, rect.height + 10)), "live", 5.0, closed=True)


def _legend(y: float, width: float) -> list[Shape]:
    """What the fills mean, three in a line."""
    shapes: list[Shape] = []
    step = width / 3
    size = min(max(24.0, width / 44), step / (run_of("tightened", mono=False) + 1.9))
    for place, how_far in enumerate(HowFar):
        x, line = (place % 3) * step, y + place // 3 * size * 1.9
        swatch = Rect(x, line, size, size)
        shapes.append(_outline(swatch, None, is_there=how_far > HowFar.PLANNED, fill=_FILL[how_far]))
        shapes.append(Text(x + 1.4 * size, line + size * 0.86, how_far.words, size))
    return shapes
