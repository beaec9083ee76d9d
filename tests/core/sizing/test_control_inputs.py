"""What guards the inputs of small supplies and the branches behind them, and how thick their wires are."""

import pytest
from tests.shared_plan import plan_for

from riktig.core.catalogue import Can
from riktig.core.job import (
    ControlSupply,
    Job,
    Recipe,
    Wetting,
    add_load,
    add_signal,
    new_job,
    pick_part,
    set_practice,
    set_supply,
)
from riktig.core.keys import DeviceKey
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import CIRCUITS, add_circuit, with_names_recorded
from riktig.core.sizing import PROPOSAL, SIZING
from riktig.core.wiring import WIRING

EFFICIENCY = 0.88
"""Of a 24 V supply (typical part data, no source)."""


def supplies(neutral: bool, control: ControlSupply, dc_w: float, limited_w: float, loads: int = 2) -> Job:
    job = set_supply(new_job(), neutral=neutral)
    job = set_practice(job, control_supply=control)
    for n in range(loads):
        job = add_load(job, f"fan {n}", 1.5)
    job = add_signal(job, "weigh cell", watts=dc_w, wetting=Wetting.DC)
    return add_signal(job, "gas probe", watts=limited_w, wetting=Wetting.LIMITED)


def rated(job: Job) -> dict[str, float]:
    sizing = plan_for(with_names_recorded(job)).get(SIZING)
    return {str(device): part.rated_a for device, part in sizing.parts.items()}


@pytest.mark.parametrize(
    ("neutral", "control", "dc_w", "kind", "amps"),
    [
        # With the 8.7 W of the controller 1.25 × 68.7 / 0.88 / 230 = 0.42 A: the smallest breaker.
        (True, ControlSupply.TRANSFORMER, 60.0, "control_breaker", 2.0),
        # 1.25 × 408.7 / 0.88 / 230 = 2.5 A
        (True, ControlSupply.TRANSFORMER, 400.0, "control_breaker", 4.0),
        # Behind the transformer's 230 V: 0.42 A, next link 0.5 A
        (False, ControlSupply.TRANSFORMER, 60.0, "control_fuse", 0.5),
        # Between two lines of 400 V both are guarded: 1.25 × 68.7 / 0.88 / 400 = 0.24 A, no smaller than 2 A
        (False, ControlSupply.DC, 60.0, "fuse_two", 2.0),
    ],
)
def test_the_input_of_a_24_v_supply_carries_what_it_takes(
    neutral: bool, control: ControlSupply, dc_w: float, kind: str, amps: float
) -> None:
    job = supplies(neutral, control, dc_w, 10.0)
    devices = {str(d.id): d for d in plan_for(with_names_recorded(job)).get(CIRCUITS).devices}
    assert (devices["s2.F"].kind_id, rated(job)["s2.F"]) == (kind, amps)
    assert devices["s3.F"].kind_id == kind


def test_a_limited_supply_behind_the_transformer_has_a_small_fuse_and_counts_in_the_burden() -> None:
    """1.25 × 40 W / 0.88 / 230 V = 0.247 A, next link 0.25 A; 36 / 0.88 = 40.9 VA more to hold."""
    few, more = (supplies(False, ControlSupply.TRANSFORMER, 10.0, watts) for watts in (4.0, 40.0))
    assert rated(more)["s3.F"] == 0.25
    held = [plan_for(with_names_recorded(job)).get(PROPOSAL).value("panel.held") for job in (few, more)]
    assert held[0] and held[1]
    assert held[1].amount - held[0].amount == pytest.approx(36.0 / EFFICIENCY, abs=0.2)


@pytest.mark.parametrize("control", [ControlSupply.TRANSFORMER, ControlSupply.DC])
def test_behind_a_small_source_two_branches_stand_behind_a_fuse_that_opens_later(control: ControlSupply) -> None:
    """0.2 A each and 1.6 times as much before them (IEC 60269-2, from memory): 0.32 A, next link 0.4 A."""
    job = add_circuit(supplies(True, control, 10.0, 4.0), Recipe.FUSED_BRANCHES)
    circuit = str(job.circuits[-1].id)
    amps = rated(job)
    assert (amps[f"{circuit}.Q"], amps[f"{circuit}.F1"], amps[f"{circuit}.F2"]) == (0.4, 0.2, 0.2)
    clause = next(r for r in plan_for(with_names_recorded(job)).get(RULES) if r.code == "C12")
    assert not clause.findings
    if control is ControlSupply.TRANSFORMER:
        assert amps["s1.FS"] >= 1.6 * 0.4, "the transformer is large enough for its own fuse to open last"


def test_a_fuse_no_larger_than_the_one_behind_it_is_judged() -> None:
    """The breaker of 2 A with fuses of 2 A behind it, picked by the builder."""
    job = with_names_recorded(add_circuit(supplies(True, ControlSupply.DIRECT, 10.0, 4.0), Recipe.FUSED_BRANCHES))
    first = next(d for d in plan_for(job).get(CIRCUITS).devices if d.id == f"{job.circuits[-1].id}.F1")
    picked = pick_part(job, first.id, "FU-2")
    clause = next(r for r in plan_for(picked).get(RULES) if r.code == "C12")
    assert [(f.verdict, f.where) for f in clause.findings] == [(Verdict.JUDGE, DeviceKey(first.id))]


def test_control_wires_are_thin_where_no_load_is_listed() -> None:
    """They took the section of the supply's conductors where the Brief lists no load."""
    job = with_names_recorded(supplies(True, ControlSupply.DC, 10.0, 4.0, loads=0))
    evaluation = plan_for(job)
    control = evaluation.get(SIZING).control.mm2
    assert control <= 1.0
    thick = [w for w in evaluation.get(WIRING).wires if str(w.start.pin.device).startswith(("s2.F1", "s2.F2"))]
    assert thick
    assert {w.mm2 for w in thick} == {control}


def test_a_limited_supply_of_the_builders_own_is_one_of_limited_energy() -> None:
    """NEC 725.121 (class 2), from memory: at most 100 VA at 24 V, 4.2 A; a common supply of 5 A would give 120 VA."""
    job = add_circuit(set_supply(new_job(), neutral=True), Recipe.LIMITED_SUPPLY)
    parts = [part for part in plan_for(with_names_recorded(job)).get(SIZING).parts.values() if part.rated_a > 2.0]
    supplies_of_it = [part for part in parts if part.kind.can(Can.MAKES_DC)]
    assert [part.rated_a * 24.0 <= 100.0 for part in supplies_of_it] == [True]
