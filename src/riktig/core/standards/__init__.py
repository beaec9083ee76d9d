"""Published tables and clauses as data: a figure, its source and how sure we are of it.

Every figure here is quoted from memory and must be compared with the printed standard before a
panel depends on it. A change of figure is a change of one row of one file in ``data/``.
"""

from riktig.core.standards.conductors import (
    Ferrule,
    bonding_section,
    ferrule,
    minimum_section,
    protective_section,
    twin_ferrule,
    wire_diameter,
    wire_resistance,
)
from riktig.core.standards.currents import (
    ambient_factor,
    conductor_current,
    grouping_factor,
    motor_current,
    motor_powers,
    next_section,
    standard_sections,
    switch_ratings,
)
from riktig.core.standards.figures import COMMON_PRACTICE, Figure, Why
from riktig.core.standards.tables import Table, table
from riktig.core.standards.workshop import TappedHole, allowed_colours, operator_hole, self_drilling_point, tapped_hole

__all__ = [
    "COMMON_PRACTICE",
    "Ferrule",
    "Figure",
    "Table",
    "TappedHole",
    "Why",
    "allowed_colours",
    "ambient_factor",
    "bonding_section",
    "conductor_current",
    "ferrule",
    "grouping_factor",
    "minimum_section",
    "motor_current",
    "motor_powers",
    "next_section",
    "operator_hole",
    "protective_section",
    "self_drilling_point",
    "standard_sections",
    "switch_ratings",
    "table",
    "tapped_hole",
    "twin_ferrule",
    "wire_diameter",
    "wire_resistance",
]
