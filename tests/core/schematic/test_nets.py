"""Nets by node: a device crossed gives a new number, a terminal does not."""

from collections import Counter

import pytest

from riktig.core.job import (
    ControlSupply,
    ControlTap,
    EarthScheme,
    Job,
    OverloadContact,
    PracticeFields,
    RunLamp,
    Supply,
    add_load,
    new_job,
    role_of,
    set_supply,
)
from riktig.core.schematic import CIRCUITS, NETS, NetClass, find_nets
from tests.core.schematic.builders import joins, one_motor
from tests.shared_plan import plan_for

# Worked by hand from the circuit of a direct-on-line starter: control live ahead of the motor breaker, overload
# first, stop, start with the hold contact across it, coil; run lamp by 43-44, trip lamp by 97-98.
BY_HAND = {
    "L1": {"W1:L1", "X1:L1/i", "X1:L1/f", "Q1:1"},
    "L2": {"W1:L2", "X1:L2/i", "X1:L2/f", "Q1:3"},
    "L3": {"W1:L3", "X1:L3/i", "X1:L3/f", "Q1:5"},
    "1": {"Q1:2", "F1:1", "F2:1"},
    "2": {"Q1:4", "F1:3"},
    "3": {"Q1:6", "F1:5"},
    "4": {"F1:2", "K1:1"},
    "5": {"F1:4", "K1:3"},
    "6": {"F1:6", "K1:5"},
    "M1-U": {"F3:2", "X2:U/i", "X2:U/f", "M1:U1"},
    "M1-V": {"F3:4", "X2:V/i", "X2:V/f", "M1:V1"},
    "M1-W": {"F3:6", "X2:W/i", "X2:W/f", "M1:W1"},
    "7": {"F2:2", "F3:95", "F3:97", "K1:43"},
    "8": {"F3:96", "S1:1"},
    "9": {"S1:2", "S2:3", "K1:13"},
    "10": {"S2:4", "K1:14", "K1:A1"},
    "11": {"K1:44", "H1:X1"},
    "12": {"F3:98", "H2:X1"},
    "N": {"W1:N", "X1:N/i", "X1:N/f", "K1:A2", "H1:X2", "H2:X2"},
}


@pytest.mark.parametrize("number", BY_HAND)
def test_the_starters_nets_are_those_worked_out_by_hand(number: str) -> None:
    assert joins(one_motor())[number] == BY_HAND[number]


def test_plugged_poles_are_a_net_without_a_number_since_no_wire_can_land_there(demo: Job) -> None:
    nets = plan_for(demo).get(NETS).nets
    inner = [net for net in nets if net.inner]
    assert len(inner) == 3
    assert all({role_of(pin.device)[:1] for pin in net.pins} == {"K", "F"} for net in inner)


def test_every_pin_lies_on_one_net_only(two_motors: Job) -> None:
    nets = find_nets(plan_for(two_motors).get(CIRCUITS))
    counted = Counter(pin for net in nets.nets for pin in net.pins)
    assert set(counted.values()) == {1}
    assert set(nets.of_pin) == set(counted)


@pytest.mark.parametrize(
    ("practice", "number", "pins"),
    [
        ({"overload_contact": OverloadContact.RETURN}, "N", {"F3:96", "H1:X2", "H2:X2"}),
        ({"run_lamp": RunLamp.COIL}, "10", {"S2:4", "K1:14", "K1:A1", "H1:X1"}),
        ({"control_tap": ControlTap.AFTER}, "4", {"F1:2", "K1:1", "F2:1"}),
    ],
    ids=["overload on the return", "lamp beside the coil", "tap behind the breaker"],
)
def test_practice_decides_where_things_sit(practice: PracticeFields, number: str, pins: set[str]) -> None:
    assert pins <= joins(one_motor(**practice))[number]


def test_with_earths_on_the_bar_the_motor_has_no_earth_terminal() -> None:
    beside, bar = one_motor(), one_motor(earths=EarthScheme.BAR)
    assert "X2:PE/i" in joins(beside)["PE"]
    assert "X2:PE/i" not in joins(bar)["PE"]
    assert "M1:PE" in joins(bar)["PE"]


def test_without_a_neutral_the_returns_have_nowhere_to_go_but_the_design_stands() -> None:
    job = set_supply(one_motor(control_supply=ControlSupply.DIRECT), neutral=False)
    found = joins(job)
    assert found["N"] == {"K1:A2", "H1:X2", "H2:X2"}
    assert not any(pin.startswith("X1:N") for pins in found.values() for pin in pins)


def test_classes_follow_what_a_net_carries(demo: Job) -> None:
    classes = Counter(net.net_class for net in plan_for(demo).get(NETS).nets)
    assert classes == {NetClass.POWER: 15, NetClass.CONTROL: 6, NetClass.NEUTRAL: 1, NetClass.EARTH: 1}
    lines = {net.line for net in plan_for(demo).get(NETS).nets if net.net_class is NetClass.POWER}
    assert lines == {0, 1, 2}


def test_a_panel_with_many_motors_gets_another_earth_bar() -> None:
    job = new_job()
    for n in range(6):
        job = add_load(job, f"fan {n}", 1.1)
    bars = [d for d in plan_for(job).get(CIRCUITS).devices if d.kind_id == "earth_bar"]
    assert len(bars) == 2


def test_the_supply_alone_is_a_panel_too() -> None:
    assert Supply().neutral
    assert {"L1", "L2", "L3", "N", "PE"} <= set(joins(new_job()))
