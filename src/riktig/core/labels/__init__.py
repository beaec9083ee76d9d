"""Labels: what text goes on what, in how many copies, on which medium.

Words: a *marker* is on a wire or terminal; a *legend* on the door; the *nameplate* outside.
"""

from operator import attrgetter

from riktig.core.circuit import CIRCUITS, NAMES, NETS
from riktig.core.job import Job
from riktig.core.labels.draw import draw_medium
from riktig.core.labels.find import SYNONYMS, Entry, find, make_index
from riktig.core.labels.make import LONGEST_MARKER, Label, Labels, Medium, NameplateField, make_labels, nameplate_fields
from riktig.core.plan import Derived
from riktig.core.plate import CUTS, HOLES, LAYOUT
from riktig.core.sizing import SIZING
from riktig.core.terminals import STRIPS
from riktig.core.wiring import WIRING

__all__ = [
    "INDEX",
    "LABELS",
    "LONGEST_MARKER",
    "SYNONYMS",
    "Entry",
    "Label",
    "Labels",
    "Medium",
    "NameplateField",
    "draw_medium",
    "find",
    "make_index",
    "make_labels",
    "nameplate_fields",
]


def _whole(job: Job) -> Job:
    return job


LABELS = Derived("labels", (CIRCUITS, NAMES, SIZING, WIRING, STRIPS, attrgetter("practice"), _whole), make_labels)
INDEX = Derived("index", (CIRCUITS, NETS, NAMES, LAYOUT, HOLES, CUTS, WIRING, STRIPS, attrgetter("loads")), make_index)
