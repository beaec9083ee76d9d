"""After an edit only those clauses are judged again that read something new; the verdicts are those from scratch."""

from collections.abc import Callable

import pytest
from tests.shared_plan import plan_for

from riktig.core.evaluation import Evaluation
from riktig.core.job import (
    DeviceId,
    ElementId,
    Job,
    Practice,
    change_load,
    set_enclosure,
    set_heading,
    set_practice,
    set_supply,
)
from riktig.core.plate import LAYOUT, move_block
from riktig.core.rules import RULES, VIEW, View
from riktig.core.rules.watched_view import WatchedView, value_read
from riktig.core.schematic import remove_element, with_names_recorded
from riktig.demo_job import kelp_shed


def moved(job: Job) -> Job:
    return move_block(job, Evaluation(job).get(LAYOUT), DeviceId("c2.F"), 2, 260.0)


EDITS: dict[str, Callable[[Job], Job]] = {
    "the client": lambda job: set_heading(job, client="another"),
    "the height of the box": lambda job: set_enclosure(job, above_floor=500.0),
    "a hotter room": lambda job: set_enclosure(job, room_c=39.0),
    "the supply": lambda job: set_supply(job, upstream_a=100.0),
    "a cable": lambda job: change_load(job, job.loads[1].id, cable_m=300.0),
    "a name": lambda job: change_load(job, job.loads[1].id, name="washing drum"),
    "the practice": lambda job: set_practice(job, spare_share=0.5),
    "an interlock out": lambda job: remove_element(job, ElementId("c3.KR/21-22")),
    "a part moved": moved,
}


def test_a_row_of_edits_gives_the_verdicts_from_scratch() -> None:
    job = kelp_shed()
    evaluation = Evaluation(job)
    evaluation.get(RULES)
    for name, edit in EDITS.items():
        job = with_names_recorded(edit(job))
        evaluation.move_to(job)
        assert evaluation.get(RULES) == Evaluation(job).get(RULES), name


@pytest.mark.parametrize(
    ("edit", "most"), [("the client", 0), ("the height of the box", 20), ("a hotter room", 45), ("the practice", 10)]
)
def test_what_read_nothing_new_is_the_very_same_result(edit: str, most: int) -> None:
    job = kelp_shed()
    evaluation = Evaluation(job)
    before = {result.code: result for result in evaluation.get(RULES)}
    evaluation.move_to(with_names_recorded(EDITS[edit](job)))
    after = {result.code: result for result in evaluation.get(RULES)}
    again = [code for code in after if after[code] is not before[code]]
    assert len(again) <= most, again


def test_what_is_shared_counts_as_read_by_everyone_who_asks_for_it() -> None:
    watched = WatchedView(plan_for(kelp_shed()).get(VIEW))

    def wires(view: View) -> int:
        return len(view.wiring.wires)

    watched.watch()
    first = watched.once(wires)
    assert watched.read() == ("wiring",)
    watched.watch()
    assert watched.once(wires) == first
    assert watched.read() == ("wiring",), "the second asks for what is there, and still rests on it"
    watched.watch()
    assert watched.source("E07")
    assert watched.read() == ("rulebook",)


def test_a_choice_of_practice_is_written_down_and_not_the_whole_of_it() -> None:
    watched = WatchedView(plan_for(kelp_shed()).get(VIEW))
    watched.watch()
    assert watched.practice.spare_share == watched.practice.spare_share
    assert watched.read() == ("practice.spare_share",)
    assert value_read(watched, "practice.spare_share") == plan_for(kelp_shed()).get(VIEW).practice.spare_share
    watched.watch()
    assert watched.read() == ()
    assert isinstance(watched.practice, Practice)


def test_what_was_asked_in_one_is_kept_for_the_next_view_while_what_it_read_is_the_same() -> None:
    view = plan_for(kelp_shed()).get(VIEW)
    watched = WatchedView(view)
    calls: list[float] = []

    def spare(view: View) -> float:
        calls.append(view.practice.spare_share)
        return view.practice.spare_share

    watched.watch()
    assert watched.once(spare) == WatchedView(view, watched.shared()).once(spare)
    assert len(calls) == 1
    shared = watched.shared()[spare]
    assert (shared.read, shared.values) == (("practice.spare_share",), (view.practice.spare_share,))
