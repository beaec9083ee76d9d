"""All papers of a job into one folder."""

import tempfile
from collections.abc import Iterable, Iterator, Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass, field, replace
from functools import partial
from pathlib import Path

from riktig.core.annotation import SHEET_DRAWINGS
from riktig.core.door import DOOR_DRAWING
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.exports.dxf import DxfStyle, write_dxf
from riktig.core.exports.handover_record import handover_record
from riktig.core.exports.lists import WRITTEN, schedule
from riktig.core.exports.machine import sheet_svg, write_machine_dxf
from riktig.core.exports.paper_sets import (
    Reader,
    batch_card_sheets,
    cover_of,
    drawings_of,
    head_of,
    label_sheets,
    paper_of,
    plate_page,
    texts_for,
)
from riktig.core.exports.pdf import Page, SetHead
from riktig.core.exports.pdf import PaperSheet as Paper
from riktig.core.exports.pdf_document import write_document, write_set
from riktig.core.exports.photo_pages import photo_pages
from riktig.core.exports.record import (
    build_record,
    inspection_record,
    judgement_record,
    measured_record,
    metal_record,
    test_record,
)
from riktig.core.exports.schedules import label_files
from riktig.core.exports.shared_layouts import SharedLayouts
from riktig.core.exports.svg import as_svg
from riktig.core.exports.tables import as_csv, write_xlsx
from riktig.core.exports.template import template_of, write_template
from riktig.core.exports.verification import live_record, verification_record
from riktig.core.exports.work_record import change_record, note_record, work_record
from riktig.core.geometry import Drawing, Point
from riktig.core.holes import HOLES, METAL_HOLES, SHEETS, Hole, HoleSurface, holes_off_the_sheet
from riktig.core.ids import DeviceId
from riktig.core.inputs import file_name
from riktig.core.job import Job
from riktig.core.plate import RULER
from riktig.core.records import Record, log_of
from riktig.core.schematic import CIRCUITS, NAMES
from riktig.core.store import dump_job
from riktig.core.wiring import PLATE_DRAWING
from riktig.core.work import Progress

__all__ = ["Issue", "export_all", "export_drawings", "export_metal", "file_stem"]


def file_stem(job: Job) -> str:
    """The job's number and revision as a file name."""
    return f"{file_name(job.number)}_rev_{file_name(job.revision, 'none')}"


@dataclass(frozen=True, slots=True)
class Issue:
    """Of papers that are written: the date in every title block, and who issues them; "" for none.

    ``whole`` is the job file as JSON with all its records; without it the JSON has the job alone.
    """

    made: str = ""
    drawn: str = ""
    whole: str = ""
    marked: bool = False
    """Whether CSV files begin with the mark by which some spreadsheets know UTF-8."""
    photos: Mapping[str, bytes] = field(default_factory=dict)
    """The JPEG files of the photos that are printed, by the names that the job file gives them."""


def export_all(
    evaluation: Evaluation[Job],
    records: Iterable[Record],
    folder: Path,
    *,
    issue: Issue | None = None,
    progress: Progress | None = None,
) -> list[Path]:
    """Writes the PDF sets, labels, XLSX, CSV, DXF and SVG of sheets, plate and door, and the job's JSON.

    All are written into a folder of their own and then moved to their places: an export is whole or not there.

    Args:
        evaluation: Of the job.
        records: The log, oldest first.
        folder: A folder that is there.
        issue: Who issues them and when, and the job file as JSON.
        progress: Told how far it is; may stop the work between files.

    Returns:
        The files written.

    Raises:
        RiktigError: the folder cannot be written.
    """
    progress, issue = progress or Progress(), issue or Issue()
    if (folder / "csv").is_symlink():
        raise RiktigError(
            f"{folder / 'csv'} is a link to somewhere else, so no papers were written.",
            hint="Remove the link or choose another folder.",
            where=str(folder),
        )
    try:
        folder.parent.mkdir(parents=True, exist_ok=True)
        with tempfile.TemporaryDirectory(prefix=".riktig-papers-", dir=_place_beside(folder)) as name:
            made_in = Path(name)
            head = head_of(evaluation.document, issue.made, issue.drawn)
            names = _write_all(evaluation, log_of(records), made_in, head, progress, issue)
            names.append(_write_json(evaluation, made_in, issue.whole))
            return _moved(made_in, folder, names)
    except OSError as error:
        raise RiktigError(
            f"The papers could not be written to {folder} ({error.strerror or error}); none was changed.",
            hint="Make room or choose another folder, and hand over again.",
            where=str(folder),
        ) from error


def _place_beside(folder: Path) -> Path:
    """Where the papers are made: on the same disk, so that they can be moved in whole."""
    return folder if folder.is_dir() else folder.parent


def _moved(made_in: Path, folder: Path, names: list[str]) -> list[Path]:
    """Puts whole papers in their places; a link that stands in one is replaced, never followed."""
    (folder / "csv").mkdir(parents=True, exist_ok=True)
    for name in names:
        (made_in / name).replace(folder / name)
    return [folder / name for name in names]


def _write_all(
    evaluation: Evaluation[Job], kept: tuple[Record, ...], folder: Path, head: SetHead, progress: Progress, issue: Issue
) -> list[str]:
    """Writes every paper into a folder of its own and returns their names."""
    job = evaluation.document
    stem, paper = file_stem(job), paper_of(job)
    names: list[str] = []

    def file(name: str) -> Path:
        names.append(name)
        return folder / name

    records_of = [
        f(evaluation, kept)
        for f in (
            metal_record,
            measured_record,
            work_record,
            build_record,
            change_record,
            note_record,
            test_record,
            live_record,
            verification_record,
            judgement_record,
            inspection_record,
            handover_record,
        )
    ]
    tables = [*(schedule(name, evaluation) for name in WRITTEN), *records_of]
    photos = (("photos", page) for page in photo_pages(kept, issue.photos, paper))
    drawings = [*drawings_of(evaluation), *photos]
    (folder / "csv").mkdir()
    shared = SharedLayouts()
    for number, reader in enumerate((None, *Reader)):
        name = f"{stem}_{'papers' if reader is None else f'for_the_{reader.value}'}.pdf"
        # A record in which nothing stands yet is no paper.
        papers = tables if kept else tables[: len(WRITTEN)]
        texts, cover = replace(texts_for(reader, drawings, papers), shared=shared), cover_of(evaluation, reader)
        part = partial(_part_done, progress, number / (len(Reader) + 1), 1 / (len(Reader) + 1))
        write_document(file(name), head, texts, cover, paper, part)
    progress.step(0.72, "labels")
    write_set(file(f"{stem}_labels.pdf"), head, label_sheets(evaluation), ())
    if cards := batch_card_sheets(evaluation):
        write_set(file(f"{stem}_batch_cards.pdf"), head, cards, ())
    progress.step(0.75, "schedules")
    for sheet in (paper, paper.larger):
        write_set(file(f"{stem}_plate_{sheet.value}.pdf"), head, (plate_page(evaluation, sheet),), ())
    write_xlsx(file(f"{stem}_schedules.xlsx"), tables, head)
    for table in tables:
        file(f"csv/{table.name.replace(' ', '_')}.csv").write_text(as_csv(table, marked=issue.marked), encoding="utf-8")
    for table in label_files(evaluation):
        file(f"csv/{table.name.replace(' ', '_')}.csv").write_text(as_csv(table, marked=issue.marked), encoding="utf-8")
    for what, drawing in (("plate", evaluation.get(PLATE_DRAWING)), ("door", evaluation.get(DOOR_DRAWING))):
        progress.step(0.85, what)
        style = DxfStyle(Point(RULER, RULER), block_names(evaluation))
        write_dxf(file(f"{stem}_{what}_drawing.dxf"), drawing, style)
        file(f"{stem}_{what}.svg").write_text(as_svg(drawing), encoding="utf-8")
    progress.step(0.87, "templates")
    for path in _metal(evaluation, evaluation.get(HOLES), folder, stem, head):
        names.append(path.name)
    sheets = evaluation.get(SHEET_DRAWINGS)
    for number, drawing in enumerate(sheets, 1):
        file(f"{stem}_sheet_{number}.svg").write_text(as_svg(drawing), encoding="utf-8")
        progress.step(0.88 + 0.1 * number / len(sheets), f"sheet {number}")
        write_dxf(file(f"{stem}_sheet_{number}.dxf"), drawing)
    progress.step(1.0, "done")
    return names


def block_names(evaluation: Evaluation[Job]) -> dict[DeviceId, str]:
    """What the block of each device is called: its tag, of a terminal with its mark."""
    tags = evaluation.get(NAMES).tag
    return {
        device.id: f"{tags[device.id]}_{device.mark}" if device.strip else tags[device.id]
        for device in evaluation.get(CIRCUITS).devices
    }


def _part_done(progress: Progress, begin: float, part: float, share: float, text: str) -> None:
    """How far all sets are, of one that is so far."""
    progress.step(0.7 * (begin + part * share), text)


def _write_json(evaluation: Evaluation[Job], folder: Path, whole: str) -> str:
    name = f"{file_stem(evaluation.document)}_job.json"
    (folder / name).write_text(whole or dump_job(evaluation.document, indent=True), encoding="utf-8")
    return name


@dataclass(frozen=True, slots=True)
class TemplateStyle:
    """How templates are printed: their title block, the paper, and whether parts without holes are left out."""

    head: SetHead
    paper: Paper = Paper.A4
    bare: bool = False


def metal_files(
    sheets: Iterable[HoleSurface], holes: tuple[Hole, ...], stem: str, style: TemplateStyle, folder: Path
) -> Iterator[tuple[str, Path]]:
    """Templates at true size, and for a machine DXF and SVG, of every surface that has holes: each whole or not at all.

    Yields:
        The file's name and where it was written, ready to be moved to its place.

    Raises:
        RiktigError: a hole lies outside its surface.
        OSError: a file cannot be written.
    """
    for sheet in sheets:
        if not any(hole.face == sheet.name for hole in holes):
            continue
        what = sheet.name.replace(" ", "_")
        for name in (f"{stem}_{what}_template.pdf", f"{stem}_{what}.dxf", f"{stem}_{what}_holes.svg"):
            part = folder / f".{name}.part"
            if name.endswith(".pdf"):
                write_template(part, style.head, [template_of(sheet, holes, style.paper)], bare=style.bare)
            elif name.endswith(".dxf"):
                write_machine_dxf(part, sheet, holes)
            else:
                part.write_text(sheet_svg(sheet, holes), encoding="utf-8")
            yield name, part


def _metal(evaluation: Evaluation[Job], holes: tuple[Hole, ...], folder: Path, stem: str, head: SetHead) -> list[Path]:
    """All of them into one folder; a surface with a hole off its edge has none, and its finding says why."""
    done: list[Path] = []
    sheets = evaluation.get(SHEETS)
    outside = {blocker.face for blocker in holes_off_the_sheet(holes, sheets)}
    sound = [sheet for sheet in sheets if sheet.name not in outside]
    for name, part in metal_files(
        sound, holes, stem, TemplateStyle(head, paper_of(evaluation.document), bare=False), folder
    ):
        part.replace(folder / name)
        done.append(folder / name)
    return done


def export_metal(
    evaluation: Evaluation[Job], face: str, folder: Path, *, made: str = "", paper: Paper = Paper.A4, bare: bool = False
) -> list[Path]:
    """Template, DXF and SVG of one surface; without ``bare`` the template has no sheets without holes.

    Args:
        evaluation: Of the job.
        face: The name of the surface.
        folder: A folder that is there.
        made: The day it is made, for the title blocks; "" for none.
        paper: The size of the paper.
        bare: Whether surfaces without holes are left out.

    Raises:
        RiktigError: it has no holes, one of them lies outside, or the folder cannot be written.
    """
    job = evaluation.document
    holes = evaluation.get(HOLES if "gland" in face else METAL_HOLES)
    sheet = next((hole_surface for hole_surface in evaluation.get(SHEETS) if hole_surface.name == face), None)
    if sheet is None or not any(hole.face == face for hole in holes):
        raise RiktigError(f"There is no hole in the {face}, so there is nothing to print.")
    style = TemplateStyle(head_of(job, made), paper, bare)
    done: list[Path] = []
    try:
        folder.mkdir(parents=True, exist_ok=True)
        for name, part in metal_files([sheet], holes, file_stem(job), style, folder):
            part.replace(folder / name)
            done.append(folder / name)
    except OSError as error:
        raise RiktigError(
            f"The template could not be written to {folder} ({error.strerror or error}).",
            hint="Make room or choose another folder, and print it again.",
            where=str(folder),
        ) from error
    return done


def export_drawings(
    evaluation: Evaluation[Job],
    drawings: Sequence[Drawing],
    path: Path,
    *,
    made: str = "",
    to_scale: bool = False,
    whole: bool = False,
) -> None:
    """Writes drawings as a PDF, a page each, whole or not at all; true to scale where they are cut out or stuck on.

    Args:
        evaluation: Of the job.
        drawings: In mm.
        path: Where they are written; an existing file is replaced.
        made: The day it is made, for the title blocks; "" for none.
        to_scale: Whether they are printed true to scale.
        whole: Whether each is a whole paper, edge to edge: sheets of labels.

    Raises:
        RiktigError: the file cannot be written.
    """
    job = evaluation.document
    part = path.with_name(f".{path.name}.part")
    try:
        paper = paper_of(job)
        pages = [Page(drawing, to_scale=to_scale, sheet=paper, as_it_is=to_scale, whole=whole) for drawing in drawings]
        write_set(part, head_of(job, made), pages, ())
        part.replace(path)
    except OSError as error:
        with suppress(OSError):
            part.unlink(missing_ok=True)
        raise RiktigError(
            f"The page could not be written to {path} ({error.strerror or error}).",
            hint="Make room or choose another folder, and print it again.",
            where=str(path),
        ) from error
