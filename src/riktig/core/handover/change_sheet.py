"""What has changed since an issue, on paper: the lists row by row, and the drawings with what is new or gone."""

from pathlib import Path

from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.exports import Page, PaperTexts, write_document
from riktig.core.exports.paper_sets import head_of, paper_of
from riktig.core.exports.pdf_front import Cover
from riktig.core.handover.compare import compare_drawings, compare_jobs
from riktig.core.handover.issues import Issued
from riktig.core.job import Job

__all__ = ["write_change_sheet"]


def write_change_sheet(
    path: Path, before: Evaluation[Job], after: Evaluation[Job], issue: Issued, made: str = ""
) -> bool:
    """Writes the change sheet as a PDF; nothing when nothing has changed.

    Args:
        path: Where it is written; an existing file is replaced.
        before: Of the job as it was issued.
        after: Of the job of now.
        issue: The issue.
        made: The day it is made; "" for none.

    Returns:
        Whether there was anything to write.

    Raises:
        RiktigError: the file cannot be written.
    """
    changes, drawings = compare_jobs(before, after), compare_drawings(before, after)
    if not changes.rows and not drawings:
        return False
    paper = paper_of(after.document)
    pages = [Page(drawing, sheet=paper) for drawing in drawings]
    cover_lines = [
        ("Issue", f"{issue.facts.letter}, {issue.record.when[:10]}, {issue.record.who}: {issue.facts.why}"),
        ("Now", f"revision {after.document.revision}"),
        ("In the drawings", "new in green, gone in red and dashed"),
    ]
    part = path.with_name(f".{path.name}.part")
    try:
        cover = Cover(f"Changes since issue {issue.facts.letter}", cover_lines, "Compared")
        write_document(part, head_of(after.document, made), PaperTexts(pages, [changes]), cover, paper)
        part.replace(path)
    except OSError as error:
        part.unlink(missing_ok=True)
        raise RiktigError(
            f"The change sheet could not be written to {path} ({error.strerror or error}).",
            hint="Make room or choose another folder, and write it again.",
            where=str(path),
        ) from error
    return True
