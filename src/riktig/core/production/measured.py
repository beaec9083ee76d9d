"""Measured twice: what must be measured before a cut, the readings, and whether the gate opens."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from enum import Enum

from riktig.core.door import DoorPlan, Shaft, diagonal, engagement_of
from riktig.core.holes import Hole
from riktig.core.ids import DeviceId
from riktig.core.inputs import same_person
from riktig.core.job import Enclosure, Practice, SecondReading, ShaftFitting
from riktig.core.plate import Piece
from riktig.core.production.ticks import Done
from riktig.core.records import DimensionRead, Record, Slot, counted, slot_of

__all__ = ["Critical", "Gate", "Judged", "closed_for", "criticals_of", "judge", "judged_all", "measured_facts"]

ON_SITE = 15.0
"""How far from the drawing a wall may have moved the shaft's centre before it is doubted, mm (chosen by us)."""
MOST_NAMED = 6
"""Holes that are named of a line (chosen by us: what is read at a glance)."""


MARK_AGAIN = "Mark it again, measure again."
REMEDY = {"box": "Set it right, or plan with what was measured.", "saw": "Set the stop again, measure again."}
"""What mends a reading that is off, by where it was taken."""


class Gate(Enum):
    """What the readings of one dimension say."""

    OPEN = "open"
    FIRST = "not measured yet"
    SECOND = "one reading more"
    DISAGREE = "the readings disagree"
    OFF = "off the drawing"


@dataclass(frozen=True, slots=True)
class Critical:
    """A dimension that is measured twice: its key, what it is, where, nominal and tolerance in mm.

    ``guards`` are the keys of the holes and pieces that may not be cut before; ``shaft`` is the switch whose
    shaft centre it is; ``twin`` the key of what it must agree with, such as the other diagonal.
    """

    key: str
    name: str
    face: str
    how: str
    nominal: float
    tolerance: float
    guards: tuple[str, ...]
    shaft: DeviceId | None = None
    twin: str = ""


@dataclass(frozen=True, slots=True)
class Judged:
    """A dimension with its readings that count: value and who; the verdict and what is to be done, in words."""

    critical: Critical
    readings: tuple[tuple[float, Done], ...]
    gate: Gate
    said: str


def criticals_of(
    holes: Iterable[Hole],
    door: DoorPlan,
    shafts: tuple[Shaft, ...],
    pieces: Iterable[Piece],
    enclosure: Enclosure,
    practice: Practice,
) -> tuple[Critical, ...]:
    """Everything that is measured twice, in the order of the work.

    Of a door every line that holes stand on is one dimension: across for a column, down for a row. A cut-out has its
    edges and both diagonals, a shaft its centre and its length; then the datums of plate and door, and long pieces.

    Args:
        holes: The holes.
        door: The doors with what is fitted in them.
        shafts: The shafts between isolators and their handles.
        pieces: What is cut, each with its name and length.
        enclosure: The enclosure.
        practice: The practice of the job.
    """
    all_holes = tuple(holes)
    tolerance = practice.reading_tolerance
    doors = {leaf.name for leaf in door.leaves}
    site = practice.shaft is ShaftFitting.SITE
    shaft_keys = {f"device:{shaft.device}#1" for shaft in shafts}
    through = () if site else tuple(sorted(shaft_keys))
    datums = (("plate", enclosure.plate_datum), ("door", enclosure.door_datum))
    criticals = [
        Critical(
            f"datum:{what}:{way}",
            f"datum of the {what}, {way}",
            "box",
            f"from the box's edge {word}",
            at,
            tolerance,
            through,
        )
        for what, (across, down) in datums
        for way, word, at in (("across", "to its left edge", across), ("down", "to its upper edge", down))
    ]
    for face in sorted(doors):
        on_face = [hole for hole in all_holes if hole.face == face and not (site and hole.key in shaft_keys)]
        criticals += _lines(on_face, face, tolerance)
        criticals += [critical for hole in on_face if hole.is_cut_out for critical in _cut_out(hole, tolerance)]
    for shaft in shafts:
        criticals += _shaft(shaft, practice)
    criticals += [
        Critical(
            f"piece:{piece.name}",
            f"{piece.name}, {piece.stock}",
            "saw",
            "its length",
            piece.length,
            tolerance,
            (f"piece:{piece.name}",),
        )
        for piece in pieces
        if piece.length >= practice.long_piece
    ]
    return tuple(criticals)


def _lines(holes: Sequence[Hole], face: str, tolerance: float) -> list[Critical]:
    round_ones = [hole for hole in holes if not hole.is_cut_out]
    criticals = []
    for way in ("across", "down"):
        lines: dict[float, list[Hole]] = {}
        for hole in round_ones:
            lines.setdefault(round(hole.x if way == "across" else hole.y, 1), []).append(hole)
        for at in sorted(lines):
            on_it = lines[at]
            names = ", ".join(hole.number for hole in on_it[:6]) + (
                f" and {len(on_it) - 6} more" if len(on_it) > 6 else ""
            )
            keys = tuple(hole.key for hole in on_it)
            name = f"{way} to {names}"
            how = f"from the datum {way} to the middle of the marks"
            criticals.append(Critical(f"{face}:{way}:{at:g}", name, face, how, at, tolerance, keys))
    return criticals


def _cut_out(hole: Hole, tolerance: float) -> list[Critical]:
    box = hole.outline
    edges = (("left edge", "across", box.x), ("right edge", "across", box.right), ("upper edge", "down", box.y),
             ("lower edge", "down", box.bottom))  # fmt: skip
    criticals = [
        Critical(
            f"{hole.face}:{hole.key}:{edge}", f"{hole.number}, {edge} of {hole.purpose}", hole.face,
            f"from the datum {way}", round(at, 1), tolerance, (hole.key,),
        )
        for edge, way, at in edges
    ]  # fmt: skip
    long = round(diagonal(box.width, box.height), 1)
    criticals += [
        Critical(
            f"{hole.face}:{hole.key}:diagonal {n}", f"{hole.number}, {which} diagonal of {hole.purpose}", hole.face,
            "from corner to corner of the marks", long, tolerance, (hole.key,),
            twin=f"{hole.face}:{hole.key}:diagonal {3 - n}",
        )
        for n, which in ((1, "falling"), (2, "rising"))
    ]  # fmt: skip
    return criticals


def _shaft(shaft: Shaft, practice: Practice) -> list[Critical]:
    key = f"device:{shaft.device}#1"
    room = engagement_of(shaft, practice)
    most = max(round(room.tolerance - room.by_wall, 1), practice.reading_tolerance)
    if practice.shaft is ShaftFitting.SITE:
        most = max(most, ON_SITE)  # there the wall decides: the two readings need only agree with each other
    criticals = [
        Critical(
            f"shaft:{shaft.device}:{way}", f"shaft centre as it meets the {shaft.leaf}, {way}", shaft.leaf,
            "project the centre of the mounted isolator square onto the closed door", at, most, (key,), shaft.device,
        )
        for way, at in (("across", shaft.on_leaf.x), ("down", shaft.on_leaf.y))
    ]  # fmt: skip
    how = "its length, before it is sawn"
    name = "length of the isolator's shaft"
    criticals.append(
        Critical(f"shaft:{shaft.device}:length", name, "saw", how, shaft.length, practice.reading_tolerance, ())
    )
    return criticals


_Reading = tuple[float, Done]
"""A value, and who read it when."""


def measured_facts(critical: Critical, value: float) -> DimensionRead:
    """What a reading is: its value, and the nominal it was read against.

    Args:
        critical: A line that others stand on.
        value: What was read, mm.
    """
    return DimensionRead(value, critical.nominal, critical.name)


def judge(critical: Critical, records: Iterable[Record], practice: Practice) -> Judged:
    """Whether the readings of one dimension agree with each other and with the drawing.

    The last reading counts, and before it the last one by whoever the practice asks for. A reading against another
    nominal no longer counts; nothing is ever deleted.

    Args:
        critical: A line that others stand on.
        records: The log, oldest first.
        practice: The practice of the job.
    """
    return _judge(critical, _readings((critical,), records).get(critical.key, []), practice)


def _readings(criticals: Iterable[Critical], records: Iterable[Record]) -> dict[str, list[_Reading]]:
    """The readings of each dimension that count, oldest first."""
    present: dict[Slot, DimensionRead] = {}
    for critical in criticals:
        facts = measured_facts(critical, critical.nominal)
        present[slot_of(critical.key, facts)] = facts
    readings: dict[str, list[_Reading]] = {}
    for item in counted(records, DimensionRead, present):
        if item.counts:
            readings.setdefault(item.record.subject, []).append(
                (item.facts.value, Done(item.record.who, item.record.when))
            )
    return readings


def _judge(critical: Critical, taken: Sequence[_Reading], practice: Practice) -> Judged:
    if not taken:
        return Judged(critical, (), Gate.FIRST, "Not measured yet.")
    last = taken[-1]
    before: _Reading | None = None
    if practice.second_reading is SecondReading.ANOTHER:
        before = next(
            (reading for reading in reversed(taken[:-1]) if not same_person(reading[1].who, last[1].who)), None
        )
    elif practice.second_reading is SecondReading.SAME:
        before = taken[-2] if len(taken) > 1 else None
    readings = tuple(reading for reading in (before, last) if reading)
    for value, done in readings:
        off = round(value - critical.nominal, 2)
        if abs(off) > critical.tolerance + 1e-9:
            text = (
                f"{value:g} mm was read by {done.who or 'nobody named'}: off by {off:+.1f} mm, "
                f"{critical.tolerance:g} mm is allowed. {REMEDY.get(critical.face, MARK_AGAIN)}"
            )
            return Judged(critical, readings, Gate.OFF, text)
    if practice.second_reading is SecondReading.NOBODY:
        return Judged(critical, readings, Gate.OPEN, f"{readings[-1][0]:g} mm, as drawn.")
    if before is None:
        who = "a second person" if practice.second_reading is SecondReading.ANOTHER else "you, afresh,"
        reader = readings[0][1].who or "nobody named"
        return Judged(critical, readings, Gate.SECOND, f"Read once, by {reader}; now {who} must read it.")
    first, second = readings[0][0], readings[1][0]
    apart = round(abs(first - second), 2)
    if apart > practice.reading_tolerance + 1e-9:
        text = (
            f"{first:g} and {second:g} mm were read: they disagree by {apart:.1f} mm, "
            f"{practice.reading_tolerance:g} mm is allowed. Measure once more."
        )
        return Judged(critical, readings, Gate.DISAGREE, text)
    return Judged(critical, readings, Gate.OPEN, f"{first:g} and {second:g} mm were read: they agree.")


def judged_all(criticals: tuple[Critical, ...], records: Iterable[Record], practice: Practice) -> tuple[Judged, ...]:
    """Every dimension with its readings; the two diagonals of a cut-out are held against each other too.

    Args:
        criticals: Every line that others stand on.
        records: The log, oldest first.
        practice: The practice of the job.
    """
    readings = _readings(criticals, records)
    judgements = [_judge(critical, readings.get(critical.key, []), practice) for critical in criticals]
    return _square(judgements, practice)


def _square(judged: Sequence[Judged], practice: Practice) -> tuple[Judged, ...]:
    """A cut-out whose diagonals differ by more than the tolerance is out of square, be each in its tolerance or not."""
    known: Mapping[str, Judged] = {judgement.critical.key: judgement for judgement in judged}
    judgements = []
    for judgement in judged:
        twin = known.get(judgement.critical.twin)
        if judgement.gate is Gate.OPEN and twin and twin.readings:
            apart = abs(judgement.readings[-1][0] - twin.readings[-1][0])
            if apart > practice.reading_tolerance + 1e-9:
                text = f"The diagonals differ by {apart:.1f} mm: the cut-out is out of square. Mark it again."
                judgement = Judged(judgement.critical, judgement.readings, Gate.DISAGREE, text)
        judgements.append(judgement)
    return tuple(judgements)


def closed_for(key: str, judged: Iterable[Judged]) -> tuple[Judged, ...]:
    """The dimensions that keep a hole or piece from being cut.

    Args:
        key: The key of a sized value, such as “m1.breaker”.
        judged: How each was judged.
    """
    return tuple(
        judgement for judgement in judged if key in judgement.critical.guards and judgement.gate is not Gate.OPEN
    )
