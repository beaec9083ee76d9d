from .cards import PinCard, PinText, card_pages, draw_cards, make_cards
from .derived import CARDS, INDEX, LABELS, NAME_INDEX, NAMEPLATE
from .draw import draw_medium, label_pages, misfit_texts
from .fit import LEADING, LEAST_CAPITAL, FittedText, fit_text
from .index import Index, IndexEntry, find, index_of
from .index_search import make_index, name_index
from .make import Label, Labels, Medium, make_labels
from .nameplate import NameplateField, nameplate_fields
from .printed import print_entries, to_print_again
from .sheets import known_sheets, sheet_pages
from .synonyms import SYNONYMS, same_words

__all__ = [
    "CARDS",
    "INDEX",
    "LABELS",
    "LEADING",
    "LEAST_CAPITAL",
    "NAMEPLATE",
    "NAME_INDEX",
    "SYNONYMS",
    "FittedText",
    "Index",
    "IndexEntry",
    "Label",
    "Labels",
    "Medium",
    "NameplateField",
    "PinCard",
    "PinText",
    "card_pages",
    "draw_cards",
    "draw_medium",
    "find",
    "fit_text",
    "index_of",
    "known_sheets",
    "label_pages",
    "make_cards",
    "make_index",
    "make_labels",
    "misfit_texts",
    "name_index",
    "nameplate_fields",
    "print_entries",
    "same_words",
    "sheet_pages",
    "to_print_again",
]
