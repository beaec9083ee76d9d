"""Any box and any practice that can be entered gives a door, holes, an order, templates and gates, or says why not."""

from hypothesis import given, settings
from hypothesis import strategies as st
from tests.core.schematic.builders import one_motor
from tests.effort import times

from riktig.core.door import DOOR, DOOR_BEHIND, DOOR_DRAWING, SHAFTS, draw_section, engagement_of, things_behind
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.exports import template_of
from riktig.core.holes import BLOCKERS, HOLES, SHEETS, draw_sheet, holes_off_the_sheet, mark_out_order
from riktig.core.job import (
    DoorHoles,
    EnclosureFields,
    EntrySide,
    Fixing,
    HingeSide,
    NameplateFixing,
    PracticeFields,
    Rulebook,
    SecondReading,
    ShaftFitting,
    set_enclosure,
    set_practice,
)
from riktig.core.plate import LAYOUT
from riktig.core.production import CRITICALS, judged_all
from riktig.core.rules import RULES
from riktig.core.schematic import NAMES, with_names_recorded

NONE_OR = st.one_of(st.none(), st.floats(0, 1000))
BOX = st.fixed_dictionaries(
    {
        "width": st.floats(60, 3000),
        "height": st.floats(60, 3000),
        "depth": st.floats(50, 1000),
        "plate_width": st.just(50.0),
        "plate_height": st.just(50.0),
        "plate_depth": st.floats(0, 900),
        "door_thickness": st.floats(0, 10),
        "doors": st.sampled_from([1, 2]),
        "hinge": st.sampled_from(HingeSide),
        "entry": st.sampled_from(EntrySide),
        "field_entry": st.sampled_from(EntrySide),
        "rating": st.sampled_from(["IP65", "", "Type 4X", "IP66 / Type 4X", "tight", "NEMA 12"]),
        "plate_left": NONE_OR,
        "door_left": NONE_OR,
        "door_top": NONE_OR,
    }
)
PRACTICE = st.fixed_dictionaries(
    {
        "rulebook": st.sampled_from(Rulebook),
        "fixing": st.sampled_from(Fixing),
        "door_holes": st.sampled_from(DoorHoles),
        "nameplate": st.sampled_from(NameplateFixing),
        "shaft": st.sampled_from(ShaftFitting),
        "second_reading": st.sampled_from(SecondReading),
        "wall_skew": st.floats(0, 100),
        "handle_tolerance": st.floats(0, 50),
        "reading_tolerance": st.floats(0, 10),
        "long_piece": st.floats(0, 6000),
    }
)


@settings(max_examples=times(15, 150), deadline=None)
@given(BOX, PRACTICE)
def test_any_box_has_a_door_and_says_what_is_wrong_with_it(box: EnclosureFields, practice: PracticeFields) -> None:
    job = with_names_recorded(set_practice(set_enclosure(one_motor(), **box), **practice))
    evaluation = Evaluation(job)
    door, tags = evaluation.get(DOOR), evaluation.get(NAMES).tag
    assert all(one.said(tags) and one.by > 0 for one in door.misfits)
    assert evaluation.get(DOOR_DRAWING).shapes
    assert evaluation.get(DOOR_BEHIND).shapes
    for shaft in evaluation.get(SHAFTS):
        assert engagement_of(shaft, job.practice).said
    for seat in door.seats:
        behind = next((one for one in evaluation.get(SHAFTS) if one.device == seat.device), None)
        assert draw_section(
            seat, things_behind(evaluation.get(LAYOUT), job.enclosure), job.enclosure, tags, behind
        ).shapes
    holes, sheets = evaluation.get(HOLES), evaluation.get(SHEETS)
    outside = {one.face for one in holes_off_the_sheet(holes, sheets)}
    for sheet in sheets:
        mine = [hole for hole in holes if hole.face == sheet.name]
        assert draw_sheet(sheet).shapes
        order = mark_out_order(mine, sheet.name)
        assert len(order.marking) == sum(len(one.holes) for one in order.rounds) == len(mine)
        try:
            assert sum(len(tile.holes) for tile in template_of(sheet, mine).tiles) == len(mine)
        except RiktigError as error:
            assert sheet.name in outside
            assert "lies outside" in str(error)
    assert all(one.said for one in judged_all(evaluation.get(CRITICALS), (), job.practice))
    assert all(one.text and one.remedy for one in evaluation.get(BLOCKERS))
    assert len(evaluation.get(RULES)) > 25
