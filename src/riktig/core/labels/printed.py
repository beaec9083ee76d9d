"""What has been printed, and what must be printed again since."""

from collections import Counter
from collections.abc import Iterable

from riktig.core.keys import Key
from riktig.core.labels.make import Label, Labels, Medium
from riktig.core.records import LabelPrinted, NewRecord, Record, Slot, counted, slot_of

__all__ = ["print_entries", "to_print_again"]


def _subjects(labels: Iterable[Label]) -> list[tuple[str, Label]]:
    """A stable key a label: what it goes on, and which of those on one thing it is."""
    seen: Counter[tuple[Medium, Key | None]] = Counter()
    printed = []
    for label in labels:
        place = (label.medium, label.key)
        printed.append((f"{label.medium.name.lower()}/{label.key}/{seen[place]}", label))
        seen[place] += 1
    return printed


def _text(label: Label) -> str:
    return " / ".join((*label.lines, f"[{label.code}]")) if label.code else " / ".join(label.lines)


def print_entries(labels: Labels, medium: Medium, only: Iterable[Label] | None = None) -> list[NewRecord]:
    """What the log gets when labels of a medium are printed: one entry a label.

    Args:
        labels: All labels of the panel.
        medium: What they are printed on.
        only: Those that were printed, where not all were.
    """
    chosen = None if only is None else {id(label) for label in only}
    return [
        NewRecord(subject, LabelPrinted(_text(label)))
        for subject, label in _subjects(labels.on(medium))
        if chosen is None or id(label) in chosen
    ]


def to_print_again(labels: Labels, medium: Medium, records: Iterable[Record]) -> tuple[Label, ...]:
    """The labels of a medium that say something else than what was printed, or are new since; none before a print.

    Args:
        labels: All labels of the panel.
        medium: What they are printed on.
        records: The log, oldest first.
    """
    subjects = _subjects(labels.on(medium))
    present: dict[Slot, LabelPrinted] = {}
    for subject, label in subjects:
        facts = LabelPrinted(_text(label))
        present[slot_of(subject, facts)] = facts
    last = {item.record.subject: item for item in counted(records, LabelPrinted, present)}
    if not any(subject.startswith(f"{medium.name.lower()}/") for subject in last):
        return ()
    return tuple(label for subject, label in subjects if subject not in last or not last[subject].counts)
