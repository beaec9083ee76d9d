"""Class letters: what a tag begins with, by published sets or the house's own table."""

import csv
from dataclasses import dataclass
from functools import cache
from importlib import resources

from riktig.core.catalogue.kind_table import AUX_BLOCK, SIGNAL_BLOCK, kind
from riktig.core.job import ClassLetters, Letters

__all__ = ["class_of", "classes", "letters_ever", "letters_of"]


@dataclass(frozen=True, slots=True)
class _Row:
    of: str
    by_set: dict[Letters, str]


@cache
def _rows() -> dict[str, _Row]:
    """The table ``data/letters.csv`` by kind; its head names the sources."""
    text = resources.files("riktig.core.catalogue").joinpath("data/letters.csv").read_text(encoding="utf-8")
    lines = [line for line in text.splitlines() if not line.startswith("#")]
    return {
        row["kind"]: _Row(
            row["class"], {Letters.IEC: row["iec"], Letters.OLD: row["old"], Letters.AMERICAN: row["american"]}
        )
        for row in csv.DictReader(lines)
    }


def _row(kind_id: str) -> _Row:
    """The row of a kind; one with a block of contacts has that of the bare one."""
    return _rows()[kind_id.removesuffix(AUX_BLOCK).removesuffix(SIGNAL_BLOCK)]


def class_of(kind_id: str) -> str:
    """The class of devices that a kind belongs to: “contactor”, “float switch”.

    Raises:
        KeyError: there is no such kind.
    """
    return _row(kind_id).of


def classes() -> tuple[str, ...]:
    """Every class, in the order of the table."""
    return tuple(dict.fromkeys(row.of for row in _rows().values()))


def letters_of(kind_id: str, letters: Letters, house: tuple[ClassLetters, ...] = ()) -> str:
    """The letters a kind's tag begins with.

    Args:
        kind_id: The kind.
        letters: Which set.
        house: The house's table; a class that is not in it keeps its short letter.

    Source:
        ``data/letters.csv`` says where each set comes from; all from memory.
    """
    if letters is Letters.HOUSE:
        own_letters = next((row.letters for row in house if row.of == class_of(kind_id)), "")
        return own_letters or kind(kind_id).letter
    if letters is Letters.SHORT:
        return kind(kind_id).letter
    return _row(kind_id).by_set[letters]


@cache
def letters_ever(kind_id: str) -> frozenset[str]:
    """The letters that any published set gives a kind: whoever learned another set finds it by those."""
    return frozenset({kind(kind_id).letter, *_row(kind_id).by_set.values()})
