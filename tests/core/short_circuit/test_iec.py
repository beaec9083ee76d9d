"""The rating by IEC 61439-1 and the energy let through to wires, worked by hand; standards from memory."""

from dataclasses import replace
from math import sqrt

import pytest

from riktig.core.catalogue import ShortCircuitFigures
from riktig.core.job import Job, OwnPart, Pick, UpstreamDevice, set_supply
from riktig.core.rules import RULES, ClauseResult, Verdict
from riktig.core.schematic import CIRCUITS, NAMES, with_names_recorded
from riktig.core.short_circuit import (
    POWER_PATHS,
    SHORT_CIRCUIT,
    WIRE_ENERGIES,
    Basis,
    Limit,
    lets_through,
    peak_factor,
    prospective_ka,
    rate_iec,
)
from riktig.demo_job import kelp_shed, wash_drum
from tests.shared_plan import plan_for

DRUM = plan_for(wash_drum())
TAGS = DRUM.get(NAMES).tag


def clause(job: Job, code: str) -> ClauseResult:
    return next(result for result in plan_for(with_names_recorded(job)).get(RULES) if result.code == code)


def limit_of(tag: str) -> Limit:
    return next(limit for limit in DRUM.get(SHORT_CIRCUIT).rating.limits if TAGS[limit.device] == tag)


@pytest.mark.parametrize(
    ("ka", "factor"), [(3.0, 1.5), (5.0, 1.5), (6.0, 1.7), (10.0, 1.7), (16.0, 2.0), (36.0, 2.1), (65.0, 2.2)]
)
def test_the_peak_is_so_many_times_the_current(ka: float, factor: float) -> None:
    """IEC 61439-1 table 7, from memory, sure."""
    assert peak_factor(ka) == factor


@pytest.mark.parametrize(
    ("kva", "uk", "metres", "mm2", "ka"),
    [
        # At the terminals of a transformer I = S / (√3 · U · uk): textbook, 400 V.
        (630.0, 4.0, 0.0, 0.0, 630 / (sqrt(3) * 400 * 0.04)),
        (1000.0, 6.0, 0.0, 0.0, 1000 / (sqrt(3) * 400 * 0.06)),
        # By hand: 250 kVA, 4 %: X = 25.6 mΩ; 50 m of 35 mm²: R = 26.44 mΩ, X = 4 mΩ; Z = √(26.44² + 29.6²) = 39.69 mΩ.
        (250.0, 4.0, 50.0, 35.0, 400 / sqrt(3) / 39.69),
    ],
)
def test_the_current_behind_a_transformer_and_a_cable(
    kva: float, uk: float, metres: float, mm2: float, ka: float
) -> None:
    assert prospective_ka(400.0, kva, uk, metres, mm2) == pytest.approx(ka, rel=2e-3)


def test_the_brief_can_give_the_transformer_in_place_of_the_current() -> None:
    job = set_supply(wash_drum(), transformer_kva=250.0, transformer_uk=4.0, feeder_m=50.0, feeder_mm2=35.0)
    found = plan_for(with_names_recorded(job)).get(SHORT_CIRCUIT)
    assert found.prospective_ka == pytest.approx(5.82, abs=0.01)
    assert clause(job, "E07").verdict is Verdict.MEETS
    near = set_supply(job, feeder_m=1.0, transformer_kva=630.0)
    assert clause(near, "E07").verdict is Verdict.FAILS, "22 kA are more than breakers of 10 kA break"


def test_each_part_of_the_drum_says_what_it_rests_on() -> None:
    """By hand: breaker 10 kA; contactor and overload tested behind it; a terminal of 4 mm² bears (0.48 kA)² s =
    230,400 A²s (120 A a mm² for a second, IEC 60947-7-1), the breaker lets 28,000 A²s through at 10 kA.
    """
    assert (limit_of("F1").ka, limit_of("F1").basis) == (10, Basis.BREAKS)
    assert (limit_of("K1").ka, limit_of("K1").basis) == (10, Basis.TESTED)
    assert (limit_of("X2").ka, limit_of("X2").basis) == (10, Basis.BEARS)
    assert "230,400 A²s" in limit_of("X2").why
    assert limit_of("Q1").basis is Basis.TESTED
    assert DRUM.get(SHORT_CIRCUIT).rating.ka == 10


def test_without_knowing_what_is_upstream_the_incoming_parts_are_for_the_engineer() -> None:
    job = set_supply(wash_drum(), upstream_device=UpstreamDevice.UNKNOWN)
    result = clause(job, "E07")
    assert result.verdict is Verdict.JUDGE
    text = " ".join(finding.message for finding in result.findings)
    assert "X1" in text
    assert "Q1" in text
    assert "upstream is not said" in text


@pytest.mark.parametrize(
    ("ka", "verdict"), [(1.0, "meets"), (6.0, "meets"), (10.0, "meets"), (10.5, "fails"), (80.0, "fails")]
)
def test_more_fault_current_never_betters_the_verdict(ka: float, verdict: str) -> None:
    assert clause(set_supply(wash_drum(), fault_ka=ka), "E07").verdict.value == verdict


def test_a_part_of_ones_own_is_unknown_until_its_figure_is_entered() -> None:
    """The builder's own breaker: without a figure the engineer decides, 6 kA set the panel, 4 kA fail."""
    breaker = next(d.id for d in DRUM.get(CIRCUITS).devices if TAGS[d.id] == "F1")
    own = OwnPart("OWN-13", "motor_breaker", width=54, height=85, depth=75, rated_a=13.0)
    job = replace(wash_drum(), parts=(own,), picks=(Pick(breaker, "OWN-13"),))
    result = clause(job, "E07")
    assert result.verdict is Verdict.JUDGE
    assert "OWN-13" in " ".join(finding.message for finding in result.findings)
    strong = replace(job, parts=(replace(own, breaking_ka=6.0),))
    rating = plan_for(with_names_recorded(strong)).get(SHORT_CIRCUIT).rating
    assert next(limit.ka for limit in rating.limits if limit.device == breaker) == 6
    weak = replace(job, parts=(replace(own, breaking_ka=4.0),))
    assert clause(weak, "E07").verdict is Verdict.FAILS


@pytest.mark.parametrize("ka", [-1.0, float("nan"), 1e9])
def test_a_figure_that_no_part_has_is_refused(ka: float) -> None:
    with pytest.raises(ValueError, match="cannot be"):
        OwnPart("X", "motor_breaker", breaking_ka=ka)


def test_nought_is_not_known_and_never_meets() -> None:
    paths = DRUM.get(POWER_PATHS)
    bare = tuple(replace(part, figures=ShortCircuitFigures()) for part in paths.parts)
    rating = rate_iec(replace(paths, parts=bare), DRUM.document.supply, 6.0, TAGS)
    assert all(limit.ka is None for limit in rating.limits if "X" not in TAGS[limit.device])
    assert not rating.is_known


def test_wires_bear_what_their_guards_let_through() -> None:
    """IEC 60364-4-43 434.5.2: k²S² = (115 · 1.5)² = 29,756 A²s, 28,000 A²s are let through at 10 kA; 1 mm² bears
    13,225 A²s, the control breaker lets 13,000 A²s through.
    """
    energies = DRUM.get(WIRE_ENERGIES)
    by_section = {energy.mm2: energy for energy in energies}
    assert by_section[1.5].bears == pytest.approx(29756.25)
    assert by_section[1.5].up_to_ka == 10
    assert by_section[1.0].bears == pytest.approx(13225)
    assert clause(wash_drum(), "E20").verdict is Verdict.MEETS
    assert clause(set_supply(wash_drum(), fault_ka=12.0), "E20").verdict is Verdict.FAILS


def test_a_guard_without_its_energy_is_for_the_engineer() -> None:
    breaker = next(d.id for d in DRUM.get(CIRCUITS).devices if TAGS[d.id] == "F1")
    own = OwnPart("OWN-13", "motor_breaker", width=54, height=85, depth=75, rated_a=13.0, breaking_ka=50.0)
    job = replace(wash_drum(), parts=(own,), picks=(Pick(breaker, "OWN-13"),))
    result = clause(job, "E20")
    assert result.verdict is Verdict.JUDGE
    assert "is not known" in result.findings[0].message


def test_a_fuse_link_lets_less_through_than_a_breaker_of_its_size() -> None:
    shed = plan_for(kelp_shed())
    tags, paths = shed.get(NAMES).tag, shed.get(POWER_PATHS)
    fuse = next(part for part in paths.parts if part.figures.guard == "gG")
    breaker = next(part for part in paths.parts if tags[part.id] == "F9")
    assert lets_through(fuse)[0][1] < lets_through(breaker)[0][1]
    assert lets_through(replace(fuse, figures=ShortCircuitFigures(guard="gG"))) == []


def test_the_nameplate_says_what_the_panel_bears_and_not_what_the_supply_gives() -> None:
    from riktig.core.labels import LABELS

    fields = {field.name: field.value for field in DRUM.get(LABELS).nameplate}
    assert fields["Short-circuit rating"] == "10 kA at 400 V"
    unknown = set_supply(wash_drum(), upstream_device=UpstreamDevice.UNKNOWN)
    fields = {f.name: f.value for f in plan_for(with_names_recorded(unknown)).get(LABELS).nameplate}
    assert fields["Short-circuit rating"] == "", "what is not known is not printed"


def test_a_single_pole_breaks_the_voltage_to_neutral() -> None:
    """At 690/400 V the three-pole breaker of 440 V is none, the single-pole one of the control breaks 400 V."""
    job = with_names_recorded(set_supply(wash_drum(), voltage_v=690.0, voltage_to_neutral_v=400.0))
    evaluation = plan_for(job)
    limits = {evaluation.get(NAMES).tag[limit.device]: limit for limit in evaluation.get(SHORT_CIRCUIT).rating.limits}
    assert limits["F1"].ka == 0
    assert limits["F2"].ka == 10
