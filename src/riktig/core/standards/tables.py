"""Reads the shipped tables: line 1 names the source and our confidence, line 2 the columns."""

import csv
from dataclasses import dataclass
from functools import cache
from importlib import resources

__all__ = ["Table", "table"]


@dataclass(frozen=True, slots=True)
class Table:
    """A table of figures: where it is from, how sure we are of it, and its rows as texts."""

    name: str
    source: str
    confidence: str
    rows: tuple[dict[str, str], ...]


@cache
def table(name: str) -> Table:
    """The shipped table of that name.

    Raises:
        FileNotFoundError: no such table is shipped.
    """
    path = resources.files("riktig.core.standards") / "data" / f"{name}.csv"
    head, *body = path.read_text(encoding="utf-8").splitlines()
    head_fields = dict(part.strip().split(": ", 1) for part in head.removeprefix("# ").split("; ") if ": " in part)
    source = head.removeprefix("# source: ").split("; from memory")[0]
    return Table(name, source, head_fields.get("confidence", ""), tuple(csv.DictReader(body)))
