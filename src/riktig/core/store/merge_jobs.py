"""Two jobs that were made of one: what each changed is brought together where they do not concern the same part."""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any, TypeAlias

import msgspec

from riktig.core.job import Job
from riktig.core.schematic import with_names_recorded
from riktig.core.store.job_json import dump_job, load_job

__all__ = ["BothChanged", "Merged", "merge_jobs"]

Plain: TypeAlias = bool | int | float | str | list["Plain"] | dict[str, "Plain"] | None

_NAMES = (
    "id", "key", "device", "ref", "item", "label", "wire", "initials", "role", "number", "name", "words", "of",
    "potential", "medium", "devices",
)  # fmt: skip
"""By which field the elements of a list are known again, the first that they have."""
_IN_ORDER = ("changes", "path", "steps", "lines", "was", "chains", "cores", "terminals", "marks", "pins")
"""Lists that mean something as a whole: changed by both, they stand side by side."""
_GIVEN = (("tags",), ("numbers",), ("printed",))
"""What Riktig gives by itself: what one gave and the other gave away already is given anew."""


class _JobText(msgspec.Struct):
    """The JSON of a job."""

    format: int
    job: dict[str, Any]


@dataclass(frozen=True, slots=True)
class BothChanged:
    """One part that both changed: its path, such as “loads · c3 · kw”, and what it is in each, as JSON."""

    path: str
    here: str
    there: str


@dataclass(frozen=True, slots=True)
class Merged:
    """The job with what both changed, and what both changed otherwise; there it has what stands “there”."""

    job: Job
    both_changed: tuple[BothChanged, ...] = ()


def merge_jobs(base: Job, here: Job, there: Job, keep: Collection[str] = ()) -> Merged:
    """What both changed, brought together.

    Args:
        base: The job that both were made of.
        here: What one made of it.
        there: What the other made of it.
        keep: Paths of parts that are settled for “here”.

    Raises:
        RiktigError: what comes out cannot be a job, although no part was changed by both.
    """
    merge = _Merge(frozenset(keep))
    old, mine, theirs = (msgspec.json.decode(dump_job(job), type=_JobText) for job in (base, here, there))
    whole = merge.both(old.job, mine.job, theirs.job, ())
    if isinstance(whole, dict):
        _without_twice(whole, theirs.job)
    job = with_names_recorded(load_job(msgspec.json.encode({"format": theirs.format, "job": whole}).decode()))
    return Merged(job, tuple(merge.both_changed))


@dataclass
class _Merge:
    keep: frozenset[str]
    both_changed: list[BothChanged] = field(default_factory=list)

    def both(self, base: Plain, here: Plain, there: Plain, path: tuple[str, ...]) -> Plain:
        """A value with what both changed."""
        if here in (there, base):
            return there
        if there == base:
            return here
        if isinstance(here, dict) and isinstance(there, dict):
            old = base if isinstance(base, dict) else {}
            names = [*there, *(name for name in here if name not in there)]
            return {
                name: self.both(old.get(name), here.get(name), there.get(name), (*path, name))
                for name in names
                if name in here or name in there
            }
        if isinstance(here, list) and isinstance(there, list) and not (path and path[-1] in _IN_ORDER):
            merged = self._lists(base if isinstance(base, list) else [], here, there, path)
            if merged is not None:
                return merged
        return self._side_by_side(path, here, there)

    def _side_by_side(self, path: tuple[str, ...], here: Plain, there: Plain) -> Plain:
        words = " · ".join(path)
        if words in self.keep:
            return here
        self.both_changed.append(BothChanged(words, _plain_words(here), _plain_words(there)))
        return there

    def _lists(self, base: list[Plain], here: Plain, there: Plain, path: tuple[str, ...]) -> Plain:
        """Element by element; None where one cannot be known again."""
        tables = [_by_name(items) for items in (base, here, there)]
        if any(table is None for table in tables):
            return None
        old, mine, theirs = (table or {} for table in tables)
        merged: list[Plain] = []
        for name in [*theirs, *(name for name in mine if name not in theirs)]:
            was, first, last = old.get(name), mine.get(name), theirs.get(name)
            given = path in _GIVEN
            value = last if given and first and last else self.both(was, first, last, (*path, name))
            if value is not None:
                merged.append(value)
        return merged


def _by_name(items: Plain) -> dict[str, Plain] | None:
    """The elements of a list by what they are known by; None where two cannot be told apart."""
    if not isinstance(items, list):
        return None
    table = {_name(item): item for item in items}
    return table if len(table) == len(items) else None


def _name(item: Plain) -> str:
    if isinstance(item, dict):
        name = next((item[field] for field in _NAMES if field in item), None)
        if name is not None:
            return name if isinstance(name, str) else _plain_words(name)
    return item if isinstance(item, str) else _plain_words(item)


def _plain_words(value: Plain) -> str:
    return "" if value is None else msgspec.json.encode(value).decode()


def _without_twice(job: dict[str, Plain], there: Mapping[str, Plain]) -> None:
    """Takes back tags that the other gave to another device already: they are given anew."""
    tags = job.get("tags")
    if not isinstance(tags, list):
        return
    known: Sequence[Plain] = there["tags"] if isinstance(there["tags"], list) else []
    taken = {tag["tag"]: tag["device"] for tag in known if isinstance(tag, dict)}
    job["tags"] = [
        tag for tag in tags if not isinstance(tag, dict) or taken.get(tag["tag"], tag["device"]) == tag["device"]
    ]
