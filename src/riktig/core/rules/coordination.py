"""What becomes of a starter behind its guard when there is a short: it may need repair, or stays fit for use."""

from riktig.core.catalogue import Can, Combination
from riktig.core.job import Coordination
from riktig.core.keys import DeviceKey
from riktig.core.rules.model import ClauseResult, Finding, Group, QuickFix, Verdict
from riktig.core.rules.view import View
from riktig.core.short_circuit import PowerPart

__all__ = ["COORDINATION"]


def starters_coordinated(view: View) -> ClauseResult:
    """Every contactor and overload was tested behind its guard, to the type that the job asks for."""
    clause = view.source("E35")
    title = "Coordination of starters"
    if view.rulebook.north_american:
        none = "the North American rulebook tests combinations for their rating, see E07, and names no types"
        return ClauseResult("E35", Group.PROTECTION, title, clause, (), (), none)
    wants_two = view.practice.coordination is Coordination.TYPE_2
    findings: list[Finding] = []
    evidence: list[str] = []
    for part in view.power_paths.parts:
        kind = part.device.kind
        if not part.ahead or not (kind.can(Can.SWITCHES_LOAD) or kind.can(Can.OVERLOAD)):
            continue
        guard = view.power_paths.part(part.ahead[-1])
        name = f"{view.tag(part.id)} behind {view.tag(guard.id)} ({guard.figures.guard}, {guard.part.rated_a:g} A)"
        tested = _tested(part, guard, view.short_circuit.prospective_ka)
        where = DeviceKey(part.id)
        if tested is None:
            text = f"{name}: no test of this combination at {view.short_circuit.prospective_ka:.3g} kA is known."
            remedy = "Ask the makers for the type of coordination, and sign."
            findings.append(Finding("E35", Verdict.JUDGE, text, where, clause, remedy))
        elif wants_two and not tested.type_2:
            text = f"{name} is coordinated to type 1; the job asks for type 2."
            remedy = "Take a guard of which type 2 is known, such as fuses or a motor protector, or ask for type 1."
            fix = QuickFix("Ask for type 1", "type 1")
            findings.append(Finding("E35", Verdict.FAILS, text, where, clause, remedy, fix))
        else:
            evidence.append(f"{name}: type {2 if tested.type_2 else 1}, {tested.ka:g} kA")
    if evidence:
        evidence.append("types of generic parts are invented but lifelike: compare with the makers'")
    none = "" if evidence or findings else "no contactor stands behind a guard"
    return ClauseResult("E35", Group.PROTECTION, title, clause, tuple(evidence), tuple(findings), none)


def _tested(part: PowerPart, guard: PowerPart, at_ka: float) -> Combination | None:
    """The best test of a part behind its guard that reaches the prospective current; type 2 before type 1."""
    known = [
        tested
        for tested in part.figures.tested
        if tested.guard == guard.figures.guard and guard.part.rated_a <= tested.up_to_a and tested.ka >= at_ka
    ]
    return max(known, key=lambda tested: (tested.type_2, tested.ka), default=None)


COORDINATION = (starters_coordinated,)
