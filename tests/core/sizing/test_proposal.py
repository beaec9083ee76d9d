"""The proposal as a whole: what holds for every load, the builder's own values, and what cannot stand."""

from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.effort import some
from tests.shared_plan import plan_for

from riktig.core.job import (
    Access,
    Command,
    ControlSupply,
    ControlTap,
    Duty,
    Job,
    LoadKind,
    Practice,
    Protection,
    Recipe,
    Rulebook,
    Start,
    Wetting,
    add_load,
    add_signal,
    add_source,
    change_load,
    new_job,
    override,
    set_heading,
    set_practice,
    set_supply,
)
from riktig.core.keys import PartKey
from riktig.core.sizing import (
    PROPOSAL,
    SIZING,
    Laid,
    Proposal,
    alternatives_of,
    control_alternatives,
    section_of,
    smallest_section,
    take,
)
from riktig.core.standards import nec_sizes, standard_sections
from riktig.demo_job import DEMOS, demo_job


def of(job: Job) -> Proposal:
    return plan_for(job).get(PROPOSAL)


def amount(job: Job, key: str) -> float:
    found = of(job).value(key)
    assert found, key
    return found.amount


def base(**supply: Any) -> Job:
    return set_supply(new_job("P-1", "proposal"), **({"upstream_a": 100.0} | supply))


KW = st.floats(0.1, 45)
LAID = st.builds(
    Laid,
    method=st.sampled_from(["B1", "C"]),
    ambient_c=st.floats(10, 59),
    circuits=st.integers(1, 9),
    control=st.booleans(),
    north_american=st.booleans(),
    terminal_c=st.sampled_from([60.0, 75.0]),
)


@given(KW, KW, st.sampled_from(list(Start)[:5]), st.sampled_from(list(Rulebook)))
@settings(max_examples=60, deadline=None)
def test_a_larger_motor_never_gets_a_smaller_size(kw: float, more: float, start: Start, rulebook: Rulebook) -> None:
    job = set_practice(base(), rulebook=rulebook)
    small, large = (of(add_load(job, "fan", p, start=start)).loads[0] for p in (min(kw, more), max(kw, more)))
    for name in ("current", "breaker", "contactor", "star", "device", "section", "cable", "setting"):
        assert small.amount(name) <= large.amount(name), name


@given(st.lists(KW, min_size=1, max_size=5), KW)
@settings(max_examples=40, deadline=None)
def test_a_further_load_never_lowers_a_size(kws: list[float], more: float) -> None:
    job = base()
    for number, kw in enumerate(kws):
        job = add_load(job, f"load {number}", kw)
    before, after = of(job), of(add_load(job, "further", more))
    for value in some(before.values):
        now = after.value(value.key)
        if value.unit in ("A", "mm²", "VA", "W") and now:
            assert now.amount >= value.amount, value.key


@given(LAID, st.floats(0.1, 300), st.floats(0.1, 300))
@settings(max_examples=80, deadline=None)
def test_a_larger_conductor_never_carries_less_and_the_chosen_one_suffices(
    laid: Laid, amps: float, more: float
) -> None:
    carried = [section_of(mm2, amps, "asked", laid).carries_a for mm2 in laid.sizes]
    assert carried == sorted(carried)
    small, large = (smallest_section(a, "asked", laid) for a in (min(amps, more), max(amps, more)))
    assert small.mm2 <= large.mm2
    assert small.enough or small.mm2 == laid.sizes[-1]
    assert small.mm2 >= laid.floor.value


@pytest.mark.parametrize("name", DEMOS)
def test_every_value_says_why_with_a_source_and_its_confidence(name: str) -> None:
    found = of(demo_job(name))
    assert len({value.key for value in found.values}) == len(found.values)
    for value in found.values:
        assert value.why.reason, value.key
        assert value.why.source, value.key
        assert value.why.confidence.split(",")[0].split(" (")[0] in ("sure", "fairly sure", "unsure"), value.key


def test_a_figure_marked_unsure_marks_what_it_decides() -> None:
    belt = next(one for one in of(demo_job()).loads if one.value("device"))
    breaker = belt.value("breaker")
    assert breaker
    assert breaker.unsure, "the drive's input current is a typical figure"
    drum = of(demo_job("wash-drum")).loads[0].value("breaker")
    assert drum
    assert not drum.unsure


class TestOwnValues:
    def test_the_builders_value_wins_everywhere_is_marked_and_survives(self) -> None:
        job = override(add_load(base(), "drum", 4.0), "m1.breaker", 20.0, "the only size on the shelf")
        value = of(job).value("m1.breaker")
        assert value
        assert (value.amount, value.proposed, value.overridden) == (20, 13, True)
        assert "the only size on the shelf" in value.why.reason
        breaker = next(p for d, p in plan_for(job).get(SIZING).parts.items() if d.endswith(".F"))
        assert breaker.rated_a == 20
        later = change_load(set_supply(job, voltage_v=415.0, voltage_to_neutral_v=240.0), job.loads[0].id, place="bay")
        assert amount(later, "m1.breaker") == 20

    def test_a_current_of_ones_own_leads_all_that_follows(self) -> None:
        job = override(add_load(base(), "drum", 4.0), "m1.current", 12.0, "measured on site")
        assert amount(job, "m1.setting") == 12
        assert amount(job, "m1.breaker") == 16  # 1.25 x 12 = 15
        assert amount(job, "m1.contactor") == 12
        assert amount(job, "panel.full_load") == 12

    def test_a_section_of_ones_own_that_is_too_thin_is_said(self) -> None:
        job = override(add_load(base(), "mill", 11.0), "m1.section", 1.5, "what is on the drum")
        value = of(job).value("m1.section")
        assert value
        assert value.shortfall == "carries 13.5 A of 22 A"

    def test_a_section_that_no_table_has_is_not_vouched_for(self) -> None:
        job = override(add_load(base(), "mill", 11.0), "m1.section", 5.0, "odd stock")
        value = of(job).value("m1.section")
        assert value
        assert "carries 0.0 A" in value.shortfall

    def test_going_back_gives_riktigs_value_again(self) -> None:
        job = add_load(base(), "drum", 4.0)
        there = override(job, "m1.breaker", 20.0, "shelf")
        assert of(override(there, "m1.breaker", None)) == of(job)

    def test_one_that_no_longer_decides_anything_is_listed(self) -> None:
        job = override(add_load(base(), "fan", 11.0, start=Start.STAR_DELTA), "m1.star", 18.0, "shelf")
        assert of(job).strayed == ()
        assert [one.key for one in of(change_load(job, job.loads[0].id, start=Start.DIRECT)).strayed] == ["m1.star"]

    @pytest.mark.parametrize(("value", "reason"), [(0.0, "x"), (-1.0, "x"), (float("nan"), "x"), (5.0, " ")])
    def test_one_without_a_reason_or_an_amount_is_refused(self, value: float, reason: str) -> None:
        with pytest.raises(ValueError, match=r"reason|used"):
            override(base(), "m1.breaker", value, reason)


class TestAlternatives:
    def test_each_is_taken_in_one_edit_and_costs_what_it_said(self) -> None:
        job = add_load(base(), "fan", 11.0)
        now = of(job)
        for one in some(alternatives_of(job, job.loads[0], now)):
            there = of(take(job, one)).loads[0]
            assert there.space - now.loads[0].space == pytest.approx(one.space, abs=0.06)
            assert there.loss_w - now.loads[0].loss_w == pytest.approx(one.loss_w, abs=0.06)
            if one.start:
                assert there.amount("start") == one.start_a

    def test_a_motor_that_runs_both_ways_is_offered_only_what_can(self) -> None:
        job = add_load(base(), "rake", 1.5, start=Start.REVERSING, command=Command.BOTH_WAYS)
        starts = {one.start for one in alternatives_of(job, job.loads[0], of(job))}
        assert starts == {Start.DRIVE, None}

    def test_control_by_rulebook_asks_for_a_transformer_from_the_second_starter_on(self) -> None:
        job = add_load(base(), "drum", 4.0)
        assert of(job).control.kind is ControlSupply.DIRECT
        two = add_load(job, "pump", 2.2)
        assert of(two).control.kind is ControlSupply.TRANSFORMER
        direct = next(a for a in control_alternatives(two, of(two)) if a.control is ControlSupply.DIRECT)
        assert direct.space < 0
        assert of(take(two, direct)).control.kind is ControlSupply.DIRECT
        assert of(set_supply(job, neutral=False)).control.kind is ControlSupply.TRANSFORMER


ONE_WAY = {"start": Start.REVERSING, "command": Command.BUTTONS}
DOUBTS: list[tuple[str, dict[str, Any], str]] = [
    ("single-phase in star-delta", {"phases": 1, "start": Start.STAR_DELTA}, "cannot be started star-delta"),
    ("a heater in star-delta", {"kind": LoadKind.HEATER, "start": Start.STAR_DELTA}, "only a motor"),
    ("both powers", {"hp": 7.5}, "not the same power"),
    ("another voltage", {"voltage_v": 415.0}, "not a voltage of this job"),
    ("a slip of the decimal point", {"nameplate_a": 85.0}, "far from"),
    ("no guard", {"start": Start.WAY, "command": Command.ALWAYS}, "needs a guard against overload"),
    ("inched star-delta", {"start": Start.STAR_DELTA, "duty": Duty.INCHING}, "inched or plugged"),
    ("one-way command", ONE_WAY, "give no direction"),
    ("both ways on one", {"command": Command.BOTH_WAYS}, "one direction only"),
    ("nobody starts it", {"command": Command.ALWAYS}, "start by itself"),
    ("no floats", {"command": Command.LEVEL}, "no float is listed"),
]


@pytest.mark.parametrize(("fields", "words"), [(f, w) for _, f, w in DOUBTS], ids=[name for name, _, _ in DOUBTS])
def test_answers_that_contradict_each_other_are_named_with_the_load(fields: dict[str, Any], words: str) -> None:
    plain = add_load(set_heading(base(), sources_asked=True), "drum", 4.0)
    assert of(plain).issues == ()
    found = of(change_load(plain, plain.loads[0].id, **fields)).issues
    assert any(words in issue.text and str(issue.where) == "load:m1" and issue.remedy for issue in found), found


def test_what_the_supply_cannot_be_and_what_was_not_asked_is_said() -> None:
    job = add_load(base(), "drum", 4.0)
    assert [(d.where, d.asks) for d in of(job).issues] == [(PartKey("sources"), True)]
    assert of(add_source(job, "fire alarm", 24.0)).issues == ()
    assert "not one three-phase system" in of(set_supply(job, voltage_to_neutral_v=110.0)).issues[0].text
    assert "55 Hz" in of(set_supply(job, frequency_hz=55.0)).issues[0].text
    foreign = add_signal(set_heading(job, sources_asked=True), "interlock", wetting=Wetting.FOREIGN)
    assert "no further supply is named" in of(foreign).issues[0].text
    twice = add_load(set_heading(job, sources_asked=True), "Drum", 1.5)
    assert len([d for d in of(twice).issues if "Two loads" in d.text]) == 2


def test_the_two_rulebooks_differ_where_they_must() -> None:
    """The same motor: AWG and 430.52 on one side, mm² and a type D breaker on the other."""
    job = add_load(base(voltage_v=480.0, voltage_to_neutral_v=277.0, frequency_hz=60.0), "fan", 7.5)
    metric = of(job).loads[0]
    imperial = of(set_practice(job, rulebook=Rulebook.UL)).loads[0]
    assert metric.section.mm2 in standard_sections()
    assert imperial.section.mm2 in nec_sizes()
    assert "AWG" in imperial.section.name
    assert imperial.value("breaker").text.endswith("inverse-time")  # type: ignore[union-attr]
    # 7.5 kW are 10.05 hp: the next row of 430.250 is 15 hp, 21 A at 460 V.
    assert imperial.amount("current") == 21


def test_the_nameplate_sets_the_overload_and_the_table_the_rest_by_the_nec() -> None:
    """NEC 430.6(A): 10 hp at 460 V is 14 A by the table; a plate of 12.5 A sets the overload."""
    job = set_practice(base(voltage_v=480.0, voltage_to_neutral_v=277.0, neutral=False), rulebook=Rulebook.UL)
    one = of(add_load(job, "pump", hp=10.0, nameplate_a=12.5, service_factor=1.15)).loads[0]
    assert (one.amount("current"), one.amount("setting")) == (14, 12.5)
    setting = one.value("setting")
    assert setting
    assert "125%" in setting.why.lines[1]


def test_a_load_sits_on_the_line_that_was_said() -> None:
    job = add_load(base(), "light", 0.1, kind=LoadKind.LIGHTING, phases=1, start=Start.WAY, maintained=True)
    job = change_load(job, job.loads[0].id, access=Access.KEY, phase=3)
    assert dict(of(job).incoming.on_line)[job.loads[0].id] == (2,)


def test_a_motor_that_stays_live_keeps_its_starter_and_is_sized() -> None:
    job = add_load(base(), "alarm fan", 0.37)
    assert job.circuits[-1].recipe is Recipe.DIRECT_ON_LINE
    kept = change_load(job, job.loads[-1].id, maintained=True)
    assert kept.circuits[-1].recipe is Recipe.DIRECT_ON_LINE
    assert of(kept).of_load(kept.loads[-1].id), "it is sized all the same"


def test_inching_asks_for_twice_the_contactor_and_a_motor_protector_takes_the_overloads_place() -> None:
    job = add_load(base(), "hoist", 4.0, duty=Duty.INCHING, protection=Protection.PROTECTOR)
    one = of(job).loads[0]
    assert one.amount("contactor") == 18  # 2 x 8.5 = 17
    assert one.value("overload") is None
    guard = one.value("breaker")
    assert guard
    assert guard.text == "6.3 to 10 A"


def test_every_default_of_practice_is_the_value_its_argument_is_about() -> None:
    from riktig.core.job import CHOICES

    practice = Practice()
    assert len({choice.field for choice in CHOICES}) == len(CHOICES)
    for choice in CHOICES:
        assert getattr(practice, choice.field) in choice.values
        assert choice.argument.endswith(".")
        assert "\n" not in choice.argument
        assert len(choice.argument) < 110


@pytest.mark.parametrize("control", [ControlSupply.TRANSFORMER, ControlSupply.DC])
def test_a_shared_control_supply_is_not_behind_any_one_motor_breaker(control: ControlSupply) -> None:
    """The choice would change nothing: it is said, and asks for a decision."""
    job = add_source(add_load(new_job(), "pump", 1.5), "fire alarm", 24.0)
    behind = set_practice(job, control_supply=control, control_tap=ControlTap.AFTER)
    assert [(issue.where, issue.asks) for issue in of(behind).issues] == [(PartKey("practice"), True)]
    assert control.value in of(behind).issues[0].text
    assert of(set_practice(behind, control_supply=ControlSupply.DIRECT)).issues == ()
    assert of(set_practice(behind, control_tap=ControlTap.BEFORE)).issues == ()


def test_the_drop_along_a_cable_is_that_of_its_resistance() -> None:
    """By hand: √3 × 12.99 A × 0.06 km × 7.98 Ω/km × (1 + 0.00393 × 50) / 400 V (IEC 60228 class 5, from memory)."""
    job = add_load(new_job("V", "oven"), "oven", 9.0, kind=LoadKind.HEATER, cable_m=60.0)
    by_hand = 3**0.5 * 12.99 * 0.06 * 7.98 * (1 + 0.00393 * 50) / 400.0
    assert amount(job, "m1.cable") == 2.5
    assert amount(job, "m1.drop") == pytest.approx(100 * by_hand, abs=0.01)
