"""Anything that can be labelled is found by its label, and by the words people use for it."""

import re
from bisect import bisect_left, bisect_right
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from heapq import merge

from riktig.core.keys import Key, PlaceKey
from riktig.core.labels.synonyms import in_house_words, same_words

__all__ = ["Index", "IndexEntry", "find", "index_of"]


@dataclass(frozen=True, slots=True)
class IndexEntry:
    """One thing that can be found: its label, what it is, and its selection key.

    ``also`` are labels that another set of class letters would give it.
    """

    label: str
    what: str
    key: Key | None
    also: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Index:
    """Entries, and their texts made ready for looking.

    ``labels`` and ``bare`` (without signs) are sorted, each with the place of its entry; ``said`` is
    everything an entry says, ``text`` all of it a line each, ``starts`` where each line begins.
    """

    entries: tuple[IndexEntry, ...]
    labels: tuple[tuple[str, int], ...]
    bare: tuple[tuple[str, int], ...]
    said: tuple[str, ...]
    text: str
    starts: tuple[int, ...]
    also: dict[str, tuple[int, ...]]
    """Places of the entries that another set of letters calls so."""


def index_of(entries: Iterable[IndexEntry]) -> Index:
    """The index of some entries, in their order. O(n log n)."""
    all_entries = tuple(entries)
    labels = [entry.label.lower() for entry in all_entries]
    also: dict[str, list[int]] = {}
    for place, entry in enumerate(all_entries):
        for other in entry.also:
            also.setdefault(other.lower(), []).append(place)
    lines = tuple(f" {label} {entry.what.lower()}" for label, entry in zip(labels, all_entries, strict=True))
    starts, at = [], 0
    for line in lines:
        starts.append(at)
        at += len(line) + 1
    return Index(
        all_entries,
        tuple(sorted((label, place) for place, label in enumerate(labels))),
        tuple(sorted((_bare(label), place) for place, label in enumerate(labels))),
        lines,
        "\n".join(lines),
        tuple(starts),
        {label: tuple(places) for label, places in also.items()},
    )


_CODE = re.compile(r"\s*\S+/-(\S+)\s*")
"""What the code of a label says: the job, and the tag of the thing."""


def find(index: Index, text: str, limit: int = 12) -> tuple[IndexEntry, ...]:
    """The entries that best answer what was typed.

    Method:
        A place of the sheets (“2.3”, “2.3.C”, “sheet 2”) first. Then by rank: the label itself; labels that
        begin with it; labels that are it but for signs (“K1 13” for K1:13); tags by another set of letters and
        lines of the supply by another name; every word at the beginning of a word; every word anywhere; words
        that mean the same. Within a rank in the order of the job, which has loads and devices first.

    Args:
        index: Everything that can be found.
        text: The text.
        limit: At most so many.
    """
    scanned = _CODE.fullmatch(text)
    text = scanned[1] if scanned else text
    wanted = " ".join(text.lower().split())
    if not wanted:
        return ()
    place = _PLACE.fullmatch(wanted)
    if place:
        there = (place[1] or place[2]).upper()
        entry = IndexEntry(there, "place on the sheets: sheet, column, row", PlaceKey(there))
        return (entry, *_ranked(index, wanted, limit - 1))
    as_typed = _ranked(index, wanted, limit)
    house = in_house_words(wanted)
    if house == wanted:
        return as_typed
    return tuple(dict.fromkeys((*as_typed, *_ranked(index, house, limit))))[:limit]


_PLACE = re.compile(r"sheet (\d{1,3})|(\d{1,3}\.\d(?:\.[a-f])?)")
_SIGNS = str.maketrans("", "", " :.-/,")
_LAST = "\U0010ffff"
"""Sorts behind every letter."""


def _bare(label: str) -> str:
    return label.translate(_SIGNS)


def _ranked(index: Index, wanted: str, limit: int) -> tuple[IndexEntry, ...]:
    places: dict[int, None] = {}
    for place in _by_rank(index, wanted):
        places[place] = None
        if len(places) >= limit:
            break
    return tuple(index.entries[place] for place in places)


def _by_rank(index: Index, wanted: str) -> Iterator[int]:
    """The places of entries that answer, the best rank first; one may come again in a lower rank."""
    words = wanted.split(" ")
    bare = _bare(wanted)
    beginning = _beginning(index.labels, wanted)
    yield from sorted(place for label, place in beginning if label == wanted)
    yield from sorted(place for _, place in beginning)
    if bare:
        yield from sorted(place for _, place in _beginning(index.bare, bare))
    yield from index.also.get(wanted, ())
    yield from _saying(index, [(f" {word}",) for word in words])
    yield from _saying(index, [(word,) for word in words])
    yield from merge(_saying(index, [same_words(wanted)]), _saying(index, [same_words(word) for word in words]))


def _beginning(texts: tuple[tuple[str, int], ...], start: str) -> tuple[tuple[str, int], ...]:
    """Of sorted texts, those that begin so."""
    first = bisect_left(texts, (start, -1))
    return texts[first : bisect_right(texts, (start + _LAST, -1))]


def _saying(index: Index, groups: list[tuple[str, ...]]) -> Iterator[int]:
    """In order, the places of the entries that say at least one text of each group."""
    rarest = max(groups, key=lambda group: min(len(text) for text in group))
    others = [group for group in groups if group is not rarest]
    for place in merge(*(_lines(index, text) for text in rarest)):
        phrase = index.said[place]
        if all(any(text in phrase for text in group) for group in others):
            yield place


def _lines(index: Index, text: str) -> Iterator[int]:
    """The lines in which a text stands."""
    at = index.text.find(text)
    while at >= 0:
        place = bisect_right(index.starts, at) - 1
        yield place
        if place + 1 == len(index.starts):
            return
        at = index.text.find(text, index.starts[place + 1])
