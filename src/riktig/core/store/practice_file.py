"""The house's own practice: what a new job starts from, one JSON file in the user's settings."""

from pathlib import Path

import msgspec

from riktig.core.errors import RiktigError
from riktig.core.inputs import parse_json, read_text
from riktig.core.job import Practice

__all__ = ["keep_user_practice", "user_practice"]


def user_practice(path: Path) -> Practice:
    """The practice of the house; Riktig's own defaults when none was kept.

    Raises:
        RiktigError: the file is there but cannot be used; it is not touched.
    """
    if not path.exists():
        return Practice()
    try:
        return msgspec.convert(parse_json(read_text(path), what="a practice"), Practice)
    except (msgspec.ValidationError, RiktigError) as error:
        raise _unusable(path, str(error)) from error


def _unusable(path: Path, why: str) -> RiktigError:
    return RiktigError(
        f"The house's practice cannot be read ({why}), so this job starts from Riktig's own defaults.",
        hint="Mend or remove the file, or keep the practice anew in the Brief.",
        where=str(path),
    )


def keep_user_practice(path: Path, practice: Practice) -> None:
    """Keeps a practice as the house's own; the old file stands until the new one is whole.

    Args:
        path: Where it is written; an existing file is replaced.
        practice: The practice of the job.

    Raises:
        RiktigError: it cannot be written.
    """
    whole = path.with_suffix(".new")
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        whole.write_bytes(msgspec.json.format(msgspec.json.encode(practice), indent=2))
        whole.replace(path)
    except OSError as error:
        raise RiktigError(
            f"The house's practice could not be kept ({error.strerror}), so the next job starts from the old one.",
            hint="Make room or allow writing there, and try again.",
            where=str(path),
        ) from error
