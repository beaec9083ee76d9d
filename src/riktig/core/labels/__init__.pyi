from .cards import PinCard, PinText, card_pages, draw_cards, make_cards
from .derived import CARDS, INDEX, LABELS, NAME_INDEX, NAMEPLATE
from .draw import draw_medium, label_marks, label_pages, misfit_texts, printed_lines
from .engraving import engraved
from .fit import LEADING, LEAST_CAPITAL, FittedText, LetterLimits, fit_text
from .index import Index, IndexEntry, find, index_of
from .index_search import make_index, name_index
from .make import make_labels
from .model import Label, Labels, Medium, label_names
from .nameplate import NameplateField, nameplate_fields
from .printed import (
    LabelChange,
    LabelWork,
    PrintRun,
    changed_since,
    label_changes,
    label_text,
    print_entries,
    print_runs,
    replaced_entry,
    to_print_again,
)
from .sheets import known_sheets, read_sheets, sheet_pages
from .synonyms import SYNONYMS, same_words
from .unmarked import MOST_UNMARKED, why_marked
from .wording import named_lines, translated

__all__ = [
    "CARDS",
    "INDEX",
    "LABELS",
    "LEADING",
    "LEAST_CAPITAL",
    "MOST_UNMARKED",
    "NAMEPLATE",
    "NAME_INDEX",
    "SYNONYMS",
    "FittedText",
    "Index",
    "IndexEntry",
    "Label",
    "LabelChange",
    "LabelWork",
    "Labels",
    "LetterLimits",
    "Medium",
    "NameplateField",
    "PinCard",
    "PinText",
    "PrintRun",
    "card_pages",
    "changed_since",
    "draw_cards",
    "draw_medium",
    "engraved",
    "find",
    "fit_text",
    "index_of",
    "known_sheets",
    "label_changes",
    "label_marks",
    "label_names",
    "label_pages",
    "label_text",
    "make_cards",
    "make_index",
    "make_labels",
    "misfit_texts",
    "name_index",
    "named_lines",
    "nameplate_fields",
    "print_entries",
    "print_runs",
    "printed_lines",
    "read_sheets",
    "replaced_entry",
    "same_words",
    "sheet_pages",
    "to_print_again",
    "translated",
    "why_marked",
]
