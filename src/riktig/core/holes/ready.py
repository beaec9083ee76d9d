"""Whether a surface is ready to drill: nothing may be left without a place, a size or its holes."""

from collections.abc import Iterable
from dataclasses import dataclass

from riktig.core.catalogue import Can, Mounting
from riktig.core.door import DoorPlan
from riktig.core.holes.glands import Entries
from riktig.core.holes.model import Hole, HoleSurface
from riktig.core.job import Surface
from riktig.core.keys import DeviceKey, HoleKey, Key
from riktig.core.plate import Layout
from riktig.core.schematic import Circuits, Names, Zone
from riktig.core.sizing import Sizing

__all__ = ["Blocker", "MetalWork", "blockers_of", "crossing_holes", "gland_blockers", "holes_off_the_sheet"]

WEB = 3.0
"""Least metal between two holes, mm (chosen by us: less tears or lets the drill wander)."""


@dataclass(frozen=True, slots=True)
class Blocker:
    """What keeps a surface from being drilled: what is wrong, what to select to see it, what would mend it."""

    face: str
    text: str
    where: Key | None
    remedy: str
    by_planning: bool = False


@dataclass(frozen=True, slots=True, eq=False)
class MetalWork:
    """What is to be made in plate, door and sides, and what for."""

    circuits: Circuits
    sizing: Sizing
    layout: Layout
    door: DoorPlan
    holes: tuple[Hole, ...]
    sheets: tuple[HoleSurface, ...]
    """All surfaces that holes are made in."""
    names: Names


def blockers_of(work: MetalWork) -> tuple[Blocker, ...]:
    """Everything that keeps plate, door and sides from being drilled."""
    door, holes = work.door, work.holes
    owned = {hole.where for hole in holes}
    first_door = door.leaves[0].name
    blockers: list[Blocker] = []
    for device in work.circuits.devices:
        if device.zone is Zone.FIELD:
            continue
        tag, where = work.names.tag[device.id], DeviceKey(device.id)
        part = work.sizing.parts[device.id]
        placed = work.layout.seat(device.id) is not None or door.seat(device.id) is not None
        sized = min(part.width, part.height, part.depth) > 0
        on_the_door = device.zone is Zone.DOOR
        face = first_door if on_the_door else Surface.PLATE.value
        if not placed and not (on_the_door and device.kind.can(Can.EARTH_STUD)):
            text = f"{tag} has no {'place' if sized else 'size'}, so nothing can be drilled."
            remedy = "Plan the plate." if sized else "Give its part width, height and depth."
            blockers.append(Blocker(face, text, where, remedy, by_planning=sized))
        elif device.kind.mounting in (Mounting.SCREWED, Mounting.DOOR) and where not in owned:
            text = f"{tag} is screwed but has no hole on the list."
            blockers.append(Blocker(face, text, where, "Place it on the plate or door, or give its part holes."))
    blockers += holes_off_the_sheet(holes, work.sheets)
    blockers += crossing_holes(holes)
    return tuple(blockers)


def gland_blockers(entries: Entries) -> tuple[Blocker, ...]:
    """Cables without a gland that fits, or without room for it."""
    blockers = [
        Blocker(
            Surface.GLAND.value,
            f"No gland or hub holds {entry.cable}, which is about {entry.diameter:g} mm thick.",
            DeviceKey(entry.device),
            "Lead it in by single cores or another way.",
        )
        for entry in entries.entries
        if entry.fitting is None
    ]
    blockers += [
        Blocker(
            Surface.GLAND.value,
            f"There is no room for the gland of {cable} on its gland plate.",
            next(DeviceKey(entry.device) for entry in entries.entries if entry.cable == cable),
            "Take a wider or deeper box, or bring cables in from the other side too.",
        )
        for cable in entries.crowded
    ]
    return tuple(blockers)


def holes_off_the_sheet(holes: Iterable[Hole], sheets: Iterable[HoleSurface]) -> list[Blocker]:
    """Holes that reach past the edge of their surface, or are on none that this box has.

    Args:
        holes: The holes.
        sheets: All surfaces that holes are made in.
    """
    rects = {sheet.name: sheet.rect for sheet in sheets}
    blockers = []
    for hole in holes:
        rect = rects.get(hole.face)
        out = hole.outline.sticks_out_of(rect) if rect else 0.0
        if rect is None or out:
            text = (
                f"The hole for {hole.purpose} reaches {out:.0f} mm past the edge of the {hole.face}."
                if rect
                else f"The hole for {hole.purpose} is in a {hole.face}, which this box does not have."
            )
            blockers.append(Blocker(hole.face, text, hole.where or HoleKey(hole.number), "Move it onto the surface."))
    return blockers


def crossing_holes(holes: Iterable[Hole]) -> list[Blocker]:
    """Holes that cut into each other or leave too little metal between them."""
    by_face: dict[str, list[Hole]] = {}
    for hole in holes:
        by_face.setdefault(hole.face, []).append(hole)
    blockers = []
    for face, on_face in by_face.items():
        outlines = sorted(((hole.outline, hole) for hole in on_face), key=lambda outlined: outlined[0].x)
        for n, (box, hole) in enumerate(outlines):
            for theirs, other in outlines[n + 1 :]:
                if theirs.x > box.right + WEB:
                    break
                if theirs.y > box.bottom + WEB or box.y > theirs.bottom + WEB:
                    continue
                left = _metal_between(hole, other)
                if left < WEB - 0.01:
                    how = f"leave {left:.1f} mm of metal" if left > 0 else f"cut {-left:.1f} mm into each other"
                    text = f"The holes for {hole.purpose} and {other.purpose} {how}."
                    where = other.where or hole.where
                    blockers.append(Blocker(face, text, where, f"Move one of them: {WEB:g} mm of metal must stay."))
    return blockers


def _metal_between(hole: Hole, other: Hole) -> float:
    """Metal between the edges of two holes, mm; negative when they cut into each other."""
    a, b = hole.outline, other.outline
    if not hole.is_cut_out and not other.is_cut_out:
        return float(((hole.x - other.x) ** 2 + (hole.y - other.y) ** 2) ** 0.5 - (hole.drill + other.drill) / 2)
    dx, dy = max(a.x - b.right, b.x - a.right), max(a.y - b.bottom, b.y - a.bottom)
    if dx > 0 and dy > 0:
        return float((dx * dx + dy * dy) ** 0.5)
    return max(dx, dy)
