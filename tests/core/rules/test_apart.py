"""Supplies kept apart, one earth, cables whole: judged on what the nets join and what the wires do."""

import pytest
from tests.core.schematic.test_net_sources import two_motors
from tests.shared_plan import plan_for

from riktig.core.job import CircuitId, EarthScheme, Job, OwnDevice, OwnRung, Recipe, add_load, new_job, set_practice
from riktig.core.rules import RULES, Verdict, findings_of
from riktig.core.schematic import CIRCUITS, add_circuit, add_device, add_rung, with_names_recorded
from riktig.core.terminals import STRIPS

LAMP = OwnDevice("H9", "lamp", "door", "more", "MORE")
LINK = OwnDevice("XL9", "earth_link", "plate", "more")
SELECTOR = OwnDevice("S9", "selector_hoa", "door", "more", "MORE")


def fails(job: Job) -> set[str]:
    """The codes of the clauses that fail."""
    found = findings_of(plan_for(with_names_recorded(job)).get(RULES))
    return {finding.code for finding in found if finding.verdict is Verdict.FAILS}


def with_own(*rungs: tuple[str, str, str], devices: tuple[OwnDevice, ...] = ()) -> Job:
    job = with_names_recorded(two_motors())
    for device in devices:
        job = add_device(job, CircuitId("c1"), device)
    for n, (start, path, end) in enumerate(rungs):
        job = add_rung(job, CircuitId("c1"), OwnRung(f"x{n}", f"own {n}", start, path, end, "control"))
    return job


def test_two_motors_with_both_supplies_are_sound() -> None:
    assert not fails(two_motors()) & {"C04", "E11", "E13", "W04", "W06", "E08"}


@pytest.mark.parametrize(
    ("rungs", "devices", "code"),
    [
        ((("control.live", "K:31-32", "dc.plus"),), (), "C04"),
        ((("control.back", "K:31-32", "dc.zero"),), (), "C04"),
        ((("control.back", "", "dc.zero"),), (), "C04"),
        ((("N", "K:31-32", "control.back"),), (), "C04"),
        ((("main.L1", "K:31-32", "control.live"),), (), "C04"),
        (
            (("control.live", "S9:13-14 H9:X1-X2", "control.back"), ("dc.plus", "S9:23-24 @H9:X1", "")),
            (LAMP, SELECTOR),
            "C04",
        ),
        ((("dc.plus", "H9:X1-X2", "control.back"),), (LAMP,), "E11"),
        ((("control.live", "H9:X1-X2", "dc.zero"),), (LAMP,), "E11"),
    ],
)
def test_two_supplies_that_meet_in_any_position_fail(
    rungs: tuple[tuple[str, str, str], ...], devices: tuple[OwnDevice, ...], code: str
) -> None:
    """IEC 60204-1 6.4.1 and 9.1.4, from memory: circuits of separate supplies stay separate."""
    assert code in fails(with_own(*rungs, devices=devices))


@pytest.mark.parametrize(
    ("rungs", "devices"),
    [((("control.back", "XL9:1-2", "PE"),), (LINK,)), ((("N", "XL9:1-2", "PE"),), (LINK,))],
    ids=["a second link", "the neutral at the panel"],
)
def test_a_second_earth_root_fails(rungs: tuple[tuple[str, str, str], ...], devices: tuple[OwnDevice, ...]) -> None:
    """IEC 60204-1 9.4.3.1: one point of a control supply is earthed; IEC 60364-5-54 543.4.3: N and PE join once."""
    assert "E13" in fails(with_own(*rungs, devices=devices))


def test_an_earth_of_ones_own_gets_its_conductor() -> None:
    """What the builder joins to PE is wired to a way of the bar like everything else."""
    found = findings_of(
        plan_for(with_names_recorded(with_own(("dc.plus", "XL9:1-2", "PE"), devices=(LINK,)))).get(RULES)
    )
    assert not any(finding.code == "E13" and "no conductor leads" in finding.message for finding in found)


@pytest.mark.parametrize("recipe", [Recipe.SCREEN, Recipe.SIGNALLED_WAYS, Recipe.LEVEL_ALARM])
def test_a_lamp_test_joins_no_supplies(recipe: Recipe) -> None:
    """A lamp of another supply than the test has no test input: its return would join the two."""
    job = add_circuit(add_circuit(two_motors(), Recipe.LAMP_TEST), recipe)
    assert not fails(job) & {"C04", "E11", "E13"}


@pytest.mark.parametrize("motors", [3, 6, 8, 14])
def test_every_cable_finds_its_way_on_the_bar(motors: int) -> None:
    """With protective conductors on the common bar the bars have a way for each cable, however many there are."""
    job = set_practice(new_job("E", "bars"), earths=EarthScheme.BAR)
    for n in range(motors):
        job = add_load(job, f"fan {n}", 1.5)
    evaluation = plan_for(with_names_recorded(job))
    cables = [cable for cable in evaluation.get(STRIPS).cables if not cable.is_supply]
    assert len(cables) == motors
    assert all(any(core.name == "green-yellow" for core in cable.cores) for cable in cables)
    assert not fails(job) & {"W06", "E13"}


def test_a_cable_that_finds_no_way_fails() -> None:
    """One more earth by hand than the bars have ways: what is left without one is said."""
    job = set_practice(new_job("E", "bars"), earths=EarthScheme.BAR)
    for n in range(3):
        job = add_load(job, f"fan {n}", 1.5)
    job = with_names_recorded(job)
    bars = [d for d in plan_for(job).get(CIRCUITS).devices if d.kind_id == "earth_bar"]
    ways = 7 * len(bars)
    for n in range(ways):
        job = add_device(job, CircuitId("c1"), OwnDevice(f"E{n + 20}", "panel_socket", "plate", f"socket {n}"))
        job = add_rung(job, CircuitId("c1"), OwnRung(f"e{n}", f"own {n}", "PE", f"@E{n + 20}:PE", "", "control"))
    assert fails(job) & {"W06", "W04", "E13", "E09"}
