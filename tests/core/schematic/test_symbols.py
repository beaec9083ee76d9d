"""Symbols: each joins its line above and below, and contacts show at rest whether they are closed."""

import pytest

from riktig.core.catalogue import Behaviour, kind, kinds
from riktig.core.geometry import Circle, Line, Poly, Text, bounds_of
from riktig.core.keys import PartKey, read_key
from riktig.core.schematic.symbols.choose import earth_sign, motor_sign, symbol_of

UNITS = [
    (kind.id, unit.name, unit.behaviour)
    for kind in kinds()
    for unit in kind.units
    if unit.behaviour is not Behaviour.WINDING and "bar" not in kind.id
]
BLADELESS = ("fuse", "link", "soft", "drive", "output")


def has_blade(kind_id: str, name: str) -> bool:
    return kind(kind_id).unit(name).symbol not in BLADELESS


TOP, BOTTOM, X = 10.0, 34.0, 50.0


@pytest.mark.parametrize(("kind_id", "unit", "behaviour"), UNITS, ids=lambda v: str(getattr(v, "value", v)))
def test_a_symbol_joins_its_line_at_both_ends_and_carries_its_key(
    kind_id: str, unit: str, behaviour: Behaviour
) -> None:
    shapes = symbol_of(kind_id, unit)(X, TOP, BOTTOM, read_key("element:e"))
    ends = {(x, y) for m in shapes if isinstance(m, Line) for x, y in ((m.x1, m.y1), (m.x2, m.y2))}
    ends |= {(p.x, p.y) for m in shapes if isinstance(m, Poly) for p in m.points}
    assert (X, TOP) in ends
    assert (X, BOTTOM) in ends
    assert {m.key for m in shapes} == {read_key("element:e")}
    assert all(bounds_of(m).y >= TOP and bounds_of(m).bottom <= BOTTOM for m in shapes)


@pytest.mark.parametrize(
    ("kind_id", "unit"),
    [(k, u) for k, u, b in UNITS if b in (Behaviour.NO, Behaviour.NC, Behaviour.POLE) and has_blade(k, u)],
)
def test_the_blade_of_an_open_contact_misses_its_seat_and_that_of_a_closed_one_reaches_it(
    kind_id: str, unit: str
) -> None:
    shapes = symbol_of(kind_id, unit)(X, TOP, BOTTOM, PartKey("e"))
    middle = (TOP + BOTTOM) / 2
    blade = next(m for m in shapes if isinstance(m, Line) and m.y1 == middle + 5 and m.x1 == X and m.x2 != X)
    closed = next(u.behaviour for k in kinds() if k.id == kind_id for u in k.units if u.name == unit) is Behaviour.NC
    if closed:
        seat = next(m for m in shapes if isinstance(m, Line) and m.y1 == m.y2 == middle - 5)
        assert seat.x1 <= blade.x2 <= seat.x2
        assert blade.y2 <= seat.y1
    else:
        assert blade.x2 < X - 2


def test_motor_and_earth_are_drawn_and_the_earth_sign_is_never_written() -> None:
    motor = motor_sign(50, 50, "M1", read_key("device:m"))
    assert any(isinstance(m, Circle) for m in motor)
    assert {m.text for m in motor if isinstance(m, Text)} == {"M", "3 ~", "M1"}
    earth = earth_sign(20, 20)
    assert not any(isinstance(m, Text) for m in earth)
    bars = sorted(m.x2 - m.x1 for m in earth if isinstance(m, Line) and m.y1 == m.y2)
    assert bars == sorted(set(bars)), "three bars, each shorter than the one above"
    assert len(bars) == 3
