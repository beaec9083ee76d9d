from .cards import PinCard, PinText, draw_cards, make_cards
from .derived import CARDS, INDEX, LABELS, NAME_INDEX, NAMEPLATE
from .draw import draw_medium
from .index import Index, IndexEntry, find, index_of
from .index_search import make_index, name_index
from .make import LONGEST_MARKER, Label, Labels, Medium, NameplateField, make_labels, nameplate_fields
from .printed import print_entries, to_print_again
from .synonyms import SYNONYMS, same_words

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
