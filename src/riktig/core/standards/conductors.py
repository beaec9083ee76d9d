"""What the tables say of conductors themselves: protective size, diameter, resistance, ends."""

from dataclasses import dataclass
from functools import cache

from riktig.core.standards.figures import Figure
from riktig.core.standards.rulebook import rule
from riktig.core.standards.tables import table

__all__ = [
    "LB_IN_PER_N_M",
    "TORQUE_ON_PART",
    "Ferrule",
    "awg_row",
    "bonding_section",
    "cable_core_diameter",
    "clamp_range",
    "conductor_colours",
    "conductor_name",
    "ferrule",
    "insulation_volts",
    "is_awg",
    "minimum_section",
    "protective_section",
    "thickest_awg",
    "torque_name",
    "twin_ferrule",
    "warm_resistance",
    "wire_diameter",
    "wire_resistance",
]


INCH = 25.4
LB_IN_PER_N_M = 8.8507
"""1 N·m in lb·in (NIST SP 811, from memory: sure)."""


def is_awg(mm2: float) -> bool:
    """Whether a conductor's area is that of a North American size; no metric size has such an area."""
    return mm2 in _awg_rows()


def awg_row(mm2: float) -> dict[str, str]:
    """The row of the North American size with this area: size, metric_mm2, dia_in.

    Source:
        ASTM B258, from memory.

    Raises:
        KeyError: no such size.
    """
    return _awg_rows()[mm2]


@cache
def _awg_rows() -> dict[float, dict[str, str]]:
    """The North American sizes by area, mm²: of a shipped table, which never changes."""
    return {float(row["mm2"]): row for row in table("awg_sizes").rows}


def conductor_type(section_mm2: float, *, flexible: bool) -> str:
    """What a wire of the panel is called where it is bought, with the class of its conductor.

    Source:
        EN 50525-2-31 (H05V-K up to 1 mm², H07V-K and H07V-R above; no code for stranded ones up to 1 mm²), IEC 60228
        (class 5: flexible, class 2: stranded); North America: MTW after UL 1063, which NFPA 79 12.3.1 names; from
        memory.

    Args:
        section_mm2: Of its conductor, mm².
        flexible: Whether the workshop wires with flexible conductors.
    """
    if is_awg(section_mm2):
        return "MTW, flexible" if flexible else "MTW, stranded"
    if section_mm2 <= 1.0:
        return "H05V-K, class 5" if flexible else "PVC, class 2"
    return "H07V-K, class 5" if flexible else "H07V-R, class 2"


def insulation_volts(section_mm2: float, *, flexible: bool) -> float | None:
    """The rated voltage between two conductors of the type that ``conductor_type`` names, V; None where it has none.

    Source:
        EN 50525-2-31 (H05V-K 300/500 V, H07V-K and H07V-R 450/750 V), UL 1063 (MTW 600 V); from memory.

    Args:
        section_mm2: Of its conductor, mm².
        flexible: Whether the workshop wires with flexible conductors.
    """
    if is_awg(section_mm2):
        return 600.0
    if section_mm2 <= 1.0:
        return 500.0 if flexible else None
    return 750.0


def cores_sold(used: int) -> int:
    """How many cores the smallest cable has that is sold with so many or more; beyond the largest, as many as used.

    Source:
        Common practice, no source.

    Args:
        used: How many cores are used, 1 or more.
    """
    counts = (int(row["cores"]) for row in table("cable_cores").rows)
    return next((count for count in counts if count >= used), used)


def conductor_name(mm2: float) -> str:
    """How a conductor's size is said: “2.5 mm²”, “14 AWG”, “250 kcmil”."""
    if not is_awg(mm2):
        return f"{mm2:g} mm²"
    size = awg_row(mm2)["size"]
    return f"{size} {'kcmil' if size.isdigit() and int(size) >= 250 else 'AWG'}"


def clamp_range(least_mm2: float, most_mm2: float, *, awg: bool) -> str:
    """What a clamp takes, in the sizes of the job: “0.5 to 4 mm²”, “20 to 12 AWG”.

    Args:
        least_mm2: The thinnest conductor.
        most_mm2: The thickest conductor.
        awg: Whether the job's conductors are AWG.
    """
    taken = [mm2 for row in table("awg_sizes").rows if least_mm2 <= (mm2 := float(row["mm2"])) <= most_mm2]
    if not awg or not taken:
        return f"{least_mm2:g} to {most_mm2:g} mm²"
    first, last = conductor_name(min(taken)), conductor_name(max(taken))
    return f"{first.removesuffix(' AWG')} to {last}" if last.endswith("AWG") else f"{first} to {last}"


def thickest_awg(most_mm2: float) -> float:
    """The largest AWG size that a clamp for so many mm² takes, mm²; the smallest there is where none fits."""
    sizes = [float(row["mm2"]) for row in table("awg_sizes").rows]
    return max((mm2 for mm2 in sizes if mm2 <= most_mm2), default=min(sizes))


TORQUE_ON_PART = "as the part says"
"""What is said where a torque is not known."""


def torque_name(torque_n_m: float, *, awg: bool) -> str:
    """A tightening torque in the unit of the job: “0.8 N·m”, “7.1 lb·in” (1 N·m is 8.8507 lb·in).

    One of 0 is not known here: what stands on the part counts.
    """
    if not torque_n_m:
        return TORQUE_ON_PART
    return f"{torque_n_m * LB_IN_PER_N_M:.1f} lb·in" if awg else f"{torque_n_m:g} N·m"


def _metric(mm2: float) -> float:
    """The metric size whose ferrule and clamp a conductor takes."""
    return float(awg_row(mm2)["metric_mm2"]) if is_awg(mm2) else mm2


def protective_section(phase_mm2: float) -> Figure:
    """Least section of the copper protective conductor for a phase conductor, mm².

    Source:
        IEC 60204-1:2016 Table 1, from memory.
    """
    sections = table("protective_sections")
    for row in sections.rows:
        if not row["S_phase_to_mm2_incl"] or phase_mm2 <= float(row["S_phase_to_mm2_incl"]):
            rule = row["min_PE_mm2_formula"]
            break
    least = {"S": phase_mm2, "S/2": phase_mm2 / 2}.get(rule) or float(rule)
    return Figure(least, sections.source, sections.confidence)


def bonding_section(current_a: float, supply_mm2: float) -> Figure:
    """Least section of the copper bond to a door that carries equipment, mm².

    Source:
        IEC 61439-1 Table 3, from memory: up to 20 A the section of the supply conductor.

    Args:
        current_a: The current, A.
        supply_mm2: The section of the supply's conductors, mm².
    """
    sections = table("bonding_sections")
    for row in sections.rows:
        if not row["Ie_to_A_incl"] or current_a <= float(row["Ie_to_A_incl"]):
            rule = row["min_bond_mm2_formula"]
            least = supply_mm2 if rule.startswith("S") else float(rule)
            return Figure(least, sections.source, sections.confidence)
    raise AssertionError("the last row of the bonding table is open")


def minimum_section(use: str) -> Figure:
    """Least section of a single flexible conductor inside the enclosure, mm².

    Source:
        IEC 60204-1 Table 5, from memory.

    Args:
        use: “power circuits” or “control circuits”.
    """
    sections = table("minimum_sections")
    for row in sections.rows:
        if row["location"].startswith("inside") and row["application"].startswith(use):
            value = float(row["single_core_flexible_class5_6_mm2"])
            return Figure(value, sections.source, sections.confidence)
    raise KeyError(use)


def wire_diameter(section_mm2: float) -> Figure:
    """Largest outer diameter of a flexible single-core wire inside a panel, mm.

    Source:
        EN 50525-2-31 (H05V-K up to 1 mm², H07V-K above), upper limit; AWG: MTW after UL 1063; from memory.
    """
    if is_awg(section_mm2):
        return _awg_diameter(section_mm2, "dia_in")
    return _by_section("wire_diameters", section_mm2, "overall_dia_upper_mm")


def cable_core_diameter(section_mm2: float) -> Figure:
    """Outer diameter of one conductor of a cable, or of a conductor in conduit, mm.

    Source:
        EN 50525-2-31, upper limit; AWG: NFPA 70 Chapter 9 Table 5, THHN/THWN-2; from memory.
    """
    if is_awg(section_mm2):
        return _awg_diameter(section_mm2, "conduit_dia_in")
    return wire_diameter(section_mm2)


def _awg_diameter(section_mm2: float, column: str) -> Figure:
    row = awg_row(section_mm2)
    return Figure(round(float(row[column]) * INCH, 2), table("awg_sizes").source, row["confidence"])


def wire_resistance(section_mm2: float) -> Figure:
    """Largest resistance of a plain flexible copper conductor at 20 °C, ohm per km.

    Source:
        IEC 60228 Table 3 (class 5), from memory.
    """
    if is_awg(section_mm2):
        resistances = table("nec_wire_resistances")
        size = awg_row(section_mm2)["size"]
        row = next(size_row for size_row in resistances.rows if size_row["size_awg_kcmil"] == size)
        at_75 = float(row["ohm_per_kft_75C"]) / 0.3048
        return Figure(round(at_75 / (1 + 0.00393 * 55), 4), resistances.source, resistances.confidence)
    return _by_section("wire_resistances", section_mm2, "class5_plain_ohm_per_km")


def _by_section(name: str, section_mm2: float, column: str) -> Figure:
    """The row of a section; one that is not made takes the next larger row, and the last beyond it."""
    rows_of = table(name)
    row = next((size_row for size_row in rows_of.rows if float(size_row["mm2"]) >= section_mm2), rows_of.rows[-1])
    confidence = rows_of.confidence if float(row["mm2"]) == section_mm2 else "unsure"
    return Figure(float(row[column]), rows_of.source, confidence)


def conductor_colours(scheme: str, north_american: bool) -> dict[str, str]:
    """The colour of everything a conductor can be, by a scheme such as “rulebook”.

    Source:
        IEC 60204-1 13.2 and NFPA 79 13.2, from memory.

    Args:
        scheme: “rulebook”, “phases” or “older phases”.
        north_american: By the North American rulebook.

    Raises:
        KeyError: there is no such scheme.
    """
    for row in table("conductor_colours").rows:
        if row["scheme"] == scheme and (row["rulebook"] == "UL") is north_american:
            return {what: colour for what, colour in row.items() if what not in ("scheme", "rulebook")}
    raise KeyError(scheme)


@dataclass(frozen=True, slots=True)
class Ferrule:
    """A wire-end ferrule: sleeve and strip length mm, collar colour, for ``wires`` conductors."""

    section_mm2: float
    wires: int
    sleeve: float
    strip: float
    colour: str

    @property
    def name(self) -> str:
        """“1.5 / 8 black”, or “2 × 1.5 / 8 black”."""
        twice = "2 × " if self.wires == 2 else ""
        return f"{twice}{self.section_mm2:g} / {self.sleeve:g} {self.colour}"


def ferrule(section_mm2: float) -> Ferrule | None:
    """The single ferrule for a section, or None where none is made.

    Source:
        DIN 46228-4 (sizes, colours), from memory.
    """
    section_mm2 = _metric(section_mm2)
    colours = {float(row["mm2"]): row["DIN_46228_4"] for row in table("ferrule_colours").rows}
    for row in table("ferrules").rows:
        if float(row["mm2"]) == section_mm2:
            sleeve, strip = float(row["default_sleeve_mm"]), float(row["strip_length_for_default_mm"])
            return Ferrule(section_mm2, 1, sleeve, strip, colours[section_mm2])
    return None


def twin_ferrule(section_mm2: float) -> Ferrule | None:
    """The ferrule for two equal conductors, or None where none is made.

    Source:
        Market practice, colours as DIN 46228-4, from memory.
    """
    section_mm2 = _metric(section_mm2)
    for row in table("twin_ferrules").rows:
        if float(row["size"].removeprefix("2x")) == section_mm2:
            return Ferrule(
                section_mm2, 2, float(row["default_sleeve_mm"]), float(row["strip_length_mm"]), row["colour"]
            )
    return None


def warm_resistance(section_mm2: float) -> Figure:
    """Resistance of a conductor at its working temperature, ohm per km: 70 °C, in North America 75 °C.

    Source:
        IEC 60228 Table 3 × 1.1965; NFPA 70 Chapter 9 Table 8 as it stands; from memory.
    """
    cold = wire_resistance(section_mm2)
    rise = rule("temperature rise of awg resistance" if is_awg(section_mm2) else "temperature rise of resistance")
    return Figure(cold.value * rise.value, cold.source, cold.confidence)
