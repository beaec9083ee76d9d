"""Whether the feed can be looped from breaker to breaker, or needs distribution blocks."""

from collections.abc import Iterable
from math import sqrt

from riktig.core.catalogue import kind, parts_of
from riktig.core.job import Load, Supply
from riktig.core.schematic.templates.supply_context import SupplyContext
from riktig.core.standards import conductor_current, nec_sizes, panel_conductor_current, standard_sections

__all__ = ["loops_fit", "roughly_carries"]

TERMINALS_C = 60.0
COS_TIMES_ETA = 0.6
"""Of loaded motors, for a first look (common practice, no source)."""


def loops_fit(context: SupplyContext, loads: Iterable[Load], kinds: Iterable[str]) -> bool:
    """Whether a conductor of the feed goes into the clamps of all that it would be looped through.

    A first look before anything is sized, at 40 °C and with the smallest frame of each kind: what does not fit all the
    same is said by the rule on clamps.

    Args:
        context: The supply and the practice.
        loads: The loads of the job.
        kinds: The kinds of breakers and fuses that hang on the feed.
    """
    clamps = [parts_of(name)[0].power.max_mm2 for name in kinds if kind(name).is_protective]
    return len(clamps) == 0 or _feed_mm2(context, loads) <= min(clamps) + 1e-9


def _feed_mm2(context: SupplyContext, loads: Iterable[Load]) -> float:
    """The section that carries what the protection upstream lets through and all loads, mm²; the largest beyond it."""
    amps = max(context.supply.upstream_a, sum(_roughly(load, context.supply) for load in loads))
    return roughly_carries(amps, north_american=context.north_american)


def roughly_carries(amps: float, *, north_american: bool) -> float:
    """The section that carries a current in a panel at 40 °C, mm²; the largest beyond it: a first look."""
    if north_american:
        sizes = nec_sizes()
        return next((mm2 for mm2 in sizes if panel_conductor_current(mm2, TERMINALS_C).value >= amps), sizes[-1])
    sections = standard_sections()
    return next((mm2 for mm2 in sections if conductor_current(mm2).value >= amps), sections[-1])


def _roughly(load: Load, supply: Supply) -> float:
    """What a load draws, A, near enough to choose between loops and blocks."""
    if load.nameplate_a is not None:
        return load.nameplate_a
    lines = sqrt(3) if load.phases == 3 else 1.0
    return (load.output_kw or 0.0) * 1000 / (lines * (load.voltage_v or supply.voltage_of(load.phases)) * COS_TIMES_ETA)
