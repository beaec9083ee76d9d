"""What an edit changed downstream: two derivations compared, list by list."""

from dataclasses import dataclass

from riktig.core.evaluation import Evaluation
from riktig.core.exports.lists import schedule
from riktig.core.exports.schedule_model import Schedule, Value
from riktig.core.job import Job
from riktig.core.keys import Key, ValueKey

__all__ = ["ListChange", "Snapshot", "snapshot", "what_changed"]

WATCHED = ("proposal", "nets", "wires", "terminals", "labels", "cuts", "holes", "bom", "tests", "findings")
KEYED = {
    "proposal": ("key",),
    "nets": ("id",),
    "wires": ("key",),
    "tests": ("key",),
    "terminals": ("strip", "position"),
    "cuts": ("piece",),
    "holes": ("hole", "face"),
    "bom": ("part", "description"),
}
NOUNS = {
    "nets": ("net", "nets"),
    "wires": ("wire", "wires"),
    "terminals": ("terminal", "terminals"),
    "labels": ("label", "labels"),
    "cuts": ("cut piece", "cut pieces"),
    "holes": ("hole", "holes"),
    "bom": ("line of the parts list", "lines of the parts list"),
    "tests": ("test", "tests"),
    "findings": ("finding", "findings"),
}


@dataclass(frozen=True, slots=True)
class ListChange:
    """One line of what changed, and where it leads (a selection key or "")."""

    text: str
    link: Key | None = None


Snapshot = dict[str, Schedule]


def snapshot(evaluation: Evaluation[Job]) -> Snapshot:
    """The watched lists of a plan as they are now."""
    return {name: schedule(name, evaluation) for name in WATCHED}


def what_changed(before: Snapshot, after: Snapshot) -> tuple[ListChange, ...]:
    """Values first, each with old and new; then how many rows of each list came, went or changed.

    Args:
        before: The lists before.
        after: The lists now.
    """
    list_changes = _values(before["proposal"], after["proposal"])
    for name in WATCHED[1:]:
        if before[name] is after[name]:
            continue
        new, gone, other = _counts(name, before[name], after[name])
        if new or gone or other:
            single, many = NOUNS[name]
            texts = [
                f"{count} {single if count == 1 else many} {word}"
                for count, word in ((new, "new"), (gone, "gone"), (other, "changed"))
                if count
            ]
            list_changes.append(ListChange(", ".join(texts)))
    return tuple(list_changes)


def _values(before: Schedule, after: Schedule) -> list[ListChange]:
    old, new = _by_key(before), _by_key(after)
    list_changes = []
    for key, row in new.items():
        name = row["what"] if row["of"] == "panel" else f"{row['of']}, {str(row['what']).lower()}"
        if key not in old:
            continue
        if row["value"] != old[key]["value"]:
            list_changes.append(ListChange(f"{name}: {old[key]['value']} → {row['value']}", ValueKey(key)))
        elif row["short"] != old[key]["short"]:
            list_changes.append(ListChange(f"{name}: {row['short'] or 'suffices now'}", ValueKey(key)))
    added = len(new.keys() - old.keys())
    gone = len(old.keys() - new.keys())
    if added or gone:
        texts = [f"{n} value{'' if n == 1 else 's'} {word}" for n, word in ((added, "new"), (gone, "gone")) if n]
        list_changes.append(ListChange(", ".join(texts)))
    return list_changes


def _by_key(table: Schedule) -> dict[str, dict[str, Value]]:
    names = [key for key, _ in table.columns]
    rows = [dict(zip(names, row, strict=True)) for row in table.rows]
    return {str(row["key"]): row for row in rows}


def _counts(name: str, before: Schedule, after: Schedule) -> tuple[int, int, int]:
    columns = [key for key, _ in after.columns]
    keyed = [columns.index(key) for key in KEYED.get(name, ()) if key in columns]
    if not keyed:
        old, new = list(before.rows), list(after.rows)
        was, now = set(old), set(new)
        came = [row for row in new if row not in was]
        went = [row for row in old if row not in now]
        both = min(len(came), len(went))
        return len(came) - both, len(went) - both, both
    old_rows = {tuple(row[i] for i in keyed): row for row in before.rows}
    new_rows = {tuple(row[i] for i in keyed): row for row in after.rows}
    other = sum(old_rows[key] != row for key, row in new_rows.items() if key in old_rows)
    return len(new_rows.keys() - old_rows.keys()), len(old_rows.keys() - new_rows.keys()), other
