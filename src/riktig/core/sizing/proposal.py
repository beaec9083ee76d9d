"""The whole proposal: what is sized, the heat of the parts, and the room they take."""

from dataclasses import dataclass

from riktig.core.catalogue import first_of_kind
from riktig.core.job import Load, Override, Start
from riktig.core.sizing.electrical import Brief, ElectricalProposal, basis_of
from riktig.core.sizing.heat import Heat, size_heat
from riktig.core.sizing.inside_air import InsideAir
from riktig.core.sizing.value import Value

__all__ = ["Proposal", "propose"]

END_STOPS = 19.0
"""Two end stops of a strip, mm (common practice, no source)."""


@dataclass(frozen=True, slots=True)
class Proposal(ElectricalProposal):
    """The whole proposal: with the heat of the parts, the room, and values of the builder's that lost their hold."""

    heat: Heat
    strayed: tuple[Override, ...]
    """Values of the builder's own that no longer find what they were for."""

    @property
    def panel_values(self) -> tuple[Value, ...]:
        """The values of the panel as a whole, in the order they are shown."""
        return (*self.incoming.values, *self.shared, *self.control.values, *self.heat.values)

    @property
    def shortfall(self) -> tuple[Value, ...]:
        """Values that are not enough."""
        return tuple(value for value in self.values if value.shortfall)

    @property
    def unsure(self) -> tuple[Value, ...]:
        """Values that a figure we are not sure of decided."""
        return tuple(value for value in self.values if value.unsure)


def propose(brief: Brief, electrical: ElectricalProposal, air: InsideAir) -> Proposal:
    """The whole proposal, once the parts are chosen and their heat is known.

    Args:
        brief: What the Brief says.
        electrical: What is sized.
        air: The heat of the parts as they are drawn.
    """
    basis, _ = basis_of(brief.loads, brief.supply, brief.practice, brief.enclosure, brief.overrides)
    heat = size_heat(air, electrical.space, _strip(brief.loads), basis)
    keys = {value.key for value in (*electrical.values, *heat.values) if value.overridden}
    strayed = tuple(override for override in brief.overrides if override.key not in keys)
    e = electrical
    return Proposal(e.loads, e.incoming, e.control, e.shared, e.issues, e.space, e.drawn, heat, strayed)


def _strip(loads: tuple[Load, ...]) -> float:
    """Length of all terminals, mm: those of each load and of the supply, with their end stops."""
    cores = sum(2 * load.phases + 1 if load.start is Start.STAR_DELTA else load.phases + 2 for load in loads)
    return (cores + 5) * first_of_kind("terminal").width + (len(loads) + 1) * END_STOPS
