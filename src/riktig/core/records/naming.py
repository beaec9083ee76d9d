"""What an entry of the log is called where it is named in a word: on Undo, in a message."""

from collections.abc import Sequence
from typing import TypeAlias

from riktig.core.records.facts import (
    ChangeClosed,
    ChangeOpened,
    ClauseJudged,
    ContactRead,
    DimensionRead,
    Facts,
    FieldEndDone,
    GatePassed,
    HoleDone,
    LabelPrinted,
    LiveReleased,
    LiveStepDone,
    NoteKept,
    OtherEntry,
    PartMounted,
    PartReceived,
    PhoneTalk,
    PhotoKept,
    PieceCut,
    ReadingTaken,
    RedLine,
    RedLineAnswered,
    TakenBack,
    TaskDone,
    TemplateChecked,
    WireDone,
)
from riktig.core.records.handover_facts import (
    AsBuiltClosed,
    JobIssued,
    PanelDispatched,
    PapersWritten,
    ServiceVisit,
    SiteItemDone,
)
from riktig.core.records.inspection_facts import ClauseCompared, FindingNoted, FindingSettled
from riktig.core.records.label_facts import LabelReplaced
from riktig.core.records.record import NewRecord

__all__ = ["can_be_undone", "name_of_records"]


def name_of_records(entries: Sequence[NewRecord]) -> str:
    """“wire 36 cut”, “reading of test 12”; of several entries the first and how many more.

    Args:
        entries: What was recorded in one step; at least one.

    Raises:
        IndexError: there is none.
    """
    first = _name(entries[0].facts, entries[0].subject)
    return first if len(entries) == 1 else f"{first} and {len(entries) - 1} more"


_FOR_GOOD = (
    LabelPrinted, TemplateChecked, TakenBack, OtherEntry, JobIssued, PapersWritten, PanelDispatched, AsBuiltClosed,
)  # fmt: skip
"""What was given out, printed or taken back: a correction says so, Undo does not."""


def can_be_undone(entries: Sequence[NewRecord]) -> bool:
    """Whether Undo may take all of them back: what was ticked, read or judged; not what was given out.

    Args:
        entries: What was recorded in one step.
    """
    return not any(entry.corrects or isinstance(entry.facts, _FOR_GOOD) for entry in entries)


def _name(facts: Facts, subject: str) -> str:
    match facts:
        case WireDone():
            return f"wire {facts.number or facts.name} {facts.operation.words}"
        case HoleDone():
            return f"hole {facts.number} {facts.operation.value}"
        case PieceCut() | DimensionRead():
            return _of_length(facts, subject)
        case PartMounted():
            return f"{facts.part} mounted"
        case FieldEndDone():
            return f"number {facts.number} connected in the field"
        case ReadingTaken():
            return f"reading of {facts.title or subject}"
        case ClauseJudged() | PhotoKept():
            what = "judgement" if isinstance(facts, ClauseJudged) else "photo"
            return f"{what} of {(facts.of if isinstance(facts, PhotoKept) else '') or subject}"
        case TakenBack():
            return f"correction of {facts.what}" if facts.what else "correction"
        case TemplateChecked() | OtherEntry():
            return "check of a template" if isinstance(facts, TemplateChecked) else facts.name or "entry"
        case LiveReleased() | LiveStepDone() | PhoneTalk() | ClauseCompared() | FindingNoted() | FindingSettled():
            return _of_proof(facts)
        case JobIssued() | PapersWritten() | PanelDispatched() | AsBuiltClosed() | SiteItemDone() | ServiceVisit():
            return _of_hand_over(facts)
    return _of_bench(facts)


def _of_hand_over(
    facts: JobIssued | PapersWritten | PanelDispatched | AsBuiltClosed | SiteItemDone | ServiceVisit,
) -> str:
    match facts:
        case JobIssued():
            return f"issue {facts.letter}"
        case PapersWritten():
            return f"documents of revision {facts.letter}"
        case PanelDispatched():
            return f"dispatch to {facts.to}"
        case AsBuiltClosed():
            return f"panel {facts.serial} as built"
        case SiteItemDone():
            return f"done on site: {facts.what}"
        case ServiceVisit():
            return f"visit for {facts.called_for}"


def _of_length(facts: PieceCut | DimensionRead, subject: str) -> str:
    if isinstance(facts, PieceCut):
        return f"piece of {facts.length:g} mm cut"
    return f"measured {facts.name or subject}: {facts.value:g} mm"


_OfBench: TypeAlias = (
    TaskDone
    | PartReceived
    | ContactRead
    | GatePassed
    | ChangeOpened
    | ChangeClosed
    | RedLine
    | RedLineAnswered
    | NoteKept
    | LabelReplaced
    | LabelPrinted
)
_OfProof: TypeAlias = LiveReleased | LiveStepDone | PhoneTalk | ClauseCompared | FindingNoted | FindingSettled


def _of_bench(facts: _OfBench) -> str:
    match facts:
        case NoteKept():
            return f"note on {facts.of}"
        case TaskDone():
            return facts.title
        case PartReceived():
            return f"{facts.quantity} × {facts.part} received"
        case ContactRead():
            return f"reading of {facts.operator} {facts.contact} {facts.position}".rstrip()
        case GatePassed():
            return f"gate of “{facts.stage}” passed"
        case ChangeOpened():
            return f"change order “{facts.title}”"
        case ChangeClosed():
            return "change order closed"
        case RedLine():
            return f"red-line at {facts.name}"
        case RedLineAnswered():
            return f"red-line {facts.answer}"
        case LabelPrinted():
            return f"print of label {facts.text}"
        case LabelReplaced():
            return f"label {facts.was} " + (f"replaced by {facts.text}" if facts.text else "taken off")


def _of_proof(facts: _OfProof) -> str:
    match facts:
        case LiveReleased():
            return f"live tests released, {facts.stands_by} stands by"
        case LiveStepDone():
            return f"step “{facts.title}”"
        case PhoneTalk():
            return f"talk about {facts.about} with {facts.caller}"
        case ClauseCompared():
            return f"“{facts.title}” compared with print"
        case FindingNoted():
            return f"finding “{facts.text}”"
        case FindingSettled():
            return f"finding “{facts.text}” settled"
