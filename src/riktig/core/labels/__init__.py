"""Labels: what text goes on what, in how many copies, on which medium.

Words: a *marker* is on a wire or terminal; a *legend* on the door; the *nameplate* outside.
"""

from riktig.core.evaluation import reads
from riktig.core.holes import HOLES
from riktig.core.job import (
    JOB_DRAWING_NUMBER,
    JOB_ENCLOSURE,
    JOB_LOADS,
    JOB_MAKER,
    JOB_NUMBER,
    JOB_PRACTICE,
    JOB_SERIAL,
    JOB_SOURCES,
    JOB_SUPPLY,
)
from riktig.core.labels.cards import PinCard, PinText, draw_cards, make_cards
from riktig.core.labels.draw import draw_medium
from riktig.core.labels.find import make_index, name_index
from riktig.core.labels.index import Index, IndexEntry, find, index_of
from riktig.core.labels.make import LONGEST_MARKER, Label, Labels, Medium, NameplateField, make_labels, nameplate_fields
from riktig.core.labels.printed import print_entries, to_print_again
from riktig.core.labels.synonyms import SYNONYMS, same_words
from riktig.core.plate import CUTS, LAYOUT
from riktig.core.schematic import CIRCUITS, NAMES, NETS, SHEETS
from riktig.core.simulation import LIVE_WITH_MAIN_OFF
from riktig.core.sizing import SIZING
from riktig.core.terminals import STRIPS
from riktig.core.wiring import WIRING

__all__ = [
    "CARDS",
    "INDEX",
    "LABELS",
    "LONGEST_MARKER",
    "NAMEPLATE",
    "NAME_INDEX",
    "SYNONYMS",
    "Index",
    "IndexEntry",
    "Label",
    "Labels",
    "Medium",
    "NameplateField",
    "PinCard",
    "PinText",
    "draw_cards",
    "draw_medium",
    "find",
    "index_of",
    "make_cards",
    "make_index",
    "make_labels",
    "name_index",
    "nameplate_fields",
    "print_entries",
    "same_words",
    "to_print_again",
]


CARDS = (reads(CIRCUITS) & NETS & NAMES).derive("pin cards", make_cards)
NAMEPLATE = (
    reads(JOB_MAKER) & JOB_NUMBER & JOB_SERIAL & JOB_DRAWING_NUMBER & JOB_SUPPLY & JOB_ENCLOSURE & SIZING
).derive("nameplate", nameplate_fields)
LABELS = (
    reads(CIRCUITS)
    & NAMES
    & WIRING
    & STRIPS
    & JOB_PRACTICE
    & JOB_SUPPLY
    & JOB_SOURCES
    & NAMEPLATE
    & LIVE_WITH_MAIN_OFF
    & CUTS
).derive("labels", make_labels)
NAME_INDEX = (reads(CIRCUITS) & NETS & NAMES & SHEETS & JOB_LOADS).derive("name index", name_index)
"""What can be found while wires are still worked out."""
INDEX = (reads(NAME_INDEX) & LAYOUT & HOLES & CUTS & WIRING & STRIPS).derive("index", make_index)
