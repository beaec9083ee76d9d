"""A comb: what joins the inlets of guards that stand side by side, and what it must carry."""

from dataclasses import dataclass

from riktig.core.standards import CombSection

__all__ = ["Comb"]


@dataclass(frozen=True, slots=True)
class Comb:
    """What flows into a comb at its infeed, A, and the section that carries it.

    ``section`` is None where no section is known that does: the largest is too thin, or no figure can be assumed.
    """

    amps: float
    section: CombSection | None

    @property
    def name(self) -> str:
        """“comb 16 mm²”; of one whose section is not known, without it."""
        return f"comb {self.section.mm2:g} mm²" if self.section else "comb"
