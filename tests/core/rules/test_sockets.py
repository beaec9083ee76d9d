"""Sockets behind a residual-current breaker (E15). IEC 60364-4-41:2017 411.3.3 and NEC 210.8(B), from memory."""

from dataclasses import replace
from typing import Unpack

import pytest
from tests.shared_plan import plan_for

from riktig.core.job import (
    Command,
    ElementId,
    Job,
    LoadId,
    LoadKind,
    Recipe,
    Rulebook,
    Start,
    Supply,
    add_load,
    change_load,
    new_job,
    set_practice,
)
from riktig.core.job.fields import LoadFields
from riktig.core.rules import RULES, ClauseResult, Verdict
from riktig.core.schematic import CIRCUITS, add_circuit, remove_element
from riktig.core.sizing import SIZING
from riktig.core.wiring import WIRING


def with_way(job: Job, name: str, **fields: Unpack[LoadFields]) -> Job:
    job = add_load(job, name, nameplate_a=1.0, start=Start.WAY, command=Command.ALWAYS, run_lamp=False, trip_lamp=False)
    return change_load(job, job.loads[-1].id, **fields)


def shop(amps: float = 16.0, phases: int = 1, kind: LoadKind = LoadKind.SOCKETS) -> Job:
    job = replace(new_job("T", "shop"), supply=Supply(upstream_a=63.0), sources_asked=True)
    return with_way(job, "bench", nameplate_a=amps, phases=phases, kind=kind)


def clause(job: Job) -> ClauseResult:
    return next(r for r in plan_for(job).get(RULES) if r.code == "E15")


def breaker_of(job: Job) -> str:
    evaluation = plan_for(job)
    device = next(d for d in evaluation.get(CIRCUITS).devices if d.role == "F" and d.circuit == "c1")
    return evaluation.get(SIZING).parts[device.id].description


@pytest.mark.parametrize(("phases", "poles"), [(1, "two-pole"), (2, "two-pole"), (3, "three-pole")])
def test_sockets_get_a_residual_current_breaker(phases: int, poles: str) -> None:
    job = shop(phases=phases)
    assert clause(job).verdict is Verdict.MEETS
    assert "30 mA" in breaker_of(job)
    assert poles in breaker_of(job)


def test_the_neutral_of_sockets_goes_through_their_breaker() -> None:
    wires = plan_for(shop()).get(WIRING).wires
    landed = [(end.pin.marking, w.mm2) for w in wires for end in (w.start, w.end) if end.pin.device == "c1.F"]
    assert {marking for marking, _ in landed} == {"1", "2", "3", "4"}
    assert len({mm2 for marking, mm2 in landed if marking != "1"}) == 1, "as thick as its line"


def test_lighting_needs_none() -> None:
    assert "30 mA" not in breaker_of(shop(kind=LoadKind.LIGHTING))
    assert clause(shop(kind=LoadKind.LIGHTING)).grounds == ("no socket is drawn",)


def test_above_32_a_none_is_asked_for_and_that_is_said() -> None:
    assert "asked for up to 32 A" in clause(shop(amps=40.0, phases=3)).evidence[0]


def test_at_32_a_itself_one_is_asked_for() -> None:
    """IEC 60364-4-41:2017 411.3.3: socket-outlets not above 32 A, from memory."""
    result = clause(shop(amps=32.0, phases=3))
    assert "30 mA" in breaker_of(shop(amps=32.0, phases=3))
    assert not any("asked for up to" in line for line in result.evidence)
    assert result.verdict is Verdict.MEETS


def test_sockets_on_a_contactor_without_a_residual_current_breaker_fail() -> None:
    job = change_load(shop(), shop().loads[0].id, start=Start.CONTACTOR, command=Command.BUTTONS)
    (found,) = clause(job).findings
    assert found.verdict is Verdict.FAILS
    assert "past any residual-current breaker" in found.message


def test_sockets_share_no_neutral() -> None:
    first: LoadId = shop().loads[0].id
    job = with_way(shop(), "lamps", nameplate_a=6.0, phases=1, kind=LoadKind.LIGHTING, neutral_of=first)
    assert clause(job).verdict is Verdict.MEETS


@pytest.mark.parametrize(("volts", "asked"), [(120.0, True), (277.0, False)])
def test_north_american_receptacles_up_to_150_v_to_ground(volts: float, asked: bool) -> None:
    supply = Supply(volts * 3**0.5, volts, 60.0, upstream_a=60.0)
    job = set_practice(replace(new_job("T", "shop"), supply=supply), rulebook=Rulebook.UL)
    job = with_way(job, "bench", nameplate_a=15.0, phases=1, kind=LoadKind.SOCKETS)
    assert clause(job).verdict is Verdict.MEETS
    assert ("behind a residual-current breaker" in clause(job).evidence[0]) is asked
    assert clause(job).clause.startswith("NEC 210.8(B)")


def test_a_return_that_goes_past_the_breaker_to_a_transformer_is_found() -> None:
    """Where no neutral arrives the socket hangs on a transformer of its own: both of its sides count."""
    supply = Supply(400.0, 230.0, neutral=False, upstream_a=25.0)
    job = add_circuit(add_load(replace(new_job("T", "shop"), supply=supply), "mill", 1.5), Recipe.SOCKET)
    assert clause(job).verdict is Verdict.MEETS
    breaker = next(d for d in plan_for(job).get(CIRCUITS).devices if d.kind_id == "rcd_breaker")
    job = remove_element(job, ElementId(f"{breaker.id}/3-4"))
    (found,) = clause(job).findings
    assert found.verdict is Verdict.FAILS
