"""What circuits do and what feeds their loads is judged on the drawing: each case is dangerous, and said.

The cases are those of an audit and others of their kind; the builder made every one. Common practice, no source,
where no clause is named.
"""

from collections.abc import Callable
from dataclasses import replace

import pytest
from tests.core.schematic.builders import one_motor
from tests.shared_plan import plan_for

from riktig.core.evaluation import Evaluation
from riktig.core.job import (
    CircuitId,
    DeviceId,
    ElementId,
    Job,
    LoadKind,
    OwnDevice,
    OwnRung,
    Start,
    add_load,
    new_job,
    override,
    set_supply,
)
from riktig.core.rules import CLAUSES, RULES, VIEW, Finding, Verdict, findings_of
from riktig.core.rules.guarded_wires import Limit
from riktig.core.schematic import add_device, add_rung, remove_element, set_param, with_names_recorded
from riktig.core.simulation import BEHAVIOURS, FEED_FAULTS, FeedFault, FeedKind
from riktig.core.wiring import WIRING
from riktig.demo_job import frost_fan, wash_drum

C1 = CircuitId("c1")


def both_ways() -> Job:
    return with_names_recorded(add_load(new_job("R", "both ways"), "winch", 4.0, start=Start.REVERSING))


def small() -> Job:
    return with_names_recorded(add_load(new_job("S", "small"), "stirrer", 0.37))


def without(job: Job, *elements: str) -> Job:
    for element in elements:
        job = remove_element(job, ElementId(element))
    return with_names_recorded(job)


def with_own(job: Job, devices: list[OwnDevice], *rungs: tuple[str, str, str, str]) -> Job:
    """The job with devices of the builder's own and paths: from, path, to, band."""
    for device in devices:
        job = add_device(job, C1, device)
    for n, (start, path, end, band) in enumerate(rungs):
        job = add_rung(job, C1, OwnRung(f"own{n}", f"own {n}", start, path, end, band))
    return with_names_recorded(job)


LAMP = OwnDevice("H.more", "lamp", "door", "more", "MORE", colour="white")
DC = OwnDevice("T.more", "dc_supply", "plate", "24 V")
DC_PATHS = (
    ("c1.control", "T.more:L-N", "N", "control"),
    ("dc.P", "@T.more:P", "", "control"),
    ("dc.M", "@T.more:M", "", "control"),
)
BARE = [
    OwnDevice("F.pump", "motor_breaker", "plate", "pump"),
    OwnDevice("K.pump", "contactor", "plate", "pump"),
    OwnDevice("M.pump", "motor", "field", "pump"),
]
BARE_PATHS = (
    ("main.L1/main.L2/main.L3", "F.pump:1-2/3-4/5-6 K.pump:1-2/3-4/5-6 @M.pump:U1/V1/W1", "", "power"),
    ("c1.control", "K:31-32 K.pump:A1-A2", "N", "control"),
)

DANGEROUS: dict[str, tuple[Callable[[], Job], str, str]] = {
    "both interlocks out": (lambda: without(both_ways(), "c1.KR/21-22", "c1.K/21-22"), "C11", "a short circuit"),
    "one interlock out": (lambda: without(both_ways(), "c1.KR/21-22"), "C11", "a short circuit"),
    "stop out": (lambda: without(one_motor(), "c1.S.stop/1-2"), "C11", "no longer in the circuit"),
    "stop out, both ways": (lambda: without(both_ways(), "c1.S.stop/1-2"), "C11", "no longer in the circuit"),
    "trip contact out": (lambda: without(one_motor(), "c1.FO/95-96"), "C11", "forward, not off"),
    "trip contact out, both ways": (lambda: without(both_ways(), "c1.FO/95-96"), "C11", "not off"),
    "motor without overload": (lambda: with_own(one_motor(), BARE, *BARE_PATHS), "E10", "M2"),
    "lamp on two sources": (
        lambda: with_own(one_motor(), [LAMP, DC], *DC_PATHS, ("c1.control", "H.more:X1-X2", "dc.M", "control")),
        "E11",
        "not one source",
    ),
    "coil to earth": (
        lambda: with_own(
            one_motor(), [OwnDevice("K.x", "relay", "plate", "x")], ("c1.control", "K.x:A1-A2", "PE", "control")
        ),
        "E12",
        "protective conductor",
    ),
    "lamp to earth over a contact": (
        lambda: with_own(one_motor(), [LAMP], ("c1.control", "H.more:X1-X2 K:31-32", "PE", "control")),
        "E12",
        "protective conductor",
    ),
    "24 V coil on the control voltage": (
        lambda: with_own(
            one_motor(), [OwnDevice("K.x", "relay_dc", "plate", "x")], ("c1.control", "K.x:A1-A2", "N", "control")
        ),
        "E11",
        "24 V direct current",
    ),
    "socket on 24 V": (
        lambda: with_own(
            one_motor(),
            [DC, OwnDevice("XS.x", "panel_socket", "plate", "x")],
            *DC_PATHS,
            ("dc.P", "XS.x:L-N", "dc.M", "control"),
        ),
        "E11",
        "24 V direct reach it",
    ),
    "socket of one's own without its protective conductor": (
        lambda: with_own(
            one_motor(), [OwnDevice("XS.x", "panel_socket", "plate", "x")], ("c1.control", "XS.x:L-N", "N", "control")
        ),
        "E09",
        "no protective conductor",
    ),
    "heater between two lines": (
        lambda: with_own(
            one_motor(), [OwnDevice("E.x", "heater", "plate", "x")], ("main.L1", "FC:1-2 E.x:L-N", "main.L2", "control")
        ),
        "E11",
        "400 V reach it",
    ),
    "heater without a fuse": (
        lambda: with_own(
            one_motor(), [OwnDevice("E.x", "heater", "plate", "x")], ("main.L1", "E.x:L-N", "N", "control")
        ),
        "E04",
        "past every breaker",
    ),
    "contact between two lines": (
        lambda: with_own(one_motor(), [], ("main.L1", "K:31-32", "main.L2", "control")),
        "C04",
        "short circuit",
    ),
    "contact between two lines, among the power": (
        lambda: with_own(one_motor(), [], ("main.L1", "K:31-32", "main.L2", "power")),
        "C04",
        "short circuit",
    ),
}


def fails(job: Job) -> list[Finding]:
    return [f for f in findings_of(plan_for(job).get(RULES)) if f.verdict is Verdict.FAILS]


@pytest.mark.parametrize("name", DANGEROUS)
def test_a_dangerous_circuit_fails_by_the_clause_that_knows_it(name: str) -> None:
    make, code, words = DANGEROUS[name]
    assert any(words in finding.message for finding in fails(make()) if finding.code == code)


def test_the_sound_circuits_they_were_made_from_fail_nothing() -> None:
    for job in (one_motor(), both_ways(), small()):
        assert not [finding for finding in fails(job) if finding.code in ("C04", "C11", "E04", "E10", "E11", "E12")]
        assert all(step.passed for outcome in plan_for(job).get(BEHAVIOURS) for step in outcome.steps)
        assert plan_for(job).get(FEED_FAULTS) == ()


def test_a_change_that_only_keeps_a_load_from_running_is_for_a_person_to_judge() -> None:
    """Without the start button, or without its own contact: nothing is on that must be off."""
    for element in ("c1.S.start/3-4", "c1.K/13-14"):
        result = next(r for r in plan_for(without(one_motor(), element)).get(RULES) if r.code == "C11")
        assert result.verdict is Verdict.JUDGE


def test_a_circuit_of_which_nothing_changed_is_not_tried_again() -> None:
    job = add_load(both_ways(), "fan", 1.5)
    kept = Evaluation(with_names_recorded(job))
    before = {outcome.circuit: outcome.steps for outcome in kept.get(BEHAVIOURS)}
    kept.move_to(without(kept.document, "c2.FO/95-96"))
    after = {outcome.circuit: outcome.steps for outcome in kept.get(BEHAVIOURS)}
    assert after[C1] is before[C1]
    assert not all(step.passed for step in after[CircuitId("c2")])


@pytest.mark.parametrize(("kw", "verdict"), [(0.37, Verdict.MEETS), (0.75, Verdict.FAILS)])
def test_a_motor_of_half_a_kilowatt_needs_no_overload_and_a_larger_one_does(kw: float, verdict: Verdict) -> None:
    """IEC 60204-1 7.3.1, from memory: above 0.5 kW."""
    view = plan_for(with_names_recorded(add_load(new_job("S", "small"), "stirrer", kw))).get(VIEW)
    bare = FeedFault(FeedKind.NO_OVERLOAD, DeviceId("c1.M"), "{c1.M} is bare.")
    results = [clause(replace(view, feed_faults=(bare,))) for clause in CLAUSES]
    assert next(result.verdict for result in results if result.code == "E10") is verdict


def test_a_motor_past_its_soft_starter_is_for_the_engineer() -> None:
    job = add_load(set_supply(new_job("B", "bypass"), neutral=True), "fan", 7.5, start=Start.SOFT)
    job = with_names_recorded(set_param(with_names_recorded(job), C1, "bypass", "contactor"))
    result = next(r for r in plan_for(job).get(RULES) if r.code == "E10")
    assert result.verdict is Verdict.JUDGE
    assert "where it measures" in result.findings[0].message


def guarded(job: Job) -> list[Finding]:
    return [finding for finding in fails(with_names_recorded(job)) if finding.code == "W05"]


def behind(amps: float) -> Job:
    """One load behind a supply protected at so many A."""
    return with_names_recorded(add_load(set_supply(new_job("W", "wires"), upstream_a=amps), "fan", 4.0))


def test_a_wire_thinner_than_what_protects_it_fails_with_whatever_made_it_so() -> None:
    """1.5 mm² carries 13.5 A in duct at 40 °C (IEC 60204-1 Table 6, from memory): behind 63 A it melts first."""
    job = behind(100.0)
    assert not guarded(job)
    thick_breaker = override(job, "m1.breaker", 63.0, "it was there")
    found = guarded(override(thick_breaker, "m1.section", 1.5, "it was there"))
    assert {finding.message.split(", ")[1] for finding in found} == {"1.5 mm²"}
    assert all("63 A stand ahead" in finding.message for finding in found)


def test_behind_a_small_supply_the_supply_protects() -> None:
    """20 A ahead of everything: a larger breaker behind it lets no more through; the overload relay guards the rest."""
    assert not guarded(override(override(behind(20.0), "m1.breaker", 63.0, "x"), "m1.section", 1.5, "x"))


def test_a_single_phase_way_too_thin_for_its_breaker_fails() -> None:
    job = add_load(
        set_supply(new_job("H", "heater"), upstream_a=63.0),
        "heater",
        6.0,
        kind=LoadKind.HEATER,
        phases=1,
        start=Start.WAY,
    )
    assert not guarded(job)
    found = guarded(override(with_names_recorded(job), "m1.section", 1.5, "x"))
    assert found
    assert any("32 A stand ahead" in finding.message for finding in found)


@pytest.mark.parametrize(("amps", "wrong"), [(25.0, True), (9.5, True), (8.5, False), (7.0, False)])
def test_an_overload_set_above_its_motor_fails_whatever_range_was_bought_for_it(amps: float, wrong: bool) -> None:
    """IEC 60204-1 7.3.2, from memory: set to the motor's current; 4 kW at 400 V: 8.5 A (IEC 60947-4-1, from memory)."""
    job = with_names_recorded(override(one_motor(), "m1.setting", amps, "it tripped"))
    assert any(finding.code == "E05" and "may have 8.5 A" in finding.message for finding in fails(job)) is wrong


@pytest.mark.parametrize(
    ("limit", "carries", "length", "verdict"),
    [
        (
            Limit(63.0, 63.0, 0.0, 0.0, False),
            18.3,
            500.0,
            Verdict.JUDGE,
        ),  # nothing known behind it, and thin for a short
        (Limit(25.0, 25.0, 0.0, 0.0, False), 18.3, 500.0, Verdict.MEETS),
        (Limit(63.0, 63.0, 6.0, 6.0, True), 10.0, 500.0, Verdict.MEETS),  # a tap to a breaker of 6 A
        (Limit(63.0, 63.0, 6.0, 6.0, True), 10.0, 3500.0, Verdict.FAILS),  # too long for a tap
        (Limit(63.0, 63.0, 22.0, 16.0, True), 18.3, 500.0, Verdict.JUDGE),  # each of its breakers, not both
        (
            Limit(63.0, 63.0, float("inf"), float("inf"), False),
            18.3,
            500.0,
            Verdict.FAILS,
        ),  # a load takes what it likes
        (Limit(20.0, 8.5, 8.5, 8.5, False), 13.5, 500.0, Verdict.MEETS),  # behind an overload relay
        (Limit(63.0, 8.5, 8.5, 8.5, False), 13.5, 500.0, Verdict.FAILS),  # the same, but a short melts it
    ],
)
def test_what_protects_a_wire_by_hand(limit: Limit, carries: float, length: float, verdict: Verdict) -> None:
    """IEC 60204-1 7.2.8 (taps of 3 m) from memory; three times what it carries: common practice, no source."""
    assert limit.verdict(carries, length) is verdict


def test_wires_that_were_not_looked_at_are_counted_as_such() -> None:
    evaluation = plan_for(one_motor())
    result = next(r for r in evaluation.get(RULES) if r.code == "W05")
    counts = [int(words.split()[0]) for words in result.evidence]
    assert sum(counts) == len(evaluation.get(WIRING).wires)
    assert counts[1] > 0


@pytest.mark.parametrize(("job", "words"), [(wash_drum(), "1 motor followed"), (frost_fan(), "2 motors followed")])
def test_the_evidence_counts_the_motors_that_were_followed(job: Job, words: str) -> None:
    result = next(r for r in plan_for(job).get(RULES) if r.code == "E10")
    motors = sum(load.is_motor for load in job.loads)
    assert words.startswith(f"{motors} ")
    assert any(line.startswith(words) for line in result.evidence)
