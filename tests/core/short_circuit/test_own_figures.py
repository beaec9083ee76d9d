"""Figures that the builder gives with parts of his own: energy, peak, combinations; and coordination of starters."""

from dataclasses import replace

import pytest

from riktig.core.catalogue import Can, Combination, ShortCircuitFigures, read_combinations
from riktig.core.errors import ImpossibleValueError
from riktig.core.imports import own_parts_schedule
from riktig.core.imports.part_lists import PART_COLUMNS, parts_of_grid
from riktig.core.imports.read_grid import Grid, GridRow
from riktig.core.job import Coordination, DeviceId, Job, OwnPart, Supply, pick_part, set_part, set_practice, set_supply
from riktig.core.rules import RULES, ClauseResult, Verdict
from riktig.core.schematic import NAMES
from riktig.core.short_circuit import POWER_PATHS, PowerPaths, lets_through, rate_north_american
from riktig.demo_job import frost_fan, wash_drum
from tests.shared_plan import plan_for


def clause(job: Job, code: str) -> ClauseResult:
    return next(result for result in plan_for(job).get(RULES) if result.code == code)


def with_breaker(**figures: object) -> Job:
    """The wash drum with a breaker of one's own ahead of its motor."""
    own = OwnPart("OWN-16", "motor_breaker", width=54, height=90, depth=70, rated_a=16, **figures)  # type: ignore[arg-type]
    return pick_part(set_part(wash_drum(), own), DeviceId("c1.F"), "OWN-16")


@pytest.mark.parametrize(
    ("text", "combinations"),
    [
        ("", ()),
        ("gG 63: 50", (Combination("gG", 63, 50),)),
        ("gG 63:50*; breaker 40: 10", (Combination("gG", 63, 50, type_2=True), Combination("breaker", 40, 10))),
        ("inverse-time breaker 60:14", (Combination("inverse-time breaker", 60, 14),)),
        ("class J 60.5: 100", (Combination("class J", 60.5, 100),)),
    ],
)
def test_combinations_are_read_as_they_are_written(text: str, combinations: tuple[Combination, ...]) -> None:
    assert read_combinations(text) == combinations
    assert OwnPart("X", "contactor", tested_with=text).tested_with == text


@pytest.mark.parametrize("text", ["gG", "gG: 50", "63: 50", "gG 63 50", "gG 63: much", "gG 63: 50; breaker", "=1+1"])
def test_what_is_no_combination_is_refused_by_name(text: str) -> None:
    with pytest.raises(ImpossibleValueError, match="no tested combination"):
        OwnPart("X", "contactor", tested_with=text)


def test_a_list_of_parts_keeps_the_new_figures() -> None:
    own = OwnPart("X", "contactor", energy_ka2s=12.5, peak_ka=8.0, tested_with="gG 63: 50*")
    schedule = own_parts_schedule((own,))
    cells = tuple(str(value) for value in schedule.rows[0])
    grid = Grid("parts", (GridRow(1, PART_COLUMNS), GridRow(2, cells)))
    assert parts_of_grid(grid) == (own,)


def test_the_energy_of_ones_own_breaker_decides_what_its_wires_bear() -> None:
    """By hand: 1.5 mm2 of PVC copper bears (115 x 1.5)^2 = 29,756 A2s."""
    assert clause(with_breaker(breaking_ka=10.0, energy_ka2s=29.0), "E20").verdict is Verdict.MEETS
    result = clause(with_breaker(breaking_ka=10.0, energy_ka2s=31.0), "E20")
    assert result.verdict is Verdict.FAILS
    assert any("31,000" in finding.message for finding in result.findings)
    assert clause(with_breaker(breaking_ka=10.0), "E20").verdict is Verdict.JUDGE, "no energy: its maker is asked"


def test_a_breaker_of_ones_own_is_a_breaker_to_what_was_tested_behind_one() -> None:
    """Its kind says what it is to the parts behind it; without that nothing was tested behind it."""
    evidence = clause(with_breaker(breaking_ka=10.0, energy_ka2s=20.0), "E35").evidence
    assert any("behind F1 (breaker, 16 A): type 1, 10 kA" in words for words in evidence)


@pytest.mark.parametrize(
    ("wanted", "tested", "verdict"),
    [
        (Coordination.TYPE_1, "breaker 40: 10", Verdict.MEETS),
        (Coordination.TYPE_2, "breaker 40: 10", Verdict.FAILS),
        (Coordination.TYPE_2, "breaker 40: 10*", Verdict.MEETS),
        (Coordination.TYPE_2, "breaker 40: 10; breaker 40: 6*", Verdict.MEETS),
        (Coordination.TYPE_2, "breaker 10: 10*", Verdict.JUDGE),
        (Coordination.TYPE_1, "breaker 40: 5", Verdict.JUDGE),
        (Coordination.TYPE_1, "", Verdict.JUDGE),
    ],
)
def test_types_of_coordination(wanted: Coordination, tested: str, verdict: Verdict) -> None:
    """IEC 60947-4-1 8.2.5.1, from memory: type 1 may need repair, type 2 stays fit for use; at 6 kA, behind 16 A."""
    job = set_practice(wash_drum(), coordination=wanted)
    for ref, kind, device in (("OWN-K", "contactor", "c1.K"), ("OWN-O", "overload", "c1.FO")):
        own = OwnPart(ref, kind, width=45, height=80, depth=85, rated_a=9, tested_with=tested)
        job = pick_part(set_part(job, own), DeviceId(device), ref)
    assert clause(job, "E35").verdict is verdict


def raised_by(feeder: ShortCircuitFigures) -> tuple[float | None, ...]:
    """The rating of the frost fan behind a main breaker with such figures, and without."""
    evaluation = plan_for(frost_fan())
    paths, tags = evaluation.get(POWER_PATHS), evaluation.get(NAMES).tag
    first = next(part for part in paths.parts if part.device.kind.can(Can.MAIN_SWITCH))
    changed = []
    for part in paths.parts:
        if part.id == first.id:
            part = replace(part, figures=feeder, is_guard=True, feeds_guards=True, ahead=())
        elif part.ahead[:1] != (first.id,):
            part = replace(part, ahead=(first.id, *part.ahead))
        changed.append(part)
    supply = Supply(voltage_v=480.0, voltage_to_neutral_v=277.0, neutral=True)
    rating = rate_north_american(PowerPaths(tuple(changed), {}, {}), supply, tags)
    behind = {part.id for part in paths.parts if not part.is_guard} - {first.id}
    return tuple(limit.ka for limit in rating.limits if limit.device in behind)


def test_a_current_limiting_breaker_raises_what_is_behind_it_and_a_plain_one_does_not() -> None:
    """UL 508A SB4.3.1 and SB4.3.2, from memory: by the peak that its maker gives, against each part behind it."""
    plain = ShortCircuitFigures(guard="inverse-time breaker", breaks_ka=65.0, at_v=480.0)
    limiting = replace(plain, peak_ka=4.0)
    much = replace(plain, peak_ka=40.0)
    before, after, too_much = raised_by(plain), raised_by(limiting), raised_by(much)
    assert before == too_much
    assert all((b or 0) <= (a or 0) for b, a in zip(before, after, strict=True))
    assert 65.0 in after
    assert 65.0 not in before


def test_more_fault_current_never_makes_coordination_better() -> None:
    order = [Verdict.MEETS, Verdict.JUDGE, Verdict.FAILS]
    verdicts = [clause(set_supply(wash_drum(), fault_ka=ka), "E35").verdict for ka in (3.0, 6.0, 10.0, 16.0, 50.0)]
    assert [order.index(v) for v in verdicts] == sorted(order.index(v) for v in verdicts)


def test_ones_own_energy_counts_at_what_it_breaks() -> None:
    evaluation = plan_for(with_breaker(breaking_ka=25.0, energy_ka2s=40.0))
    guard = evaluation.get(POWER_PATHS).part(DeviceId("c1.F"))
    assert lets_through(guard) == [(25.0, 40_000.0)]
