"""How the work runs beside its plan: the planned minutes of what is done, day by day."""

from collections.abc import Sequence

from riktig.core.geometry import Align, Circle, Drawing, Line, Point, Poly, Shape, Text, run_of
from riktig.core.production.hours import DayDone, StageHours

__all__ = ["HOURS_A_DAY", "draw_hours", "draw_run"]

HOURS_A_DAY = 6.0
"""Hours that one person works on a panel in a day, beside all else (chosen by us)."""
WIDE, TALL, LEFT, FOOT = 150.0, 70.0, 16.0, 12.0
SIZE = 3.4
BARS = 58.0
"""Where bars begin, behind the longest name of a stage, mm."""
MOST_DATES = 6
"""Dates that are written below the chart."""


def draw_run(days: Sequence[DayDone], total: float, people: int = 1) -> Drawing:
    """The share of the planned minutes that is done, day by day, beside a straight plan.

    Args:
        days: Every day of the log with what was done by its end.
        total: The planned minutes of all the work.
        people: How many work on it: the plan is as much shorter.
    """
    shapes: list[Shape] = [
        Line(LEFT, 4, LEFT, TALL, "line", 0.4), Line(LEFT, TALL, WIDE - 4, TALL, "line", 0.4),
    ]  # fmt: skip
    for share in (0.5, 1.0):
        y = _height(share)
        shapes.append(Line(LEFT, y, WIDE - 4, y, "hair", 0.3))
        shapes.append(Text(LEFT - 2, y + 1.2, f"{share:.0%}", SIZE, "second", align=Align.RIGHT))
    planned = max(total / 60 / HOURS_A_DAY / max(people, 1), 1.0)
    span = max(planned, float(len(days)), 1.0)
    step = (WIDE - 4 - LEFT) / span
    plan = (Point(LEFT, TALL), Point(LEFT + planned * step, _height(1.0)))
    shapes.append(Poly(plan, "third", 0.6, dashed=True))
    shapes.append(Text(plan[1].x, plan[1].y - 1.5, "plan", SIZE, "second", align=Align.RIGHT))
    points = [Point(LEFT, TALL)]
    for number, day in enumerate(days, 1):
        points.append(Point(LEFT + number * step, _height(day.minutes / total if total else 0.0)))
    if len(points) > 1:
        shapes.append(Poly(tuple(points), "act", 1.0))
        shapes += [Circle(point.x, point.y, 1.2, "act", 0, "act") for point in points[1:]]
    every = -(-len(days) // MOST_DATES) or 1
    for number, day in enumerate(days, 1):
        if number % every == 0 or number == len(days):
            shapes.append(Text(LEFT + number * step, TALL + 5, day.day[5:], SIZE, "second", align=Align.MIDDLE))
    return Drawing(WIDE, TALL + FOOT, tuple(shapes), "Done beside the plan")


def _height(share: float) -> float:
    return TALL - min(max(share, 0.0), 1.0) * (TALL - 10)


def draw_hours(hours: Sequence[StageHours]) -> Drawing:
    """What every stage took, beside what was planned for the same work, as bars."""
    shapes: list[Shape] = []
    longest = max([1.0, *(max(h.taken, h.planned_done + h.planned_left) for h in hours)])
    y = 5.0
    for of_stage in hours:
        name = of_stage.stage.value
        whole = of_stage.planned_done + of_stage.planned_left
        shapes.append(Text(2, y + 3.2, name, SIZE))
        room = WIDE - BARS - 32
        shapes += [
            Line(BARS, y + 1.0, BARS + max(whole / longest * room, 0.3), y + 1.0, "line", 1.6),
            Line(BARS, y + 1.0, BARS + max(of_stage.planned_done / longest * room, 0.01), y + 1.0, "third", 1.6),
            Line(BARS, y + 3.4, BARS + max(of_stage.taken / longest * room, 0.01), y + 3.4, "act", 1.6),
        ]
        text = f"{of_stage.taken:.0f} of {whole:.0f} min"
        shapes.append(Text(WIDE - 2, y + 3.2, text, SIZE, "second", align=Align.RIGHT, backed=True))
        y += 6.6
    words = "above: planned, and of that done; below: taken"
    shapes.append(Text(2, y + 4, words, SIZE, "second"))
    return Drawing(max(WIDE, run_of(words, mono=False) * SIZE), y + 8, tuple(shapes), "Hours by stage")
