"""How long a text runs in the shipped faces."""

import csv
from functools import cache
from importlib import resources

__all__ = ["CAPITAL", "MONO_ADVANCE", "run_of"]

CAPITAL = 0.76
"""Height of a capital as a share of the type size (read off the shipped B612)."""
MONO_ADVANCE = 0.855
"""From letter to letter in B612 Mono, in heights of a capital (measured on the shipped face)."""
UNKNOWN = 1.1
"""A letter that only the fallback face has: as wide as its widest capitals (chosen by us)."""


@cache
def _advances() -> dict[str, float]:
    path = resources.files("riktig.core.geometry") / "data" / "advances.csv"
    rows = csv.DictReader(path.read_text(encoding="utf-8").splitlines())
    return {chr(int(row["code"], 16)): int(row["advance"]) / 1000 for row in rows}


@cache
def run_of(text: str, *, mono: bool) -> float:
    """The length of a line of text, in heights of a capital.

    Source:
        Advance widths of B612 Regular and Bold, the wider of the two, read off the shipped files.

    Args:
        text: The text.
        mono: Whether the face is one of fixed width.
    """
    if mono:
        return MONO_ADVANCE * len(text)
    known = _advances()
    return sum(known.get(letter, UNKNOWN) for letter in text)
