"""Currents, sections and fuses worked out by hand, from the laws and tables named beside each."""

from math import sqrt

import pytest
from tests.shared_plan import plan_for

from riktig.core.job import (
    Command,
    ControlSupply,
    Job,
    LoadKind,
    Override,
    Rulebook,
    Start,
    SupplySystem,
    TransformerVoltage,
    add_load,
    new_job,
    set_practice,
    set_supply,
)
from riktig.core.schematic import CIRCUITS, with_names_recorded
from riktig.core.sizing import PROPOSAL, SIZING, Proposal


def proposed(job: Job) -> Proposal:
    return plan_for(with_names_recorded(job)).get(PROPOSAL)


@pytest.mark.parametrize(
    ("kw", "phases", "amps"),
    [
        (9.0, 3, 9000 / (sqrt(3) * 400)),  # 12.99 A: power in three lines, power factor 1 (Ohm's law)
        (2.3, 1, 2300 / 230),  # 10.0 A, line to neutral
        (2.0, 2, 2000 / 400),  # 5.0 A, between two lines
    ],
)
def test_a_heater_draws_its_power_over_its_voltage(kw: float, phases: int, amps: float) -> None:
    job = add_load(new_job(), "drying heater", kw, kind=LoadKind.HEATER, phases=phases)
    current = proposed(job).loads[0].value("current")
    assert current is not None
    assert current.amount == pytest.approx(amps, abs=0.006)


def test_the_legs_of_star_delta_carry_the_current_of_one_winding() -> None:
    """22 kW at 400 V: 41 A in the line (IEC table, from memory), 41 / √3 = 23.7 A in each of the six legs."""
    load = proposed(add_load(new_job(), "chipper", 22.0, start=Start.STAR_DELTA)).loads[0]
    assert load.legs is not None
    assert load.value("current").amount == pytest.approx(41.0, abs=1.0)  # type: ignore[union-attr]
    assert load.legs.needs_a >= 0.577 * load.amount("current")
    # They are protected in a short circuit by the breaker ahead, which may be three times what they carry.
    assert load.legs.needs_a >= load.amount("breaker") / 3 - 0.01
    assert load.legs.needs_a == pytest.approx(max(0.58 * load.amount("current"), load.amount("breaker") / 3), rel=0.01)
    assert load.legs.mm2 < load.section.mm2


@pytest.mark.parametrize(
    ("voltage", "amps"),
    [
        (TransformerVoltage.RULEBOOK, 0.5),  # at 120 V, of the table
        (TransformerVoltage.V24, 2.5),  # 0.5 × 120 / 24 = 2.5 A, which is a link of class CC
    ],
)
def test_the_fuse_behind_a_north_american_transformer_follows_its_voltage(
    voltage: TransformerVoltage, amps: float
) -> None:
    """NFPA 79 table 7.2.11, from memory: up to 50 VA 0.5 A at 120 V; the same share of its current at 24 V."""
    job = set_supply(new_job(), voltage_v=480.0, voltage_to_neutral_v=277.0, frequency_hz=60.0, neutral=False)
    job = set_practice(job, rulebook=Rulebook.UL, control_supply=ControlSupply.TRANSFORMER, transformer_voltage=voltage)
    proposal = proposed(add_load(job, "fan", 1.5))
    assert proposal.value("panel.transformer").amount == 50.0  # type: ignore[union-attr]
    assert proposal.value("panel.secondary").amount == amps  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("system", "neutral", "complains"),
    [
        (SupplySystem.ONE, True, False),
        (SupplySystem.ONE, False, True),
        (SupplySystem.HIGH_LEG, True, False),
        (SupplySystem.HIGH_LEG, False, True),
        (SupplySystem.CORNER, False, False),
        (SupplySystem.CORNER, True, True),
        (SupplySystem.THREE, True, False),
        (SupplySystem.THREE, False, False),
    ],
)
def test_a_system_has_the_neutral_that_belongs_to_it(system: SupplySystem, neutral: bool, complains: bool) -> None:
    """A high leg and a single phase need their neutral; a delta with an earthed corner has none (by their meaning)."""
    job = set_supply(add_load(new_job(), "fan", 1.5), system=system, neutral=neutral)
    texts = [issue.text for issue in proposed(job).issues if "neutral" in issue.text and "supply of" in issue.text]
    assert bool(texts) is complains


@pytest.mark.parametrize(("amps", "falls_short"), [(9.0, True), (25.0, False)])
def test_a_contactor_of_ones_own_that_is_too_small_is_named(amps: float, falls_short: bool) -> None:
    """7.5 kW at 400 V draw 15 A (IEC table, from memory): 9 A by AC-3 do not carry them."""
    job = add_load(new_job(), "stirrer", 7.5)
    key = f"{job.loads[0].id}.contactor"
    job = set_overrides(job, Override(key, amps, "in stock"))
    value = proposed(job).loads[0].value("contactor")
    assert value is not None
    assert bool(value.shortfall) is falls_short


def set_overrides(job: Job, override: Override) -> Job:
    from dataclasses import replace

    return replace(job, overrides=(override,))


@pytest.mark.parametrize(
    ("fields", "trips"),
    [
        ({}, "D"),
        ({"phases": 2}, "D"),
        ({"phases": 1}, "D"),
        ({"start": Start.SOFT}, "D"),
        ({"start": Start.DRIVE}, "C"),
        ({"kind": LoadKind.HEATER, "start": Start.CONTACTOR}, "C"),
        ({"kind": LoadKind.HEATER, "start": Start.CONTACTOR, "phases": 2}, "C"),
        ({"kind": LoadKind.LIGHTING, "start": Start.WAY, "command": Command.ALWAYS, "phases": 1}, "C"),
    ],
)
def test_the_breaker_that_is_bought_trips_as_the_proposal_says(fields: dict[str, object], trips: str) -> None:
    """A motor starts through type D, 10 to 20 times its rating; type C, 5 to 10 times, is for all that does not
    start (IEC 60898-1 table 2, from memory).
    """
    job = add_load(new_job("T-9", "t"), "one load", 1.5, **fields)  # type: ignore[arg-type]
    evaluation = plan_for(job)
    value = evaluation.get(PROPOSAL).value("m1.breaker")
    assert value is not None
    assert value.text.endswith(f"type {trips}")
    guards = [d.id for d in evaluation.get(CIRCUITS).devices if d.kind.sized_as == "breaker" and d.circuit == "c1"]
    assert guards
    assert {evaluation.get(SIZING).parts[guard].characteristic for guard in guards} == {trips}


def test_the_full_load_is_the_fullest_line_and_what_the_control_supply_draws() -> None:
    """Heaters from line to neutral: 2.3 kW / 230 V = 10 A on L1 and L2, 20 A on L3 with a second one.

    Control straight from the lines is counted by what it feeds: nothing in a job without contactors but these, each
    with a coil of less than half an ampere.
    """
    job = new_job("H", "heaters")
    for name, phase in (("one", 1), ("two", 2), ("three", 3), ("four", 3)):
        job = add_load(job, name, 2.3, kind=LoadKind.HEATER, phases=1, phase=phase)
    proposal = proposed(job)
    assert proposal.incoming.lines == pytest.approx((10.0, 10.0, 20.0), abs=0.01)
    assert 20.05 <= proposal.incoming.full_load_a <= 20.6
