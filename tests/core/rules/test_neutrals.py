"""Neutrals against what can return by them: worked out by hand from the breakers (common practice, no source)."""

from dataclasses import replace

import pytest
from tests.core.schematic.builders import one_motor
from tests.shared_plan import plan_for

from riktig.core.exports import schedule
from riktig.core.job import (
    CircuitId,
    DeviceId,
    Job,
    LoadId,
    LoadKind,
    OwnDevice,
    OwnRung,
    Recipe,
    Start,
    add_load,
    new_job,
    set_supply,
)
from riktig.core.plate import LAYOUT, move_block
from riktig.core.rules import RULES, VIEW, Verdict, apply_mend, findings_of
from riktig.core.rules.guarded_neutrals import fullest_line
from riktig.core.rules.protected_wires import neutrals_cut_off_together
from riktig.core.schematic import CIRCUITS, NETS, add_circuit, add_device, add_rung, with_names_recorded
from riktig.core.simulation import Panel
from riktig.core.terminals import STRIPS
from riktig.core.wiring import WIRING

A, B, C = (("a", 16.0),), (("b", 10.0),), (("a", 16.0), ("b", 10.0))


@pytest.mark.parametrize(
    ("returns", "amps"),
    [
        ({}, 0.0),
        ({"x": (0, 6.0, ())}, 6.0),
        ({"x": (0, 6.0, ()), "y": (0, 5.0, ())}, 11.0),
        ({"x": (0, 6.0, ()), "y": (1, 5.0, ())}, 6.0),  # the other line may be off
        ({"x": (0, 16.0, A), "y": (0, 16.0, A)}, 16.0),  # one breaker for both
        ({"x": (0, 10.0, C), "y": (0, 10.0, C), "z": (0, 16.0, A)}, 16.0),
        ({"x": (0, 10.0, C), "z": (0, 4.0, A)}, 14.0),
        ({"x": (0, 16.0, A), "y": (0, 10.0, B)}, 26.0),
    ],
)
def test_what_returns_by_one_neutral(returns: dict[str, object], amps: float) -> None:
    """Loads on one line add up, behind a breaker to no more than it lets through; of lines the fullest counts."""
    assert fullest_line(returns) == pytest.approx(amps)  # type: ignore[arg-type]


def ways(line_of_second: int) -> Job:
    """Two ways of 10 A that share a neutral, the second on the same line or on another."""
    job = set_supply(new_job("N", "neutrals"), upstream_a=40.0)
    for name, line, head in (("lights", 1, None), ("more lights", line_of_second, LoadId("m1"))):
        job = add_load(
            job, name, nameplate_a=9.0, kind=LoadKind.LIGHTING, phases=1, start=Start.WAY, phase=line, neutral_of=head
        )
    return with_names_recorded(job)


@pytest.mark.parametrize(("second", "mm2"), [(1, 4.0), (2, 1.5)])
def test_a_shared_neutral_is_as_thick_as_the_fullest_line_asks(second: int, mm2: float) -> None:
    """IEC 60204-1 Table 6 B1: 20 A of two breakers on one line: 4 mm² (24 A); 10 A of each of two: 1.5 mm²."""
    evaluation = plan_for(ways(second))
    wire = next(w for w in evaluation.get(WIRING).wires if "c1.X.N:i" in (str(w.start.pin), str(w.end.pin)))
    assert wire.mm2 == mm2
    assert not [f for f in findings_of(evaluation.get(RULES)) if f.code in ("W05", "W06", "C11")]
    head = next(cable for cable in evaluation.get(STRIPS).cables if cable.device == "c1.E")
    assert head.mm2 >= 2.5 if second == 1 else 1.5


@pytest.mark.parametrize("second", [1, 2, 3])
def test_breakers_of_a_shared_neutral_are_tied_and_open_together(second: int) -> None:
    """NEC 210.4(B), IEC 60364-4-46, from memory: what shares a neutral is cut off by one handle."""
    job = ways(second)
    evaluation = plan_for(job)
    clause = next(r for r in evaluation.get(RULES) if r.code == "E14")
    assert not clause.findings
    assert "one handle opens F1 and F2" in clause.evidence
    seats = {str(seat.device): seat for seat in evaluation.get(LAYOUT).seats}
    assert seats["c2.F"].rect.x == pytest.approx(seats["c1.F"].rect.right)
    rows = [row for row in schedule("bom", evaluation).rows if str(row[1]).startswith("handle tie")]
    assert [(row[2], row[4]) for row in rows] == [(1, "F1 F2")]


@pytest.mark.parametrize(("moved", "mate"), [("c1.F", "c2.F"), ("c2.F", "c1.F")])
def test_one_handle_moves_both_but_a_trip_only_one(moved: str, mate: str) -> None:
    evaluation = plan_for(ways(2))
    panel = Panel(evaluation.get(CIRCUITS), evaluation.get(NETS))
    loads = {DeviceId("c1.E"), DeviceId("c2.E")}
    assert loads <= panel.on
    panel.operator_state.opened.add(DeviceId(moved))
    panel.run_until_stable()
    assert panel.operator_state.opened == {DeviceId(moved), DeviceId(mate)}
    assert not loads & panel.on
    panel.operator_state.opened.discard(DeviceId(mate))
    panel.run_until_stable()
    assert loads <= panel.on
    panel.operator_state.tripped.add(DeviceId(moved))
    panel.run_until_stable()
    assert len(loads & panel.on) == 1


@pytest.mark.parametrize("second", [2, 3])
def test_tied_breakers_that_stand_apart_fail_and_a_neutral_each_mends_it(second: int) -> None:
    job = ways(second)
    layout = plan_for(job).get(LAYOUT)
    job = move_block(job, layout, DeviceId("c2.F"), 2, 0.0)
    (found,) = [f for f in findings_of(plan_for(job).get(RULES)) if f.code == "E14"]
    assert found.verdict is Verdict.FAILS
    assert found.quick_fix
    mended = apply_mend(job, found.quick_fix)
    assert not [f for f in findings_of(plan_for(mended).get(RULES)) if f.code == "E14"]
    neutrals = [w for w in plan_for(mended).get(WIRING).wires if "X.N:i" in f"{w.start.pin} {w.end.pin}"]
    assert len(neutrals) == 3, "that of the supply and one for each way"


@pytest.mark.parametrize("second", [1, 2, 3])
def test_a_shared_neutral_behind_breakers_that_open_one_by_one_fails(second: int) -> None:
    """NEC 210.4(B); elsewhere common practice: with one breaker off the neutral still carries the other's current."""
    view = plan_for(ways(second)).get(VIEW)
    loose = tuple(replace(device, tied=None) for device in view.circuits.devices)
    clause = neutrals_cut_off_together(replace(view, circuits=replace(view.circuits, devices=loose)))
    (found,) = clause.findings
    assert found.verdict is Verdict.FAILS
    assert "F1 and F2" in found.message
    assert found.quick_fix


def test_ways_with_their_own_neutrals_share_nothing() -> None:
    job = with_names_recorded(add_circuit(one_motor(), Recipe.SIGNALLED_WAYS))
    assert not [f for f in findings_of(plan_for(job).get(RULES)) if f.code == "E14"]


@pytest.mark.parametrize("recipe", [Recipe.MAINTAINED, Recipe.SOCKET, Recipe.SIGNALLED_WAYS, Recipe.PHASE_LAMPS])
def test_neutrals_of_the_book_carry_what_their_breakers_let_through(recipe: Recipe) -> None:
    evaluation = plan_for(with_names_recorded(add_circuit(one_motor(), recipe)))
    found = [f for f in findings_of(evaluation.get(RULES)) if f.code == "W05" and f.verdict is Verdict.FAILS]
    assert not found


def test_a_neutral_of_ones_own_that_is_too_thin_fails() -> None:
    """A socket of 16 A drawn into a control path: its neutral would be 1 mm², which carries 10.3 A."""
    job = one_motor()
    for device in (OwnDevice("F9", "rcd_breaker", "plate", "socket"), OwnDevice("X9", "load", "field", "s")):
        job = add_device(job, CircuitId("c1"), device)
    job = add_rung(job, CircuitId("c1"), OwnRung("own", "own", "main.L1", "F9:1-2 X9:L-N", "N", "control"))
    found = findings_of(plan_for(with_names_recorded(job)).get(RULES))
    assert any(f.code in ("W05", "W06") and f.verdict is Verdict.FAILS for f in found)
