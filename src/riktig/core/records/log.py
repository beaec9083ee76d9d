"""The log with what was already read from it: an entry more is added to a result, all is not read anew.

A log only grows, and a bench asks after every entry how far the work is. A *reading of the log* (``FromLog``)
says how a result is read from a whole log, and how it goes on from the result of a shorter one.
"""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from typing import Generic, TypeVar, cast

from riktig.core.records.facts import Facts
from riktig.core.records.record import Record

__all__ = ["FromLog", "Log", "log_of", "taken_back"]

Read = TypeVar("Read")
Found = TypeVar("Found")
Said = TypeVar("Said", bound=Facts)


@dataclass(frozen=True, eq=False)
class FromLog(Generic[Read, Found]):
    """A result that is read from a log and one object beside it, such as the wires.

    Args:
        name: What it is, for whoever looks for it in a debugger.
        anew: From that object and a whole log.
        further: From the result for a shorter log, the object, the whole log, and what the shorter one lacks.
            It comes to what ``anew`` comes to; a test holds both against each other.
    """

    name: str
    anew: "Callable[[Read, Log], Found]"
    further: "Callable[[Found, Read, Log, Sequence[Record]], Found]"


@dataclass(frozen=True, slots=True)
class _Standing:
    """The entries that stand: neither a correction nor taken back by one."""

    about: dict[str, tuple[Record, ...]]
    kinds: dict[type, tuple[Record, ...]]
    by_id: dict[str, Record]
    places: dict[str, int]
    gone: frozenset[str]


class Log(tuple[Record, ...]):
    """All records, oldest first: a tuple of them that keeps what was read from it.

    What is kept changes nothing that is found, only how long it takes. The object that a result reads beside
    the log is compared by identity.
    """

    _kept: dict[object, tuple[object, int, object]]
    _standing: _Standing | None

    def __new__(cls, records: Iterable[Record] = ()) -> "Log":
        """A log of these records."""
        made = super().__new__(cls, records)
        made._kept, made._standing = {}, None
        return made

    def __reduce__(self) -> "tuple[type[Log], tuple[tuple[Record, ...]]]":
        """Another process gets the records; what was read from them it reads itself."""
        return Log, (tuple(self),)

    def with_records(self, new: Iterable[Record]) -> "Log":
        """The log with further entries; what was read from this one is taken over."""
        added = tuple(new)
        made = Log((*self, *added))
        made._kept = dict(self._kept)
        if self._standing is not None:
            made._standing = _further(self._standing, len(self), added)
        return made

    def followed_by(self, records: Iterable[Record]) -> "Log":
        """A log of all these records: this one continued where they begin with it.

        An entry is never changed, so that the same id is the same entry.
        """
        whole = tuple(records)
        begins = len(whole) >= len(self) and all(
            new is old or new.id == old.id for new, old in zip(whole, self, strict=False)
        )
        if begins:
            return self.with_records(whole[len(self) :]) if len(whole) > len(self) else self
        return Log(whole)

    def get(self, reading: FromLog[Read, Found], beside: Read) -> Found:
        """The result of a reading, gone on with from the last one where that was beside the same object."""
        entry = self._kept.get(reading)
        if entry is None or entry[0] is not beside:
            value = reading.anew(beside, self)
        elif entry[1] == len(self):
            return cast(Found, entry[2])
        else:
            value = reading.further(cast(Found, entry[2]), beside, self, self[entry[1] :])
        self._kept[reading] = (beside, len(self), value)
        return value

    @property
    def _index(self) -> _Standing:
        if self._standing is None:
            self._standing = _further(_Standing({}, {}, {}, {}, frozenset()), 0, self)
        return self._standing

    @property
    def gone(self) -> frozenset[str]:
        """The ids of what later entries take back."""
        return self._index.gone

    def about(self, subject: str) -> tuple[Record, ...]:
        """The entries about something that stand, oldest first."""
        return self._index.about.get(subject, ())

    def standing(self, kind: type) -> tuple[Record, ...]:
        """The entries of one kind that stand, oldest first."""
        return self._index.kinds.get(kind, ())

    def said(self, kind: type[Said]) -> list[tuple[Record, Said]]:
        """The entries of one kind that stand, each with what it says, oldest first."""
        return [(record, record.facts) for record in self.standing(kind) if isinstance(record.facts, kind)]

    def by_id(self, record_id: str) -> Record | None:
        """An entry by its id, whether it stands or not."""
        return self._index.by_id.get(record_id)

    def place(self, record_id: str) -> int:
        """Where an entry is in the log, from 0; -1 where it is not."""
        return self._index.places.get(record_id, -1)

    def meant(self, record: Record) -> Record:
        """What an entry is about: for a correction what it takes back, else itself."""
        return (self.by_id(record.corrects) or record) if record.corrects else record


def log_of(records: Iterable[Record]) -> Log:
    """Records as a log: the very same where they are one already."""
    return records if isinstance(records, Log) else Log(records)


def taken_back(records: Iterable[Record]) -> frozenset[str]:
    """The ids of the records that later ones take back. They stay in the log; they count no more."""
    return records.gone if isinstance(records, Log) else frozenset(r.corrects for r in records if r.corrects)


def _further(before: _Standing, count: int, new: Sequence[Record]) -> _Standing:
    """What stands after further entries.

    Args:
        before: What stood before them.
        count: How many entries there were then.
        new: The further ones, oldest first.
    """
    by_id, places = dict(before.by_id), dict(before.places)
    for place, record in enumerate(new, count):
        by_id[record.id], places[record.id] = record, place
    corrected = {record.corrects for record in new if record.corrects}
    gone = before.gone | corrected if corrected else before.gone
    about: dict[str, list[Record]] = {}
    kinds: dict[type, list[Record]] = {}
    for record_id in corrected & before.by_id.keys():
        taken = before.by_id[record_id]
        about.setdefault(taken.subject, list(before.about.get(taken.subject, ())))
        kinds.setdefault(type(taken.facts), list(before.kinds.get(type(taken.facts), ())))
    for record in new:
        if not record.corrects and record.id not in gone:
            about.setdefault(record.subject, list(before.about.get(record.subject, ()))).append(record)
            kind = type(record.facts)
            kinds.setdefault(kind, list(before.kinds.get(kind, ()))).append(record)

    def kept(records: list[Record]) -> tuple[Record, ...]:
        return tuple(record for record in records if record.id not in corrected) if corrected else tuple(records)

    return _Standing(
        {**before.about, **{subject: kept(records) for subject, records in about.items()}},
        {**before.kinds, **{kind: kept(records) for kind, records in kinds.items()}},
        by_id,
        places,
        gone,
    )
