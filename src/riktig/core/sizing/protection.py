"""What guards a load's circuit, and what switches it: rating and part by either rulebook."""

from dataclasses import dataclass, replace
from typing import NamedTuple

from riktig.core.catalogue import Part, parts_of
from riktig.core.job import Duty, Load, LoadKind, Protection, Start
from riktig.core.schematic import way_breaker
from riktig.core.sizing.value import Basis, Value, first_part, weakest
from riktig.core.standards import (
    Figure,
    Why,
    conductor_name,
    nec_branch_percent,
    nec_rating_above,
    rule,
    switch_ratings,
)

__all__ = [
    "Chosen",
    "Conductors",
    "contactors",
    "drive_input",
    "local_isolator",
    "overload_part",
    "protection",
    "starter_device",
]


class Conductors(NamedTuple):
    """What lands on a starter's parts, mm²."""

    panel_mm2: float
    legs_mm2: float = 0.0
    """Inside the triangle of a star-delta starter; 0 for any other."""


@dataclass(frozen=True, slots=True)
class Chosen:
    """A part of a load's proposal: its role, how many, and whether it gives off heat while running.

    ``loading`` is the share of its rated current that it carries: what its poles lose goes with the
    square of it.
    """

    role: str
    part: Part
    count: int = 1
    runs: bool = True
    loading: float = 1.0

    @property
    def loss_w(self) -> float:
        """Heat while the load runs, W."""
        return self.part.loss_w * self.count * min(self.loading, 1.0) ** 2 if self.runs else 0.0


def drive_input(current: Value) -> Figure:
    """What a drive draws from the supply for a motor current, A.

    Source:
        Typical part data; the drive's own data decide.
    """
    times = rule("drive input multiple")
    return Figure(round(times.value * current.amount, 1), times.source, times.confidence)


def protection(load: Load, current: Value, setting: Value | None, basis: Basis) -> tuple[Value, tuple[Chosen, ...]]:
    """The protective device ahead of a load: its rating, A, with the reasons, and the part.

    Source:
        IEC 60898-1 and IEC 60269 ratings; NEC 430.52 and 240.6(A); from memory.
    """
    if load.protection is Protection.PROTECTOR and setting is not None:
        return _protector(load, setting, basis)
    if load.protection is Protection.FUSES and setting is not None:
        return _fuses(load, current, basis)
    return _breaker(load, current, setting is not None, basis)


def _breaker(load: Load, current: Value, motor: bool, basis: Basis) -> tuple[Value, tuple[Chosen, ...]]:
    amps = current.amount
    kind_id, poles = _breaker_kind(load, basis)
    lines, source, sure = [], "", current.why.confidence
    if basis.north_american:
        if load.is_motor and load.start is not Start.DRIVE:
            share = nec_branch_percent("inverse_time_breaker", phases=load.phases)
            need = nec_rating_above(share.value * amps)
            lines.append(
                f"{share.value:.0%} × {amps:g} A = {share.value * amps:.4g} A, next standard {need:g} A "
                "(Exception 1: rounded up)"
            )
            source, sure = "NEC 430.52(C)(1) and 240.6(A), from memory", weakest(sure, share)
        else:
            margin = rule("nec drive conductor" if load.start is Start.DRIVE else "nec heater")
            base = drive_input(current) if load.start is Start.DRIVE else Figure(amps, "", sure)
            need = nec_rating_above(margin.value * base.value)
            lines.append(f"{margin.value:g} × {base.value:g} A = {margin.value * base.value:.4g} A, next {need:g} A")
            source, sure = margin.source, weakest(sure, margin, base)
        words = "inverse-time"
    else:
        base = drive_input(current) if load.start is Start.DRIVE else Figure(amps, "", "sure")
        margin = rule("breaker margin") if load.is_motor else Figure(1.0, "", "sure")
        offered = [part.rated_a for part in parts_of(kind_id)]
        need = next((a for a in offered if a >= margin.value * base.value - 1e-9), margin.value * base.value)
        lines.append(f"{margin.value:g} × {base.value:g} A = {margin.value * base.value:.1f} A, next {need:g} A")
        source = "ratings: IEC 60898-1, from memory" + (f"; margin: {margin.source}" if margin.source else "")
        sure = weakest(sure, base)
        words = "type D" if motor or load.start is Start.SOFT else "type C"
    reason = "It guards the conductors of the way against overload and short circuit."
    if motor:
        reason = (
            "It guards against short circuit and must let the motor start; the overload behind it guards the motor."
        )
        if words == "type D":
            trip, start = rule("type d trip"), rule("starting multiple")
            lines.append(
                f"trips at once from {trip.value:g} × {need:g} = {trip.value * need:g} A; the motor starts with "
                f"about {start.value:g} × {amps:g} = {start.value * amps:.0f} A"
            )
    elif load.start in (Start.DRIVE, Start.SOFT):
        reason = f"It guards the {load.start.value.split()[-1]}'s feed; the motor is guarded by the device itself."
    value = Value(
        f"{load.id}.breaker", "Breaker", need, "A", Why(f"Why {need:g} A {words}", reason, tuple(lines), source, sure)
    )
    value = basis.with_override(value, lambda a: f"{a:g} A {words}")
    return _with_part(value, kind_id, "breaker", poles)


def _breaker_kind(load: Load, basis: Basis) -> tuple[str, int]:
    if load.start is Start.WAY:
        return way_breaker(load, north_american=basis.north_american), 1
    if basis.north_american:
        return "panel_breaker", 1
    return {3: "motor_breaker", 2: "breaker_two"}.get(load.phases, "way_breaker"), 1


def _with_part(value: Value, kind_id: str, role: str, count: int = 1) -> tuple[Value, tuple[Chosen, ...]]:
    part, enough = first_part(parts_of(kind_id), lambda p: p.rated_a >= value.amount - 1e-9)
    return _short(value, enough, part), (Chosen(role, part, count),)


def _short(value: Value, enough: bool, part: Part) -> Value:
    if enough:
        return value
    return replace(value, shortfall=f"the catalogue ends at {part.rated_a:g} A")


def _protector(load: Load, setting: Value, basis: Basis) -> tuple[Value, tuple[Chosen, ...]]:
    amps = setting.amount
    part, enough = _ranged("motor_protector", amps)
    why = Why(
        f"Why {part.min_a:g} to {part.max_a:g} A",
        "A motor protector guards against overload and short circuit in one, and takes a padlock; "
        "its dial must reach the motor's current.",
        (f"{part.min_a:g} A ≤ {amps:g} A ≤ {part.max_a:g} A",),
        "IEC 60947-4-1 and IEC 60204-1 7.3, from memory" + ("; UL 508 Type E or F" if basis.north_american else ""),
        setting.why.confidence,
    )
    value = Value(f"{load.id}.breaker", "Motor protector", part.max_a, "A", why, f"{part.min_a:g} to {part.max_a:g} A")
    own = basis.own(value.key)
    if own:
        part, enough = first_part(parts_of("motor_protector"), lambda p: p.max_a >= own.amount)
        value = basis.with_override(value, lambda a: f"{part.min_a:g} to {part.max_a:g} A")
        enough = enough and part.min_a <= amps <= part.max_a
    return _short(value, enough, part), (Chosen("motor protector", part),)


def _fuses(load: Load, current: Value, basis: Basis) -> tuple[Value, tuple[Chosen, ...]]:
    amps = current.amount
    if basis.north_american:
        share = nec_branch_percent("dual_element_time_delay_fuse", phases=load.phases)
        need = nec_rating_above(share.value * amps, fuses=True)
        line = (
            f"{share.value:.0%} × {amps:g} A = {share.value * amps:.4g} A, next standard {need:g} A "
            "(Exception 1: rounded up)"
        )
        words, source, sure = "class J", "NEC 430.52(C)(1) and 240.6(A), from memory", share.confidence
    else:
        margin = rule("fuse margin direct" if load.start in (Start.DIRECT, Start.REVERSING) else "fuse margin reduced")
        offered = switch_ratings("gG")
        need = next((a for a in offered if a >= margin.value * amps), offered[-1])
        line = f"{margin.value:g} × {amps:g} A = {margin.value * amps:.1f} A, next {need:g} A"
        words, source, sure = "gG", f"IEC 60269-2, from memory; margin: {margin.source}", margin.confidence
    why = Why(
        f"Why {need:g} A {words}",
        "A fuse guards against short circuit with a high breaking capacity; the overload behind it guards the motor.",
        (line,),
        source,
        weakest(sure, current.why.confidence),
    )
    value = basis.with_override(Value(f"{load.id}.breaker", "Fuses", need, "A", why), lambda a: f"{a:g} A {words}")
    class_j = [p for p in parts_of("fuse_switch") if p.ref.startswith("FSJ") is basis.north_american]
    part, enough = first_part(class_j, lambda p: p.rated_a >= value.amount)
    return _short(value, enough, part), (Chosen("fuse switch", part),)


def _ranged(kind_id: str, amps: float) -> tuple[Part, bool]:
    """The part whose range holds the current best in its middle, or the last and False."""
    ranges = [p for p in parts_of(kind_id) if p.min_a <= amps <= p.max_a]
    if ranges:
        return max(ranges, key=lambda p: min(amps - p.min_a, p.max_a - amps) / p.max_a), True
    return first_part(parts_of(kind_id), lambda p: p.max_a >= amps)[0], False


def overload_part(load: Load, setting: Value | None) -> tuple[Value | None, tuple[Chosen, ...]]:
    """The overload relay for a setting; nothing where a motor protector or a device does its work."""
    if setting is None or load.protection is Protection.PROTECTOR:
        return None, ()
    part, enough = _ranged("overload", setting.amount)
    why = Why(
        f"Why {part.min_a:g} to {part.max_a:g} A",
        "The range of the dial holds the setting, as near its middle as the parts allow.",
        (f"{part.min_a:g} A ≤ {setting.amount:g} A ≤ {part.max_a:g} A",),
        "part data",
        setting.why.confidence,
    )
    words = f"{part.min_a:g} to {part.max_a:g} A"
    value = Value(f"{load.id}.overload", "Overload", part.max_a, "A", why, words, settable=False)
    if not enough:
        value = replace(value, shortfall=f"no dial in the catalogue reaches {setting.amount:g} A")
    return value, (Chosen("overload", part),)


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
        "utilization category: IEC 60947-4-1 Table 1, from memory",
        place.sure,
    )
    value = basis.with_override(Value(place.key, place.name, part.rated_a, "A", why), lambda a: f"{a:g} A AC-3")
    if value.overridden:
        part, _ = first_part(parts_of("contactor"), lambda p: p.rated_a >= value.amount)
    if min(value.amount, part.rated_a) < need - 1e-9:
        value = replace(value, shortfall=f"{need:.4g} A AC-3 is needed")
    return _clamps_short(value, part, place.mm2), part


def _taking(part: Part, mm2: float) -> tuple[Part, tuple[str, ...]]:
    """The part, or the next larger one of its kind whose clamps take a conductor, and the line that says so.

    Where none does, the one with the largest clamps.
    """
    if part.power.max_mm2 >= mm2 - 1e-9:
        return part, ()
    larger = [p for p in parts_of(part.kind.id) if p.rated_a >= part.rated_a]
    taken = next((p for p in larger if p.power.max_mm2 >= mm2 - 1e-9), max(larger, key=lambda p: p.power.max_mm2))
    line = (
        f"clamps of {part.ref} take {part.power.max_mm2:g} mm² at most, the conductors are {conductor_name(mm2)}: "
        f"{taken.ref}"
    )
    return taken, (line,)


def _clamps_short(value: Value, part: Part, mm2: float) -> Value:
    """The value with what its clamps do not take."""
    if part.power.max_mm2 >= mm2 - 1e-9 or value.shortfall:
        return value
    return replace(
        value, shortfall=f"its clamps take {part.power.max_mm2:g} mm², the conductors are {conductor_name(mm2)}"
    )


def _resistive(load: Load, amps: float, mm2: float, basis: Basis) -> tuple[tuple[Value, ...], tuple[Chosen, ...]]:
    part, enough = first_part(parts_of("contactor"), lambda p: p.ac1_a >= amps)
    part, further = _taking(part, mm2)
    why = Why(
        f"Why {part.ac1_a:g} A AC-1",
        "A load without a winding is duty AC-1: the same frame carries more than for a motor.",
        (f"{amps:g} A, next made size {part.ac1_a:g} A AC-1 ({part.rated_a:g} A AC-3)", *further),
        "utilization category: IEC 60947-4-1 Table 1, from memory; AC-1 currents: part data",
    )
    value = basis.with_override(
        Value(f"{load.id}.contactor", "Contactor", part.ac1_a, "A", why), lambda a: f"{a:g} A AC-1"
    )
    if value.overridden:
        part, enough = first_part(parts_of("contactor"), lambda p: p.ac1_a >= value.amount)
        enough = enough and value.amount >= amps
    return (_short(value, enough, part),), (Chosen("contactor", part),)


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
    return _clamps_short(value, part, mm2), (Chosen(name.lower(), part),)


def local_isolator(load: Load, current: Value, basis: Basis) -> Value | None:
    """What the disconnect of one load must be rated for, A.

    Source:
        NEC 430.110(A): 115 %; IEC: the full-load current; from memory.
    """
    if not load.is_motor:
        return None
    margin = rule("nec disconnect") if basis.north_american else Figure(1.0, "IEC 60204-1 5.3.4, from memory", "sure")
    need = round(margin.value * current.amount, 1)
    why = Why(
        f"Why {need:g} A",
        f"Whatever cuts this load off alone ({load.isolation.value}) carries at least this.",
        (f"{margin.value:g} × {current.amount:g} A = {need:g} A",),
        margin.source,
        weakest(margin, current.why.confidence),
    )
    return Value(f"{load.id}.disconnect", "Disconnect at least", need, "A", why, settable=False)
