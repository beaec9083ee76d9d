"""The short-circuit current rating by the procedure of UL 508A supplement SB (from memory: the logic sure).

Every part of the power circuits gets a rating: what it breaks, its marking, a tested combination, else the assumed one.
A feeder's current-limiting fuses may raise parts behind them, never guards. The weakest part rates the panel.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace
from math import sqrt

from riktig.core.ids import DeviceId
from riktig.core.job import Supply, SupplySystem
from riktig.core.short_circuit.model import Basis, Limit, Rating, SharedFeed
from riktig.core.short_circuit.power_paths import PowerPart, PowerPaths
from riktig.core.standards import table

__all__ = ["assumed_ka", "fuse_peak_ka", "rate_north_american"]

COLUMNS = (200.0, 100.0, 50.0)
"""Fault currents for which the let-through of fuses is tabulated, kA."""
HP_KW = 0.746
SMALL_VA, CONTROL_VA, CONTROL_V = 10_000.0, 5_000.0, 120.0
"""Transformers behind which little is asked: to 10 kVA, and to 5 kVA with a secondary of 120 V."""
IMPEDANCE = 0.021
"""Of a transformer where none is marked (UL 508A supplement SB, from memory, fairly sure)."""
BUS_BAR = "bus bar or block"
"""The row of the table of assumed ratings for busbars and combs."""
SMALL_KA, CONTROL_KA = 5.0, 2.0
"""What parts behind them must bear at least, kA."""


def assumed_ka(category: str, hp: float = 0.0) -> float | None:
    """What a part is taken to bear where nothing is marked, kA; None of a category that is not in the table.

    Args:
        category: Of UL 508A table SB4.1.
        hp: Of a motor controller, the power that it is for.
    """
    for row in table("assumed_ratings").rows:
        if row["category"] == category and hp <= float(row["up_to_hp"] or "inf"):
            return float(row["ka"])
    return None


def fuse_peak_ka(guard: str, amps: float, at_ka: float) -> float | None:
    """The peak that a fuse lets through, kA; None of what is no current-limiting fuse in the table.

    Args:
        guard: “class J”, “class CC”.
        amps: Its rated current.
        at_ka: The fault current: 50, 100 or 200 kA.
    """
    for row in table("fuse_let_through").rows:
        if f"class {row['fuse_class']}" == guard and amps <= float(row["up_to_a"]):
            return float(row[f"peak_{at_ka:.0f}"])
    return None


def rate_north_american(
    paths: PowerPaths,
    supply: Supply,
    tags: Mapping[DeviceId, str],
    transformer_v: float = CONTROL_V,
    shared: Sequence[SharedFeed] = (),
) -> Rating:
    """The rating of the panel.

    Args:
        paths: The power circuits with the figures of the North American market.
        supply: Of the panel.
        tags: The tags of devices.
        transformer_v: What the control transformers give.
        shared: Busbars and combs, of which no marking is known.
    """
    judge = _Judge(paths, supply, tags, transformer_v)
    limits = (*judge.limits(), *(_of_shared(feed, tags) for feed in shared))
    known = [limit.ka for limit in limits if limit.ka is not None]
    volts = supply.voltage_v if supply.system is not SupplySystem.ONE else supply.voltage_to_neutral_v
    notes = ("What the main breaker breaks is its own; the panel bears what its weakest part bears.",)
    return Rating(min(known) if known else None, volts, limits, "short-circuit current rating (SCCR)", notes)


def _peak_ka(feeder: PowerPart, at_ka: float) -> float | None:
    """The peak that a feeder's guard lets through: of fuses by their class, of a breaker as its maker gives it."""
    figures = feeder.figures
    if figures.peak_ka:
        return figures.peak_ka if at_ka <= figures.breaks_ka else None
    return fuse_peak_ka(figures.guard, feeder.part.rated_a, at_ka) if at_ka in COLUMNS else None


def _of_shared(feed: SharedFeed, tags: Mapping[DeviceId, str]) -> Limit:
    """Busbars and combs count what the table assumes of a bus bar: nobody gives their marking."""
    ka = assumed_ka(BUS_BAR)
    why = f"The {feed.name} of {tags[feed.first]} has no marking: a {BUS_BAR} counts {ka:g} kA."
    return Limit(feed.first, ka, Basis.ASSUMED, why, is_feeder=True)


class _Judge:
    def __init__(self, paths: PowerPaths, supply: Supply, tags: Mapping[DeviceId, str], transformer_v: float) -> None:
        self._paths, self._supply, self._tags = paths, supply, tags
        self._transformer_v = transformer_v

    def limits(self) -> tuple[Limit, ...]:
        """Of every part, those of feeders first as the current reaches them."""
        parts = [part for part in self._paths.parts if not part.is_transformer]
        own_limits = {part.id: self._own_limit(part, part.volts(self._supply)) for part in parts}
        raised = dict(own_limits)
        for feeder in parts:
            if feeder.feeds_guards:
                raised |= self._raised(feeder, own_limits, raised)
        feeders = {part.id for part in parts if part.feeds_guards or not (part.is_guard or self._branch(part))}
        whole = (replace(raised[part.id], is_feeder=part.id in feeders) for part in parts)
        return (*whole, *self._behind_transformers())

    def _branch(self, part: PowerPart) -> PowerPart | None:
        """The branch guard that a part hangs on: the last one ahead, where none hangs behind that."""
        last = self._paths.part(part.ahead[-1]) if part.ahead else None
        return last if last is not None and not last.feeds_guards else None

    def _own_limit(self, part: PowerPart, volts: float) -> Limit:
        """By its own figures, without any feeder's help."""
        return self._of_guard(part, volts) if part.is_guard else self._of_part(part)

    def _of_guard(self, part: PowerPart, volts: float) -> Limit:
        figures, name = part.figures, f"{self._tags[part.id]}, {part.part.ref},"
        if not figures.breaks_ka:
            return Limit(part.id, None, Basis.UNKNOWN, f"{name} has no interrupting rating: ask its maker.")
        if figures.at_v and figures.at_v < volts - 1e-9:
            why = f"{name} is rated for {figures.at_v:g} V, not for {volts:g} V."
            return Limit(part.id, 0.0, Basis.BREAKS, why)
        if figures.slash and not self._is_earthed_star():
            why = f"{name} is rated for a star with its middle earthed; whether this supply is one is not known."
            return Limit(part.id, None, Basis.UNKNOWN, why)
        return Limit(part.id, figures.breaks_ka, Basis.BREAKS, f"{name} interrupts {figures.breaks_ka:g} kA.")

    def _is_earthed_star(self) -> bool:
        return self._supply.system is SupplySystem.THREE and self._supply.neutral

    def _of_part(self, part: PowerPart) -> Limit:
        figures, name = part.figures, f"{self._tags[part.id]}, {part.part.ref},"
        best: list[tuple[float, Basis, str]] = []
        if figures.marked_ka:
            best.append((figures.marked_ka, Basis.MARKED, f"{name} is marked {figures.marked_ka:g} kA."))
        branch = self._branch(part)
        if branch is not None:
            for tested in figures.tested:
                if tested.guard == branch.figures.guard and branch.part.rated_a <= tested.up_to_a:
                    with_what = f"{self._tags[branch.id]} ({tested.guard}, {branch.part.rated_a:g} A)"
                    best.append((tested.ka, Basis.TESTED, f"{name} was tested with {with_what}: {tested.ka:g} kA."))
        if not best and figures.category:
            assumed = assumed_ka(figures.category, self._hp(part))
            if assumed is not None:
                best.append(
                    (assumed, Basis.ASSUMED, f"{name} has no marking: a {figures.category} counts {assumed:g} kA.")
                )
        if not best:
            words = f"{name} has no marking and no assumed value: ask its maker."
            return Limit(part.id, None, Basis.UNKNOWN, words)
        ka, basis, why = max(best, key=lambda entry: entry[0])
        return Limit(part.id, ka, basis, why)

    def _hp(self, part: PowerPart) -> float:
        """The power that a motor controller is for, by its current; a little more than it is."""
        return sqrt(3) * self._supply.voltage_v * part.part.rated_a / 1000 * 0.9 / HP_KW

    def _raised(
        self, feeder: PowerPart, own: Mapping[DeviceId, Limit], now: Mapping[DeviceId, Limit]
    ) -> dict[DeviceId, Limit]:
        """The parts behind a feeder's fuses, where what these let through is no more than any of them bears."""
        behind = [part for part in self._paths.behind(feeder.id) if not part.is_guard and not part.is_transformer]
        bears = [own[part.id].ka for part in behind]
        least = min((ka for ka in bears if ka is not None), default=None)
        if least is None or None in bears:
            return {}
        breaks = own[feeder.id].ka or 0.0
        for column in sorted({*COLUMNS, breaks}, reverse=True):
            peak = _peak_ka(feeder, column)
            if peak is None or peak > least or column > breaks:
                continue
            guard = f"{self._tags[feeder.id]} ({feeder.figures.guard}, {feeder.part.rated_a:g} A)"
            why = f"{guard} lets {peak:g} kA through at {column:g} kA, no more than any part behind it bears."
            return {
                part.id: Limit(part.id, column, Basis.RAISED, why, raised_from=own[part.id].ka)
                for part in behind
                if (now[part.id].ka or 0.0) < column
            }
        return {}

    def _behind_transformers(self) -> Iterator[Limit]:
        """What hangs behind transformers: excepted where they are small and it bears a little."""
        for transformer in (part for part in self._paths.parts if part.is_transformer):
            yield from self._excepted(transformer, self._paths.behind_transformers.get(transformer.id, ()))

    def _excepted(self, transformer: PowerPart, behind: Sequence[PowerPart]) -> Iterator[Limit]:
        va, volts, name = transformer.part.rated_va, self._transformer_v, self._tags[transformer.id]
        if not va:
            words = f"{name} says no power: what flows behind it cannot be worked out. Ask its maker."
            yield Limit(transformer.id, None, Basis.UNKNOWN, words)
            return
        control = va <= CONTROL_VA and volts <= CONTROL_V
        flows = va / volts / IMPEDANCE / 1000
        need = CONTROL_KA if control else SMALL_KA if va <= SMALL_VA else flows
        for part in behind:
            own_limit = self._own_limit(part, volts)
            if own_limit.ka is None:
                yield own_limit
            elif own_limit.ka < min(need, flows):
                words = f"{own_limit.why} Behind {name}, {va:g} VA, up to {flows:.2g} kA flow: it needs another part."
                yield Limit(part.id, own_limit.ka, own_limit.basis, words)
