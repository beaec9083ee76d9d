"""What this step offers the Plan."""

from riktig.core.evaluation import reads
from riktig.core.job import (
    JOB_CIRCUIT_INPUTS,
    JOB_CIRCUITS,
    JOB_ENCLOSURE,
    JOB_LOADS,
    JOB_OVERRIDES,
    JOB_PARTS,
    JOB_PICKS,
    JOB_PRACTICE,
    JOB_SIGNALS,
    JOB_SOURCES,
    JOB_SOURCES_ASKED,
    JOB_SUPPLY,
)
from riktig.core.schematic import CIRCUITS, NETS
from riktig.core.sizing.choose import size_all
from riktig.core.sizing.electrical import Brief, propose_electrical
from riktig.core.sizing.inside_air import inside_air_of, losses_of, with_fans
from riktig.core.sizing.proposal import propose
from riktig.core.sizing.settings import dial_settings, motor_currents

__all__ = ["DIAL_SETTINGS", "ELECTRICAL", "INSIDE_AIR", "PROPOSAL", "SIZING"]

BRIEF = (
    reads(JOB_LOADS)
    & JOB_SUPPLY
    & JOB_PRACTICE
    & JOB_ENCLOSURE
    & JOB_SIGNALS
    & JOB_SOURCES
    & JOB_SOURCES_ASKED
    & JOB_OVERRIDES
).derive("brief", Brief)
ELECTRICAL = (reads(BRIEF) & JOB_CIRCUITS & CIRCUITS & NETS).derive_with_memory(
    "electrical proposal",
    lambda memory, brief, own, circuits, nets: propose_electrical(brief, own, circuits, nets, memory),
)
SIZING = (reads(CIRCUITS) & JOB_CIRCUIT_INPUTS & ELECTRICAL & JOB_ENCLOSURE & JOB_PARTS & JOB_PICKS).derive(
    "sizing",
    lambda circuits, inputs, electrical, enclosure, own_parts, picks: with_fans(
        size_all(circuits, inputs, electrical, own_parts, picks), circuits, enclosure, picks
    ),
)
"""The part and the conductors of everything that is drawn, after the proposal."""
DIAL_SETTINGS = (reads(CIRCUITS) & JOB_CIRCUITS & ELECTRICAL).derive("dial settings", dial_settings)
MOTOR_CURRENTS = (reads(CIRCUITS) & JOB_CIRCUITS & ELECTRICAL).derive("motor currents of drives", motor_currents)
_LOSSES = (reads(CIRCUITS) & SIZING).derive("losses", losses_of)
INSIDE_AIR = (reads(_LOSSES) & SIZING & CIRCUITS & JOB_ENCLOSURE & JOB_OVERRIDES).derive("warmth", inside_air_of)
PROPOSAL = (reads(BRIEF) & ELECTRICAL & INSIDE_AIR).derive("proposal", propose)
