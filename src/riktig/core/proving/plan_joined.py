"""Tests of what must be joined: protective bonds, every wire end to end, jumpers, links and plugged joints."""

from collections.abc import Iterator, Mapping
from dataclasses import replace
from math import inf

from riktig.core.catalogue import Can, Clamp
from riktig.core.ids import DeviceId, PinRef, WireId, device_id
from riktig.core.job import INCOMER_ID
from riktig.core.proving.dead_panel import Piece, PieceKind
from riktig.core.proving.dead_readings import bounds
from riktig.core.proving.open_first import what_to_open
from riktig.core.proving.planner import CLOSED_BELOW_OHM, Planner, earths_a_circuit, wire_sign
from riktig.core.proving.switch_state import SwitchState
from riktig.core.proving.tests import Expected, ProvingStage, Test
from riktig.core.schematic import INCOMING_EARTH
from riktig.core.wiring import WiringStage

__all__ = ["bond_tests", "joint_tests", "wire_tests"]

BOND_LIMIT_OHM = 0.1
"""Between the incoming protective conductor and every part of metal (IEC 61439-1 10.5.2, from memory, sure; NFPA 79
18.2, from memory, fairly sure)."""
BOND_CONTACT_OHM = 0.02
"""Contact of the probes of a low-ohm meter, ohm (chosen by us)."""
_IEC_CURRENT = "with at least 0.2 A, 10 A where IEC 61439-1 is declared (IEC 60204-1 18.2.2, IEC 61439-1 10.5.2)"
"""Both currents from memory."""
_NA_CURRENT = "with a low-ohm meter (NFPA 79 18.2)"


def bond_tests(planner: Planner) -> list[Test]:
    """From the incoming protective conductor to every point that must be bonded: terminals, parts, doors, plates.

    Method:
        Every device inside the panel with a pin on the protective conductor is touched once, at that pin or, of doors
        and plates, at the bare metal. The limit is the rulebook's, or what the conductors read where that is more.
    """
    facts = planner.facts
    root = PinRef(device_id(INCOMER_ID, INCOMING_EARTH), "i")
    net = facts.nets.of_pin.get(root)
    if net is None or root not in planner.panel.node:
        return []
    points: dict[DeviceId, PinRef] = {}
    for pin in net.pins:
        device = planner.panel.devices.get(pin.device)
        if device is None or device.id == root.device:
            continue
        if not device.kind.can(Can.EARTH_BAR) and not earths_a_circuit(device):
            points.setdefault(device.id, pin)
    pairs = [(root, pin) for pin in points.values()]
    _, high = bounds(planner.panel, planner.off, pairs)
    current = _NA_CURRENT if facts.north_american else _IEC_CURRENT
    tests: list[Test] = []
    for pin, most in zip(points.values(), high.tolist(), strict=True):
        point = planner.point(pin)
        limit_ohm = most if most < inf else 0.0
        limit = max(BOND_LIMIT_OHM, float(f"{limit_ohm * 1.03 + BOND_CONTACT_OHM:.2g}"))
        metal = planner.panel.devices[pin.device].kind.can(Can.EARTH_STUD)
        why = f"{limit_ohm * 1000:.0f} mΩ of conductors at most; {current}."
        title = f"Bond of {point.label}" + (", at the bare metal" if metal else "")
        card = planner.card(
            ProvingStage.BONDS, f"bond:{pin}", title, (root, pin), planner.off, Expected(0.0, limit, why)
        )
        tests.append(replace(card, true_of=_on_the_way(planner, root, pin)))
    return tests


def _on_the_way(planner: Planner, root: PinRef, pin: PinRef) -> str:
    """The conductors from the incoming protective conductor to a point: what its bond is true of."""
    wires = planner.facts.wiring.by_key
    pieces = (planner.panel.pieces[number] for number in planner.way(planner.off, root, pin))
    return " ".join(wire_sign(wires[WireId(piece.what)]) for piece in pieces if piece.kind is PieceKind.WIRE)


BY_FUNCTION = (WiringStage.CONTROL, WiringStage.DC, WiringStage.DOOR)
"""Wires that the function test proves where the practice has it so."""


def wire_tests(planner: Planner, *, control: bool = True) -> list[Test]:
    """Every wire, end to end, in the order it went in; what would hide a missing one is opened first.

    Args:
        planner: Of the panel.
        control: Whether control wires are read, or proved by their function alone.
    """
    panel = planner.panel
    number = {piece.what: n for n, piece in enumerate(panel.pieces) if piece.kind is PieceKind.WIRE}
    tests: list[Test] = []
    for wire in planner.facts.wiring.wires:
        piece = number.get(str(wire.key))
        if piece is None or (not control and wire.stage in BY_FUNCTION):
            continue
        ohms = panel.pieces[piece].ohms
        limit = max(CLOSED_BELOW_OHM, round(ohms.high + 0.3, 1))
        expected = Expected(0.0, limit, f"{ohms.usual * 1000:.1f} mΩ of wire, the leads taken off.")
        points = (wire.start.pin, wire.end.pin)
        for turn, (state, first) in enumerate(what_to_open(planner, piece)):
            key = f"wire:{wire.key}" + (f"/{turn + 1}" if turn else "")
            title = f"Wire {wire.number}" + (", once more" if turn else "")
            card = planner.card(ProvingStage.WIRES, key, title, points, state, expected)
            tests.append(replace(card, true_of=wire_sign(wire), wire=str(wire.key), first=first))
    return tests


def joint_tests(planner: Planner) -> Iterator[Test]:
    """Every plug-in jumper, link module, comb and busbar, from its first clamp to each of the others; every plug."""
    wiring, off = planner.facts.wiring, planner.off
    joined = [("jumper", first, pin) for first, *others in wiring.jumpers for pin in others]
    joined += [("link", first, pin) for first, *others in wiring.links for pin in others]
    for what, first, pin in joined:
        if first in planner.panel.node and pin in planner.panel.node:
            title = f"{what.capitalize()} {planner.point(first).label} to {planner.point(pin).label}"
            expected = Expected(0.0, CLOSED_BELOW_OHM, f"A {what}, the leads taken off.")
            card = planner.card(ProvingStage.WIRES, f"{what}:{first}~{pin}", title, (first, pin), off, expected)
            yield replace(card, true_of=f"{first} {pin}")
    yield from _plugs(planner)


def _plugs(planner: Planner) -> Iterator[Test]:
    """Of plugged joints, which no probe reaches: through pole, plug and heater, the armature held in."""
    by_state: dict[SwitchState, list[Piece]] = {}
    for piece in planner.panel.pieces:
        if piece.kind is PieceKind.PLUG:
            coils = {pin.device for pin in (piece.a, piece.b) if planner.panel.devices[pin.device].kind.has_coil}
            by_state.setdefault(replace(planner.off, moved=frozenset(coils)), []).append(piece)
    contacts = {
        pin: piece
        for piece in reversed(planner.panel.pieces)
        if piece.kind is PieceKind.CONTACT
        for pin in (piece.a, piece.b)
    }
    for state, plugs in by_state.items():
        points = [(_beyond(planner, contacts, plug.a), _beyond(planner, contacts, plug.b)) for plug in plugs]
        for plug, pair, between in zip(plugs, points, planner.between(state, points), strict=True):
            expected = replace(between, low=0.0, why="Pole, plug and heater in a row, the leads taken off.")
            title = f"Plug {planner.point(plug.a).label} to {planner.point(plug.b).label}"
            card = planner.card(ProvingStage.WIRES, f"plug:{plug.a}~{plug.b}", title, pair, state, expected)
            yield replace(card, true_of=f"{plug.a} {plug.b}")


def _beyond(planner: Planner, contacts: Mapping[PinRef, Piece], pin: PinRef) -> PinRef:
    """The nearest pin that a probe reaches: itself, or the other end of the pole or heater that begins in a plug."""
    piece = contacts.get(pin)
    if piece is None or planner.panel.devices[pin.device].kind.pin(pin.marking).clamp is not Clamp.PLUG:
        return pin
    return piece.b if piece.a == pin else piece.a
