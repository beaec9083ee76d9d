"""The catalogue: every part is whole, every kind's pins and units agree."""

from itertools import pairwise

import pytest

from riktig.core.catalogue import Clamp, Kind, Mounting, Part, kind, kinds, part, parts, parts_of


@pytest.mark.parametrize("one", kinds(), ids=lambda one: one.id)
def test_a_kinds_units_join_its_own_pins(one: Kind) -> None:
    names = {pin.name for pin in one.pins}
    assert len(names) == len(one.pins)
    for unit in one.units:
        assert set(unit.pins) <= names
        assert len(unit.pins) >= 2
    assert all(0 <= pin.across <= 1 for pin in one.pins)


@pytest.mark.parametrize("one", parts(), ids=lambda one: one.ref)
def test_a_part_that_is_placed_has_a_size_and_clamps(one: Part) -> None:
    if one.kind.mounting is not Mounting.FIELD:
        assert min(one.width, one.height, one.depth) > 0
    for pin in one.kind.pins:
        if pin.clamp in (Clamp.POWER, Clamp.CONTROL):
            clamp = one.clamp(pin.name)
            assert 0 < clamp.min_mm2 < clamp.max_mm2
            assert clamp.conductors in (1, 2)
        at = one.pin_point(pin)
        assert 0 <= at.x <= max(one.width, 0)
        assert 0 <= at.y <= max(one.height, 0)


def test_references_are_unique_and_found() -> None:
    refs = [one.ref for one in parts()]
    assert len(refs) == len(set(refs))
    assert part("CON-9").kind is kind("contactor")
    with pytest.raises(KeyError):
        part("CON-7")
    with pytest.raises(KeyError):
        kind("steam valve")


@pytest.mark.parametrize("kind_id", ["isolator", "motor_breaker", "contactor", "control_breaker", "terminal"])
def test_ratings_rise_within_a_kind(kind_id: str) -> None:
    rated = [one.rated_a for one in parts_of(kind_id)]
    assert rated == sorted(rated)


def test_overload_ranges_leave_no_gap_from_the_smallest_motor_to_the_largest_contactor() -> None:
    ranges = [(one.min_a, one.max_a) for one in parts_of("overload")]
    assert all(low <= last for (_, last), (low, _) in pairwise(ranges))
    assert ranges[-1][1] >= parts_of("contactor")[-1].rated_a


def test_terminals_and_bars_take_one_conductor_a_clamp() -> None:
    assert part("T-4").clamp("i").conductors == 1
    assert part("EB-8").clamp("3").conductors == 1
    assert part("CON-9").clamp("A1").conductors == 2
