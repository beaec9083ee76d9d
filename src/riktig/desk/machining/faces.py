"""The surfaces that can be worked on, and how each is drawn."""

from riktig.core.door import DOOR, DOOR_DRAWING
from riktig.core.geometry import Drawing, Point
from riktig.core.holes import HOLES, METAL_HOLES, SHEETS, Hole, HoleSurface, draw_sheet, mark_out
from riktig.core.plate import RULER
from riktig.core.wiring import PLATE_DRAWING
from riktig.desk.session import Session

__all__ = ["face_drawing", "faces_with_holes", "holes_on", "origin_of", "sheet_of"]


def holes_on(session: Session, face: str) -> tuple[Hole, ...]:
    """The holes of one surface; only those of a gland plate wait for the wires."""
    holes = session.evaluation.get(HOLES if "gland" in face else METAL_HOLES)
    return tuple(hole for hole in holes if hole.face == face)


def faces_with_holes(session: Session) -> list[str]:
    """Plate, doors and gland plates, and the sides when something is in them."""
    used = {hole.face for hole in session.evaluation.get(METAL_HOLES)}
    return [sheet.name for sheet in session.evaluation.get(SHEETS) if "side" not in sheet.name or sheet.name in used]


def sheet_of(session: Session, face: str) -> HoleSurface:
    """The surface of that name; the plate when this box has none of the name."""
    sheets = session.evaluation.get(SHEETS)
    return next((sheet for sheet in sheets if sheet.name == face), sheets[0])


def origin_of(session: Session, face: str) -> Point:
    """Where the surface's datum is on its drawing, mm."""
    leaf = next((leaf for leaf in session.evaluation.get(DOOR).leaves if leaf.name == face), None)
    return Point(RULER + (leaf.face.x if leaf else 0.0), RULER)


def face_drawing(session: Session, face: str) -> Drawing:
    """The surface marked out, with numbers but without words that are in the way of the large ones."""
    evaluation = session.evaluation
    doors = {leaf.name: leaf.face.x for leaf in evaluation.get(DOOR).leaves}
    if face == "plate":
        bare, left = evaluation.get(PLATE_DRAWING), 0.0
    elif face in doors:
        bare, left = evaluation.get(DOOR_DRAWING), doors[face]
    else:
        bare, left = draw_sheet(sheet_of(session, face)), 0.0
    return mark_out(bare, holes_on(session, face), face, left, places=False)
