"""Clauses about what protects wires and neutrals, and what cuts them off."""

from riktig.core.catalogue import Can
from riktig.core.job import circuit_of
from riktig.core.keys import DeviceKey, WireKey
from riktig.core.plate import apart
from riktig.core.rules.guarded_neutrals import returned_currents, shared_neutrals
from riktig.core.rules.guarded_wires import TAP_MM, GuardedWires
from riktig.core.rules.model import ClauseResult, Finding, Group, QuickFix, Verdict
from riktig.core.rules.view import View
from riktig.core.schematic import source_reach
from riktig.core.sizing import Laid
from riktig.core.sizing.sections import section_of
from riktig.core.standards import conductor_name

__all__ = ["PROTECTED_WIRES", "neutrals_cut_off_together"]


def conductors_protected(view: View) -> ClauseResult:
    """Every wire carries what stands ahead of it lets through, or what stands behind it can take."""
    american = view.rulebook.north_american
    clause = view.source("W05")
    laid = view.laid
    findings: list[Finding] = []
    looked_at = 0
    carries_of = {mm2: _carries(mm2, laid) for mm2 in {wire.mm2 for wire in view.wiring.wires}}
    guarded = view.once(GuardedWires)
    for wire, limit in guarded.limits(view.wiring):
        looked_at += 1
        if american and view.sizing.feeder.enough and wire.mm2 >= view.sizing.feeder.mm2:
            continue  # a feeder of motors is sized by its load and protected by 430.62
        carries = carries_of[wire.mm2]
        verdict = limit.verdict(carries, wire.length)
        if verdict is Verdict.MEETS:
            continue
        what = f"Wire {wire.name}, {conductor_name(wire.mm2)}"
        text = f"{what}, carries {carries:.1f} A; {limit.ahead:g} A stand ahead of it"
        remedy = "Take a thicker wire, or protect it by a smaller device."
        if verdict is Verdict.JUDGE and limit.behind:
            text += f", and breakers of {limit.behind:g} A behind it."
            remedy = "Sign what they feed at once, or take a thicker wire."
        elif verdict is Verdict.JUDGE:
            text += ", and what it leads to has no figure."
            remedy = "Give it a fuse of its own, or sign that its current and its short circuit are looked after."
        elif limit.all_guards and wire.length > TAP_MM and carries * 1.0001 >= limit.behind:
            text += f". As a tap it may be {TAP_MM / 1000:g} m long, and it is {wire.length / 1000:.1f} m."
            remedy = "Bring its breaker nearer, take a thicker wire, or protect it by a smaller device."
        else:
            text += "."
        findings.append(Finding("W05", verdict, text, WireKey(wire.key), clause, remedy))
    neutrals = 0
    for wire, amps in returned_currents(view, guarded):
        neutrals += 1
        carries = carries_of[wire.mm2]
        if amps > carries * 1.0001:
            text = f"Neutral {wire.name}, {conductor_name(wire.mm2)}, carries {carries:.1f} A"
            text += f"; {amps:.1f} A can return by it."
            remedy = "Take a thicker neutral, or give each way its own."
            findings.append(Finding("W05", Verdict.FAILS, text, WireKey(wire.key), clause, remedy))
    bars, of_bars = _busbars(view, clause)
    combs, of_combs = _combs(view, clause)
    findings += bars + combs
    unsaid, wires = _unsaid(view, clause)
    findings += unsaid
    aside = len(view.wiring.wires) - looked_at - neutrals - wires
    evidence = (
        f"{looked_at} live wires against what protects them",
        f"{neutrals} neutrals against all that returns by them on one line",
        f"{aside} not looked at: earths and returns of control",
        *of_bars,
        *of_combs,
    )
    return ClauseResult("W05", Group.WIRING, "Wires of the supply protected", clause, evidence, tuple(findings))


def neutrals_cut_off_together(view: View) -> ClauseResult:
    """What shares a neutral is cut off by one device: else it stays live by the breaker that is left on."""
    clause = view.source("E14")
    findings: list[Finding] = []
    owners = {size.circuit: size.load for size in view.sizing.loads}
    for terminal, guards in shared_neutrals(view, view.once(GuardedWires)):
        shown = " and ".join(view.tag(guard) for guard in guards)
        text = f"{view.pin_label(terminal.pin('f'))} is the neutral of loads behind {shown}, which open one by one."
        load = owners.get(terminal.circuit)
        shares = any(other.neutral_of == load for other in view.loads)
        fix = QuickFix("A neutral each", "own neutrals", load) if load and shares else None
        remedy = "Give each its own neutral, or put them behind one breaker whose poles open together."
        findings.append(Finding("E14", Verdict.FAILS, text, DeviceKey(terminal.id), clause, remedy, fix))
    for left, right in apart(view.layout, view.circuits):
        together = next((tied for tied in view.circuits.tied if {left, right} <= set(tied)), None)
        if together:
            shown = f"{view.tag(left)} and {view.tag(right)}"
            text = f"{shown} share a neutral and stand apart: no handle tie reaches both."
            head = owners.get(circuit_of(together[0]))
            fix = QuickFix("A neutral each", "own neutrals", head) if head else None
            remedy = "Put them side by side, or give each its own neutral."
            findings.append(Finding("E14", Verdict.FAILS, text, DeviceKey(right), clause, remedy, fix))
    terminals = sum(device.kind.can(Can.NEUTRAL_TERMINAL) for device in view.circuits.devices)
    evidence = [f"{terminals} neutral terminals, each with what returns by it"]
    evidence += [f"one handle opens {' and '.join(view.tag(device) for device in tied)}" for tied in view.circuits.tied]
    return ClauseResult("E14", Group.PROTECTION, "Shared neutrals", clause, tuple(evidence), tuple(findings))


def _carries(mm2: float, laid: Laid) -> float:
    """What a wire carries, A: one of a size that the table does not have, like the next smaller one; 0 below all."""
    known = max((size for size in laid.sizes if size <= mm2 + 1e-9), default=0.0)
    return section_of(known, 0.0, "", laid).carries_a if known else 0.0


def _busbars(view: View, clause: str) -> tuple[list[Finding], list[str]]:
    """Busbars that no size is enough for, and what each of the others carries."""
    findings: list[Finding] = []
    evidence: list[str] = []
    for stand in view.layout.stands:
        bars = stand.block.bars
        if bars and bars.bar:
            carries = f"{bars.bar_name} under {view.tag(stand.block.lead)} carries {bars.bar.carries_a:g} A"
            evidence.append(f"{carries} with 35 °C round it; {bars.amps:g} A can flow")
        elif bars:
            name = f"The busbars under {view.tag(stand.block.lead)}"
            text = f"{name} must carry {bars.amps:g} A; no size of the table does."
            remedy = "Part them into two systems, each with a feed of its own, or sign what carries the current."
            findings.append(Finding("W05", Verdict.JUDGE, text, DeviceKey(stand.block.lead), clause, remedy))
    return findings, evidence


def _combs(view: View, clause: str) -> tuple[list[Finding], list[str]]:
    """Combs of which it is not known that they carry what flows in them, and what each of the others carries."""
    findings: list[Finding] = []
    evidence: list[str] = []
    for stand in view.layout.stands:
        comb, lead = stand.block.comb, stand.block.lead
        if comb and comb.section:
            carries = f"the {comb.name} at {view.tag(lead)} carries {comb.section.carries_a:g} A fed at one end"
            evidence.append(f"{carries}, a common rating to be compared with its maker's; {comb.amps:g} A can flow")
        elif comb:
            text = f"The comb at {view.tag(lead)} must carry {comb.amps:g} A; no rating of it is known that does."
            remedy = "Sign with the rating that its maker marks on it, or part it into two with a feed each."
            findings.append(Finding("W05", Verdict.JUDGE, text, DeviceKey(lead), clause, remedy))
    return findings, evidence


def _unsaid(view: View, clause: str) -> tuple[list[Finding], int]:
    """Supplies from elsewhere of which nobody has said what protects them, and how many wires are theirs."""
    reach = source_reach(view.circuits, view.nets)
    findings: list[Finding] = []
    wires = 0
    for device in view.circuits.devices:
        if not device.kind.can(Can.FOREIGN_SUPPLY) or device.protected_a:
            continue
        nets = next((on for pin, on in reach.nets.items() if pin.device == device.id), frozenset())
        net_wires = [wire for wire in view.wiring.wires if wire.net in nets]
        wires += len(net_wires)
        if net_wires:
            count = f"{len(net_wires)} {'wire' if len(net_wires) == 1 else 'wires'}"
            text = f"{view.tag(device.id)} ({device.purpose}) feeds {count}; what protects it is not said."
            remedy = "Say in the Brief what protects this supply where it comes from, or sign that its wires suffice."
            findings.append(Finding("W05", Verdict.JUDGE, text, DeviceKey(device.id), clause, remedy))
    return findings, wires


PROTECTED_WIRES = (conductors_protected, neutrals_cut_off_together)
