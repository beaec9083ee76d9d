"""Whether the colour of every wire says what it carries, and no other wire says the same."""

from collections import defaultdict

from riktig.core.catalogue import Can
from riktig.core.job import EARTHED_LINE as EARTHED
from riktig.core.job import Colours, SupplySystem, circuit_of
from riktig.core.keys import DeviceKey, PartKey, WireKey
from riktig.core.rules.model import ClauseResult, Finding, Group, QuickFix, Verdict
from riktig.core.rules.view import View
from riktig.core.schematic import Net, NetClass
from riktig.core.wiring import Wire

__all__ = ["COLOURS"]

EARTH_COLOURS = ("green-yellow", "green")
"""Kept for protective conductors (IEC 60204-1 13.2.2; NFPA 79 13.2.2; from memory). Plain green: North America."""
NEUTRALS = ("light blue", "white", "grey")
"""Kept for the neutral where it is told by its colour: light blue by IEC 60204-1 13.2.3, white and grey by NFPA 79
13.2.2; from memory."""


def wire_colours(view: View) -> ClauseResult:
    """Every wire as it is coloured, against what it carries: earth, neutral and what stays live look like nothing else.

    Source:
        IEC 60204-1 13.2.2 to 13.2.4, NFPA 79 13.2.2 to 13.2.4, from memory; a colour for two meanings: common practice.
    """
    clause = view.source("W03")
    american = view.rulebook.north_american
    nets = {net.id: net for net in view.nets.nets}
    corner = view.supply.system is SupplySystem.CORNER
    worn: dict[tuple[str, str], list[Wire]] = defaultdict(list)
    for wire in view.wiring.wires:
        worn[_meaning(nets[wire.net], wire, corner), wire.colour].append(wire)
    findings = _scheme(view, clause)
    neutral = {colour for meaning, colour in worn if meaning == NEUTRAL}
    stays = {colour for meaning, colour in worn if meaning == STAYS_LIVE}
    for (meaning, colour), wires in sorted(worn.items()):
        text = f"{len(wires)} {'wire' if len(wires) == 1 else 'wires'} for {meaning}: {colour}"
        fault = ""
        if (meaning == EARTH) != (colour in EARTH_COLOURS):
            fault = "green-yellow is the protective conductor's, and its alone"
        elif meaning in LIVE and colour in (NEUTRALS[1:] if american else NEUTRALS[:1]):
            fault = "that is the colour of a neutral"
        elif meaning in LIVE and colour in neutral:
            fault = "that is the colour of this panel's neutral"
        elif meaning not in (STAYS_LIVE, RETURN_STAYS_LIVE) and colour in stays:
            fault = "that is the colour of what stays live with the main switch off"
        if fault:
            remedy = "Change the colours in the Brief, under Practice, or follow the rulebook."
            fix = QuickFix("Follow the rulebook", "colours")
            where = WireKey(wires[0].key)
            findings.append(Finding("W03", Verdict.FAILS, f"{text}; {fault}.", where, clause, remedy, fix))
    evidence = tuple(f"{meaning}: {colour}, {len(wires)}" for (meaning, colour), wires in sorted(worn.items()))
    return ClauseResult("W03", Group.WIRING, "Conductor colours", clause, evidence, tuple(findings))


EARTH, NEUTRAL, STAYS_LIVE, RETURN_STAYS_LIVE = "earth", "neutral", "what stays live", "the return of what stays live"
POWER, CONTROL, DIRECT, EARTHED_LINE = "power", "control", "direct current", "an earthed line"
AHEAD = "the supply ahead of the main switch"
LIVE = (STAYS_LIVE, POWER, CONTROL, DIRECT)


def _meaning(net: Net, wire: Wire, corner: bool) -> str:
    """What a wire carries, as far as its colour says it; with a grounded ``corner`` one line is earthed."""
    ahead = any(node.startswith("in.") for node in net.nodes)
    tapped = circuit_of(wire.start.pin.device) != circuit_of(wire.end.pin.device)
    match net.net_class:
        case NetClass.EARTH:
            return EARTH
        case NetClass.NEUTRAL:
            return NEUTRAL if not net.stays_live else RETURN_STAYS_LIVE
        case NetClass.EXCEPTED:
            return RETURN_STAYS_LIVE if net.earthed else STAYS_LIVE
        case NetClass.POWER:
            if corner and net.line == EARTHED and not (ahead and tapped):
                return EARTHED_LINE
            return _ahead(tapped=tapped) if ahead else POWER
        case NetClass.CONTROL:
            return "the return of control" if net.earthed else CONTROL
        case NetClass.DC:
            return "the return of direct current" if net.earthed else DIRECT


def _ahead(*, tapped: bool) -> str:
    """Ahead of the main switch: on to it, or to what it does not cut off."""
    return STAYS_LIVE if tapped else AHEAD


def _scheme(view: View, clause: str) -> list[Finding]:
    if view.practice.colours is Colours.RULEBOOK:
        return []
    text = (
        f"Conductors are coloured so: {view.practice.colours.value}. The rulebook recommends black for "
        "power; another agreed scheme is allowed."
    )
    remedy = "Agree it with the customer, and sign; or follow the rulebook."
    fix = QuickFix("Follow the rulebook", "colours")
    return [Finding("W03", Verdict.JUDGE, text, PartKey("practice"), clause, remedy, fix)]


def terminal_colours(view: View) -> ClauseResult:
    """Every terminal by the colour of its body: green is the earth's alone, blue a neutral's.

    Source:
        IEC 60204-1 13.2.2 (green-yellow for the protective conductor and nothing else), IEC 60947-7-2; from memory.
        That a neutral's is blue: common practice.
    """
    clause = view.source("W09")
    findings: list[Finding] = []
    counts: dict[str, int] = defaultdict(int)
    for strip in view.strips.strips:
        for row in strip.rows:
            kind, name = view.circuits.device(row.device).kind, f"{strip.tag}:{row.mark}"
            what = "earth" if kind.can(Can.EARTH_TERMINAL) else "neutral" if kind.can(Can.NEUTRAL_TERMINAL) else "other"
            counts[f"{what}: {row.colour or 'no colour known'}"] += 1
            text, verdict = "", Verdict.JUDGE
            if what != "earth" and row.colour in EARTH_COLOURS:
                text, verdict = f"{name} is {row.colour}, and no protective conductor lands on it.", Verdict.FAILS
            elif what == "earth" and row.colour and row.colour not in EARTH_COLOURS:
                text = f"{name} is for the protective conductor and {row.colour}: it is not seen for what it is."
            elif what == "other" and row.colour in BLUES:
                text = f"{name} is {row.colour}, the colour of a neutral's terminal, and it is none."
            elif what == "neutral" and row.colour and row.colour not in BLUES:
                text = f"{name} is a neutral's terminal and {row.colour}."
            if text:
                remedy = "Choose a part of another colour for it, in Plate under Parts."
                findings.append(Finding("W09", verdict, text, DeviceKey(row.device), clause, remedy))
    evidence = tuple(f"{what}, {count}" for what, count in sorted(counts.items())) or ("no terminals",)
    return ClauseResult("W09", Group.WIRING, "Terminal colours", clause, evidence, tuple(findings))


BLUES = ("light blue", "blue")
COLOURS = (wire_colours, terminal_colours)
