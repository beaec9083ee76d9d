"""What leaves the program: PDF, DXF, SVG, XLSX, CSV and JSON.

Words: a *schedule* is a derived list as a table with stable keys; the *set* is the PDF of all drawings and schedules; a
*paper* is one file of the hand-over.
"""

from riktig.core.exports.draw_renaming import draw_renaming
from riktig.core.exports.dxf import write_dxf
from riktig.core.exports.export import export_all, export_metal, export_page, file_stem
from riktig.core.exports.inks import ink
from riktig.core.exports.panel_script import run_panel_script, states_of
from riktig.core.exports.pdf import Page, SetHead, fitting_scale, missing_glyphs, write_set
from riktig.core.exports.record import build_record, measured_record, metal_record, missing_papers, test_record
from riktig.core.exports.renaming import Renaming, number_changes, tag_changes
from riktig.core.exports.schedule import Schedule, Value
from riktig.core.exports.schedules import SCHEDULES, holes_of, schedule
from riktig.core.exports.schedules_door import site_items
from riktig.core.exports.schedules_plate import plate_parts
from riktig.core.exports.svg import as_svg
from riktig.core.exports.tables import as_csv, as_json, write_xlsx
from riktig.core.exports.template import CHECK_MM, Template, Tile, check_bar, overview, template_of, write_template

__all__ = [
    "CHECK_MM",
    "SCHEDULES",
    "Page",
    "Renaming",
    "Schedule",
    "SetHead",
    "Template",
    "Tile",
    "Value",
    "as_csv",
    "as_json",
    "as_svg",
    "build_record",
    "check_bar",
    "draw_renaming",
    "export_all",
    "export_metal",
    "export_page",
    "file_stem",
    "fitting_scale",
    "holes_of",
    "ink",
    "measured_record",
    "metal_record",
    "missing_glyphs",
    "missing_papers",
    "number_changes",
    "overview",
    "plate_parts",
    "run_panel_script",
    "schedule",
    "site_items",
    "states_of",
    "tag_changes",
    "template_of",
    "test_record",
    "write_dxf",
    "write_set",
    "write_template",
    "write_xlsx",
]
