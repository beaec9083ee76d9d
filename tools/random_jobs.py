"""Makes the random jobs that ``same_lists.py`` compares: loads, recipes, changes and practice as they come.

    .venv/bin/python tools/random_jobs.py 30 > tests/data/random_jobs.jsonl

The jobs are kept as data, a line each, so that every version of the program reads the very same ones.
"""

import random
import sys
from collections.abc import Callable
from dataclasses import fields
from enum import Enum
from functools import partial
from typing import cast

from riktig.core.door import DOOR, move_on_door
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.job import (
    Act,
    Command,
    Insertable,
    Job,
    LoadKind,
    Practice,
    PracticeFields,
    Protection,
    Recipe,
    Rulebook,
    Start,
    Wetting,
    add_load,
    add_signal,
    add_source,
    new_job,
    set_box,
    set_practice,
    set_supply,
)
from riktig.core.plate import LAYOUT, move_block
from riktig.core.schematic import (
    CIRCUIT_TEMPLATES,
    CIRCUITS,
    Band,
    Insertion,
    add_circuit,
    elements_of,
    insert_element,
    remove_element,
    with_names_recorded,
)
from riktig.core.store import dump_job

POWERS_KW = (0.25, 0.75, 1.5, 2.2, 4.0, 7.5, 11.0, 18.5)
POWERS_HP = (0.5, 1.0, 2.0, 5.0, 10.0, 20.0)
MOTOR_STARTS = (Start.DIRECT, Start.REVERSING, Start.STAR_DELTA, Start.SOFT, Start.DRIVE)
BOXES = ((600.0, 800.0, 250.0), (800.0, 1200.0, 300.0), (1200.0, 1600.0, 400.0))


def random_job(seed: int) -> Job:
    """One job, the same for one seed."""
    rng = random.Random(seed)
    job = new_job(f"RJ-{seed:03}", f"random job {seed}")
    job = _with_practice(job, rng)
    american = job.practice.rulebook is Rulebook.UL
    if american:
        job = set_supply(job, voltage_v=480.0, voltage_to_neutral_v=277.0, frequency_hz=60.0, neutral=False)
    for number in range(rng.randint(1, 6)):
        job = _tried(job, partial(_with_load, number=number, rng=rng, american=american))
    if rng.random() < 0.4:
        job = add_source(job, "alarm panel", rng.choice((24.0, 230.0)), "the gate house")
    job = set_box(job, *rng.choice(BOXES))
    free = [entry.recipe for entry in CIRCUIT_TEMPLATES if entry.make is not None and entry.recipe is not Recipe.FREE]
    for _ in range(rng.randint(0, 3)):
        recipe = rng.choice(free)
        job = _tried(job, partial(_with_circuit, recipe=recipe))
    job = with_names_recorded(job)
    for _ in range(rng.randint(0, 3)):
        job = _tried(job, lambda job: _with_change(job, rng))
    if rng.random() < 0.3:
        job = _tried(job, lambda job: _with_part_moved(job, rng))
    if rng.random() < 0.3:
        job = _tried(job, lambda job: _with_operator_moved(job, rng))
    return with_names_recorded(job)


def _with_circuit(job: Job, recipe: Recipe) -> Job:
    return with_names_recorded(add_circuit(job, recipe))


def _tried(job: Job, edit: Callable[[Job], Job]) -> Job:
    """The edited job, or the old one when the edit is refused."""
    try:
        return edit(job)
    except (RiktigError, ValueError):
        return job


def _with_practice(job: Job, rng: random.Random) -> Job:
    """Some choices of practice other than the defaults."""
    if rng.random() < 0.35:
        job = set_practice(job, rulebook=Rulebook.UL)
    for field in fields(Practice):
        value = getattr(job.practice, field.name)
        if isinstance(value, Enum) and field.name != "rulebook" and rng.random() < 0.2:
            job = set_practice(job, **cast(PracticeFields, {field.name: rng.choice(list(type(value)))}))
    return set_practice(job, duct_width=rng.choice((40.0, 60.0)))


def _with_load(job: Job, number: int, rng: random.Random, *, american: bool) -> Job:
    name, place, length = f"drive {number + 1}", rng.choice(("hall", "yard", "pit")), float(rng.randint(3, 60))
    if rng.random() < 0.75:
        start = rng.choice(MOTOR_STARTS)
        command = Command.BOTH_WAYS if start is Start.REVERSING else rng.choice(list(Command)[2:6])
        if start is Start.DIRECT and rng.random() < 0.5:
            command = Command.BUTTONS
        hp, kw = (rng.choice(POWERS_HP), None) if american else (None, rng.choice(POWERS_KW))
        protection = rng.choice(list(Protection))
        job = add_load(job, name, kw, hp=hp, place=place, cable_m=length, start=start, command=command,
                       protection=protection, run_lamp=rng.random() < 0.7, trip_lamp=rng.random() < 0.7)  # fmt: skip
    else:
        start, command = rng.choice(((Start.WAY, Command.ALWAYS), (Start.CONTACTOR, Command.SELECTOR)))
        kind = rng.choice((LoadKind.HEATER, LoadKind.LIGHTING, LoadKind.OTHER))
        job = add_load(job, name, rng.choice((0.3, 1.0, 2.0)), place=place, cable_m=length, kind=kind,
                       phases=2 if american else 1, start=start, command=command, run_lamp=False, trip_lamp=False,
                       maintained=start is Start.WAY and rng.random() < 0.3)  # fmt: skip
    load = job.loads[-1]
    if load.command is Command.LEVEL:
        job = add_signal(job, f"float {number + 1}", place=place, load=load.id)
    elif rng.random() < 0.3:
        job = add_signal(job, f"contact {number + 1}", place=place, load=load.id, wetting=rng.choice(list(Wetting)))
    return job


def _with_change(job: Job, rng: random.Random) -> Job:
    """Something put into a control path, or taken out of it."""
    rungs = Evaluation(job).get(CIRCUITS).rungs
    elements = [e.id for rung in rungs if rung.band is Band.CONTROL for e in elements_of(rung.path)]
    if not elements:
        return job
    at = rng.choice(elements)
    if rng.random() < 0.25:
        return with_names_recorded(remove_element(job, at))
    what = rng.choice([one for one in Insertable if one is not Insertable.CONTACT])
    return with_names_recorded(
        insert_element(job, at, Insertion(what, "more", rng.choice((Act.AFTER, Act.BEFORE, Act.ACROSS, Act.INSTEAD))))
    )


def _with_part_moved(job: Job, rng: random.Random) -> Job:
    layout = Evaluation(job).get(LAYOUT)
    block = rng.choice(layout.blocks)[0]
    return with_names_recorded(
        move_block(job, layout, block.lead, rng.choice(layout.rails).number, float(rng.randint(0, 300)))
    )


def _with_operator_moved(job: Job, rng: random.Random) -> Job:
    plan = Evaluation(job).get(DOOR)
    seat = rng.choice([one for one in plan.seats if not one.is_shaft])
    return with_names_recorded(
        move_on_door(job, plan, [seat.at(seat.x + rng.randint(-60, 60), seat.y + rng.randint(-60, 60))])
    )


def main() -> int:
    """Prints so many jobs, a line each."""
    for seed in range(int(sys.argv[1]) if len(sys.argv) > 1 else 30):
        print(dump_job(random_job(seed)))
    return 0


if __name__ == "__main__":
    sys.exit(main())
