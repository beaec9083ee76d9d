"""Every value of every choice of practice changes a list: one that decides nothing has no place in the Brief."""

from collections.abc import Mapping
from dataclasses import fields, replace
from enum import Enum
from functools import cache
from itertools import combinations
from typing import Any

import pytest
from tests.core.schematic.builders import STOP, one_motor
from tests.effort import share
from tests.shared_plan import plan_for

from riktig.core.evaluation import Evaluation
from riktig.core.exports.lists import LISTS, schedule
from riktig.core.job import (
    CHOICES,
    ClassLetters,
    Colours,
    Command,
    ControlSupply,
    Insertable,
    Job,
    LabelWord,
    Letters,
    Numbering,
    Practice,
    ReservedNumber,
    Rulebook,
    Start,
    Supply,
    add_load,
    new_job,
    set_practice,
)
from riktig.core.schematic import insert_contact
from riktig.demo_job import kelp_shed

AT_THE_BENCH = {"second_reading", "reading_tolerance", "long_piece"}
"""They decide who measures what again before a cut: held by tests/core/production/test_measured.py."""
OF_THE_SHED = {
    "relay_commons", "way_order", "star_delta_overload", "maintained_colour", "pairs", "reserved", "dc_input",
    "transformer_voltage", "dc_colours", "first_side", "field_cables",
}  # fmt: skip
"""They need more than the hut has: relays, ways, a fan in star-delta, pairs of a signal, a transformer, floats."""
MAY_AGREE = {("maintained_colour", "RULEBOOK", "ORANGE")}
"""What one value comes to may be what another says by name: orange is the colour of both rulebooks."""


def hut() -> Job:
    """Four motors on a supply that loops can carry, a run lamp, a way of its own: no shape of the demonstrations."""
    job = replace(new_job("T", "hut"), supply=Supply(upstream_a=32.0), sources_asked=True)
    job = add_load(job, "belt", 1.5, run_lamp=True)
    job = add_load(job, "screw", 1.5, start=Start.REVERSING, command=Command.BOTH_WAYS)
    job = add_load(job, "mixer", 0.75)
    job = add_load(job, "lift", 1.1)
    return set_practice(job, control_supply=ControlSupply.DIRECT)


@cache
def job_for(name: str) -> Job:
    """The job that a choice is tried on: unnamed, so that what decides about names decides now."""
    if name == "new_between":
        return insert_contact(one_motor(), STOP, Insertable.STOP_BUTTON, "second stop")
    if name == "terminal_c":
        return set_practice(hut(), rulebook=Rulebook.UL)
    return kelp_shed() if name in OF_THE_SHED else hut()


def with_practice(job: Job, changed: Mapping[str, Any]) -> Job:
    return set_practice(job, **changed)


SOONEST = ("labels", "wires", "bom", "terminals", "holes", "cuts", "operators")
"""Lists that most choices change, so that few jobs need all of them."""
IN_ORDER = (*SOONEST, *(name for name in LISTS if name not in SOONEST and name != "practice"))
"""All lists that follow from a job but the one that repeats the practice."""


def groups_alike(start: Evaluation[Job], jobs: Mapping[str, Job]) -> list[set[str]]:
    """The names of the jobs whose lists are all the same; a list is worked out only for jobs that nothing parts yet."""
    evaluations = {name: start.fork(lambda: None) for name in jobs}
    for name, job in jobs.items():
        evaluations[name].move_to(job)
    alike = [set(jobs)]
    for listed in IN_ORDER:
        parted: list[set[str]] = []
        for group in alike:
            by_rows: dict[str, set[str]] = {}
            for name in group:
                by_rows.setdefault(repr(schedule(listed, evaluations[name]).rows), set()).add(name)
            parted += [names for names in by_rows.values() if len(names) > 1]
        alike = parted
        if not alike:
            break
    return alike


@pytest.mark.parametrize("name", share((choice.field for choice in CHOICES if choice.field not in AT_THE_BENCH), 1))
def test_no_two_values_come_to_the_same_lists(name: str) -> None:
    job = job_for(name)
    values: type[Enum] = next(choice.values for choice in CHOICES if choice.field == name)
    jobs = {value.name: with_practice(job, {name: value}) for value in values}
    assert len(jobs) > 1
    alike = groups_alike(plan_for(job), jobs)
    same = {(name, a, b) for group in alike for a, b in combinations([v for v in jobs if v in group], 2)}
    assert same <= MAY_AGREE


FIGURES = {
    "spare_terminals": 0.3, "spare_duct": 0.9,
    "spare_share": 0.5, "finger_room": 35.0, "door_loop": 600.0, "end_allowance": 80.0, "batch_minutes": 0.0,
    "hour_price": 1.0, "metre_price": 50.0, "wire_spare": 0.5, "duct_width": 45.0,
    "bar_length": 1000.0, "saw_kerf": 4.0, "bar_trim": 20.0, "lid_gap": 3.0, "shaft_in_switch": 30.0,
    "shaft_in_handle": 40.0, "handle_tolerance": 8.0, "wall_skew": 20.0, "reserved_numbers": 20, "number_step": 50,
    "dc_colours": ("black", "white", "brown", "blue"),
    "house_colours": ("brown",) * 6, "house_letters": (ClassLetters("contactor", "KM"),),
    "label_language": "tr", "label_words": (LabelWord("motor", "motor bey", "tr"),),
    "reserved": (ReservedNumber("control.live", "901"),), "scheme": "{sheet}-{count:03}",
}  # fmt: skip
"""Every other field of the practice with a value that is not its default."""
EVALUATIONS: dict[str, Evaluation[Job]] = {}
NEEDS: dict[str, dict[str, Enum | str]] = {
    "label_words": {"label_language": "tr"},
    "dc_colours": {"colours": Colours.HOUSE},
    "house_colours": {"colours": Colours.HOUSE},
    "house_letters": {"letters": Letters.HOUSE},
    "scheme": {"numbering": Numbering.HOUSE},
}
"""The choice under which a table of the house is read."""


def test_every_figure_and_table_changes_a_list() -> None:
    decides_nothing = []
    for name, value in FIGURES.items():
        job = with_practice(job_for(name), NEEDS.get(name, {}))
        evaluation = EVALUATIONS.setdefault(job_for(name).title, plan_for(job))
        if groups_alike(evaluation, {"default": job, "other": with_practice(job, {name: value})}):
            decides_nothing.append(name)
    assert decides_nothing == []


def test_no_field_of_the_practice_is_left_out() -> None:
    asked = {choice.field for choice in CHOICES}
    assert {field.name for field in fields(Practice)} == asked | set(FIGURES) | AT_THE_BENCH
