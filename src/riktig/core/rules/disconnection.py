"""Whether every load is cut off in time when its cable or its body takes voltage."""

from riktig.core.keys import DeviceKey
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.rules.view import View
from riktig.core.short_circuit import EarthFault, earth_faults

__all__ = ["DISCONNECTION"]

TITLE = "Cut off in an earth fault"


def cut_off_in_time(view: View) -> ClauseResult:
    """An earth fault at the end of each cable trips the breaker ahead of it at once, by supply and cable."""
    clause = view.source("E21")
    if view.rulebook.north_american:
        none = (
            "the North American rulebook asks for an effective path of the fault current, see E08 and E09, and no time"
        )
        return ClauseResult("E21", Group.PROTECTION, TITLE, clause, (), (), none)
    faults = earth_faults(view.power_paths, view.sizing, view.loads, view.supply, view.short_circuit.prospective_ka)
    names = {load.id: load.name for load in view.loads}
    evidence: list[str] = []
    findings: list[Finding] = []
    for fault in faults:
        guard, name = view.tag(fault.guard), names[fault.load]
        if fault.residual:
            evidence.append(f"{name}: {guard} opens by its residual current")
        elif fault.needs is not None and fault.least >= fault.needs:
            evidence.append(f"{name}: {fault.least:.0f} A at least, {guard} trips at {fault.needs:.0f} A")
        else:
            findings.append(_finding(fault, guard, name, clause))
    left = [load.name for load in view.loads if load.id not in {fault.load for fault in faults}]
    if faults and left:
        evidence.append(f"not looked at, without a cable or a breaker of their own: {', '.join(left)}")
    none = "" if faults else "no load with a cable hangs behind a breaker"
    return ClauseResult("E21", Group.PROTECTION, TITLE, clause, tuple(evidence), tuple(findings), none)


def _finding(fault: EarthFault, guard: str, name: str, clause: str) -> Finding:
    where = DeviceKey(fault.guard)
    if fault.needs is None:
        words = f"{name}: {fault.least:.0f} A flow in an earth fault; when {guard} opens then is not known."
        if fault.behind_drive:
            words = f"{name} hangs behind a drive: what cuts off an earth fault behind it, its maker says."
        remedy = "Compare with the data of its maker, measure the loop on site, and sign."
        return Finding("E21", Verdict.JUDGE, words, where, clause, remedy)
    if fault.most < fault.needs:
        words = f"{name}: {fault.most:.0f} A flow in an earth fault at most; {guard} trips at {fault.needs:.0f} A."
        remedy = "Take a thicker cable, a breaker that trips earlier, or a residual-current breaker."
        return Finding("E21", Verdict.FAILS, words, where, clause, remedy)
    words = (
        f"{name}: {fault.least:.0f} to {fault.most:.0f} A flow in an earth fault, as the supply is; {guard} needs "
        f"{fault.needs:.0f} A to trip at once."
    )
    return Finding("E21", Verdict.JUDGE, words, where, clause, "Measure the loop on site with its supply, and sign.")


DISCONNECTION = (cut_off_in_time,)
