"""Which section a conductor needs, by either rulebook, and why."""

from dataclasses import dataclass

from riktig.core.job import CircuitId, circuit_of
from riktig.core.schematic import Net
from riktig.core.standards import (
    COMMON_PRACTICE,
    Figure,
    Why,
    ambient_factor,
    conductor_current,
    conductor_name,
    grouping_factor,
    minimum_section,
    nec_ambient_factor,
    nec_conductor_current,
    nec_grouping_factor,
    nec_sizes,
    panel_conductor_current,
    rule,
    small_conductor_current,
    standard_sections,
)

__all__ = [
    "CONTROL_BREAKER_A",
    "Laid",
    "Section",
    "circuit_of_net",
    "control_section",
    "least_control_section",
    "section_of",
    "smallest_section",
]

HOUSE_POWER_MM2 = 1.5
"""Thinnest power conductor of the house (common practice, no source)."""
HOUSE_CONTROL_MM2 = 1.0
"""Thinnest control conductor of the house (common practice, no source)."""
SMALL_AWG_MM2 = (0.823, 1.31)
"""18 and 16 AWG: control only."""
HOUSE_CONTROL_AWG_MM2 = 1.31
"""Thinnest control conductor of the house in AWG: 16 (common practice, no source)."""


@dataclass(frozen=True, slots=True)
class Section:
    """A conductor section: mm², what it may carry here, A, what it must carry, A, and why."""

    mm2: float
    carries_a: float
    needs_a: float
    why: Why

    @property
    def enough(self) -> bool:
        """Whether it carries what it must."""
        return self.carries_a >= self.needs_a - 1e-9

    @property
    def name(self) -> str:
        """“2.5 mm²” or “14 AWG”."""
        return conductor_name(self.mm2)


@dataclass(frozen=True, slots=True)
class Laid:
    """How a conductor is laid, which decides what it carries.

    Args:
        method: “B1” in duct inside the panel; a cable outside it “B2” in conduit, “C” on a wall, “E” on a
            perforated tray.
        ambient_c: Air around it, °C.
        circuits: Loaded circuits that share its duct, or cables that lie side by side.
        control: Control instead of power: for the least section.
        north_american: By AWG and the NEC's tables.
        terminal_c: What the clamps of sizes up to 1 AWG are marked for, 60 or 75 °C (North America).
    """

    method: str = "B1"
    ambient_c: float = 40.0
    circuits: int = 1
    control: bool = False
    north_american: bool = False
    terminal_c: float = 60.0

    @property
    def sizes(self) -> tuple[float, ...]:
        """The sizes that may be chosen, mm², rising."""
        if not self.north_american:
            return standard_sections()
        return (*SMALL_AWG_MM2, *nec_sizes()) if self.control else nec_sizes()

    @property
    def floor(self) -> Figure:
        """The least section, mm²."""
        if self.north_american:
            least = least_control_section(True) if self.control else nec_sizes()[0]
            return Figure(least, "NFPA 79 12.6.1 and UL 508A, from memory; house least: " + COMMON_PRACTICE, "sure")
        least_of = minimum_section("control circuits" if self.control else "power circuits")
        house = least_control_section(False) if self.control else HOUSE_POWER_MM2
        return Figure(max(least_of.value, house), f"{least_of.source}; house least: {COMMON_PRACTICE}", "fairly sure")


@dataclass(frozen=True, slots=True)
class _Carried:
    amps: float
    line: str
    source: str
    confidence: str


def _carried(mm2: float, laid: Laid) -> _Carried:
    """What a conductor carries as it is laid, with the line of the calculation."""
    if laid.north_american:
        return _carried_nec(mm2, laid)
    base, ambient = conductor_current(mm2, laid.method), ambient_factor(laid.ambient_c)
    grouping = grouping_factor(laid.circuits, laid.method)
    amps = base.value * ambient.value * grouping.value
    line = f"{base.value:g} A × {ambient.value:g} × {grouping.value:g} = {amps:.1f} A"
    return _Carried(
        amps,
        line,
        f"IEC 60204-1 Tables 5, 6 ({laid.method}), D.1 and D.2, from memory; house least: {COMMON_PRACTICE}",
        "unsure" if ambient.confidence == "unsure" else "fairly sure",
    )


def _carried_nec(mm2: float, laid: Laid) -> _Carried:
    if mm2 in SMALL_AWG_MM2:
        small = small_conductor_current(mm2)
        outside = laid.method != "B1"
        share = nec_ambient_factor(laid.ambient_c, 75.0).value * nec_grouping_factor(3 * laid.circuits).value
        amps = small.value * (share if outside else 1.0)
        return _Carried(amps, f"{small.value:g} A", f"{small.source}, from memory", small.confidence)
    terminal_c = 75.0 if mm2 > rule("nec 60 c sizes up to").value else laid.terminal_c
    if laid.method == "B1":
        panel = panel_conductor_current(mm2, terminal_c)
        line = f"{panel.value:g} A at clamps of {terminal_c:g} °C"
        return _Carried(panel.value, line, f"{panel.source}, from memory", panel.confidence)
    base, ambient = nec_conductor_current(mm2, 75.0), nec_ambient_factor(laid.ambient_c, 75.0)
    grouping = nec_grouping_factor(3 * laid.circuits)
    clamps = nec_conductor_current(mm2, terminal_c)
    amps = min(base.value * ambient.value * grouping.value, clamps.value)
    line = (
        f"{base.value:g} A × {ambient.value:g} × {grouping.value:g}, at most {clamps.value:g} A at clamps of "
        f"{terminal_c:g} °C = {amps:.1f} A"
    )
    return _Carried(amps, line, "NEC Tables 310.16, 310.15(B)(1), (C)(1) and 110.14(C), from memory", "sure")


def section_of(mm2: float, needs_a: float, needs_text: str, laid: Laid) -> Section:
    """A given section as it is laid, with what it carries.

    Args:
        mm2: The section of the conductor, mm².
        needs_a: What the conductor must carry, A.
        needs_text: Why it must, in words.
        laid: How the conductor is laid.
    """
    carried = _carried(mm2, laid)
    what = "control" if laid.control else "power"
    where = "inside the enclosure" if laid.method == "B1" else "outside"
    enough = carried.amps >= needs_a - 1e-9
    why = Why(
        f"Why {conductor_name(mm2)}",
        f"It must carry {needs_a:g} A: {needs_text}. The house uses at least "
        f"{conductor_name(laid.floor.value)} for {what} {where}.",
        (
            carried.line,
            f"{carried.amps:.1f} A ≥ {needs_a:g} A" if enough else f"{carried.amps:.1f} A < {needs_a:g} A: not enough",
        ),
        carried.source,
        carried.confidence,
    )
    return Section(mm2, carried.amps, needs_a, why)


def smallest_section(needs_a: float, needs_text: str, laid: Laid) -> Section:
    """The smallest section that carries a current; the table's last when none does.

    Method:
        IEC: I = Iz × ambient factor × grouping factor ≥ ``needs_a``. North America: the table of the
        panel, or 310.16 corrected and limited by the clamps. Not below the least allowed.

    Source:
        IEC 60204-1 Tables 5, 6, D.1 and D.2; UL 508A Table 28.1; NEC 310.16; from memory.

    Args:
        needs_a: What the conductor must carry, A.
        needs_text: Where that figure is from, for the explanation.
        laid: How it is laid.
    """
    offered = [mm2 for mm2 in laid.sizes if mm2 >= laid.floor.value - 1e-9]
    for mm2 in offered:
        if _carried(mm2, laid).amps >= needs_a - 1e-9:
            return section_of(mm2, needs_a, needs_text, laid)
    return section_of(offered[-1], needs_a, needs_text, laid)


CONTROL_BREAKER_A = 2.0
"""Control breaker: the smallest made carries any one starter's coil and lamps."""


def control_section(ambient_c: float, *, north_american: bool) -> Section:
    """The conductors of control circuits, behind the largest breaker or fuse that guards control.

    Args:
        ambient_c: Air around them, °C.
        north_american: By AWG and the NEC's tables.
    """
    laid = Laid(ambient_c=ambient_c, control=True, north_american=north_american)
    return smallest_section(CONTROL_BREAKER_A, "the control breaker ahead of it", laid)


def least_control_section(north_american: bool) -> float:
    """The thinnest control conductor of the house, mm²."""
    return HOUSE_CONTROL_AWG_MM2 if north_american else HOUSE_CONTROL_MM2


def circuit_of_net(net: Net) -> CircuitId:
    """The circuit whose device is first on a net: the incomer's for the supply side."""
    return circuit_of(net.id.device)
