"""The steps under voltage: their order and voltages, the gate before them, and the file behind it."""

from itertools import groupby
from pathlib import Path

import pytest
from tests.core.schematic.samples import SAMPLES, sample
from tests.effort import share, some
from tests.shared_plan import plan_for

from riktig.core.catalogue import Can
from riktig.core.errors import RiktigError
from riktig.core.job import set_supply
from riktig.core.production import WORK, BuildStage, progress_of, stage_states
from riktig.core.proving import (
    LIVE_PLAN,
    TESTS,
    LiveStep,
    Outcome,
    ProvingStage,
    live_facts,
    live_gate,
    live_results,
    read_value,
    reading_facts,
    results_of,
)
from riktig.core.records import LiveReleased, LiveStepDone, Log, Record, TakenBack
from riktig.core.schematic import CIRCUITS, with_names_recorded
from riktig.core.store import JobFile
from riktig.core.wiring import WIRING
from riktig.demo_job import frost_fan, kelp_shed, wash_drum

METER = "M-34 4711, calibrated to 2999-12-31"
JOBS = {"wash drum": wash_drum, "frost fan": frost_fan, "kelp shed": kelp_shed}


def steps_of(name: str, stage: ProvingStage = ProvingStage.ENERGISE) -> list[LiveStep]:
    return [step for step in plan_for(JOBS[name]()).get(LIVE_PLAN) if step.stage is stage]


def record(number: int, subject: str, facts: object, corrects: str = "") -> Record:
    return Record(f"r{number}", subject, facts, "Ida", f"2026-12-01T08:00:{number:02d}", 1, corrects)  # type: ignore[arg-type]


@pytest.mark.parametrize("name", JOBS)
def test_the_tester_is_proved_first_and_last_and_one_device_is_switched_at_a_time(name: str) -> None:
    steps = steps_of(name)
    assert steps[0].done == steps[-1].done
    assert "known to be live" in steps[0].done
    incoming = [step.done for step in steps if step.title == "Incoming supply"]
    assert len(incoming) >= 4
    switched = [step.done.split()[1] for step in steps if step.done.startswith("Switch ")]
    assert switched[0] == "Q1", "the main switch first"
    runs = [tag for tag, _ in groupby(switched)]
    assert len(runs) == len(set(runs)), "a device is switched once, and measured before the next"
    first = next(n for n, step in enumerate(steps) if step.done.startswith("Switch "))
    assert any(step.title.startswith("Dead behind") for step in steps[:first]), "dead before it is switched on"


def test_voltages_are_those_of_the_supply_and_its_transformers() -> None:
    """IEC 60038: 400/230 V ± 10 %; NEMA MG 1 and ANSI C84.1 name 480 V; 120 V control (common practice)."""
    iec = {step.title: step for step in steps_of("kelp shed")}
    assert (iec["Incoming supply"].low, iec["Incoming supply"].high) == (208, 254)  # the last one: L1 to PE
    assert iec["T1, secondary"].low == 207
    assert iec["T2, adjusted"].trimmed
    assert (iec["T2, adjusted"].low, iec["T2, adjusted"].high) == (23.5, 24.5)
    american = [step for step in steps_of("frost fan") if step.done.startswith("Switch Q1 on")]
    assert {(step.low, step.high) for step in american} == {(432, 528)}
    other = with_names_recorded(set_supply(wash_drum(), voltage_v=415.0, voltage_to_neutral_v=240.0))
    first = next(step for step in plan_for(other).get(LIVE_PLAN) if step.title == "Q1 on")
    assert first.low is not None
    assert first.low < 415 < (first.high or 0)


@pytest.mark.parametrize("name", share(SAMPLES, 0)[::5])
def test_every_kind_of_job_has_steps_that_can_be_told_apart(name: str) -> None:
    plan = plan_for(sample(name)).get(LIVE_PLAN)
    assert len({step.key for step in plan}) == len(plan)
    for step in some(plan):
        assert step.done
        assert (step.low is None) == (not step.unit) or step.trimmed, "what the machine decides has no bounds"


def test_it_is_shut_until_everything_dead_has_passed_and_somebody_stands_by() -> None:
    evaluation = plan_for(wash_drum())
    plan = evaluation.get(TESTS)
    gate = live_gate(results_of(plan, ()), None, ())
    assert gate.shut.startswith("Not done yet: Bonds: 4 not passed; Wire by wire:")
    assert gate.may_release
    read = [
        record(n % 60, test.key, reading_facts(test, Outcome.PASSED, ohm=test.expected.low, meter=METER))
        for n, test in enumerate(plan.tests)
    ]
    read = [Record(f"d{n}", r.subject, r.facts, r.who, r.when, 1) for n, r in enumerate(read)]
    gate = live_gate(results_of(plan, read), None, read)
    assert gate.shut == "Everything dead has passed. Say who stands by."
    opened = [*read, record(1, "live tests", LiveReleased("Ola"))]
    gate = live_gate(results_of(plan, opened), None, opened)
    assert (gate.shut, gate.stands_by) == ("", "Ola")
    back = [*opened, record(2, "live tests", TakenBack("release"), "r1")]
    assert live_gate(results_of(plan, back), None, back).shut


def test_a_failed_dead_test_is_never_signed_for_and_what_opens_after_a_release_shuts_again() -> None:
    evaluation = plan_for(wash_drum())
    plan = evaluation.get(TESTS)
    failed = record(1, plan.tests[0].key, reading_facts(plan.tests[0], Outcome.FAILED, ohm=99.0, meter=METER))
    gate = live_gate(results_of(plan, [failed]), None, [failed])
    assert not gate.may_release
    first = live_gate(results_of(plan, ()), None, ())
    signed = record(2, "live tests", LiveReleased("Ola", "only the loom is looked at", "; ".join(first.open_work)))
    assert live_gate(results_of(plan, [signed]), None, [signed]).shut == ""
    one_less = record(
        3, "live tests", LiveReleased("Ola", "so", "; ".join(w.replace(": 4", ": 3") for w in first.open_work))
    )
    assert "Bonds: 4 not passed" in live_gate(results_of(plan, [one_less]), None, [one_less]).shut


def test_the_visual_inspection_keeps_it_shut_too() -> None:
    evaluation = plan_for(wash_drum())
    states = stage_states(evaluation.get(WORK), progress_of(evaluation.get(WIRING), ()), ())
    inspection = next(state for state in states if state.stage is BuildStage.INSPECTION)
    assert any(
        f"visual inspection: {inspection.count} of {inspection.count}" in words
        for words in live_gate(results_of(evaluation.get(TESTS), ()), inspection, ()).open_work
    )


def test_a_log_that_goes_on_comes_to_the_results_of_the_whole_log() -> None:
    plan = plan_for(wash_drum()).get(LIVE_PLAN)
    first, second = plan[0], plan[1]
    entries = [
        record(1, first.key, live_facts(first, Outcome.PASSED, "401", meter=METER)),
        record(2, second.key, live_facts(second, Outcome.PASSED, "401", meter=METER)),
    ]
    log = Log(entries[:1])
    live_results(plan, log)
    longer = log.with_records(entries[1:])
    further, anew = live_results(plan, longer), live_results(plan, Log(entries))
    assert further == anew
    assert [result.outcome for result in further[:2]] == [Outcome.PASSED, Outcome.PASSED]


def test_a_step_counts_as_long_as_what_it_asks_is_the_same() -> None:
    before = plan_for(wash_drum()).get(LIVE_PLAN)
    step = next(step for step in before if step.title == "Q1 on")
    done = record(1, step.key, live_facts(step, Outcome.PASSED, "401", meter=METER))
    assert [r.outcome for r in live_results(before, [done]) if r.step == step] == [Outcome.PASSED]
    other = with_names_recorded(set_supply(wash_drum(), voltage_v=690.0, voltage_to_neutral_v=400.0))
    result = next(r for r in live_results(plan_for(other).get(LIVE_PLAN), [done]) if r.step.key == step.key)
    assert result.outcome is Outcome.OPEN
    assert "690 V" in result.stale


def test_the_file_refuses_a_live_step_before_the_release_and_a_voltage_without_its_meter(tmp_path: Path) -> None:
    file = JobFile.create(tmp_path / "live.riktig", wash_drum(), who="Ida", at="t")
    step = LiveStepDone(Outcome.PASSED, "Q1 on", value="401", unit="V", meter=METER)
    with pytest.raises(RiktigError, match="live tests are shut"):
        file.add_records([record(1, "volts:x", step)])
    file.add_records([record(2, "live tests", LiveReleased("Ola"))])
    for meter in ("", "bench meter (simulated)"):
        with pytest.raises(RiktigError, match="without its instrument"):
            file.add_records([record(3, "volts:x", LiveStepDone(Outcome.PASSED, value="401", meter=meter))])
    file.add_records([record(4, "volts:x", step)])
    file.add_records([record(5, "live tests", TakenBack("release"), "r2")])
    with pytest.raises(RiktigError, match="live tests are shut"):
        file.add_records([record(6, "volts:y", step)])
    assert [r.id for r in file.records()] == ["r2", "r4", "r5"]
    file.close()


@pytest.mark.parametrize(("text", "volts"), [("231", 231.0), ("231,5 V", 231.5), (" 0 v", 0.0), ("28 ms", 28.0)])
def test_a_voltage_is_understood(text: str, volts: float) -> None:
    assert read_value(text) == volts


@pytest.mark.parametrize("text", ["", "OL", "-3", "1e99", "nan", "230 W", "2 3 1"])
def test_what_is_no_voltage_is_refused(text: str) -> None:
    with pytest.raises(RiktigError, match="nothing was recorded"):
        read_value(text)


def test_dials_timers_and_fuses_are_set_to_what_was_chosen() -> None:
    """By hand: the drum takes 8.5 A at 4 kW (IEC 60947-4-1 annex G); fuse-links have their rating printed on them."""
    drum = steps_of("wash drum", ProvingStage.SETTINGS)
    assert [(step.done, step.trimmed) for step in drum] == [
        ("Set the dial of F3 to 8.5 A", True), ("Look over the torque marks", False),
    ]  # fmt: skip
    assert drum[0].passes(8.5)
    assert not drum[0].passes(9.0)
    shed = steps_of("kelp shed", ProvingStage.SETTINGS)
    kinds = {step.done.split(" of ")[0].split(" in ")[0] for step in shed}
    assert kinds == {
        "Set the dial",
        "Set the time",
        "Read the fuse-link",
        "Enter the motor current",
        "Enter the ramp",
        "Look over the torque marks",
    }
    drive = next(step for step in shed if step.done.startswith("Enter the motor current"))
    assert drive.trimmed, "as found and as left"
    assert drive.passes(2.7), "1.1 kW at 400 V: 2.7 A (IEC 60947-4-1 annex G, from memory)"
    assert not drive.passes(3.0)
    fuse = next(step for step in shed if "fuse-link" in step.done)
    assert fuse.low == fuse.high


def test_a_live_step_that_calls_itself_a_setting_counts_as_nothing() -> None:
    plan = plan_for(wash_drum()).get(LIVE_PLAN)
    step = next(step for step in plan if step.title == "Q1 on")
    honest = live_facts(step, Outcome.PASSED, "401", meter=METER)
    false = LiveStepDone(Outcome.PASSED, honest.title, honest.done, honest.expected, "401", "", "V", METER, "",
                         honest.true_of, ProvingStage.SETTINGS.value)  # fmt: skip
    result = next(r for r in live_results(plan, [record(1, step.key, false)]) if r.step.key == step.key)
    assert result.outcome is Outcome.OPEN


def test_settings_that_are_open_keep_the_live_steps_shut() -> None:
    evaluation = plan_for(wash_drum())
    settings = [r for r in live_results(evaluation.get(LIVE_PLAN), ()) if r.step.stage is ProvingStage.SETTINGS]
    gate = live_gate(results_of(evaluation.get(TESTS), ()), None, (), settings)
    assert "Settings: 2 not passed" in gate.open_work


def test_every_residual_current_device_is_tried_by_its_button_and_timed() -> None:
    """IEC 61008-1 and 61009-1: 300 ms at the rated residual current, general type (from memory)."""
    steps = steps_of("kelp shed")
    devices = [d for d in plan_for(kelp_shed()).get(CIRCUITS).devices if d.kind.can(Can.RESIDUAL)]
    assert devices
    for device in devices:
        button, timed = (next(s for s in steps if s.key == f"rcd {what}:{device.id}") for what in ("button", "time"))
        assert not button.unit
        assert timed.passes(280.0)
        assert not timed.passes(301.0)
        on = next(n for n, s in enumerate(steps) if s.title == f"{button.title.partition(',')[0]} on")
        assert steps.index(button) > on, "after it is switched on"
    assert not any(step.key.startswith("rcd") for step in steps_of("wash drum"))


def test_behind_the_main_switch_everything_is_dead_and_what_stays_on_is_live() -> None:
    """By hand: with Q1 off the shed's services behind Q2 stay live, the transformer and the 24 V supply are dead."""
    shed = {step.key: step for step in steps_of("kelp shed")}
    kept = [step.title for key, step in shed.items() if key.startswith("kept:")]
    assert kept == ["Q2 stays on", "F21 stays on", "F22 stays on"]
    dead = [step for key, step in shed.items() if key.startswith("main off:")]
    assert [step.done.rpartition("measure ")[2] for step in dead] == ["Q1:2 to Q1:4", "F2:2 to T1:7", "F4:2 to X2:B1M"]
    assert all(step.low == 0 and step.high == 5 for step in dead)
    assert not [step for step in steps_of("wash drum") if step.key.startswith(("kept:", "main off:"))]


def test_each_load_is_tried_over_a_dip_of_the_supply() -> None:
    """By hand: a held button lets go with the supply; a selector in hand calls again as soon as it is back."""
    shed = {step.done.split(":")[0]: step.expected for step in steps_of("kelp shed", ProvingStage.FUNCTION)
            if step.key.startswith("dip:")}  # fmt: skip
    assert shed["M2 runs by its button"] == ("M2 stays off",)
    assert shed["M4 runs in hand"][0].startswith("M4 runs again by itself")
    assert shed["M4 runs by level, between the floats"] == ("M4 stays off",)
