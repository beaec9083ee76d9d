"""Distances, bending room and assumed loading, against the published tables, from memory."""

import pytest

from riktig.core.standards import american_spacings, assumed_loading, bending_room, clearance, creepage, impulse_voltage


@pytest.mark.parametrize(
    ("to_neutral", "kilovolts", "air"),
    [(50, 0.8, 1.5), (120, 2.5, 1.5), (230, 4.0, 3.0), (277, 4.0, 3.0), (400, 6.0, 5.5), (690, 8.0, 8.0)],
)
def test_clearances(to_neutral: float, kilovolts: float, air: float) -> None:
    """IEC 60664-1 Table F.1 (category III) and IEC 61439-1 Table 1, from memory: sure."""
    impulse = impulse_voltage(to_neutral)
    assert impulse
    assert impulse.value == kilovolts
    least = clearance(kilovolts)
    assert least
    assert least.value == air


@pytest.mark.parametrize(
    ("volts", "least"), [(230, 4.0), (400, 6.3), (480, 8.0), (500, 8.0), (690, 12.5), (1000, 16.0)]
)
def test_creepages(volts: float, least: float) -> None:
    """IEC 61439-1 Table 2, pollution degree 3, material group IIIa, from memory: sure; 690 V takes the row of 800 V."""
    distance = creepage(volts)
    assert distance
    assert distance.value == least


@pytest.mark.parametrize(
    ("volts", "spacings"), [(120, (3.2, 6.4, 12.7)), (240, (6.4, 9.5, 12.7)), (480, (9.5, 12.7, 12.7))]
)
def test_american_spacings(volts: float, spacings: tuple[float, float, float]) -> None:
    """UL 508A clause 10, from memory: 1/8, 1/4 and 3/8 in of air; fairly sure."""
    assert american_spacings(volts) == spacings


@pytest.mark.parametrize(
    ("mm2", "room"), [(5.26, 0), (8.37, 38), (13.3, 38), (21.2, 50), (33.6, 65), (53.5, 125), (107.2, 175)]
)
def test_bending_room(mm2: float, room: float) -> None:
    """NEC Table 430.10(B): 10 AWG none, 8 and 6 AWG 1 1/2 in, 4 AWG 2 in, 2 AWG 2 1/2 in, 1/0 5 in, 4/0 7 in."""
    least = bending_room(mm2)
    assert least
    assert least.value == room


@pytest.mark.parametrize(
    ("circuits", "share"), [(1, 1.0), (2, 0.9), (3, 0.9), (4, 0.8), (6, 0.7), (9, 0.7), (10, 0.6), (40, 0.6)]
)
def test_assumed_loading(circuits: int, share: float) -> None:
    """IEC 61439-2 Table 101, from memory: sure."""
    assert assumed_loading(circuits).value == share


def test_beyond_the_tables_nothing_is_said() -> None:
    assert impulse_voltage(1500) is None
    assert clearance(20) is None
    assert creepage(1500) is None
    assert american_spacings(1000) is None
    assert bending_room(500) is None
