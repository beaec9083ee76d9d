"""Rows of the North American tables and of the further IEC tables, typed in from memory of the print.

They guard the data files against slips of the keyboard; they share one memory with them and prove no print.
"""

import pytest

from riktig.core.standards import (
    conductor_name,
    cooling_area_factors,
    heat_coefficient,
    is_awg,
    limited_energy_va,
    motor_current_hp,
    nec_ambient_factor,
    nec_branch_percent,
    nec_conductor_current,
    nec_grouping_factor,
    nec_locked_rotor,
    nec_motor_current,
    nec_overload_percent,
    nec_protective_size,
    nec_rating_above,
    nec_rating_below,
    nec_sizes,
    panel_conductor_current,
    rule,
    small_conductor_current,
    standard_sections,
    transformer_primary_share,
    transformer_secondary,
    wire_resistance,
)

AWG = {"18": 0.823, "14": 2.08, "12": 3.31, "10": 5.26, "8": 8.37, "6": 13.3, "4": 21.15, "1": 42.41, "1/0": 53.48}
AWG |= {"2/0": 67.43, "4/0": 107.2, "250": 127.0}


@pytest.mark.parametrize(
    ("hp", "volts", "phases", "amps"),
    [
        (1, 460, 3, 2.1),
        (5, 230, 3, 15.2),
        (10, 480, 3, 14),
        (25, 480, 3, 34),
        (50, 208, 3, 143),
        (100, 575, 3, 99),
        (100, 600, 3, 99),
        (0.25, 115, 1, 5.8),
        (1.5, 230, 1, 10),
        (3, 240, 2, 17),
        (4, 480, 3, 7.6),
    ],
)
def test_motor_currents_of_nec_430(hp: float, volts: float, phases: int, amps: float) -> None:
    """NEC Tables 430.248 and 430.250; 480 V reads the 460 V column; 4 hp, between rows, takes 5 hp."""
    assert nec_motor_current(hp, volts, phases).value == amps


def test_beyond_the_tables_no_current_is_invented() -> None:
    with pytest.raises(ValueError, match="beyond the table"):
        nec_motor_current(600, 480, 3)
    with pytest.raises(ValueError, match="beyond the table"):
        nec_motor_current(15, 230, 1)
    assert nec_locked_rotor(300, 480) is None
    assert motor_current_hp(500, 400) is None


@pytest.mark.parametrize(("hp", "amps"), [(1, 15), (10, 81), (40, 290), (200, 1450)])
def test_locked_rotor_currents_of_nec_430_251(hp: float, amps: float) -> None:
    """NEC Table 430.251(B), 460 V."""
    found = nec_locked_rotor(hp, 480)
    assert found
    assert found.value == amps


@pytest.mark.parametrize(("hp", "volts", "amps"), [(5, 400, 9.7), (10, 415, 18), (10, 480, 14), (100, 400, 165)])
def test_the_horsepower_block_of_annex_g(hp: float, volts: float, amps: float) -> None:
    """IEC 60947-4-1 Annex G, hp block."""
    found = motor_current_hp(hp, volts)
    assert found
    assert found.value == amps


@pytest.mark.parametrize(
    ("size", "at_60", "at_75", "at_90"),
    [("14", 15, 20, 25), ("10", 30, 35, 40), ("6", 55, 65, 75), ("1/0", 125, 150, 170), ("250", 215, 255, 290)],
)
def test_conductor_currents_of_nec_310_16(size: str, at_60: float, at_75: float, at_90: float) -> None:
    """NEC Table 310.16, copper."""
    found = [nec_conductor_current(AWG[size], celsius).value for celsius in (60, 75, 90)]
    assert found == [at_60, at_75, at_90]


@pytest.mark.parametrize(
    ("size", "at_60", "at_75"), [("14", 15, 15), ("10", 30, 30), ("8", 40, 50), ("1", 110, 130), ("2/0", 175, 175)]
)
def test_conductor_currents_inside_a_panel(size: str, at_60: float, at_75: float) -> None:
    """UL 508A Table 28.1; above 1 AWG there is a 75 °C column only."""
    assert panel_conductor_current(AWG[size], 60).value == at_60
    assert panel_conductor_current(AWG[size], 75).value == at_75


def test_small_sizes_are_for_control_only() -> None:
    """NFPA 79 Table 12.5.1: 18 AWG 7 A, 16 AWG 10 A."""
    assert small_conductor_current(0.823).value == 7
    assert small_conductor_current(1.31).value == 10
    assert min(nec_sizes()) == AWG["14"]


@pytest.mark.parametrize(("ambient", "factor"), [(8, 1.20), (30, 1.00), (31, 0.94), (44, 0.82), (70, 0.33), (75, 0.0)])
def test_ambient_factors_of_the_nec(ambient: float, factor: float) -> None:
    """NEC Table 310.15(B)(1), 75 °C insulation; beyond it nothing is carried."""
    assert nec_ambient_factor(ambient, 75).value == factor


@pytest.mark.parametrize(("conductors", "factor"), [(3, 1.0), (4, 0.8), (9, 0.7), (12, 0.5), (45, 0.35)])
def test_grouping_factors_of_the_nec(conductors: int, factor: float) -> None:
    """NEC Table 310.15(C)(1)."""
    assert nec_grouping_factor(conductors).value == factor


@pytest.mark.parametrize(
    ("device", "phases", "share"),
    [
        ("inverse_time_breaker", 3, 2.5),
        ("dual_element_time_delay_fuse", 3, 1.75),
        ("instantaneous_trip_breaker", 3, 8.0),
        ("nontime_delay_fuse", 1, 3.0),
    ],
)
def test_branch_protection_of_nec_430_52(device: str, phases: int, share: float) -> None:
    """NEC Table 430.52(C)(1)."""
    assert nec_branch_percent(device, phases=phases).value == share


def test_overload_limits_of_nec_430_32() -> None:
    """NEC 430.32(A)(1) and (C)."""
    assert [f.value for f in nec_overload_percent(1.15)] == [1.25, 1.40]
    assert [f.value for f in nec_overload_percent(1.0)] == [1.15, 1.30]


@pytest.mark.parametrize(("amps", "above", "below"), [(85, 90, 80), (118, 125, 110), (15, 15, 15), (3, 15, 15)])
def test_standard_ratings_of_nec_240_6(amps: float, above: float, below: float) -> None:
    """NEC 240.6(A); below the list its first rating stands."""
    assert (nec_rating_above(amps), nec_rating_below(amps)) == (above, below)


@pytest.mark.parametrize(("amps", "size"), [(15, "14"), (20, "12"), (60, "10"), (90, "8"), (200, "6")])
def test_equipment_grounding_conductors(amps: float, size: str) -> None:
    """NEC Table 250.122, copper."""
    area = 13.3 if size == "6" else AWG[size]
    assert nec_protective_size(amps).value == area


@pytest.mark.parametrize(
    ("mm2", "name"), [(2.08, "14 AWG"), (53.48, "1/0 AWG"), (127.0, "250 kcmil"), (2.5, "2.5 mm²"), (1.5, "1.5 mm²")]
)
def test_a_conductor_is_called_by_its_own_name(mm2: float, name: str) -> None:
    assert conductor_name(mm2) == name


def test_no_metric_section_is_taken_for_an_american_size() -> None:
    assert not any(is_awg(mm2) for mm2 in standard_sections())
    assert all(is_awg(mm2) for mm2 in nec_sizes())


def test_what_the_schedules_need_is_known_of_american_sizes() -> None:
    """NEC Chapter 9 Table 8: 10 AWG 1.24 Ω/kft at 75 °C."""
    at_20 = 1.24 / 0.3048 / (1 + 0.00393 * 55)
    assert wire_resistance(AWG["10"]).value == pytest.approx(at_20, abs=0.001)


@pytest.mark.parametrize(("volts", "va"), [(24, 100), (30, 100), (12, 60), (48, 0)])
def test_limited_energy(volts: float, va: float) -> None:
    """NEC Chapter 9 Table 11(A): 5 A nameplate up to 20 V, 100 VA up to 30 V, nothing above."""
    assert limited_energy_va(volts).value == va


@pytest.mark.parametrize(("va", "amps"), [(50, 0.5), (100, 1.0), (120, 1.6), (500, 5)])
def test_transformer_secondaries(va: float, amps: float) -> None:
    """NFPA 79 Table 7.2.11."""
    assert transformer_secondary(va).value == amps


@pytest.mark.parametrize(("amps", "share"), [(0.3, 3.0), (5, 1.67), (20, 1.25)])
def test_transformer_primaries(amps: float, share: float) -> None:
    """NEC Table 450.3(B), primary protection only."""
    assert transformer_primary_share(amps).value == share


def test_heat_figures() -> None:
    """IEC 60890 surface factors; an unknown material counts as the worst, unsure."""
    assert cooling_area_factors("on a wall") == (1.4, 1.8, 1.4)
    assert heat_coefficient("painted sheet steel").value == 5.5
    assert heat_coefficient("oak").value == 3.5
    assert heat_coefficient("oak").confidence == "unsure"


@pytest.mark.parametrize(
    ("name", "value"),
    [
        ("nec branch conductor", 1.25),
        ("nec disconnect", 1.15),
        ("nec star-delta conductor", 0.72),
        ("overload limit", 0.5),
    ],
)
def test_single_rules_have_their_figure_source_and_confidence(name: str, value: float) -> None:
    found = rule(name)
    assert found.value == value
    assert found.source
    with pytest.raises(KeyError):
        rule(f"no {name}")
