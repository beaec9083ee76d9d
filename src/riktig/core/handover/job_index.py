"""Jobs in a folder of thousands, found by serial number, number, title, customer or tag, from an index that is kept."""

import os
import sqlite3
from collections.abc import Iterator
from contextlib import closing, suppress
from dataclasses import dataclass
from pathlib import Path
from urllib.parse import quote

import msgspec

from riktig.core.errors import RiktigError
from riktig.core.work import Progress

__all__ = ["FoundJob", "JobIndex"]

SUFFIX = ".riktig"
SCHEMA = (
    "CREATE TABLE IF NOT EXISTS job (path TEXT PRIMARY KEY, mtime INTEGER NOT NULL, size INTEGER NOT NULL, "
    "number TEXT NOT NULL, title TEXT NOT NULL, client TEXT NOT NULL, serial TEXT NOT NULL, revision TEXT NOT NULL, "
    "words TEXT NOT NULL)"
)
VERSION = 1
TOGETHER = 50
"""So many jobs are taken in at a time."""
MOST = 200
"""So many are shown: who finds more asks for less (chosen by us)."""


@dataclass(frozen=True, slots=True)
class FoundJob:
    """A job that was found, and where its file is."""

    path: Path
    number: str
    title: str
    client: str
    serial: str
    revision: str


class JobIndex:
    """What stands in the jobs of folders. A file that cannot be read is left out; a lost index is made anew.

    Args:
        path: The file of the index.
    """

    def __init__(self, path: Path) -> None:
        self._path = path

    def refresh(self, folder: Path, progress: Progress | None = None) -> int:
        """Takes in what is new or has changed in a folder and below it; drops what is gone.

        Args:
            folder: Where jobs are.
            progress: Told after each fifty jobs; it can stop the work, which is then as far as it came.

        Returns:
            How many job files there are.
        """
        with closing(self._connect()) as db:
            known = {row[0]: (row[1], row[2]) for row in db.execute("SELECT path, mtime, size FROM job")}
            seen: set[str] = set()
            for path, mtime, size in _job_files(folder):
                seen.add(path)
                if known.get(path) != (mtime, size):
                    job = _job_in(Path(path))
                    if job is not None:
                        row = (
                            path,
                            mtime,
                            size,
                            job.number,
                            job.title,
                            job.client,
                            job.serial,
                            job.revision,
                            job.words,
                        )
                        db.execute("INSERT OR REPLACE INTO job VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)", row)
                if progress and len(seen) % TOGETHER == 0:
                    db.commit()
                    progress.step(0.0, path)
            inside = f"{folder}{os.sep}"
            gone = [path for path in known if path.startswith(inside) and path not in seen]
            db.executemany("DELETE FROM job WHERE path = ?", [(path,) for path in gone])
            db.commit()
            return len(seen)

    def find(self, text: str) -> tuple[FoundJob, ...]:
        """The jobs that hold every word of a text, those whose serial or number it is first.

        Args:
            text: Words in any order; "" finds nothing.
        """
        words = text.casefold().split()
        if not words:
            return ()
        where = " AND ".join(["words LIKE ? ESCAPE '\\'"] * len(words))
        patterns = [f"%{_escaped(word)}%" for word in words]
        order = "CASE WHEN lower(serial) = ? THEN 0 WHEN lower(number) = ? THEN 1 ELSE 2 END, number, serial, path"
        query = f"SELECT path, number, title, client, serial, revision FROM job WHERE {where} ORDER BY {order} LIMIT ?"
        with closing(self._connect()) as db:
            rows = db.execute(query, (*patterns, text.casefold(), text.casefold(), MOST)).fetchall()
        return tuple(FoundJob(Path(row[0]), *row[1:]) for row in rows)

    def _connect(self) -> sqlite3.Connection:
        """The index, made where there is none or none that can be used."""
        for again in (False, True):
            try:
                self._path.parent.mkdir(parents=True, exist_ok=True)
                db = sqlite3.connect(self._path, timeout=5.0)
                if db.execute("PRAGMA user_version").fetchone()[0] not in (0, VERSION):
                    raise sqlite3.DatabaseError("of another edition")
                db.execute(SCHEMA)
                db.execute(f"PRAGMA user_version = {VERSION}")
                return db
            except (sqlite3.Error, OSError) as error:
                if again or not self._path.exists():
                    raise RiktigError(
                        f"The index of jobs cannot be kept ({error}), so nothing was looked for.",
                        hint=f"See whether {self._path.parent} can be written.",
                    ) from error
                with suppress(OSError):
                    self._path.unlink()
        raise AssertionError("not reached")


def _job_files(folder: Path) -> Iterator[tuple[str, int, int]]:
    """Every job file in a folder and below it, with its date and size; links are not followed."""
    with suppress(OSError), os.scandir(folder) as entries:
        for entry in entries:
            with suppress(OSError):
                if entry.is_dir(follow_symlinks=False):
                    if not entry.name.startswith("."):
                        yield from _job_files(Path(entry.path))
                elif entry.name.endswith(SUFFIX) and entry.is_file(follow_symlinks=False):
                    stat = entry.stat(follow_symlinks=False)
                    yield entry.path, stat.st_mtime_ns, stat.st_size


class _Named(msgspec.Struct, frozen=True):
    """What a load or a device is called."""

    name: str = ""
    tag: str = ""


class _Head(msgspec.Struct, frozen=True):
    """Of a job what it is found by; everything else in it is passed over."""

    number: str = ""
    title: str = ""
    client: str = ""
    drawing_number: str = ""
    revision: str = ""
    maker: str = ""
    serial: str = ""
    loads: tuple[_Named, ...] = ()
    tags: tuple[_Named, ...] = ()

    @property
    def words(self) -> str:
        """Everything it is found by, in small letters."""
        tags, loads = (item.tag for item in self.tags), (item.name for item in self.loads)
        parts = (self.number, self.title, self.client, self.serial, self.revision, self.drawing_number, self.maker)
        return " ".join((*parts, *tags, *loads)).casefold()


class _File(msgspec.Struct, frozen=True):
    """A job as its file has it."""

    job: _Head


def _job_in(path: Path) -> _Head | None:
    """The newest job in a file, read without locking or changing it; None of what is no job file."""
    with suppress(sqlite3.Error, msgspec.MsgspecError, ValueError, OSError, RecursionError):
        with closing(sqlite3.connect(f"file:{quote(str(path))}?mode=ro", uri=True, timeout=1.0)) as db:
            row = db.execute("SELECT job FROM revision ORDER BY number DESC LIMIT 1").fetchone()
        return msgspec.json.decode(row[0], type=_File).job if row else None
    return None


def _escaped(word: str) -> str:
    return word.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_")
