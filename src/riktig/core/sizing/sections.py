"""Which section each net is wired in, and why."""

from dataclasses import dataclass

from riktig.core.circuit import Net, NetClass
from riktig.core.job import CircuitId
from riktig.core.standards import (
    COMMON_PRACTICE,
    Why,
    ambient_factor,
    conductor_current,
    grouping_factor,
    minimum_section,
    standard_sections,
)

__all__ = ["HOUSE_CONTROL_MM2", "HOUSE_POWER_MM2", "Section", "circuit_of_net", "smallest_section"]

HOUSE_POWER_MM2 = 1.5
"""Thinnest power conductor of the house (common practice, no source)."""
HOUSE_CONTROL_MM2 = 1.0
"""Thinnest control conductor of the house (common practice, no source)."""


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
        return self.carries_a >= self.needs_a


def circuit_of_net(net: Net) -> CircuitId:
    """The circuit whose device is first on a net: the incomer's for the supply side."""
    return CircuitId(net.id.split(".", 1)[0])


def smallest_section(
    needs_a: float, needs_text: str, *, ambient_c: float, circuits: int, net_class: NetClass
) -> Section:
    """The smallest section of the table that carries a current in duct.

    Method:
        I = Iz(B1, 40 °C) × ambient factor × grouping factor ≥ ``needs_a``; not below the house's
        thinnest nor below IEC 60204-1 Table 5.

    Source:
        IEC 60204-1 Tables 5, 6, D.1 and D.2, from memory.

    Args:
        needs_a: What the conductor must carry, A.
        needs_text: Where that figure is from, for the explanation.
        ambient_c: Air around the conductors, °C.
        circuits: Loaded circuits that share the duct.
        net_class: Power or control, for the least section.
    """
    control = net_class is NetClass.CONTROL
    least = minimum_section("control circuits" if control else "power circuits")
    floor = max(least.value, HOUSE_CONTROL_MM2 if control else HOUSE_POWER_MM2)
    ambient, grouping = ambient_factor(ambient_c), grouping_factor(circuits)
    chosen, carries = 0.0, 0.0
    for mm2 in standard_sections():
        chosen = mm2
        base = conductor_current(mm2)
        carries = base.value * ambient.value * grouping.value
        if mm2 >= floor and carries >= needs_a:
            break
    what = "control" if control else "power"
    why = Why(
        f"Why {chosen:g} mm²",
        f"It must carry {needs_a:g} A: {needs_text}. Smallest allowed for {what} inside the "
        f"enclosure is {least.value:g} mm²; the house uses at least {floor:g}.",
        (
            f"{base.value:g} A × {ambient.value:g} × {grouping.value:g} = {carries:.1f} A",
            f"{carries:.1f} A ≥ {needs_a:g} A"
            if carries >= needs_a
            else f"{carries:.1f} A < {needs_a:g} A: the table ends here",
        ),
        "IEC 60204-1 Tables 5, 6 (B1), D.1 and D.2, from memory; house least: " + COMMON_PRACTICE,
        "fairly sure",
    )
    return Section(chosen, carries, needs_a, why)
