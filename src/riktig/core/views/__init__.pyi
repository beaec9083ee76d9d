from .compare import ListChange, Snapshot, snapshot, what_changed
from .details_model import Details, DetailsRow, DetailsSection
from .details_pages import details_of, device_of
from .status import STATIONS, Stamp, Status, statuses
from .trace_view import TRACE_LOOKUPS, Stop, TracePage, trace_page

__all__ = [
    "STATIONS",
    "TRACE_LOOKUPS",
    "Details",
    "DetailsRow",
    "DetailsSection",
    "ListChange",
    "Snapshot",
    "Stamp",
    "Status",
    "Stop",
    "TracePage",
    "details_of",
    "device_of",
    "snapshot",
    "statuses",
    "trace_page",
    "what_changed",
]
