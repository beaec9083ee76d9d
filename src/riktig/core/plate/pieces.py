"""What is cut: rail, duct and lids by piece."""

from riktig.core.plate.model import DUCT_DEPTH, Layout, Piece

__all__ = ["cut_list"]


def cut_list(layout: Layout, lid_gap: float) -> tuple[Piece, ...]:
    """Rail, duct and lids, each piece by its name.

    The lids of level ducts run between the uprights, a little shorter, so that they do not bow them.
    """
    rails = [Piece(rail.name, "rail 35 × 7.5", rail.length, f"at {rail.y:g} mm from the top") for rail in layout.rails]
    wide = {duct.name: duct.rect.width if duct.upright else duct.rect.height for duct in layout.ducts}
    ducts = [
        Piece(d.name, f"slotted duct {wide[d.name]:g} × {DUCT_DEPTH:g}", d.length, "upright" if d.upright else "level")
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
