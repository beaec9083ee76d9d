"""The dead tests: which points, what is expected, what counts after an edit, and the shut stages."""

import networkx as nx
import pytest
from tests.core.schematic.builders import START, STOP, door_begun, one_motor
from tests.shared_plan import plan_for

from riktig.core.errors import RiktigError
from riktig.core.ids import DeviceId, PinRef
from riktig.core.job import Insertable, Job, JoinHow, RunLamp, add_load, new_job, set_enclosure
from riktig.core.plate import LAYOUT, join_parts
from riktig.core.proving import (
    DEAD_PANEL,
    OPEN_LINE,
    TESTS,
    CountedReading,
    Expected,
    Outcome,
    ProvingStage,
    Results,
    Test,
    TestPlan,
    judge,
    live_gate,
    ohm_text,
    read_ohm,
    reading_facts,
    results_of,
)
from riktig.core.records import Record
from riktig.core.schematic import insert_contact, remove_element, with_names_recorded
from riktig.core.simulation import FaultKind, InjectedFault
from riktig.core.wiring import WIRING
from riktig.devices import LEADS_OHM, BenchMeter, SimulatedPanel


def plan_of(job: Job) -> TestPlan:
    return plan_for(job).get(TESTS)


def reading(test: Test, ohm: float | None, outcome: Outcome | None = None, number: int = 0) -> Record:
    kind = outcome or judge(test, ohm or 0.0, LEADS_OHM)
    reason = "" if ohm is not None else "why"
    facts = reading_facts(test, kind, ohm=ohm, meter="meter", reason=reason, zero=LEADS_OHM)
    return Record(f"{test.key}/{number}", test.key, facts, "Ida", f"2026-11-23T08:00:{number:02d}", 1)


def all_read(job: Job) -> list[Record]:
    meter, panel = BenchMeter(), SimulatedPanel(plan_for(job).get(DEAD_PANEL))
    return [reading(test, meter.read(test, panel)) for test in plan_of(job).tests]


def results(job: Job, records: list[Record]) -> Results:
    return results_of(plan_of(job), records)


def test_every_wire_every_bond_and_every_pair_of_potentials_has_a_test() -> None:
    job = one_motor()
    found = plan_of(job)
    of_wires = {t.wire for t in found.of(ProvingStage.WIRES) if t.wire}
    assert of_wires == {w.key for w in plan_for(job).get(WIRING).wires}
    assert {t.title for t in found.of(ProvingStage.BONDS)} == {
        "Bond of E1:1, at the bare metal",
        "Bond of E2:1, at the bare metal",
        "Bond of E3:1, at the bare metal",
        "Bond of X2:PE",
    }
    # By hand: 5 incoming conductors give 10 pairs; U, V, W and PE at the motor give 6.
    assert len(found.of(ProvingStage.SHORTS)) == 16
    assert len({t.key for t in found.tests}) == len(found.tests)


def test_expected_readings_follow_from_resistance_and_leads() -> None:
    # By hand: 0.25 m of 1 mm2 at 19.5 ohm/km is 5 milliohm, well under half an ohm.
    test = next(t for t in plan_of(one_motor()).of(ProvingStage.WIRES) if t.black.label == "X1:N")
    assert test.expected.text == "below 0.5 Ω"
    assert "mΩ of wire" in test.expected.why
    assert "Q1, F1, F2 off" in test.switches


def test_potentials_are_open_at_rest_and_a_coil_without_its_start_button_reads_its_winding() -> None:
    shorts = plan_of(one_motor()).of(ProvingStage.SHORTS)
    assert {t.expected.text for t in shorts} == {"above 1 MΩ"}
    held = with_names_recorded(remove_element(one_motor(run_lamp=RunLamp.COIL), START))
    from riktig.core.job import ElementId

    bare = with_names_recorded(remove_element(held, ElementId("c1.K/13-14")))
    test = next(t for t in plan_of(bare).of(ProvingStage.SHORTS) if t.title == "X1:L1 against X1:N")
    # Coil 560 ohm, read within 0.6 to 1.4 of it; the lamp beside it is 88 kohm, at least three tenths of that, or open.
    # By hand: 336 beside 26.4 k is 331.8, less 3 % and 0.3 ohm: 321.5; 784, more 3 % and 0.3 ohm, and the way there.
    assert test.expected.low == pytest.approx(321.5, abs=2)
    assert test.expected.high == pytest.approx(784 * 1.03 + 0.3, abs=4)
    assert "K1, H1" in test.expected.why or "H1, K1" in test.expected.why


@pytest.mark.parametrize(
    ("ohm", "expected"),
    [
        (0.3, Outcome.PASSED),
        (0.5, Outcome.PASSED),
        (0.6, Outcome.FAILED),
        (38.6, Outcome.FAILED),
        (OPEN_LINE, Outcome.FAILED),
    ],
)
def test_a_wire_passes_only_below_its_limit(ohm: float, expected: Outcome) -> None:
    assert judge(plan_of(one_motor()).of(ProvingStage.WIRES)[0], ohm) is expected


@pytest.mark.parametrize(
    ("text", "ohm"),
    [("0.3", 0.3), ("0,3 Ω", 0.3), ("1.2 k", 1200.0), ("5 MΩ", 5e6), ("OL", OPEN_LINE), ("open", OPEN_LINE)],
)
def test_a_typed_reading_is_understood(text: str, ohm: float) -> None:
    assert read_ohm(text) == ohm


@pytest.mark.parametrize("text", ["", "good", "-1", "1e20", "0.3 V"])
def test_a_typed_reading_that_is_none_is_refused(text: str) -> None:
    with pytest.raises(RiktigError, match="nothing was recorded"):
        read_ohm(text)


@pytest.mark.parametrize(
    ("ohm", "text"), [(0.25, "0.2 Ω"), (120, "120 Ω"), (1500, "1.5 kΩ"), (2.5e6, "2.5 MΩ"), (OPEN_LINE, "open")]
)
def test_readings_are_said_as_a_meter_shows_them(ohm: float, text: str) -> None:
    assert ohm_text(ohm) == text


def test_the_last_reading_counts_and_the_next_test_goes_round() -> None:
    job = one_motor()
    first, second, *_ = plan_of(job).tests
    failed = reading(first, 38.0, number=1)
    found = results(job, [failed])
    assert found.outcome(first.key) is Outcome.FAILED
    assert found.next(after=first.key) == second
    again = results(job, [failed, reading(first, 0.2, number=2)])
    assert again.outcome(first.key) is Outcome.PASSED
    assert again.count(Outcome.PASSED) == 1
    assert results(job, all_read(job)).next() is None


def test_a_sound_panel_passes_every_dead_test_on_the_simulated_meter() -> None:
    job = one_motor()
    found = results(job, all_read(job))
    assert found.count(Outcome.PASSED) == len(plan_of(job).tests)


def test_a_missing_wire_and_a_short_are_read_as_what_they_are() -> None:
    job = one_motor()
    plan, meter = plan_for(job), BenchMeter()
    wire = next(w for w in plan.get(WIRING).wires if w.name == "8 F3:96 to S1:1")
    short = next(test for test in plan_of(job).of(ProvingStage.SHORTS) if test.title == "X2:U against X2:V")
    faults = (
        InjectedFault(FaultKind.OFF, str(wire.key), str(wire.start.pin)),
        InjectedFault(FaultKind.SHORT, "", str(short.black.pin), str(short.red.pin)),
    )
    panel = SimulatedPanel(plan.get(DEAD_PANEL), faults=faults)
    failed = {t.key for t in plan_of(job).tests if judge(t, meter.read(t, panel), LEADS_OHM) is Outcome.FAILED}
    assert failed == {f"wire:{wire.key}", short.key}


def test_an_edit_takes_exactly_the_readings_of_the_affected_wires() -> None:
    # By hand: the wire S1:2 to S2:3 is gone, two new ones have no reading yet; pairs with L1 run through the
    # opening contacts of the control path, so those four read anew; all other readings count.
    before = door_begun(one_motor())
    after = with_names_recorded(insert_contact(before, STOP, Insertable.STOP_BUTTON, "second stop"))
    found = results(after, all_read(before))
    gone = {s.name for s in found.stale}
    of_pairs = {"X1:L1 against X1:L2", "X1:L1 against X1:L3", "X1:L1 against X1:N", "X1:L1 against X1:PE"}
    assert gone == {"Wire 9", "Insulation of the power circuit"} | of_pairs
    again = {s.subject for s in found.stale if s.why == "the switches must now stand otherwise for it"}
    assert again == {"wire:c1.K:13~c1.S.start:3"}, "the stop nearest to it is the new one"
    assert found.count(Outcome.OPEN) == 2 + 1 + 4 + 1
    assert all(s.why for s in found.stale)


def test_a_skipped_test_is_not_a_passed_one() -> None:
    job = one_motor()
    first = plan_of(job).tests[0]
    skipped = [r for r in all_read(job) if r.subject != first.key]
    skipped.append(reading(first, None, Outcome.SKIPPED, 3))
    found = results(job, skipped)
    assert found.count(Outcome.SKIPPED) == 1
    assert live_gate(found, None, ()).shut == "Not done yet: Bonds: 1 not passed."


def test_a_bond_passes_up_to_a_tenth_of_an_ohm() -> None:
    """IEC 61439-1 10.5.2 and NFPA 79 18.2: 0.1 Ω from the incoming protective conductor to every part (from memory)."""
    bonds = plan_of(one_motor()).of(ProvingStage.BONDS)
    assert len(bonds) >= 4
    for bond in bonds:
        assert judge(bond, 0.1) is Outcome.PASSED
        assert judge(bond, 0.11) is Outcome.FAILED
        assert judge(bond, 0.3, zero=0.2) is Outcome.PASSED


@pytest.mark.parametrize(
    ("low", "high", "ohm", "passes"),
    [
        (0.0, 0.5, 0.0, True),
        (0.0, 0.5, 0.5, True),
        (0.0, 0.5, 0.51, False),
        (340.0, 780.0, 340.0, True),
        (340.0, 780.0, 339.9, False),
        (1e6, float("inf"), float("inf"), True),
        (1e6, float("inf"), 999_999.0, False),
    ],
)
def test_a_reading_on_the_edge_of_what_is_expected_passes(low: float, high: float, ohm: float, passes: bool) -> None:
    """A band includes its ends: what is written on the card as the limit is not a failure."""
    assert Expected(low, high, "by its card").passes(ohm) is passes


def test_a_reading_is_shown_and_a_skip_says_why() -> None:
    read = CountedReading(Outcome.PASSED, 0.3, "Ida", "t", "meter", "")
    skipped = CountedReading(Outcome.SKIPPED, None, "Ida", "t", "", "the drive is not fitted yet")
    assert read.text == ohm_text(0.3)
    assert skipped.text == "the drive is not fitted yet"


@pytest.mark.parametrize("how", [JoinHow.LINK, JoinHow.BUSBAR, JoinHow.COMB])
def test_what_a_link_a_comb_or_a_busbar_joins_is_measured_in_place_of_the_wires(how: JoinHow) -> None:
    """Every two clamps of one potential hang together in what is measured: wires, jumpers and links, by networkx."""
    job = three_motors()
    leads = (
        (DeviceId("c1.F"), DeviceId("c1.K")) if how is JoinHow.LINK else tuple(DeviceId(f"c{n}.F") for n in (1, 2, 3))
    )
    joined = join_parts(job, plan_for(job).get(LAYOUT), leads, how)
    before, after = plan_for(job), plan_for(joined)
    links = [test for test in after.get(TESTS).tests if test.key.startswith("link:")]
    # By hand: three poles from breaker to contactor; on a bar two breakers beyond the first, three phases each.
    assert len(links) == (3 if how is JoinHow.LINK else 6)
    assert not [test for test in before.get(TESTS).tests if test.key.startswith("link:")]
    graph: nx.Graph[PinRef] = nx.Graph()
    for test in after.get(TESTS).of(ProvingStage.WIRES):
        graph.add_edge(test.black.pin, test.red.pin)
    for test in before.get(TESTS).of(ProvingStage.WIRES):
        if {test.black.pin, test.red.pin} <= set(graph):
            assert nx.has_path(graph, test.black.pin, test.red.pin), test.title
    meter, panel = BenchMeter(), SimulatedPanel(after.get(DEAD_PANEL))
    assert {judge(test, meter.read(test, panel), LEADS_OHM) for test in links} == {Outcome.PASSED}


def three_motors() -> Job:
    job = new_job()
    for name in ("fan", "mixer", "pump"):
        job = add_load(job, name, 1.5)
    return with_names_recorded(set_enclosure(job, width=900.0, height=1000.0, plate_width=850.0, plate_height=950.0))
