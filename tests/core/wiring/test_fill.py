"""How full the ducts are, who shares them, how wide they ought to be, where fingers come out."""

from dataclasses import replace
from itertools import pairwise

import pytest
from tests.core.schematic.builders import one_motor
from tests.effort import some
from tests.shared_plan import plan_for

from riktig.core.evaluation import Evaluation
from riktig.core.geometry import Rect
from riktig.core.job import Job, Rulebook, set_practice
from riktig.core.plate import LAYOUT, Duct, set_rails_and_ducts
from riktig.core.rules import RULES
from riktig.core.schematic import NETS, NetClass
from riktig.core.standards import wire_diameter
from riktig.core.wiring import DUCT_HEIGHT, DUCT_USES, WIRING, DuctUse, fill_limit
from riktig.demo_job import demo_job


@pytest.fixture(scope="module")
def shed() -> Evaluation[Job]:
    return plan_for(demo_job("kelp-shed"))


def uses_of(evaluation: Evaluation[Job]) -> dict[str, DuctUse]:
    return {use.name: use for use in evaluation.get(DUCT_USES)}


def test_the_fill_runs_from_end_to_end_and_changes_where_wires_come_and_go(shed: Evaluation[Job]) -> None:
    for duct in some(shed.get(LAYOUT).ducts):
        parts = uses_of(shed)[duct.name].segments
        assert all(a.end == b.begin and a.share != b.share for a, b in pairwise(parts))
        assert all(part.share >= 0 for part in parts)


def test_a_wire_takes_the_square_of_its_diameter_where_it_runs(shed: Evaluation[Job]) -> None:
    """Area times length over all pieces is that of all wires by their ways, ends and door apart."""
    for duct in some(shed.get(LAYOUT).ducts):
        middle, section = duct.rect.centre, (duct.rect.width if duct.upright else duct.rect.height) * DUCT_HEIGHT
        laid = 0.0
        for wire in shed.get(WIRING).wires:
            for p, q in pairwise(wire.route):
                level = not duct.upright and p.y == q.y == pytest.approx(middle.y) and duct.name in wire.ducts
                upright = duct.upright and p.x == q.x == pytest.approx(middle.x) and duct.name in wire.ducts
                if level or upright:
                    begin, end = sorted((p.y, q.y) if upright else (p.x, q.x))
                    first, last = (duct.rect.y, duct.rect.bottom) if upright else (duct.rect.x, duct.rect.right)
                    inside = max(min(end, last) - max(begin, first), 0.0)  # what lies in a crossing is the upright's
                    laid += wire_diameter(wire.mm2).value ** 2 * inside
        parts = shed.get(WIRING).segments[duct.name]
        assert sum((p.end - p.begin) * p.share * section for p in parts) == pytest.approx(laid, rel=0.01, abs=200)


def test_the_width_that_is_proposed_is_the_narrowest_that_holds(shed: Evaluation[Job]) -> None:
    sold = (25, 30, 40, 60, 80, 100, 120)
    for use in some(shed.get(DUCT_USES)):
        needed = use.share * use.now / use.limit
        assert use.width == next(width for width in sold if width >= needed - 1e-6)


def test_a_duct_that_no_width_would_do_for_says_so() -> None:
    from riktig.core.wiring.fill import duct_uses
    from riktig.core.wiring.model import Segment

    evaluation = plan_for(one_motor())
    wiring = evaluation.get(WIRING)
    full = replace(wiring, segments={name: (Segment(0, 100, 4.0),) for name in wiring.segments})
    uses = duct_uses(full, evaluation.get(LAYOUT), evaluation.get(NETS), evaluation.document.practice)
    assert {use.width for use in uses} == {0.0}


def test_families_are_those_of_the_nets_that_run_there(shed: Evaluation[Job]) -> None:
    classes = {net.id: net.net_class for net in shed.get(NETS).nets}
    for use in shed.get(DUCT_USES):
        low = any(classes[w.net] is NetClass.DC for w in shed.get(WIRING).wires if use.name in w.ducts)
        assert ("extra-low voltage" in use.families) == low
    assert any(use.shared for use in shed.get(DUCT_USES))
    assert not any(use.shared for use in plan_for(one_motor()).get(DUCT_USES)), "the drum has no extra-low voltage"
    evidence = next(result for result in shed.get(RULES) if result.code == "P01").evidence
    assert any("extra-low voltage" in line for line in evidence)


def test_every_end_on_the_plate_has_its_opening(shed: Evaluation[Job]) -> None:
    counted = sum(opening.wires for use in shed.get(DUCT_USES) for opening in use.openings)
    seats = {s.device: s for s in shed.get(LAYOUT).seats}
    ends = [
        pin
        for wire in shed.get(WIRING).wires
        for pin in (wire.start.pin, wire.end.pin)
        if pin.device in seats and seats[pin.device].part.kind.id != "stud"
    ]
    assert counted == len(ends)


def test_fingers_come_out_where_the_wires_do_not_pass_one_slot() -> None:
    """A slot of 7.5 mm lets so much wire in; every finger broken out gives its pitch of 12.5 mm more."""
    evaluation = plan_for(demo_job("kelp-shed"))
    for use in evaluation.get(DUCT_USES):
        duct = evaluation.get(LAYOUT).duct(use.name)
        assert duct is not None
        for opening in use.openings:
            across = [
                wire_diameter(wire.mm2).value
                for wire in evaluation.get(WIRING).wires
                for pin, inside in ((wire.route[0], wire.route[1]), (wire.route[-1], wire.route[-2]))
                if abs(inside.y - duct.rect.centre.y) < 0.01
                and (pin.y < inside.y) == (opening.side == "above")
                and (pin.x - duct.rect.x) // 12.5 == (opening.at - duct.rect.x) // 12.5
            ]
            assert len(across) == opening.wires
            assert 7.5 + 12.5 * opening.fingers >= sum(across) - 1e-6, "they pass"
            assert opening.fingers == 0 or 7.5 + 12.5 * (opening.fingers - 1) < sum(across), "and no finger too many"
    shed_uses = plan_for(demo_job("kelp-shed")).get(DUCT_USES)
    assert any(opening.fingers for use in shed_uses for opening in use.openings)
    assert any(not opening.fingers for use in shed_uses for opening in use.openings)


def test_a_wider_duct_is_less_full() -> None:
    narrow, wide = (uses_of(plan_for(set_practice(one_motor(), duct_width=w))) for w in (30.0, 60.0))
    assert all(wide[name].share < narrow[name].share for name in narrow if narrow[name].share)


def test_a_duct_that_meets_no_upright_is_said() -> None:
    job = one_motor()
    layout = plan_for(job).get(LAYOUT)
    upright = [duct for duct in layout.ducts if duct.upright]
    shrunk = [replace(duct, rect=replace(duct.rect, height=60.0)) for duct in upright]
    levels = tuple(duct for duct in layout.ducts if not duct.upright)
    apart = set_rails_and_ducts(job, layout, layout.rails, (*shrunk, *levels))
    evaluation = plan_for(apart)
    apart_from = {m.device: m.text for m in evaluation.get(LAYOUT).misfits if "upright duct" in m.text}
    assert set(apart_from) == {"D4", "D5"}
    assert all(wire.length < 10_000 for wire in evaluation.get(WIRING).wires)


def test_a_short_upright_joins_only_the_ducts_it_touches() -> None:
    job = one_motor()
    layout = plan_for(job).get(LAYOUT)
    d3, d4 = layout.ducts[2], layout.ducts[3]
    x = layout.plate.width / 2
    short = Duct(9, Rect(x, d3.rect.bottom, 30, d4.rect.y - d3.rect.bottom), True)
    bridged = plan_for(set_rails_and_ducts(job, layout, layout.rails, (*layout.ducts, short)))
    metres = [sum(w.length for w in plan.get(WIRING).wires) for plan in (plan_for(job), bridged)]
    assert metres[1] < metres[0], "a way in the middle is shorter for some"
    used = [w for w in bridged.get(WIRING).wires if "D9" in w.ducts]
    assert used
    assert all({"D3", "D4"} <= set(w.ducts) for w in used)


@pytest.mark.parametrize(
    ("rulebook", "share"),
    [(Rulebook.UL, 0.5), (Rulebook.IEC, 0.7)],  # NFPA 79 13.5, from memory; common practice, no source
)
def test_how_full_a_duct_may_be_is_the_rulebooks(rulebook: Rulebook, share: float) -> None:
    assert fill_limit(set_practice(one_motor(), rulebook=rulebook).practice).value == share
