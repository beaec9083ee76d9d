"""What this step offers the evaluation, drawings apart."""

from riktig.core.evaluation import reads
from riktig.core.job import (
    JOB_CIRCUIT_INPUTS,
    JOB_DOORS,
    JOB_LAST_NUMBER,
    JOB_NUMBERS,
    JOB_PRACTICE,
    JOB_PRINTED,
    JOB_TAGS,
)
from riktig.core.schematic.faults.find import find_faults
from riktig.core.schematic.layout.sheets import lay_out
from riktig.core.schematic.netlist.conductor_ends import conductor_ends_of
from riktig.core.schematic.netlist.nets import find_nets
from riktig.core.schematic.netlist.trace import Tracer
from riktig.core.schematic.numbering.numbers import GivenNames, name_all
from riktig.core.schematic.templates.expand import expand

__all__ = ["CIRCUITS", "CONDUCTOR_ENDS", "FAULTS", "NAMES", "NETS", "SHEETS", "TRACER"]

CIRCUITS = (reads(JOB_CIRCUIT_INPUTS) & JOB_DOORS).derive_with_memory(
    "circuits", lambda memory, inputs, doors: expand(inputs, doors, memory)
)
NETS = reads(CIRCUITS).derive_with_memory("nets", lambda memory, circuits: find_nets(circuits, memory))
GIVEN_NAMES = (reads(JOB_PRACTICE) & JOB_TAGS & JOB_NUMBERS & JOB_LAST_NUMBER & JOB_PRINTED).derive(
    "given names", GivenNames
)
NAMES = (reads(CIRCUITS) & NETS & GIVEN_NAMES).derive_with_memory(
    "names", lambda memory, circuits, nets, given: name_all(circuits, nets, given, memory)
)
CONDUCTOR_ENDS = (reads(CIRCUITS) & NETS).derive("tally", conductor_ends_of)
FAULTS = (reads(CIRCUITS) & NETS).derive("faults", find_faults)
SHEETS = (reads(CIRCUITS) & JOB_PRACTICE).derive_with_memory(
    "sheets", lambda memory, circuits, practice: lay_out(circuits, memory, ladder=practice.rulebook.north_american)
)
TRACER = (reads(CIRCUITS) & NETS).derive("tracer", Tracer)
"""Finds ways back to sources and on to loads; making it works out the way of every pin."""
