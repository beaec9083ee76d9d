"""The switch box that stands in for the field: a place for everything outside, at its terminals, with its voltage."""

import pytest
from tests.core.schematic.samples import SAMPLES, sample
from tests.effort import share
from tests.shared_plan import plan_for

from riktig.core.catalogue import Can
from riktig.core.proving import FUNCTION, PANEL_FACTS, SWITCH_BOX, BoxPlace, Imitates, draw_switch_box, places_in
from riktig.core.schematic import Zone
from riktig.demo_job import frost_fan, kelp_shed


def box_of_shed() -> dict[str, BoxPlace]:
    return {place.device.removeprefix("c4."): place for place in plan_for(kelp_shed()).get(SWITCH_BOX)}


def test_floats_of_the_pump_are_switches_at_their_terminals_with_the_control_voltage() -> None:
    """By hand from the sheet of the pump: stop 1-2, start 2-4, alarm 5-6, all open at rest on 230 V control."""
    box = box_of_shed()
    terminals = {name: box[f"B.{name}"].terminals for name in ("stop", "start", "alarm")}
    assert terminals == {"stop": ("X6:1", "X6:2"), "start": ("X6:2", "X6:4"), "alarm": ("X6:5", "X6:6")}
    assert {box[f"B.{name}"].at_rest for name in terminals} == {"open"}
    assert box["B.stop"].volts == "230 V AC"
    assert box["B.start"].volts == "then 230 V AC", "dead until the low float is up"
    assert box["c3.end1"].at_rest == "closed", "an end switch opens when it is reached"
    assert box["s4.B1"].imitates is Imitates.SENSOR
    assert box["c1.KF1.W"].imitates is Imitates.SUPPLY
    assert box["M"].imitates is Imitates.LAMPS


@pytest.mark.parametrize("name", share(SAMPLES, 0)[::4])
def test_everything_outside_has_one_place(name: str) -> None:
    evaluation = plan_for(sample(name))
    facts, box = evaluation.get(PANEL_FACTS), evaluation.get(SWITCH_BOX)
    outside = [
        device.id
        for device in facts.circuits.devices
        if device.zone is Zone.FIELD
        and not device.kind.can(Can.SUPPLY)
        and any(facts.inside(device.pin(pin.name)) for pin in device.kind.pins if pin.name != "PE")
    ]
    assert [place.device for place in box] == outside
    assert [place.number for place in box] == list(range(1, len(box) + 1))
    assert all(place.terminals for place in box)
    drawing = draw_switch_box(box)
    assert drawing.width > 0
    assert drawing.height > 0


def test_a_step_says_which_place_of_the_box_it_moves() -> None:
    evaluation = plan_for(kelp_shed())
    box = evaluation.get(SWITCH_BOX)
    raised = next(step for step in evaluation.get(FUNCTION) if step.done == "raise B5")
    (words,) = places_in(box, raised.done)
    assert words.endswith("of the switch box: X6:2 X6:4.")
    assert not places_in(box, "press S8")


def test_a_north_american_thermostat_lies_on_control_voltage() -> None:
    box = plan_for(frost_fan()).get(SWITCH_BOX)
    thermostat = next(place for place in box if "thermostat" in place.purpose)
    assert (thermostat.imitates, thermostat.volts) == (Imitates.SWITCH, "120 V AC")
