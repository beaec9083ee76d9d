"""The whole from–to list of the wash drum, worked out by hand from the circuit, and its ends."""

import pytest
from tests.core.circuit.builders import one_motor

from riktig.core.plan import Plan
from riktig.core.wiring import WIRING, Wire, wire_key

# By hand. Each net of the circuit is joined clamp to clamp; feeder 4 mm2 for 20 A upstream, motor 1.5 mm2, control and
# its neutral 1 mm2; protective conductors as their phase, each from a way of its own on the bar. Where a net has three
# or more clamps, the order was found by measuring on the scaled drawing of plate and door.
BY_HAND = [
    ("L1", "X1:L1", "Q1:1", 4, "black"),
    ("L2", "X1:L2", "Q1:3", 4, "black"),
    ("L3", "X1:L3", "Q1:5", 4, "black"),
    ("1", "Q1:2", "F1:1", 4, "black"),
    ("1", "F1:1", "F2:1", 4, "black"),
    ("2", "Q1:4", "F1:3", 4, "black"),
    ("3", "Q1:6", "F1:5", 4, "black"),
    ("4", "F1:2", "K1:1", 1.5, "black"),
    ("5", "F1:4", "K1:3", 1.5, "black"),
    ("6", "F1:6", "K1:5", 1.5, "black"),
    ("UM1", "F3:2", "X2:U", 1.5, "black"),
    ("VM1", "F3:4", "X2:V", 1.5, "black"),
    ("WM1", "F3:6", "X2:W", 1.5, "black"),
    ("7", "F2:2", "K1:43", 1, "red"),
    ("7", "K1:43", "F3:95", 1, "red"),
    ("7", "F3:95", "F3:97", 1, "red"),
    ("8", "F3:96", "S1:1", 1, "red"),
    ("9", "S1:2", "S2:3", 1, "red"),
    ("9", "S2:3", "K1:13", 1, "red"),
    ("10", "S2:4", "K1:A1", 1, "red"),
    ("10", "K1:A1", "K1:14", 1, "red"),
    ("11", "K1:44", "H1:X1", 1, "red"),
    ("12", "F3:98", "H2:X1", 1, "red"),
    ("N", "X1:N", "K1:A2", 1, "light blue"),
    ("N", "K1:A2", "H2:X2", 1, "light blue"),
    ("N", "H2:X2", "H1:X2", 1, "light blue"),
    ("PE", "PE:1", "X1:PE", 4, "green-yellow"),
    ("PE", "PE:2", "E1:1", 4, "green-yellow"),
    ("PE", "PE:3", "E2:1", 4, "green-yellow"),
    ("PE", "PE:4", "E3:1", 4, "green-yellow"),
    ("PE", "PE:5", "X2:PE", 1.5, "green-yellow"),
]


@pytest.fixture(scope="module")
def wires() -> tuple[Wire, ...]:
    return Plan(one_motor()).get(WIRING).wires


def test_there_are_no_wires_but_these(wires: tuple[Wire, ...]) -> None:
    assert len(wires) == len(BY_HAND)


@pytest.mark.parametrize("row", BY_HAND, ids=lambda r: f"{r[0]} {r[1]} {r[2]}")
def test_each_wire_is_as_worked_out(wires: tuple[Wire, ...], row: tuple[str, str, str, float, str]) -> None:
    number, one, other, mm2, colour = row
    found = [w for w in wires if {w.start.label, w.end.label} == {one, other}]
    assert [(w.number, w.mm2, w.colour) for w in found] == [(number, mm2, colour)]


@pytest.mark.parametrize(
    ("label", "fitting", "strip", "torque"),
    [
        ("Q1:1", "ferrule 4 / 10 grey", 12, 2.0),
        ("F1:1", "ferrule 2 × 4 / 12 grey", 15, 2.0),
        ("K1:1", "ferrule 1.5 / 8 black", 10, 1.2),
        ("K1:A1", "ferrule 2 × 1 / 8 red", 10, 0.8),
        ("K1:13", "ferrule 1 / 8 red", 10, 0.8),
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
    for wire in wires:
        assert wire.key == wire_key(wire.start.pin, wire.end.pin) == wire_key(wire.end.pin, wire.start.pin)


def test_lengths_are_whole_tens_and_no_shorter_than_the_way(wires: tuple[Wire, ...]) -> None:
    for wire in wires:
        assert wire.length % 10 == 0
        a, b = wire.route[0], wire.route[-1]
        assert wire.length >= abs(a.x - b.x) + abs(a.y - b.y) + 70
        assert wire.cut >= wire.length
