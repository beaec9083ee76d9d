"""Heat by part, the air inside, what is proposed when it is too warm; the layers laid over the plate."""

from dataclasses import replace

import pytest
from tests.core.schematic.builders import one_motor
from tests.shared_plan import plan_for

from riktig.core.evaluation import Evaluation
from riktig.core.geometry import Line, Poly, Text, bounds_of
from riktig.core.job import DeviceId, EnclosureMounting, Job, Ventilation, add_load, override, set_enclosure
from riktig.core.plate import LAYOUT, clamp_shapes, heat_shapes, room_shapes
from riktig.core.rules import RULES
from riktig.core.sizing import INSIDE_AIR, InsideAir, Loss
from riktig.demo_job import demo_job


@pytest.fixture(scope="module")
def evaluation() -> Evaluation[Job]:
    return plan_for(one_motor())


@pytest.fixture(scope="module")
def shed() -> Evaluation[Job]:
    return plan_for(demo_job("kelp-shed"))


def by_device(inside_air: InsideAir) -> dict[str, Loss]:
    return {str(one.device): one for one in inside_air.losses}


def test_the_drums_parts_lose_what_a_sheet_of_paper_says(evaluation: Evaluation[Job]) -> None:
    losses = by_device(evaluation.get(INSIDE_AIR))
    # Drum 4 kW, 8.5 A (IEC 60947-4-1 annex G). Breaker 6.9 W at 13 A; overload 5.5 W at 10 A; isolator 0.8 W at 25 A.
    assert losses["c1.F"].watts == pytest.approx(6.9 * (8.5 / 13) ** 2, abs=0.01)
    assert losses["c1.FO"].watts == pytest.approx(5.5 * (8.5 / 10) ** 2, abs=0.01)
    assert losses["c0.Q"].watts == pytest.approx(0.8 * (8.5 / 25) ** 2, abs=0.01)
    assert losses["c1.K"].watts == 2.2, "a contactor is in while its load runs: coil and poles"
    assert "c1.M" not in losses, "the motor stands outside"
    # 2.95 + 3.97 + 0.09 + 2.2 + control breaker 1.4 + two lamps 0.6 each; a tenth more for the wires.
    assert evaluation.get(INSIDE_AIR).parts_w == pytest.approx(11.8, abs=0.05)
    assert evaluation.get(INSIDE_AIR).total_w == pytest.approx(13.0, abs=0.05)


def test_the_air_inside_by_hand(evaluation: Evaluation[Job]) -> None:
    # 400 x 600 x 200 on a wall: 1.4 W (H + D) + 1.8 D H = 1.4 x 0.4 x 0.8 + 1.8 x 0.2 x 0.6 = 0.664 m² (IEC 60890).
    assert evaluation.get(INSIDE_AIR).area_m2 == pytest.approx(0.664)
    # 13 W / (5.5 x 0.664) = 3.56 K above 30 °C.
    assert evaluation.get(INSIDE_AIR).inside_c == pytest.approx(33.6, abs=0.05)
    assert not evaluation.get(INSIDE_AIR).too_warm
    assert evaluation.get(INSIDE_AIR).remedy == ""


def test_what_is_out_or_switched_off_while_the_loads_run_gives_no_heat(shed: Evaluation[Job]) -> None:
    losses = by_device(shed.get(INSIDE_AIR))
    for device in ("c1.KS", "c3.KR", "c8.E.heat", "c8.E.light"):
        assert losses[device].rated_w > 0
        assert losses[device].watts == 0, losses[device].why
    assert losses["c1.KD"].watts == losses["c1.K"].watts > 0
    assert losses["c5.U"].watts == 65.0, "the drive carries its motor's current without a pause"
    assert [one.watts for one in shed.get(INSIDE_AIR).losses] == sorted(
        (o.watts for o in losses.values()), reverse=True
    )


def test_no_part_loses_more_than_at_its_rated_current(shed: Evaluation[Job]) -> None:
    assert all(0 <= one.watts <= one.rated_w for one in shed.get(INSIDE_AIR).losses)


def too_warm(**changes: object) -> InsideAir:
    # The shed's parts in a box a third of its own, in a warm room: 30 °C, 40 °C allowed.
    small = {"width": 600.0, "height": 600.0, "depth": 200.0, "plate_width": 550.0, "plate_height": 550.0}
    return plan_for(set_enclosure(demo_job("kelp-shed"), **{**small, **changes})).get(INSIDE_AIR)  # type: ignore[arg-type]


def test_a_box_that_is_too_warm_says_which_fan_and_which_box_would_do() -> None:
    warm = too_warm()
    # Area 1.4 x 0.6 x 0.8 + 1.8 x 0.2 x 0.6 = 0.888 m²; the fan moves 3.1 x P / 10 K.
    assert warm.area_m2 == pytest.approx(0.888)
    assert warm.inside_c == pytest.approx(30 + warm.total_w / (5.5 * 0.888), abs=0.05)
    assert warm.too_warm
    assert warm.fan_m3_h == pytest.approx(3.1 * warm.total_w / 10)
    assert warm.fan is not None
    assert warm.fan.flow_m3_h >= warm.fan_m3_h
    assert warm.box is not None
    wall = 1.4 * warm.box.width * (warm.box.height + warm.box.depth) + 1.8 * warm.box.depth * warm.box.height
    assert warm.total_w / (5.5 * wall / 1e6) <= 10
    assert warm.fan.ref in warm.remedy
    assert warm.box.name in warm.remedy


def test_the_fan_that_is_proposed_cools_the_box() -> None:
    assert not too_warm(ventilation=Ventilation.FAN).too_warm


def test_air_as_warm_as_the_limit_cannot_be_moved_to_cool() -> None:
    hot = too_warm(room_c=40.0)
    assert hot.fan is None
    assert hot.box is None
    assert "no fan" in hot.remedy


def test_a_box_in_the_middle_of_a_row_gives_off_less_than_one_that_stands_free() -> None:
    assert too_warm(standing=EnclosureMounting.ROW_WALL).inside_c > too_warm(standing=EnclosureMounting.FREE).inside_c


def test_a_heat_the_builder_has_set_counts_instead(shed: Evaluation[Job]) -> None:
    own = plan_for(override(shed.document, "panel.loss", 300.0, "measured on its sister")).get(INSIDE_AIR)
    assert own.total_w == 300.0
    assert own.inside_c > shed.get(INSIDE_AIR).inside_c


def test_too_warm_a_box_is_a_finding_with_its_remedy() -> None:
    job = set_enclosure(demo_job("kelp-shed"), room_c=39.0)
    result = next(one for one in plan_for(job).get(RULES) if one.code == "P05")
    assert len(result.findings) == 1
    assert "°C inside" in result.findings[0].message


def test_more_load_is_more_heat(evaluation: Evaluation[Job]) -> None:
    more = plan_for(add_load(evaluation.document, "belt", 4.0)).get(INSIDE_AIR)
    assert more.total_w > evaluation.get(INSIDE_AIR).total_w


def test_a_tint_is_the_stronger_the_more_a_part_loses_for_its_size(shed: Evaluation[Job]) -> None:
    layout = shed.get(LAYOUT)
    drive = next(one for one in shed.get(INSIDE_AIR).losses if one.device == "c5.U")
    seat = layout.seat(DeviceId("c5.U"))
    assert seat is not None
    area_dm2 = seat.rect.width * seat.rect.height / 1e4
    for per_dm2, tint in ((1.9, None), (2.1, "warm 1"), (5.1, "warm 2"), (10.1, "warm 3")):
        shapes = heat_shapes(layout, (replace(drive, watts=per_dm2 * area_dm2),))
        assert [mark.fill for mark in shapes if isinstance(mark, Poly)] == ([tint] if tint else [])
        assert [mark.text for mark in shapes if isinstance(mark, Text)] == [
            f"{per_dm2 * area_dm2:.0f} W" if per_dm2 * area_dm2 >= 10 else f"{per_dm2 * area_dm2:.1f} W"
        ]
    assert heat_shapes(layout, ()) == []


def test_the_room_of_a_part_lies_around_it_and_every_clamp_has_a_cross(evaluation: Evaluation[Job]) -> None:
    layout = evaluation.get(LAYOUT)
    rooms = [mark for mark in room_shapes(layout) if isinstance(mark, Poly)]
    needing = [
        s for s in layout.seats if s.part.room_top or s.part.room_bottom or s.part.room_left or s.part.room_right
    ]
    assert len(rooms) == len(needing) > 0
    for mark, seat in zip(rooms, needing, strict=True):
        around = bounds_of(mark)
        assert around.height == pytest.approx(seat.rect.height + seat.part.room_top + seat.part.room_bottom)
    crosses = [mark for mark in clamp_shapes(layout) if isinstance(mark, Line)]
    assert len(crosses) == 2 * sum(len(seat.part.kind.pins) for seat in layout.seats)
