"""What this step offers the evaluation."""

from riktig.core.door import DOOR, LEGENDS
from riktig.core.evaluation import reads
from riktig.core.holes import HOLES
from riktig.core.job import (
    JOB_DRAWING_NUMBER,
    JOB_ENCLOSURE,
    JOB_LABEL_SHEETS,
    JOB_LABEL_TEXTS,
    JOB_LOADS,
    JOB_MADE,
    JOB_MAKER,
    JOB_MARKS,
    JOB_NUMBER,
    JOB_PRACTICE,
    JOB_SERIAL,
    JOB_SOURCES,
    JOB_STANDARD,
    JOB_SUPPLY,
    JOB_UNMARKED,
    ControlSupply,
    Load,
    Practice,
    Supply,
)
from riktig.core.labels.cards import make_cards
from riktig.core.labels.index_search import make_index, name_index
from riktig.core.labels.inputs import LabelInputs
from riktig.core.labels.make import make_labels
from riktig.core.labels.nameplate import NameplateInputs, nameplate_fields
from riktig.core.plate import CUTS, LAYOUT
from riktig.core.schematic import CIRCUITS, NAMES, NETS, SHEETS, control_source
from riktig.core.short_circuit import SHORT_CIRCUIT
from riktig.core.simulation import LIVE_WITH_MAIN_OFF
from riktig.core.sizing import DC_VOLTS, DIAL_SETTINGS, SIZING
from riktig.core.terminals import STRIPS
from riktig.core.wiring import WIRING

__all__ = ["CARDS", "INDEX", "LABELS", "NAMEPLATE", "NAME_INDEX"]


def _north_american(practice: Practice) -> bool:
    return practice.rulebook.north_american


CARDS = (reads(CIRCUITS) & NETS & NAMES).derive("pin cards", make_cards)


def _control_volts(loads: tuple[Load, ...], supply: Supply, practice: Practice) -> float:
    source, _why = control_source(loads, supply, practice)
    direct = supply.voltage_to_neutral_v if supply.neutral else supply.voltage_v
    return {ControlSupply.DC: DC_VOLTS, ControlSupply.DIRECT: direct}.get(source, practice.transformer_v)


_CONTROL = (reads(JOB_LOADS) & JOB_SUPPLY & JOB_PRACTICE).derive("control voltage", _control_volts)
_MARKET = reads(JOB_PRACTICE).derive("market of the nameplate", _north_american)
NAMEPLATE_INPUTS = (
    reads(JOB_MAKER)
    & JOB_NUMBER
    & JOB_SERIAL
    & JOB_MADE
    & JOB_STANDARD
    & JOB_MARKS
    & JOB_DRAWING_NUMBER
    & JOB_SUPPLY
    & JOB_ENCLOSURE
    & JOB_SOURCES
    & JOB_LOADS
    & CIRCUITS
    & SIZING
    & SHORT_CIRCUIT
    & _CONTROL
    & _MARKET
).derive("nameplate inputs", NameplateInputs)
NAMEPLATE = reads(NAMEPLATE_INPUTS).derive("nameplate", nameplate_fields)
LABEL_INPUTS = (
    reads(CIRCUITS)
    & NAMES
    & WIRING
    & STRIPS
    & JOB_PRACTICE
    & JOB_SUPPLY
    & JOB_SOURCES
    & NAMEPLATE
    & LIVE_WITH_MAIN_OFF
    & DIAL_SETTINGS
    & CUTS
    & SHORT_CIRCUIT
    & JOB_NUMBER
    & JOB_LABEL_SHEETS
    & NETS
    & SIZING
    & LAYOUT
    & DOOR
    & LEGENDS
    & JOB_LABEL_TEXTS
    & JOB_UNMARKED
).derive("label inputs", LabelInputs)
LABELS = reads(LABEL_INPUTS).derive("labels", make_labels)
NAME_INDEX = (reads(CIRCUITS) & NETS & NAMES & SHEETS & JOB_LOADS).derive("name index", name_index)
"""What can be found while wires are still worked out."""
INDEX = (reads(NAME_INDEX) & LAYOUT & HOLES & CUTS & WIRING & STRIPS).derive("index", make_index)
