"""Conductors that share a duct: insulated for the highest voltage there, and signals apart from drive outputs."""

from collections import defaultdict
from collections.abc import Iterable
from itertools import product

from riktig.core.ids import PinRef
from riktig.core.job import ControlSupply, EndStyle
from riktig.core.keys import DuctKey, WireKey
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.rules.view import View
from riktig.core.schematic import NetClass, control_source
from riktig.core.sizing import DC_VOLTS
from riktig.core.standards import conductor_type, insulation_volts
from riktig.core.wiring import Wire, analogue_nets, beside_mm, pulse_nets, spans_of

__all__ = ["SHARED_DUCTS", "net_volts"]


def ducts_shared(view: View) -> ClauseResult:
    """Whatever lies together in a duct is insulated for the highest voltage in it; signals are kept off drives.

    The voltage of a duct is that of the wires that lie in it: between the lines of the supply as soon as one of them is
    there, else that of the control supply.
    """
    clause = view.source("W08")
    in_duct: dict[str, list[Wire]] = defaultdict(list)
    for wire in view.wiring.wires:
        for duct in dict.fromkeys(wire.ducts):
            in_duct[duct].append(wire)
    findings: list[Finding] = []
    evidence: list[str] = []
    volts_of = net_volts(view)
    for name in sorted(in_duct):
        wires = in_duct[name]
        highest = max(volts_of.get(wire.net, view.supply.voltage_v) for wire in wires)
        findings += _weak(view, name, wires, highest, clause)
        evidence.append(f"{name}: {len(wires)} wires, up to {highest:g} V")
    beside, looked_at = _signals_beside_pulses(view, clause)
    findings += beside
    evidence += looked_at
    return ClauseResult("W08", Group.WIRING, "Conductors that share a duct", clause, tuple(evidence), tuple(findings))


def net_volts(view: View) -> dict[PinRef, float]:
    """The voltage of the supply that each potential belongs to, V; potentials of lines stand at that between lines."""
    supply = view.supply
    lines = max([supply.voltage_v, *(source.voltage_v for source in view.sources)])
    source, _why = control_source(view.loads, supply, view.practice)
    control = {
        ControlSupply.DC: DC_VOLTS,
        ControlSupply.DIRECT: supply.voltage_to_neutral_v if supply.neutral else supply.voltage_v,
    }.get(source, view.practice.transformer_v)
    volts: dict[PinRef, float] = {}
    for net in view.nets.nets:
        of_class = {NetClass.CONTROL: control, NetClass.DC: DC_VOLTS, NetClass.EARTH: 0.0}
        volts[net.id] = of_class.get(net.net_class, lines)
    return volts


def _signals_beside_pulses(view: View, clause: str) -> tuple[list[Finding], list[str]]:
    """In each duct the signal and the output of a drive that lie beside each other longest, and what was looked at."""
    signal_nets, pulsed = analogue_nets(view.circuits, view.nets), pulse_nets(view.circuits, view.nets)
    signals = [wire for wire in view.wiring.wires if wire.net in signal_nets]
    pulses = [wire for wire in view.wiring.wires if wire.net in pulsed]
    if not signals or not pulses:
        return [], []
    ducts = view.layout.ducts
    lies = {wire.key: spans_of(wire.ducts, wire.route, ducts) for wire in (*signals, *pulses)}
    longest: dict[str, tuple[float, Wire, Wire]] = {}
    for signal, pulse in product(signals, pulses):
        for duct, length in beside_mm(lies[signal.key], lies[pulse.key]).items():
            if duct not in longest or length > longest[duct][0]:
                longest[duct] = (length, signal, pulse)
    findings = [_pair_finding(duct, *longest[duct], clause) for duct in sorted(longest)]
    words = f"{len(signals)} wires of signals and {len(pulses)} behind drives"
    return findings, [f"{words} lie beside each other in no duct" if not findings else f"{words} were compared"]


def _weak(view: View, duct: str, wires: Iterable[Wire], highest: float, clause: str) -> list[Finding]:
    """One finding a type of conductor that is insulated for less than the highest voltage of a duct, or for unknown."""
    flexible = view.practice.ends is EndStyle.FERRULES
    first: dict[str, tuple[Wire, float | None]] = {}
    for wire in wires:
        rated = insulation_volts(wire.mm2, flexible=flexible)
        if rated is None or rated < highest:
            first.setdefault(conductor_type(wire.mm2, flexible=flexible), (wire, rated))
    findings: list[Finding] = []
    for name, (wire, rated) in first.items():
        if rated is None:
            text = f"{name} has no rated voltage of its own: wire {wire.name} shares {duct} with up to {highest:g} V."
            remedy = "Read its rated voltage off the drum: at least that of the duct. Then sign, or wire flexible."
            findings.append(Finding("W08", Verdict.JUDGE, text, WireKey(wire.key), clause, remedy))
        else:
            text = f"Wire {wire.name} is insulated for {rated:g} V ({name}) and shares {duct} with {highest:g} V."
            remedy = "Take a conductor of at least 1.5 mm² there, of 750 V, or lead it in a duct of its own."
            findings.append(Finding("W08", Verdict.FAILS, text, WireKey(wire.key), clause, remedy))
    return findings


def _pair_finding(duct: str, length: float, signal: Wire, pulse: Wire, clause: str) -> Finding:
    text = (
        f"In {duct} the signal {signal.name} lies {length:.0f} mm beside {pulse.name}, which carries the pulses of a "
        "drive: the value can be disturbed."
    )
    remedy = "Give them different ducts and let them cross at right angles, screen the signal, or sign for it."
    return Finding("W08", Verdict.JUDGE, text, DuctKey(duct), clause, remedy)


SHARED_DUCTS = (ducts_shared,)
