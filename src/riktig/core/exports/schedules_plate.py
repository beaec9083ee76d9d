"""The plate as lists: where every part stands, how full the ducts are, where wires go into them."""

from collections.abc import Callable

from riktig.core.evaluation import Evaluation
from riktig.core.exports.schedule_model import Schedule, Value
from riktig.core.job import Job
from riktig.core.keys import DeviceKey, DuctKey
from riktig.core.plate import CUT_PLAN, LAYOUT
from riktig.core.schematic import CIRCUITS, NAMES
from riktig.core.simulation import RATINGS, described
from riktig.core.wiring import DUCT_USES

__all__ = ["SCHEDULES", "plate_parts"]


def _places(evaluation: Evaluation[Job]) -> Schedule:
    """Every part on the plate with its place from the datum and its size, by rail and from left to right."""
    tags, layout = evaluation.get(NAMES).tag, evaluation.get(LAYOUT)
    rows: list[tuple[Value, ...]] = []
    for seat in sorted(layout.seats, key=lambda s: (s.rail == 0, s.rail, s.rect.x, s.rect.y)):
        rail, rect, part = layout.rail(seat.rail), seat.rect, seat.part
        rows.append(
            (
                tags[seat.device],
                part.ref,
                rail.name if rail else "screwed",
                round(rect.x - rail.x1, 1) if rail else "",
                rect.x,
                rect.y,
                rect.width,
                rect.height,
                part.depth,
                str(DeviceKey(seat.device)),
            )
        )
    columns = (
        ("tag", "Tag"),
        ("part", "Part"),
        ("rail", "Rail"),
        ("offset", "From its end, mm"),
        ("x", "x, mm"),
        ("y", "y, mm"),
        ("width", "Width, mm"),
        ("height", "Height, mm"),
        ("depth", "Depth, mm"),
        ("key", "Key"),
    )
    return Schedule("places", "Places on the plate", columns, tuple(rows))


def plate_parts(evaluation: Evaluation[Job]) -> Schedule:
    """The parts list that stands beside the plate's drawing: tag, what it is, and where it stands."""
    layout, tags = evaluation.get(LAYOUT), evaluation.get(NAMES).tag
    ratings = evaluation.get(RATINGS)
    american = evaluation.document.practice.rulebook.north_american
    marks = {device.id: device.mark if device.strip else "" for device in evaluation.get(CIRCUITS).devices}
    rows: list[tuple[Value, ...]] = []
    for seat in sorted(layout.seats, key=lambda s: (s.rail == 0, s.rail, s.rect.x, s.rect.y)):
        rail, rect = layout.rail(seat.rail), seat.rect
        place = f"{rail.name} at {rect.x - rail.x1:.1f}" if rail else f"{rect.x:.1f}, {rect.y:.1f}"
        tag = tags[seat.device]
        what = described(seat.part, ratings.get(seat.device, ()), north_american=american)
        rows.append((f"{tag}:{marks[seat.device]}" if marks[seat.device] else tag, seat.part.ref, what, place))
    columns = (("tag", "Tag"), ("part", "Part"), ("what", "What"), ("place", "Place, mm"))
    return Schedule("plate parts", "Parts on the plate", columns, tuple(rows))


def _ducts(evaluation: Evaluation[Job]) -> Schedule:
    """Every duct with its fullest place, the width that would do and the families in it."""
    rows: list[tuple[Value, ...]] = []
    for use in evaluation.get(DUCT_USES):
        fullest = max(use.segments, key=lambda part: part.share)
        rows.append(
            (
                use.name,
                use.now,
                round(use.share, 3),
                use.limit,
                round(fullest.begin, 1),
                round(fullest.end, 1),
                use.width or "none",
                ", ".join(use.families),
                "yes" if use.shared else "",
                str(DuctKey(use.name)),
            )
        )
    columns = (
        ("duct", "Duct"),
        ("wide", "Width, mm"),
        ("share", "Fill"),
        ("limit", "At most"),
        ("from", "Fullest from, mm"),
        ("to", "to, mm"),
        ("needs", "Width that does, mm"),
        ("families", "Families"),
        ("shared", "To be kept apart"),
        ("key", "Key"),
    )
    return Schedule("ducts", "Fill of the ducts", columns, tuple(rows))


def _openings(evaluation: Evaluation[Job]) -> Schedule:
    """Where wires go into the ducts, and how many fingers have to be broken out there."""
    rows: list[tuple[Value, ...]] = [
        (opening.duct, opening.side, opening.at, opening.wires, opening.fingers, str(DuctKey(opening.duct)))
        for use in evaluation.get(DUCT_USES)
        for opening in use.openings
    ]
    columns = (
        ("duct", "Duct"),
        ("side", "Side"),
        ("x", "x, mm"),
        ("wires", "Wires"),
        ("fingers", "Fingers to break out"),
        ("key", "Key"),
    )
    return Schedule("openings", "Openings of the ducts", columns, tuple(rows))


def _bars(evaluation: Evaluation[Job]) -> Schedule:
    """Which piece is cut from which bar, in the order of the saw; what is left of each bar."""
    rows: list[tuple[Value, ...]] = []
    for bar in evaluation.get(CUT_PLAN).bars:
        for piece, start in zip(bar.pieces, bar.starts, strict=True):
            last = piece is bar.pieces[-1]
            end = round(start + piece.length, 1)
            rows.append((bar.stock, bar.source, bar.length, piece.name, piece.length, end, bar.left if last else ""))
    columns = (
        ("stock", "Stock"),
        ("bar", "Bar"),
        ("bar_length", "Of, mm"),
        ("piece", "Piece"),
        ("length", "Length, mm"),
        ("cut_at", "Cut at, mm"),
        ("left", "Left, mm"),
    )
    return Schedule("bars", "Bars to cut", columns, tuple(rows))


SCHEDULES: dict[str, Callable[[Evaluation[Job]], Schedule]] = {
    "places": _places,
    "ducts": _ducts,
    "openings": _openings,
    "bars": _bars,
}
