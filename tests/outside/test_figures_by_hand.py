"""Figures that decide conductors, fuses and drops, each worked out here by hand from rows quoted from memory."""

from math import sqrt
from typing import Any

import pytest

from riktig.core.job import CableLaying, Job, Protection, Rulebook, Start, add_load, new_job, set_practice, set_supply
from riktig.core.sizing import PROPOSAL, LoadProposal, Value
from riktig.core.standards import cable_core_diameter, heat_coefficient, warm_resistance, wire_diameter
from tests.shared_plan import plan_for


def iec() -> Job:
    return set_supply(new_job("W-2", "worked"), upstream_a=400.0)


def american() -> Job:
    at_480 = {"voltage_v": 480.0, "voltage_to_neutral_v": 277.0, "frequency_hz": 60.0, "neutral": False}
    return set_practice(set_supply(iec(), **at_480), rulebook=Rulebook.UL)  # type: ignore[arg-type]


def sized(job: Job) -> LoadProposal:
    return plan_for(job).get(PROPOSAL).loads[0]


def value_of(job: Job, name: str) -> Value:
    value = sized(job).value(name)
    assert value is not None
    return value


@pytest.mark.parametrize(("hp", "amps"), [(0.5, 3), (0.75, 3), (1, 6), (1.5, 6), (2, 6), (3, 10), (5, 15), (10, 25)])
def test_fuses_of_small_motors(hp: float, amps: float) -> None:
    """NEC Table 430.250 at 460 V: 1.1, 1.6, 2.1, 3.0, 3.4, 4.8, 7.6, 14 A; 430.52: 175 % for time-delay fuses;
    240.6(A): fuses have 1, 3, 6 and 10 A too.
    """
    assert sized(add_load(american(), "fan", hp=hp, protection=Protection.FUSES)).amount("breaker") == amps


def test_a_small_motor_behind_a_breaker_has_15_a() -> None:
    """NEC 240.6(A): the least standard breaker, where the fuse would be 3 A."""
    assert sized(add_load(american(), "fan", hp=0.5)).amount("breaker") == 15


@pytest.mark.parametrize(
    ("kw", "laying", "mm2"),
    [
        # IEC 60947-4-1 Annex G at 400 V: 29, 35, 41, 55, 66 A, through √3; IEC 60204-1 Table 6 C at 40 °C: 2.5 → 21,
        # 4 → 28, 6 → 36, 10 → 50; 30 °C outside × 1.15; six loaded conductors are two circuits: C 0.85, B2 0.80.
        (15.0, CableLaying.WALL, 2.5),  # 16.7 A: 2.5 mm² 21 × 1.15 × 0.85 = 20.5
        (18.5, CableLaying.WALL, 2.5),  # 20.2 A
        (22.0, CableLaying.WALL, 4.0),  # 23.7 A: 4 mm² 27.4
        (30.0, CableLaying.WALL, 6.0),  # 31.8 A: 6 mm² 35.2
        (37.0, CableLaying.WALL, 10.0),  # 38.1 A: 6 mm² 35.2 is short
        (18.5, CableLaying.CONDUIT, 4.0),  # 20.2 A: B2 2.5 mm² 17.4 × 1.15 × 0.80 = 16.0
    ],
)
def test_six_loaded_conductors_of_a_star_delta_motor(kw: float, laying: CableLaying, mm2: float) -> None:
    job = add_load(iec(), "fan", kw, start=Start.STAR_DELTA, cable_m=1.0, laying=laying)
    assert sized(job).cable.mm2 == mm2


def test_six_loaded_conductors_by_the_nec() -> None:
    """NEC Table 430.250: 50 hp 65 A at 460 V; 430.22(C): 72 %; 310.15(C)(1): 80 % for four to six; 310.16 at 75 °C:
    8 AWG 50 A, 6 AWG 65 A: 65 × 0.72 = 46.8 A is more than 0.80 × 50 = 40 A and less than 0.80 × 65 = 52 A.
    """
    cable = sized(add_load(american(), "fan", hp=50.0, start=Start.STAR_DELTA, cable_m=1.0)).cable
    assert cable.name == "6 AWG"


@pytest.mark.parametrize(("together", "mm2"), [(1, 2.5), (2, 4.0), (5, 4.0), (9, 4.0)])
def test_cables_that_lie_together(together: int, mm2: float) -> None:
    """11 kW: 22 A. Table 6 C: 2.5 mm² 21 × 1.15 = 24.2 A; side by side × 0.85, 0.72, 0.70:
    4 mm² 28 × 1.15 × 0.70 = 22.5 A.
    """
    assert sized(add_load(iec(), "fan", 11.0, cable_m=1.0, cables_together=together)).cable.mm2 == mm2


@pytest.mark.parametrize(("kw", "cos"), [(30.0, 0.45), (75.0, 0.35)])
def test_the_drop_on_start_takes_the_power_factor_of_its_size(kw: float, cos: float) -> None:
    """IEC 60947-4-1 Table 7: AC-3 makes at cos φ 0.45 up to 100 A, at 0.35 above (Annex G: 55 and 134 A)."""
    drop = value_of(add_load(iec(), "fan", kw, cable_m=50.0), "drop")
    assert any(f"cos φ {cos:g}" in line for line in drop.why.lines)


def test_the_resistance_of_awg_is_that_of_the_table() -> None:
    """NEC Chapter 9 Table 8 at 75 °C: 14 AWG 3.14, 4 AWG 0.308 Ω/kft, stranded, uncoated."""
    for mm2, ohm_per_kft in ((2.08, 3.14), (21.15, 0.308)):
        assert warm_resistance(mm2).value == pytest.approx(ohm_per_kft / 0.3048, rel=1e-3)
    assert warm_resistance(2.5).value == pytest.approx(7.98 * 1.1965, rel=1e-6)  # IEC 60228 class 5, 20 to 70 °C


@pytest.mark.parametrize(
    ("mm2", "strand_in", "wall_in"), [(2.08, 0.073, 0.03), (8.37, 0.146, 0.045), (13.3, 0.184, 0.06)]
)
def test_panel_wire_is_thicker_than_what_is_drawn_into_conduit(mm2: float, strand_in: float, wall_in: float) -> None:
    """MTW after UL 1063 class A: the strand of NEC Chapter 9 Table 8 and twice the wall; THHN is Table 5's."""
    assert wire_diameter(mm2).value == pytest.approx((strand_in + 2 * wall_in) * 25.4, abs=0.01)
    thhn = {2.08: 0.111, 8.37: 0.216, 13.3: 0.254}[mm2]
    assert cable_core_diameter(mm2).value == pytest.approx(thhn * 25.4, abs=0.01)


def test_thirds_and_roots_are_not_rounded() -> None:
    """A motor of 60 A on its plate: 60 / √3 inside the triangle, 60 / 3 in the star contactor."""
    job = add_load(iec(), "fan", nameplate_a=60.0, start=Start.STAR_DELTA)
    assert value_of(job, "setting").amount == pytest.approx(60 / sqrt(3), abs=0.05)
    star = value_of(job, "star")
    assert any("20 A" in line for line in star.why.lines)


@pytest.mark.parametrize(
    ("material", "sure"), [("painted sheet steel", True), ("aluminium", False), ("stainless steel", False)]
)
def test_bare_metal_is_doubted(material: str, sure: bool) -> None:
    figure: Any = heat_coefficient(material)
    assert (figure.confidence != "unsure") is sure
