"""How long a text runs in the shipped faces, and which letters they cannot print."""

import csv
import unicodedata
from collections.abc import Mapping
from functools import cache
from importlib import resources

__all__ = ["CAPITAL", "MONO_ADVANCE", "run_of", "unprintable"]

CAPITAL = 0.76
"""Height of a capital as a share of the type size (read off the shipped B612)."""
MONO_ADVANCE = 0.855
"""From letter to letter in B612 Mono, in heights of a capital (measured on the shipped face)."""
UNKNOWN = 1.7
"""A letter that no shipped face has, for drawings that show it all the same: as wide as a capital W (chosen by us)."""


@cache
def _advances(name: str) -> Mapping[str, float]:
    """Widths of letters in heights of a capital; ``tools/letter_widths.py`` reads them off the shipped files."""
    path = resources.files("riktig.core.geometry") / "data" / f"{name}.csv"
    rows = csv.DictReader(path.read_text(encoding="utf-8").splitlines())
    return {chr(int(row["code"], 16)): int(row["advance"]) / 1000 for row in rows}


@cache
def run_of(text: str, *, mono: bool) -> float:
    """The length of a line of text, in heights of a capital.

    Source:
        Advance widths of B612 Regular and Bold, the wider of the two, of B612 Mono, and of DejaVu Sans for the letters
        that they lack, read off the shipped files.

    Args:
        text: The text.
        mono: Whether the face is one of fixed width.
    """
    if mono and text.isascii():
        return MONO_ADVANCE * len(text)
    known = _advances("fixed" if mono else "advances")
    total = 0.0
    for letter in text:
        width = known.get(letter)
        total += _advances("fallback").get(letter, UNKNOWN) if width is None else width
    return total


@cache
def unprintable(text: str) -> str:
    """The letters of a text that come out as a box, or in the wrong order or shape; "" when there are none.

    Scripts that run from right to left, or whose letters join, need a setter of type that Riktig has not.

    Args:
        text: The text.
    """
    if text.isascii():
        return ""
    known = (_advances("advances"), _advances("fixed"), _advances("fallback"))
    return "".join(
        letter
        for letter in text
        if unicodedata.bidirectional(letter) in ("R", "AL", "RLE", "RLO", "LRE", "LRO")
        or unicodedata.category(letter) in ("Mn", "Me", "Cf")
        or not (letter in known[2] or (letter in known[0] and letter in known[1]))
    )
