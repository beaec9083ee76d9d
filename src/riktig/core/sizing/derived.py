"""What this step offers the Plan."""

from riktig.core.evaluation import reads
from riktig.core.job import (
    JOB_CIRCUIT_INPUTS,
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
from riktig.core.schematic import CIRCUITS
from riktig.core.sizing.choose import size_all
from riktig.core.sizing.proposal import Brief, propose

__all__ = ["PROPOSAL", "SIZING"]

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
PROPOSAL = reads(BRIEF).derive_with_memory("proposal", lambda memory, brief: propose(brief, memory))

SIZING = (reads(CIRCUITS) & JOB_CIRCUIT_INPUTS & PROPOSAL & JOB_PARTS & JOB_PICKS).derive("sizing", size_all)
"""The part and the conductors of everything that is drawn, after the proposal."""
