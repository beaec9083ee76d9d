"""W08: what lies together in a duct is insulated for it, and signals lie apart from the pulses of drives."""

from tests.shared_plan import plan_for

from riktig.core.evaluation import Evaluation
from riktig.core.job import (
    Command,
    Direction,
    EndStyle,
    Form,
    Job,
    Rulebook,
    Start,
    Wetting,
    add_load,
    add_signal,
    new_job,
    set_practice,
    set_supply,
)
from riktig.core.keys import DuctKey, WireKey
from riktig.core.rules import RULES, ClauseResult, Verdict
from riktig.core.schematic import with_names_recorded
from riktig.core.standards import insulation_volts
from riktig.core.wiring import WIRING
from riktig.demo_job import frost_fan, kelp_shed


def quarry(volts: float, **practice: object) -> Job:
    """Two crushers, of no demonstration's shape."""
    job = add_load(new_job("Q-7", "crusher"), "jaw", 7.5)
    job = add_load(job, "screen", 3.0, start=Start.REVERSING)
    job = set_supply(job, voltage_v=volts, voltage_to_neutral_v=round(volts / 3**0.5, 1))
    return with_names_recorded(set_practice(job, **practice))  # type: ignore[arg-type]


def judged(evaluation: Evaluation[Job]) -> ClauseResult:
    return next(result for result in evaluation.get(RULES) if result.code == "W08")


def test_rated_voltages_are_those_of_the_types() -> None:
    """EN 50525-2-31 and UL 1063, from memory: H05V-K 500 V, H07V-K 750 V, MTW 600 V; no code for thin class 2."""
    assert insulation_volts(1.0, flexible=True) == 500
    assert insulation_volts(1.5, flexible=True) == insulation_volts(35.0, flexible=False) == 750
    assert insulation_volts(0.75, flexible=False) is None
    assert insulation_volts(plan_for(frost_fan()).get(WIRING).wires[0].mm2, flexible=True) == 600


def test_at_four_hundred_volts_all_may_lie_together_and_each_duct_is_named() -> None:
    evaluation = plan_for(quarry(400.0))
    result = judged(evaluation)
    assert result.findings == ()
    ducts = {duct for wire in evaluation.get(WIRING).wires for duct in wire.ducts}
    assert {line.partition(":")[0] for line in result.evidence} == ducts
    assert any("up to 400 V" in line for line in result.evidence)


def test_at_six_hundred_and_ninety_volts_a_thin_control_wire_may_not_lie_beside_the_lines() -> None:
    evaluation = plan_for(quarry(690.0))
    result = judged(evaluation)
    wires = {wire.key: wire for wire in evaluation.get(WIRING).wires}
    assert result.verdict is Verdict.FAILS
    for finding in result.findings:
        assert isinstance(finding.where, WireKey)
        assert wires[finding.where.wire].mm2 <= 1.0
        assert "500 V" in finding.message and "690 V" in finding.message
        assert finding.remedy
    said = {finding.message.split(" shares ")[1].split(" ")[0] for finding in result.findings}
    mixed = {
        duct
        for wire in wires.values()
        if wire.mm2 <= 1.0
        for duct in wire.ducts
        if any(duct in other.ducts and other.number.startswith(("L", "M")) for other in wires.values())
    }
    assert mixed and mixed <= said


def test_a_conductor_without_a_rated_voltage_is_for_the_engineer() -> None:
    result = judged(plan_for(quarry(400.0, ends=EndStyle.CRIMPS)))
    assert result.verdict is Verdict.JUDGE
    assert all("no rated voltage" in finding.message for finding in result.findings)


def test_north_american_conductors_are_good_for_six_hundred_volts() -> None:
    job = set_practice(new_job("N", "mill"), rulebook=Rulebook.UL)
    job = add_load(job, "saw", hp=5.0)
    job = set_supply(job, voltage_v=600.0, voltage_to_neutral_v=347.0)
    assert judged(plan_for(with_names_recorded(job))).findings == ()


def test_a_signal_beside_the_output_of_a_drive_is_for_the_engineer() -> None:
    job = add_load(new_job("D-1", "dosing"), "screw", 1.5, start=Start.DRIVE, command=Command.CONTROLLER)
    job = add_signal(
        job, "set valve", place="silo", wetting=Wetting.DC, form=Form.ANALOGUE, direction=Direction.OUT, watts=0.5
    )
    evaluation = plan_for(with_names_recorded(job))
    wires = evaluation.get(WIRING).wires
    out = {duct for wire in wires if wire.number.startswith("M1-") for duct in wire.ducts}
    signals = {
        duct
        for wire in wires
        if {wire.start.label.split(":")[1], wire.end.label.split(":")[1]} & {"AO0", "C0", "AO1", "C1"}
        for duct in wire.ducts
    }
    assert out and signals
    found = [f for f in judged(evaluation).findings if isinstance(f.where, DuctKey)]
    assert {finding.where.name for finding in found if isinstance(finding.where, DuctKey)} == out & signals
    assert all(finding.verdict is Verdict.JUDGE for finding in found)


def test_the_demonstrations_do_not_fail() -> None:
    for job in (kelp_shed(), frost_fan()):
        result = judged(plan_for(job))
        assert result.verdict is not Verdict.FAILS
        assert len(result.evidence) > 3
