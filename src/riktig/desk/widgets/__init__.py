"""Small shared widgets."""

from riktig.desk.widgets.flow import FlowLayout
from riktig.desk.widgets.station import Station, plain_label, replace_body, row_of, show_only
from riktig.desk.widgets.steps import StepList, StepRow
from riktig.desk.widgets.tab_order import first_field, tab_as_seen
from riktig.desk.widgets.table import ScheduleTable

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
