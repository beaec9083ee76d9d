"""What the North American rulebook tabulates: motor currents, conductors, protection."""

from fractions import Fraction

from riktig.core.standards.conductors import awg_row
from riktig.core.standards.figures import Figure
from riktig.core.standards.tables import table

__all__ = [
    "motor_powers_hp",
    "nec_ambient_factor",
    "nec_branch_percent",
    "nec_conductor_current",
    "nec_grouping_factor",
    "nec_locked_rotor",
    "nec_motor_current",
    "nec_overload_percent",
    "nec_protective_size",
    "nec_rating_above",
    "nec_rating_below",
    "nec_sizes",
    "panel_conductor_current",
    "small_conductor_current",
]

_COLUMNS = {115.0: "115V", 200.0: "200V", 208.0: "208V", 230.0: "230V", 460.0: "460V", 575.0: "575V"}
_UTILIZATION = {120.0: 115.0, 240.0: 230.0, 480.0: 460.0, 600.0: 575.0}


def _hp(text: str) -> float:
    """“1-1/2” as 1.5."""
    whole, _, part = text.partition("-")
    return float(Fraction(whole)) + (float(Fraction(part)) if part else 0.0)


def motor_powers_hp() -> tuple[float, ...]:
    """The rated outputs of the three-phase table, hp, rising."""
    return tuple(_hp(row["hp"]) for row in table("nec_three_phase_currents").rows)


def _column(voltage_v: float, prefix: str, row: dict[str, str]) -> float | None:
    """The current in the column of the voltage, or of the nearest lower one (more current)."""
    volts = _UTILIZATION.get(voltage_v, voltage_v)
    for column in sorted(_COLUMNS, reverse=True):
        text = row.get(f"{prefix}_{_COLUMNS[column]}_A", "")
        if column <= volts + 1e-9 and text:
            return float(text)
    return None


def nec_motor_current(hp: float, voltage_v: float, phases: int) -> Figure:
    """Full-load current of a motor as the tables have it, A; between rows, the next larger row.

    Source:
        NEC Tables 430.248 (single-phase) and 430.250 (three-phase), from memory.

    Args:
        hp: Rated output, above 0.
        voltage_v: Nominal system voltage; 480 V reads the 460 V column, and so on.
        phases: 1, 2 (two lines, a single-phase motor) or 3.

    Raises:
        ValueError: beyond the table, or no column serves the voltage.
    """
    currents = table("nec_three_phase_currents" if phases == 3 else "nec_single_phase_currents")
    for row in currents.rows:
        if _hp(row["hp"]) >= hp - 1e-9:
            amps = _column(voltage_v, "flc", row)
            if amps is not None:
                return Figure(amps, currents.source, currents.confidence)
    raise ValueError(f"a motor of {hp:g} hp at {voltage_v:g} V is beyond the table")


def nec_locked_rotor(hp: float, voltage_v: float) -> Figure | None:
    """Locked-rotor current of a three-phase Design B, C or D motor, A; None beyond the table.

    Source:
        NEC Table 430.251(B), from memory.

    Args:
        hp: Rated output, horsepower.
        voltage_v: The voltage, V.
    """
    currents = table("nec_locked_rotor_currents")
    for row in currents.rows:
        if _hp(row["hp"]) >= hp - 1e-9:
            amps = _column(voltage_v, "lrc", row)
            return Figure(amps, currents.source, currents.confidence) if amps is not None else None
    return None


def nec_sizes() -> tuple[float, ...]:
    """Areas of the sizes that may carry power in a panel, 14 AWG and larger, mm², rising.

    Source:
        UL 508A Table 28.1 (sizes), from memory.
    """
    sizes = {row["size_awg_kcmil"] for row in table("ul508a_conductor_currents").rows}
    return tuple(float(row["mm2"]) for row in table("awg_sizes").rows if row["size"] in sizes)


def panel_conductor_current(mm2: float, terminal_c: float) -> Figure:
    """What a copper conductor carries inside a panel, A.

    Source:
        UL 508A Table 28.1, from memory: unsure for 14, 12 and 10 AWG.

    Args:
        mm2: Area of an AWG size of ``nec_sizes``.
        terminal_c: 60 or 75, what the clamps are marked for.

    Raises:
        KeyError: the table has no such size.
    """
    return _by_size("ul508a_conductor_currents", mm2, terminal_c)


def small_conductor_current(mm2: float) -> Figure:
    """What an 18 or 16 AWG control conductor carries, A.

    Source:
        NFPA 79 Table 12.5.1, 75 °C column, from memory.

    Raises:
        KeyError: the table has no such size.
    """
    return _by_size("nfpa79_conductor_currents", mm2, 75.0)


def nec_conductor_current(mm2: float, insulation_c: float) -> Figure:
    """What one of up to three copper conductors in a raceway or cable carries at 30 °C, A.

    Source:
        NEC Table 310.16, from memory.

    Args:
        mm2: Area of an AWG size.
        insulation_c: 60, 75 or 90.

    Raises:
        KeyError: the table has no such size or column.
    """
    return _by_size("nec_conductor_currents", mm2, insulation_c)


def _by_size(name: str, mm2: float, celsius: float) -> Figure:
    size, currents = awg_row(mm2)["size"], table(name)
    for row in currents.rows:
        if row["size_awg_kcmil"] == size:
            text = row.get(f"cu_{celsius:g}C_A") or row.get("cu_75C_A") or row["ampacity_75C_A"]
            return Figure(float(text), currents.source, row.get("confidence") or currents.confidence)
    raise KeyError(size)


def nec_ambient_factor(ambient_c: float, insulation_c: float) -> Figure:
    """Correction of Table 310.16 for another ambient than 30 °C; 0 beyond the table.

    Source:
        NEC Table 310.15(B)(1), from memory.

    Args:
        ambient_c: The air around, °C.
        insulation_c: What the insulation stands, °C.
    """
    factors = table("nec_ambient_factors")
    for row in factors.rows:
        top = float(row["ambient_C_range"].replace(" or less", "").split("-")[-1])
        if ambient_c <= top:
            text = row[f"factor_{insulation_c:g}C_insulation"]
            return Figure(float(text or 0), factors.source, factors.confidence)
    return Figure(0.0, factors.source, factors.confidence)


def nec_grouping_factor(conductors: int) -> Figure:
    """Adjustment for more than three current-carrying conductors together.

    Source:
        NEC Table 310.15(C)(1), from memory.
    """
    factors = table("nec_grouping_factors")
    factor = 1.0
    for row in factors.rows:
        least = int(row["current_carrying_conductors"].split("-")[0].split()[0])
        if conductors >= least:
            factor = float(row["percent"]) / 100
    return Figure(factor, factors.source, factors.confidence)


def nec_branch_percent(device: str, *, phases: int) -> Figure:
    """Largest branch protection as a share of the table current.

    Source:
        NEC Table 430.52(C)(1), from memory.

    Args:
        device: “inverse_time_breaker”, “dual_element_time_delay_fuse” or “instantaneous_trip_breaker”.
        phases: 1 or 2 for a single-phase motor, 3 for a squirrel-cage motor.
    """
    limits = table("nec_branch_protection")
    kind = "AC polyphase squirrel cage" if phases == 3 else "Single-phase"
    row = next(limit_row for limit_row in limits.rows if limit_row["motor_type"].startswith(kind))
    return Figure(float(row[f"{device}_pct"]) / 100, limits.source, limits.confidence)


def nec_overload_percent(service_factor: float) -> tuple[Figure, Figure]:
    """Largest overload setting as a share of the nameplate, and what may be tried if it trips on start.

    Source:
        NEC 430.32(A)(1) and 430.32(C), from memory.
    """
    settings = table("nec_overload_settings")
    row = next(
        setting_row
        for setting_row in settings.rows
        if setting_row["condition"].startswith("service" if service_factor >= 1.15 else "all other")
    )
    return (
        Figure(float(row["max_setting_pct_of_nameplate_FLA"]) / 100, settings.source, settings.confidence),
        Figure(float(row["if_motor_trips_430.32C_pct"]) / 100, settings.source, settings.confidence),
    )


def nec_protective_size(protection_a: float) -> Figure:
    """Least copper equipment grounding conductor behind a protective device, area in mm².

    Source:
        NEC Table 250.122, from memory.
    """
    sizes = table("nec_protective_sizes")
    row = next(
        (size_row for size_row in sizes.rows if protection_a <= float(size_row["ocpd_not_exceeding_A"])), sizes.rows[-1]
    )
    size = row["cu_awg_kcmil"]
    area = next(float(size_row["mm2"]) for size_row in table("awg_sizes").rows if size_row["size"] == size)
    return Figure(area, sizes.source, sizes.confidence)


def _ratings(*, fuses: bool = False) -> tuple[float, ...]:
    rows = table("nec_standard_ratings").rows
    return tuple(float(row["rating_A"]) for row in rows if fuses or row["only_for"] != "fuses")


def nec_rating_above(amps: float, *, fuses: bool = False) -> float:
    """The standard rating that is not below a computed one; the last beyond the list.

    Source:
        NEC 240.6(A), from memory.

    Args:
        amps: The computed rating, A.
        fuses: Whether it is for a fuse: those have 1, 3, 6, 10 and 601 A too.
    """
    ratings = _ratings(fuses=fuses)
    return next((rating for rating in ratings if rating >= amps - 1e-9), ratings[-1])


def nec_rating_below(amps: float) -> float:
    """The standard rating that does not exceed a computed one; the first below the list.

    Source:
        NEC 240.6(A), from memory.
    """
    return max((rating for rating in _ratings() if rating <= amps + 1e-9), default=_ratings()[0])
