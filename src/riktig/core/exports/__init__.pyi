from .dxf import DxfStyle, write_dxf
from .export import Issue, export_all, export_drawings, export_metal, file_stem
from .fonts import missing_glyphs
from .house_exports import HouseExport, HouseExports, house_exports, write_house_exports
from .inks import ink
from .lists import LISTS, schedule
from .page_files import PAGE_SUFFIXES, export_page_files
from .panel_script import run_panel_script, states_of
from .paper_sets import Reader
from .pdf import Page, PaperSheet, SetHead, fitting_scale
from .pdf_archival import as_archival
from .pdf_document import PaperTexts, write_document, write_set
from .pdf_front import Cover
from .photo_pages import photo_pages, photos_in, photos_named
from .purchasing import purchase_summary
from .record import build_record, measured_record, metal_record, test_record
from .renaming import Renaming, number_changes, tag_changes
from .renaming_drawing import draw_renaming
from .schedule_model import Schedule, Value
from .schedules import holes_of
from .schedules_door import site_items
from .schedules_kits import kit_cards
from .schedules_plate import plate_parts
from .station_papers import STATION_PAPERS, write_station_papers
from .svg import as_svg
from .tables import as_csv, as_json, write_xlsx
from .template import CHECK_MM, Template, Tile, check_bar, overview, template_of, write_template

__all__ = [
    "CHECK_MM",
    "LISTS",
    "PAGE_SUFFIXES",
    "STATION_PAPERS",
    "Cover",
    "DxfStyle",
    "HouseExport",
    "HouseExports",
    "Issue",
    "Page",
    "PaperSheet",
    "PaperTexts",
    "Reader",
    "Renaming",
    "Schedule",
    "SetHead",
    "Template",
    "Tile",
    "Value",
    "as_archival",
    "as_csv",
    "as_json",
    "as_svg",
    "build_record",
    "check_bar",
    "draw_renaming",
    "export_all",
    "export_drawings",
    "export_metal",
    "export_page_files",
    "file_stem",
    "fitting_scale",
    "holes_of",
    "house_exports",
    "ink",
    "kit_cards",
    "measured_record",
    "metal_record",
    "missing_glyphs",
    "number_changes",
    "overview",
    "photo_pages",
    "photos_in",
    "photos_named",
    "plate_parts",
    "purchase_summary",
    "run_panel_script",
    "schedule",
    "site_items",
    "states_of",
    "tag_changes",
    "template_of",
    "test_record",
    "write_document",
    "write_dxf",
    "write_house_exports",
    "write_set",
    "write_station_papers",
    "write_template",
    "write_xlsx",
]
