"""Motor and conductor currents from the published tables."""

from riktig.core.standards.figures import Figure
from riktig.core.standards.tables import table

__all__ = [
    "ambient_factor",
    "conductor_current",
    "grouping_factor",
    "motor_current",
    "motor_current_hp",
    "motor_powers",
    "next_section",
    "standard_sections",
    "switch_ratings",
]

PVC_LIMIT_C = 70.0
"""Conductor temperature of PVC insulation (IEC 60204-1 Table D.1, from memory)."""
_VOLTAGES = (230.0, 400.0, 500.0, 690.0)


def motor_powers() -> tuple[float, ...]:
    """The rated outputs of the table, kW, rising."""
    return tuple(float(row["kW"]) for row in table("motor_currents_kw").rows)


def motor_current(kw: float, voltage_v: float) -> Figure:
    """The rated current of a three-phase motor, A.

    A power between two rows takes the current of the next larger row: it errs to the safe side
    for conductors and switches, and the nameplate decides the overload setting in the end.

    Source:
        IEC 60947-4-1 Annex G, Table G.1 (informative), from memory.

    Args:
        kw: Rated output, above 0.
        voltage_v: Between phases; the nearest lower column serves (a lower voltage, more current).
            Below the lowest column its current is scaled by the voltage and marked unsure.

    Raises:
        ValueError: beyond the table.
    """
    currents = table("motor_currents_kw")
    columns = [v for v in _VOLTAGES if v <= voltage_v + 1e-9]
    column = columns[-1] if columns else _VOLTAGES[0]
    for row in currents.rows:
        if float(row["kW"]) >= kw - 1e-9:
            amps = float(row[f"Ie_{column:g}V_A"])
            if columns:
                return Figure(amps, currents.source, row["confidence"])
            scaled = round(amps * column / voltage_v, 1)
            return Figure(scaled, f"{currents.source}, {column:g} V column scaled to {voltage_v:g} V", "unsure")
    raise ValueError(f"a motor of {kw:g} kW is beyond the table")


def motor_current_hp(hp: float, voltage_v: float) -> Figure | None:
    """The rated current of a three-phase motor given in horsepower, A; None beyond the block.

    Source:
        IEC 60947-4-1 Annex G, Table G.1, hp block, from memory.

    Args:
        hp: Rated output, horsepower.
        voltage_v: The voltage, V.
    """
    currents = table("motor_currents_hp")
    column = "I_440-480V_A" if voltage_v >= 440 else "I_380-415V_A" if voltage_v >= 380 else ""
    for row in currents.rows:
        if column and float(row["hp"]) >= hp - 1e-9:
            return Figure(float(row[column]), currents.source, currents.confidence)
    return None


def standard_sections() -> tuple[float, ...]:
    """Conductor sections of the current table (power block), mm², rising."""
    return tuple(float(row["mm2"]) for row in _power_rows())


def next_section(least_mm2: float) -> float:
    """The smallest made section that is not below a computed one; the table's last beyond it."""
    sections = standard_sections()
    return next((mm2 for mm2 in sections if mm2 >= least_mm2), sections[-1])


def conductor_current(section_mm2: float, method: str = "B1") -> Figure:
    """What a PVC-insulated copper conductor carries at 40 °C, alone, A.

    Source:
        IEC 60204-1 Table 6, from memory.

    Args:
        section_mm2: A section of the table's power block.
        method: B1 in duct or conduit, C on a wall, E in free air.

    Raises:
        KeyError: the table has no such section.
    """
    for row in _power_rows():
        if float(row["mm2"]) == section_mm2:
            currents = table("conductor_currents")
            return Figure(float(row[f"{method}_A"]), currents.source, currents.confidence)
    raise KeyError(section_mm2)


def _power_rows() -> list[dict[str, str]]:
    return [row for row in table("conductor_currents").rows if not row["note"]]


def ambient_factor(ambient_c: float) -> Figure:
    """Correction for another ambient than 40 °C: the next hotter row counts.

    Source:
        IEC 60204-1 Table D.1, from memory; beyond it sqrt((70 - t) / (70 - 40)), marked unsure.
    """
    factors = table("ambient_factors")
    for row in factors.rows:
        if float(row["ambient_C"]) >= ambient_c:
            return Figure(float(row["factor"]), factors.source, factors.confidence)
    beyond = max((PVC_LIMIT_C - ambient_c) / (PVC_LIMIT_C - 40), 0.0) ** 0.5
    return Figure(round(beyond, 2), f"{factors.source}, continued by the law behind it", "unsure")


def grouping_factor(circuits: int, method: str = "B1") -> Figure:
    """Derating for loaded circuits or cables that lie together: the next larger column counts.

    Source:
        IEC 60204-1 Table D.2; beyond nine IEC 60364-5-52 Table B.52.17; from memory. Beyond the last column, the last.

    Args:
        circuits: How many lie together.
        method: B1 in a duct, B2 cables in one, C cables side by side on a wall, E on a perforated tray.
    """
    factors = table("grouping_factors")
    row = next(factor_row for factor_row in factors.rows if method in factor_row["method"].split(",")[0].split())
    if circuits <= 1:
        return Figure(1.0, factors.source, factors.confidence)
    columns = [n for n in (2, 4, 6, 9, 12, 16, 20) if row[f"n{n}"]]
    column = next((n for n in columns if n >= circuits), columns[-1])
    return Figure(float(row[f"n{column}"]), factors.source, factors.confidence)


def switch_ratings(device_prefix: str) -> tuple[float, ...]:
    """Preferred rated currents of a protective device (“MCB”, “gG”), A, rising."""
    for row in table("standard_ratings").rows:
        if row["device"].startswith(device_prefix):
            return tuple(float(word) for word in row["ratings_A"].split())
    raise KeyError(device_prefix)
