"""The figures the main job stands on, against the printed tables.

The values here and the shipped data files come from the same memory of the named tables, so agreement guards a row
against being changed by mistake; it does not prove the print. Independent are the checks against the building tables,
the laws behind the factors and the power formula. All are to be compared with the print.
"""

import pytest

from riktig.core.sizing import SIZING
from riktig.core.standards import ambient_factor, conductor_current, grouping_factor, motor_current
from tests.core.schematic.builders import one_motor
from tests.shared_plan import plan_for

# IEC 60947-4-1 Annex G, Table G.1, 400 V column: kW to A. From memory.
ANNEX_G_400 = {
    0.37: 1.1,
    0.55: 1.5,
    0.75: 1.9,
    1.1: 2.7,
    1.5: 3.6,
    2.2: 4.9,
    3: 6.5,
    4: 8.5,
    5.5: 11.5,
    7.5: 15.5,
    11: 22,
    15: 29,
    18.5: 35,
    22: 41,
    30: 55,
    37: 66,
    45: 80,
    55: 97,
    75: 132,
}
# IEC 60947-4-1 Annex G, Table G.1, 230 V column. From memory.
ANNEX_G_230 = {0.37: 1.9, 0.75: 3.3, 1.5: 6.3, 2.2: 8.5, 4: 15, 7.5: 27, 11: 38}
# IEC 60204-1:2016 Table 6, method B1, PVC copper, 40 degrees: mm2 to A. From memory.
TABLE_6_B1 = {
    0.75: 8.6,
    1.0: 10.3,
    1.5: 13.5,
    2.5: 18.3,
    4: 24,
    6: 31,
    10: 44,
    16: 59,
    25: 77,
    35: 96,
    50: 117,
    70: 149,
}
# IEC 60364-5-52 Table B.52.4, method B1, PVC copper, 30 degrees, three loaded conductors. From memory.
TABLE_B52_4_B1 = {1.5: 15.5, 2.5: 21, 4: 28, 6: 36, 10: 50, 16: 68, 25: 89, 35: 110, 50: 134}


@pytest.mark.parametrize(("kw", "amps"), ANNEX_G_400.items())
def test_motor_currents_at_400_v(kw: float, amps: float) -> None:
    assert motor_current(kw, 400).value == amps


@pytest.mark.parametrize(("kw", "amps"), ANNEX_G_230.items())
def test_motor_currents_at_230_v(kw: float, amps: float) -> None:
    assert motor_current(kw, 230).value == amps


@pytest.mark.parametrize(("mm2", "amps"), TABLE_6_B1.items())
def test_conductor_currents_in_duct(mm2: float, amps: float) -> None:
    assert conductor_current(mm2).value == amps


@pytest.mark.parametrize(("mm2", "amps"), TABLE_B52_4_B1.items())
def test_conductor_currents_agree_with_the_building_tables_corrected_to_40_degrees(mm2: float, amps: float) -> None:
    # A second published table, times its own factor of 0.87 for 40 degrees (Table B.52.14), within 3 %.
    assert conductor_current(mm2).value == pytest.approx(0.87 * amps, rel=0.03)


@pytest.mark.parametrize(("celsius", "factor"), [(30, 1.15), (35, 1.08), (40, 1.0), (45, 0.91), (50, 0.82), (55, 0.71)])
def test_ambient_factors_of_table_d1_follow_the_law_behind_them(celsius: float, factor: float) -> None:
    # IEC 60204-1 Table D.1, from memory; and sqrt((70 - t) / (70 - 40)) for PVC, within 0.01.
    assert ambient_factor(celsius).value == factor
    assert factor == pytest.approx(((70 - celsius) / 30) ** 0.5, abs=0.011)


@pytest.mark.parametrize(("circuits", "factor"), [(2, 0.80), (4, 0.65), (6, 0.57), (9, 0.50)])
def test_grouping_factors_of_table_d2(circuits: int, factor: float) -> None:
    assert grouping_factor(circuits).value == factor


@pytest.mark.parametrize(("kw", "amps"), [(kw, a) for kw, a in ANNEX_G_400.items() if kw <= 37])
def test_the_planned_overload_is_set_to_the_published_current(kw: float, amps: float) -> None:
    assert plan_for(one_motor(kw)).get(SIZING).loads[0].setting_a == amps


def test_current_follows_from_power_voltage_efficiency_and_power_factor() -> None:
    # Handbook formula I = P / (sqrt 3 U eta cos phi), with eta 0.84 and cos phi 0.82 for 4 kW (typical values of
    # four-pole motors, from memory): 8.4 A, within 5 % of the table.
    assert motor_current(4, 400).value == pytest.approx(4000 / (3**0.5 * 400 * 0.84 * 0.82), rel=0.05)
