from .compare import ListChange, Snapshot, snapshot, what_changed
from .passport_model import Passport, PassportRow, PassportSection
from .passport_pages import device_of, passport
from .status import STATIONS, Stamp, Status, statuses
from .trace_view import TRACE_LOOKUPS, Stop, TracePage, trace_page

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
