from .flow import FlowLayout
from .small import plain_label, replace_body, row_of, show_only
from .station import Station
from .steps import StepList, StepRow
from .tab_order import first_field, tab_as_seen
from .table import ScheduleTable

__all__ = [
    "FlowLayout",
    "ScheduleTable",
    "Station",
    "StepList",
    "StepRow",
    "first_field",
    "plain_label",
    "replace_body",
    "row_of",
    "show_only",
    "tab_as_seen",
]
