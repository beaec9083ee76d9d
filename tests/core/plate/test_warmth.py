"""Losses by part, and the layers laid over the plate."""

import pytest
from tests.core.circuit.builders import one_motor

from riktig.core.geometry import Circle, Line, Poly, bounds_of
from riktig.core.job import DeviceId, Job, add_load
from riktig.core.plan import Plan
from riktig.core.plate import LAYOUT, LOSSES, clamp_marks, heat_marks, room_marks
from riktig.core.sizing import SIZING


@pytest.fixture(scope="module")
def plan() -> Plan[Job]:
    return Plan(one_motor())


def test_the_contactor_and_the_overload_of_the_drum_lose_what_their_data_say(plan: Plan[Job]) -> None:
    losses = dict(plan.get(LOSSES))
    # parts.csv: CON-9 2.2 W, OL-7-10 5.5 W, ISO-25 0.8 W.
    assert losses[DeviceId("c1.K")] == 2.2
    assert losses[DeviceId("c1.FO")] == 5.5
    assert losses[DeviceId("c0.Q")] == 0.8
    assert DeviceId("c1.M") not in losses, "the motor stands outside"
    assert sum(dict(Plan(add_load(plan.document, "belt", 4.0)).get(LOSSES)).values()) > sum(losses.values())


def test_the_sum_is_that_of_the_parts_that_were_chosen(plan: Plan[Job]) -> None:
    chosen = plan.get(SIZING).parts
    for device, loss in plan.get(LOSSES):
        assert loss == chosen[device].loss_w
    assert list(plan.get(LOSSES)) == sorted(plan.get(LOSSES), key=lambda one: (-one[1], one[0]))


def test_a_ring_has_the_area_of_its_loss(plan: Plan[Job]) -> None:
    layout, losses = plan.get(LAYOUT), plan.get(LOSSES)
    rings = [mark for mark in heat_marks(layout, losses) if isinstance(mark, Circle)]
    standing = {seat.device for seat in layout.seats}
    warm = [loss for device, loss in losses if device in standing and loss >= 0.5]
    assert [ring.radius**2 for ring in rings] == pytest.approx([49.0 * loss for loss in warm])
    assert heat_marks(layout, ()) == []


def test_the_room_of_a_part_lies_around_it_and_every_clamp_has_a_cross(plan: Plan[Job]) -> None:
    layout = plan.get(LAYOUT)
    rooms = [mark for mark in room_marks(layout) if isinstance(mark, Poly)]
    needing = [
        s for s in layout.seats if s.part.room_top or s.part.room_bottom or s.part.room_left or s.part.room_right
    ]
    assert len(rooms) == len(needing) > 0
    for mark, seat in zip(rooms, needing, strict=True):
        around = bounds_of(mark)
        assert around.height == pytest.approx(seat.rect.height + seat.part.room_top + seat.part.room_bottom)
    crosses = [mark for mark in clamp_marks(layout) if isinstance(mark, Line)]
    assert len(crosses) == 2 * sum(len(seat.part.kind.pins) for seat in layout.seats)
