"""Derived things in words, for the screen: passport, route card, trace page, what an edit changed.

Words: a *passport* is everything about one thing; a *status* is how far a station is.
"""

from riktig.core.views.compare import ListChange, Snapshot, snapshot, what_changed
from riktig.core.views.passport import device_of, passport
from riktig.core.views.passport_model import Passport, PassportRow, PassportSection
from riktig.core.views.status import STATIONS, Stamp, Status, statuses
from riktig.core.views.trace_page import TRACE_LOOKUPS, Stop, TracePage, trace_page

__all__ = [
    "STATIONS",
    "TRACE_LOOKUPS",
    "ListChange",
    "Passport",
    "PassportRow",
    "PassportSection",
    "Snapshot",
    "Stamp",
    "Status",
    "Stop",
    "TracePage",
    "device_of",
    "passport",
    "snapshot",
    "statuses",
    "trace_page",
    "what_changed",
]
