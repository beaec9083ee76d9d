"""Plug-in jumpers of terminals: what they pass over, and whether one jumper fits the terminals it joins."""

from collections.abc import Mapping

from riktig.core.catalogue import Can
from riktig.core.ids import PinRef
from riktig.core.keys import DeviceKey
from riktig.core.rules.joined_potentials import parts_of
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.rules.shared_ducts import net_volts
from riktig.core.rules.view import View
from riktig.core.schematic import NetClass
from riktig.core.terminals import Jumper, Strip, TerminalRow, jumpers_on

__all__ = ["JUMPERS"]


def jumpers_pass(view: View) -> ClauseResult:
    """No jumper passes over a terminal of another circuit that must be apart, and each fits its terminals' pitch.

    Source:
        Circuits of different voltage apart: IEC 60204-1 13.1.3, from memory; taking contacts out of a jumper to
        pass others of its own kind, and one pitch a jumper: common practice, no source.
    """
    clause = view.source("W10")
    findings: list[Finding] = []
    evidence: list[str] = []
    kinds = _kinds(view)
    for strip in view.strips.strips:
        for jumper in jumpers_on(strip):
            name = f"{strip.tag}:{jumper.joins[0].mark} to {jumper.joins[-1].mark}, number {jumper.joins[0].number}"
            evidence.append(f"{name}: {jumper.kind}")
            for verdict, row, text in _faults(view, jumper, kinds):
                message = f"The jumper {name} {text.format(f'{strip.tag}:{row.mark}')}."
                findings.append(Finding("W10", verdict, message, DeviceKey(row.device), clause, SIDE_BY_SIDE))
        findings += _crowded(strip, clause)
    findings += [_off_jumper(view, pin, clause) for pin in view.wiring.off_jumpers]
    findings += _earthed_over_jumpers(view, clause)
    lines = tuple(evidence) or ("no jumpers",)
    return ClauseResult("W10", Group.WIRING, "Jumpers of terminals", clause, lines, tuple(findings))


def _off_jumper(view: View, pin: PinRef, clause: str) -> Finding:
    """A terminal that a jumper of the builder's names and that stands elsewhere by now."""
    known = pin.device in view.circuits.by_id
    name = view.pin_label(pin) if known else str(pin.device)
    where = "stands in another strip or on another potential" if known else "is not in the panel any more"
    text = f"A jumper of your own names {name}, which {where}: the jumper lies without it."
    return Finding("W10", Verdict.JUDGE, text, DeviceKey(pin.device) if known else None, clause, CHOOSE_ANEW)


def _earthed_over_jumpers(view: View, clause: str) -> list[Finding]:
    """Earthing links that reach what they earth over a jumper alone: pulled out, the circuit is earthed no more.

    Source:
        What earths a control circuit is a wire to its supply: common practice, no source.
    """
    devices, jumped = view.circuits.by_id, {pin for pins in view.wiring.jumpers for pin in pins}
    links = [device for device in view.circuits.devices if any(unit.symbol == "link" for unit in device.kind.units)]
    if not jumped or not links:
        return []
    findings: list[Finding] = []
    for parts in parts_of(view, with_jumpers=False).values():
        net = view.nets.of_pin[parts[0][0]]
        if net.net_class is NetClass.EARTH or not jumped & set(net.pins):
            continue
        for part in parts:
            link = next((pin for pin in part if devices[pin.device] in links), None)
            if link is None or any(devices[pin.device].kind.can(can) for pin in part for can in SOURCES):
                continue
            text = f"{view.pin_label(link)} earths its circuit only over a jumper of terminals that can be pulled out."
            findings.append(Finding("W10", Verdict.JUDGE, text, DeviceKey(link.device), clause, WIRE_THE_LINK))
    return findings


def _faults(view: View, jumper: Jumper, kinds: Mapping[PinRef, str]) -> list[tuple[Verdict, TerminalRow, str]]:
    """What is wrong with a jumper: the terminal that it is wrong at, and the words with a place for its name."""
    faults: list[tuple[Verdict, TerminalRow, str]] = []
    first_kind = kinds.get(PinRef(jumper.joins[0].device, "i"))
    for row in jumper.passes:
        other = kinds.get(PinRef(row.device, "i"), first_kind)
        if other == EARTH:
            faults.append((Verdict.JUDGE, row, "passes over {}, a terminal of the protective conductor"))
        elif other != first_kind:
            faults.append((Verdict.FAILS, row, f"passes over {{}}, which carries {other}"))
    pitch = view.sizing.parts[jumper.joins[0].device].width
    for row in (*jumper.joins[1:], *jumper.passes):
        width = view.sizing.parts[row.device].width
        if abs(width - pitch) > SAME_PITCH:
            faults.append((Verdict.JUDGE, row, f"is for a pitch of {pitch:g} mm, and {{}} is {width:g} mm wide"))
    return faults


def _kinds(view: View) -> dict[PinRef, str]:
    """What every clamp carries, as far as it must be kept apart from others.

    A neutral goes with the control that returns to it, and with nothing else that is told by its voltage.
    """
    volts = net_volts(view)
    to_neutral = f"{view.supply.voltage_to_neutral_v:g} V"
    named = {
        NetClass.POWER: "mains",
        NetClass.NEUTRAL: to_neutral,
        NetClass.EXCEPTED: STAYS_LIVE,
        NetClass.EARTH: EARTH,
    }
    return {pin: named.get(net.net_class, f"{volts[net.id]:g} V") for pin, net in view.nets.of_pin.items()}


def _crowded(strip: Strip, clause: str) -> list[Finding]:
    """Terminals under more jumpers than a terminal has channels for."""
    over: dict[TerminalRow, int] = {}
    for jumper in jumpers_on(strip):
        for row in (*jumper.joins, *jumper.passes):
            over[row] = over.get(row, 0) + 1
    return [
        Finding(
            "W10",
            Verdict.JUDGE,
            f"{count} jumpers lie over {strip.tag}:{row.mark}; terminals mostly have {CHANNELS} channels for them.",
            DeviceKey(row.device),
            clause,
            SIDE_BY_SIDE,
        )
        for row, count in over.items()
        if count > CHANNELS
    ]


WIRE_THE_LINK = "Set the order of that potential in Wires: the link right behind its transformer or supply."
SIDE_BY_SIDE = "Put the terminals of one number side by side (Order … in Terminals)."
CHOOSE_ANEW = "Choose the jumpers of that potential anew in Terminals (Order …, Jumper), or take the usual ones."
SOURCES = (Can.TRANSFORMS, Can.MAKES_DC, Can.FOREIGN_SUPPLY)
EARTH, STAYS_LIVE = "earth", "what stays live with the main switch off"
CHANNELS = 2
"""Jumpers that a terminal takes beside each other (common practice, no source)."""
SAME_PITCH = 0.05
"""Terminals whose widths differ by less have one pitch, mm."""
JUMPERS = (jumpers_pass,)
