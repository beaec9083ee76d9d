"""Sizing: the worked example of the wash drum by hand, and what must hold for every motor."""

import pytest
from tests.core.schematic.builders import one_motor
from tests.effort import some
from tests.shared_plan import plan_for

from riktig.core.evaluation import Evaluation
from riktig.core.job import DeviceId, Job, change_load, set_enclosure, set_supply
from riktig.core.schematic import CIRCUITS
from riktig.core.sizing import PROPOSAL, SIZING, Sizing
from riktig.core.standards import motor_powers


def sized(job: Job) -> Sizing:
    return plan_for(job).get(SIZING)


# By hand, 4 kW at 400 V: 8.5 A (Annex G). Breaker 1.25 x 8.5 = 10.6 -> 13 A. Contactor next above 8.5: 9 A AC-3.
# Overload 7 to 10 A. 1.5 mm2 carries 13.5 A in duct at 40 C, enough for the 8.5 A
# the overload is set to. Feeder 20 A: 2.5 mm2 carries 18.3,
# so 4 mm2 (24 A). Main switch next above 20 A: 25 A.
WASH_DRUM = {
    "c0.Q": "ISO-25",
    "c1.F": "MB3-13D",
    "c1.FC": "CB1-2C",
    "c1.K": "CON-9",
    "c1.FO": "OL-7-10",
    "c1.S.start": "PB-NO-GN",
    "c1.S.stop": "PB-NC-RD",
    "c1.H.run": "LP-GN",
    "c1.H.trip": "LP-YE",
    "c1.X.U": "T-4",
    "c1.X.PE": "TE-4",
    "c0.X.N": "TN-4",
    "c0.PE": "EB-8",
}


@pytest.mark.parametrize("device", WASH_DRUM)
def test_the_wash_drum_gets_the_parts_worked_out_by_hand(device: str) -> None:
    assert sized(one_motor()).parts[DeviceId(device)].ref == WASH_DRUM[device]


def test_the_wash_drums_currents_and_sections_are_those_worked_out_by_hand() -> None:
    found = sized(one_motor())
    load = found.loads[0]
    assert (load.current.value, load.setting_a, load.section.mm2, load.control.mm2, load.pe_mm2) == (
        8.5,
        8.5,
        1.5,
        1.0,
        1.5,
    )
    assert (found.feeder.mm2, found.feeder_pe_mm2, found.largest_a) == (4, 4, 8.5)
    assert load.section.carries_a == 13.5


@pytest.mark.parametrize("kw", [kw for kw in motor_powers() if kw <= 37])
def test_every_motor_of_the_table_up_to_37_kw_is_carried_by_what_is_chosen(kw: float) -> None:
    found = sized(set_supply(one_motor(kw), upstream_a=100.0))
    load, parts = found.loads[0], found.parts
    overload, breaker, contactor = (parts[DeviceId(f"c1.{role}")] for role in ("FO", "F", "K"))
    assert overload.min_a <= load.setting_a <= overload.max_a
    assert breaker.rated_a >= 1.25 * load.current.value
    assert contactor.rated_a >= load.current.value
    assert load.section.enough
    assert load.section.carries_a >= load.setting_a  # the overload guards them, IEC 60204-1 7.3, from memory
    assert not found.shortfalls


def test_a_motor_beyond_the_catalogue_is_planned_and_said_to_be_short() -> None:
    found = sized(one_motor(200))
    shortfall = dict(found.shortfalls)
    assert DeviceId("c1.K") in shortfall
    assert "350 A" in shortfall[DeviceId("c1.K")]


def test_the_nameplate_wins_over_the_table() -> None:
    job = one_motor()
    found = sized(change_load(job, job.loads[0].id, nameplate_a=7.8))
    assert found.loads[0].setting_a == 7.8
    assert found.loads[0].current.source == "the motor's nameplate"


def test_hotter_air_and_more_circuits_ask_for_thicker_wire(two_motors: Job) -> None:
    # 5.5 kW: 11.5 A. 1.5 mm2 carries 13.5 A; x 0.82 at 50 C = 11.1, x 0.80 with a second circuit = 10.8: too little.
    cool = sized(one_motor(5.5)).loads[0].section
    hot = sized(set_enclosure(one_motor(5.5), ambient_c=50.0)).loads[0].section
    grouped = sized(change_load(two_motors, two_motors.loads[0].id, kw=5.5)).loads[0].section
    assert (cool.mm2, hot.mm2, grouped.mm2) == (1.5, 2.5, 2.5)
    assert grouped.carries_a == pytest.approx(18.3 * 0.8)


def test_every_chosen_device_says_why_with_a_source(evaluation: Evaluation[Job]) -> None:
    whys = evaluation.get(SIZING).whys
    for device in some(evaluation.get(CIRCUITS).devices):
        if device.kind_id in (
            "isolator",
            "motor_breaker",
            "contactor",
            "overload",
            "control_breaker",
            "lamp",
            "terminal",
        ):
            assert whys[device.id], device.id
            assert all(why.source and why.reason for why in whys[device.id])


def test_a_tiny_motor_on_a_very_high_voltage_still_draws_a_current() -> None:
    job = set_supply(one_motor(), voltage_v=90_000.0, voltage_to_neutral_v=51_960.0)
    job = change_load(job, job.loads[0].id, kw=0.001, nameplate_a=5.0)
    # By hand: 1 W / (1.73 x 90 kV x 0.8 x 0.8) is about 0.00001 A, far from the 5 A on the plate.
    issues = plan_for(job).get(PROPOSAL).issues
    assert any("far from" in issue.text for issue in issues)
