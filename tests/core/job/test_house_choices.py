"""Choices of a house: names of the lines, voltage of control, what a 24 V supply hangs on, colours, order, markers."""

from dataclasses import replace

import pytest
from tests.core.schematic.builders import one_motor
from tests.shared_plan import plan_for

from riktig.core.annotation import SHEET_DRAWINGS
from riktig.core.exports.lists import schedule
from riktig.core.geometry import Text
from riktig.core.job import (
    Colours,
    ControlSupply,
    DcInput,
    DeviceId,
    FirstSide,
    Job,
    MarkedWires,
    MarkerText,
    PhaseNames,
    Rulebook,
    Supply,
    SupplySystem,
    TagStyle,
    TransformerVoltage,
    add_load,
    new_job,
    set_practice,
    set_supply,
)
from riktig.core.labels import LABELS, Medium
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import CIRCUITS, NAMES, NETS, NetClass, Zone
from riktig.core.sizing import PROPOSAL
from riktig.core.wiring import WIRING
from riktig.demo_job import kelp_shed


def two_starters(rulebook: Rulebook = Rulebook.IEC) -> Job:
    """Two motors on a control transformer."""
    amps = 20.0 if rulebook.north_american else 32.0
    job = replace(new_job("T", "tannery"), supply=Supply(upstream_a=amps), sources_asked=True)
    job = add_load(add_load(job, "drum", 2.2, run_lamp=True), "splash pump", 0.75)
    return set_practice(job, control_supply=ControlSupply.TRANSFORMER, rulebook=rulebook)


@pytest.mark.parametrize("names", [PhaseNames.RST, PhaseNames.RYB])
def test_the_lines_are_called_as_the_house_calls_them_on_wires_terminals_and_sums(names: PhaseNames) -> None:
    evaluation = plan_for(set_practice(kelp_shed(), phase_names=names))
    marks = [row[2] for row in schedule("terminals", evaluation).rows]
    assert marks[:3] == list(names.names)
    numbers = {row[0] for row in schedule("nets", evaluation).rows}
    assert set(names.names) <= numbers and not {"L1", "L2", "L3"} & numbers
    phases = {row[6] for row in schedule("loads", evaluation).rows}
    assert "-".join(names.names) in phases and not any("L1" in str(text) for text in phases)


def test_a_phase_name_stands_at_the_incoming_terminals_of_the_sheet() -> None:
    drawings = plan_for(set_practice(two_starters(), phase_names=PhaseNames.RST)).get(SHEET_DRAWINGS)
    texts = {shape.text for drawing in drawings for shape in drawing.shapes if isinstance(shape, Text)}
    assert {"R", "S", "T"} <= texts


@pytest.mark.parametrize(
    ("voltage", "rulebook", "volts", "hz"),
    [
        (TransformerVoltage.RULEBOOK, Rulebook.IEC, 230, 50),
        (TransformerVoltage.RULEBOOK, Rulebook.UL, 120, 50),
        (TransformerVoltage.V110, Rulebook.IEC, 110, 50),
        (TransformerVoltage.V48, Rulebook.IEC, 48, 50),
        (TransformerVoltage.V24, Rulebook.UL, 24, 50),
    ],
)
def test_coils_lamps_and_transformer_are_bought_for_what_the_transformer_gives(
    voltage: TransformerVoltage, rulebook: Rulebook, volts: float, hz: float
) -> None:
    evaluation = plan_for(set_practice(two_starters(rulebook), transformer_voltage=voltage))
    texts = [str(row[1]) for row in schedule("bom", evaluation).rows]
    assert any(text.endswith(f"400 V {hz} Hz to {volts} V {hz} Hz") for text in texts)
    assert any(text.endswith(f"coil {volts} V {hz} Hz") for text in texts)
    assert any("lamp" in text and text.endswith(f"for {volts} V {hz} Hz") for text in texts)


@pytest.mark.parametrize("voltage", TransformerVoltage)
@pytest.mark.parametrize("rulebook", Rulebook)
def test_a_panel_of_any_control_voltage_works_and_its_control_fails_no_clause(
    voltage: TransformerVoltage, rulebook: Rulebook
) -> None:
    evaluation = plan_for(set_practice(two_starters(rulebook), transformer_voltage=voltage))
    fails = [
        f.message
        for result in evaluation.get(RULES)
        for f in result.findings
        if f.verdict is Verdict.FAILS and f.code[0] in "CE"
    ]
    assert fails == []


def test_the_fuse_behind_a_transformer_lets_the_same_power_through_at_any_voltage() -> None:
    """NFPA 79 Table 7.2.11, from memory: 1.0 A behind 100 VA at 120 V; at 24 V five times the current."""
    fuses = {}
    for voltage in (TransformerVoltage.RULEBOOK, TransformerVoltage.V24):
        job = set_practice(two_starters(Rulebook.UL), transformer_voltage=voltage)
        control = plan_for(job).get(PROPOSAL).control
        amounts = {value.key: value.amount for value in control.values}
        fuses[voltage] = amounts["panel.secondary"] * control_volts(voltage) / amounts["panel.transformer"]
    assert fuses[TransformerVoltage.V24] == pytest.approx(fuses[TransformerVoltage.RULEBOOK], rel=0.25)
    assert fuses[TransformerVoltage.V24] <= fuses[TransformerVoltage.RULEBOOK] + 1e-9


def control_volts(voltage: TransformerVoltage) -> float:
    return {TransformerVoltage.RULEBOOK: 120.0, TransformerVoltage.V24: 24.0}[voltage]


def input_nets(job: Job) -> set[NetClass]:
    """What the input of the shed's 24 V supply hangs between."""
    evaluation = plan_for(job)
    supply = next(d for d in evaluation.get(CIRCUITS).devices if d.kind_id == "dc_supply")
    guard = [d for d in evaluation.get(CIRCUITS).devices if d.circuit == supply.circuit and d.purpose.endswith("input")]
    nets = evaluation.get(NETS).of_pin
    return {nets[guard[0].pin("1")].net_class, nets[supply.pin("N")].net_class}


def test_a_24_v_supply_hangs_on_line_and_neutral_on_two_lines_or_behind_the_transformer() -> None:
    shed = kelp_shed()
    assert input_nets(set_practice(shed, dc_input=DcInput.NEUTRAL)) == {NetClass.POWER, NetClass.NEUTRAL}
    assert input_nets(set_practice(shed, dc_input=DcInput.LINES)) == {NetClass.POWER}
    assert input_nets(set_practice(shed, dc_input=DcInput.TRANSFORMER)) == {NetClass.CONTROL}


def test_where_the_supply_has_one_line_two_lines_are_not_asked_of_it() -> None:
    job = set_supply(kelp_shed(), system=SupplySystem.ONE, voltage_v=230.0)
    assert input_nets(set_practice(job, dc_input=DcInput.LINES)) == {NetClass.POWER, NetClass.NEUTRAL}


def test_a_transformer_that_feeds_the_24_v_supply_holds_it_too() -> None:
    held = [
        next(v.amount for v in plan_for(set_practice(kelp_shed(), dc_input=i)).get(PROPOSAL).control.values
             if v.key == "panel.held")
        for i in (DcInput.NEUTRAL, DcInput.TRANSFORMER)
    ]  # fmt: skip
    assert held[1] > held[0] + 5.0


@pytest.mark.parametrize("side", FirstSide)
def test_returns_are_wired_before_or_after_the_live_side(side: FirstSide) -> None:
    evaluation = plan_for(set_practice(two_starters(), first_side=side))
    nets = {net.id: net for net in evaluation.get(NETS).nets}
    control = [w for w in evaluation.get(WIRING).wires if w.stage.name == "CONTROL" and w.mm2 == 1.0]
    back = [nets[wire.net].earthed for wire in control]
    assert True in back and False in back
    if side is FirstSide.LIVE:
        assert back == sorted(back)
    if side is FirstSide.RETURN:
        assert back == sorted(back, reverse=True)


def test_the_house_tells_0_v_inputs_and_signals_apart() -> None:
    colours = ("black", "white", "brown", "violet")
    job = set_practice(kelp_shed(), colours=Colours.HOUSE, dc_colours=colours)
    evaluation = plan_for(job)
    circuits, nets = evaluation.get(CIRCUITS), evaluation.get(NETS)
    pins: dict[tuple[DeviceId, str], str] = {}
    for device in circuits.devices:
        if device.kind_id in ("inputs", "analogue_out", "analogue_in"):
            pins |= {(device.id, pin): device.kind_id for unit in device.kind.units for pin in unit.pins}
    worn: dict[str, set[str]] = {}
    for wire in evaluation.get(WIRING).wires:
        for pin in (wire.start.pin, wire.end.pin):
            if (kind := pins.get((pin.device, pin.marking))) and not nets.of_pin[pin].earthed:
                worn.setdefault(f"{kind} {pin.marking[0]}", set()).add(wire.colour)
    assert worn["inputs I"] == {"white"}
    zero = {w.colour for w in evaluation.get(WIRING).wires if "dc.zero" in nets.of_pin[w.start.pin].nodes}
    assert zero == {"black"}
    signals = {key: seen for key, seen in worn.items() if key.startswith("analogue")}
    assert signals and all(seen == {"brown"} if key[-1] == "A" else seen == {"violet"} for key, seen in signals.items())


def test_markers_name_both_clamps_or_are_left_out() -> None:
    clamps = plan_for(set_practice(one_motor(), marker=MarkerText.CLAMPS)).get(LABELS).on(Medium.WIRE)
    assert all(label.lines[0].startswith(label.where.removeprefix("at ")) for label in clamps)
    assert all(label.lines[0].count(":") == 2 for label in clamps)
    assert not plan_for(set_practice(one_motor(), marked=MarkedWires.NONE)).get(LABELS).on(Medium.WIRE)


def test_a_panel_of_many_wires_without_markers_is_left_to_a_person() -> None:
    results = plan_for(set_practice(kelp_shed(), marked=MarkedWires.NONE)).get(RULES)
    assert [f.verdict for result in results if result.code == "M02" for f in result.findings] == [Verdict.JUDGE]


def test_a_tag_by_place_has_the_sheet_in_two_digits() -> None:
    evaluation = plan_for(set_practice(one_motor(), tags=TagStyle.PLACED_TWO))
    plate = {d.id for d in evaluation.get(CIRCUITS).devices if d.zone is Zone.PLATE and d.kind_id == "contactor"}
    assert all(len(evaluation.get(NAMES).tag[d].lstrip("K")) == 3 for d in plate)
