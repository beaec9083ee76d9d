"""Clauses of the door: who may move what, and how many contacts a stack takes."""

from dataclasses import replace

import pytest
from tests.core.schematic.builders import one_motor
from tests.shared_plan import plan_for

from riktig.core.catalogue import Behaviour, Unit
from riktig.core.errors import RiktigError
from riktig.core.job import Access, Command, Job, LoadId, add_load
from riktig.core.rules import RULES, VIEW, ClauseResult, QuickFix, Verdict, apply_mend
from riktig.core.rules.door import stacks_hold_their_contacts
from riktig.core.schematic import CIRCUITS, with_names_recorded


def pump(access: Access) -> Job:
    job = add_load(one_motor(), "sump pump", 1.1, command=Command.LEVEL, access=access)
    return with_names_recorded(job)


def clause(job: Job, code: str) -> ClauseResult:
    return next(result for result in plan_for(job).get(RULES) if result.code == code)


def test_a_pump_that_anyone_can_leave_in_hand_is_for_a_person_to_judge_and_a_key_mends_it() -> None:
    job = pump(Access.ANYONE)
    result = clause(job, "P09")
    assert result.verdict is Verdict.JUDGE
    finding = result.findings[0]
    assert "in hand or off and walk away" in finding.message
    assert finding.quick_fix is not None
    fixed = apply_mend(job, finding.quick_fix)
    assert fixed.load(LoadId("m2")).access is Access.KEY
    assert {d.kind_id for d in plan_for(fixed).get(CIRCUITS).devices} >= {"key_hoa"}
    assert clause(fixed, "P09").verdict is Verdict.MEETS
    assert any("who holds the key" in said for said in clause(fixed, "P09").evidence)


def test_a_selector_drawn_by_hand_is_not_turned_into_a_key_by_itself() -> None:
    with pytest.raises(RiktigError, match="drawn by hand"):
        apply_mend(one_motor(), QuickFix("Key switch", "key switch", "c99"))


def test_seven_contacts_on_one_operator_are_one_too_many() -> None:
    """Common practice, no source: three side by side, two behind each other."""
    view = plan_for(one_motor()).get(VIEW)
    units = tuple(Unit(f"{n}3-{n}4", (f"{n}3", f"{n}4"), Behaviour.NO) for n in range(1, 8))
    seats = tuple(
        replace(seat, part=replace(seat.part, kind=replace(seat.part.kind, units=units)))
        if seat.part.kind.id == "start_button"
        else seat
        for seat in view.door.seats
    )
    result = stacks_hold_their_contacts(replace(view, door=replace(view.door, seats=seats)))
    assert [f.message for f in result.findings] == ["S2 needs 7 contact places; its stack takes 6."]
    whole = stacks_hold_their_contacts(view)
    assert whole.verdict is Verdict.MEETS
    # By hand: 170 mm of depth, lamps reach 52, buttons 58 behind the door, and nothing stands behind them.
    assert "at least 112 mm behind a stack for its wires" in whole.evidence
