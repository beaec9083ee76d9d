"""An earth fault at the end of a cable, worked by hand: what flows, and what trips at once (standards from memory)."""

from dataclasses import replace

import pytest

from riktig.core.catalogue import parts
from riktig.core.job import Job, add_load, set_supply
from riktig.core.rules import RULES, ClauseResult, Verdict
from riktig.core.schematic import with_names_recorded
from riktig.core.short_circuit import trips_at
from riktig.demo_job import frost_fan, kelp_shed, wash_drum
from tests.shared_plan import plan_for


def clause(job: Job) -> ClauseResult:
    return next(result for result in plan_for(with_names_recorded(job)).get(RULES) if result.code == "E21")


def with_cable(metres: float, fault_ka: float = 6.0) -> Job:
    job = set_supply(wash_drum(), fault_ka=fault_ka)
    return replace(job, loads=tuple(replace(load, cable_m=metres) for load in job.loads))


@pytest.mark.parametrize(
    ("ref", "protector", "amps"),
    [
        # IEC 60898-1 table 7, sure: C to 10, D to 20 times the rated current. A protector: 13 times and a fifth more.
        ("MB3-13D", False, 260), ("MB3-32C", False, 320), ("CW1-6C", False, 60), ("MP-10", True, 156),
    ],
)  # fmt: skip
def test_what_trips_at_once(ref: str, protector: bool, amps: float) -> None:
    part = next(part for part in parts() if part.ref == ref)
    assert trips_at(part, protector=protector) == pytest.approx(amps)


def test_of_a_fuse_it_is_not_known_here() -> None:
    assert trips_at(next(part for part in parts() if part.ref == "FT-16"), protector=False) is None


def test_the_drum_by_hand() -> None:
    """14 m of 1.5 mm²: 0.0225 · 14 · 2 / 1.5 = 0.42 Ω; the supply 230 V / 6 kA = 0.038 Ω, twice at worst: 463 A."""
    result = clause(wash_drum())
    assert result.verdict is Verdict.MEETS
    assert result.evidence == ("wash drum: 463 A at least, F1 trips at 260 A",)


def test_a_cable_that_is_too_long_is_found() -> None:
    """By hand: 230 V / 260 A = 0.885 Ω in all; 30 m are 0.9 Ω already. 28 m are 0.84 Ω: the supply decides."""
    assert clause(with_cable(30.0)).verdict is Verdict.FAILS
    assert clause(with_cable(28.0)).verdict is Verdict.JUDGE
    assert clause(with_cable(26.0)).verdict is Verdict.MEETS


def test_a_weaker_supply_never_betters_the_verdict() -> None:
    order = [Verdict.MEETS, Verdict.JUDGE, Verdict.FAILS]
    ranks = [order.index(clause(with_cable(26.0, fault_ka=ka)).verdict) for ka in (20.0, 6.0, 1.0, 0.4, 0.2)]
    assert ranks == sorted(ranks)
    assert ranks[-1] == 2


def test_behind_a_drive_its_maker_says_and_a_residual_current_breaker_opens() -> None:
    result = clause(kelp_shed())
    assert [finding.verdict for finding in result.findings] == [Verdict.JUDGE]
    assert "behind a drive" in result.findings[0].message
    assert "bench sockets: F20 opens by its residual current" in result.evidence


def test_no_time_is_asked_of_a_north_american_panel() -> None:
    assert clause(frost_fan()).verdict is Verdict.NOT_APPLICABLE


def test_a_load_without_a_cable_is_named_as_not_looked_at() -> None:
    job = wash_drum()
    second = replace(job.loads[0], cable_m=14.0)
    both = add_load(replace(job, loads=(second,)), "fan", 1.5, cable_m=0.0)
    assert clause(both).evidence[-1].endswith(": fan")
