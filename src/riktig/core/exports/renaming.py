"""What naming everything anew would change: old and new, and the wires, labels, sheets and tests it touches."""

from dataclasses import dataclass

from riktig.core.evaluation import Evaluation
from riktig.core.exports.schedule_model import Schedule
from riktig.core.ids import WireId
from riktig.core.job import Job
from riktig.core.keys import DeviceKey, Key, NetKey, WireKey
from riktig.core.labels import LABELS, Medium
from riktig.core.proving import TESTS
from riktig.core.schematic import CIRCUITS, NAMES, NETS, SHEETS, Names, names_of, renumber, sheets_with, tag_anew
from riktig.core.wiring import WIRING

__all__ = ["SCHEDULES", "Renaming", "number_changes", "tag_changes"]


@dataclass(frozen=True, slots=True)
class Renaming:
    """One name that would change. ``labels`` counts the labels to print again, ``tests`` the tests to repeat.

    ``printed`` says that the old name stands on a label already.
    """

    key: Key
    old: str
    new: str
    wires: tuple[str, ...]
    labels: int
    sheets: tuple[int, ...]
    tests: int
    printed: bool


def number_changes(evaluation: Evaluation[Job]) -> tuple[Renaming, ...]:
    """The numbers that “Renumber” would change, in the order of the potentials."""
    now, then = evaluation.get(NAMES), _after(evaluation, renumber(evaluation.document))
    circuits, nets, sheets = evaluation.get(CIRCUITS), evaluation.get(NETS), evaluation.get(SHEETS)
    changed = [net for net in nets.nets if now.number.get(net.id) != then.number.get(net.id)]
    if not changed:
        return ()
    wires, labels, tests = evaluation.get(WIRING).wires, evaluation.get(LABELS), evaluation.get(TESTS).tests
    markers: dict[Key | None, int] = {}
    for label in labels.on(Medium.WIRE):
        markers[label.key] = markers.get(label.key, 0) + label.copies
    printed = set(evaluation.document.printed)
    renamings = []
    for net in changed:
        on_net = [wire for wire in wires if wire.net == net.id]
        keys = {wire.key for wire in on_net}
        renamings.append(
            Renaming(
                NetKey(net.id),
                now.number.get(net.id, ""),
                then.number.get(net.id, ""),
                tuple(wire.name for wire in on_net),
                sum(markers.get(WireKey(key), 0) for key in keys),
                sheets_with(sheets, circuits, nets, NetKey(net.id)),
                sum(test.wire in keys for test in tests if test.wire),
                now.number.get(net.id, "") in printed,
            )
        )
    return tuple(renamings)


def tag_changes(evaluation: Evaluation[Job]) -> tuple[Renaming, ...]:
    """The tags that “Renumber or retag” would change, in the order of the circuits; a strip counts once."""
    now, then = evaluation.get(NAMES), _after(evaluation, tag_anew(evaluation.document))
    circuits, nets, sheets = evaluation.get(CIRCUITS), evaluation.get(NETS), evaluation.get(SHEETS)
    changed = [device for device in circuits.devices if now.tag[device.id] != then.tag[device.id]]
    if not changed:
        return ()
    wires, labels, tests = evaluation.get(WIRING).wires, evaluation.get(LABELS), evaluation.get(TESTS).tests
    renamings: dict[str, Renaming] = {}
    for device in changed:
        old = now.tag[device.id]
        if device.strip and old in renamings:
            continue
        numbers = {
            net.id
            for pin in device.kind.pins
            if (net := nets.of_pin.get(device.pin(pin.name))) and now.number.get(net.id) != then.number.get(net.id)
        }  # a motor's conductors are numbered by its tag
        moved = [
            wire
            for wire in wires
            if wire.net in numbers or _is_label_of(old, wire.start.label) or _is_label_of(old, wire.end.label)
        ]
        renamed = {WireKey(wire.key) for wire in moved if wire.net in numbers}
        count = sum(
            label.copies
            for label in labels.labels
            if label.key in renamed or any(_says(old, line) for line in label.lines)
        )
        renamings[old] = Renaming(
            DeviceKey(device.id),
            old,
            then.tag[device.id],
            tuple(wire.name for wire in moved),
            count,
            sheets_with(sheets, circuits, nets, DeviceKey(device.id)),
            sum(
                (test.wire and WireKey(WireId(test.wire)) in renamed)
                or _is_label_of(old, test.black.label)
                or _is_label_of(old, test.red.label)
                for test in tests
            ),
            bool(evaluation.document.printed),
        )
    return tuple(renamings.values())


def _after(evaluation: Evaluation[Job], job: Job) -> Names:
    return names_of(job, evaluation.get(CIRCUITS), evaluation.get(NETS))


def _is_label_of(tag: str, label: str) -> bool:
    return label.partition(":")[0] == tag


def _says(tag: str, line: str) -> bool:
    """Whether a line of a label names a tag: alone, before a colon, or behind the W of a cable."""
    return any(word.partition(":")[0] in (tag, f"W{tag}") for word in line.replace(",", " ").split())


def _as_schedule(name: str, title: str, renamings: tuple[Renaming, ...]) -> Schedule:
    rows = tuple(
        (
            renaming.old,
            renaming.new,
            "; ".join(renaming.wires),
            renaming.labels,
            ", ".join(map(str, renaming.sheets)),
            renaming.tests,
            "yes" if renaming.printed else "no",
            str(renaming.key),
        )
        for renaming in renamings
    )
    columns = (
        ("old", "Old"),
        ("new", "New"),
        ("wires", "Wires"),
        ("labels", "Labels"),
        ("sheets", "Sheets"),
        ("tests", "Tests"),
        ("printed", "Printed"),
        ("key", "Key"),
    )
    return Schedule(name, title, columns, rows)


SCHEDULES = {
    "renumber": lambda plan: _as_schedule("renumber", "Numbers, old and new", number_changes(plan)),
    "retag": lambda plan: _as_schedule("retag", "Tags, old and new", tag_changes(plan)),
}
