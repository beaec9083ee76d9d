"""Media that the house has beside those that ship: a table in the user's settings, read where a sheet is chosen."""

import csv
import io
from dataclasses import asdict

from riktig.core.errors import RiktigError
from riktig.core.job import LabelSheet
from riktig.core.labels import read_sheets
from riktig.places import media_file

__all__ = ["house_media", "keep_medium"]

COLUMNS = (
    "medium", "name", "width", "height", "columns", "rows", "left", "top", "across", "down", "paper_width",
    "paper_height", "form", "characters", "least",
)  # fmt: skip


def house_media() -> tuple[LabelSheet, ...]:
    """The house's own media; () where it has none.

    Raises:
        RiktigError: the table cannot be read, with what is wrong in it.
    """
    path = media_file()
    if not path.exists():
        return ()
    try:
        return read_sheets(path.read_text(encoding="utf-8"))
    except (OSError, ValueError, KeyError, TypeError) as error:
        raise RiktigError(
            f"The house's table of media cannot be read ({error}), so only those that ship are offered.",
            hint=f"Mend or remove {path}.",
        ) from error


def keep_medium(sheet: LabelSheet) -> None:
    """Keeps a medium for other jobs, in the place of one of the same name.

    Args:
        sheet: The medium; what is used of it stays with the job.

    Raises:
        RiktigError: the table cannot be read or written.
    """
    others = [medium for medium in house_media() if (medium.medium, medium.name) != (sheet.medium, sheet.name)]
    out = io.StringIO()
    writer = csv.DictWriter(out, COLUMNS, extrasaction="ignore", lineterminator="\n")
    writer.writeheader()
    for medium in (*others, sheet):
        writer.writerow({**asdict(medium), "form": medium.form.name.lower()})
    path = media_file()
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        part = path.with_name(f".{path.name}.part")
        part.write_text(out.getvalue(), encoding="utf-8")
        part.replace(path)
    except OSError as error:
        raise RiktigError(
            f"The medium was not kept for other jobs: {path} cannot be written ({error.strerror}).",
            hint="It is kept in this job all the same.",
        ) from error
