"""The cut from the side: true to scale along the depth, with what is left in words."""

import pytest
from tests.core.schematic.builders import one_motor
from tests.shared_plan import plan_for

from riktig.core.door import DOOR, SHAFTS, draw_section, move_on_door, things_behind
from riktig.core.geometry import Drawing, Line, Poly, Text
from riktig.core.job import DeviceId, Job, set_enclosure
from riktig.core.plate import LAYOUT
from riktig.core.schematic import NAMES

S2, Q1 = DeviceId("c1.S.start"), DeviceId("c0.Q")


def cut(job: Job, device: DeviceId) -> Drawing:
    evaluation = plan_for(job)
    seat = evaluation.get(DOOR).seat(device)
    assert seat is not None
    shaft = next((one for one in evaluation.get(SHAFTS) if one.device == device), None)
    things = things_behind(evaluation.get(LAYOUT), job.enclosure)
    return draw_section(seat, things, job.enclosure, evaluation.get(NAMES).tag, shaft)


def words(drawing: Drawing) -> set[str]:
    return {mark.text for mark in drawing.shapes if isinstance(mark, Text)}


def measured(drawing: Drawing, role: str = "act") -> list[float]:
    return sorted(
        round(abs(m.x2 - m.x1), 2) for m in drawing.shapes if isinstance(m, Line) and m.role == role and m.y1 == m.y2
    )


def test_a_button_is_as_deep_as_it_is_and_says_what_is_left_for_wires() -> None:
    """By hand: 58 mm behind the door, nothing of the plate behind it: 170 - 58 = 112 mm."""
    drawing = cut(one_motor(), S2)
    assert {"58", "112 for wires", "NO 3-4"} <= words(drawing)
    assert measured(drawing) == [58.0, 112.0]


def test_in_front_of_a_contactor_it_is_said_to_be_too_deep() -> None:
    """By hand: K1 stands 91 mm off the plate of which 130 are left: 130 - 91 - 58 is 19 mm too much."""
    job = set_enclosure(one_motor(), plate_depth=130.0)
    door = plan_for(job).get(DOOR)
    seat = door.seat(S2)
    assert seat is not None
    drawing = cut(move_on_door(job, door, [seat.at(75.0, 270.0)]), S2)
    assert {"K1", "19 too deep"} <= words(drawing)
    assert measured(drawing, "fails") == [19.0]


def test_the_shaft_is_drawn_from_handle_to_switch_in_its_true_length() -> None:
    drawing = cut(one_motor(), Q1)
    assert {"Q1", "shaft 129.5", "89.5 free"} <= words(drawing)
    assert measured(drawing) == [89.5, 129.5]
    rods = [m for m in drawing.shapes if isinstance(m, Poly) and m.points[1].x - m.points[0].x == pytest.approx(129.5)]
    assert len(rods) == 1
