from .change_work import ChangeLine, ChangeWork, change_paper, change_work
from .details_model import Details, DetailsRow, DetailsSection, Photo
from .details_pages import details_of, device_of, notes_on, photos_of, thing_subject
from .drawing_list import DrawingLine, drawing_lines
from .effects import ADDED, CHANGED, REMOVED, Effect, Snapshot, change_order, effects, snapshot, summary
from .status import STATIONS, Stamp, Status, statuses
from .suspect_drawings import MOST_NUMBERED, sheets_of_suspects, suspects_on_plate
from .trace_view import TRACE_LOOKUPS, Stop, TracePage, trace_page
from .walk import WalkStep, walk_steps

__all__ = [
    "ADDED",
    "CHANGED",
    "MOST_NUMBERED",
    "REMOVED",
    "STATIONS",
    "TRACE_LOOKUPS",
    "ChangeLine",
    "ChangeWork",
    "Details",
    "DetailsRow",
    "DetailsSection",
    "DrawingLine",
    "Effect",
    "Photo",
    "Snapshot",
    "Stamp",
    "Status",
    "Stop",
    "TracePage",
    "WalkStep",
    "change_order",
    "change_paper",
    "change_work",
    "details_of",
    "device_of",
    "drawing_lines",
    "effects",
    "notes_on",
    "photos_of",
    "sheets_of_suspects",
    "snapshot",
    "statuses",
    "summary",
    "suspects_on_plate",
    "thing_subject",
    "trace_page",
    "walk_steps",
]
