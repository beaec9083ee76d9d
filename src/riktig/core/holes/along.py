"""The screws of each rail and duct, measured along the piece itself."""

from collections.abc import Iterable, Mapping

from riktig.core.holes.model import Hole
from riktig.core.keys import DuctKey, RailKey
from riktig.core.plate import Layout

__all__ = ["along_pieces"]


def along_pieces(holes: Iterable[Hole], layout: Layout) -> Mapping[str, tuple[float, ...]]:
    """How far each screw of a piece is from its left end, of an upright from its upper end, mm; by the piece's name.

    Args:
        holes: Those of the plate.
        layout: The plate: where rails and ducts lie.
    """
    along: dict[str, list[float]] = {}
    rails = {rail.name: rail for rail in layout.rails}
    ducts = {duct.name: duct for duct in layout.ducts}
    for hole in holes:
        if isinstance(hole.where, RailKey) and hole.where.name in rails:
            along.setdefault(hole.where.name, []).append(hole.x - rails[hole.where.name].x1)
        elif isinstance(hole.where, DuctKey) and hole.where.name in ducts:
            duct = ducts[hole.where.name]
            at = hole.y - duct.rect.y if duct.upright else hole.x - duct.rect.x
            along.setdefault(duct.name, []).append(at)
    return {name: tuple(sorted(round(at, 1) for at in places)) for name, places in along.items()}
