"""A change as work on wires: what is touched is what the exported lists differ in, no more and no less."""

from collections.abc import Callable

import pytest
from tests.core.schematic.builders import door_begun, one_motor
from tests.effort import share
from tests.shared_plan import plan_for

from riktig.core.exports import schedule
from riktig.core.job import (
    Colours,
    ControlTap,
    ElementId,
    Insertable,
    Job,
    LoadId,
    Rulebook,
    add_load,
    change_load,
    remove_load,
    set_practice,
)
from riktig.core.plate import LAYOUT, move_block
from riktig.core.production import Operation, WireChange, made_wires, tick_facts, wire_work
from riktig.core.records import Record, TakenBack
from riktig.core.schematic import insert_contact, with_names_recorded
from riktig.core.wiring import WIRING
from riktig.demo_job import frost_fan, kelp_shed

Row = dict[str, object]


def rows(job: Job) -> dict[str, Row]:
    """The exported wire list by the key of the wire."""
    return {str(row["key"]): dict(row) for row in schedule("wires", plan_for(job)).as_dicts()}


def touched(before: Job, after: Job) -> set[str]:
    """The keys of all wires that somebody has to lay a hand on, from the two exported lists alone.

    A wire that goes or comes; one whose number, conductor or ends are other; one that must be longer than it was cut.
    """
    old, new = rows(before), rows(after)
    keys = set(old) ^ set(new)
    for key in set(old) & set(new):
        a, b = old[key], new[key]
        ends_before = {(a["from"], a["from_end"]), (a["to"], a["to_end"])}
        ends_after = {(b["from"], b["from_end"]), (b["to"], b["to_end"])}
        longer = float(str(b["length_mm"])) > float(str(a["cut_mm"])) + 10
        other = any(a[column] != b[column] for column in ("number", "mm2", "colour"))
        if other or longer or ends_before != ends_after:
            keys.add(key)
    return keys


def move_last(job: Job) -> Job:
    layout = plan_for(job).get(LAYOUT)
    stand = [stand for stand in layout.stands if stand.rail][-2]
    return move_block(job, layout, stand.block.lead, 1, 300.0)


STOP = ElementId("c2.S.stop/1-2")
CHANGES: dict[str, Callable[[Job], Job]] = {
    "a run lamp more": lambda job: change_load(job, LoadId("m5"), run_lamp=True, trip_lamp=True),
    "no lamps at one load": lambda job: change_load(job, LoadId("m2"), run_lamp=False, trip_lamp=False),
    "a second stop": lambda job: insert_contact(job, STOP, Insertable.STOP_BUTTON, "at the gate"),
    "a bigger motor": lambda job: change_load(job, LoadId("m2"), kw=11.0),
    "a smaller motor": lambda job: change_load(job, LoadId("m2"), kw=0.75),
    "one load more": lambda job: add_load(job, "scraper", 0.75, run_lamp=True),
    "one load less": lambda job: remove_load(job, LoadId("m3")),
    "other colours": lambda job: set_practice(job, colours=next(c for c in Colours if c is not job.practice.colours)),
    "control from elsewhere": lambda job: set_practice(job, control_tap=ControlTap.AFTER),
    "a part elsewhere": move_last,
    "wider ducts": lambda job: set_practice(job, duct_width=80.0),
    "nothing": lambda job: job,
}


@pytest.mark.parametrize("name", share(CHANGES, 0))
def test_the_wires_touched_are_those_the_lists_differ_in(name: str) -> None:
    before = with_names_recorded(kelp_shed())
    after = with_names_recorded(CHANGES[name](before))
    works = wire_work(plan_for(before).get(WIRING), plan_for(after).get(WIRING))
    again = {str(key) for work in works if work.change is WireChange.RETIGHTEN for key in work.keys}
    wires = {str(key) for work in works for key in work.keys} - again
    assert wires == touched(before, after)
    for work in works:
        assert (work.before is None) == (work.change is WireChange.IN)
        assert (work.after is None) == (work.change is WireChange.OUT)
    # What stays shares a clamp with what goes or comes: its screw is opened.
    old, new = rows(before), rows(after)
    clamps = {str(row[end]) for key in wires for row in (old.get(key), new.get(key)) if row for end in ("from", "to")}
    sharing = {key for key in set(old) & set(new) - wires if {str(new[key]["from"]), str(new[key]["to"])} & clamps}
    assert again <= sharing
    goes_or_comes = {
        str(end.pin)
        for work in works
        if work.change in (WireChange.OUT, WireChange.IN)
        for end in (work.wire.start, work.wire.end)
    }
    assert {key for key in sharing if set(key.split("~")) & goes_or_comes} <= again


def test_another_rulebook_touches_every_wire_whose_conductor_is_another() -> None:
    before = with_names_recorded(frost_fan())
    after = set_practice(before, rulebook=Rulebook.IEC)
    works = wire_work(plan_for(before).get(WIRING), plan_for(after).get(WIRING))
    assert {str(key) for work in works for key in work.keys} >= touched(before, after)


def test_the_end_of_a_wire_is_moved_rather_than_a_new_one_made() -> None:
    """A lamp taken out of a chain: the wire that went on from it keeps one end, its number and its conductor."""
    before = door_begun(with_names_recorded(kelp_shed()))
    after = insert_contact(before, STOP, Insertable.STOP_BUTTON, "at the gate")
    works = wire_work(plan_for(before).get(WIRING), plan_for(after).get(WIRING))
    moves = [work for work in works if work.change is WireChange.MOVE]
    for work in moves:
        assert work.before is not None
        assert work.after is not None
        assert (work.before.number, work.before.mm2, work.before.colour) == (
            work.after.number,
            work.after.mm2,
            work.after.colour,
        )
        before_pins = {work.before.start.pin, work.before.end.pin}
        assert len(before_pins & {work.after.start.pin, work.after.end.pin}) == 1
        assert work.after.length <= work.before.cut + 10
    assert moves


def test_what_was_begun_and_not_taken_back_was_made() -> None:
    wires = plan_for(one_motor()).get(WIRING).wires
    records = [Record(f"r{n}", w.key, tick_facts(w, Operation.CUT), "Ida", "t", 1) for n, w in enumerate(wires[:3])]
    back = Record("b", wires[0].key, TakenBack("cut"), "Ida", "t", 1, "r0")
    assert made_wires([*records, back]) == {wires[1].key, wires[2].key}
