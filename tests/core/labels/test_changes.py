"""Printing is remembered: what to print again, what to exchange on the panel, what to take off, until it is ticked."""

from collections import Counter
from collections.abc import Iterable

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.shared_plan import plan_for

from riktig.core.job import Job, MarkedWires, MarkerText, change_load, remove_load, set_practice
from riktig.core.keys import DeviceKey, PieceKey, PinKey, WireKey
from riktig.core.labels import (
    LABELS,
    LabelChange,
    Labels,
    LabelWork,
    Medium,
    changed_since,
    label_changes,
    label_text,
    print_entries,
    print_runs,
    replaced_entry,
)
from riktig.core.plate import CUTS
from riktig.core.records import NewRecord, Record
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import CIRCUITS, Zone, with_names_recorded
from riktig.core.terminals import STRIPS
from riktig.core.wiring import WIRING
from riktig.demo_job import frost_fan, kelp_shed, wash_drum


class Log:
    """The log of a job, written as the window does."""

    def __init__(self) -> None:
        self.records: list[Record] = []

    def add(self, entries: Iterable[NewRecord], when: str = "2026-12-01T10:00:00+00:00", who: str = "Ida") -> None:
        for entry in entries:
            number = len(self.records)
            self.records.append(Record(f"r{number}", entry.subject, entry.facts, who, when, 1, entry.corrects))


def labels_of(job: Job) -> Labels:
    return plan_for(with_names_recorded(job)).get(LABELS)


def works(changes: Iterable[LabelChange]) -> Counter[LabelWork]:
    return Counter(change.work for change in changes)


def test_nothing_changes_before_a_print_and_after_one_of_what_is_there() -> None:
    labels, log = labels_of(wash_drum()), Log()
    assert label_changes(labels, log.records) == ()
    for medium in Medium:
        log.add(print_entries(labels, medium))
    assert label_changes(labels, log.records) == ()


def test_a_changed_label_is_printed_then_exchanged_then_done() -> None:
    log = Log()
    log.add(print_entries(labels_of(wash_drum()), Medium.LEGEND))
    after = labels_of(change_load(wash_drum(), wash_drum().loads[0].id, name="rinse drum"))
    changes = label_changes(after, log.records)
    assert works(changes) == {LabelWork.PRINT: 4}, "stop, start, runs, tripped"
    assert {change.was for change in changes} == {f"WASH DRUM / {w}" for w in ("STOP", "START", "RUNS", "TRIPPED")}
    log.add(print_entries(after, Medium.LEGEND, [change.label for change in changes if change.label]))
    to_exchange = label_changes(after, log.records)
    assert works(to_exchange) == {LabelWork.PUT_ON: 4}
    assert to_exchange[0].was.startswith("WASH DRUM")
    for count, change in enumerate(to_exchange, 1):
        log.add([replaced_entry(change)])
        assert len(label_changes(after, log.records)) == 4 - count
    back = labels_of(wash_drum())
    assert works(label_changes(back, log.records)) == {LabelWork.PRINT: 4}, "and back again: printed once more"


def test_a_label_of_what_is_gone_is_taken_off() -> None:
    job, log = kelp_shed(), Log()
    log.add(print_entries(labels_of(job), Medium.LEGEND))
    fewer = labels_of(remove_load(job, job.loads[1].id))
    gone = [change for change in label_changes(fewer, log.records) if change.work is LabelWork.TAKE_OFF]
    assert {change.was for change in gone} == {f"WASH DRUM / {w}" for w in ("STOP", "START", "RUNS", "TRIPPED")}
    log.add([replaced_entry(change) for change in gone])
    assert LabelWork.TAKE_OFF not in works(label_changes(fewer, log.records))


def test_a_print_that_was_taken_back_does_not_count() -> None:
    from riktig.core.records import TakenBack

    labels, log = labels_of(wash_drum()), Log()
    log.add(print_entries(labels, Medium.CABLE))
    first = log.records[0]
    log.add([NewRecord(first.subject, TakenBack("it jammed"), first.id)])
    assert works(label_changes(labels, log.records)) == {LabelWork.PRINT: 1}


def test_what_changed_since_a_moment_counts_what_was_printed_since_too() -> None:
    first, log = labels_of(wash_drum()), Log()
    log.add(print_entries(first, Medium.LEGEND), "2026-12-01T08:00:00+00:00")
    second = labels_of(change_load(wash_drum(), wash_drum().loads[0].id, name="rinse drum"))
    log.add(print_entries(second, Medium.LEGEND), "2026-12-02T08:00:00+00:00", "Ole")
    assert changed_since(second, Medium.LEGEND, log.records, "2026-12-03T00:00:00+00:00") == ()
    assert len(changed_since(second, Medium.LEGEND, log.records, "2026-12-01T12:00:00+00:00")) == 4
    assert len(changed_since(second, Medium.LEGEND, log.records, "2026-11-30T12:00:00+00:00")) == 5, "all of them"
    runs = [(run.who, run.medium, run.count) for run in print_runs(log.records)]
    assert runs == [("Ole", "door legends", 5), ("Ida", "door legends", 5)]


EDITS = [
    lambda job: change_load(job, job.loads[0].id, name="other name"),
    lambda job: change_load(job, job.loads[0].id, kw=3.0),
    lambda job: set_practice(job, marker=MarkerText.NUMBER_AND_FAR_END),
    lambda job: set_practice(job, spare_terminals=0.5),
    lambda job: remove_load(job, job.loads[-1].id),
    lambda job: set_practice(job, label_language="tr"),
]


@settings(max_examples=12, deadline=None)
@given(st.permutations(range(len(EDITS))), st.integers(1, 3))
def test_after_any_edits_exactly_the_labels_that_differ_are_listed(order: list[int], count: int) -> None:
    """Print all, edit anything: listed are the texts that are new at their thing, and those that are gone from it."""
    job, log = with_names_recorded(wash_drum()), Log()
    before = labels_of(job)
    for medium in Medium:
        log.add(print_entries(before, medium))
    for number in order[:count]:
        if job.loads:
            job = with_names_recorded(EDITS[number](job))
    after = labels_of(job)
    changes = label_changes(after, log.records)
    old = Counter((x.medium, str(x.key), label_text(x)) for x in before.labels)
    new = Counter((x.medium, str(x.key), label_text(x)) for x in after.labels)
    to_print = Counter((c.label.medium, str(c.label.key), c.text) for c in changes if c.label)
    assert sum(to_print.values()) >= sum((new - old).values())
    assert not (new - old) - to_print, "every label that is new is printed"
    assert all(change.was != change.text for change in changes)


@pytest.mark.parametrize("demo", [wash_drum, kelp_shed, frost_fan], ids=["drum", "shed", "fan"])
def test_every_thing_is_labelled_as_often_as_it_must_be(demo: object) -> None:
    """Each conductor at both ends, each device, terminal, cable, core and piece once in each place it belongs."""
    evaluation = plan_for(demo())  # type: ignore[operator]
    labels = evaluation.get(LABELS)
    strips = evaluation.get(STRIPS)
    markers = Counter(label.key for label in labels.on(Medium.WIRE))
    assert markers == {WireKey(wire.key): 2 for wire in evaluation.get(WIRING).wires}
    cores = Counter[str]()
    for label in labels.on(Medium.CORE):
        cores[label.place] += label.copies
    assert cores == {cable.tag: 2 * cable.sold for cable in strips.cables if cable.cores}
    tags = Counter({label.lines[0]: label.copies for label in labels.on(Medium.CABLE)})
    assert tags == {cable.tag: 2 for cable in strips.cables}
    pieces = Counter(label.key for label in labels.on(Medium.PIECE))
    assert pieces == {PieceKey(piece.name): 1 for piece in evaluation.get(CUTS)}
    devices = {d.id: d for d in evaluation.get(CIRCUITS).devices}
    named = Counter(
        label.key.device for label in labels.on(Medium.DEVICE)
        if isinstance(label.key, DeviceKey) and not devices[label.key.device].strip and "free: " not in label.lines[1]
    )  # fmt: skip
    on_plate = {d.id for d in devices.values() if d.zone is Zone.PLATE and not d.strip}
    assert {device for device in named if devices[device].zone is Zone.PLATE} == on_plate
    assert set(named.values()) == {1}
    marked = Counter(label.key.device for label in labels.on(Medium.TERMINAL) if isinstance(label.key, DeviceKey))
    assert marked == {row.device: 1 for strip in strips.strips for row in strip.rows}


def test_stickers_stand_beside_each_clamp_once_and_a_person_decides_about_them() -> None:
    """Common practice, no source: a number beside the clamp; several wires in one clamp share it."""
    evaluation = plan_for(set_practice(wash_drum(), marked=MarkedWires.STICKERS))
    wires = evaluation.get(WIRING).wires
    clamps = {end.pin for wire in wires for end in (wire.start, wire.end)}
    stickers = evaluation.get(LABELS).on(Medium.WIRE)
    assert Counter(label.key for label in stickers) == {PinKey(pin): 1 for pin in clamps}
    result = next(result for result in evaluation.get(RULES) if result.code == "M02")
    assert result.verdict is Verdict.JUDGE
    assert "beside their clamps" in result.findings[0].message
