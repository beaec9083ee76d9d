"""The North American rating by UL 508A supplement SB, worked by hand; table values from memory, the logic sure."""

from dataclasses import replace

import pytest

from riktig.core.catalogue import Combination, ShortCircuitFigures
from riktig.core.ids import DeviceId
from riktig.core.job import Rulebook, SupplySystem, set_practice, set_supply
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import NAMES, with_names_recorded
from riktig.core.short_circuit import (
    POWER_PATHS,
    SHORT_CIRCUIT,
    Basis,
    Limit,
    PowerPart,
    PowerPaths,
    Rating,
    assumed_ka,
    fuse_peak_ka,
    rate_north_american,
    ways_to,
)
from riktig.demo_job import frost_fan
from tests.core.schematic.samples import SAMPLES, sample
from tests.effort import share
from tests.shared_plan import plan_for

FAN = plan_for(frost_fan())
SUPPLY = FAN.document.supply
TAGS = FAN.get(NAMES).tag


def with_figures(paths: PowerPaths, figures: dict[str, ShortCircuitFigures]) -> PowerPaths:
    """The panel with other figures for some parts, by their tags."""
    parts = tuple(
        replace(part, figures=figures[TAGS[part.id]]) if TAGS[part.id] in figures else part for part in paths.parts
    )
    return replace(paths, parts=parts)


def rated(paths: PowerPaths) -> Rating:
    return rate_north_american(paths, SUPPLY, TAGS)


def limit_of(rating: Rating, tag: str) -> Limit:
    return next(limit for limit in rating.limits if TAGS[limit.device] == tag)


@pytest.mark.parametrize(
    ("category", "hp", "ka"),
    [
        # UL 508A table SB4.1, from memory, sure.
        ("circuit breaker", 0, 5), ("terminal block", 0, 10), ("bus bar or block", 0, 10), ("switch", 0, 5),
        ("overload relay", 0, 5), ("supplementary protector", 0, 0.2), ("midget fuse", 0, 10),
        ("motor controller", 50, 5), ("motor controller", 51, 10), ("motor controller", 250, 18),
        ("motor controller", 500, 30), ("motor controller", 800, 42), ("receptacle", 0, 10),
    ],
)  # fmt: skip
def test_what_is_not_marked_counts_as_the_table_has_it(category: str, hp: float, ka: float) -> None:
    assert assumed_ka(category, hp) == ka


def test_a_category_that_is_not_in_the_table_has_no_value() -> None:
    assert assumed_ka("flux capacitor") is None
    assert assumed_ka("motor controller", 5000) is None


@pytest.mark.parametrize(
    ("guard", "amps", "at_ka", "peak"),
    [
        # UL 508A table SB4.2, class J sure, class CC fairly sure (from memory).
        ("class J", 30, 50, 6), ("class J", 60, 100, 10), ("class J", 100, 50, 12), ("class J", 200, 200, 30),
        ("class CC", 30, 50, 6), ("class J", 101, 100, 20),
    ],
)  # fmt: skip
def test_the_let_through_of_fuses(guard: str, amps: float, at_ka: float, peak: float) -> None:
    assert fuse_peak_ka(guard, amps, at_ka) == peak


def test_a_fuse_without_a_table_lets_through_what_nobody_knows() -> None:
    assert fuse_peak_ka("class H", 30, 50) is None
    assert fuse_peak_ka("class J", 900, 50) is None


def test_the_fan_is_rated_by_its_weakest_part() -> None:
    """By hand: breakers 14 kA, class CC 200, contactors tested with a breaker of 15 A 14, terminals assumed 10."""
    rating = rated(FAN.get(POWER_PATHS))
    assert rating.ka == 10
    assert {TAGS[limit.device] for limit in rating.weakest} == {"X1", "Q1", "XD1", "U1", "X2", "X3", "X4"}
    assert (limit_of(rating, "F5").ka, limit_of(rating, "F5").basis) == (14, Basis.BREAKS)
    assert limit_of(rating, "F1").ka == 200
    assert (limit_of(rating, "K2").ka, limit_of(rating, "K2").basis) == (14, Basis.TESTED)
    assert (limit_of(rating, "X3").ka, limit_of(rating, "X3").basis) == (10, Basis.ASSUMED)
    assert (limit_of(rating, "Q1").ka, limit_of(rating, "Q1").basis) == (10, Basis.MARKED)
    assert rating.is_known


def test_a_main_breaker_that_breaks_much_lifts_nothing() -> None:
    """The myth: the interrupting rating of the main breaker is not that of the panel."""
    paths = FAN.get(POWER_PATHS)
    stronger = with_figures(paths, {"Q1": ShortCircuitFigures(marked_ka=100)})
    assert rated(stronger).ka == 10
    weaker = with_figures(paths, {"F8": ShortCircuitFigures(guard="inverse-time breaker", breaks_ka=5)})
    assert (rated(weaker).ka, [TAGS[limit.device] for limit in rated(weaker).weakest]) == (5, ["F8"])


def test_a_contactor_without_a_tested_combination_counts_five_and_sets_the_panel() -> None:
    """By hand: to 50 hp a motor controller counts 5 kA; the terminals at 10 kA no longer decide."""
    bare = with_figures(FAN.get(POWER_PATHS), {"K2": ShortCircuitFigures(category="motor controller")})
    rating = rated(bare)
    assert (rating.ka, [TAGS[limit.device] for limit in rating.weakest]) == (5, ["K2"])


def with_feeder_fuses(paths: PowerPaths, amps: float, breaks: float = 200.0) -> PowerPaths:
    """The panel with class J fuses as a feeder in place of its distribution block, everything behind them."""
    block = next(part for part in paths.parts if TAGS[part.id] == "XD1")
    fuses = ShortCircuitFigures(guard="class J", breaks_ka=breaks)
    rest: list[PowerPart] = []
    for part in paths.parts:
        if part.id == block.id:
            frame = replace(part.part, rated_a=amps)
            rest.append(PowerPart(part.device, frame, fuses, (), is_guard=True, feeds_guards=True))
        else:
            rest.append(replace(part, ahead=(block.id, *part.ahead)) if part.ahead or part.is_guard else part)
    return replace(paths, parts=tuple(rest))


def test_fuses_of_a_feeder_raise_parts_by_their_let_through_but_no_breaker() -> None:
    """By hand: class J 60 A lets 10 kA through at 100 kA, no more than the terminals bear (10): these count 100. The
    breakers behind stay at 14 kA, the switch and the terminals ahead of the fuses at 10.
    """
    rating = rated(with_feeder_fuses(FAN.get(POWER_PATHS), 60.0))
    assert (limit_of(rating, "X3").ka, limit_of(rating, "X3").raised_from) == (100, 10)
    assert limit_of(rating, "X3").basis is Basis.RAISED
    assert limit_of(rating, "F5").ka == 14
    assert limit_of(rating, "Q1").ka == 10
    assert rating.ka == 10
    assert {TAGS[limit.device] for limit in rating.weakest} == {"X1", "Q1"}


def test_larger_fuses_let_more_through_than_the_parts_bear() -> None:
    """By hand: class J 100 A lets 12 kA through at 50 kA, more than the 10 kA of a terminal: nothing is raised."""
    rating = rated(with_feeder_fuses(FAN.get(POWER_PATHS), 100.0))
    assert limit_of(rating, "X3").ka == 10
    assert not [limit for limit in rating.limits if limit.basis is Basis.RAISED]


def test_fuses_raise_nothing_beyond_what_they_break_themselves() -> None:
    rating = rated(with_feeder_fuses(FAN.get(POWER_PATHS), 60.0, breaks=50.0))
    assert limit_of(rating, "X3").ka == 50
    weak = rated(with_feeder_fuses(FAN.get(POWER_PATHS), 60.0, breaks=10.0))
    assert not [limit for limit in weak.limits if limit.basis is Basis.RAISED]


def test_a_breaker_of_less_than_the_voltage_or_of_a_star_only_is_no_breaker() -> None:
    low = with_figures(FAN.get(POWER_PATHS), {"F8": ShortCircuitFigures("inverse-time breaker", 14, at_v=240)})
    assert limit_of(rated(low), "F8").ka == 0
    slash = with_figures(
        FAN.get(POWER_PATHS), {"F8": ShortCircuitFigures("inverse-time breaker", 14, at_v=480, slash=True)}
    )
    assert limit_of(rated(slash), "F8").ka is None, (
        "the fan's supply brings no neutral: whether it is a star is not known"
    )
    star = rate_north_american(slash, replace(SUPPLY, neutral=True), TAGS)
    assert limit_of(star, "F8").ka == 14
    corner = rate_north_american(slash, replace(SUPPLY, system=SupplySystem.CORNER, neutral=True), TAGS)
    assert limit_of(corner, "F8").ka is None


def test_a_missing_figure_leaves_it_to_the_engineer_and_is_named() -> None:
    unknown = with_figures(FAN.get(POWER_PATHS), {"F8": ShortCircuitFigures()})
    rating = rated(unknown)
    assert not rating.is_known
    assert [TAGS[limit.device] for limit in rating.unknown] == ["F8"]
    assert "ask its maker" in rating.unknown[0].why


def test_behind_a_small_transformer_little_is_asked() -> None:
    """By hand: 120 V, to 5 kVA: 2 kA are asked. A supplementary protector of 0.2 kA stands where no more flows: 100 VA
    at 120 V and 2.1 % give 0.04 kA; 5 kVA give 2 kA, and it does not.
    """
    paths = FAN.get(POWER_PATHS)
    transformer = next(part for part in paths.parts if part.is_transformer)
    behind = paths.behind_transformers[transformer.id]
    assert behind, "the fuse of the secondary"
    weak = tuple(replace(part, figures=ShortCircuitFigures(guard="midget", breaks_ka=0.2)) for part in behind)
    small = replace(paths, behind_transformers={transformer.id: weak})
    assert rated(small).ka == 10
    large = tuple(
        replace(part, part=replace(part.part, rated_va=5000.0)) if part.is_transformer else part for part in small.parts
    )
    rating = rated(replace(small, parts=large))
    assert rating.ka == 0.2
    unsaid = tuple(
        replace(part, part=replace(part.part, rated_va=0.0)) if part.is_transformer else part for part in small.parts
    )
    assert not rated(replace(small, parts=unsaid)).is_known


def test_better_parts_never_lower_the_rating_and_order_does_not_matter() -> None:
    paths = FAN.get(POWER_PATHS)
    now = rated(paths).ka or 0.0
    for part in paths.parts:
        better = replace(
            part.figures, breaks_ka=part.figures.breaks_ka * 2, marked_ka=200.0,
            tested=(*part.figures.tested, Combination("inverse-time breaker", 400, 65)),
        )  # fmt: skip
        assert (rated(with_figures(paths, {TAGS[part.id]: better})).ka or 0.0) >= now
    backwards = replace(paths, parts=tuple(reversed(paths.parts)))
    assert rated(backwards).ka == now


def test_the_ways_to_more_reach_what_they_say() -> None:
    """By hand: for 10 kA nothing is needed; for 18 kA breakers of 14 kA and parts of 10 kA are in the way."""
    paths = FAN.get(POWER_PATHS)
    assert ways_to(10.0, paths, SUPPLY, TAGS, 120.0) == ()
    ways = ways_to(18.0, paths, SUPPLY, TAGS, 120.0)
    assert len(ways) >= 3
    for way in ways:
        assert way.reaches is None or way.reaches <= 18.0
        assert way.changed >= 1
        if way.reaches is not None and way.reaches < way.target_ka:
            assert way.left, "what holds it back is named"
    makers = ways[-1].words
    assert "F5" in makers
    assert "Q1" in makers
    assert "F1," not in makers, "class CC fuses break 200 kA"


@pytest.mark.parametrize("ka", [0.5, 5.0, 9.9, 10.0, 10.1, 65.0, 200.0])
def test_more_fault_current_never_betters_the_verdict(ka: float) -> None:
    """By hand: the fan bears 10 kA."""
    job = with_names_recorded(set_supply(frost_fan(), fault_ka=ka))
    result = next(result for result in plan_for(job).get(RULES) if result.code == "E07")
    assert result.verdict is (Verdict.MEETS if ka <= 10 else Verdict.FAILS)
    if ka > 10:
        assert "Q1" in " ".join(finding.message for finding in result.findings)


@pytest.mark.parametrize("name", share(SAMPLES, 0)[::3])
def test_every_kind_of_job_is_rated_and_each_part_says_why(name: str) -> None:
    job = sample(name)
    if not job.practice.rulebook.north_american:
        job = with_names_recorded(set_practice(job, rulebook=Rulebook.UL))
    found = plan_for(job).get(SHORT_CIRCUIT)
    for limit in found.rating.limits:
        assert limit.why.endswith(".")
        assert limit.ka is None or limit.ka >= 0
    known = [limit.ka for limit in found.rating.limits if limit.ka is not None]
    assert found.rating.ka == min(known, default=None)


def test_a_guard_that_nobody_knows_is_in_no_power_circuit() -> None:
    with pytest.raises(KeyError):
        FAN.get(POWER_PATHS).part(DeviceId("c99.F"))
