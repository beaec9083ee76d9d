from .copying import all_of_list, chosen_of_list
from .elided import ElidedLabel
from .field_undo import FieldUndo
from .fitted import FittedLabel
from .flow import FlowLayout
from .page_stack import PageStack, ScrolledPages
from .small import after_paint, flowing, plain_label, replace_body, row_of, show_only
from .station import Station
from .steps import StepList, StepRow
from .tab_order import TabOrder, first_field
from .table import ScheduleTable

__all__ = [
    "ElidedLabel",
    "FieldUndo",
    "FittedLabel",
    "FlowLayout",
    "PageStack",
    "ScheduleTable",
    "ScrolledPages",
    "Station",
    "StepList",
    "StepRow",
    "TabOrder",
    "after_paint",
    "all_of_list",
    "chosen_of_list",
    "first_field",
    "flowing",
    "plain_label",
    "replace_body",
    "row_of",
    "show_only",
]
