"""What is cut and what is drilled: rail, duct and lids by piece, holes from the datum."""

from riktig.core.circuit import Names
from riktig.core.geometry import Point
from riktig.core.job import Fixing, Practice, ShaftFitting
from riktig.core.plate.model import DoorPlan, Duct, Hole, Layout, Piece, Rail
from riktig.core.standards import self_drilling_point, tapped_hole

__all__ = ["cut_list", "hole_list"]

RAIL_END, RAIL_PITCH = 25.0, 250.0
"""First rail screw from the end and largest pitch (common practice, no source)."""
DUCT_END, DUCT_PITCH = 40.0, 300.0
"""First duct screw from the end and largest pitch (common practice, no source)."""
SCREW = "M5"
SELF_DRILLER = "ST4.8"
BUSBAR_HOLE, BUSBAR_APART = 10.0, 60.0
"""Of a busbar's two supports: the holes from its ends, and from each other (common size, no source)."""


def cut_list(layout: Layout, lid_gap: float) -> tuple[Piece, ...]:
    """Rail, duct and lids, each piece by its name.

    The lids of level ducts run between the uprights, a little shorter, so that they do not bow them.
    """
    rails = [Piece(rail.name, "rail 35 × 7.5", rail.length, f"at {rail.y:g} mm from the top") for rail in layout.rails]
    wide = {duct.name: duct.rect.width if duct.upright else duct.rect.height for duct in layout.ducts}
    ducts = [
        Piece(d.name, f"slotted duct {wide[d.name]:g} × 60", d.length, "upright" if d.upright else "level")
        for d in layout.ducts
    ]
    lids = [
        Piece(
            f"{d.name} lid",
            f"lid {wide[d.name]:g}",
            round(d.length - (0.0 if d.upright else lid_gap), 1),
            f"on {d.name}",
        )
        for d in layout.ducts
    ]
    return (*rails, *ducts, *lids)


def hole_list(layout: Layout, door: DoorPlan, practice: Practice, names: Names) -> tuple[Hole, ...]:
    """Every hole of plate and door, from the datum in the upper left corner of each, numbered
    row by row as the person with the scribe goes."""
    plate: list[tuple[Point, str, str]] = []
    for rail in layout.rails:
        plate += [(point, rail.name, SCREW) for point in _along_rail(rail)]
    for duct in layout.ducts:
        plate += [(point, duct.name, SCREW) for point in _along_duct(duct)]
    for seat in layout.seats:
        for hole in seat.part.holes if seat.rail == 0 else ():
            at = Point(seat.rect.x + hole.x, seat.rect.y + hole.y)
            plate.append((at, names.tag[seat.device], hole.thread))
        if seat.device.endswith("E.plate"):
            plate.append((seat.rect.centre, names.tag[seat.device], seat.part.screw))
    for stand in layout.stands:
        if stand.rail == 0 and len(stand.block.devices) > 1 and not any(m[1].holes for m in stand.block.members):
            for x in (stand.x + BUSBAR_HOLE, stand.body.right - BUSBAR_HOLE):
                for y in (stand.body.centre.y - BUSBAR_APART / 2, stand.body.centre.y + BUSBAR_APART / 2):
                    plate.append((Point(x, y), f"busbar of {names.tag[stand.block.lead]}", SCREW))
    plate.sort(key=lambda one: (round(one[0].y, 1), round(one[0].x, 1)))
    holes = [
        _plate_hole(f"P{n}", point, purpose, thread, practice) for n, (point, purpose, thread) in enumerate(plate, 1)
    ]
    door_holes = sorted(
        [(Point(s.x, s.y), s.hole, names.tag[s.device], s.part.kind.family) for s in door.seats]
        + [(door.stud, tapped_hole("M6").clearance, "door bond", "stud")],
        key=lambda one: (one[0].y, one[0].x),
    )
    site = practice.shaft is ShaftFitting.SITE
    for n, (point, drill, purpose, kind) in enumerate(door_holes, 1):
        note = ""
        if kind == "isolator":
            note = "on site, from the hung panel" if site else "measure the shaft centre twice"
        elif kind != "stud":
            note = "key recess up"
        holes.append(Hole(f"H{n}", "door", point.x, point.y, drill, "", purpose, note))
    return tuple(holes)


def _plate_hole(number: str, point: Point, purpose: str, thread: str, practice: Practice) -> Hole:
    x, y = round(point.x, 1), round(point.y, 1)
    if practice.fixing is Fixing.SELF_DRILLING and thread == SCREW and purpose[0] in "RD":
        point_mm = self_drilling_point(SELF_DRILLER).value
        note = f"{SELF_DRILLER}, point {point_mm:g} mm: centre-punch only"
        return Hole(number, "plate", x, y, point_mm, "", purpose, note)
    drill = tapped_hole(thread)
    return Hole(number, "plate", x, y, drill.tap_drill, thread, purpose)


def _along(length: float, end: float, pitch: float) -> list[float]:
    """Distances of screws along a piece: ``end`` from both ends, never further than ``pitch``."""
    end = min(end, length / 4)
    span = length - 2 * end
    gaps = max(int(-(-span // pitch)), 1)
    return [end + span * n / gaps for n in range(gaps + 1)]


def _along_rail(rail: Rail) -> list[Point]:
    return [Point(rail.x1 + d, rail.y) for d in _along(rail.length, RAIL_END, RAIL_PITCH)]


def _along_duct(duct: Duct) -> list[Point]:
    middle = duct.rect.centre
    steps = _along(duct.length, DUCT_END, DUCT_PITCH)
    if duct.upright:
        return [Point(middle.x, duct.rect.y + d) for d in steps]
    return [Point(duct.rect.x + d, middle.y) for d in steps]
