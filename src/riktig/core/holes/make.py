"""Every hole of plate, doors and sides, from the datum of each."""

from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import replace
from typing import NamedTuple

from riktig.core.catalogue import Can
from riktig.core.door import DoorPlan, diagonal
from riktig.core.geometry import Point
from riktig.core.holes.model import Hole, HoleSurface, Tool
from riktig.core.ids import role_of
from riktig.core.job import (
    DoorHoles,
    Enclosure,
    EntrySide,
    Fixing,
    NameplateFixing,
    Opening,
    Practice,
    ShaftFitting,
    Surface,
)
from riktig.core.keys import DeviceKey, DuctKey, Key, OpeningKey, PartKey, RailKey
from riktig.core.plate import HOLDER_WIDTH, Duct, Layout, Rail, Stand
from riktig.core.schematic import BOX_BOND, Names
from riktig.core.standards import fitting_class, self_drilling_point, tapped_hole

__all__ = ["hole_list", "numbered", "sheets_of"]

RAIL_END, RAIL_PITCH = 25.0, 250.0
"""First rail screw from the end and largest pitch (common practice, no source)."""
DUCT_END, DUCT_PITCH = 40.0, 300.0
"""First duct screw from the end and largest pitch (common practice, no source)."""
SCREW = "M5"
SELF_DRILLER = "ST4.8"
HOLDER_HOLES_APART = 60.0
"""Between the two holes of what holds busbars, mm (common size, no source)."""
RIVET, RIVET_INSET = 3.3, 5.0
"""Hole for a 3.2 mm blind rivet, and how far the nameplate's holes are from its edges (common size, no source)."""
GLAND_EDGE, GLAND_DEEP = 50.0, 150.0
"""What of the box's width the gland plate leaves on each side, and how deep it is at most (chosen by us)."""
LETTERS = {
    Surface.PLATE: "P",
    Surface.DOOR: "DH",
    Surface.LEFT_DOOR: "DL",
    Surface.RIGHT_DOOR: "DR",
    Surface.GLAND: "GH",
    Surface.TOP_GLAND: "GT",
    Surface.LEFT_SIDE: "SL",
    Surface.RIGHT_SIDE: "SR",
}


def sheets_of(enclosure: Enclosure, door: DoorPlan) -> tuple[HoleSurface, ...]:
    """What can be drilled: plate, door or doors, gland plates where cables come in, and the sides.

    Args:
        enclosure: The enclosure.
        door: The doors with what is fitted in them.
    """
    box = enclosure
    surfaces = [HoleSurface(Surface.PLATE.value, box.plate_width, box.plate_height, LETTERS[Surface.PLATE])]
    surfaces += [
        HoleSurface(leaf.name, leaf.face.width, leaf.face.height, LETTERS[Surface(leaf.name)]) for leaf in door.leaves
    ]
    deep = min(max(box.depth - 2 * GLAND_EDGE, 60.0), GLAND_DEEP)
    entries = {box.entry, box.field_entry}
    for surface, side in ((Surface.GLAND, EntrySide.BOTTOM), (Surface.TOP_GLAND, EntrySide.TOP)):
        if side in entries:
            surfaces.append(HoleSurface(surface.value, max(box.width - 2 * GLAND_EDGE, 50.0), deep, LETTERS[surface]))
    for surface in (Surface.LEFT_SIDE, Surface.RIGHT_SIDE):
        surfaces.append(HoleSurface(surface.value, box.depth, box.height, LETTERS[surface]))
    return tuple(surfaces)


def hole_list(
    layout: Layout,
    door: DoorPlan,
    enclosure: Enclosure,
    practice: Practice,
    openings: tuple[Opening, ...],
    names: Names,
) -> tuple[Hole, ...]:
    """Every hole but those of the glands, numbered row by row on each surface as the person with the scribe goes.

    Args:
        layout: The plate: where everything stands.
        door: The doors with what is fitted in them.
        enclosure: The enclosure.
        practice: The practice of the job.
        openings: Holes of the builder's own.
        names: Tags of devices and numbers of nets.
    """
    bare = [*_plate(layout, practice, names), *_door(door, practice, names), *_own_openings(openings, practice)]
    return numbered(bare, sheets_of(enclosure, door))


def numbered(bare: Iterable[Hole], sheets: Iterable[HoleSurface]) -> tuple[Hole, ...]:
    """Holes with their numbers: by surface, row by row.

    Args:
        bare: Holes without numbers.
        sheets: All surfaces that holes are made in.
    """
    given = list(bare)
    holes: list[Hole] = []
    known = [sheet.name for sheet in sheets]
    letters = {sheet.name: sheet.letters for sheet in sheets}
    for name in [*known, *sorted({hole.face for hole in given} - set(known))]:
        on_surface = sorted((h for h in given if h.face == name), key=lambda h: (round(h.y, 1), round(h.x, 1), h.key))
        first = letters.get(name) or LETTERS[Surface(name)]
        holes += [replace(hole, number=f"{first}{n}") for n, hole in enumerate(on_surface, 1)]
    return tuple(holes)


def _plate(layout: Layout, practice: Practice, names: Names) -> Iterator[Hole]:
    key = _Counted()
    yield from _rails_and_ducts(layout, practice, key)
    yield from _screwed_parts(layout, names, key)
    for stand in layout.stands:
        yield from _bar_holders(stand, names, key)


class _Counted:
    """Keys of holes: whom they belong to, and a running number of each owner."""

    def __init__(self) -> None:
        self._counts: Counter[str] = Counter()

    def __call__(self, owner: Key | str) -> str:
        self._counts[str(owner)] += 1
        return f"{owner}#{self._counts[str(owner)]}"


def _rails_and_ducts(layout: Layout, practice: Practice, key: _Counted) -> Iterator[Hole]:
    pieces: list[tuple[Point, str, Key]] = []
    for rail in layout.rails:
        pieces += [(point, rail.name, RailKey(rail.name)) for point in _along_rail(rail)]
    for duct in layout.ducts:
        pieces += [(point, duct.name, DuctKey(duct.name)) for point in _along_duct(duct)]
    for point, name, piece in pieces:
        if practice.fixing is Fixing.SELF_DRILLING:
            drill = self_drilling_point(SELF_DRILLER).value
            note = f"{SELF_DRILLER}, point {drill:g} mm: centre-punch only"
            yield _hole(Surface.PLATE, point, _Cut(drill, Tool.SCREW), _For(key(piece), piece, name, note))
        else:
            yield _tapped(point, SCREW, name, key(piece), piece)


def _screwed_parts(layout: Layout, names: Names, key: _Counted) -> Iterator[Hole]:
    for seat in layout.seats:
        where, tag = DeviceKey(seat.device), names.tag[seat.device]
        for spot in seat.part.holes if seat.rail == 0 and not seat.raised else ():
            at = Point(seat.rect.x + spot.x, seat.rect.y + spot.y)
            yield _tapped(at, spot.thread, tag, key(where), where)
        if seat.part.kind.can(Can.EARTH_STUD) and role_of(seat.device) != BOX_BOND and seat.part.screw:
            yield _tapped(seat.rect.centre, seat.part.screw, tag, key(where), where)


def _bar_holders(stand: Stand, names: Names, key: _Counted) -> Iterator[Hole]:
    where, name = DeviceKey(stand.block.lead), f"busbar of {names.tag[stand.block.lead]}"
    middle = stand.y + stand.block.above
    for holder in stand.block.bars.holders if stand.block.bars else ():
        x = stand.x + holder + HOLDER_WIDTH / 2
        for y in (middle - HOLDER_HOLES_APART / 2, middle + HOLDER_HOLES_APART / 2):
            yield _tapped(Point(x, y), SCREW, name, key(f"{where}/busbar"), where)


def _door(door: DoorPlan, practice: Practice, names: Names) -> Iterator[Hole]:
    site = practice.shaft is ShaftFitting.SITE
    tool = Tool.PUNCH if practice.door_holes is DoorHoles.PUNCH else Tool.HOLE_SAW
    for seat in door.seats:
        leaf = door.leaf(seat.leaf)
        surface, at = Surface(seat.leaf), Point(seat.x - leaf.face.x, seat.y)
        where, tag = DeviceKey(seat.device), names.tag[seat.device]
        family = seat.part.kind.family
        rating = fitting_class(family)
        cut = seat.cut
        if cut:
            note = f"square when both diagonals are {diagonal(cut.width, cut.height):.1f} mm"
            yield Hole(
                "", surface.value, round(at.x, 1), round(at.y, 1), 0.0, "", tag, note, Tool.CUT, cut.width, cut.height,
                f"{where}#1", where, rating,
            )  # fmt: skip
            continue
        note = "key recess up"
        if seat.is_shaft:
            note = "on site, from the hung panel" if site else "measure the shaft centre twice"
        yield _hole(surface, at, _Cut(seat.hole, tool), _For(f"{where}#1", where, tag, note, rating))
    sealed = fitting_class("sealed")
    for leaf, stud in zip(door.leaves, door.studs, strict=True):
        name = "door bond" if len(door.leaves) == 1 else f"bond of the {leaf.name}"
        at = Point(stud.x - leaf.face.x, stud.y)
        clear, key = tapped_hole("M6").clearance, f"{leaf.name}/bond#1"
        yield _hole(Surface(leaf.name), at, _Cut(clear, Tool.DRILL), _For(key, None, name, rating=sealed))
    if practice.nameplate is NameplateFixing.RIVETED:
        plate = door.nameplate.grown(-RIVET_INSET)
        surface = Surface(door.leaves[0].name)
        corners = [(plate.x, plate.y), (plate.right, plate.y), (plate.x, plate.bottom), (plate.right, plate.bottom)]
        for n, (x, y) in enumerate(corners, 1):
            note = "sealed blind rivet"
            key = f"nameplate#{n}"
            whom = _For(key, PartKey("nameplate"), "nameplate", note, sealed)
            yield _hole(surface, Point(x, y), _Cut(RIVET, Tool.DRILL), whom)


def _own_openings(openings: Iterable[Opening], practice: Practice) -> Iterator[Hole]:
    large = Tool.PUNCH if practice.door_holes is DoorHoles.PUNCH else Tool.HOLE_SAW
    for n, opening in enumerate(openings, 1):
        at, key = Point(opening.x, opening.y), OpeningKey(n)
        if opening.height:
            yield Hole(
                "", opening.surface.value, round(at.x, 1), round(at.y, 1), 0.0, "", opening.purpose, "", Tool.CUT,
                opening.width, opening.height, str(key), key, opening.rating,
            )  # fmt: skip
        else:
            tool = large if opening.width > LARGEST_DRILL else Tool.DRILL
            yield _hole(
                opening.surface, at, _Cut(opening.width, tool), _For(str(key), key, opening.purpose, "", opening.rating)
            )


LARGEST_DRILL = 13.0
"""What a hand drill's chuck takes, mm (common size, no source)."""


class _Cut(NamedTuple):
    """How a hole is made: its diameter, mm, the tool, and the thread where it is tapped."""

    drill: float
    tool: Tool
    tap: str = ""


class _For(NamedTuple):
    """Whom a hole is for: the key of the hole, its owner, the purpose, a note, and the rating it must keep."""

    key: str
    owner: Key | None
    purpose: str
    note: str = ""
    rating: str = ""


def _hole(surface: Surface, at: Point, cut: _Cut, whom: _For) -> Hole:
    return Hole(
        "", surface.value, round(at.x, 1), round(at.y, 1), cut.drill, cut.tap, whom.purpose, whom.note, cut.tool, 0.0,
        0.0, whom.key, whom.owner, whom.rating,
    )  # fmt: skip


def _tapped(at: Point, thread: str, purpose: str, key: str, where: Key | None) -> Hole:
    drill = tapped_hole(thread).tap_drill
    return _hole(Surface.PLATE, at, _Cut(drill, Tool.TAP, thread), _For(key, where, purpose))


def _along(length: float, end: float, pitch: float) -> list[float]:
    """Distances of screws along a piece: ``end`` from both ends, never further than ``pitch``; whole mm between."""
    end = min(end, length / 4)
    span = length - 2 * end
    gaps = max(int(-(-span // pitch)), 1)
    return [end if n == 0 else length - end if n == gaps else round(end + span * n / gaps) for n in range(gaps + 1)]


def _along_rail(rail: Rail) -> list[Point]:
    return [Point(rail.x1 + d, rail.y) for d in _along(rail.length, RAIL_END, RAIL_PITCH)]


def _along_duct(duct: Duct) -> list[Point]:
    middle = duct.rect.centre
    steps = _along(duct.length, DUCT_END, DUCT_PITCH)
    if duct.upright:
        return [Point(middle.x, duct.rect.y + d) for d in steps]
    return [Point(duct.rect.x + d, middle.y) for d in steps]
