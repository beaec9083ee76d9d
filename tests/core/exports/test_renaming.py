"""Old and new: what naming anew would change, and what it touches; nothing where all is as it would be."""

from tests.core.schematic.builders import one_motor
from tests.shared_plan import plan_for

from riktig.core.exports import number_changes, schedule, tag_changes
from riktig.core.job import Job, Letters, Numbering, add_load, remove_load, set_practice
from riktig.core.keys import NetKey
from riktig.core.labels import LABELS, Medium
from riktig.core.proving import TESTS
from riktig.core.schematic import NAMES, record_printed, renumber, tag_anew, with_names_recorded
from riktig.core.wiring import WIRING


def with_a_gap() -> Job:
    job = record_printed(with_names_recorded(add_load(one_motor(), "belt", 1.1)))
    return with_names_recorded(remove_load(job, job.loads[0].id))


def test_a_job_that_is_as_it_would_be_has_nothing_to_change() -> None:
    evaluation = plan_for(one_motor())
    assert number_changes(evaluation) == ()
    assert tag_changes(evaluation) == ()


def test_every_number_that_changes_is_listed_with_what_it_touches() -> None:
    job = with_a_gap()
    plan, after = plan_for(job), plan_for(renumber(job))
    changes = number_changes(plan)
    now, then = plan.get(NAMES).number, after.get(NAMES).number
    assert {str(c.key).removeprefix("net:"): (c.old, c.new) for c in changes} == {
        str(net): (now[net], then[net]) for net in now if now[net] != then[net]
    }
    assert changes
    for change in changes:
        mine = [w for w in plan.get(WIRING).wires if NetKey(w.net) == change.key]
        assert len(change.wires) == len(mine)
        assert change.labels == 2 * len(mine), "a marker at each end"
        keys = [test.wire for test in plan.get(TESTS).tests]
        assert change.tests == sum(keys.count(str(wire.key)) for wire in mine) >= len(mine), "each wire is tested"
        assert change.printed
    touched = {label.lines for label in plan.get(LABELS).on(Medium.WIRE)} - {
        label.lines for label in after.get(LABELS).on(Medium.WIRE)
    }
    assert touched <= {(change.old,) for change in changes}


def test_every_tag_that_changes_is_listed_with_every_label_that_says_it() -> None:
    job = with_names_recorded(set_practice(record_printed(one_motor()), letters=Letters.IEC))
    evaluation = plan_for(job)
    changes = {c.old: c for c in tag_changes(evaluation)}
    assert changes["K1"].new == "QA2"
    assert changes["M1"].new == "MA1"
    again = plan_for(tag_anew(job)).get(LABELS)
    before = [label.lines for label in evaluation.get(LABELS).labels if label.medium in (Medium.DEVICE, Medium.CABLE)]
    after = [label.lines for label in again.labels if label.medium in (Medium.DEVICE, Medium.CABLE)]
    assert len(before) == len(after)
    said = {name for old, change in changes.items() if change.labels for name in (old, f"W{old}")}
    lost = {lines[0] for lines, new in zip(before, after, strict=True) if lines[0] != new[0]}
    assert lost
    assert lost <= said
    wires = [label.lines for label in evaluation.get(LABELS).on(Medium.WIRE)]
    renamed = [label.lines for label in again.on(Medium.WIRE)]
    lost_markers = sum(a != b for a, b in zip(wires, renamed, strict=True))
    cable_tags = sum(label.copies for label in evaluation.get(LABELS).on(Medium.CABLE) if label.lines[0] == "WM1")
    assert changes["M1"].labels == lost_markers + cable_tags, "the motor's conductors carry its tag"
    assert changes["K1"].sheets
    assert changes["K1"].wires


def test_the_lists_are_printed_by_the_command_line_too() -> None:
    evaluation = plan_for(with_names_recorded(set_practice(with_a_gap(), numbering=Numbering.BY_SHEET)))
    rows = schedule("renumber", evaluation).rows
    assert {row[1] for row in rows} <= {one.number for one in renumber(evaluation.document).numbers}
    assert "K2" in {row[0] for row in schedule("retag", evaluation).rows}
