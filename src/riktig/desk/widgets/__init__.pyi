from .elided import ElidedLabel
from .field_undo import FieldUndo
from .flow import FlowLayout
from .page_stack import PageStack, ScrolledPages
from .small import plain_label, replace_body, row_of, show_only
from .station import Station
from .steps import StepList, StepRow
from .tab_order import TabOrder, first_field
from .table import ScheduleTable

__all__ = [
    "ElidedLabel",
    "FieldUndo",
    "FlowLayout",
    "PageStack",
    "ScheduleTable",
    "ScrolledPages",
    "Station",
    "StepList",
    "StepRow",
    "TabOrder",
    "first_field",
    "plain_label",
    "replace_body",
    "row_of",
    "show_only",
]
