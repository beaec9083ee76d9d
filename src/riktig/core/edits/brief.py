"""Edits of what the customer states: heading, supplies, enclosure, loads, field devices, practice."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import cast

from riktig.core.edits.ranges import check_ranges
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.job import (
    ChangedLoadFields,
    ChangedSignalFields,
    EnclosureFields,
    FurtherLoadFields,
    HeadingFields,
    Job,
    LoadFields,
    LoadId,
    MarkFields,
    PracticeFields,
    SignalFields,
    SignalId,
    SourceFields,
    SourceId,
    SupplyFields,
    add_load,
    add_signal,
    add_source,
    change_load,
    change_signal,
    change_source,
    override,
    remove_load,
    remove_signal,
    remove_source,
    set_box,
    set_enclosure,
    set_heading,
    set_marks,
    set_practice,
    set_supply,
)
from riktig.core.sizing import Alternative, take

__all__ = [
    "AddLoad",
    "AddLoads",
    "AddSignal",
    "AddSource",
    "ChangeLoad",
    "ChangeSignal",
    "ChangeSource",
    "LoadToAdd",
    "RemoveLoad",
    "RemoveSignal",
    "RemoveSource",
    "SetBox",
    "SetEnclosure",
    "SetHeading",
    "SetMarks",
    "SetOwnValue",
    "SetPractice",
    "SetSupply",
    "TakeAlternative",
]


@dataclass(frozen=True)
class SetHeading:
    """Number, title, client, drawing, revision, maker, serial number, date, standard; whether supplies were asked."""

    fields: HeadingFields

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with that heading."""
        return set_heading(evaluation.document, **self.fields)


@dataclass(frozen=True)
class SetMarks:
    """What the marks of approval of enclosure and panel say."""

    fields: MarkFields

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with those marks."""
        return set_marks(evaluation.document, **self.fields)


@dataclass(frozen=True)
class SetSupply:
    """The main supply."""

    fields: SupplyFields

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with that supply."""
        check_ranges(self.fields)
        return set_supply(evaluation.document, **self.fields)


@dataclass(frozen=True)
class SetEnclosure:
    """The enclosure; what stood on the old plate is planned anew when the plate changes size."""

    fields: EnclosureFields

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job in that enclosure."""
        check_ranges(self.fields)
        return set_enclosure(evaluation.document, **self.fields)


@dataclass(frozen=True)
class SetBox:
    """Another size of the enclosure, mm, with the mounting plate that belongs to it."""

    width: float
    height: float
    depth: float

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job in a box of that size."""
        return set_box(evaluation.document, self.width, self.height, self.depth)


@dataclass(frozen=True)
class SetPractice:
    """What practice the job follows."""

    fields: PracticeFields

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job by that practice."""
        return set_practice(evaluation.document, **self.fields)


@dataclass(frozen=True)
class LoadToAdd:
    """A load to be added, with its name."""

    name: str
    fields: LoadFields


@dataclass(frozen=True)
class AddLoad:
    """A load more, with its circuit."""

    name: str
    fields: LoadFields

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the load."""
        return _with_load(evaluation.document, LoadToAdd(self.name, self.fields))


@dataclass(frozen=True)
class AddLoads:
    """Several loads more, such as those of a list: all or none."""

    loads: tuple[LoadToAdd, ...]

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the loads."""
        job = evaluation.document
        for load in self.loads:
            job = _with_load(job, load)
        return job


def _must_be_there(what: str, wanted: str, ids: Iterable[str]) -> None:
    """Refuses an edit of something that is not in the job."""
    if wanted not in ids:
        raise RiktigError(
            f"There is no {what} {wanted} in this job, so nothing was changed.", hint=f"There are {', '.join(ids)}."
        )


def _with_load(job: Job, load: LoadToAdd) -> Job:
    further = cast(FurtherLoadFields, {key: value for key, value in load.fields.items() if key != "kw"})
    return add_load(job, load.name, load.fields.get("kw"), **further)


@dataclass(frozen=True)
class ChangeLoad:
    """Answers about a load."""

    load: LoadId
    fields: ChangedLoadFields

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the load changed."""
        _must_be_there("load", self.load, [load.id for load in evaluation.document.loads])
        return change_load(evaluation.document, self.load, **self.fields)


@dataclass(frozen=True)
class RemoveLoad:
    """A load and its circuit out of the job."""

    load: LoadId

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job without the load."""
        _must_be_there("load", self.load, [load.id for load in evaluation.document.loads])
        return remove_load(evaluation.document, self.load)


@dataclass(frozen=True)
class TakeAlternative:
    """Another starter, protection or control supply, as Riktig offers it."""

    alternative: Alternative

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the other answer."""
        if self.alternative.load is not None:
            _must_be_there("load", self.alternative.load, [load.id for load in evaluation.document.loads])
        return take(evaluation.document, self.alternative)


@dataclass(frozen=True)
class AddSignal:
    """A field device more."""

    name: str
    fields: SignalFields

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the device."""
        return add_signal(evaluation.document, self.name, **self.fields)


@dataclass(frozen=True)
class ChangeSignal:
    """Answers about a field device."""

    signal: SignalId
    fields: ChangedSignalFields

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the device changed."""
        _must_be_there("field device", self.signal, [signal.id for signal in evaluation.document.signals])
        return change_signal(evaluation.document, self.signal, **self.fields)


@dataclass(frozen=True)
class RemoveSignal:
    """A field device out of the job."""

    signal: SignalId

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job without the device."""
        _must_be_there("field device", self.signal, [signal.id for signal in evaluation.document.signals])
        return remove_signal(evaluation.document, self.signal)


@dataclass(frozen=True)
class AddSource:
    """A supply more that arrives live from elsewhere, V."""

    name: str
    voltage_v: float
    comes_from: str = ""

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the supply."""
        check_ranges({"source_v": self.voltage_v})
        return add_source(evaluation.document, self.name, self.voltage_v, self.comes_from)


@dataclass(frozen=True)
class ChangeSource:
    """Answers about a further supply."""

    source: SourceId
    fields: SourceFields

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the supply changed."""
        check_ranges(self.fields, names={"voltage_v": "source_v"})
        _must_be_there("supply", self.source, [source.id for source in evaluation.document.sources])
        return change_source(evaluation.document, self.source, **self.fields)


@dataclass(frozen=True)
class RemoveSource:
    """A further supply out of the job."""

    source: SourceId

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job without the supply."""
        _must_be_there("supply", self.source, [source.id for source in evaluation.document.sources])
        return remove_source(evaluation.document, self.source)


@dataclass(frozen=True)
class SetOwnValue:
    """A value of the builder's own in place of a proposed one, with its reason; without an amount it is given up."""

    key: str
    amount: float | None = None
    reason: str = ""

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the value."""
        return override(evaluation.document, self.key, self.amount, self.reason)
