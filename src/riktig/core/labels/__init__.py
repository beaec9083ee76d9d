"""Labels: what text goes on what, in how many copies, on which medium.

Words: a *marker* is on a wire or terminal; a *legend* on the door; the *nameplate* outside.
"""

from operator import attrgetter

from riktig.core.circuit import CIRCUITS, NAMES, NETS, SHEETS
from riktig.core.energise import LIVE_WITH_MAIN_OFF
from riktig.core.holes import HOLES
from riktig.core.job import Job
from riktig.core.labels.cards import PinCard, PinText, draw_cards, make_cards
from riktig.core.labels.draw import draw_medium
from riktig.core.labels.find import make_index, name_index
from riktig.core.labels.index import Entry, Index, find, index_of
from riktig.core.labels.make import LONGEST_MARKER, Label, Labels, Medium, NameplateField, make_labels, nameplate_fields
from riktig.core.labels.printed import PRINTED, print_entries, to_print_again
from riktig.core.labels.synonyms import SYNONYMS, same_words
from riktig.core.plan import Derived
from riktig.core.plate import CUTS, LAYOUT
from riktig.core.sizing import SIZING
from riktig.core.terminals import STRIPS
from riktig.core.wiring import WIRING

__all__ = [
    "CARDS",
    "INDEX",
    "LABELS",
    "LONGEST_MARKER",
    "NAME_INDEX",
    "PRINTED",
    "SYNONYMS",
    "Entry",
    "Index",
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


def _whole(job: Job) -> Job:
    return job


CARDS = Derived("pin cards", (CIRCUITS, NETS, NAMES), make_cards)
LABELS = Derived(
    "labels",
    (CIRCUITS, NAMES, SIZING, WIRING, STRIPS, attrgetter("practice"), _whole, LIVE_WITH_MAIN_OFF, CUTS),
    make_labels,
)
NAME_INDEX = Derived("name index", (CIRCUITS, NETS, NAMES, SHEETS, attrgetter("loads")), name_index)
"""What can be found while wires are still worked out."""
INDEX = Derived("index", (NAME_INDEX, LAYOUT, HOLES, CUTS, WIRING, STRIPS), make_index)
