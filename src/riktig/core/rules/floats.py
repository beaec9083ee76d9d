"""Whether floats hang in the order that their circuit needs."""

from itertools import pairwise

from riktig.core.job import Load
from riktig.core.keys import CircuitKey, LoadKey
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.rules.view import View
from riktig.core.simulation import Tank, tanks_of

__all__ = ["FLOATS"]


def floats_in_order(view: View) -> ClauseResult:
    """Each tank with two floats or more, by the heights that the Brief gives."""
    clause = view.source("C21")
    loads = {circuit.id: load for circuit in view.own_circuits for load in view.loads if circuit.load == load.id}
    titles = dict(view.circuits.titles)
    findings: list[Finding] = []
    evidence: list[str] = []
    tanks = [tank for tank in tanks_of(view.circuits) if len(tank.floats) > 1]
    for tank in tanks:
        load = loads.get(tank.circuit)
        name, where = titles.get(tank.circuit, "A tank"), LoadKey(load.id) if load else CircuitKey(tank.circuit)
        order = ", then ".join(tank.order)
        heights = _stated_heights(tank, load)
        if len(heights) < len(tank.floats):
            text = f"{name}: where its floats hang is not said. From the bottom up: {order}."
            remedy = "Give the heights in the Brief, with the load; or hang them so on site, try them, and sign."
            findings.append(Finding("C21", Verdict.JUDGE, text, where, clause, remedy))
            continue
        words = ", ".join(f"{role} {height:g} m" for role, height in heights.items())
        hung = [heights[role] for role in tank.order]
        if any(low >= high for low, high in pairwise(hung)):
            text = f"{name}: the floats hang at {words}; from the bottom up it must be {order}."
            remedy = "Change the heights in the Brief."
            findings.append(Finding("C21", Verdict.FAILS, text, where, clause, remedy))
        else:
            evidence.append(f"{name}: {words}")
    lines = tuple(evidence) or (f"{len(tanks)} tanks with floats",)
    return ClauseResult("C21", Group.CONTROL, "Order of floats", clause, lines, tuple(findings))


def _stated_heights(tank: Tank, load: Load | None) -> dict[str, float]:
    """The heights that the Brief gives, m, by the roles of the floats."""
    roles = [role for role, _, _ in tank.floats]
    return {role: height for role in roles if load and (height := load.float_heights.get(role, 0.0))}


FLOATS = (floats_in_order,)
