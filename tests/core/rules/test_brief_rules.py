"""The clauses about the Brief: each with a job that meets it and one that does not, and its remedy."""

from collections.abc import Callable

import pytest
from tests.shared_plan import plan_for

from riktig.core.errors import RiktigError
from riktig.core.job import (
    Job,
    LoadKind,
    Rulebook,
    Start,
    WayOrder,
    add_load,
    add_source,
    change_load,
    new_job,
    override,
    set_enclosure,
    set_heading,
    set_supply,
)
from riktig.core.labels import LABELS, Medium
from riktig.core.rules import RULES, Finding, Verdict, apply_mend, proposed_box
from riktig.core.schematic import with_names_recorded
from riktig.core.sizing import PROPOSAL
from riktig.demo_job import frost_fan, kelp_shed, wash_drum


def lit(job: Job) -> Job:
    return add_load(job, "light", 1.0, phases=1, start=Start.WAY)


def findings(job: Job, code: str) -> tuple[Finding, ...]:
    return next(r for r in plan_for(with_names_recorded(job)).get(RULES) if r.code == code).findings


def way(job: Job, name: str, amps: float) -> Job:
    return add_load(job, name, nameplate_a=amps, kind=LoadKind.SOCKETS, phases=1, start=Start.WAY)


def uneven(job: Job) -> Job:
    for name, amps in (("a", 16.0), ("b", 2.0), ("c", 3.0), ("d", 12.0)):
        job = way(job, name, amps)
    return set_supply(job, upstream_a=63.0)


CASES: list[tuple[str, Callable[[Job], Job], Verdict, str]] = [
    ("B01", lambda j: change_load(j, j.loads[0].id, start=Start.REVERSING), Verdict.FAILS, "give no direction"),
    ("B01", lambda j: set_supply(j, frequency_hz=55.0), Verdict.FAILS, "55 Hz"),
    ("B02", lambda j: set_heading(j, sources_asked=False), Verdict.JUDGE, "anything else arrives live"),
    (
        "B03",
        lambda j: override(change_load(j, j.loads[0].id, nameplate_a=9.9), "m1.section", 0.75, "x"),
        Verdict.FAILS,
        "Panel conductors",
    ),
    ("B03", lambda j: override(j, "m1.contactor", 6.0, "x"), Verdict.FAILS, "8.5 A AC-3 is needed"),
    ("B03", lambda j: override(j, "m1.pe", 1.0, "x"), Verdict.FAILS, "smaller than the rulebook's least"),
    ("B03", lambda j: change_load(j, j.loads[0].id, kw=11.0), Verdict.FAILS, "protected at 20 A"),
    ("P05", lambda j: set_enclosure(j, room_c=39.5), Verdict.FAILS, "everything is sized for"),
    ("B03", uneven, Verdict.JUDGE, "apart"),
    ("B04", lambda j: override(j, "m1.star", 9.0, "x"), Verdict.JUDGE, "no longer decides anything"),
    (
        "B05",
        lambda j: set_supply(add_load(j, "light", 1.0, phases=1, start=Start.WAY), neutral=False),
        Verdict.JUDGE,
        "no circuit",
    ),
]


@pytest.mark.parametrize(("code", "spoil", "verdict", "words"), CASES)
def test_a_clause_is_met_by_the_wash_drum_and_broken_by_one_answer(
    code: str, spoil: Callable[[Job], Job], verdict: Verdict, words: str
) -> None:
    assert findings(wash_drum(), code) == ()
    found = [one for one in findings(spoil(wash_drum()), code) if words in one.message]
    assert found, findings(spoil(wash_drum()), code)
    assert found[0].verdict is verdict
    assert found[0].remedy
    assert found[0].where


@pytest.mark.parametrize(
    ("spoil", "code"),
    [
        (lambda j: set_heading(j, sources_asked=False), "B02"),
        (lambda j: override(change_load(j, j.loads[0].id, nameplate_a=9.9), "m1.section", 0.75, "x"), "B03"),
        (lambda j: override(j, "m1.star", 9.0, "x"), "B04"),
        (lambda j: set_enclosure(j, room_c=38.0), "P05"),
    ],
)
def test_a_remedy_that_is_offered_mends(spoil: Callable[[Job], Job], code: str) -> None:
    job = spoil(wash_drum())
    (finding,) = findings(job, code)
    assert finding.quick_fix
    assert findings(apply_mend(job, finding.quick_fix), code) == ()


def test_evening_the_ways_out_brings_the_lines_together() -> None:
    job = uneven(wash_drum())
    finding = next(one for one in findings(job, "B03") if "apart" in one.message)
    assert finding.quick_fix
    fixed = apply_mend(job, finding.quick_fix)
    assert fixed.practice.way_order is WayOrder.EVEN

    def spread(one: Job) -> float:
        lines = plan_for(one).get(PROPOSAL).incoming.lines
        return max(lines) - min(lines)

    assert spread(fixed) < spread(job)


def test_a_panel_too_large_for_any_box_says_so() -> None:
    job = wash_drum()
    for number in range(40):
        job = add_load(job, f"fan {number}", 11.0, start=Start.DRIVE)
    found = next(v for v in plan_for(job).get(PROPOSAL).values if v.key == "panel.box")
    assert found.text == "larger than any standard box"
    with pytest.raises(RiktigError, match="No standard enclosure"):
        proposed_box(job)


def test_a_supply_from_elsewhere_gets_its_warning_label() -> None:
    job = add_source(wash_drum(), "Fire alarm", 24.0, "the fire panel")
    warnings = plan_for(with_names_recorded(job)).get(LABELS).on(Medium.WARNING)
    said = [" ".join(label.lines) for label in warnings]
    assert any("FIRE ALARM" in text and "the fire panel" in text and "24 V DC" in text for text in said)


def test_the_demonstrations_have_nothing_in_the_brief_that_fails() -> None:
    for job in (kelp_shed(), frost_fan()):
        for code in ("B01", "B02", "B03", "B04"):
            assert findings(job, code) == (), code


def test_the_protective_conductor_is_judged_by_the_rulebook_of_the_job() -> None:
    """NEC 250.122 behind 100 A: 8 AWG, where IEC would ask for 16 mm² beside 4 AWG."""
    result = next(r for r in plan_for(frost_fan()).get(RULES) if r.code == "E08")
    assert frost_fan().practice.rulebook is Rulebook.UL
    assert result.clause.startswith("NEC 250.122")
    assert result.findings == ()
    assert any("8 AWG" in line for line in result.evidence)


def test_new_jobs_are_asked_about_further_supplies() -> None:
    assert [f.code for f in findings(add_load(new_job(), "fan", 4), "B02")] == ["B02"]
