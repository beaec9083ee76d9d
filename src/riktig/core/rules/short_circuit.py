"""What the panel may be connected to, against what the supply can give; and what guards let through to wires."""

from collections.abc import Iterator, Sequence

from riktig.core.keys import DeviceKey, PartKey, WireKey
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.rules.view import View
from riktig.core.short_circuit import Limit, WireEnergy

__all__ = ["SHORT_CIRCUIT_CLAUSES"]

ASK = "Ask its maker for the energy let through, compare, and sign."
MOST_NAMED = 6
"""Parts of which a finding is made one by one; what is left is told by its number (chosen by us)."""


def short_circuit_rating(view: View) -> ClauseResult:
    """The panel bears what the supply can give: by its weakest part, whatever the main breaker breaks."""
    clause = view.source("E07")
    short_circuit = view.short_circuit
    rating, at_panel = short_circuit.rating, short_circuit.prospective_ka
    evidence = [f"the supply can give {at_panel:.3g} kA"]
    if rating.ka is not None:
        tags = list(dict.fromkeys(view.tag(limit.device) for limit in rating.weakest))
        names = ", ".join(tags[:MOST_NAMED]) + (f" and {len(tags) - MOST_NAMED} more" if len(tags) > MOST_NAMED else "")
        evidence.append(f"{rating.name} {rating.ka:.3g} kA at {rating.volts:g} V, set by {names}")
    looked_at = f"{len(rating.limits)} parts of power circuits looked at"
    evidence += [
        looked_at,
        "figures of generic parts are invented but lifelike: compare with the makers'",
        *rating.notes,
    ]
    findings = [
        *_too_weak(view, clause, [limit for limit in rating.limits if limit.ka is not None and limit.ka < at_panel]),
        *_not_known(view, clause, rating.unknown),
    ]
    if not rating.limits:
        words = "No power circuit is drawn, so that nothing can be said of what the panel bears."
        findings.append(Finding("E07", Verdict.JUDGE, words, PartKey("supply"), clause, "Draw the circuits first."))
    return ClauseResult("E07", Group.PROTECTION, "Short-circuit rating", clause, tuple(evidence), tuple(findings))


def _too_weak(view: View, clause: str, limits: Sequence[Limit]) -> Iterator[Finding]:
    at_panel, ways = view.short_circuit.prospective_ka, view.short_circuit.ways
    wanted = next((way for way in ways if way.reaches is not None and way.reaches >= at_panel), None)
    remedy = (
        f"{wanted.words[:1].upper()}{wanted.words[1:]}: then {wanted.reaches:g} kA."
        if wanted
        else "Take a part that bears it, or a guard ahead of it that lets less through; or agree a weaker supply."
    )
    for limit in _by_part(view, limits):
        words = f"{limit.why} The supply can give {at_panel:.3g} kA."
        yield Finding("E07", Verdict.FAILS, words, DeviceKey(limit.device), clause, remedy)


def _not_known(view: View, clause: str, limits: Sequence[Limit]) -> Iterator[Finding]:
    for limit in _by_part(view, limits):
        remedy = "Ask for the figure and enter it with a part of your own, or compare by hand and sign."
        yield Finding("E07", Verdict.JUDGE, limit.why, DeviceKey(limit.device), clause, remedy)


def _by_part(view: View, limits: Sequence[Limit]) -> list[Limit]:
    """One a tag: of the terminals of a strip the first stands for all."""
    return list({view.tag(limit.device): limit for limit in reversed(limits)}.values())[::-1][:MOST_NAMED]


def wires_bear_it(view: View) -> ClauseResult:
    """What a guard lets through heats no wire behind it beyond what its insulation stands."""
    clause = view.source("E20")
    title = "Energy let through to wires"
    if view.rulebook.north_american:
        return ClauseResult("E20", Group.PROTECTION, title, clause, ())
    at_panel = view.short_circuit.prospective_ka
    energies = view.wire_energies
    evidence = [f"{len(energies)} wires behind a breaker or fuse, at {at_panel:.3g} kA, k = 115 (PVC on copper)"]
    tightest = min((e for e in energies if e.lets_through), key=lambda e: e.bears / (e.lets_through or 1), default=None)
    if tightest and tightest.lets_through:
        evidence.append(
            f"tightest: {tightest.mm2:g} mm² behind {view.tag(tightest.guard)}, bears {tightest.bears:,.0f} A²s, "
            f"{tightest.lets_through:,.0f} A²s let through"
        )
    findings = [
        *_hot(view, clause, [e for e in energies if e.up_to_ka is not None and e.up_to_ka < at_panel], Verdict.FAILS),
        *_hot(view, clause, [e for e in energies if e.up_to_ka is None], Verdict.JUDGE),
    ]
    none = "" if energies else "no wire lies behind a breaker or fuse of a power circuit"
    return ClauseResult("E20", Group.PROTECTION, title, clause, tuple(evidence), tuple(findings), none)


def _hot(view: View, clause: str, energies: Sequence[WireEnergy], verdict: Verdict) -> Iterator[Finding]:
    """One a guard and section: its first wire stands for all."""
    first = {(energy.guard, energy.mm2): energy for energy in reversed(energies)}
    for energy in list(first.values())[::-1][:MOST_NAMED]:
        guard, at_panel = view.tag(energy.guard), view.short_circuit.prospective_ka
        bears = f"{energy.mm2:g} mm² bears {energy.bears:,.0f} A²s."
        words, remedy = f"What {guard} lets through at {at_panel:.3g} kA is not known; {bears}", ASK
        if verdict is Verdict.FAILS:
            words = f"{guard} lets {energy.lets_through or 0:,.0f} A²s through; {bears}"
            remedy = "Take a thicker wire, or a guard that lets less through."
        yield Finding("E20", verdict, words, WireKey(energy.wire), clause, remedy)


SHORT_CIRCUIT_CLAUSES = (short_circuit_rating, wires_bear_it)
