"""What guards a load's circuit, and what switches it: rating and part by either rulebook."""

from dataclasses import dataclass, replace

from riktig.core.catalogue import Part, parts_of
from riktig.core.job import Load, Protection, Start
from riktig.core.schematic import way_breaker
from riktig.core.sizing.value import Basis, Value, first_part, weakest
from riktig.core.standards import (
    Figure,
    Why,
    nec_branch_percent,
    nec_rating_above,
    nec_rating_below,
    rule,
    switch_ratings,
)

__all__ = ["Chosen", "drive_input", "local_isolator", "overload_part", "protection"]


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
    trips = ""
    if basis.north_american:
        if load.is_motor and load.start is not Start.DRIVE:
            share = nec_branch_percent("inverse_time_breaker", phases=load.phases)
            need = nec_rating_above(share.value * amps)
            lines.append(
                f"{share.value:.0%} × {amps:g} A = {share.value * amps:.4g} A, next standard {need:g} A "
                "(Exception 1: rounded up)"
            )
            need = _under_upstream(need, amps, nec_rating_below(basis.supply.upstream_a), lines, basis)
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
        trips = "D" if motor or load.start is Start.SOFT else "C"
        offered = [part.rated_a for part in parts_of(kind_id, characteristic=trips)]
        need = next((a for a in offered if a >= margin.value * base.value - 1e-9), margin.value * base.value)
        lines.append(f"{margin.value:g} × {base.value:g} A = {margin.value * base.value:.1f} A, next {need:g} A")
        below = max((a for a in offered if a <= basis.supply.upstream_a), default=0.0)
        need = _under_upstream(need, base.value, below, lines, basis)
        source = "ratings: IEC 60898-1, from memory" + (f"; margin: {margin.source}" if margin.source else "")
        sure = weakest(sure, base)
        words = f"type {trips}"
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
    value, chosen = _with_part(value, _offered(kind_id, basis, trips), poles)
    if value.amount > basis.supply.upstream_a > 0 and not value.shortfall:
        value = replace(value, shortfall=f"{basis.supply.upstream_a:g} A stand ahead of it and open first")
    return value, chosen


def _under_upstream(need: float, amps: float, below: float, lines: list[str], basis: Basis) -> float:
    """Not above what protects the supply, as long as that lets the load through: a larger one never opens first."""
    if not amps <= below < need:
        return need
    lines.append(f"{basis.supply.upstream_a:g} A stand ahead of it: not above {below:g} A, so that it opens first")
    return below


def _breaker_kind(load: Load, basis: Basis) -> tuple[str, int]:
    if load.start is Start.WAY:
        kind = way_breaker(load, north_american=basis.north_american)
        return "motor_breaker" if kind == "fuse_switch" else kind, 1  # fuses are chosen with the same figures
    three = "panel_breaker" if basis.north_american else "motor_breaker"
    return {3: three, 2: "breaker_two"}.get(load.phases, "way_breaker"), 1


def _with_part(value: Value, offered: tuple[Part, ...], count: int) -> tuple[Value, tuple[Chosen, ...]]:
    part, enough = first_part(offered, lambda p: p.rated_a >= value.amount - 1e-9)
    return short_of_catalogue(value, enough, part), (Chosen("breaker", part, count),)


def short_of_catalogue(value: Value, enough: bool, part: Part) -> Value:
    """The value, with where the catalogue ends when no part is large enough."""
    if enough:
        return value
    return replace(value, shortfall=f"the catalogue ends at {part.rated_a:g} A")


def _protector(load: Load, setting: Value, basis: Basis) -> tuple[Value, tuple[Chosen, ...]]:
    amps = setting.amount
    part, enough = _ranged(_offered("motor_protector", basis), amps)
    why = Why(
        f"Why {part.min_a:g} to {part.max_a:g} A",
        "A motor protector guards against overload and short circuit in one, and takes a padlock; "
        "its dial must reach the motor's current.",
        (f"{part.min_a:g} A ≤ {amps:g} A ≤ {part.max_a:g} A",),
        basis.cites("IEC 60947-4-1 and IEC 60204-1 7.3", "UL 60947-4-1 (Type E or F), NEC 430.32"),
        setting.why.confidence,
    )
    value = Value(f"{load.id}.breaker", "Motor protector", part.max_a, "A", why, f"{part.min_a:g} to {part.max_a:g} A")
    own_value = basis.own(value.key)
    if own_value:
        part, enough = first_part(_offered("motor_protector", basis), lambda p: p.max_a >= own_value.amount)
        value = basis.with_override(value, lambda a: f"{part.min_a:g} to {part.max_a:g} A")
        enough = enough and part.min_a <= amps <= part.max_a
    return short_of_catalogue(value, enough, part), (Chosen("motor protector", part),)


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
    part, enough = first_part(_offered("fuse_switch", basis), lambda p: p.rated_a >= value.amount)
    return short_of_catalogue(value, enough, part), (Chosen("fuse switch", part),)


def _offered(kind_id: str, basis: Basis, characteristic: str = "") -> tuple[Part, ...]:
    return parts_of(kind_id, north_american=basis.north_american, characteristic=characteristic)


def _ranged(offered: tuple[Part, ...], amps: float) -> tuple[Part, bool]:
    """The part whose range holds the current best in its middle, or the last and False."""
    ranges = [p for p in offered if p.min_a <= amps <= p.max_a]
    if ranges:
        return max(ranges, key=lambda p: min(amps - p.min_a, p.max_a - amps) / p.max_a), True
    return first_part(offered, lambda p: p.max_a >= amps)[0], False


def overload_part(load: Load, setting: Value | None) -> tuple[Value | None, tuple[Chosen, ...]]:
    """The overload relay for a setting; nothing where a motor protector or a device does its work."""
    if setting is None or load.protection is Protection.PROTECTOR:
        return None, ()
    part, enough = _ranged(parts_of("overload"), setting.amount)
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
