"""Cut list and hole list."""

from dataclasses import replace

import pytest
from tests.core.schematic.builders import one_motor
from tests.effort import some
from tests.shared_plan import plan_for

from riktig.core.door import DOOR
from riktig.core.evaluation import Evaluation
from riktig.core.geometry import Text
from riktig.core.holes import HOLES, mark_out
from riktig.core.job import Fixing, HingeSide, Job, ShaftFitting, set_enclosure, set_practice
from riktig.core.keys import HoleKey, read_key
from riktig.core.plate import CUT_PLAN, CUTS, LAYOUT, RULER, draw_cuts, draw_plate, duct_changed, set_rails_and_ducts
from riktig.core.schematic import NAMES
from riktig.core.wiring import PLATE_DRAWING


def test_every_rail_duct_and_lid_is_a_named_piece_of_its_length(evaluation: Evaluation[Job]) -> None:
    layout, cuts = evaluation.get(LAYOUT), {c.name: c for c in evaluation.get(CUTS)}
    for rail in layout.rails:
        assert cuts[rail.name].length == rail.x2 - rail.x1
    for duct in layout.ducts:
        long = max(duct.rect.width, duct.rect.height)
        assert cuts[duct.name].length == long
        assert cuts[f"{duct.name} lid"].length == long - (0 if duct.upright else 1)
    assert len(cuts) == len(layout.rails) + 2 * len(layout.ducts)


def test_level_pieces_run_exactly_between_the_uprights(evaluation: Evaluation[Job]) -> None:
    left, right = (d.rect for d in evaluation.get(LAYOUT).ducts if d.upright)
    for duct in some(evaluation.get(LAYOUT).ducts):
        if not duct.upright:
            assert (duct.rect.x, duct.rect.right) == (left.right, right.x)


def test_every_hole_lies_on_what_it_holds(evaluation: Evaluation[Job]) -> None:
    layout = evaluation.get(LAYOUT)
    boxes = {d.name: d.rect for d in layout.ducts}
    for hole in some(evaluation.get(HOLES)):
        if hole.face != "plate":
            continue
        if hole.purpose.startswith("R"):
            rail = next(r for r in layout.rails if r.name == hole.purpose)
            assert hole.y == rail.y
            assert rail.x1 < hole.x < rail.x2
        elif hole.purpose in boxes:
            rect = boxes[hole.purpose]
            assert rect.x < hole.x < rect.right
            assert rect.y < hole.y < rect.bottom


def test_holes_are_numbered_as_the_scribe_goes_and_carry_drill_and_tap(evaluation: Evaluation[Job]) -> None:
    plate = [h for h in evaluation.get(HOLES) if h.face == "plate"]
    assert [h.number for h in plate] == [f"P{n}" for n in range(1, len(plate) + 1)]
    assert [(h.y, h.x) for h in plate] == sorted((h.y, h.x) for h in plate)
    assert {(h.tap, h.drill) for h in plate} == {("M5", 4.2), ("M6", 5.0)}


def test_every_operator_and_the_door_bond_have_a_hole(evaluation: Evaluation[Job]) -> None:
    holes = {h.purpose: h for h in evaluation.get(HOLES) if h.face == "door"}
    assert set(holes) == {"Q1", "H1", "H2", "S1", "S2", "door bond"}
    assert holes["S1"].drill == 22.3
    assert "twice" in holes["Q1"].note


def test_practice_decides_the_screws_and_who_cuts_the_shaft_hole(demo: Job) -> None:
    quick = plan_for(set_practice(demo, fixing=Fixing.SELF_DRILLING, shaft=ShaftFitting.SITE)).get(HOLES)
    rails = [h for h in quick if h.purpose.startswith("R")]
    assert all(h.tap == "" and "ST4.8" in h.note for h in rails)
    assert next(h for h in quick if h.purpose == "PE").tap == "M5"
    assert "on site" in next(h for h in quick if h.purpose == "Q1").note


@pytest.mark.parametrize(("side", "x"), [(HingeSide.RIGHT, 370.0), (HingeSide.LEFT, 0.0)])
def test_the_hinge_decides_where_the_loom_crosses(demo: Job, side: HingeSide, x: float) -> None:
    door = plan_for(set_enclosure(demo, hinge=side)).get(DOOR)
    assert door.hinge_x == x
    assert abs(door.studs[0].x - x) == 25


def test_the_mark_out_shows_each_hole_once_at_its_place(evaluation: Evaluation[Job]) -> None:
    holes = evaluation.get(HOLES)
    drawing = mark_out(evaluation.get(PLATE_DRAWING), holes, "plate")
    shown = {m.key for m in drawing.shapes if str(m.key).startswith("hole:")}
    assert shown == {HoleKey(h.number) for h in holes if h.face == "plate"}
    first = holes[0]
    circle = next(m for m in drawing.shapes if m.key == read_key("hole:P1") and hasattr(m, "radius"))
    assert (circle.x - RULER, circle.y - RULER) == (first.x, first.y)  # type: ignore[union-attr]


def test_the_cut_list_is_drawn_with_names_and_lengths(evaluation: Evaluation[Job]) -> None:
    cuts = evaluation.get(CUTS)
    texts = [m.text for m in draw_cuts(evaluation.get(CUT_PLAN)).shapes if isinstance(m, Text)]
    said = {part for text in texts for part in text.split(" · ")}
    assert {c.name for c in cuts} <= said
    assert {f"{c.length:g}" for c in cuts} <= said


def test_the_plate_drawing_is_true_to_scale(evaluation: Evaluation[Job]) -> None:
    from riktig.core.schematic import CIRCUITS

    drawing = draw_plate(evaluation.get(LAYOUT), evaluation.get(CIRCUITS), evaluation.get(NAMES))
    outline = drawing.shapes[0]
    xs = [p.x for p in outline.points]  # type: ignore[union-attr]
    assert max(xs) - min(xs) == evaluation.get(LAYOUT).plate.width


def test_a_wider_duct_is_cut_from_wider_stock() -> None:
    job = one_motor()
    layout = plan_for(job).get(LAYOUT)
    duct = layout.ducts[3]
    wider = set_rails_and_ducts(job, layout, *duct_changed(layout, duct.number, replace(duct.rect, height=40.0)))
    stock = {piece.name: piece.stock for piece in plan_for(wider).get(CUTS)}
    assert stock[duct.name] == "slotted duct 40 × 60"
    assert stock[f"{duct.name} lid"] == "lid 40"
    assert stock["D1"] == "slotted duct 30 × 60"
