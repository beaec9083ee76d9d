"""Ticks: what counts, what an edit takes away and why, and that nothing is ever deleted."""

from collections.abc import Iterable

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.core.schematic.builders import STOP, door_begun, one_motor
from tests.effort import times
from tests.shared_plan import plan_for

from riktig.core.job import (
    ControlTap,
    DeviceId,
    ElementId,
    Insertable,
    Job,
    add_load,
    change_load,
    set_heading,
    set_practice,
)
from riktig.core.plate import LAYOUT, move_block
from riktig.core.production import TAKEN_OUT, BuildProgress, Operation, progress_of, tick_facts
from riktig.core.records import Record, TakenBack, TaskDone
from riktig.core.schematic import insert_contact, remove_element, with_names_recorded
from riktig.core.wiring import WIRING, Wire


def ticks(wires: Iterable[Wire], operations: Iterable[Operation] = Operation) -> list[Record]:
    kept = list(operations)
    return [
        Record(f"{w.key}/{o.value}", w.key, tick_facts(w, o), "Ida", "2026-11-23T08:00:00", 1)
        for w in wires
        for o in kept
    ]


def progress(job: Job, records: list[Record]) -> BuildProgress:
    return progress_of(plan_for(job).get(WIRING), records)


def lost(before: Job, after: Job) -> dict[str, set[str]]:
    """Wire name of before to the operations that no longer count, all wires having been finished."""
    records = ticks(plan_for(before).get(WIRING).wires)
    names: dict[str, str] = {w.key: w.name for w in plan_for(before).get(WIRING).wires}
    found: dict[str, set[str]] = {}
    for stale in progress(after, records).stale:
        found.setdefault(names[stale.subject], set()).add(stale.what)
    return found


ALL = {operation.words for operation in Operation}


def test_a_wire_is_finished_when_everything_was_ticked() -> None:
    job = one_motor()
    wires = plan_for(job).get(WIRING).wires
    found = progress(job, ticks(wires[:3]))
    assert found.complete == 3
    assert found.count(Operation.CUT) == 3
    assert found.stale == ()
    state = found.of(wires[3].key)
    assert state is not None
    assert state.next is Operation.CUT


def test_who_ticks_no_stripping_has_stripped_what_has_landed() -> None:
    """Logs from before stripping was an operation of its own finish their wires as they did."""
    job = one_motor()
    wires = plan_for(job).get(WIRING).wires[:3]
    older = [operation for operation in Operation if operation is not Operation.STRIPPED]
    assert progress(job, ticks(wires, older)).complete == 3
    assert progress(job, ticks(wires, [Operation.CUT, Operation.MARKED])).count(Operation.STRIPPED) == 0
    assert progress(job, ticks(wires, [Operation.LANDED_END])).count(Operation.STRIPPED) == 3


def test_a_stripped_end_that_must_have_another_fitting_is_stripped_anew() -> None:
    from riktig.core.job import RunLamp

    before = one_motor()
    after = with_names_recorded(set_practice(before, run_lamp=RunLamp.COIL))
    then = {w.key: w for w in plan_for(before).get(WIRING).wires}
    now = {w.key: w for w in plan_for(after).get(WIRING).wires}

    def ends(wire: Wire) -> list[tuple[str, float]]:
        return sorted((end.fitting, end.strip) for end in (wire.start, wire.end))

    changed = {key for key in then.keys() & now.keys() if ends(then[key]) != ends(now[key])}
    assert changed
    result = progress(after, ticks(then.values(), [Operation.STRIPPED]))
    assert {stale.subject for stale in result.stale if stale.subject in now} == changed
    assert all("its ends are now" in stale.why for stale in result.stale if stale.subject in now)


def test_a_contact_put_in_takes_exactly_the_affected_wires() -> None:
    # By hand: net 9 was S2:3 to S1:2; now S1:2 goes to the new stop S3:1 (new number) and S3:2 to S2:3.
    # The wire S2:3 to S1:2 is gone. No other clamp changes its company.
    before = door_begun(one_motor())
    after = with_names_recorded(insert_contact(before, STOP, Insertable.STOP_BUTTON, "second stop"))
    assert lost(before, after) == {"9 S2:3 to S1:2": ALL}


def test_an_end_that_gets_company_in_its_clamp_is_landed_anew_and_nothing_else() -> None:
    # By hand: with the run lamp beside the coil, the auxiliary's wires go (7 F2:2-K1:43, 7 K1:43-F3:95, 11);
    # F3:95 gets another neighbour; the lamp hangs on net 10 at S2:4 or K1:A1.
    from riktig.core.job import RunLamp

    before = one_motor()
    after = with_names_recorded(set_practice(before, run_lamp=RunLamp.COIL))
    found = lost(before, after)
    gone = {name for name, what in found.items() if what == ALL}
    assert gone >= {"7 F2:2 to K1:43", "7 K1:43 to F3:95", "11 K1:44 to H1:X1"}
    partly = {name: what for name, what in found.items() if what != ALL}
    assert all(what <= {"first end terminated", "second end terminated", "tightened"} for what in partly.values())
    untouched = {"L1 X1:L1 to Q1:1", "M1-U F3:2 to X2:U", "8 F3:96 to S1:1", "PE PE:1 to X1:PE"}
    assert not untouched & set(found)


def test_a_larger_motor_takes_the_power_wires_and_leaves_the_control_wires() -> None:
    before = one_motor()
    after = with_names_recorded(change_load(before, before.loads[0].id, kw=7.5))
    found = lost(before, after)
    assert {n.split(" ")[0] for n, what in found.items() if what >= {"cut"}} >= {"4", "5", "6", "M1-U", "M1-V", "M1-W"}
    # The larger frame stands elsewhere on its rail by a few mm: a wire that became too short says so.
    control = {n for n in found if n.split(" ")[0] in ("8", "9", "11", "12")}
    assert all(found[n] <= {"cut", "tightened", "first end terminated", "second end terminated"} for n in control)


@pytest.mark.parametrize(
    "edit",
    [
        lambda job: set_heading(job, title="another title", revision="C"),
        lambda job: set_practice(job, spare_share=0.1),
        lambda job: job,
    ],
    ids=["heading", "spare room", "nothing"],
)
def test_an_edit_that_touches_no_wire_takes_no_tick(edit: object) -> None:
    before = one_motor()
    assert lost(before, with_names_recorded(edit(before))) == {}  # type: ignore[operator]


def test_another_motor_leaves_what_is_made_as_it_is_but_for_the_shared_clamps() -> None:
    before = door_begun(one_motor())
    found = lost(before, with_names_recorded(add_load(before, "rinse pump", 0.37)))
    own = {name: what for name, what in found.items() if name.startswith(("8 ", "9 ", "10 ", "11 ", "12 "))}
    # The starter stands elsewhere now: a wire over the hinge may have become too short, and nothing else is lost.
    assert all(what == {"cut"} for what in own.values())
    assert not {name for name in own if name.startswith(("9 ", "10 "))}


def test_a_part_moved_far_makes_its_short_wires_too_short_and_says_by_how_much() -> None:
    from riktig.core.job import Batching

    before = one_motor(batching=Batching.EXACT)
    after = move_block(before, plan_for(before).get(LAYOUT), DeviceId("c1.FC"), 1, 240.0)
    records = ticks(plan_for(before).get(WIRING).wires)
    stale = [s for s in progress(after, records).stale if s.what == "cut"]
    assert stale
    assert all("must now be" in s.why and "was cut to" in s.why for s in stale)
    assert {s.name.split(" ", 1)[1] for s in stale} <= {"F1:1 to F2:1", "F2:2 to K1:43"}


def test_undoing_the_edit_brings_the_ticks_back() -> None:
    job = one_motor()
    records = ticks(plan_for(job).get(WIRING).wires)
    edited = with_names_recorded(insert_contact(job, STOP, Insertable.STOP_BUTTON, "second stop"))
    assert progress(edited, records).complete < len(plan_for(job).get(WIRING).wires)
    assert progress(job, records).complete == len(plan_for(job).get(WIRING).wires)


def test_a_correction_takes_one_tick_back_and_both_stay_in_the_log() -> None:
    job = one_motor()
    wire = plan_for(job).get(WIRING).wires[0]
    (record,) = ticks([wire], [Operation.CUT])
    undone = Record("x", wire.key, TakenBack(), "Ida", "2026-11-23T09:00:00", 1, corrects=record.id)
    assert progress(job, [record]).count(Operation.CUT) == 1
    assert progress(job, [record, undone]).count(Operation.CUT) == 0
    assert progress(job, [record, undone]).stale == ()


def test_ticking_again_supersedes_what_was_out_of_date() -> None:
    before = one_motor()
    after = with_names_recorded(change_load(before, before.loads[0].id, kw=7.5))
    old = ticks([w for w in plan_for(before).get(WIRING).wires if w.number == "M1-U"])
    new = [
        Record("n" + str(n), r.subject, r.facts, "Ola", "2026-11-24T08:00:00", 2)
        for n, r in enumerate(ticks([w for w in plan_for(after).get(WIRING).wires if w.number == "M1-U"]))
    ]
    assert progress(after, old).stale
    again = progress(after, [*old, *new])
    assert again.stale == ()
    assert again.complete == 1


def test_a_number_that_changes_takes_the_marking_only() -> None:
    from riktig.core.schematic import renumber

    before = with_names_recorded(remove_element(one_motor(), ElementId("c1.H.run/X1-X2")))
    before = with_names_recorded(insert_contact(before, STOP, Insertable.STOP_BUTTON, "second"))
    after = renumber(before)
    assert set().union(*lost(before, after).values()) == {"marked"}


@settings(max_examples=times(12, 100), deadline=None)
@given(st.sampled_from(list(ControlTap)), st.sampled_from([0.75, 4.0, 11.0]), st.booleans(), st.booleans())
def test_what_is_not_stale_is_as_it_was_and_what_changed_is_stale(
    tap: ControlTap, kw: float, run: bool, trip: bool
) -> None:
    before = one_motor()
    load = before.loads[0].id
    after = with_names_recorded(
        change_load(set_practice(before, control_tap=tap), load, kw=kw, run_lamp=run, trip_lamp=trip)
    )
    old = {w.key: w for w in plan_for(before).get(WIRING).wires}
    new = {w.key: w for w in plan_for(after).get(WIRING).wires}
    stale = {s.subject for s in progress(after, ticks(old.values())).stale}
    assert set(old) - set(new) <= stale
    for key in set(old) & set(new):
        same = (old[key].mm2, old[key].colour, old[key].number) == (new[key].mm2, new[key].colour, new[key].number)
        if not same:
            assert key in stale


def test_a_clamp_that_is_opened_again_is_not_tight_until_it_is_tightened_again() -> None:
    """Two wires in one clamp have one screw: the second lands, and the first is loose until either is tightened."""
    wires = plan_for(one_motor()).get(WIRING).wires
    shared = next(
        (a, b, pin)
        for a in wires
        for b in wires
        if a.key < b.key
        for pin in {a.start.pin, a.end.pin} & {b.start.pin, b.end.pin}
    )
    first, second, pin = shared
    landing = Operation.LANDED_START if second.start.pin == pin else Operation.LANDED_END
    records = ticks([first])

    def is_tight() -> bool:
        state = progress(one_motor(), records).of(first.key)
        assert state is not None
        return state.has(Operation.TIGHTENED)

    assert is_tight()
    records += ticks([second], [landing])
    assert not is_tight()
    records += ticks([second], [Operation.TIGHTENED])
    assert is_tight()
    records.append(Record("back", second.key, TakenBack("landed"), "Ida", "t", 1, f"{second.key}/{landing.value}"))
    assert not is_tight(), "it was pulled out again"
    records += [Record("again", first.key, tick_facts(first, Operation.TIGHTENED), "Ida", "t", 1)]
    assert is_tight()
    out = TaskDone("Change order", "taken out", "taken out")
    records.append(Record("out", f"change:1{TAKEN_OUT}{second.key}", out, "Ida", "t", 1))
    assert not is_tight()
