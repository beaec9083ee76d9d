"""Plates that warn and tell: who may open the door, what stays live, which supply, what to do in an emergency."""

from collections.abc import Iterator
from itertools import takewhile
from math import sqrt

from riktig.core.catalogue import Can, class_of
from riktig.core.job import PhaseNames, Supply, SupplySystem, TerminalTemperature
from riktig.core.keys import DeviceKey, PartKey
from riktig.core.labels.inputs import LabelInputs
from riktig.core.labels.model import Label, Medium
from riktig.core.schematic import PinLabels, Zone
from riktig.core.wiring import colour_legend
from riktig.core.wiring.colours import colour_table

__all__ = ["notice_labels", "plate_labels"]

SKILLED = "Only skilled persons open this door: switch off, lock and prove dead before work."
"""Who may open the panel (IEC 60204-1 16.2 asks for the sign; the words are common practice, no source)."""


def plate_labels(inputs: LabelInputs) -> Iterator[Label]:
    """On the door who may open it; inside what stays live with the main switch off; a plate for each other supply."""
    circuits, names, supply = inputs.circuits, inputs.names, inputs.supply
    yield Label(Medium.WARNING, (f"{supply.voltage_name} INSIDE", SKILLED), 1, "door, outside", PartKey("skilled"))
    main = next((names.tag[d.id] for d in circuits.devices if d.kind.can(Can.MAIN_SWITCH)), "the main switch")
    for tag in (strip.tag for strip in inputs.strips.strips if strip.purpose == "incoming supply"):
        where = f"at {tag}, at the upper clamps of {main}{_also(inputs)}"
        text = f"{supply.voltage_name} ({_of_source(inputs)}) stay live {where} when {main} is off."
        yield Label(Medium.WARNING, (supply.name.upper(), text), 1, f"over {tag}", PartKey("warning"))
        if note := _of_system(supply, inputs.practice.phase_names):
            yield Label(Medium.WARNING, (supply.name.upper(), note), 1, f"at {tag}", PartKey("warning"))
    yield from _of_charge(inputs)
    if inputs.practice.rulebook.north_american:
        yield from _north_american(inputs)
    yield from _elsewhere(inputs, main)


CHARGE_MINUTES = 5
"""How long a drive keeps its charge (typical part data, no source: its own plate decides)."""


def _of_charge(inputs: LabelInputs) -> Iterator[Label]:
    """A plate on every drive: it keeps its charge after the switch is off (IEC 60204-1 6.2.4, from memory)."""
    for device in inputs.circuits.devices:
        if device.kind.can(Can.VARIES_SPEED):
            tag = inputs.names.tag[device.id]
            words = f"{tag} keeps its charge: wait {CHARGE_MINUTES} minutes after switching off, or as its plate says."
            yield Label(Medium.WARNING, ("STORED CHARGE", words), 1, f"on {tag}", DeviceKey(device.id))


def _north_american(inputs: LabelInputs) -> Iterator[Label]:
    """Plates that the North American rulebook asks for: arc flash, conductors of the field, links of fuses.

    Source:
        NEC 110.16, UL 508A 54 and 55, from memory: fairly sure of what they ask for, the words are our own.
    """
    words = "Danger of arc flash and shock: protective clothing and tools by local practice."
    yield Label(Medium.WARNING, ("ARC FLASH", words), 1, "door, outside", PartKey("arc flash"))
    degrees = "60 °C up to 100 A, 75 °C above" if inputs.practice.terminal_c is TerminalTemperature.C60 else "75 °C"
    words = f"Use copper conductors only, {degrees}. Torques are on the list of terminals."
    yield Label(Medium.WARNING, ("FIELD WIRING", words), 1, "inside the door", PartKey("field wiring"))
    if any(device.kind.can(Can.LIMITS_CURRENT) for device in inputs.circuits.devices):
        words = "Replace fuses by the same class and rating only."
        yield Label(Medium.WARNING, ("FUSES", words), 1, "inside the door", PartKey("fuses"))


def _of_source(inputs: LabelInputs) -> str:
    """What protects the incoming supply, what it can give, and which of how many it is: “80 A, 6 kA, supply 1 of 2”."""
    count = 1 + len(inputs.sources)
    words = f"{inputs.supply.upstream_a:g} A, {inputs.short_circuit.prospective_ka:.3g} kA"
    return f"{words}, supply 1 of {count}" if count > 1 else words


def _of_system(supply: Supply, names: PhaseNames) -> str:
    """What is unlike a star: a line with more voltage to ground (NEC 408.3(F), from memory), or an earthed one."""
    if supply.system is SupplySystem.HIGH_LEG:
        return f"{names.of('L2')} has {supply.voltage_v * sqrt(3) / 2:.0f} V to ground."
    if supply.system is SupplySystem.CORNER:
        first, earthed, third = names.names
        return f"{earthed} is earthed: {first} and {third} have {supply.voltage_v:g} V to earth."
    return ""


def _also(inputs: LabelInputs) -> str:
    """What else the incoming supply keeps live: the switches ahead of the main one, and all wires of one colour."""
    ahead = [d for d in inputs.circuits.devices if d.kind.can(Can.TAP_SWITCH)]
    inside = {d.id for d in inputs.circuits.devices if d.zone is not Zone.FIELD and not d.kind.can(Can.MAIN_SWITCH)}
    foreign = {d.id for d in inputs.circuits.devices if d.kind.can(Can.FOREIGN_SUPPLY)}
    owners = {pin.device for live_net in inputs.live if live_net.source not in foreign for pin in live_net.pins}
    incoming = {
        row.device for strip in inputs.strips.strips if strip.purpose == "incoming supply" for row in strip.rows
    }
    if not owners & (inside - incoming):
        return ""
    switches = ", ".join(inputs.names.tag[d.id] for d in ahead)
    colour = colour_table(inputs.practice)["stays live"]
    return f"{f', at {switches}' if switches else ''} and in all {colour} wires"


def _elsewhere(inputs: LabelInputs, main: str) -> Iterator[Label]:
    """A plate for every supply that enters from elsewhere: what it gives, where from, and where it lands."""
    label, names = PinLabels(inputs.circuits, inputs.names), inputs.names
    by_name = {source.name: source for source in inputs.sources}
    for device in inputs.circuits.devices:
        from_device = [live_net for live_net in inputs.live if live_net.source == device.id]
        if not from_device or not device.kind.can(Can.FOREIGN_SUPPLY):
            continue
        source = next((source for name, source in by_name.items() if name in device.purpose), None)
        volts = f"{device.volts:g} V {'DC' if device.direct else 'AC'}" if device.volts else "A voltage the Brief lacks"
        comes = f" from {source.comes_from}" if source and source.comes_from else " from another panel"
        clamps = {
            device_id for live_net in from_device for pin in live_net.pins if (device_id := pin.device) != device.id
        }
        strips = [d for d in inputs.circuits.devices if d.id in clamps and d.strip]
        at = ", ".join(label(d.pin("f")) for d in strips) or ", ".join(names.tag[d] for d in sorted(clamps))
        text = f"{volts}{comes} at {at}. {main} does not switch it off."
        where = f"where {names.tag[device.id]} enters"
        title = source.name if source else device.purpose.rpartition(", ")[2]
        yield Label(Medium.WARNING, (title.upper(), text), 1, where, DeviceKey(device.id))


def notice_labels(inputs: LabelInputs) -> Iterator[Label]:
    """What is read at the panel: what to do in an emergency, and what colours and letters mean in it."""
    emergency = tuple(_in_an_emergency(inputs))
    yield Label(Medium.NOTICE, ("IN AN EMERGENCY", *emergency), 1, "door, outside", PartKey("emergency"))
    uses = colour_legend(inputs.wiring.wires, inputs.nets)
    colours = [f"{use.colour}: {use.said}" for use in uses]
    inside = tuple(
        text for text in (*colours, _letters(inputs), "A colour is no proof: measure before you touch.") if text
    )
    yield Label(Medium.NOTICE, ("COLOURS AND LETTERS", *inside), 1, "door, inside", PartKey("colours"))


def _in_an_emergency(inputs: LabelInputs) -> Iterator[str]:
    tags = inputs.names.tag
    heads = [tags[device.id] for device in inputs.circuits.devices if device.kind.can(Can.MUSHROOM)]
    if heads:
        yield f"Strike an emergency stop: {', '.join(heads)}."
    mains = [tags[device.id] for device in inputs.circuits.devices if device.kind.can(Can.MAIN_SWITCH)]
    if mains:
        yield f"Switch off {', '.join(mains)} at the door{' and lock it' if heads else ''}."
    owners = {live_net.source for live_net in inputs.live}
    others = [
        tags[device.id]
        for device in inputs.circuits.devices
        if device.id in owners and device.kind.can(Can.FOREIGN_SUPPLY)
    ]
    if others:
        yield f"Still live from elsewhere: {', '.join(others)}. Read the warning plates."
    yield "Switch on again only when the cause is known."


def _letters(inputs: LabelInputs) -> str:
    """The letters of the tags in this panel with what they stand for: “F fuse or breaker, K contactor”."""
    of: dict[str, dict[str, None]] = {}
    for device in inputs.circuits.devices:
        letters = "".join(takewhile(str.isalpha, inputs.names.tag[device.id]))
        if letters and device.zone is not Zone.FIELD:
            of.setdefault(letters, {})[class_of(device.kind_id)] = None
    return "; ".join(f"{letters} {', '.join(of[letters])}" for letters in sorted(of))
