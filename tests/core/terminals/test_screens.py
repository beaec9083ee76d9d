"""Screens: behind a drive at both ends, of a value at the panel's end (common practice, no source); none elsewhere."""

import pytest
from tests.shared_plan import plan_for

from riktig.core.evaluation import Evaluation
from riktig.core.exports import schedule
from riktig.core.job import (
    Command,
    Direction,
    FieldCables,
    Form,
    Job,
    Rulebook,
    Start,
    Wetting,
    add_load,
    add_signal,
    new_job,
    set_practice,
)
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import with_names_recorded
from riktig.core.terminals import STRIPS, Cable


def mill(**practice: object) -> Job:
    """A screw on a drive whose speed the controller sets, a fan on the line, a level that is read, and a float."""
    job = set_practice(new_job("M-3", "mill"), **practice)  # type: ignore[arg-type]
    job = add_load(job, "screw", 1.5, start=Start.DRIVE, command=Command.CONTROLLER)
    job = add_load(job, "fan", 1.5)
    screw = job.loads[0].id
    for name, form in (("hopper level", Form.ANALOGUE), ("hopper empty", Form.DIGITAL)):
        job = add_signal(job, name, place="hopper", wetting=Wetting.DC, form=form, direction=Direction.INTO, load=screw)
    return with_names_recorded(job)


def by_purpose(evaluation: Evaluation[Job]) -> dict[str, Cable]:
    cables = evaluation.get(STRIPS).cables
    names = ("screw", "fan", "level", "empty")
    return {name: next(cable for cable in cables if name in cable.to) for name in names}


@pytest.mark.parametrize("rulebook", [Rulebook.IEC, Rulebook.UL])
def test_what_is_screened_and_where_it_is_landed(rulebook: Rulebook) -> None:
    cables = by_purpose(plan_for(mill(rulebook=rulebook)))
    assert cables["screw"].screen == "all round at both ends"
    assert cables["level"].screen.startswith("at the panel alone")
    assert cables["fan"].screen == cables["empty"].screen == ""
    assert {name for name, cable in cables.items() if cable.make_up.endswith(", screened")} == {"screw", "level"}


def test_a_value_shares_no_sheath_with_what_has_no_screen() -> None:
    cables = plan_for(mill(field_cables=FieldCables.SHARED)).get(STRIPS).cables
    assert not any("level" in cable.to and "empty" in cable.to for cable in cables)
    shared = [cable for cable in cables if cable.screen and cable.others]
    assert all("empty" not in cable.to for cable in shared)


def test_lists_and_the_clause_name_those_that_are_screened() -> None:
    evaluation = plan_for(mill())
    cables = evaluation.get(STRIPS).cables
    screened = [cable for cable in cables if cable.screen]
    rows = {str(row["cable"]): str(row["lands"]) for row in schedule("cables", evaluation).as_dicts()}
    for cable in cables:
        landed = f"screen: {cable.screen}" if cable.screen else "screen:"
        assert (landed in rows[cable.tag]) == bool(cable.screen)
    (clamps,) = [r for r in schedule("bom", evaluation).as_dicts() if "screen of a cable" in str(r["description"])]
    assert clamps["quantity"] == len(screened) == 2
    clause = next(result for result in evaluation.get(RULES) if result.code == "W12")
    assert [finding.verdict for finding in clause.findings] == [Verdict.JUDGE] * 2
    for cable, finding in zip(screened, clause.findings, strict=True):
        assert cable.tag in finding.message
        assert cable.screen in finding.message


def test_without_drives_and_values_no_cable_has_a_screen() -> None:
    job = with_names_recorded(add_load(new_job("M-4", "mill"), "fan", 1.5))
    assert not any(cable.screen for cable in plan_for(job).get(STRIPS).cables)
