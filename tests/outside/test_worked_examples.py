"""Worked examples, each computed here by hand from the published method, against what Riktig proposes.

The tables are quoted from memory: the rows used are typed in beside each example, and the arithmetic is done in the
test, not copied from the program. They guard the method; a print of the standard has to be held against the rows.
"""

from dataclasses import replace
from math import sqrt
from typing import Any

import pytest

from riktig.core.job import (
    ElementId,
    EnclosureMounting,
    Job,
    LoadKind,
    Protection,
    Rulebook,
    StarDeltaOverload,
    Start,
    TerminalTemperature,
    Ventilation,
    WayOrder,
    Wetting,
    add_load,
    add_signal,
    change_load,
    new_job,
    set_enclosure,
    set_practice,
    set_supply,
)
from riktig.core.schematic import CIRCUITS, remove_element, with_names_recorded
from riktig.core.sizing import INSIDE_AIR, PROPOSAL, SIZING, LoadProposal, Proposal, cooling_area, temperature_rise
from tests.shared_plan import plan_for


def iec(**supply: Any) -> Job:
    return set_supply(new_job("W-1", "worked"), **({"upstream_a": 100.0} | supply))


def american(**supply: Any) -> Job:
    values = {"voltage_v": 480.0, "voltage_to_neutral_v": 277.0, "frequency_hz": 60.0, "neutral": False}
    return set_practice(iec(**(values | supply)), rulebook=Rulebook.UL)


def of(job: Job) -> Proposal:
    return plan_for(job).get(PROPOSAL)


def first(job: Job) -> LoadProposal:
    return of(job).loads[0]


def test_one_branch_by_iec() -> None:
    """IEC 60947-4-1 Annex G: 7.5 kW at 400 V, 15.5 A. IEC 60204-1 Table 6 B1 at 40 °C: 1.5 → 13.5 A, 2.5 → 18.3 A."""
    one = first(add_load(iec(), "pump", 7.5))
    assert one.amount("current") == 15.5
    assert one.amount("setting") == 15.5
    assert one.amount("breaker") == 20  # 1.25 × 15.5 = 19.4, next of the preferred ratings of IEC 60898-1
    assert one.amount("contactor") == 18  # next made AC-3 current not below 15.5
    assert (one.section.mm2, one.section.carries_a) == (2.5, 18.3)


def test_one_branch_by_the_nec() -> None:
    """NEC handbook practice: 25 hp at 460 V, Table 430.250: 34 A; 430.22: 42.5 A; 430.52: 250 % and 175 %."""
    job = add_load(american(), "fan", hp=25.0)
    one = first(job)
    assert one.amount("current") == 34
    assert one.amount("breaker") == 90  # 2.5 × 34 = 85, not standard, so the next of 240.6(A)
    # 1.25 × 34 = 42.5 A: 60 °C column of UL 508A Table 28.1, 8 AWG 40 A is too little, 6 AWG carries 55 A.
    assert one.section.name == "6 AWG"
    assert one.section.carries_a == 55
    fused = first(add_load(american(), "fan", hp=25.0, protection=Protection.FUSES))
    assert fused.amount("breaker") == 60  # 1.75 × 34 = 59.5, next standard 60
    assert one.amount("disconnect") == pytest.approx(1.15 * 34)  # 430.110(A)
    warm = first(set_practice(job, terminal_c=TerminalTemperature.C75))
    assert warm.section.name == "8 AWG"  # 50 A in the 75 °C column


def test_a_feeder_for_several_motors_by_the_nec() -> None:
    """NEC 430.24 and 430.62(A): 25 hp and two of 10 hp at 460 V, 34 + 14 + 14 A."""
    job = american()
    for name, hp in (("fan", 25.0), ("pump", 10.0), ("second pump", 10.0)):
        job = add_load(job, name, hp=hp)
    found = of(job)
    control_a = found.control.line_a
    assert found.incoming.feeder.needs_a == pytest.approx(1.25 * 34 + 14 + 14 + control_a, abs=0.06)
    # Largest branch device 90 A + 14 + 14 = 118 A, rounded down to a standard rating: 110 A.
    upstream = found.value("panel.upstream")
    assert upstream
    assert upstream.amount == 110


def test_star_delta_inside_the_triangle_and_in_the_line() -> None:
    """Electrical relations: phase current I / √3, star contactor I / 3, a third of the starting current."""
    job = add_load(iec(), "fan", 30.0, start=Start.STAR_DELTA)  # Annex G: 55 A
    one = first(job)
    assert one.amount("setting") == pytest.approx(55 / sqrt(3), abs=0.06)
    assert one.amount("contactor") == 32  # 31.8 A
    assert one.amount("star") == 25  # 18.3 A, next made size above 18
    assert one.amount("start") == pytest.approx(7.2 * 55 / 3, abs=1)
    line = first(set_practice(job, star_delta_overload=StarDeltaOverload.LINE))
    assert line.amount("setting") == 55


def test_star_delta_conductors_by_the_nec() -> None:
    """NEC 430.22(C): 125 % on the line side, 72 % between controller and motor. 40 hp at 460 V: 52 A."""
    one = first(add_load(american(), "fan", hp=40.0, start=Start.STAR_DELTA, cable_m=5.0))
    assert one.section.needs_a == pytest.approx(1.25 * 52)
    assert one.cable.needs_a == pytest.approx(0.72 * 52, abs=0.01)


def test_ambient_and_grouping_by_iec() -> None:
    """IEC 60204-1 D.1: 50 °C 0.82; D.2: four circuits 0.65. 11 kW: 22 A. 10 mm² 44 A, 6 mm² 31 A, 4 mm² 24 A."""
    job = iec()
    for name in ("a", "b", "c", "d"):
        job = add_load(job, name, 11.0)
    assert first(set_enclosure(job, ambient_c=50.0)).section.carries_a == pytest.approx(44 * 0.82 * 0.65)
    assert first(set_enclosure(job, ambient_c=50.0)).section.mm2 == 10  # 44 × 0.533 = 23.5 ≥ 22 > 31 × 0.533
    assert first(job).section.mm2 == 10  # 31 × 0.65 = 20.2 < 22


def test_a_cable_in_a_warm_room_by_the_nec() -> None:
    """NEC 310.16: 6 AWG 65 A at 75 °C; 310.15(B)(1): 41 to 45 °C 0.82; 110.14(C): 55 A at clamps of 60 °C."""
    job = set_enclosure(add_load(american(), "fan", hp=30.0, cable_m=5.0), room_c=44.0)  # 40 A, 1.25 × 40 = 50 A
    one = first(job)
    assert one.cable.name == "6 AWG"
    assert one.cable.carries_a == pytest.approx(min(65 * 0.82, 55))


@pytest.mark.parametrize(("kw", "phase", "earth"), [(4.0, 1.5, 1.5), (18.5, 10, 10), (37.0, 25, 16)])
def test_the_protective_conductor_by_iec(kw: float, phase: float, earth: float) -> None:
    """IEC 60204-1 Table 1: S up to 16 mm², 16 up to 35. B1: 8.5 A 1.5, 35 A 10 (44 A), 66 A 25 (77 A)."""
    one = first(add_load(iec(upstream_a=200.0), "fan", kw))
    assert (one.section.mm2, one.amount("pe")) == (phase, earth)


def test_the_protective_conductor_by_the_nec() -> None:
    """NEC 250.122: up to 60 A 10 AWG (5.26 mm²), up to 100 A 8 AWG (8.37 mm²); not larger than the circuit's own."""
    assert first(add_load(american(), "fan", hp=25.0)).amount("pe") == 8.37  # behind 90 A
    assert first(add_load(american(), "fan", hp=1.0)).amount("pe") == 2.08  # 15 A: 14 AWG


def test_a_control_transformer() -> None:
    """Three starters: held 3 × (8 + 1.2) VA, the largest pull-in 62 − 8 VA above it (part data)."""
    job = iec()
    for name in ("a", "b", "c"):
        job = add_load(job, name, 4.0)
    found = of(job)
    held = 3 * (8 + 2 * 0.6)
    assert found.value("panel.held").amount == pytest.approx(held, abs=0.06)  # type: ignore[union-attr]
    assert found.value("panel.pick_up").amount == pytest.approx(held + 62 - 8, abs=0.06)  # type: ignore[union-attr]
    # 1.25 × 27.6 = 34.5 VA, 81.6 / 4 = 20.4 VA: 63 VA would serve, but its fuse, 63 / 230 = 0.274 A, so 0.25 A, would
    # not open after those of the circuits: 1.6 × 0.2 = 0.32 A. 100 / 230 = 0.435 A: the next link below is 0.4 A.
    assert found.value("panel.transformer").amount == 100  # type: ignore[union-attr]
    assert found.value("panel.secondary").amount == 0.4  # type: ignore[union-attr]


def test_a_transformers_protection_by_the_nec() -> None:
    """NFPA 79 Table 7.2.11: 50 VA at 120 V 0.5 A; NEC 450.3(B): 300 % of a primary current under 2 A."""
    found = of(add_load(american(), "fan", hp=1.0))
    assert found.value("panel.transformer").amount == 50  # type: ignore[union-attr]
    assert found.value("panel.secondary").amount == 0.5  # type: ignore[union-attr]
    primary = found.value("panel.primary")
    assert primary
    assert "31" in primary.why.lines[0]  # 3.00 × 50 / 480 = 0.31 A
    assert pytest.approx(0.3125) == 3 * 50 / 480


def test_the_drop_along_a_motor_cable() -> None:
    """IEC 60364-5-52 Annex G: √3 I L (R cos φ + X sin φ) / U. 15.5 A, 60 m of 2.5 mm²: 7.98 Ω/km at 20 °C × 1.2."""
    one = first(add_load(iec(), "pump", 7.5, cable_m=60.0))
    resistance, cos = 7.98 * 1.2, 0.85
    drop = sqrt(3) * 15.5 * 0.060 * (resistance * cos + 0.08 * sqrt(1 - cos**2)) / 400
    assert one.cable.mm2 == 2.5
    assert one.amount("drop") == pytest.approx(100 * drop, abs=0.01)


def test_a_long_cable_grows_until_the_drop_is_allowed() -> None:
    """The same at 200 m: 2.5 mm² 11 %, 4 mm² (4.95) 6.9 %, 6 mm² (3.3) 4.6 % of at most 5 %."""
    one = first(add_load(iec(), "pump", 7.5, cable_m=200.0))
    assert one.cable.mm2 == 6
    assert 4 < one.amount("drop") < 5


def test_single_phase_ways_in_turn_and_evened() -> None:
    """By hand: ways of 10, 2, 8, 6 A. In turn L1 10 + 6, L2 2, L3 8; evened 10 | 8 | 6 + 2."""
    job = iec()
    for name, amps in (("a", 10.0), ("b", 2.0), ("c", 8.0), ("d", 6.0)):
        job = add_load(job, name, nameplate_a=amps, kind=LoadKind.SOCKETS, phases=1, start=Start.WAY)
    assert of(job).incoming.lines == (16, 2, 8)
    assert of(set_practice(job, way_order=WayOrder.EVEN)).incoming.lines == (10, 8, 8)
    assert of(job).value("panel.neutral").amount == 16  # type: ignore[union-attr]


def test_heat_in_a_closed_box_on_a_wall() -> None:
    """IEC 60890 surface factors: 1.4 W(H + D) + 1.8 D H for 0.6 × 0.8 × 0.3 m; sheet steel 5.5 W/m²K; 60 W."""
    area = 1.4 * 0.6 * (0.8 + 0.3) + 1.8 * 0.3 * 0.8
    assert cooling_area(600, 800, 300, EnclosureMounting.WALL.value) == pytest.approx(area)
    box = replace(new_job().enclosure, width=600.0, height=800.0, depth=300.0)
    assert temperature_rise(60, box) == pytest.approx(60 / (5.5 * area))


def test_a_filter_fan() -> None:
    """Trade formula: V = 3.1 P / ΔT at sea level. 340 W and 10 K want 105 m³/h."""
    box = new_job().enclosure
    assert temperature_rise(340, box, fan_m3_h=105.4) == pytest.approx(10, abs=0.01)
    job = add_load(iec(), "mill", 11.0, start=Start.DRIVE)
    job = set_enclosure(job, ventilation=Ventilation.FAN, room_c=30.0, ambient_c=40.0)
    evaluation = plan_for(with_names_recorded(job))
    air = evaluation.get(INSIDE_AIR)
    fans = [d for d in evaluation.get(CIRCUITS).devices if d.kind_id == "filter_fan"]
    assert len(fans) == 1, "it is drawn, cut out, bought and fed"
    assert evaluation.get(SIZING).parts[fans[0].id].flow_m3_h >= 3.1 * air.total_w / 10
    assert air.inside_c <= 40
    assert of(job).value("panel.inside").amount == air.inside_c  # type: ignore[union-attr]


def test_without_a_drawn_fan_nothing_cools() -> None:
    """The Brief's word alone moves no air: with the fan taken out the box is as warm as a closed one."""
    job = add_load(iec(), "mill", 11.0, start=Start.DRIVE)
    job = with_names_recorded(set_enclosure(job, ventilation=Ventilation.FAN, room_c=30.0, ambient_c=40.0))
    fan = next(d for d in plan_for(job).get(CIRCUITS).devices if d.kind_id == "filter_fan")
    bare = remove_element(job, ElementId(f"{fan.id}/L-N"))
    air = plan_for(bare).get(INSIDE_AIR)
    closed = temperature_rise(air.total_w, bare.enclosure)
    assert air.inside_c == pytest.approx(30 + closed, abs=0.1)


def test_the_24_volt_budget_and_the_limited_energy_supply() -> None:
    """84 W and the controller that reads it, 8 W, over 24 V are 3.8 A, a fifth more 4.6 A, next made 5 A.

    Class 2: 100 VA between 20 and 30 V (NEC Table 11(A)).
    """
    job = add_signal(add_load(iec(), "fan", 4.0), "controller", wetting=Wetting.DC, watts=84.0)
    found = of(job)
    assert found.value("panel.dc_supply").amount == 5  # type: ignore[union-attr]
    assert found.value("panel.dc_groups").amount == 1  # type: ignore[union-attr]
    job = add_signal(job, "sensors", wetting=Wetting.LIMITED, watts=101.0)
    assert of(job).value("panel.limited").shortfall == "more than 100 VA"  # type: ignore[union-attr]


def test_what_the_main_switch_must_break() -> None:
    """IEC 60204-1 5.3.3: the largest motor stalled with the rest running. 8.5 and 4.9 A; 7.2 × 8.5 = 61 A."""
    job = add_load(add_load(iec(upstream_a=20.0), "drum", 4.0), "pump", 2.2)
    breaking = of(job).value("panel.breaking")
    assert breaking
    assert breaking.amount == pytest.approx(8.5 + 4.9 + (61 - 8.5), abs=1)
    assert not breaking.shortfall  # a 25 A switch of category AC-23 breaks 8 × 25 = 200 A


def test_a_neutral_that_two_ways_share() -> None:
    """Two ways behind 10 A: on one line 20 A together, 2.5 mm² (method C, 30 °C: 21 × 1.15); on two lines 10 A."""
    job = iec()
    for name in ("a", "b"):
        job = add_load(job, name, nameplate_a=9.5, kind=LoadKind.SOCKETS, phases=1, start=Start.WAY, cable_m=5.0)
    a, b = (load.id for load in job.loads)
    assert of(job).loads[1].amount("neutral") == 1.5
    apart = change_load(change_load(job, b, neutral_of=a), a, phase=1)
    assert of(change_load(apart, b, phase=2)).loads[0].amount("neutral") == 1.5
    together = of(change_load(apart, b, phase=1))
    # 1.5 mm² carries 15.2 × 1.15 = 17.5 A, 2.5 mm² 21 × 1.15 = 24.2 A.
    assert [one.amount("neutral") for one in together.loads] == [2.5, 2.5]
    assert "shared" in together.value("m1.neutral").text  # type: ignore[union-attr]


def test_a_through_feed_is_one_size_larger_than_the_panels_own() -> None:
    """Own feed behind 25 A: 6 mm² (31 A); 20 A pass through, for which 4 mm² (24 A) would do: 10 mm² by practice."""
    found = of(set_supply(add_load(iec(upstream_a=25.0), "fan", 4.0), through_a=20.0))
    assert found.incoming.feeder.mm2 == 6
    assert found.value("panel.through").amount == 10  # type: ignore[union-attr]


def test_a_resistive_load_takes_the_frame_by_its_ac_1_current() -> None:
    """12 kW at 400 V: 12000 / (√3 × 400) = 17.3 A; a 9 A AC-3 frame carries 25 A AC-1 (part data)."""
    heater = add_load(iec(), "dryer", 12.0, kind=LoadKind.HEATER, start=Start.CONTACTOR)
    one = first(heater)
    assert one.amount("current") == pytest.approx(12000 / (sqrt(3) * 400), abs=0.01)
    assert one.value("contactor").text == "25 A AC-1"  # type: ignore[union-attr]
    assert one.value("setting") is None
    assert one.amount("breaker") == 20  # next of the preferred ratings


def test_a_drive_and_a_soft_starter() -> None:
    """15.5 A motor: drive next above 17 A; input 1.1 × 15.5 = 17.1 A; start held at 1.5 and 3.5 times (typical)."""
    drive = first(add_load(iec(), "belt", 7.5, start=Start.DRIVE))
    assert drive.amount("device") == 17
    assert drive.amount("breaker") == 25  # 1.25 × 17.1 = 21.3
    assert drive.amount("start") == pytest.approx(1.5 * 15.5, abs=0.5)
    assert drive.value("breaker").unsure  # type: ignore[union-attr]
    assert any("10 mA" in line for line in drive.value("pe").why.lines)  # type: ignore[union-attr]
    soft = first(add_load(iec(), "fan", 7.5, start=Start.SOFT))
    assert soft.amount("device") == 16
    assert soft.amount("start") == pytest.approx(3.5 * 15.5, abs=0.5)


def test_fuses_and_a_motor_protector_by_iec() -> None:
    """8.5 A: gG 2 × 8.5 = 17, next 20 A (IEC 60269); a protector whose dial reaches 8.5 A."""
    assert first(add_load(iec(), "drum", 4.0, protection=Protection.FUSES)).amount("breaker") == 20
    guarded = first(add_load(iec(), "drum", 4.0, protection=Protection.PROTECTOR)).value("breaker")
    assert guarded
    assert "6.3 A ≤ 8.5 A ≤ 10 A" in guarded.why.lines
