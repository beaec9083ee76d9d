"""Everything that is drawn counts: coils and lamps on control, ways and sockets on the lines. Worked out by hand."""

import pytest
from tests.shared_plan import plan_for

from riktig.core.job import (
    Command,
    ControlSupply,
    Job,
    Param,
    Recipe,
    Rulebook,
    Start,
    Wetting,
    add_load,
    add_signal,
    new_job,
    set_practice,
    set_supply,
)
from riktig.core.rules import RULES, Verdict, findings_of
from riktig.core.schematic import CIRCUITS, NETS, add_circuit, with_names_recorded
from riktig.core.simulation import RATINGS
from riktig.core.sizing import PROPOSAL, Value


def motors(count: int = 2, **said: object) -> Job:
    job = set_supply(new_job("D", "drawn"), upstream_a=20.0)
    for n in range(count):
        job = add_load(job, f"fan {n}", 1.5, **said)  # type: ignore[arg-type]
    return job


def american(job: Job) -> Job:
    job = set_supply(job, voltage_v=480.0, voltage_to_neutral_v=277.0, frequency_hz=60.0, neutral=False)
    return set_practice(job, rulebook=Rulebook.UL)


def value(job: Job, key: str) -> Value:
    found = plan_for(with_names_recorded(job)).get(PROPOSAL).value(key)
    assert found is not None
    return found


STARTER = 8 + 2 * 0.6
"""A coil of 9 A held and two lamps, VA (part data)."""


@pytest.mark.parametrize(
    ("recipe", "more", "pulls"),
    [
        (Recipe.EMERGENCY_STOP, 4 + 0.6, 62 - 8),  # a safety relay of 4 VA and a lamp
        (Recipe.PHASE_MONITOR, 8.5 + 0.6, 66 - 8.5),  # a contactor for 20 A: 25 A frame, 8.5 VA held, 66 VA in, a lamp
        (Recipe.LIT_BUTTON, 6 + 0.5, 62 - 8),  # a relay and the lamp in the button
        (Recipe.VALVE, 6 + 0.6, 62 - 8),  # a relay and a lamp; the valve hangs on its own
    ],
)
def test_coils_and_lamps_of_the_book_are_in_the_burden(recipe: Recipe, more: float, pulls: float) -> None:
    job = add_circuit(motors(), recipe)
    held = value(job, "panel.held").amount
    valve = 10.0 if recipe is Recipe.VALVE else 0.0
    assert held == pytest.approx(2 * STARTER + more + valve, abs=0.15)
    assert value(job, "panel.pick_up").amount == pytest.approx(held + pulls, abs=0.15)


@pytest.mark.parametrize(("start", "coils"), [(Start.REVERSING, 8.0), (Start.STAR_DELTA, 8.0 * 2 + 3.0)])
def test_a_contactor_that_is_out_while_the_load_runs_holds_nothing(start: Start, coils: float) -> None:
    """One of two directions; line and triangle with their timer, not the star."""
    said: dict[str, object] = {"start": start, "run_lamp": False, "trip_lamp": False}
    if start is Start.REVERSING:
        said["command"] = Command.BOTH_WAYS
    held = value(motors(2, **said), "panel.held").amount
    assert held == pytest.approx(2 * coils, abs=2.6)  # and the lamps of both directions


@pytest.mark.parametrize(("ways", "rated", "amps"), [(3, 16, 16.0), (6, 16, 32.0), (4, 10, 20.0)])
def test_ways_count_what_their_breakers_let_through(ways: int, rated: int, amps: float) -> None:
    """In turn on three lines: the first line has a third of them, rounded up."""
    job = motors(1)
    before = value(job, "panel.full_load").amount
    more = add_circuit(job, Recipe.SIGNALLED_WAYS, "ways", (Param("ways", str(ways)), Param("rated A", str(rated))))
    assert value(more, "panel.full_load").amount == pytest.approx(before + amps, abs=0.2)  # the lamps of the ways too


def test_six_ways_on_a_small_supply_are_found() -> None:
    """32 A of ways and a motor of 3.6 A on a supply of 20 A."""
    job = add_circuit(motors(1), Recipe.SIGNALLED_WAYS, "ways", (Param("ways", "6"), Param("rated A", "16")))
    found = findings_of(plan_for(with_names_recorded(job)).get(RULES))
    assert any(f.code == "E03" and f.verdict is Verdict.FAILS for f in found)


def test_a_socket_from_elsewhere_is_not_on_the_lines() -> None:
    before = value(motors(1), "panel.full_load").amount
    own = (Param("fed", "behind the panel's own switch"),)
    other = (Param("fed", "outside source, separately protected"),)
    assert value(add_circuit(motors(1), Recipe.SOCKET, "s", own), "panel.full_load").amount == before + 16
    assert value(add_circuit(motors(1), Recipe.SOCKET, "s", other), "panel.full_load").amount == before


@pytest.mark.parametrize("recipe", [Recipe.SOCKET, Recipe.SIGNALLED_WAYS, Recipe.MAINTAINED])
@pytest.mark.parametrize("control", [ControlSupply.TRANSFORMER, ControlSupply.DC])
def test_sockets_and_ways_never_hang_on_the_control_transformer(recipe: Recipe, control: ControlSupply) -> None:
    """Without a neutral they have a transformer of their own, one side of it earthed, and work on 120 V."""
    job = with_names_recorded(add_circuit(set_practice(american(motors(2)), control_supply=control), recipe))
    evaluation = plan_for(job)
    nets = evaluation.get(NETS)
    devices = evaluation.get(CIRCUITS).devices
    own = [d for d in devices if d.circuit == "c100" and d.kind_id in ("panel_socket", "load", "panel_light")]
    assert own
    control_nets = {
        nets.of_pin[d.pin(p)].id for d in devices if d.id in ("s1.T", "s2.T") for p in ("5", "7", "P", "M")
        if d.pin(p) in nets.of_pin
    }  # fmt: skip
    for device in own:
        assert not {nets.of_pin[device.pin(p)].id for p in ("L", "N")} & control_nets
    assert not [f for f in findings_of(evaluation.get(RULES)) if f.code in ("E11", "C04", "E13")]
    lights = [evaluation.get(RATINGS).get(d.id) for d in own if d.kind_id != "load"]
    assert all(found and found[0].volts == 120.0 for found in lights)


def test_the_24_v_supply_counts_what_it_feeds() -> None:
    """Screen 10 W, its lamp by the controller, network switch 2 W, controller 8 W and its cards (part data)."""
    job = add_circuit(add_circuit(motors(1), Recipe.SCREEN), Recipe.NETWORK)
    job = add_signal(job, "flow", wetting=Wetting.DC, watts=4.0)
    lines = " ".join(value(job, "panel.dc_supply").why.lines)
    watts = float(lines.split(" W /")[0].split()[-1])
    assert 10 + 2 + 8 + 4 <= watts <= 10 + 2 + 8 + 4 + 6
