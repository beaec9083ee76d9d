"""The from–to list of the wash drum, worked out by hand from the circuit, and its ends."""

from collections import Counter
from itertools import pairwise

import pytest
from tests.core.schematic.builders import one_motor
from tests.effort import some
from tests.shared_plan import plan_for

from riktig.core.geometry import Poly
from riktig.core.wiring import WIRING, Wire, route_shapes, wire_key

# By hand, from the circuit alone: the clamps of each net, its section and its colour. Feeder 4 mm2 for 20 A upstream,
# motor 1.5 mm2, control and its neutral 1 mm2. In which order a net of three or more clamps is chained is not worked
# out here: test_wires checks that order against every permutation, and the second opinions against a graph library.
BY_HAND = [
    ("L1", 4, "black", {"X1:L1", "Q1:1"}),
    ("L2", 4, "black", {"X1:L2", "Q1:3"}),
    ("L3", 4, "black", {"X1:L3", "Q1:5"}),
    ("1", 4, "black", {"Q1:2", "F1:1", "F2:1"}),
    ("2", 4, "black", {"Q1:4", "F1:3"}),
    ("3", 4, "black", {"Q1:6", "F1:5"}),
    ("4", 1.5, "black", {"F1:2", "K1:1"}),
    ("5", 1.5, "black", {"F1:4", "K1:3"}),
    ("6", 1.5, "black", {"F1:6", "K1:5"}),
    ("M1-U", 1.5, "black", {"F3:2", "X2:U"}),
    ("M1-V", 1.5, "black", {"F3:4", "X2:V"}),
    ("M1-W", 1.5, "black", {"F3:6", "X2:W"}),
    ("7", 1, "red", {"F2:2", "K1:43", "F3:95", "F3:97"}),
    ("8", 1, "red", {"F3:96", "S1:1"}),
    ("9", 1, "red", {"S1:2", "S2:3", "K1:13"}),
    ("10", 1, "red", {"S2:4", "K1:A1", "K1:14"}),
    ("11", 1, "red", {"K1:44", "H1:X1"}),
    ("12", 1, "red", {"F3:98", "H2:X1"}),
    ("N", 1, "light blue", {"X1:N", "K1:A2", "H1:X2", "H2:X2"}),
]
# Each bonded point runs from a way of its own on the bar, in the section of its phase conductor.
BONDED = {"X1:PE": 4, "E1:1": 4, "E2:1": 4, "E3:1": 4, "X2:PE": 1.5}


@pytest.fixture(scope="module")
def wires() -> tuple[Wire, ...]:
    return plan_for(one_motor()).get(WIRING).wires


def test_there_are_no_wires_but_these(wires: tuple[Wire, ...]) -> None:
    assert len(wires) == sum(len(clamps) - 1 for *_, clamps in BY_HAND) + len(BONDED)


@pytest.mark.parametrize("row", BY_HAND, ids=lambda r: str(r[0]))
def test_the_wires_of_a_net_chain_its_clamps_in_its_section_and_colour(
    wires: tuple[Wire, ...], row: tuple[str, float, str, set[str]]
) -> None:
    number, mm2, colour, clamps = row
    mine = [w for w in wires if w.number == number]
    assert {end.label for w in mine for end in (w.start, w.end)} == clamps
    assert len(mine) == len(clamps) - 1
    assert {(w.mm2, w.colour) for w in mine} == {(mm2, colour)}
    often = Counter(end.label for w in mine for end in (w.start, w.end))
    assert max(often.values()) <= 2
    if "X1:N" in clamps:
        assert often["X1:N"] == 1, "a terminal takes one conductor, so it ends the chain"


def test_every_bonded_point_has_a_way_of_its_own(wires: tuple[Wire, ...]) -> None:
    earths = [w for w in wires if w.colour == "green-yellow"]
    assert {w.end.label: w.mm2 for w in earths} == BONDED
    ways = {w.start.label for w in earths}
    assert len(ways) == len(earths)
    assert all(way.startswith("PE:") for way in ways)


@pytest.mark.parametrize(
    ("label", "fitting", "strip", "torque"),
    # Fittings from the ferrule tables, by section and by how many wires must meet there; torque from the part.
    # Only clamps whose company follows from the circuit: ends of two-clamp nets, and single terminals and ways.
    [
        ("Q1:1", "ferrule 4 / 10 grey", 12, 2.0),
        ("K1:1", "ferrule 1.5 / 8 black", 10, 1.2),
        ("F3:96", "ferrule 1 / 8 red", 10, 0.8),
        ("X1:N", "ferrule 1 / 8 red", 10, 0.6),
        ("X2:PE", "ferrule 1.5 / 8 black", 10, 0.6),
        ("E1:1", "ring 4 / M6", 8, 3.0),
    ],
)
def test_ends_have_the_fitting_strip_and_torque_of_table_and_part(
    wires: tuple[Wire, ...], label: str, fitting: str, strip: float, torque: float
) -> None:
    ends = {(e.fitting, e.strip, e.torque_n_m) for w in wires for e in (w.start, w.end) if e.label == label}
    assert ends == {(fitting, strip, torque)}


def test_the_key_of_a_wire_does_not_turn_round(wires: tuple[Wire, ...]) -> None:
    for wire in some(wires):
        assert wire.key == wire_key(wire.start.pin, wire.end.pin) == wire_key(wire.end.pin, wire.start.pin)


def test_lengths_are_whole_tens_and_no_shorter_than_the_way(wires: tuple[Wire, ...]) -> None:
    for wire in some(wires):
        assert wire.length % 10 == 0
        a, b = wire.route[0], wire.route[-1]
        assert wire.length >= abs(a.x - b.x) + abs(a.y - b.y) + 70
        assert wire.cut >= wire.length


def test_a_wire_is_drawn_by_its_corners_alone_and_along_its_whole_way() -> None:
    evaluation = plan_for(one_motor())
    for wire in some(evaluation.get(WIRING).wires):
        drawn = next((m for m in route_shapes((wire,), shift=0.0) if isinstance(m, Poly)), None)
        if drawn is None:
            continue
        for a, b, c in zip(drawn.points, drawn.points[1:], drawn.points[2:], strict=False):
            straight = (a.x == b.x == c.x) or (a.y == b.y == c.y)
            assert not straight or (b.x - a.x) * (c.x - b.x) + (b.y - a.y) * (c.y - b.y) < 0
        assert (drawn.points[0], drawn.points[-1]) == (wire.route[0], wire.route[-1])
        for p in some(wire.route):
            on = any(
                min(a.x, b.x) - 0.1 <= p.x <= max(a.x, b.x) + 0.1 and min(a.y, b.y) - 0.1 <= p.y <= max(a.y, b.y) + 0.1
                for a, b in pairwise(drawn.points)
            )
            assert on, "no point of the way is left aside"
