"""What an assembly by IEC 61439-1 may be connected to (9.3 and 10.11): every part against the prospective current.

A guard breaks it; any other part bears it by its own figure, with the guard ahead of it as tested, or because that
guard lets less energy through than it bears for a second. The least of these is the rated conditional current.
"""

from collections.abc import Mapping, Sequence

from riktig.core.catalogue import Can
from riktig.core.ids import DeviceId
from riktig.core.job import Supply, SupplySystem, UpstreamDevice
from riktig.core.short_circuit.model import Basis, Limit, Rating, SharedFeed
from riktig.core.short_circuit.power_paths import PowerPart, PowerPaths
from riktig.core.standards import table

__all__ = ["EXEMPT_KA", "lets_through", "peak_factor", "rate_iec"]

EXEMPT_KA = 10.0
"""Up to this rating IEC 61439-1 10.11.2 asks for no proof of the short-circuit strength (from memory, sure)."""
TERMINAL_KA_PER_MM2 = 0.12
"""What a terminal bears for one second, for each mm² of its conductor (IEC 60947-7-1, from memory, sure)."""
FUSES_BREAK_KA = 50.0
"""What gG fuse-links upstream break at least (IEC 60269-2, from memory, sure)."""
UPSTREAM = {UpstreamDevice.FUSES: "gG", UpstreamDevice.BREAKER: "breaker"}
"""What protects the panel upstream, by the words of the Brief, as the guards of parts are called."""


def peak_factor(ka: float) -> float:
    """How many times its r.m.s. value the peak of a short-circuit current is.

    Args:
        ka: The r.m.s. value, kA.
    """
    return next(float(row["factor"]) for row in table("peak_factors").rows if ka <= float(row["up_to_ka"]))


def gg_energy(amps: float) -> float | None:
    """What a gG fuse-link lets through, thousand A²s; None of one larger than the table has.

    Args:
        amps: Its rated current.
    """
    rows = table("gg_energy").rows
    return next((float(row["ka2s"]) for row in rows if amps <= float(row["up_to_a"])), None)


def lets_through(guard: PowerPart) -> list[tuple[float, float]]:
    """What a guard lets through: up to which prospective current, kA, how many A²s; the largest current first.

    Args:
        guard: A breaker or fuse; empty where nobody gives its energy.
    """
    figures = guard.figures
    if figures.guard == "gG":
        energy = gg_energy(guard.part.rated_a)
        return [(figures.breaks_ka, 1000 * energy)] if energy is not None and figures.breaks_ka else []
    known = ((figures.breaks_ka, figures.energy_top), (10.0, figures.energy_10), (6.0, figures.energy_6))
    return [(ka, 1000 * energy) for ka, energy in known if energy and ka <= figures.breaks_ka]


def rate_iec(
    paths: PowerPaths,
    supply: Supply,
    prospective_ka: float,
    tags: Mapping[DeviceId, str],
    shared: Sequence[SharedFeed] = (),
) -> Rating:
    """What the assembly may be connected to.

    Args:
        paths: The power circuits with the figures of the European market.
        supply: Of the panel.
        prospective_ka: The prospective current at its incoming terminals, kA.
        tags: The tags of devices.
        shared: Busbars and combs, of which no strength is known.
    """
    judge = _Judge(paths, supply, tags)
    limits = tuple(judge.limit(part) for part in paths.parts if not part.is_transformer)
    limits += tuple(_of_shared(feed, prospective_ka, tags) for feed in shared)
    known = [limit.ka for limit in limits if limit.ka is not None]
    ka = min(known) if known else None
    volts = supply.voltage_v if supply.system is not SupplySystem.ONE else supply.voltage_to_neutral_v
    notes = [
        f"The peak at the terminals is {prospective_ka * peak_factor(prospective_ka):.3g} kA (IEC 61439-1 table 7)."
    ]
    if ka is not None and ka <= EXEMPT_KA:
        notes.append(f"Rated up to {EXEMPT_KA:g} kA: no proof of the strength is asked for (IEC 61439-1 10.11.2).")
    notes.append("What the main breaker breaks is its own; the panel bears what its weakest part bears.")
    return Rating(ka, volts, limits, "rated conditional short-circuit current (Icc)", tuple(notes))


def _of_shared(feed: SharedFeed, prospective_ka: float, tags: Mapping[DeviceId, str]) -> Limit:
    """Busbars and combs need no proof of their strength as far as the whole panel needs none; beyond, nobody knows."""
    name = f"The {feed.name} of {tags[feed.first]}"
    if prospective_ka <= EXEMPT_KA:
        why = f"{name}: up to {EXEMPT_KA:g} kA no proof of the strength is asked for (IEC 61439-1 10.11.2)."
        return Limit(feed.first, EXEMPT_KA, Basis.ASSUMED, why, is_feeder=True)
    why = f"{name}: what it bears above {EXEMPT_KA:g} kA is not known. Ask the maker, and how far apart holders may be."
    return Limit(feed.first, None, Basis.UNKNOWN, why, is_feeder=True)


class _Judge:
    def __init__(self, paths: PowerPaths, supply: Supply, tags: Mapping[DeviceId, str]) -> None:
        self._paths, self._supply, self._tags = paths, supply, tags

    def limit(self, part: PowerPart) -> Limit:
        """Of one part."""
        feeder = part.feeds_guards or not part.ahead
        ka, basis, why = self._of_guard(part) if part.is_guard else self._of_part(part)
        return Limit(part.id, ka, basis, why, is_feeder=feeder)

    def _name(self, part: PowerPart) -> str:
        return f"{self._tags[part.id]}, {part.part.ref},"

    def _of_guard(self, part: PowerPart) -> tuple[float | None, Basis, str]:
        figures, name = part.figures, self._name(part)
        if not figures.breaks_ka:
            return None, Basis.UNKNOWN, f"{name} has no breaking capacity: ask its maker."
        volts = part.volts(self._supply)
        if figures.at_v and figures.at_v < volts - 1e-9:
            return 0.0, Basis.BREAKS, f"{name} is rated for {figures.at_v:g} V, not for {volts:g} V."
        return figures.breaks_ka, Basis.BREAKS, f"{name} breaks {figures.breaks_ka:g} kA."

    def _of_part(self, part: PowerPart) -> tuple[float | None, Basis, str]:
        figures, name = part.figures, self._name(part)
        guard, amps, called = self._guard_of(part)
        best: list[tuple[float, Basis, str]] = []
        if figures.marked_ka:
            best.append((figures.marked_ka, Basis.MARKED, f"{name} bears {figures.marked_ka:g} kA by its maker."))
        for tested in figures.tested:
            if tested.guard == guard and amps <= tested.up_to_a:
                best.append((tested.ka, Basis.TESTED, f"{name} bears {tested.ka:g} kA behind {called}."))
        icw = figures.icw_ka
        if part.device.kind.can(Can.TERMINAL):
            icw = icw or TERMINAL_KA_PER_MM2 * part.part.power.max_mm2
        borne = self._by_energy(part, icw, called) if icw else None
        if borne:
            best.append(borne)
        if best:
            return max(best, key=lambda entry: entry[0])
        words = "; ".join(
            [f"{name} bears {icw:.2g} kA for one second"] * bool(icw)
            + [f"{tested.ka:g} kA behind {tested.guard} of up to {tested.up_to_a:g} A" for tested in figures.tested]
        )
        if not words:
            return None, Basis.UNKNOWN, f"{name} has no figure of what it bears: ask its maker."
        if not guard:
            return None, Basis.UNKNOWN, f"{words}. What protects the panel upstream is not said in the Brief."
        return None, Basis.UNKNOWN, f"{words}. What {called} lets through is not known, so its maker must say."

    def _by_energy(self, part: PowerPart, icw: float, called: str) -> tuple[float, Basis, str] | None:
        """Up to which current its guard lets no more energy through than it bears for a second."""
        bears, name = 1e6 * icw**2, self._name(part)
        given = lets_through(self._paths.part(part.ahead[-1])) if part.ahead else self._upstream()
        for ka, energy in given:
            if energy <= bears:
                words = f"{called} lets {energy:,.0f} A²s through at {ka:g} kA, {name} bears {bears:,.0f} A²s."
                return ka, Basis.BEARS, words
        if given:
            words = f"{called} lets {given[-1][1]:,.0f} A²s through, {name} bears {bears:,.0f} A²s."
            return icw, Basis.BEARS, words
        return None

    def _upstream(self) -> list[tuple[float, float]]:
        """What the protection upstream lets through, where it is fuses."""
        if self._supply.upstream_device is not UpstreamDevice.FUSES:
            return []
        energy = gg_energy(self._supply.upstream_a)
        return [(FUSES_BREAK_KA, 1000 * energy)] if energy is not None else []

    def _guard_of(self, part: PowerPart) -> tuple[str, float, str]:
        """What protects a part against a short circuit: the last guard ahead of it, or what is upstream."""
        if part.ahead:
            guard = self._paths.part(part.ahead[-1])
            return guard.figures.guard, guard.part.rated_a, f"{self._tags[guard.id]} ({guard.part.rated_a:g} A)"
        kind = UPSTREAM.get(self._supply.upstream_device, "")
        return kind, self._supply.upstream_a, f"{kind or 'what is'} upstream ({self._supply.upstream_a:g} A)"
