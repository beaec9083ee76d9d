"""Single figures that the rulebooks and the trade go by, one row each, and simple ladders."""

from riktig.core.standards.figures import COMMON_PRACTICE, Figure
from riktig.core.standards.tables import table

__all__ = [
    "clause_look",
    "clause_source",
    "cooling_area_factors",
    "heat_coefficient",
    "limited_energy_va",
    "rule",
    "transformer_primary_share",
    "transformer_ratings",
    "transformer_secondary",
]


def rule(name: str) -> Figure:
    """A single figure by its name in ``rule_figures.csv``.

    Raises:
        KeyError: there is no such row.
    """
    for row in table("rule_figures").rows:
        if row["name"] == name:
            return Figure(float(row["value"]), row["source"], row["confidence"])
    raise KeyError(name)


def cooling_area_factors(arrangement: str) -> tuple[float, float, float]:
    """Factors of H·W, H·D and W·D in the effective cooling area of an enclosure.

    Source:
        IEC 60890, surface factors, from memory.

    Raises:
        KeyError: the arrangement is not in the table.
    """
    for row in table("effective_areas").rows:
        if row["arrangement"] == arrangement:
            return float(row["hw"]), float(row["hd"]), float(row["wd"])
    raise KeyError(arrangement)


def heat_coefficient(material: str) -> Figure:
    """Heat passed by the enclosure's skin, W per m² and K; an unknown material counts as polyester.

    Source:
        Trade values after IEC 60890, from memory.
    """
    coefficients = table("heat_transfer")
    for row in coefficients.rows:
        if row["material"] in material.lower():
            return Figure(float(row["k_w_per_m2_k"]), coefficients.source, row["confidence"])
    worst = min(float(row["k_w_per_m2_k"]) for row in coefficients.rows)
    return Figure(worst, f"{coefficients.source}; “{material}” is not in the table", "unsure")


def limited_energy_va(voltage_v: float) -> Figure:
    """Most that a limited-energy (Class 2) supply may give at a voltage, VA; 0 where there is none.

    Source:
        NFPA 70 Chapter 9 Table 11(A), from memory.
    """
    limits = table("limited_energy")
    for row in limits.rows:
        if float(row["above_v"]) < voltage_v <= float(row["up_to_v"]):
            amount = float(row["va"]) if row["va"] else float(row["nameplate_a"]) * voltage_v
            return Figure(amount, limits.source, limits.confidence)
    return Figure(0.0, limits.source, limits.confidence)


def transformer_ratings(north_american: bool) -> tuple[float, ...]:
    """Control transformer ratings offered, VA, rising.

    Source:
        The rows of NFPA 79 Table 7.2.11, or the R10 steps of the metric trade, from memory.
    """
    if north_american:
        return tuple(float(row["va"]) for row in table("transformer_secondary_protection").rows)
    return (63.0, 100.0, 160.0, 250.0, 400.0, 630.0, 1000.0, 1600.0, 2500.0)


def transformer_primary_share(primary_a: float) -> Figure:
    """Largest primary protection of a transformer without secondary protection, as a share of its current.

    Source:
        NEC Table 450.3(B), primary only, from memory.
    """
    limits = table("transformer_protection")
    row = limits.rows[0]
    column = "under_2A" if primary_a < 2 else "under_9A" if primary_a < 9 else "9A_or_more"
    return Figure(float(row[f"primary_{column}_pct"].split()[0]) / 100, limits.source, limits.confidence)


def transformer_secondary(va: float) -> Figure:
    """Largest secondary protection of a 120 V control transformer, A.

    Source:
        NFPA 79 Table 7.2.11, from memory.
    """
    limits = table("transformer_secondary_protection")
    row = next((size_row for size_row in limits.rows if float(size_row["va"]) >= va), limits.rows[-1])
    return Figure(float(row["max_secondary_ocpd_A_at_120V"]), limits.source, limits.confidence)


def clause_source(code: str, *, north_american: bool) -> str:
    """What a clause such as “E02” rests on; common practice where no standard says it.

    Source:
        IEC 60204-1:2016, IEC 61439-1:2020, NFPA 79, NEC, UL 508A, from memory.
    """
    column = "north_american" if north_american else "iec"
    text = next((row[column] for row in table("clause_sources").rows if row["code"] == code), "")
    return f"{text}, from memory" if text else COMMON_PRACTICE


def clause_look(code: str) -> str:
    """What of a clause such as “E02” can be seen on the panel without power; "" where nothing of it can.

    Source:
        Common practice, no source.
    """
    return next((row["look"] for row in table("clause_looks").rows if row["code"] == code), "")
