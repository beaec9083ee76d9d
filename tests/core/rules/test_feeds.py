"""What hangs on the feed: several panels further on, a main contactor with its own distribution, taps, hot boxes."""

import random

import pytest
from tests.effort import times
from tests.shared_plan import plan_for

from riktig.core.evaluation import Evaluation
from riktig.core.job import (
    Command,
    Distribution,
    Job,
    LoadKind,
    Param,
    Protection,
    Recipe,
    Rulebook,
    Start,
    add_load,
    new_job,
    set_enclosure,
    set_practice,
    set_supply,
)
from riktig.core.rules import RULES, Finding, Verdict, findings_of
from riktig.core.schematic import CIRCUITS, add_circuit, with_names_recorded
from riktig.core.sizing import SIZING
from riktig.core.wiring import WIRING

WIRED = ("E08", "E09", "E14", "W01", "W03", "W04", "W05", "W06", "C13")
ALL = (Param("holds", "all loads"),)


def failing(job: Job) -> list[Finding]:
    found = findings_of(plan_for(with_names_recorded(job)).get(RULES))
    return [f for f in found if f.verdict is Verdict.FAILS and f.code in WIRED]


def plant(
    motors: int = 3, ways: int = 2, ambient_c: float = 40.0, upstream_a: float = 63.0, through_a: float = 0.0
) -> Job:
    job = set_enclosure(new_job("F", "feeds"), ambient_c=ambient_c, width=1200.0, height=1600.0)
    job = set_supply(job, upstream_a=upstream_a, through_a=through_a)
    for n in range(motors):
        job = add_load(job, f"fan {n}", 2.2)
    for n in range(ways):
        job = add_load(job, f"lamps {n}", nameplate_a=8.0, kind=LoadKind.LIGHTING, phases=1, start=Start.WAY)
    return job


@pytest.mark.parametrize("panels", [1, 2, 3])
@pytest.mark.parametrize("distribution", list(Distribution))
def test_several_panels_further_on_are_fed_from_stud_to_stud(panels: int, distribution: Distribution) -> None:
    job = set_practice(plant(through_a=32.0), distribution=distribution)
    for n in range(panels - 1):
        job = add_circuit(job, Recipe.THROUGH_FEED, f"panel {n}")
    assert not failing(job)
    evaluation = plan_for(with_names_recorded(job))
    onward = evaluation.get(SIZING).onward
    assert len(onward.circuits) == panels
    ahead = [
        w
        for w in evaluation.get(WIRING).wires
        if w.name.startswith(("L1 ", "N ", "PE ")) and w.circuit in onward.circuits
    ]
    assert {w.mm2 for w in ahead if not w.name.startswith("PE")} <= {onward.mm2}


@pytest.mark.parametrize("distribution", list(Distribution))
@pytest.mark.parametrize("upstream_a", [20.0, 63.0, 125.0])
def test_behind_the_main_contactor_no_clamp_gets_more_than_it_takes(
    distribution: Distribution, upstream_a: float
) -> None:
    job = set_practice(plant(upstream_a=upstream_a), distribution=distribution)
    job = add_circuit(job, Recipe.PHASE_MONITOR, "monitor", ALL)
    job = add_circuit(job, Recipe.SIGNALLED_WAYS, "ways", (Param("ways", "6"),))
    assert not failing(job)


def test_a_feed_too_thick_for_loops_gets_blocks_behind_the_main_contactor() -> None:
    """50 mm² behind 125 A do not go into breakers for 16 mm²: each hangs on a block by its own conductors."""
    job = set_practice(plant(upstream_a=125.0), distribution=Distribution.LOOPS)
    evaluation = plan_for(with_names_recorded(add_circuit(job, Recipe.PHASE_MONITOR, "monitor", ALL)))
    own = evaluation.document.circuits[-1].id
    blocks = [d for d in evaluation.get(CIRCUITS).devices if d.kind_id == "dist_block" and d.circuit == own]
    assert blocks
    taps = [w for w in evaluation.get(WIRING).wires if w.start.pin.device == blocks[0].id]
    assert {w.mm2 for w in taps if w.end.pin.device.endswith(".F")} <= {1.5, 2.5}


def test_an_emergency_stop_lets_the_main_contactor_go() -> None:
    job = add_circuit(plant(), Recipe.EMERGENCY_STOP, "stop")
    for holds in ("single-phase ways", "all loads"):
        with_main = add_circuit(job, Recipe.PHASE_MONITOR, "monitor", (Param("holds", holds),))
        results = plan_for(with_names_recorded(with_main)).get(RULES)
        assert not [
            f for r in results if r.code in ("C13", "C15", "C16") for f in r.findings if f.verdict is Verdict.FAILS
        ]


@pytest.mark.parametrize("ambient_c", [40.0, 50.0, 55.0])
def test_taps_ahead_of_the_main_switch_carry_all_that_hangs_on_them(ambient_c: float) -> None:
    """A socket of 16 A and maintained services hang on one terminal: 2.5 mm² is not enough for both."""
    job = add_circuit(plant(ambient_c=ambient_c), Recipe.SOCKET, "socket")
    job = add_circuit(job, Recipe.MAINTAINED, "services")
    assert not failing(job)


@pytest.mark.parametrize("protection", list(Protection))
def test_what_no_clamp_takes_is_said_in_the_brief(protection: Protection) -> None:
    """At 55 °C 18 A ask for 10 mm², and the clamps of that frame take 6 mm²: the value says so, and E06 names it."""
    job = add_load(plant(0, 0, 55.0, 125.0), "pump", 7.5, protection=protection)
    for n in range(3):
        job = add_load(job, f"other {n}", 7.5, protection=protection)
    evaluation = plan_for(with_names_recorded(job))
    tags = said(evaluation)
    for finding in failing(job):
        assert finding.code == "W04"
        assert finding.message.split(":")[0] in tags


def said(evaluation: Evaluation[Job]) -> set[str]:
    """The tags of the devices of which E06 says that they do not suffice."""
    return {f.message.split(",")[0] for f in findings_of(evaluation.get(RULES)) if f.code == "E06"}


@pytest.mark.parametrize("seed", range(times(14, 200)))
def test_what_is_proposed_for_a_hot_or_large_panel_stands_or_says_why_not(seed: int) -> None:
    """Loads at random with what makes it hard: warm rooms, large feeds, panels further on, main contactors."""
    evaluation = plan_for(with_names_recorded(hard(seed)))
    tags = said(evaluation)
    for finding in failing(evaluation.document):
        assert finding.code == "W04"
        assert finding.message.split(":")[0] in tags, finding.message


def hard(seed: int) -> Job:
    chance = random.Random(seed)
    upstream_a, through_a = chance.choice([63.0, 100.0, 125.0]), chance.choice([0.0, 32.0, 63.0])
    job = plant(0, chance.randrange(3), chance.choice([40.0, 50.0, 55.0]), upstream_a, through_a)
    rulebook = chance.choice(list(Rulebook))
    job = set_practice(job, distribution=chance.choice(list(Distribution)), rulebook=rulebook)
    if rulebook is Rulebook.UL:
        job = set_supply(job, voltage_v=480.0, voltage_to_neutral_v=277.0, frequency_hz=60.0)
    for n in range(chance.randrange(1, 6)):
        start = chance.choice([Start.DIRECT, Start.REVERSING, Start.STAR_DELTA, Start.SOFT, Start.DRIVE])
        command = Command.BOTH_WAYS if start is Start.REVERSING else Command.BUTTONS
        guard = chance.choice(list(Protection))
        kw = chance.choice([0.75, 1.5, 4.0, 7.5, 11.0])
        job = add_load(job, f"motor {n}", kw, start=start, command=command, protection=guard)
    for recipe, share in ((Recipe.THROUGH_FEED, 0.5), (Recipe.PHASE_MONITOR, 0.5), (Recipe.EMERGENCY_STOP, 0.3)):
        if chance.random() < share:
            job = add_circuit(job, recipe, "more", ALL if recipe is Recipe.PHASE_MONITOR else ())
    for recipe in (Recipe.MAINTAINED, Recipe.SOCKET, Recipe.SIGNALLED_WAYS):
        job = add_circuit(job, recipe) if chance.random() < 0.4 else job
    return job
