"""How much a long test does: little in every check, much in the nightly run (``./check --nightly``)."""

import os
from collections.abc import Iterable
from typing import TypeVar

NIGHTLY = os.environ.get("RIKTIG_NIGHTLY", "") == "1"


def times(each_check: int, nightly: int) -> int:
    """How many times a long test tries: ``each_check`` now, ``nightly`` when the night is given to it."""
    return nightly if NIGHTLY else each_check


T = TypeVar("T")


def some(items: Iterable[T]) -> list[T]:
    """The items, of which there must be at least one: a test that looks at nothing would pass on nothing."""
    kept = list(items)
    assert kept, "there is nothing to look at"
    return kept
