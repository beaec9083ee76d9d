"""Parts of one's own: what cannot be, the list in and out, and what becomes of the panel when one is chosen."""

from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.core.schematic.builders import one_motor
from tests.shared_plan import plan_for

from riktig.core.catalogue import Mounting, own_part, parts, placeable_kinds
from riktig.core.errors import RiktigError
from riktig.core.exports import as_csv
from riktig.core.geometry import Circle, Poly, Text, bounds_of
from riktig.core.holes import HOLES
from riktig.core.imports import holes_text, own_parts_schedule, read_holes, read_parts
from riktig.core.job import DeviceId, Job, OwnHole, OwnPart, pick_part, remove_part, set_enclosure, set_part
from riktig.core.plate import LAYOUT, draw_part
from riktig.core.rules import RULES
from riktig.core.schematic import with_names_recorded
from riktig.core.sizing import SIZING
from riktig.core.store import dump_job, load_job
from riktig.core.wiring import WIRING

K = DeviceId("c1.K")
BIG = OwnPart("KM-BIG", "contactor", "contactor with a deep coil", 60, 95, 120, rated_a=12, max_mm2=6, loss_w=3.1)


def with_own(part: OwnPart = BIG, device: DeviceId = K) -> Job:
    return with_names_recorded(pick_part(set_part(one_motor(), part), device, part.ref))


@pytest.mark.parametrize(
    ("changes", "words"),
    [
        ({"width": 10_000.0}, "10000 mm in width"),
        ({"height": -1.0}, "-1 mm in height"),
        ({"depth": float("nan")}, "nan mm in depth"),
        ({"room_top": 5000.0}, "room around"),
        ({"loss_w": -3.0}, "a loss of -3"),
        ({"min_mm2": 4.0, "max_mm2": 1.0}, "a clamp cannot take 4 to 1"),
        ({"ref": "  "}, "needs a reference"),
        ({"holes": (OwnHole(61, 5),)}, "lies outside the part"),
    ],
)
def test_what_cannot_be_is_refused_in_words(changes: dict[str, object], words: str) -> None:
    from dataclasses import replace

    with pytest.raises(ValueError, match=words):
        replace(BIG, **changes)  # type: ignore[arg-type]


def test_a_part_that_is_chosen_is_planned_with_its_own_size_and_says_why() -> None:
    evaluation = plan_for(with_own())
    seat = evaluation.get(LAYOUT).seat(K)
    assert seat is not None
    assert (seat.rect.width, seat.rect.height, seat.part.depth) == (60, 95, 120)
    why = evaluation.get(SIZING).whys[K][0]
    assert "Chosen by the builder" in f"{why}"
    assert evaluation.get(LAYOUT).misfits == ()
    assert seat.part.clamp("1").max_mm2 == 6


def test_a_part_without_size_is_not_placed_and_blocks_the_drilling() -> None:
    flat = OwnPart("KM-?", "contactor", "to be measured", rated_a=12)
    assert not flat.has_size
    evaluation = plan_for(with_own(flat))
    assert evaluation.get(LAYOUT).seat(K) is None
    said = [f.message for r in evaluation.get(RULES) if r.code == "P03" for f in r.findings]
    assert any("has no size, so nothing can be drilled" in text for text in said)
    assert any(pin.device == "c1.K" for pin in evaluation.get(WIRING).unrouted)


def test_a_part_that_is_gone_or_of_another_kind_is_said() -> None:
    job = pick_part(one_motor(), K, "NEVER-1")
    assert any("NEVER-1" in text for device, text in plan_for(job).get(SIZING).shortfalls if device == K)
    relay = OwnPart("RL-1", "relay", "", 30, 70, 80)
    job = pick_part(set_part(one_motor(), relay), K, "RL-1")
    assert any("RL-1" in text for device, text in plan_for(job).get(SIZING).shortfalls if device == K)


def test_a_smaller_rating_than_proposed_is_said() -> None:
    small = plan_for(with_own(OwnPart("KM-4", "contactor", "", 45, 80, 90, rated_a=4)))
    assert any("KM-4 is rated 4" in text for device, text in small.get(SIZING).shortfalls if device == K)


def test_without_its_part_a_device_goes_back_to_the_proposal() -> None:
    plain = plan_for(one_motor()).get(SIZING).parts[K]
    assert plan_for(remove_part(with_own(), "KM-BIG")).get(SIZING).parts[K] == plain
    assert plan_for(pick_part(with_own(), K, "")).get(SIZING).parts[K] == plain


def test_a_screwed_part_brings_its_holes_to_the_list() -> None:
    holes = (OwnHole(8, 8, "M4"), OwnHole(52, 87, "M4"))
    part = OwnPart("KM-S", "contactor", "screwed", 60, 95, 120, rated_a=12, holes=holes)
    job = set_enclosure(with_own(part), width=600.0, height=800.0, plate_width=550.0, plate_height=750.0)
    evaluation = plan_for(job)
    seat = evaluation.get(LAYOUT).seat(K)
    assert seat is not None
    assert seat.rail == 0
    mine = {(h.x, h.y, h.tap) for h in evaluation.get(HOLES) if h.purpose == "K1"}
    assert mine == {(round(seat.rect.x + h.x, 1), round(seat.rect.y + h.y, 1), "M4") for h in holes}


def test_parts_go_into_the_file_and_come_back() -> None:
    job = with_own()
    assert load_job(dump_job(job)) == job


REFS = st.text("ABCxyz019-./", min_size=1, max_size=12).filter(lambda s: s.strip() == s)
SIZES = st.floats(1, 500).map(lambda x: round(x, 1))


@given(
    st.lists(
        st.builds(
            OwnPart,
            REFS,
            st.sampled_from([one.id for one in placeable_kinds()]),
            st.sampled_from(["", "relay, two poles", "for “wet” rooms; “two, or three”"]),
            SIZES,
            SIZES,
            SIZES,
            loss_w=SIZES,
            holes=st.just((OwnHole(0.5, 0.5, "M5"), OwnHole(1, 1, "M5"))),
        ),
        min_size=1,
        max_size=5,
        unique_by=lambda part: part.ref,
    )
)
def test_a_list_that_is_written_is_read_back_the_same(found: list[OwnPart]) -> None:
    import tempfile

    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "parts.csv"
        path.write_text(as_csv(own_parts_schedule(tuple(found))), encoding="utf-8")
        assert list(read_parts(path)) == found


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "empty"),
        ("name,width\nX,3\n", "no column ref and kind"),
        ("ref,kind,width\nX,teapot,45\n", "“teapot” is no kind of part"),
        ("ref,kind,width\nX,relay,wide\n", "“wide” cannot be read as a width"),
        ("ref,kind,width\nX,relay,20000\n", "20000 mm in width"),
        ("ref,kind\nX,relay\nX,relay\n", "X is there twice"),
        ("ref,kind,width,height,holes\nX,relay,40,40,M4 8;9\n", "is no hole"),
        ("ref,kind,width,height,holes\nX,relay,40,40,M4 80;9\n", "no hole"),
    ],
)
def test_a_list_that_cannot_be_used_says_the_line_and_takes_nothing_in(tmp_path: Path, text: str, words: str) -> None:
    path = tmp_path / "parts.csv"
    path.write_text(text, encoding="utf-8")
    with pytest.raises(RiktigError) as caught:
        read_parts(path)
    assert words in str(caught.value)
    assert "no part was taken in" in str(caught.value)


def test_all_lines_that_are_wrong_are_said_at_once(tmp_path: Path) -> None:
    path = tmp_path / "parts.csv"
    path.write_text("ref;kind;width\nA;relay;30\nB;teapot;30\nC;relay;x\n", encoding="utf-8")
    with pytest.raises(RiktigError) as caught:
        read_parts(path)
    assert [fault.where for fault in caught.value.faults] == ["parts.csv, line 3", "parts.csv, line 4"]


def test_holes_are_written_as_they_are_read() -> None:
    holes = read_holes("M4 8,8 84,8 M6 8,120")
    assert holes == (OwnHole(8, 8, "M4"), OwnHole(84, 8, "M4"), OwnHole(8, 120, "M6"))
    assert read_holes(holes_text(holes)) == holes
    assert read_holes("") == ()


def test_the_drawing_of_a_part_is_to_scale_from_the_front_and_from_the_side() -> None:
    part = own_part(OwnPart("DR-X", "drive", "", 72, 220, 180, room_top=80, holes=(OwnHole(36, 8, "M5"),)))
    shapes = draw_part(part).shapes
    boxes = [bounds_of(m) for m in shapes if isinstance(m, Poly) and m.fill == "part"]
    assert [(b.width, b.height) for b in boxes] == [(72, 220), (180, 220)]
    hole = next(m for m in shapes if isinstance(m, Circle) and m.role == "fails")
    assert (hole.x - boxes[0].x, hole.y - boxes[0].y) == (36, 8)
    room = next(bounds_of(m) for m in shapes if isinstance(m, Poly) and m.dashed)
    assert room.y == boxes[0].y - 80
    words = [m.text for m in shapes if isinstance(m, Text)]
    assert {"72", "220", "180"} <= set(words)
    unknown = draw_part(own_part(OwnPart("?", "relay", width=30.0)))
    assert [m.text for m in unknown.shapes if isinstance(m, Text)].count("?") == 3, "its reference and two measures"


def test_the_catalogue_has_what_a_panel_of_either_rulebook_is_made_of() -> None:
    on_plate = [one for one in parts() if one.kind.mounting in (Mounting.RAIL, Mounting.SCREWED, Mounting.UNDER)]
    assert len(on_plate) >= 150
    for one in on_plate:
        assert min(one.width, one.height, one.depth) > 0, one.ref
        assert one.kind.pins or one.kind.id == "interlock_block", "a mechanical interlock has nothing to wire"
        assert one.loss_w >= 0
        assert one.bend == 0 or one.power.max_mm2 >= 35, "thin wire bends within the room for fingers"
        for hole in one.holes:
            assert 0 <= hole.x <= one.width
            assert 0 <= hole.y <= one.height
    assert all(one.holes for one in on_plate if one.kind.mounting is Mounting.SCREWED)
    assert {"panel_breaker", "motor_breaker", "fuse_switch", "drive", "soft_starter"} <= {o.kind.id for o in on_plate}


def test_thick_conductors_get_the_room_they_need_to_bend() -> None:
    from riktig.core.job import Start, add_load, new_job
    from riktig.core.standards import wire_diameter

    job = with_names_recorded(
        set_enclosure(
            add_load(new_job(), "crusher", 45.0, start=Start.DIRECT),
            width=800.0, height=1200.0, plate_width=750.0, plate_height=1150.0,
        )
    )  # fmt: skip
    evaluation = plan_for(job)
    section = evaluation.get(SIZING).loads[0].section.mm2
    contactor = evaluation.get(LAYOUT).stand_of(K)
    assert contactor is not None
    need = min(contactor.block.members[0][1].bend, 4 * wire_diameter(section).value)
    assert contactor.block.room_above == pytest.approx(max(need, job.practice.finger_room), abs=0.1)
    assert contactor.block.room_above > job.practice.finger_room
