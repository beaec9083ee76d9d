"""What is cut: rail, duct, lids and busbars by piece."""

from riktig.core.plate.model import DUCT_DEPTH, Layout, Piece

__all__ = ["cut_list"]


def cut_list(layout: Layout, lid_gap: float) -> tuple[Piece, ...]:
    """Rail, duct, lids and busbars, each piece by its name.

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
    bars = [
        Piece(f"B{n}.{line}", system.bar_name, system.width, f"line {line} of the {len(system.adapters)} adapters")
        for n, system in enumerate((s.block.bars for s in layout.stands if s.block.bars), 1)
        for line in range(1, system.lines + 1)
    ]
    return (*rails, *ducts, *lids, *bars)
