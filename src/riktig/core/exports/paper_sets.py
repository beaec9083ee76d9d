"""What the papers of a job consist of: the whole set, and a set for each reader."""

from collections.abc import Sequence
from enum import Enum

from riktig.core.annotation import SHEET_DRAWINGS
from riktig.core.door import DOOR, DOOR_BEHIND, DOOR_DRAWING
from riktig.core.evaluation import Evaluation
from riktig.core.exports.pdf import Page, PaperSheet, SetHead, fitting_scale, page_size, room_of
from riktig.core.exports.pdf_document import PaperTexts
from riktig.core.exports.pdf_front import Cover
from riktig.core.exports.schedule_model import Schedule
from riktig.core.exports.schedules import holes_of
from riktig.core.exports.schedules_kits import kit_cards
from riktig.core.exports.schedules_plate import plate_parts
from riktig.core.geometry import Drawing
from riktig.core.holes import HOLES, SHEETS, draw_sheet, mark_out
from riktig.core.job import CodesOn, EndStyle, Job
from riktig.core.labels import CARDS, LABELS, Medium, card_pages, label_pages
from riktig.core.plate import LAYOUT
from riktig.core.production import batch_code
from riktig.core.schematic import without_title_block
from riktig.core.short_circuit import RATING_DRAWING
from riktig.core.terminals import STRIPS, strip_pages
from riktig.core.wiring import PLATE_DRAWING, WIRING, bench_sheets, stacked

__all__ = [
    "BENCH",
    "NOT_PRINTED",
    "Reader",
    "batch_card_sheets",
    "cover_of",
    "drawings_of",
    "head_of",
    "label_sheets",
    "paper_of",
    "texts_for",
]

SMALL_SURFACE = 700.0
"""Up to this size the places of holes are legible beside them on a page, mm (chosen by us)."""
SMALLEST_SCALE = 0.2
"""A drawing that would be smaller is printed on the larger sheet (chosen by us: 1 : 5)."""
NOT_PRINTED = frozenset({"labels", "proposal", "rungs"})
"""Lists that are files only: they say once more what stands on labels, in the sizing and on the sheets."""
SAID_TWICE = frozenset({
    "work", "picks", "loom", "neutrals", "nets", "network", "returns", "tally", "rating", "box", "places",
    "operation", "lamps", "maintenance", "declaration", "reasons",
})  # fmt: skip
"""Lists that say in another order what other lists or cards say: in the set of who works by them, not in the whole."""
BENCH = frozenset({"holes", "cuts", "bars", "wires", "batches", "operators", "site"})
"""Lists that are read at the bench, at arm's length."""


class Reader(Enum):
    """Who a set is for."""

    BUILDER = "builder"
    TESTER = "tester"
    INSTALLER = "installer"
    CUSTOMER = "customer"
    INSPECTOR = "inspector"


_READ_BY: dict[Reader, tuple[frozenset[str], tuple[str, ...]]] = {
    Reader.BUILDER: (
        frozenset({
            "holes", "cuts", "bars", "places", "ducts", "openings", "operators", "picks", "wires", "batches",
            "cutting", "colours", "drums", "loom", "network", "neutrals", "tally", "terminals",
            "entries", "work", "metal record", "measured record", "work record", "build record", "change record",
            "note record", "inspection record",
        }),
        ("plate", "door", "gland", "side", "strips", "photos"),
    ),
    Reader.TESTER: (
        frozenset({"behaviour", "returns", "live", "restart", "transfers", "box", "tests", "io", "nets", "test record",
            "live record", "verification",
        }),
        ("sheets", "strips"),
    ),
    Reader.INSTALLER: (
        frozenset({
            "loads", "sources", "signals", "terminals", "cables", "entries", "routes", "live", "site", "rating",
            "lamps", "handover record",
        }),
        ("strips", "gland", "side", "rating"),
    ),
    Reader.CUSTOMER: (
        frozenset({
            "loads", "signals", "sources", "practice", "reasons", "bom", "sizing", "rating", "ways", "losses", "live",
            "restart", "findings", "clauses", "verification", "test record", "live record", "judgement record",
            "inspection record", "operation", "lamps", "maintenance", "declaration", "handover record",
        }),
        ("sheets", "plate", "door", "rating"),
    ),
    Reader.INSPECTOR: (
        frozenset({
            "sources", "practice", "reasons", "sizing", "rating", "ways", "losses", "live", "restart", "transfers",
            "colours", "findings", "clauses", "verification", "test record", "live record", "judgement record",
            "inspection record", "change record", "handover record",
        }),
        ("sheets", "plate", "door", "rating", "photos"),
    ),
}  # fmt: skip
"""The lists and the drawings of each reader."""


def paper_of(job: Job) -> PaperSheet:
    """The sheet that lists are printed on: A4, in North America Letter."""
    return PaperSheet.LETTER if job.practice.rulebook.north_american else PaperSheet.A4


def head_of(job: Job, made: str, drawn: str = "") -> SetHead:
    """What stands in the title blocks of a job.

    Args:
        job: The job.
        made: The day it is made; "" for none.
        drawn: Who issues it; "" for nobody.
    """
    return SetHead(
        job.number, job.title, job.revision, made, job.maker, job.client, job.drawing_number, drawn,
        job.practice.rulebook.value,
    )  # fmt: skip


def cover_of(evaluation: Evaluation[Job], reader: Reader | None) -> Cover:
    """The first page: for whom the set is, and what the nameplate says."""
    fields = evaluation.get(LABELS).nameplate
    name = f"For the {reader.value}" if reader else "Papers of the panel"
    return Cover(name, [(field.name, field.value) for field in fields if field.value or field.required])


def drawings_of(evaluation: Evaluation[Job]) -> list[tuple[str, Page]]:
    """The drawings of the set, in order, each with its kind: sheets, plate, door, gland, side, strips or rating."""
    holes, paper = evaluation.get(HOLES), paper_of(evaluation.document)
    plate, door = evaluation.get(PLATE_DRAWING), evaluation.get(DOOR_DRAWING)
    surfaces = [
        sheet
        for sheet in evaluation.get(SHEETS)
        if "gland" in sheet.name or ("side" in sheet.name and any(hole.face == sheet.name for hole in holes))
    ]
    return [
        *(("sheets", Page(without_title_block(drawing), sheet=paper)) for drawing in evaluation.get(SHEET_DRAWINGS)),
        ("plate", _to_scale(plate, paper)),
        ("plate", _marked(evaluation, plate, "plate")),
        ("door", _to_scale(door, paper)),
        ("door", _to_scale(evaluation.get(DOOR_BEHIND), paper)),
        *(("door", _marked(evaluation, door, leaf.name, leaf.face.x)) for leaf in evaluation.get(DOOR).leaves),
        *(
            ("gland" if "gland" in sheet.name else "side", _marked(evaluation, draw_sheet(sheet), sheet.name))
            for sheet in surfaces
        ),
        *(("strips", Page(drawing, sheet=paper)) for drawing in strip_pages(evaluation.get(STRIPS))),
        ("rating", Page(evaluation.get(RATING_DRAWING), sheet=paper)),
    ]


def label_sheets(evaluation: Evaluation[Job]) -> list[Page]:
    """Labels and pin cards at true size, for the paper of the job."""
    labels, paper = evaluation.get(LABELS), paper_of(evaluation.document)
    sheets = [sheet for medium in Medium for sheet in label_pages(labels, medium) if labels.on(medium)]
    sheets += card_pages(evaluation.get(CARDS))
    return [Page(sheet, to_scale=True, sheet=paper, as_it_is=True) for sheet in sheets]


def batch_card_sheets(evaluation: Evaluation[Job]) -> list[Page]:
    """The cards of all batches of wires at true size, to be cut apart and taken to the bench."""
    job = evaluation.document
    flexible = job.practice.ends is EndStyle.FERRULES

    def code(batch: int) -> str:
        return batch_code(job.number, batch) if job.practice.codes is CodesOn.LABELS else ""

    sheets = bench_sheets(evaluation.get(WIRING), evaluation.get(LAYOUT), flexible=flexible, code=code)
    sheets += stacked(kit_cards(evaluation))
    return [Page(sheet, to_scale=True, sheet=paper_of(evaluation.document), as_it_is=True) for sheet in sheets]


def texts_for(reader: Reader | None, drawings: Sequence[tuple[str, Page]], tables: Sequence[Schedule]) -> PaperTexts:
    """What a reader gets of all drawings and lists; without a reader all that say something new.

    Empty lists are left out. The picture of the short-circuit limits is for those who ask what the panel may be
    connected to: with the list of them it is in the sets of the installer and the customer.

    Args:
        reader: Who the set is for.
        drawings: As ``drawings_of`` gives them.
        tables: All lists and records.
    """
    every = frozenset(table.name for table in tables) - SAID_TWICE
    lists, kinds = _READ_BY[reader] if reader else (every, ())
    pages = [page for kind, page in drawings if (kind != "rating" if reader is None else kind in kinds)]
    wanted = [table for table in tables if table.name in lists and table.name not in NOT_PRINTED and table.rows]
    return PaperTexts(pages, wanted, BENCH if reader is Reader.BUILDER else frozenset())


def _to_scale(drawing: Drawing, paper: PaperSheet) -> Page:
    """A drawing at a standard scale, on the larger sheet where it would be very small."""
    small = fitting_scale(drawing, to_scale=True, room=room_of(page_size(drawing, paper, to_scale=True)))
    return Page(drawing, to_scale=True, sheet=paper.larger if small < SMALLEST_SCALE else paper)


def _marked(evaluation: Evaluation[Job], drawing: Drawing, face: str, left: float = 0.0) -> Page:
    """A surface marked out with the list of its holes beside it; on a large one the places stand in the list alone."""
    paper = paper_of(evaluation.document)
    places = max(drawing.width, drawing.height) <= SMALL_SURFACE
    marked = mark_out(drawing, evaluation.get(HOLES), face, left, places=places)
    small = max(drawing.width, drawing.height) > 2 * SMALL_SURFACE / 1.4
    return Page(marked, to_scale=True, sheet=paper.larger if small else paper, parts=holes_of(evaluation, face))


def plate_page(evaluation: Evaluation[Job], sheet: PaperSheet) -> Page:
    """The plate with the list of its parts on one sheet."""
    return Page(evaluation.get(PLATE_DRAWING), to_scale=True, sheet=sheet, parts=plate_parts(evaluation))
