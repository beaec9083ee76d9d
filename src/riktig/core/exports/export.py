"""All papers of a job into one folder."""

import tempfile
from collections.abc import Iterable, Iterator, Sequence
from contextlib import suppress
from dataclasses import dataclass
from pathlib import Path

from riktig.core.door import DOOR, DOOR_BEHIND, DOOR_DRAWING
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.exports.dxf import write_dxf
from riktig.core.exports.lists import LISTS, schedule
from riktig.core.exports.machine import sheet_svg, write_machine_dxf
from riktig.core.exports.pdf import Page, SetHead, write_set
from riktig.core.exports.pdf import PaperSheet as Paper
from riktig.core.exports.record import build_record, judgement_record, measured_record, metal_record, test_record
from riktig.core.exports.schedules import holes_of
from riktig.core.exports.schedules_plate import plate_parts
from riktig.core.exports.svg import as_svg
from riktig.core.exports.tables import as_csv, write_xlsx
from riktig.core.exports.template import template_of, write_template
from riktig.core.geometry import Drawing
from riktig.core.holes import HOLES, METAL_HOLES, SHEETS, Hole, HoleSurface, draw_sheet, holes_off_the_sheet, mark_out
from riktig.core.inputs import file_name
from riktig.core.job import Job
from riktig.core.labels import CARDS, LABELS, Medium, card_pages, label_pages
from riktig.core.records import Record
from riktig.core.schematic import SHEET_DRAWINGS
from riktig.core.store import dump_job
from riktig.core.terminals import STRIP_DRAWINGS
from riktig.core.wiring import PLATE_DRAWING
from riktig.core.work import Progress

SMALL_SURFACE = 700.0
"""Up to this size the places of holes are legible beside them on a page, mm (chosen by us)."""
__all__ = ["export_all", "export_drawings", "export_metal", "file_stem"]


def file_stem(job: Job) -> str:
    """The job's number and revision as a file name."""
    return f"{file_name(job.number)}_rev_{file_name(job.revision, 'none')}"


def pages_of(evaluation: Evaluation[Job]) -> list[Page]:
    """The drawings of the set, in order."""
    holes = evaluation.get(HOLES)
    plate, door = evaluation.get(PLATE_DRAWING), evaluation.get(DOOR_DRAWING)
    labels = evaluation.get(LABELS)
    return [
        *(Page(drawing) for drawing in evaluation.get(SHEET_DRAWINGS)),
        Page(plate, to_scale=True),
        _marked(evaluation, plate, "plate"),
        Page(door, to_scale=True),
        Page(evaluation.get(DOOR_BEHIND), to_scale=True),
        *(_marked(evaluation, door, leaf.name, leaf.face.x) for leaf in evaluation.get(DOOR).leaves),
        *(
            _marked(evaluation, draw_sheet(sheet), sheet.name)
            for sheet in evaluation.get(SHEETS)
            if "gland" in sheet.name or ("side" in sheet.name and any(hole.face == sheet.name for hole in holes))
        ),
        *(Page(drawing) for drawing in evaluation.get(STRIP_DRAWINGS)),
        *(Page(sheet, to_scale=True) for medium in Medium for sheet in label_pages(labels, medium)),
        *(Page(sheet, to_scale=True) for sheet in card_pages(evaluation.get(CARDS))),
    ]


def _marked(evaluation: Evaluation[Job], drawing: Drawing, face: str, left: float = 0.0) -> Page:
    """A surface marked out with the list of its holes beside it; on a large one the places stand in the list alone."""
    places = max(drawing.width, drawing.height) <= SMALL_SURFACE
    marked = mark_out(drawing, evaluation.get(HOLES), face, left, places=places)
    return Page(marked, to_scale=True, parts=holes_of(evaluation, face))


def export_all(
    evaluation: Evaluation[Job],
    records: Iterable[Record],
    folder: Path,
    *,
    made: str = "",
    whole: str = "",
    progress: Progress | None = None,
) -> list[Path]:
    """Writes PDF set, XLSX, CSV, DXF and SVG of sheets, plate and door, and the job's JSON.

    All are written into a folder of their own and then moved to their places: an export is whole or not there.

    Args:
        evaluation: Of the job.
        records: The log, oldest first.
        folder: A folder that is there.
        made: Said at the head of every page, such as a date.
        whole: The job file as JSON with all its records; without it the JSON has the job alone.
        progress: Told how far it is; may stop the work between files.

    Returns:
        The files written.

    Raises:
        RiktigError: the folder cannot be written.
    """
    progress = progress or Progress()
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
            names = _write_all(evaluation, tuple(records), made_in, made, progress)
            names.append(_write_json(evaluation, made_in, whole))
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
    evaluation: Evaluation[Job], kept: tuple[Record, ...], folder: Path, made: str, progress: Progress
) -> list[str]:
    """Writes every paper into a folder of its own and returns their names."""
    job = evaluation.document
    stem = file_stem(job)
    names: list[str] = []

    def file(name: str) -> Path:
        names.append(name)
        return folder / name

    records_of = [
        f(evaluation, kept) for f in (metal_record, measured_record, build_record, test_record, judgement_record)
    ]
    tables = [*(schedule(name, evaluation) for name in LISTS), *records_of]
    head = SetHead(job.number, job.title, job.revision, made)
    (folder / "csv").mkdir()
    papers = file(f"{stem}_papers.pdf")
    write_set(papers, head, pages_of(evaluation), tables, lambda share, text: progress.step(0.7 * share, text))
    progress.step(0.75, "schedules")
    for paper in Paper:
        page = Page(evaluation.get(PLATE_DRAWING), to_scale=True, sheet=paper, parts=plate_parts(evaluation))
        write_set(file(f"{stem}_plate_{paper.value}.pdf"), head, (page,), ())
    write_xlsx(file(f"{stem}_schedules.xlsx"), tables)
    for table in tables:
        file(f"csv/{table.name.replace(' ', '_')}.csv").write_text(as_csv(table), encoding="utf-8")
    for what, drawing in (("plate", evaluation.get(PLATE_DRAWING)), ("door", evaluation.get(DOOR_DRAWING))):
        progress.step(0.85, what)
        write_dxf(file(f"{stem}_{what}_drawing.dxf"), drawing)
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


def _write_json(evaluation: Evaluation[Job], folder: Path, whole: str) -> str:
    name = f"{file_stem(evaluation.document)}_job.json"
    (folder / name).write_text(whole or dump_job(evaluation.document, indent=True), encoding="utf-8")
    return name


@dataclass(frozen=True, slots=True)
class TemplateStyle:
    """How templates are printed: their title block, the paper, and whether parts without holes are left out."""

    head: SetHead
    paper: Paper = Paper.A4
    bare: bool = True


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
    for name, part in metal_files(sound, holes, stem, TemplateStyle(head), folder):
        part.replace(folder / name)
        done.append(folder / name)
    return done


def export_metal(
    evaluation: Evaluation[Job], face: str, folder: Path, *, made: str = "", paper: Paper = Paper.A4, bare: bool = True
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
    style = TemplateStyle(SetHead(job.number, job.title, job.revision, made), paper, bare)
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
    evaluation: Evaluation[Job], drawings: Sequence[Drawing], path: Path, *, made: str = "", to_scale: bool = False
) -> None:
    """Writes drawings as a PDF, a page each, whole or not at all; true to scale where they are cut out or stuck on.

    Args:
        evaluation: Of the job.
        drawings: In mm.
        path: Where they are written; an existing file is replaced.
        made: The day it is made, for the title blocks; "" for none.
        to_scale: Whether they are printed true to scale.

    Raises:
        RiktigError: the file cannot be written.
    """
    job = evaluation.document
    part = path.with_name(f".{path.name}.part")
    try:
        pages = [Page(drawing, to_scale=to_scale) for drawing in drawings]
        write_set(part, SetHead(job.number, job.title, job.revision, made), pages, ())
        part.replace(path)
    except OSError as error:
        with suppress(OSError):
            part.unlink(missing_ok=True)
        raise RiktigError(
            f"The page could not be written to {path} ({error.strerror or error}).",
            hint="Make room or choose another folder, and print it again.",
            where=str(path),
        ) from error
