"""What may be wrong when a step under voltage came otherwise: the fault that was put in is among the suspects."""

from collections.abc import Iterator

import pytest
from tests.effort import times
from tests.shared_plan import plan_for

from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.ids import DeviceId
from riktig.core.job import CircuitId, Job
from riktig.core.proving import (
    DEAD_PANEL,
    ENERGISED,
    LIVE_PLAN,
    LIVE_SCRIPTS,
    TESTS,
    LiveEvidence,
    Outcome,
    Probe,
    ProvingStage,
    SeenAfterStep,
    Suspect,
    live_evidence,
    live_facts,
    live_results,
    locate_live,
    read_seen,
    seen_after,
    seen_words,
    single_faults,
    states_after,
    watched_in,
)
from riktig.core.records import Record
from riktig.core.schematic import NAMES, NETS
from riktig.core.simulation import FaultKind, InjectedFault
from riktig.demo_job import wash_drum
from riktig.devices import SimulatedPanel

DRUM = CircuitId("c1")


@pytest.fixture(scope="module")
def drum() -> Evaluation[Job]:
    return plan_for(wash_drum())


def dead_probes(evaluation: Evaluation[Job], fault: InjectedFault) -> list[Probe] | None:
    """Every dead reading of a panel with a fault; None where one of them shows it."""
    bench = SimulatedPanel(evaluation.get(DEAD_PANEL), 1, [fault])
    probes: list[Probe] = []
    for test in evaluation.get(TESTS).tests:
        if test.stage is ProvingStage.INSULATION:
            continue
        ohm = bench.ohm(test.state, test.black.pin, test.red.pin)
        if not test.expected.passes(ohm):
            return None
        probes.append(Probe(test.state, test.black.pin, test.red.pin, ohm))
    return probes


def seen_with(evaluation: Evaluation[Job], fault: InjectedFault) -> tuple[SeenAfterStep, ...]:
    """What somebody notes who does the script of the drum up to the first step that comes otherwise; else nothing."""
    make, script = evaluation.get(ENERGISED), evaluation.get(LIVE_SCRIPTS)[DRUM]
    sound = make()
    watched = watched_in(sound, DRUM)
    asked = states_after(sound, DRUM, script, watched)
    try:
        panel = make((fault,))
    except RiktigError:
        return ()
    if panel.shorts:
        return ()
    came = states_after(panel, DRUM, script, watched)
    first = next((n for n, (a, b) in enumerate(zip(asked, came, strict=False)) if a != b), None)
    if first is None:
        return ()
    return tuple(SeenAfterStep(DRUM, n + 1, tuple(came[n].items()), n != first) for n in range(first + 1))


def suspects_of(
    evaluation: Evaluation[Job], probes: list[Probe], seen: tuple[SeenAfterStep, ...]
) -> tuple[Suspect, ...]:
    return locate_live(
        evaluation.get(DEAD_PANEL), evaluation.get(NETS), probes, LiveEvidence(seen, ()),
        evaluation.get(ENERGISED), evaluation.get(LIVE_SCRIPTS),
    )  # fmt: skip


def hidden_ones(evaluation: Evaluation[Job]) -> Iterator[tuple[InjectedFault, list[Probe], tuple[SeenAfterStep, ...]]]:
    """Faults of parts and shorts that no dead reading shows and that a step of the drum does."""
    wires = (FaultKind.OFF, FaultKind.NEIGHBOUR, FaultKind.SWAPPED)
    of_parts = [fault for fault in single_faults(evaluation.get(DEAD_PANEL)) if fault.wrong not in wires]
    for fault in of_parts[:: times(4, 1)]:
        seen = seen_with(evaluation, fault)
        probes = dead_probes(evaluation, fault) if seen else None
        if probes is not None:
            yield fault, probes, seen


def test_what_no_dead_reading_shows_is_among_the_suspects_of_a_step(drum: Evaluation[Job]) -> None:
    tried = list(hidden_ones(drum))
    assert len(tried) >= 5
    for fault, probes, seen in tried:
        suspects = suspects_of(drum, probes, seen)
        everywhere = [faults for suspect in suspects for faults in (suspect.faults, *suspect.alike)]
        assert (fault,) in everywhere
        assert abs(sum(suspect.weight for suspect in suspects) - 1) < 1e-9
        assert len(suspects) <= 12


def test_which_lamp_came_instead_leads_to_the_lamp(drum: Evaluation[Job]) -> None:
    """By hand: a dead trip lamp is the lamp itself, its wires, or the contact that feeds it; nothing of the motor."""
    fault = InjectedFault(FaultKind.OPEN_COIL, "c1.H.trip", "X1-X2")
    suspects = suspects_of(drum, [], seen_with(drum, fault))
    named = {part.what for suspect in suspects for part in suspect.faults if "~" not in part.what and part.what}
    assert "c1.H.trip" in named
    assert named <= {"c1.H.trip", "c1.FO"}


def test_where_everything_came_as_expected_nothing_is_suspected(drum: Evaluation[Job]) -> None:
    assert suspects_of(drum, [], (SeenAfterStep(DRUM, 1, ((DeviceId("c1.K"), "off"),), as_expected=True),)) == ()


def test_what_can_be_of_no_single_fault_is_looked_for_in_pairs(drum: Evaluation[Job]) -> None:
    """The contactor does not hold, and later the trip lamp stays dark: no single part explains both."""
    make, script = drum.get(ENERGISED), drum.get(LIVE_SCRIPTS)[DRUM]
    faults = [
        InjectedFault(FaultKind.STUCK, "c1.K", "13-14"), InjectedFault(FaultKind.OPEN_COIL, "c1.H.trip", "X1-X2"),
    ]  # fmt: skip
    panel, sound = make(faults), make()
    watched = watched_in(panel, DRUM)
    came, asked = (states_after(made, DRUM, script, watched) for made in (panel, sound))
    seen = tuple(
        SeenAfterStep(DRUM, number, tuple(after.items()), after == sound_after)
        for number, (after, sound_after) in enumerate(zip(came, asked, strict=True), 1)
    )
    pairs = [set(suspect.faults) for suspect in suspects_of(drum, [], seen)]
    assert set(faults) in pairs


def test_records_become_evidence_and_free_words_do_not(drum: Evaluation[Job]) -> None:
    plan = drum.get(LIVE_PLAN)
    tags = drum.get(NAMES).tag
    step = next(step for step in plan if step.circuit == DRUM and step.done.startswith("Press"))
    asked = seen_after(drum.get(ENERGISED), drum.get(LIVE_SCRIPTS), step)
    assert asked[DeviceId("c1.K")] == "on"
    assert asked[DeviceId("c1.M")] == "forward"

    def evidence(reason: str, outcome: Outcome = Outcome.FAILED) -> LiveEvidence:
        record = Record("r1", step.key, live_facts(step, outcome, reason=reason), "Ida", "2026-12-01T08:00:00", 1, "")
        devices = {tag: device for device, tag in tags.items()}
        return live_evidence(live_results(plan, [record]), devices, drum.get(ENERGISED), drum.get(LIVE_SCRIPTS))

    said = evidence(f"{seen_words(tags[DeviceId('c1.K')] + ' off')}, {tags[DeviceId('c1.M')]} stands")
    (entry,) = said.seen
    assert dict(entry.seen)[DeviceId("c1.K")] == "off"
    assert dict(entry.seen)[DeviceId("c1.M")] == "off"
    assert said.is_wrong
    assert not evidence("it smells").seen
    fed = next(step for step in plan if step.title == "Q1 on")
    measured = Record("r2", fed.key, live_facts(fed, Outcome.PASSED, "401", meter="M-34 4711"), "Ida", "t", 1, "")
    (volts,) = live_evidence(live_results(plan, [measured]), {}, drum.get(ENERGISED), drum.get(LIVE_SCRIPTS)).measured
    assert (str(volts[0]), str(volts[1]), volts[2]) == ("c0.Q:2", "c0.Q:4", 360.0), "400 V less 10 %"
    passed = evidence("", Outcome.PASSED)
    assert not passed.is_wrong
    assert dict(passed.seen[0].seen) == {DeviceId("c1.K"): "on", DeviceId("c1.M"): "forward"}


@pytest.mark.parametrize("words", ["K1 on", "H3 off", "M2 reverse", "M1 star", "K4 off"])
def test_words_are_read_back(words: str) -> None:
    tag, _, does = words.partition(" ")
    assert read_seen(f"; {seen_words(words)},", {tag: DeviceId("x")}) == ((DeviceId("x"), does),)
