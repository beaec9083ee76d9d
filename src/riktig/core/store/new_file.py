"""A new job file: it appears whole or not at all."""

import sqlite3
from collections.abc import Callable
from pathlib import Path

from riktig.core.errors import RiktigError
from riktig.core.store.rescue_copy import write_whole
from riktig.core.store.schema import APPLICATION_ID, FORMAT, SCHEMA, TRIGGERS
from riktig.core.store.writing import see_free_name, unwritable

__all__ = ["make_file"]


def make_file(path: Path, fill: Callable[[sqlite3.Connection], None]) -> None:
    """Makes a job file in memory, then writes it in one step.

    Args:
        path: The new file.
        fill: Writes revisions, log and head into the empty tables.

    Raises:
        RiktigError: the file exists, or cannot be written.
    """
    see_free_name(path)
    db = sqlite3.connect(":memory:")
    try:
        db.executescript(";".join((*SCHEMA, *TRIGGERS)))
        with db:
            db.execute(f"PRAGMA application_id = {APPLICATION_ID}")
            db.execute(f"PRAGMA user_version = {FORMAT}")
            fill(db)
        write_whole(db, path)
    except FileExistsError as error:
        raise RiktigError(
            f"{path.name} exists already and was left as it is.", hint="Choose another name.", where=str(path)
        ) from error
    except (sqlite3.Error, OSError) as error:
        raise unwritable(path, error) from error
    finally:
        db.close()
