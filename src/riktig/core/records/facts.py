"""What an entry of the log says: one tagged union, a class for each kind of thing that is done or read.

The tag is the kind under which the entry stands in the file. Every field has a default, so that an entry
of an earlier edition, which said less, is read all the same.
"""

from enum import Enum
from typing import TypeAlias

import msgspec

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

__all__ = [
    "ChangeClosed",
    "ChangeOpened",
    "ClauseJudged",
    "ContactRead",
    "DimensionRead",
    "Facts",
    "FieldEndDone",
    "GatePassed",
    "HoleDone",
    "HoleWork",
    "LabelPrinted",
    "LiveReleased",
    "LiveStepDone",
    "NoteKept",
    "Operation",
    "OtherEntry",
    "Outcome",
    "PartMounted",
    "PartReceived",
    "PhoneTalk",
    "PhotoKept",
    "PieceCut",
    "ReadingTaken",
    "RedLine",
    "RedLineAnswered",
    "TakenBack",
    "TaskDone",
    "TemplateChecked",
    "WireDone",
]


class Operation(Enum):
    """What is done to a wire, in order."""

    CUT = "cut"
    MARKED = "marked"
    STRIPPED = "stripped"
    LANDED_START = "landed at the start"
    LANDED_END = "landed at the end"
    TIGHTENED = "tightened"

    @property
    def words(self) -> str:
        """What it is called where it is shown; the value is what stands in the file."""
        match self:
            case Operation.LANDED_START:
                return "first end terminated"
            case Operation.LANDED_END:
                return "second end terminated"
        return str(self.value)

    @property
    def is_landing(self) -> bool:
        """Whether an end of the wire is put into its clamp."""
        return self in (Operation.LANDED_START, Operation.LANDED_END)


class HoleWork(Enum):
    """What is done to a hole, in order."""

    MARKED = "marked"
    PUNCHED = "punched"
    MADE = "drilled"
    DEBURRED = "deburred"


class Outcome(Enum):
    """What came of a test."""

    OPEN = "to do"
    PASSED = "passed"
    FAILED = "failed"
    SKIPPED = "skipped"


class WireDone(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="tick"):
    """An operation on a wire. Lengths mm; an end is “pin fitting torque”, of a wire that was stripped “strip fitting”.

    ``needed`` is the length it must reach, ``tool`` what it was tightened with, "" where that was not noted.
    """

    operation: Operation = Operation.CUT
    name: str = ""
    conductor: str = ""
    length: float | None = None
    needed: float | None = None
    number: str = ""
    end: str = ""
    ends: str = ""
    tool: str = ""

    @property
    def pin(self) -> str:
        """The pin that the end was landed on, "" for anything but a landing."""
        return self.end.partition(" ")[0]


class HoleDone(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="hole"):
    """Work on a hole: where it was, mm from the datum, and its size in words."""

    operation: HoleWork = HoleWork.MARKED
    number: str = ""
    x: float = 0.0
    y: float = 0.0
    size: str = ""


class PieceCut(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="piece cut"):
    """A piece of rail, duct or lid that was cut: from what, and its length, mm."""

    stock: str = ""
    length: float = 0.0


class DimensionRead(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="measured"):
    """A dimension that was measured, and what it was measured against, mm."""

    value: float = 0.0
    nominal: float = 0.0
    name: str = ""


class PartMounted(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="mounted"):
    """A part that was mounted: its place on the plate, mm, and its reference."""

    x: float = 0.0
    y: float = 0.0
    part: str = ""


class FieldEndDone(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="field end"):
    """A number that is connected at one thing in the field: the number, and the pins there."""

    number: str = ""
    pins: str = ""


class ReadingTaken(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="reading"):
    """What came of a test. ``ohm`` is the reading as a number in words, “inf” for an open line, "" for none.

    ``true_of`` are the wires it is true of, ``switches`` how they stood, ``low`` and ``high`` what was expected, ohm;
    ``high`` None is without end. ``meter`` is the instrument with serial number and calibration, ``zero`` what its
    leads read short-circuited, ohm: it is taken off ``ohm``.
    """

    outcome: Outcome = Outcome.OPEN
    ohm: str = ""
    meter: str = ""
    reason: str = ""
    title: str = ""
    points: str = ""
    expected: str = ""
    true_of: str = ""
    switches: str = ""
    low: float | None = None
    high: float | None = None
    zero: float = 0.0


class ClauseJudged(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="judgement"):
    """What a person decided about a clause, and the evidence that lay before them.

    A ``deviation`` is accepted although the clause fails: it fails all the same, and the reason is printed.
    """

    reason: str = ""
    evidence: str = ""
    title: str = ""
    deviation: bool = False


class LabelPrinted(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="printed"):
    """A label that came out of the printer, with its text; ``on`` is what it was printed on, "" where nobody said."""

    text: str = ""
    on: str = ""


class TemplateChecked(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="template checked"):
    """The bar of a printed template as a rule reads it, mm, and whether the print is true to scale: “yes” or “no”."""

    bar: float = 0.0
    true: str = ""


class PhotoKept(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="photo"):
    """A photo of the thing the entry is about.

    ``file`` names it among the attachments of the job file, ``digest`` is the SHA-256 of what is kept there and
    ``original`` that of the file it was made from; ``name`` is what that file was called, ``of`` the thing's label.
    """

    file: str = ""
    digest: str = ""
    original: str = ""
    name: str = ""
    of: str = ""


class NoteKept(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="note"):
    """A note in words on the thing the entry is about; ``of`` is that thing's label."""

    text: str = ""
    of: str = ""


class LiveReleased(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="live released"):
    """The live tests opened: who stands by, why although something is open, and what was open then."""

    stands_by: str = ""
    reason: str = ""
    open_work: str = ""


class LiveStepDone(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="live step"):
    """A step under voltage, or a setting: of which stage, what was done, what was asked and what came.

    ``value`` is what was measured, as left where it was trimmed, ``found`` before trimming, in ``unit``; ``true_of`` is
    what it was true of.
    """

    outcome: Outcome = Outcome.OPEN
    title: str = ""
    done: str = ""
    expected: str = ""
    value: str = ""
    found: str = ""
    unit: str = ""
    meter: str = ""
    reason: str = ""
    true_of: str = ""
    stage: str = ""


class PhoneTalk(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="phone talk"):
    """A talk about a fault on site: what does not work, with whom, question by answer, and what was concluded."""

    about: str = ""
    caller: str = ""
    answers: str = ""
    concluded: str = ""


class TaskDone(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="task"):
    """A piece of bench work that was done: its stage, what it was, and what it was done to, in words."""

    stage: str = ""
    title: str = ""
    true_of: str = ""


class PartReceived(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="received"):
    """Parts that came: their reference, how many there are now, and the serial numbers and batch of those that matter.

    ``quantity`` is what is there in all, not what came last; ``wanted`` is what the parts list asked for then.
    """

    part: str = ""
    quantity: int = 0
    wanted: int = 0
    serials: str = ""
    batch: str = ""


class ContactRead(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="operator test"):
    """A contact of an operator read before it is mounted: in which position, what was expected and what was read, ohm.

    ``ohm`` is the reading as a number in words, “inf” for an open contact; ``zero`` what the leads alone read;
    ``fault`` says why the reading is not as it should be, "" when it is.
    """

    operator: str = ""
    contact: str = ""
    position: str = ""
    expected: str = ""
    ohm: str = ""
    zero: float = 0.0
    meter: str = ""
    fault: str = ""


class GatePassed(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="gate passed"):
    """A stage that was begun although its gate was shut: why, and what kept it shut then."""

    stage: str = ""
    reason: str = ""
    open_work: str = ""


class ChangeOpened(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="change opened"):
    """A change order: what is changed, why, who asked for it, and the revision of the job that the change begins at."""

    title: str = ""
    why: str = ""
    asked_by: str = ""
    base: int = 0


class ChangeClosed(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="change closed"):
    """A change order of which everything is done; ``done`` says what that was, in counts."""

    done: str = ""


class RedLine(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="red-line"):
    """What was built otherwise than drawn, noted on the spot: what the drawing says, and how it was done."""

    name: str = ""
    drawn: str = ""
    built: str = ""


class RedLineAnswered(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="red-line answered"):
    """The planner's answer to a red-line: “accepted” into the drawing or “rejected”, of which entry, and why."""

    answer: str = ""
    of: str = ""
    why: str = ""


class TakenBack(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="correction"):
    """Takes an earlier entry back; both stay in the log."""

    what: str = ""
    why: str = ""


class OtherEntry(msgspec.Struct, frozen=True, omit_defaults=True, tag_field="kind", tag="other"):
    """An entry of a kind that this edition does not know: kept as it is, counted as nothing."""

    name: str = ""
    text: str = ""


Facts: TypeAlias = (
    WireDone
    | HoleDone
    | PieceCut
    | DimensionRead
    | PartMounted
    | FieldEndDone
    | ReadingTaken
    | ClauseCompared
    | ClauseJudged
    | FindingNoted
    | FindingSettled
    | LabelPrinted
    | LabelReplaced
    | AsBuiltClosed
    | JobIssued
    | PanelDispatched
    | PapersWritten
    | ServiceVisit
    | SiteItemDone
    | TemplateChecked
    | PhotoKept
    | NoteKept
    | LiveReleased
    | LiveStepDone
    | PhoneTalk
    | TaskDone
    | PartReceived
    | ContactRead
    | GatePassed
    | ChangeOpened
    | ChangeClosed
    | RedLine
    | RedLineAnswered
    | TakenBack
    | OtherEntry
)
"""Everything that an entry of the log can say."""
