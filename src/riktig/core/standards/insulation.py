"""Distances that insulation asks for, room to bend conductors, and how many circuits are loaded at once."""

from riktig.core.standards.figures import Figure
from riktig.core.standards.tables import table

__all__ = ["american_spacings", "assumed_loading", "bending_room", "clearance", "creepage", "impulse_voltage"]


def _first_up_to(name: str, column: str, value: float, wanted: str) -> Figure | None:
    """The row of the first step that is at least a value; None beyond the table."""
    steps = table(name)
    for row in steps.rows:
        if value <= float(row[column]) + 1e-9:
            return Figure(float(row[wanted]), steps.source, steps.confidence)
    return None


def impulse_voltage(to_neutral_v: float) -> Figure | None:
    """The rated impulse voltage of equipment in an installation (overvoltage category III), kV; None above 1000 V.

    Source:
        IEC 60664-1 Table F.1, from memory.
    """
    return _first_up_to("impulse_voltages", "to_neutral_v", to_neutral_v, "category_3_kv")


def clearance(impulse_kv: float) -> Figure | None:
    """The least distance through air, mm; None above 12 kV.

    Source:
        IEC 61439-1 Table 1, from memory.
    """
    return _first_up_to("clearances", "impulse_kv", impulse_kv, "least_mm")


def creepage(volts: float) -> Figure | None:
    """The least distance over a surface (pollution degree 3, material group IIIa), mm; None above 1000 V.

    Source:
        IEC 61439-1 Table 2, from memory.
    """
    return _first_up_to("creepages", "insulation_v", volts, "least_mm")


def american_spacings(volts: float) -> tuple[float, float, float] | None:
    """Least distances of a branch circuit through air, over a surface and to the wall, mm; None above 600 V.

    Source:
        UL 508A clause 10, from memory: fairly sure.
    """
    for row in table("american_spacings").rows:
        if volts <= float(row["to_v"]):
            return float(row["through_air_mm"]), float(row["over_surface_mm"]), float(row["to_wall_mm"])
    return None


def bending_room(mm2: float) -> Figure | None:
    """The room from a terminal to what stands in the way of its conductor, mm; None above 500 kcmil.

    Source:
        NFPA 70 Table 430.10(B), one wire a terminal, from memory.
    """
    return _first_up_to("bending_room", "to_mm2", mm2, "least_mm")


def assumed_loading(circuits: int) -> Figure:
    """The share of their rated current that so many outgoing circuits are assumed to carry at once.

    Source:
        IEC 61439-2 Table 101, from memory.
    """
    shares = table("assumed_loading")
    share = 1.0
    for row in shares.rows:
        if circuits >= int(row["from_circuits"]):
            share = float(row["share"])
    return Figure(share, shares.source, shares.confidence)
