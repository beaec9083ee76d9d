"""Symbols: each joins its line above and below, and contacts show at rest whether they are closed."""

import pytest

from riktig.core.annotation import SHEET_DRAWINGS
from riktig.core.catalogue import Behaviour, kind, kinds
from riktig.core.geometry import Circle, Line, Poly, Text, bounds_of
from riktig.core.job import Recipe, Wetting, add_signal
from riktig.core.keys import DeviceKey, PartKey, read_key
from riktig.core.schematic import CIRCUITS, add_circuit, with_names_recorded
from riktig.core.schematic.symbols.choose import (
    earth_sign,
    motor_sign,
    phases_sign,
    surge_sign,
    symbol_of,
    symbol_words,
)
from riktig.demo_job import demo_job, wash_drum
from tests.shared_plan import plan_for

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


def test_a_surge_protector_a_phase_monitor_and_a_photocell_are_not_plain_boxes() -> None:
    """IEC 60617, from memory: an arrester a line, “m < 3” in the box of the relay, light that falls on the sensor."""
    surge = surge_sign(50, 50, 6.5, "F24", PartKey("e"))
    lines = [mark for mark in surge if isinstance(mark, Line) and mark.x1 == mark.x2]
    assert [line.x1 for line in lines] == [43.5, 50.0, 56.5]
    assert all(bounds_of(mark).bottom <= 55.5 for mark in surge)
    monitor = [mark.text for mark in phases_sign(50, 50, 9.0, "K12", PartKey("e")) if isinstance(mark, Text)]
    assert monitor == ["m < 3", "K12"]
    light, touch = (symbol_of(of, "P-M")(X, TOP, BOTTOM, PartKey("e")) for of in ("photocell", "sensor"))
    assert sum(isinstance(mark, Poly) for mark in light) >= sum(isinstance(mark, Poly) for mark in touch) + 4
    assert symbol_words("photocell", "P-M") == "photocell"


@pytest.mark.parametrize(
    ("name", "kind_id"),
    [
        ("belt photocell", "photocell"),
        ("Light barrier at the gate", "photocell"),
        ("proximity switch, drum", "sensor"),
        ("end of the light rail", "sensor"),
    ],
)
def test_a_sensor_whose_name_says_light_is_drawn_as_one(name: str, kind_id: str) -> None:
    job = add_signal(wash_drum(), name, place="floor", wetting=Wetting.DC, watts=1.0)
    devices = plan_for(with_names_recorded(job)).get(CIRCUITS).devices
    assert [d.kind_id for d in devices if d.purpose.endswith(name)] == [kind_id]


def test_on_a_sheet_both_stand_at_the_end_of_their_lines() -> None:
    job = add_circuit(add_circuit(demo_job("kelp-shed"), Recipe.SURGE), Recipe.PHASE_MONITOR)
    evaluation = plan_for(with_names_recorded(job))
    (monitor,) = (d.id for d in evaluation.get(CIRCUITS).devices if d.kind.id == "phase_monitor")
    texts = [m for sheet in evaluation.get(SHEET_DRAWINGS) for m in sheet.shapes if isinstance(m, Text)]
    assert [m.key for m in texts if m.text == "m < 3"] == [DeviceKey(monitor)]
