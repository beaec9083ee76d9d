"""Rules: each clause meets on the demonstration and fails on a panel made to break it."""

from collections.abc import Callable
from dataclasses import replace

import pytest
from tests.core.schematic.builders import COIL, STOP, one_motor
from tests.shared_plan import plan_for

from riktig.core.errors import RiktigError
from riktig.core.holes import SHEETS, MetalWork, blockers_of
from riktig.core.job import (
    Colours,
    ControlSupply,
    Insertable,
    Job,
    MarkerText,
    UpstreamDevice,
    add_load,
    set_enclosure,
    set_heading,
    set_practice,
    set_supply,
)
from riktig.core.plate import LAYOUT, move_block
from riktig.core.rules import (
    CLAUSES,
    RULES,
    VIEW,
    ClauseResult,
    Group,
    QuickFix,
    Verdict,
    View,
    apply_mend,
    findings_of,
    larger_enclosure,
)
from riktig.core.schematic import NAMES, insert_contact, remove_element, with_names_recorded
from riktig.core.wiring import Crowded
from riktig.demo_job import wash_drum


def judged(job: Job) -> dict[str, ClauseResult]:
    return {result.code: result for result in plan_for(job).get(RULES)}


def seen(view: View, code: str) -> Verdict:
    results = [clause(view) for clause in CLAUSES]
    return next(result.verdict for result in results if result.code == code)


def moved(job: Job) -> Job:
    from riktig.core.job import DeviceId

    return move_block(job, plan_for(job).get(LAYOUT), DeviceId("c1.FC"), 1, 80.0)


BROKEN: dict[str, Callable[[Job], Job]] = {
    "E01": lambda job: set_supply(set_practice(job, control_supply=ControlSupply.DIRECT), neutral=False),
    "E02": lambda job: set_supply(job, upstream_a=400.0),
    "E03": lambda job: set_supply(job, upstream_a=6.0),
    "E06": lambda job: add_load(job, "giant", 160.0),
    "C01": lambda job: remove_element(job, COIL),
    "W01": lambda job: set_supply(job, upstream_a=300.0),
    "P01": lambda job: set_practice(job, duct_width=15.0),
    "P02": moved,
    "P04": lambda job: set_practice(job, spare_share=0.8),
    "M01": lambda job: set_heading(job, maker=""),
    "M02": lambda job: set_practice(
        replace(job, tags=tuple(replace(t, tag="CONTACTOR123") if t.device == "c1.K" else t for t in job.tags)),
        marker=MarkerText.NUMBER_AND_FAR_END,
    ),
}


def test_the_demonstration_fails_no_clause() -> None:
    assert [code for code, r in judged(wash_drum()).items() if r.verdict is Verdict.FAILS] == []


def test_at_least_ten_clauses_are_judged_each_with_evidence_and_source() -> None:
    results = judged(wash_drum())
    assert len(results) >= 20
    assert all(result.clause and result.grounds for result in results.values())
    assert {result.group for result in results.values()} == set(Group)


@pytest.mark.parametrize("code", BROKEN)
def test_a_panel_made_to_break_a_clause_fails_it_and_says_what_to_do(code: str) -> None:
    job = wash_drum()
    if code == "P01":
        for n in range(9):
            job = add_load(job, f"fan {n}", 7.5)
    result = judged(with_names_recorded(BROKEN[code](job)))[code]
    assert result.verdict is Verdict.FAILS
    assert all(f.message and f.remedy and f.where for f in result.findings)


def test_what_cannot_be_made_through_the_window_still_fails_its_clause() -> None:
    """Views built by hand: wires too thin, bonds missing, clamps crowded, colours wrong, parts unplaced."""
    view = plan_for(wash_drum()).get(VIEW)
    wires = view.wiring.wires
    thin = replace(view.wiring, wires=tuple(replace(w, mm2=0.5) if w.colour == "green-yellow" else w for w in wires))
    assert seen(replace(view, wiring=thin), "E08") is Verdict.FAILS
    assert seen(replace(view, wiring=thin), "W02") is Verdict.FAILS
    unbonded = replace(view.wiring, wires=tuple(w for w in wires if "E.door" not in w.key))
    assert seen(replace(view, wiring=unbonded), "E09") is Verdict.FAILS
    crowded = replace(view.wiring, crowded=(Crowded(wires[0].start.pin, "X1:L1", "3 conductors where 1 may land"),))
    assert seen(replace(view, wiring=crowded), "W04") is Verdict.FAILS
    parts = dict(view.sizing.parts)
    parts.update({d: replace(p, colour="red") for d, p in parts.items() if p.kind.id == "start_button"})
    assert seen(replace(view, sizing=replace(view.sizing, parts=parts)), "C03") is Verdict.FAILS
    lost = plan_for(wash_drum())
    names, sheets, sizing = lost.get(NAMES), lost.get(SHEETS), view.sizing
    work = MetalWork(view.circuits, sizing, view.layout, view.door, view.holes, sheets, names)
    bare = blockers_of(replace(work, layout=replace(view.layout, seats=())))
    assert seen(replace(view, blockers=bare), "P03") is Verdict.FAILS
    holeless = blockers_of(replace(work, holes=()))
    assert {b.text.split()[0] for b in holeless} == {"S1", "S2", "H1", "H2", "E2", "PE"} - {"E2"}
    assert seen(replace(view, blockers=holeless), "P03") is Verdict.FAILS
    silent = replace(view.labels, labels=())
    assert seen(replace(view, labels=silent), "M03") is Verdict.FAILS
    assert seen(replace(view, labels=silent), "M04") is Verdict.FAILS


def test_a_load_fed_past_every_breaker_is_found() -> None:
    view = plan_for(wash_drum()).get(VIEW)
    kept = tuple(d for d in view.circuits.devices if d.kind_id != "control_breaker")
    bridged = replace(
        view.circuits,
        devices=tuple(replace(d, kind_id="isolator") if d.kind_id == "motor_breaker" else d for d in kept),
    )
    result = next(c(replace(view, circuits=bridged)) for c in CLAUSES if c.__name__ == "every_circuit_protected")
    assert result.verdict is Verdict.FAILS
    assert any("M1" in f.message for f in result.findings)


def test_an_overload_that_cannot_be_set_is_found() -> None:
    view = plan_for(wash_drum()).get(VIEW)
    load = replace(view.sizing.loads[0], setting_a=12.0)
    assert seen(replace(view, sizing=replace(view.sizing, loads=(load,))), "E05") is Verdict.FAILS


@pytest.mark.parametrize(
    ("change", "code"),
    [
        (lambda job: set_supply(job, upstream_device=UpstreamDevice.UNKNOWN), "E07"),
        (lambda job: set_practice(job, colours=Colours.THREE_PHASE), "W03"),
        (lambda job: insert_contact(job, STOP, Insertable.STOP_BUTTON, "second"), "C02"),
    ],
    ids=["what protects it upstream", "another colour scheme", "more than two control devices"],
)
def test_what_a_person_must_decide_needs_judgement(change: object, code: str) -> None:
    result = judged(with_names_recorded(change(wash_drum())))[code]  # type: ignore[operator]
    assert result.verdict is Verdict.JUDGE


@pytest.mark.parametrize(
    ("code", "action"), [("E01", "neutral"), ("P02", "plan"), ("P04", "larger enclosure"), ("M02", "short markers")]
)
def test_a_mend_that_is_offered_mends(code: str, action: str) -> None:
    job = with_names_recorded(BROKEN[code](wash_drum()))
    if code == "P04":
        job = set_practice(job, spare_share=0.63)
    finding = next(f for f in findings_of(plan_for(job).get(RULES)) if f.code == code)
    assert finding.quick_fix
    assert finding.quick_fix.action == action
    for _ in range(3):
        job = with_names_recorded(apply_mend(job, finding.quick_fix))
    assert judged(job)[code].verdict is Verdict.MEETS


def test_mends_end_where_nothing_larger_is_made() -> None:
    job = wash_drum()
    widths = []
    with pytest.raises(RiktigError, match="no standard enclosure larger"):
        for _ in range(30):
            job = larger_enclosure(job)
            widths.append(job.enclosure.width * job.enclosure.height)
    assert widths == sorted(set(widths))
    with pytest.raises(RiktigError, match="no wider duct"):
        apply_mend(set_practice(one_motor(), duct_width=120.0), QuickFix("", "wider duct"))
    assert set_enclosure(job, rating="IP54").enclosure.rating == "IP54"


def test_failures_come_first_in_the_list_of_findings() -> None:
    job = with_names_recorded(remove_element(set_practice(wash_drum(), colours=Colours.THREE_PHASE), COIL))
    verdicts = [f.verdict for f in findings_of(plan_for(job).get(RULES))]
    assert verdicts == sorted(verdicts, key=lambda v: v is not Verdict.FAILS)
    assert Verdict.FAILS in verdicts
