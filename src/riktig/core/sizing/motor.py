"""What a load draws: rated and starting current, and what its overload is set to."""

from math import sqrt

from riktig.core.job import Load, Practice, Protection, StarDeltaOverload, Start
from riktig.core.sizing.value import Basis, Value, weakest
from riktig.core.standards import (
    Figure,
    Why,
    motor_current,
    motor_current_hp,
    nec_locked_rotor,
    nec_motor_current,
    nec_overload_percent,
    rule,
)

__all__ = ["load_current", "needs_overload", "overload_setting", "starting_current", "table_current"]

NAMEPLATE = "the motor's nameplate"


def _single_phase(load: Load, volts: float) -> Figure:
    """Current of a single-phase load from its power: I = P / (U × cos φ × η)."""
    watts = (load.output_kw or 0.0) * 1000
    if not load.is_motor:
        return Figure(round(watts / volts, 2), "I = P / U", "sure")
    cos, eta = rule("single-phase power factor"), rule("single-phase efficiency")
    return Figure(round(watts / (volts * cos.value * eta.value), 2), cos.source, weakest(cos, eta))


def table_current(load: Load, basis: Basis) -> Figure | None:
    """What the tables or the power give at the supply's voltage, A; None when only a current is known."""
    if load.kw is None and load.hp is None:
        return None
    volts = load.voltage_v or basis.supply.voltage_of(load.phases)
    if not load.is_motor:
        watts = (load.output_kw or 0.0) * 1000
        amps = watts / (sqrt(3) * volts if load.phases == 3 else volts)
        return Figure(round(amps, 2), "I = P / (√3 × U)" if load.phases == 3 else "I = P / U", "sure")
    hp = load.output_hp or 0.0
    if basis.north_american:
        try:
            return nec_motor_current(hp, volts, load.phases)
        except ValueError:
            return _from_power(load, volts)
    if load.phases != 3:
        return _single_phase(load, volts)
    if load.kw is None:
        return motor_current_hp(hp, volts) or _from_power(load, volts)
    return motor_current(load.kw, volts)


def _from_power(load: Load, volts: float) -> Figure:
    """I = P / (√3 × U × cos φ × η), where no table reaches."""
    cos, eta = rule("motor power factor"), rule("motor efficiency")
    lines = sqrt(3) if load.phases == 3 else 1.0
    amps = (load.output_kw or 0.0) * 1000 / (lines * volts * cos.value * eta.value)
    # A very small current keeps two digits: rounded to nothing it would size nothing.
    return Figure(round(amps, 1) or float(f"{amps:.2g}"), f"no table reaches: {cos.source}", "unsure")


def load_current(load: Load, basis: Basis) -> Value:
    """What the load draws at full load; the nameplate wins.

    Source:
        IEC 60947-4-1 Annex G; NEC Tables 430.248 and 430.250 (NEC 430.6(A)(1): the table governs
        conductors and protection, the nameplate the overload); from memory.
    """
    figure = table_current(load, basis)
    plate = load.nameplate_a
    volts = load.voltage_v or basis.supply.voltage_of(load.phases)
    if plate is not None and not (basis.north_american and figure and figure.value > plate and load.is_motor):
        amps, source, sure = plate, NAMEPLATE, "sure"
        reason = "The current on the plate wins over any table."
    else:
        assert figure is not None, "a load without a power has a nameplate current"
        amps, sure = figure.value, figure.confidence
        source = figure.source + ("" if figure.source.startswith("I = ") else ", from memory")
        reason = "The rated current at the supply's voltage. The nameplate wins once it is known: give it in the Brief."
        if plate is not None:
            reason = (
                f"The table governs conductors and protection; the plate's {plate:g} A sets the overload "
                "(NEC 430.6(A), from memory)."
            )
        if not load.is_motor:
            reason = "The power over the voltage."
    line = f"{load.power_name} at {volts:g} V{', three-phase' if load.phases == 3 else ''}: {amps:g} A"
    why = Why(f"Why {amps:g} A", reason, (line,), source, sure)
    return basis.with_override(Value(f"{load.id}.current", "Current", amps, "A", why))


def starting_current(load: Load, current: Value, basis: Basis) -> Value | None:
    """What it draws from the supply while it starts, A; None for what does not turn."""
    if not load.is_motor:
        return None
    locked = None
    if basis.north_american and load.phases == 3 and load.output_hp:
        locked = nec_locked_rotor(load.output_hp, load.voltage_v or basis.supply.voltage_v)
    times = rule("starting multiple")
    direct = locked.value if locked else times.value * current.amount
    lines = [
        f"locked rotor {direct:g} A" if locked else f"{times.value:g} × {current.amount:g} A = {direct:.0f} A directly"
    ]
    source, sure = (locked.source, locked.confidence) if locked else (times.source, times.confidence)
    share = {
        Start.STAR_DELTA: ("star-delta starting share", direct, "in star a third of it"),
        Start.SOFT: ("soft starting multiple", current.amount, "held by the soft starter"),
        Start.DRIVE: ("drive starting multiple", current.amount, "held by the drive"),
    }.get(load.start)
    amps = direct
    if share:
        name, base, words = share
        figure = rule(name)
        amps, sure = figure.value * base, weakest(sure, figure)
        lines.append(f"{figure.value:g} × {base:.4g} A = {amps:.0f} A: {words}")
        source = f"{source}; {figure.source}"
    why = Why(
        f"Why {amps:.0f} A on start",
        "It decides the breaker's type, the drop at the motor and what the supply sees.",
        tuple(lines),
        source + ("" if "from memory" in source else ", from memory"),
        sure,
    )
    return Value(f"{load.id}.start", "On start", round(amps), "A", why, settable=False)


def needs_overload(load: Load, basis: Basis) -> bool:
    """Whether the load is a motor that has an overload of its own in the panel."""
    return load.is_motor and load.start not in (Start.DRIVE, Start.SOFT, Start.WAY)


def inside_triangle(load: Load, practice: Practice) -> bool:
    """Whether the overload carries the winding's current instead of the line's."""
    return load.start is Start.STAR_DELTA and practice.star_delta_overload is StarDeltaOverload.INSIDE


def overload_setting(load: Load, current: Value, basis: Basis) -> Value | None:
    """What the dial of the overload or motor protector is set to; None when the load has none.

    Source:
        IEC 60204-1 7.3; NEC 430.32 (the service factor allows more); from memory.
    """
    if not needs_overload(load, basis):
        return None
    plate = load.nameplate_a if load.nameplate_a is not None else current.amount
    if current.overridden:
        plate = current.amount
    share, lines = 1.0, []
    source = "IEC 60204-1 7.3, from memory"
    confidence = current.why.confidence
    if inside_triangle(load, basis.practice) and load.protection is not Protection.PROTECTOR:
        triangle = rule("triangle share")
        share = triangle.value
        lines.append(f"inside the triangle: {plate:g} A / √3 = {plate * share:.4g} A")
        source = f"{source}; {triangle.source}"
    else:
        lines.append(f"the motor's own {plate:g} A")
    if basis.north_american:
        most, tried = nec_overload_percent(load.service_factor)
        lines.append(
            f"service factor {load.service_factor:g}: at most {most.value:.0%} = {plate * share * most.value:.4g} A, "
            f"{tried.value:.0%} if it trips on start"
        )
        source = "NEC 430.32(A)(1) and (C), from memory"
    elif load.service_factor > 1:
        lines.append(f"the service factor of {load.service_factor:g} does not raise the dial")
    amps = round(plate * share, 2 if plate * share < 10 else 1)
    device = "motor protector" if load.protection is Protection.PROTECTOR else "overload"
    why = Why(
        f"Why set to {amps:g} A",
        f"The dial of the {device} is set to the full-load current it carries, which must lie inside its range.",
        tuple(lines),
        source,
        confidence,
    )
    return basis.with_override(Value(f"{load.id}.setting", "Overload set to", amps, "A", why))
