"""The wash drum's plate and door measured out by hand on paper."""

import pytest
from tests.core.schematic.builders import one_motor
from tests.shared_plan import plan_for

from riktig.core.door import DOOR
from riktig.core.holes import HOLES, Hole
from riktig.core.job import DeviceId
from riktig.core.plate import CUTS, LAYOUT

# Plate 350 x 550. Edge 10, duct 30: inside from x 40 to 310, 270 wide.
# R1: top duct ends at y 40; the tallest part of the feed row is 85 high, 20 mm for fingers: 40 + 20 + 42.5 = 102.5.
# R2: 102.5 + 42.5 + 20 = 165, duct to 195; contactor 81 high: 195 + 20 + 40.5 = 255.5.
# R3: below the rail 40.5 + overload 62 + 20 = 378, duct to 408; terminals 48 high: 408 + 20 + 24 = 452.
# The bar is 104 wide, 4 mm from the duct: from 202 to 306; R3 ends 14 mm before the bar's room: 310 - 118 = 192.
RAILS = [("R1", 102.5, 40, 310), ("R2", 255.5, 40, 310), ("R3", 452.0, 40, 192)]

# Uprights end 60 below R3: 512 - 10 = 502 long; level ducts 270, their lids a millimetre shorter.
LENGTHS = {
    "R1": 270,
    "R2": 270,
    "R3": 152,
    "D1": 502,
    "D2": 502,
    "D3": 270,
    "D4": 270,
    "D5": 270,
    "D1 lid": 502,
    "D2 lid": 502,
    "D3 lid": 269,
    "D4 lid": 269,
    "D5 lid": 269,
}

# Rails: 25 from both ends. Level ducts: 40 from both ends, middle of the duct. Uprights: 40, middle, 40 from the end.
HOLES_BY_HAND = {
    "R1": {(65, 102.5), (285, 102.5)},
    "R2": {(65, 255.5), (285, 255.5)},
    "R3": {(65, 452), (167, 452)},
    "D1": {(25, 50), (25, 261), (25, 472)},
    "D2": {(325, 50), (325, 261), (325, 472)},
    "D3": {(80, 25), (270, 25)},
    "D4": {(80, 180), (270, 180)},
    "D5": {(80, 393), (270, 393)},
    "PE": {(206, 456), (302, 456)},
    # Isolator: left edge 45, 54 x 68 on R1, middle (72, 102.5); door datum 10 mm further out both ways.
    "Q1": {(82, 112.5)},
    # Operators from 0.35 x 570 = 199.5 mm down. The legend plate reaches 29 mm above a lamp: 228.5, on the next whole
    # five 230; then 60 mm apart.
    # Of 170 mm the contactor K1 takes 91 and the overload F3 85: they leave less than S1 and S2 with their wires take
    # (58 + 30), so these stand beside them. K1 ends at x 90 on the plate, 100 on the door. The lamps (52 + 30) may not
    # stand in front of K1 either: the left one, 30 wide, begins at 100 and has its middle at 115, the other 60 on.
    "S2": {(145, 290)},
    "S1": {(145, 350)},
    "H1": {(115, 230)},
    "H2": {(175, 230)},
    "door bond": {(345, 545)},
}


@pytest.fixture(scope="module")
def holes() -> tuple[Hole, ...]:
    return plan_for(one_motor()).get(HOLES)


@pytest.mark.parametrize(("name", "y", "left", "right"), RAILS)
def test_rails_stand_where_they_were_measured(name: str, y: float, left: float, right: float) -> None:
    rail = next(r for r in plan_for(one_motor()).get(LAYOUT).rails if r.name == name)
    assert (rail.y, rail.x1, rail.x2) == (y, left, right)


@pytest.mark.parametrize(("name", "length"), LENGTHS.items())
def test_pieces_have_the_length_measured(name: str, length: float) -> None:
    piece = next(c for c in plan_for(one_motor()).get(CUTS) if c.name == name)
    assert piece.length == length


@pytest.mark.parametrize("purpose", HOLES_BY_HAND)
def test_holes_stand_where_they_were_measured(holes: tuple[Hole, ...], purpose: str) -> None:
    assert {(h.x, h.y) for h in holes if h.purpose == purpose} == HOLES_BY_HAND[purpose]


def test_there_are_no_holes_but_these_and_the_plates_own_bond(holes: tuple[Hole, ...]) -> None:
    assert {h.purpose for h in holes} - set(HOLES_BY_HAND) == {"E2", "gland M20, WM1", "gland M25, W1"}


@pytest.mark.parametrize(
    ("device", "x", "y"),
    # Feed row from x 45, shoulder to shoulder: isolator 54, breaker 54, control breaker.
    [("c0.Q", 45, 68.5), ("c1.F", 99, 60), ("c1.FC", 153, 60), ("c1.K", 45, 215), ("c1.FO", 45, 296)],
)
def test_parts_stand_where_they_were_measured(device: str, x: float, y: float) -> None:
    seat = plan_for(one_motor()).get(LAYOUT).seat(DeviceId(device))
    assert seat is not None
    assert (seat.rect.x, seat.rect.y) == (x, y)


def test_the_nameplate_and_the_bond_lie_on_the_door_clear_of_the_operators() -> None:
    door = plan_for(one_motor()).get(DOOR)
    assert door.nameplate.sticks_out_of(door.face) == 0
    assert all(s.y + 30 < door.nameplate.y for s in door.seats)
    assert door.face.holds(door.studs[0])
