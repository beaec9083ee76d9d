"""Whether a fault in one control circuit leaves the others alive."""

from collections.abc import Iterable

from riktig.core.catalogue import Can
from riktig.core.job import IMPLIED, Recipe
from riktig.core.keys import DeviceKey
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.rules.view import View
from riktig.core.schematic import Device
from riktig.core.standards import rule

__all__ = ["SELECTIVITY"]

BREAKER_BEHIND = 4.0
"""A breaker opens before a fuse so many times as large (common practice, no source: the let-through curves decide)."""


def control_selective(view: View) -> ClauseResult:
    """What guards a control circuit opens before what guards the whole control supply."""
    clause = view.source("C12")
    findings: list[Finding] = []
    evidence: list[str] = []
    for upstream, branch in _pairs(view):
        first, second = view.sizing.parts[upstream.id].rated_a, view.sizing.parts[branch.id].rated_a
        is_fuse = any(unit.symbol == "fuse" for unit in branch.kind.units)
        apart = rule("fuse selectivity").value if is_fuse else BREAKER_BEHIND
        if first >= apart * second - 1e-9:
            evidence.append(f"{view.tag(branch.id)} {second:g} A behind {view.tag(upstream.id)} {first:g} A")
            continue
        text = (
            f"{view.tag(branch.id)}, {second:g} A, does not open before {view.tag(upstream.id)}, {first:g} A: "
            "a fault in one circuit takes the whole control supply away."
        )
        remedy = f"Take a smaller fuse, or a supply whose own is {apart:g} times as large; or sign that it may."
        findings.append(Finding("C12", Verdict.JUDGE, text, DeviceKey(branch.id), clause, remedy))
    if not evidence and not findings:
        evidence.append("no small source feeds several circuits")
    return ClauseResult(
        "C12", Group.CONTROL, "A fault in one control circuit", clause, tuple(evidence), tuple(findings)
    )


def _pairs(view: View) -> Iterable[tuple[Device, Device]]:
    """What guards a control supply with each device that hangs behind it on the same net."""
    sources = (IMPLIED[Recipe.CONTROL_SUPPLY], IMPLIED[Recipe.DC_SUPPLY])
    guards = [device for device in view.circuits.devices if device.kind.is_protective]
    for upstream in guards:
        if upstream.circuit not in sources and not upstream.kind.can(Can.GUARDS_CONTROL):
            continue
        out = view.nets.of_pin.get(upstream.pin(upstream.kind.units[0].pins[-1]))
        for branch in guards:
            entry = view.nets.of_pin.get(branch.pin(branch.kind.units[0].pins[0]))
            if out and entry and out.id == entry.id and branch.id != upstream.id:
                yield upstream, branch


SELECTIVITY = (control_selective,)
