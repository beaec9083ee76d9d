"""The log that keeps what was read from it: going on from a shorter log comes to what reading all anew comes to."""

import pickle
import random
from collections.abc import Sequence

import pytest
from tests.core.schematic.builders import one_motor
from tests.effort import times

from riktig.core.evaluation import Evaluation
from riktig.core.job import DoorOrder, change_load
from riktig.core.keys import PinKey
from riktig.core.production import (
    TAKEN_OUT,
    WORK,
    BuildStage,
    gate_facts,
    gate_subject,
    loose_screws,
    progress_of,
    stage_states,
    task_states,
    tick_facts,
)
from riktig.core.proving import LIVE_PLAN, TESTS, Outcome, live_facts, live_results, reading_facts, results_of
from riktig.core.records import (
    Facts,
    FromLog,
    Log,
    NoteKept,
    Operation,
    Record,
    TakenBack,
    TaskDone,
    log_of,
    taken_back,
)
from riktig.core.schematic import with_names_recorded
from riktig.core.wiring import WIRING

JOB = with_names_recorded(one_motor())
LOAD = next(iter(JOB.loads))
OTHER = with_names_recorded(change_load(JOB, LOAD.id, run_lamp=not LOAD.run_lamp))
PANELS = (Evaluation(JOB), Evaluation(OTHER))
"""The panel as it is, and as it was before an edit: what was recorded of that one is partly out of date."""


def entry(number: int, subject: str, facts: Facts, corrects: str = "", who: str = "Ida") -> Record:
    return Record(f"r{number}", subject, facts, who, f"2026-12-02T08:{number % 60:02}:00+00:00", 1, corrects)


def some_log(rng: random.Random, count: int) -> list[Record]:
    """Entries of every kind that the bench and the tests make: most of the panel of now, some of the one before."""
    log: list[Record] = []
    gates = stage_states(PANELS[0].get(WORK), progress_of(PANELS[0].get(WIRING), ()), ())
    for number in range(count):
        panel = PANELS[rng.random() < 0.25]
        wire = rng.choice(panel.get(WIRING).wires)
        task = rng.choice(panel.get(WORK))
        kind = rng.random()
        corrects = ""
        subject: str
        facts: Facts
        if kind < 0.15 and log:
            taken = rng.choice(log)  # a correction too, now and then
            subject, facts, corrects = taken.subject, TakenBack("by mistake"), taken.id
        elif kind < 0.6:
            subject, facts = wire.key, tick_facts(wire, rng.choice(list(Operation)))
        elif kind < 0.65:
            subject, facts = f"change:1{TAKEN_OUT}{wire.key}", TaskDone("taken out", "as drawn")
        elif kind < 0.8:
            subject, facts = task.subject, task.facts
        elif kind < 0.9:
            test = rng.choice(panel.get(TESTS).tests)
            subject, facts = test.key, reading_facts(test, rng.choice(list(Outcome)), ohm=0.2, meter="M-34")
        elif kind < 0.96:
            step = rng.choice(panel.get(LIVE_PLAN))
            subject, facts = step.key, live_facts(step, rng.choice(list(Outcome)))
        else:
            gate = rng.choice([state for state in gates if state.shut])
            subject, facts = gate_subject(gate.stage), gate_facts(gate, "delivered late")
        log.append(entry(number, subject, facts, corrects, rng.choice(("Ida", "Ole"))))
    return log


def read(records: Sequence[Record], panel: Evaluation) -> tuple[object, ...]:  # type: ignore[type-arg]
    """Everything that is read from a log and gone on with."""
    progress = progress_of(panel.get(WIRING), records)
    return (
        progress.states,
        sorted(map(str, progress.stale)),
        loose_screws(records),
        task_states(panel.get(WORK), records),
        tuple(stage_states(panel.get(WORK), progress, records, order) for order in DoorOrder),
        results_of(panel.get(TESTS), records).readings,
        sorted(map(str, results_of(panel.get(TESTS), records).stale)),
        live_results(panel.get(LIVE_PLAN), records),
    )


@pytest.mark.parametrize("seed", range(times(6, 60)))
def test_going_on_comes_to_what_reading_all_anew_comes_to(seed: int) -> None:
    rng = random.Random(seed)
    whole = some_log(rng, rng.choice((4, 40, 150)))
    log, done = Log(), 0
    while done < len(whole):
        read(log, PANELS[0])
        more = rng.choice((1, 1, 1, 7, 40))
        log = log.with_records(whole[done : done + more])
        done += more
    assert log == tuple(whole)
    for panel in PANELS:
        assert read(log, panel) == read(tuple(whole), panel)


def test_what_is_out_of_date_stands_in_the_order_of_the_wires() -> None:
    wires = PANELS[1].get(WIRING).wires
    log = Log(entry(number, wire.key, tick_facts(wire, Operation.CUT)) for number, wire in enumerate(reversed(wires)))
    places = {wire.key: place for place, wire in enumerate(PANELS[0].get(WIRING).wires)}
    subjects = [tick.subject for tick in progress_of(PANELS[0].get(WIRING), log).stale]
    known = [places[key] for key in map(type(wires[0].key), subjects) if key in places]
    assert subjects and known == sorted(known)


def test_only_what_an_entry_is_about_is_read_again() -> None:
    wiring = PANELS[0].get(WIRING)
    log = Log([entry(1, wiring.wires[0].key, tick_facts(wiring.wires[0], Operation.CUT))])
    before = progress_of(wiring, log)
    after = progress_of(
        wiring, log.with_records([entry(2, wiring.wires[5].key, tick_facts(wiring.wires[5], Operation.CUT))])
    )
    changed = [row for row, (old, new) in enumerate(zip(before.states, after.states, strict=True)) if old is not new]
    assert changed == [5]


def test_a_screw_that_is_opened_again_is_read_again_with_all_that_it_holds() -> None:
    """The neighbour in the clamp loses its tightening, though no entry names it."""
    wiring = PANELS[0].get(WIRING)
    at: dict[object, list[int]] = {}
    for place, wire in enumerate(wiring.wires):
        for end in (wire.start, wire.end):
            at.setdefault(end.pin, []).append(place)
    first, second = next(places for places in at.values() if len(set(places)) == 2)
    done = [entry(n, wiring.wires[first].key, tick_facts(wiring.wires[first], op)) for n, op in enumerate(Operation)]
    log = Log(done)
    assert progress_of(wiring, log).states[first].complete
    other = wiring.wires[second]
    landings = [entry(20 + n, other.key, tick_facts(other, op)) for n, op in enumerate(Operation) if op.is_landing]
    assert not progress_of(wiring, log.with_records(landings)).states[first].has(Operation.TIGHTENED)


def test_supply_screws_go_back_when_their_clamp_is_opened_after_they_were_tightened_again() -> None:
    tasks, wiring = PANELS[0].get(WORK), PANELS[0].get(WIRING)
    task = next(task for task in tasks if task.stage is BuildStage.SUPPLY_AGAIN)
    pins = {key.pin for key in task.where if isinstance(key, PinKey)}
    wire = next(wire for wire in wiring.wires if wire.start.pin in pins or wire.end.pin in pins)
    landing = Operation.LANDED_START if wire.start.pin in pins else Operation.LANDED_END
    log = Log([entry(1, task.subject, task.facts)])
    place = tasks.index(task)
    assert task_states(tasks, log)[place].done
    log = log.with_records([entry(2, wire.key, tick_facts(wire, landing))])
    assert task_states(tasks, log)[place].stale == "its clamp was opened again since"


def test_what_is_read_beside_another_object_is_read_anew() -> None:
    calls: list[str] = []

    def anew(beside: list[int], log: Log) -> int:
        calls.append("anew")
        return len(log) + len(beside)

    def further(found: int, beside: list[int], log: Log, new: Sequence[Record]) -> int:
        calls.append("further")
        return found + len(new)

    reading = FromLog[list[int], int]("entries", anew, further)
    one, other = [1], [1]
    log = Log([entry(1, "a", NoteKept("note"))])
    assert log.get(reading, one) == log.get(reading, one) == 2
    assert calls == ["anew"], "the second time it is known"
    longer = log.with_records([entry(2, "a", NoteKept("more"))])
    assert longer.get(reading, one) == 3
    assert longer.get(reading, other) == 3, "equal is not the same"
    assert calls == ["anew", "further", "anew"]
    assert log.get(reading, one) == 2, "the shorter log is as it was"


def test_entries_stand_until_they_are_taken_back() -> None:
    note, more = entry(1, "a", NoteKept("note")), entry(2, "a", NoteKept("more"))
    log = Log([note, more])
    assert log.about("a") == log.standing(NoteKept) == (note, more)
    shorter = log.with_records([entry(3, "a", TakenBack("note"), corrects="r1")])
    assert shorter.about("a") == shorter.standing(NoteKept) == (more,)
    assert taken_back(shorter) == taken_back(tuple(shorter)) == {"r1"}
    assert log.about("a") == (note, more)
    assert shorter.meant(shorter[2]) is note
    assert (shorter.place("r3"), shorter.place("r9"), shorter.by_id("r9")) == (2, -1, None)


def test_a_correction_may_come_before_what_it_corrects() -> None:
    """Entries of another bench are handed in late."""
    log = Log([entry(3, "a", TakenBack("note"), corrects="r1")])
    assert log.about("a") == ()
    assert log.with_records([entry(1, "a", NoteKept("note"))]).standing(NoteKept) == ()


def test_a_log_goes_on_only_where_it_begins_the_other() -> None:
    note, more = entry(1, "a", NoteKept("note")), entry(2, "a", NoteKept("more"))
    log = Log([note])
    assert log.followed_by([note]) is log
    assert log.followed_by([note, more]) == (note, more)
    assert log.followed_by([more, note]).about("a") == (more, note)
    assert log_of(log) is log
    assert pickle.loads(pickle.dumps(log)) == log
