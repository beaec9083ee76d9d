"""Derived results: computed once, kept by identity, handed out again when equal."""

from dataclasses import dataclass, replace
from operator import attrgetter

import pytest

from riktig.core.plan import Derived, Plan


@dataclass(frozen=True)
class Doc:
    left: tuple[int, ...] = (1, 2)
    right: tuple[int, ...] = (3,)


SORTED = Derived("sorted", (attrgetter("left"),), lambda left: tuple(sorted(left)))
TOTAL = Derived("total", (SORTED, attrgetter("right")), lambda left, right: sum(left) + sum(right))


def test_a_result_is_computed_once_for_the_same_objects() -> None:
    plan = Plan(Doc())
    assert plan.get(TOTAL) == 6
    computed = plan.computed
    assert plan.get(TOTAL) == 6
    assert plan.computed == computed == 2


def test_an_edit_elsewhere_recomputes_only_what_reads_it() -> None:
    plan = Plan(Doc())
    plan.get(TOTAL)
    plan.move_to(replace(plan.document, right=(4,)))
    assert plan.get(TOTAL) == 7
    assert plan.computed == 3, "the sorted left side was kept"


def test_an_equal_new_value_hands_back_the_old_object_so_that_readers_stay_valid() -> None:
    plan = Plan(Doc())
    plan.get(TOTAL)
    before = plan.get(SORTED)
    plan.move_to(replace(plan.document, left=(2, 1)))
    assert plan.get(SORTED) is before
    plan.get(TOTAL)
    assert plan.computed == 3, "sorted anew, total kept"


def test_going_back_to_an_earlier_document_gives_its_results() -> None:
    first = Doc()
    plan = Plan(first)
    plan.get(TOTAL)
    plan.move_to(Doc(left=(9,)))
    assert plan.get(TOTAL) == 12
    plan.move_to(first)
    assert plan.get(TOTAL) == 6


@pytest.mark.parametrize("moved", [False, True])
def test_a_result_from_elsewhere_is_taken_only_for_the_inputs_of_now(moved: bool) -> None:
    plan = Plan(Doc())
    inputs = plan.inputs_of(SORTED)
    if moved:
        plan.move_to(Doc(left=(7, 8)))
    assert plan.offer(SORTED, inputs, (1, 2)) is not moved
    assert plan.get(SORTED) == ((7, 8) if moved else (1, 2))
