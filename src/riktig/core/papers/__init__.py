"""Papers out and lists in: PDF, DXF, SVG, XLSX, CSV and JSON.

Words: a *schedule* is a derived list as a table with stable keys; the *set* is the PDF of all
drawings and schedules; a *paper* is one file of the hand-over.
"""

from riktig.core.papers.compare import Change, Snapshot, snapshot, what_changed
from riktig.core.papers.draw_renaming import draw_renaming
from riktig.core.papers.dxf import write_dxf
from riktig.core.papers.energise import run_panel_script, states_of
from riktig.core.papers.export import export_all, export_metal, export_page, file_stem
from riktig.core.papers.inks import ink
from riktig.core.papers.load_words import COLUMNS, LEFT_OUT
from riktig.core.papers.passport import device_of, passport
from riktig.core.papers.passport_model import Passport, Row, Section
from riktig.core.papers.pdf import Page, SetHead, fitting_scale, missing_glyphs, write_set
from riktig.core.papers.read_grid import Grid, grid_of_file, grid_of_text
from riktig.core.papers.read_loads import (
    Column,
    LoadList,
    LoadRow,
    job_from_loads,
    loads_of,
    new_loads,
    read_loads,
    recognise,
)
from riktig.core.papers.read_parts import PART_COLUMNS, holes_text, own_parts_schedule, read_holes, read_parts
from riktig.core.papers.record import build_record, measured_record, metal_record, missing_papers, test_record
from riktig.core.papers.renaming import Renaming, number_changes, tag_changes
from riktig.core.papers.schedule import Schedule, Value
from riktig.core.papers.schedules import SCHEDULES, holes_of, schedule
from riktig.core.papers.schedules_door import site_items
from riktig.core.papers.schedules_plate import plate_parts
from riktig.core.papers.status import STATIONS, Stamp, Status, statuses
from riktig.core.papers.svg import as_svg
from riktig.core.papers.tables import as_csv, as_json, write_xlsx
from riktig.core.papers.template import CHECK_MM, Template, Tile, check_bar, overview, template_of, write_template
from riktig.core.papers.trace_page import TRACE_LOOKUPS, Stop, TracePage, trace_page

__all__ = [
    "CHECK_MM",
    "COLUMNS",
    "LEFT_OUT",
    "PART_COLUMNS",
    "SCHEDULES",
    "STATIONS",
    "TRACE_LOOKUPS",
    "Change",
    "Column",
    "Grid",
    "LoadList",
    "LoadRow",
    "Page",
    "Passport",
    "Renaming",
    "Row",
    "Schedule",
    "Section",
    "SetHead",
    "Snapshot",
    "Stamp",
    "Status",
    "Stop",
    "Template",
    "Tile",
    "TracePage",
    "Value",
    "as_csv",
    "as_json",
    "as_svg",
    "build_record",
    "check_bar",
    "device_of",
    "draw_renaming",
    "export_all",
    "export_metal",
    "export_page",
    "file_stem",
    "fitting_scale",
    "grid_of_file",
    "grid_of_text",
    "holes_of",
    "holes_text",
    "ink",
    "job_from_loads",
    "loads_of",
    "measured_record",
    "metal_record",
    "missing_glyphs",
    "missing_papers",
    "new_loads",
    "number_changes",
    "overview",
    "own_parts_schedule",
    "passport",
    "plate_parts",
    "read_holes",
    "read_loads",
    "read_parts",
    "recognise",
    "run_panel_script",
    "schedule",
    "site_items",
    "snapshot",
    "states_of",
    "statuses",
    "tag_changes",
    "template_of",
    "test_record",
    "trace_page",
    "what_changed",
    "write_dxf",
    "write_set",
    "write_template",
    "write_xlsx",
]
