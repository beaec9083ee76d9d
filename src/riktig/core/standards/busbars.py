"""What a copper busbar carries, and what a comb does."""

from dataclasses import dataclass

from riktig.core.standards.figures import Figure
from riktig.core.standards.tables import table

__all__ = ["Busbar", "CombSection", "busbar_current", "busbar_for", "comb_for", "most_of_comb"]

AMPS_PER_SQUARE_INCH = 1000.0
MM2_PER_SQUARE_INCH = 25.4**2


@dataclass(frozen=True, slots=True)
class Busbar:
    """A flat copper bar: its sides, mm, and what it carries, A."""

    width: float
    thick: float
    carries_a: float

    @property
    def name(self) -> str:
        """“20 × 5”."""
        return f"{self.width:g} × {self.thick:g}"


@dataclass(frozen=True, slots=True)
class CombSection:
    """The copper of a comb, mm², and what it carries when it is fed at one end, A."""

    mm2: float
    carries_a: float


def comb_for(amps: float, *, north_american: bool) -> CombSection | None:
    """The smallest comb that carries a current; None where none is known to.

    In North America a comb is a marked part: nothing is assumed of it, its marking must be looked at.

    Source:
        ``comb_sections.csv``: common ratings of the IEC market, no standard, from memory.

    Args:
        amps: What flows into it at its infeed, A.
        north_american: Whether the panel is built by UL 508A.
    """
    if north_american:
        return None
    sections = (CombSection(float(row["mm2"]), float(row["amps"])) for row in table("comb_sections").rows)
    return next((section for section in sections if section.carries_a >= amps - 1e-9), None)


def most_of_comb() -> float:
    """What the thickest comb of the table carries, A."""
    return max(float(row["amps"]) for row in table("comb_sections").rows)


def busbar_current(width: float, thick: float, *, north_american: bool) -> Figure | None:
    """What a bare copper bar carries, A; None of a bar that the table does not have.

    Source:
        DIN 43671 with 35 °C round the bar; in North America 1000 A a square inch without a test of its heating
        (UL 508A, busbars). Both from memory.

    Args:
        width: Of the bar, mm.
        thick: Of the bar, mm.
        north_american: Whether the panel is built by UL 508A.
    """
    sizes = table("busbar_sections")
    row = next((r for r in sizes.rows if (float(r["width_mm"]), float(r["thick_mm"])) == (width, thick)), None)
    if row is None:
        return None
    if north_american:
        amps = width * thick / MM2_PER_SQUARE_INCH * AMPS_PER_SQUARE_INCH
        return Figure(round(amps, 1), "UL 508A, busbars: 1000 A a square inch of copper, from memory", "fairly sure")
    return Figure(float(row["amps"]), sizes.source, row["confidence"])


def busbar_for(amps: float, *, north_american: bool) -> Busbar | None:
    """The smallest bar of the table that carries a current; None where the thickest does not.

    Args:
        amps: What it must carry, A.
        north_american: Whether the panel is built by UL 508A.
    """
    for row in table("busbar_sections").rows:
        width, thick = float(row["width_mm"]), float(row["thick_mm"])
        figure = busbar_current(width, thick, north_american=north_american)
        if figure and figure.value >= amps - 1e-9:
            return Busbar(width, thick, figure.value)
    return None
