"""What switches a load: contactors by the current of their place, soft starters and drives, and that clamps suffice."""

from dataclasses import replace
from typing import NamedTuple

from riktig.core.catalogue import Part, parts_of
from riktig.core.job import Duty, Load, LoadKind, Start
from riktig.core.sizing.protection import Chosen, short_of_catalogue
from riktig.core.sizing.value import Basis, Value, first_part
from riktig.core.standards import Why, clamp_range, conductor_name, is_awg, rule

__all__ = ["Conductors", "clamps_short", "contactors", "starter_device"]

UL_CONTACTOR = "motor ratings of the part in hp and A: UL 60947-4-1"


class Conductors(NamedTuple):
    """What lands on a starter's parts, mm²."""

    panel_mm2: float
    legs_mm2: float = 0.0
    """Inside the triangle of a star-delta starter; 0 for any other."""


def contactors(
    load: Load, current: Value, conductors: Conductors, basis: Basis
) -> tuple[tuple[Value, ...], tuple[Chosen, ...]]:
    """The contactors of a starter, by duty and place; a frame that does not take the conductors gives way to the next.

    Source:
        IEC 60947-4-1 Table 1 (categories) and the relations of star-delta, from memory.
    """
    if load.start in (Start.WAY, Start.DRIVE, Start.SOFT):
        return (), ()
    amps = current.amount
    if not load.is_motor and load.kind is not LoadKind.LIGHTING:
        return _resistive(load, amps, conductors.panel_mm2, basis)
    inching = rule("inching margin")
    times = inching.value if load.duty is Duty.INCHING else 1.0
    duty = "AC-4" if load.duty is Duty.INCHING else "AC-3"
    name = {Start.REVERSING: "Contactors, two", Start.STAR_DELTA: "Line and triangle contactors"}.get(
        load.start, "Contactor"
    )
    count = 2 if load.start in (Start.REVERSING, Start.STAR_DELTA) else 1
    star_delta = load.start is Start.STAR_DELTA
    triangle = rule("triangle share")
    need = amps * times * (triangle.value if star_delta else 1.0)
    lines = [f"√3 inside the triangle: {amps:g} A / √3 = {need / times:.3g} A"] if star_delta else []
    if times > 1:
        lines.append(f"inched or plugged: {times:g} times the AC-3 current ({inching.source})")
    sure = inching.confidence if times > 1 else "sure"
    mm2 = conductors.panel_mm2
    main, chosen = _contactor(_ContactorPlace(f"{load.id}.contactor", name, need, mm2, duty, tuple(lines), sure), basis)
    parts = [Chosen("contactor", chosen, count, runs=True)]
    if load.start is Start.REVERSING:
        parts = [Chosen("contactor", chosen), Chosen("contactor, other way", chosen, runs=False)]
    values = [main]
    if star_delta:
        share = rule("star contactor share")
        third = (f"a third of {amps:g} A",)
        legs = conductors.legs_mm2 or mm2
        place = _ContactorPlace(f"{load.id}.star", "Star contactor", amps * share.value, legs, duty, third)
        star, part = _contactor(place, basis)
        values.append(star)
        parts += [Chosen("star contactor", part, runs=False), Chosen("timer", parts_of("timer")[0])]
    return tuple(values), tuple(parts)


class _ContactorPlace(NamedTuple):
    """Where a contactor stands in its starter, and what it must carry there."""

    key: str
    """Of the value that is proposed."""
    name: str
    need: float
    """A, AC-3."""
    mm2: float
    """The conductors that land on it."""
    duty: str
    lines: tuple[str, ...]
    """How that current was found."""
    sure: str = "sure"


def _contactor(place: _ContactorPlace, basis: Basis) -> tuple[Value, Part]:
    need = place.need
    part, _ = first_part(parts_of("contactor"), lambda p: p.rated_a >= need - 1e-9)
    part, further = _taking(part, place.mm2)
    why = Why(
        f"Why {part.rated_a:g} A AC-3",
        "A motor switched on at rest and off while running is duty AC-3; the contactor carries the current of its "
        "place."
        if place.duty == "AC-3"
        else "Inching and plugging break the starting current: duty AC-4.",
        (
            *place.lines,
            f"{need:.4g} A, next made size {part.rated_a:g} A AC-3, {part.ac1_a:g} A AC-1 in the same frame",
            *further,
        ),
        basis.cites("utilization category: IEC 60947-4-1 Table 1", UL_CONTACTOR),
        place.sure,
    )
    value = basis.with_override(Value(place.key, place.name, part.rated_a, "A", why), lambda a: f"{a:g} A AC-3")
    if value.overridden:
        part, _ = first_part(parts_of("contactor"), lambda p: p.rated_a >= value.amount)
    if min(value.amount, part.rated_a) < need - 1e-9:
        value = replace(value, shortfall=f"{need:.4g} A AC-3 is needed")
    return clamps_short(value, part, place.mm2), part


def _taking(part: Part, mm2: float) -> tuple[Part, tuple[str, ...]]:
    """The part, or the next larger one of its kind whose clamps take a conductor, and the line that says so.

    Where none does, the one with the largest clamps.
    """
    if part.power.max_mm2 >= mm2 - 1e-9:
        return part, ()
    larger = [p for p in parts_of(part.kind.id) if p.rated_a >= part.rated_a]
    taken = next((p for p in larger if p.power.max_mm2 >= mm2 - 1e-9), max(larger, key=lambda p: p.power.max_mm2))
    line = f"clamps of {part.ref} take {_clamp_of(part, mm2)}, the conductors are {conductor_name(mm2)}: {taken.ref}"
    return taken, (line,)


def _clamp_of(part: Part, mm2: float) -> str:
    return clamp_range(part.power.min_mm2, part.power.max_mm2, awg=is_awg(mm2))


def clamps_short(value: Value, part: Part, mm2: float) -> Value:
    """The value with what its clamps do not take.

    Args:
        value: A value that decided the part.
        part: The part.
        mm2: The conductor that lands on it, mm².
    """
    if part.power.max_mm2 >= mm2 - 1e-9 or value.shortfall:
        return value
    return replace(value, shortfall=f"its clamps take {_clamp_of(part, mm2)}, the conductors are {conductor_name(mm2)}")


def _resistive(load: Load, amps: float, mm2: float, basis: Basis) -> tuple[tuple[Value, ...], tuple[Chosen, ...]]:
    part, enough = first_part(parts_of("contactor"), lambda p: p.ac1_a >= amps)
    part, further = _taking(part, mm2)
    why = Why(
        f"Why {part.ac1_a:g} A AC-1",
        "A load without a winding is duty AC-1: the same frame carries more than for a motor.",
        (f"{amps:g} A, next made size {part.ac1_a:g} A AC-1 ({part.rated_a:g} A AC-3)", *further),
        f"{basis.cites('utilization category: IEC 60947-4-1 Table 1', UL_CONTACTOR)}; AC-1 currents: part data",
    )
    value = basis.with_override(
        Value(f"{load.id}.contactor", "Contactor", part.ac1_a, "A", why), lambda a: f"{a:g} A AC-1"
    )
    if value.overridden:
        part, enough = first_part(parts_of("contactor"), lambda p: p.ac1_a >= value.amount)
        enough = enough and value.amount >= amps
    return (short_of_catalogue(value, enough, part),), (Chosen("contactor", part),)


def starter_device(load: Load, current: Value, mm2: float, basis: Basis) -> tuple[Value | None, tuple[Chosen, ...]]:
    """The soft starter or drive itself, by its output current and the conductors that land on it, mm²."""
    starter = {Start.SOFT: "soft_starter", Start.DRIVE: "drive"}.get(load.start)
    if starter is None:
        return None, ()
    name = "Soft starter" if load.start is Start.SOFT else "Drive"
    part, _ = first_part(parts_of(starter), lambda p: p.rated_a >= current.amount)
    part, further = _taking(part, mm2)
    why = Why(
        f"Why {part.rated_a:g} A",
        f"The {name.lower()} carries the motor's current without a pause; it also guards the motor against overload.",
        (f"{current.amount:g} A, next made size {part.rated_a:g} A", *further),
        "part data",
        current.why.confidence,
    )
    value = basis.with_override(Value(f"{load.id}.device", name, part.rated_a, "A", why))
    if value.overridden:
        part, _ = first_part(parts_of(starter), lambda p: p.rated_a >= value.amount)
    if min(value.amount, part.rated_a) < current.amount:
        value = replace(value, shortfall=f"{current.amount:g} A is needed")
    return clamps_short(value, part, mm2), (Chosen(name.lower(), part),)
