"""Leakage of drives: every section of the way counts: 10 mm² or doubled (IEC 60204-1 8.2.6, from memory)."""

from dataclasses import replace

import pytest
from tests.shared_plan import plan_for

from riktig.core.job import Job, Start, change_load, set_supply
from riktig.core.keys import DeviceKey, WireKey
from riktig.core.rules import VIEW, Finding, Verdict, View
from riktig.core.rules.field import leakage_to_earth
from riktig.core.schematic import with_names_recorded
from riktig.demo_job import wash_drum


def with_drive(upstream_a: float = 0.0) -> Job:
    job = change_load(wash_drum(), wash_drum().loads[0].id, start=Start.DRIVE)
    return with_names_recorded(set_supply(job, upstream_a=upstream_a) if upstream_a else job)


def thick_at_the_drive(view: View) -> View:
    """The drive's own protective conductor of 10 mm²; all else as it is."""
    wires = tuple(
        replace(wire, mm2=10.0) if "c1.U:PE" in wire.key else wire for wire in view.wiring.wires
    )  # fmt: skip
    return replace(view, wiring=replace(view.wiring, wires=wires))


def said(findings: tuple[Finding, ...]) -> list[str]:
    return [finding.message for finding in findings]


def test_a_thick_one_at_the_drive_does_not_excuse_the_way_to_the_supply() -> None:
    result = leakage_to_earth(thick_at_the_drive(plan_for(with_drive()).get(VIEW)))
    assert result.verdict is Verdict.JUDGE
    assert [type(finding.where) for finding in result.findings] == [WireKey, DeviceKey]
    assert "X1:PE" in said(result.findings)[0]
    assert "protective conductor of the supply, 4 mm²" in said(result.findings)[1]


def test_it_is_met_when_every_section_is_thick() -> None:
    result = leakage_to_earth(thick_at_the_drive(plan_for(with_drive(upstream_a=80.0)).get(VIEW)))
    assert result.verdict is Verdict.MEETS, said(result.findings)
    assert any(line.startswith("the protective conductor of the supply") for line in result.evidence)


@pytest.mark.parametrize(("mm2", "verdict"), [(9.9, Verdict.JUDGE), (10.0, Verdict.MEETS)])
def test_the_limit_is_ten(mm2: float, verdict: Verdict) -> None:
    view = thick_at_the_drive(plan_for(with_drive(upstream_a=80.0)).get(VIEW))
    view = replace(view, sizing=replace(view.sizing, feeder_pe_mm2=mm2))
    assert leakage_to_earth(view).verdict is verdict


def test_two_from_the_terminal_to_the_bar_are_doubled() -> None:
    view = thick_at_the_drive(plan_for(with_drive(upstream_a=80.0)).get(VIEW))
    thin = tuple(replace(wire, mm2=6.0) if "c0.X.PE" in wire.key else wire for wire in view.wiring.wires)
    (one,) = (wire for wire in thin if "c0.X.PE" in wire.key)
    single = replace(view, wiring=replace(view.wiring, wires=thin))
    assert leakage_to_earth(single).verdict is Verdict.JUDGE
    second = replace(one, key=type(one.key)(one.key.replace("c0.PE:1", "c0.PE:2")))
    doubled = replace(view, wiring=replace(view.wiring, wires=(*thin, second)))
    assert leakage_to_earth(doubled).verdict is Verdict.MEETS


def test_without_a_drive_it_does_not_apply() -> None:
    assert leakage_to_earth(plan_for(wash_drum()).get(VIEW)).verdict is Verdict.NOT_APPLICABLE
