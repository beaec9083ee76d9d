"""Papers out and lists in: PDF, DXF, SVG, XLSX, CSV and JSON.

Words: a *schedule* is a derived list as a table with stable keys; the *set* is the PDF of all
drawings and schedules; a *paper* is one file of the hand-over.
"""

from riktig.core.papers.dxf import write_dxf
from riktig.core.papers.export import export_all, file_stem
from riktig.core.papers.inks import ink
from riktig.core.papers.passport import Passport, Row, Section, device_of, passport
from riktig.core.papers.pdf import Page, SetHead, fitting_scale, missing_glyphs, write_set
from riktig.core.papers.read_loads import COLUMNS, LoadRow, job_from_loads, read_loads
from riktig.core.papers.record import build_record, missing_papers, test_record
from riktig.core.papers.schedules import SCHEDULES, Schedule, Value, holes_of, schedule
from riktig.core.papers.status import STATIONS, Stamp, Status, statuses
from riktig.core.papers.svg import as_svg
from riktig.core.papers.tables import as_csv, as_json, write_xlsx

__all__ = [
    "COLUMNS",
    "SCHEDULES",
    "STATIONS",
    "LoadRow",
    "Page",
    "Passport",
    "Row",
    "Schedule",
    "Section",
    "SetHead",
    "Stamp",
    "Status",
    "Value",
    "as_csv",
    "as_json",
    "as_svg",
    "build_record",
    "device_of",
    "export_all",
    "file_stem",
    "fitting_scale",
    "holes_of",
    "ink",
    "job_from_loads",
    "missing_glyphs",
    "missing_papers",
    "passport",
    "read_loads",
    "schedule",
    "statuses",
    "test_record",
    "write_dxf",
    "write_set",
    "write_xlsx",
]
