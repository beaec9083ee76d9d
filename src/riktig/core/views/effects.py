"""What an edit changed downstream: two derivations compared, list by list, each line with its station and its link."""

from collections import Counter
from collections.abc import Callable, Mapping
from dataclasses import dataclass

from riktig.core.evaluation import Evaluation
from riktig.core.exports.lists import schedule
from riktig.core.exports.schedule_model import Schedule, Value
from riktig.core.job import Job
from riktig.core.keys import DeviceKey, HoleKey, Key, NetKey, ValueKey, WireKey, read_key
from riktig.core.plate import LAYOUT
from riktig.core.schematic import CIRCUITS, NAMES

__all__ = ["ADDED", "CHANGED", "REMOVED", "Effect", "Snapshot", "change_order", "effects", "snapshot", "summary"]

ADDED, CHANGED, REMOVED = "added", "changed", "removed"
_Row = Mapping[str, Value]
MOST_COLUMNS = 3
"""So many changes of one row are written out; the others are counted."""


@dataclass(frozen=True, slots=True)
class Effect:
    """One thing that was added, removed or changed: its station, what sort of thing it is, its name, and where it is.

    ``was`` and ``now`` say what is different of it; empty where it came or went.
    """

    station: str
    noun: str
    how: str
    name: str
    was: str = ""
    now: str = ""
    link: Key | None = None

    @property
    def text(self) -> str:
        """“wire 36 F9:2 to K6:1: size 1.5 mm² → 2.5 mm²”."""
        if self.how != CHANGED:
            return f"{self.noun} {self.name} {self.how}"
        return f"{self.noun} {self.name}: {self.was} → {self.now}"


@dataclass(frozen=True, slots=True)
class _Watched:
    """How the rows of one list are told apart, named and linked."""

    station: str
    noun: str
    many: str
    key: tuple[str, ...]
    """The columns that make a row what it is; none where a row is only the same as an equal one."""
    name: Callable[[_Row], str]
    link: Callable[[_Row], Key | None]
    ignored: frozenset[str] = frozenset()
    """Columns that follow from the place of the row in its list."""


def _columns(*names: str) -> Callable[[_Row], str]:
    return lambda row: " ".join(str(row[name]) for name in names if row.get(name) not in (None, ""))


def _keyed(row: _Row) -> Key | None:
    return read_key(str(row["key"])) if row.get("key") else None


def _of_value(row: _Row) -> str:
    return str(row["what"]) if row["of"] == "panel" else f"{row['of']}, {str(row['what']).lower()}"


_REASONS = frozenset({"amount", "unit", "proposed", "own_reason", "reason", "formula", "source", "confidence"})
_WATCHED: dict[str, _Watched] = {
    "proposal": _Watched("Brief", "value", "values", ("key",), _of_value, lambda r: ValueKey(str(r["key"])), _REASONS),
    "nets": _Watched(
        "Circuits", "net", "nets", ("id",), _columns("number", "class"), lambda r: _net(str(r["id"])),
        frozenset({"pins"}),
    ),
    "seats": _Watched("Plate", "device", "devices", ("key",), _columns("tag"), _keyed),
    "cuts": _Watched("Plate", "cut piece", "cut pieces", ("piece",), _columns("piece"), lambda _: None),
    "holes": _Watched(
        "Plate", "hole", "holes", ("hole", "face"), _columns("hole", "for"), lambda r: HoleKey(str(r["hole"]))
    ),
    "operators": _Watched(
        "Door", "operator", "operators", ("key",), _columns("tag", "legend"), _keyed,
        frozenset({"places", "depth", "wiring_room"}),
    ),
    "wires": _Watched(
        "Wires", "wire", "wires", ("key",), lambda r: f"{r['number']} {r['from']} to {r['to']}",
        lambda r: _wire(str(r["key"])),
        frozenset({"order", "batch", "stage", "mm2", "cut_mm"}),
    ),
    "terminals": _Watched(
        "Terminals", "terminal", "terminals", ("strip", "mark"), _columns("strip", "mark"), lambda _: None,
        frozenset({"position"}),
    ),
    "labels": _Watched("Labels", "label", "labels", (), _columns("text"), lambda _: None),
    "findings": _Watched("Rules", "finding", "findings", (), _columns("code", "message"), lambda r: _key_of_row(r)),
    "tests": _Watched("Prove", "test", "tests", ("key",), _columns("title"), lambda _: None, frozenset({"order"})),
    "bom": _Watched(
        "Hand over", "line of the parts list", "lines of the parts list", ("part", "description"),
        _columns("part"), lambda _: None, frozenset({"tags"}),
    ),
}  # fmt: skip

Snapshot = dict[str, Schedule]


def _net(text: str) -> Key | None:
    key = read_key(f"net:{text}")
    return key if isinstance(key, NetKey) else None


def _wire(text: str) -> Key | None:
    key = read_key(f"wire:{text}")
    return key if isinstance(key, WireKey) else None


def _key_of_row(row: _Row) -> Key | None:
    return read_key(str(row["where"])) if row.get("where") else None


def snapshot(evaluation: Evaluation[Job]) -> Snapshot:
    """The watched lists of a job as they are now."""
    return {name: _seats(evaluation) if name == "seats" else schedule(name, evaluation) for name in _WATCHED}


def _seats(evaluation: Evaluation[Job]) -> Schedule:
    """Where each device stands on the plate, mm."""
    tags, known = evaluation.get(NAMES).tag, evaluation.get(CIRCUITS).by_id
    rows = tuple(
        (str(DeviceKey(seat.device)), tags[seat.device], round(seat.rect.x, 1), round(seat.rect.y, 1))
        for seat in evaluation.get(LAYOUT).seats
        if seat.device in known and not known[seat.device].strip
    )
    return Schedule(
        "seats", "Devices on the plate", (("key", "Key"), ("tag", "Tag"), ("x", "x mm"), ("y", "y mm")), rows
    )


def effects(before: Snapshot, after: Snapshot) -> tuple[Effect, ...]:
    """Everything that is different, station by station in the order of work; removed things have no link.

    Args:
        before: The lists before.
        after: The lists now.
    """
    differences: list[Effect] = []
    for name, watched in _WATCHED.items():
        if before[name] is not after[name]:
            differences += (_with_key if watched.key else _without_key)(watched, before[name], after[name])
    return tuple(differences)


def _with_key(watched: _Watched, before: Schedule, after: Schedule) -> list[Effect]:
    headings = dict(after.columns)
    old, new = _by_key(watched, before), _by_key(watched, after)
    differences = [
        Effect(watched.station, watched.noun, ADDED, watched.name(row), link=watched.link(row))
        for key, row in new.items()
        if key not in old
    ]
    for key, row in new.items():
        different = [c for c in row if c not in watched.ignored and key in old and old[key].get(c) != row[c]]
        if different:
            was, now = (_change_words(side, different, headings) for side in (old[key], row))
            differences.append(
                Effect(watched.station, watched.noun, CHANGED, watched.name(row), was, now, watched.link(row))
            )
    differences += [
        Effect(watched.station, watched.noun, REMOVED, watched.name(row)) for key, row in old.items() if key not in new
    ]
    return differences


def _change_words(row: _Row, columns: list[str], headings: Mapping[str, str]) -> str:
    words = [str(row[c]) if row[c] not in (None, "") else "none" for c in columns[:MOST_COLUMNS]]
    if columns == ["value"]:
        return words[0]
    named = ", ".join(f"{headings[c].lower()} {word}" for c, word in zip(columns, words, strict=False))
    return f"{named} …" if len(columns) > MOST_COLUMNS else named


def _by_key(watched: _Watched, table: Schedule) -> dict[tuple[Value, ...], _Row]:
    return {tuple(row[column] for column in watched.key): row for row in table.as_dicts()}


def _without_key(watched: _Watched, before: Schedule, after: Schedule) -> list[Effect]:
    """Rows that only came or went: nothing of them is the same thing before and after."""
    came, went = Counter(after.rows) - Counter(before.rows), Counter(before.rows) - Counter(after.rows)
    keys = [key for key, _ in after.columns]
    differences = []
    for rows, how in ((came, ADDED), (went, REMOVED)):
        for cells in rows:
            row = dict(zip(keys, cells, strict=True))
            link = watched.link(row) if how is ADDED else None
            differences.append(Effect(watched.station, watched.noun, how, watched.name(row), link=link))
    return differences


def summary(differences: tuple[Effect, ...]) -> tuple[tuple[str, str], ...]:
    """Per station how many things were added, changed and removed: “Wires”, “3 wires changed, 1 added”.

    Args:
        differences: What is different.
    """
    counts: dict[str, dict[str, Counter[str]]] = {}
    for effect in differences:
        counts.setdefault(effect.station, {}).setdefault(effect.noun, Counter())[effect.how] += 1
    return tuple(
        (station, "; ".join(_counted(noun, hows) for noun, hows in nouns.items())) for station, nouns in counts.items()
    )


def _counted(noun: str, hows: Counter[str]) -> str:
    """“3 wires changed, 1 added”."""
    many = next(watched.many for watched in _WATCHED.values() if watched.noun == noun)
    (how, count), *others = hows.items()
    first = f"{count} {noun if count == 1 else many} {how}"
    return ", ".join([first, *(f"{more} {word}" for word, more in others)])


def change_order(differences: tuple[Effect, ...], name: str) -> Schedule:
    """The same as a list to print: the start of a change order, with room to say that each was done.

    Args:
        differences: What is different.
        name: The edit that brought it.
    """
    columns = (
        ("station", "Station"),
        ("what", "What"),
        ("thing", "Thing"),
        ("how", "How"),
        ("was", "Was"),
        ("now", "Now"),
        ("done", "Done by, date"),
    )
    rows = tuple((e.station, e.noun, e.name, e.how, e.was, e.now, "") for e in differences)
    return Schedule("change order", f"Change order: {name}", columns, rows)
