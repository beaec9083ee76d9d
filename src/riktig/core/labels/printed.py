"""What has been printed, what must be printed again since, and what on the panel must be exchanged."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from enum import Enum

from riktig.core.labels.draw import printed_lines
from riktig.core.labels.model import Label, Labels, Medium
from riktig.core.records import LabelPrinted, LabelReplaced, NewRecord, Record, log_of

__all__ = [
    "LabelChange",
    "LabelWork",
    "PrintRun",
    "changed_since",
    "label_changes",
    "label_text",
    "print_entries",
    "print_runs",
    "replaced_entry",
    "to_print_again",
]


class LabelWork(Enum):
    """What a changed label asks for."""

    PRINT = "print"
    PUT_ON = "replace on the panel"
    TAKE_OFF = "take off the panel"


@dataclass(frozen=True, slots=True)
class LabelChange:
    """A label that is not as it was printed: what to do, its name, what it said and says; ``label`` is None once gone.

    ``medium`` is the name of its medium.
    """

    work: LabelWork
    name: str
    medium: str
    was: str
    text: str
    label: Label | None = None


@dataclass(frozen=True, slots=True)
class PrintRun:
    """Labels that were printed in one go: when (ISO 8601), by whom, on which medium, how many."""

    when: str
    who: str
    medium: str
    count: int


@dataclass(slots=True)
class _History:
    """What the log knows of one label: the texts it was printed with, and what was put on the panel last."""

    prints: list[tuple[str, str]] = field(default_factory=list)
    on_panel: str | None = None


def label_text(label: Label) -> str:
    """What a label says in one line, as it comes out of the printer: it is what the record keeps."""
    lines = printed_lines(label)
    return " / ".join((*lines, f"[{label.code}]")) if label.code else " / ".join(lines)


def _medium_of(name: str) -> str:
    """The name of the medium of a label by its own name."""
    return Medium[name.partition("/")[0].upper()].value


def _histories(records: Iterable[Record]) -> dict[str, _History]:
    log = log_of(records)
    histories: dict[str, _History] = {}
    for record, printed in log.said(LabelPrinted):
        histories.setdefault(record.subject, _History()).prints.append((printed.text, record.when))
    for record, replaced in log.said(LabelReplaced):
        histories.setdefault(record.subject, _History()).on_panel = replaced.text
    return {name: history for name, history in histories.items() if history.prints}


def print_entries(
    labels: Labels, medium: Medium, only: Iterable[Label] | None = None, *, on: str = ""
) -> list[NewRecord]:
    """What the log gets when labels of a medium are printed: one entry a label.

    Args:
        labels: All labels of the panel.
        medium: What they are printed on.
        only: Those that were printed, where not all were.
        on: The sheet, strip or roll, in words.
    """
    chosen = None if only is None else {id(label) for label in only}
    return [
        NewRecord(name, LabelPrinted(label_text(label), on))
        for name, label in labels.by_name.items()
        if label.medium is medium and (chosen is None or id(label) in chosen)
    ]


def label_changes(labels: Labels, records: Iterable[Record]) -> tuple[LabelChange, ...]:
    """All labels that are not as the panel has them: to be printed, to be exchanged, to be taken off.

    A medium of which nothing was printed yet has no changes. The first print is taken to be on the panel; a later one
    with another text is exchanged for it, until that is ticked.

    Args:
        labels: All labels of the panel.
        records: The log, oldest first.
    """
    histories = _histories(records)
    begun = {name.partition("/")[0] for name in histories}
    changes: list[LabelChange] = []
    present = labels.by_name
    for name, label in present.items():
        if name.partition("/")[0] not in begun:
            continue
        text, history = label_text(label), histories.get(name, _History())
        last = history.prints[-1][0] if history.prints else ""
        if last != text:
            changes.append(LabelChange(LabelWork.PRINT, name, label.medium.value, last, text, label))
            continue
        on_panel = history.prints[0][0] if history.on_panel is None else history.on_panel
        if on_panel != text:
            changes.append(LabelChange(LabelWork.PUT_ON, name, label.medium.value, on_panel, text, label))
    for name, history in histories.items():
        on_panel = history.prints[-1][0] if history.on_panel is None else history.on_panel
        if name not in present and on_panel:
            changes.append(LabelChange(LabelWork.TAKE_OFF, name, _medium_of(name), on_panel, ""))
    return tuple(changes)


def replaced_entry(change: LabelChange) -> NewRecord:
    """What the log gets when a label was exchanged on the panel, or taken off it.

    Args:
        change: One of ``label_changes`` that asks for it.
    """
    return NewRecord(change.name, LabelReplaced(change.text, change.was))


def to_print_again(labels: Labels, medium: Medium, records: Iterable[Record]) -> tuple[Label, ...]:
    """The labels of a medium that say something else than what was printed, or are new since; none before a print.

    Args:
        labels: All labels of the panel.
        medium: What they are printed on.
        records: The log, oldest first.
    """
    return tuple(
        change.label
        for change in label_changes(labels, records)
        if change.work is LabelWork.PRINT and change.label is not None and change.label.medium is medium
    )


def changed_since(labels: Labels, medium: Medium, records: Iterable[Record], moment: str) -> tuple[Label, ...]:
    """The labels of a medium that say something else than what was out at a moment, printed since or not.

    Args:
        labels: All labels of the panel.
        medium: What they are printed on.
        records: The log, oldest first.
        moment: ISO 8601, as the records have it.
    """
    histories = _histories(records)

    def then(name: str) -> str:
        out = [text for text, when in (histories[name].prints if name in histories else []) if when <= moment]
        return out[-1] if out else ""

    return tuple(
        label for name, label in labels.by_name.items() if label.medium is medium and then(name) != label_text(label)
    )


def print_runs(records: Iterable[Record]) -> tuple[PrintRun, ...]:
    """What was printed in one go, the latest first.

    Args:
        records: The log, oldest first.
    """
    counts: dict[tuple[str, str, str], int] = {}
    for record in log_of(records).standing(LabelPrinted):
        run = (record.when, record.who, _medium_of(record.subject))
        counts[run] = counts.get(run, 0) + 1
    runs: Sequence[PrintRun] = [PrintRun(*run, count) for run, count in counts.items()]
    return tuple(reversed(runs))
