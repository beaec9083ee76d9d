"""How much a long test does: little in every check, much in the nightly run (``./check --nightly``)."""

import os
from collections.abc import Collection, Iterable
from itertools import cycle, product
from typing import TypeVar

NIGHTLY = os.environ.get("RIKTIG_NIGHTLY", "") == "1"


def times(each_check: int, nightly: int) -> int:
    """How many times a long test tries: ``each_check`` now, ``nightly`` when the night is given to it."""
    return nightly if NIGHTLY else each_check


T = TypeVar("T")
PARTS = 3
"""A family of many alike is shared among so many tests."""


def share(items: Iterable[T], part: int, always: Collection[T] = ()) -> list[T]:
    """Of a family of many alike every third in each check, all in the night; each test of a family takes another part.

    Args:
        items: The family, in order.
        part: Which third, counted from 0.
        always: Those that every check looks at.
    """
    kept = list(items)
    if not NIGHTLY:
        kept = [item for n, item in enumerate(kept) if n % PARTS == part % PARTS or item in always]
    assert kept, "there is nothing to look at"
    return kept


U = TypeVar("U")


def each_once(items: Iterable[T], variants: Iterable[U]) -> list[tuple[T, U]]:
    """Items with variants: in each check every item once and every variant in its turn, in the night all pairs."""
    kept, all_variants = list(items), list(variants)
    if NIGHTLY:
        return list(product(kept, all_variants))
    assert len(kept) >= len(all_variants), "every variant has its turn"
    return list(zip(kept, cycle(all_variants), strict=False))


def some(items: Iterable[T]) -> list[T]:
    """The items, of which there must be at least one: a test that looks at nothing would pass on nothing."""
    kept = list(items)
    assert kept, "there is nothing to look at"
    return kept
