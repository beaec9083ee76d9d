"""What would raise a North American panel to a wanted rating, and what each way costs in parts and room."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from riktig.core.catalogue import Part, parts, short_circuit_figures
from riktig.core.ids import DeviceId
from riktig.core.job import Supply
from riktig.core.short_circuit.model import Rating, SharedFeed
from riktig.core.short_circuit.north_american import rate_north_american
from riktig.core.short_circuit.power_paths import PowerPart, PowerPaths

__all__ = ["TARGETS_KA", "Way", "ways_to"]

TARGETS_KA = (10.0, 18.0, 65.0)
"""Ratings that are asked for (common practice, no source)."""


@dataclass(frozen=True, slots=True)
class Way:
    """One way to a wanted rating: what is changed, the rating then, how many parts and how much rail it takes.

    ``reaches`` is the rating with the changes, kA; ``left`` the parts that still hold it back.
    """

    target_ka: float
    words: str
    reaches: float | None
    changed: int
    rail_mm: float
    left: tuple[DeviceId, ...]


def ways_to(
    target_ka: float,
    paths: PowerPaths,
    supply: Supply,
    tags: Mapping[DeviceId, str],
    transformer_v: float,
    shared: Sequence[SharedFeed] = (),
) -> tuple[Way, ...]:
    """The ways to a rating: fuses as main disconnect, guards that break more, and both. None where it has it already.

    Args:
        target_ka: The rating that is wanted.
        paths: The power circuits with the figures of the North American market.
        supply: Of the panel.
        tags: The tags of devices.
        transformer_v: What the control transformers give.
        shared: Busbars and combs: no other part raises what they bear.
    """
    now = rate_north_american(paths, supply, tags, transformer_v, shared)
    if now.is_known and (now.ka or 0.0) >= target_ka:
        return ()

    def rated(changed: PowerPaths) -> Rating:
        return rate_north_american(changed, supply, tags, transformer_v, shared)

    weak = [part.id for part in paths.parts if part.is_guard and part.figures.breaks_ka < target_ka]
    fused, fuses = _with_fuses(paths, supply)
    stronger = _breaking(paths, weak, target_ka)
    names = ", ".join(tags[guard] for guard in weak)
    breakers = f"take {names} with an interrupting rating of {target_ka:g} kA"
    ways: list[Way] = []
    if fused is not None and fuses is not None:
        main = f"a main disconnect with class J fuses, {fuses.rated_a:g} A, in place of the switch"
        ways.append(_way(target_ka, main, rated(fused), 1, fuses.width - _main_width(paths)))
        if weak:
            both = _breaking(fused, weak, target_ka)
            words = f"{main}; {breakers}"
            ways.append(_way(target_ka, words, rated(both), 1 + len(weak), fuses.width - _main_width(paths)))
    if weak:
        ways.append(_way(target_ka, breakers, rated(stronger), len(weak), 0.0))
    marked = [limit.device for limit in now.limits if (limit.ka or 0.0) < target_ka]
    if marked:
        whose = ", ".join(dict.fromkeys(tags[device] for device in marked))
        words = f"ask the makers for combinations tested at {target_ka:g} kA: {whose}"
        ways.append(Way(target_ka, words, None, len(marked), 0.0, ()))
    return tuple(ways)


def _way(target: float, words: str, rating: Rating, changed: int, rail_mm: float) -> Way:
    left = tuple(limit.device for limit in rating.limits if (limit.ka or 0.0) < target)
    return Way(target, words, rating.ka, changed, rail_mm, left)


def _main(paths: PowerPaths) -> PowerPart | None:
    """The first part that everything behind hangs on: the main switch."""
    return next((p for p in paths.parts if not p.ahead and "isolator" in {u.symbol for u in p.device.kind.units}), None)


def _main_width(paths: PowerPaths) -> float:
    main = _main(paths)
    return main.part.width if main else 0.0


def _with_fuses(paths: PowerPaths, supply: Supply) -> tuple[PowerPaths | None, Part | None]:
    """The panel with the main switch taken for a fuse switch with class J fuses as large as the supply's protection."""
    main = _main(paths)
    frames = [part for part in parts() if part.ref.startswith("FSJ-") and part.rated_a >= supply.upstream_a]
    if main is None or not frames:
        return None, None
    frame = min(frames, key=lambda part: part.rated_a)
    figures = short_circuit_figures(frame, north_american=True)
    changed: list[PowerPart] = []
    for power in paths.parts:
        if power.id == main.id:
            changed.append(PowerPart(power.device, frame, figures, (), is_guard=True, feeds_guards=True))
        elif _is_behind_main(power):
            changed.append(replace(power, ahead=(main.id, *power.ahead)))
        else:
            changed.append(power)
    return replace(paths, parts=tuple(changed)), frame


def _is_behind_main(power: PowerPart) -> bool:
    """Terminals of the incoming supply stand ahead of the main switch, everything else behind it."""
    return bool(power.ahead) or not power.device.strip


def _breaking(paths: PowerPaths, guards: list[DeviceId], ka: float) -> PowerPaths:
    """The panel with guards that break so much."""
    changed = tuple(
        replace(part, figures=replace(part.figures, breaks_ka=ka)) if part.id in guards else part
        for part in paths.parts
    )
    return replace(paths, parts=changed)
