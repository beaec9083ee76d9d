"""Tests of what must not be joined: every pair of potentials that could be a dead short, and insulation by section."""

from collections.abc import Iterator
from dataclasses import replace
from itertools import combinations
from math import inf

from riktig.core.catalogue import Behaviour, Can
from riktig.core.ids import PinRef, device_id
from riktig.core.job import INCOMER_ID
from riktig.core.proving.dead_panel import PieceKind
from riktig.core.proving.planner import Planner, earths_a_circuit
from riktig.core.proving.switch_state import SwitchState
from riktig.core.proving.tests import Expected, ProvingStage, Test
from riktig.core.schematic import INCOMING_EARTH
from riktig.core.simulation import MAINS, SupplyPole

__all__ = ["insulation_tests", "short_tests"]

SHARP_OHM = 1.0
"""Where less than this may lie between two points, a short is not told from what lies there (chosen by us)."""
LOW_V = 60.0
"""Circuits up to this, V, are tested with 250 V (IEC 60364-6 table 6.1, from memory, sure)."""
LOW_VOLTAGE_INSULATION = Expected(0.5e6, inf, "At 250 V DC; IEC 60364-6 table 6.1, extra-low voltage, from memory.")
INSULATION = Expected(1e6, inf, "At 500 V DC; IEC 60204-1 18.3, from memory.")
INSULATION_NA = Expected(1e6, inf, "At 500 V DC; NFPA 79 18.3, from memory.")
INSULATION_CAUTION = (
    "The tester puts 500 V on the panel: nobody touches it; discharge what is charged before the leads come off."
)
_NOT_AT_500_V = (
    Can.SURGE, Can.VARIES_SPEED, Can.STARTS_SOFTLY, Can.ELECTRONIC_STARTER, Can.WATCHES_PHASES, Can.MAKES_DC,
    Can.CONTROLLER, Can.TIMED, Can.TWO_CHANNELS, Can.RESIDUAL,
)  # fmt: skip


def short_tests(planner: Planner) -> list[Test]:
    """No continuity between the potentials of every supply, between supplies, and at the terminals of every load.

    Method:
        Breakers on and nothing pressed, so that as much as can be hangs on each point. Where what lies between reads so
        little that a short would not show, everything is switched off and the point is moved behind the breaker.
    """
    pairs: dict[frozenset[PinRef], tuple[PinRef, PinRef]] = {}
    for a, b in _pairs(planner):
        if not _same_net(planner, a, b):
            pairs.setdefault(frozenset((a, b)), (a, b))
    expected = planner.between(planner.on, list(pairs.values()))
    return [_apart(planner, a, b, expects) for (a, b), expects in zip(pairs.values(), expected, strict=True)]


def _same_net(planner: Planner, a: PinRef, b: PinRef) -> bool:
    of_pin = planner.facts.nets.of_pin
    return of_pin[a].id == of_pin[b].id


def _apart(planner: Planner, a: PinRef, b: PinRef, expected: Expected) -> Test:
    state = planner.on
    joined = planner.group(state, a) == planner.group(state, b)
    if not joined and expected.low < SHARP_OHM:
        a, b, state, expected = _sharper(planner, a, b, expected)
    title = f"{planner.point(a).label} against {planner.point(b).label}"
    card = planner.card(ProvingStage.SHORTS, f"short:{a}~{b}", title, (a, b), state, expected)
    return replace(card, true_of=planner.wires_in(state, (a, b)))


def _sharper(planner: Planner, a: PinRef, b: PinRef, as_is: Expected) -> tuple[PinRef, PinRef, SwitchState, Expected]:
    """Other points or switches with which a short shows; as it was where there are none, which the card then says."""
    off = planner.off
    choices = [
        (a, b),
        *((behind, b) for behind in _behind(planner, a)),
        *((a, behind) for behind in _behind(planner, b)),
    ]
    for (first, last), expected in zip(choices, planner.between(off, choices), strict=True):
        if expected.low >= SHARP_OHM:
            return first, last, off, expected
    why = f"{as_is.why} A short is not told from it: take one wire off to be sure."
    return a, b, planner.on, replace(as_is, why=why)


def _behind(planner: Planner, pin: PinRef) -> list[PinRef]:
    """The far side of every breaker and fuse that a potential goes through."""
    panel, off = planner.panel, planner.off
    group = planner.group(off, pin)
    poles = [p for p in panel.pieces if p.kind is PieceKind.CONTACT and p.unit and p.unit.behaviour is Behaviour.POLE]
    sides = [(p.a, p.b) for p in poles] + [(p.b, p.a) for p in poles]
    return [far for near, far in sides if planner.group(off, near) == group != planner.group(off, far)]


def _pairs(planner: Planner) -> Iterator[tuple[PinRef, PinRef]]:
    """All pairs of potentials to look at, each at a pin that can be touched."""
    by_system: dict[str, list[PinRef]] = {}
    for pole in planner.facts.network.poles:
        at = _touched(planner, pole)
        if at and at not in by_system.setdefault(pole.system, []):
            by_system[pole.system].append(at)
    root = PinRef(device_id(INCOMER_ID, INCOMING_EARTH), "i")
    for pins in by_system.values():
        yield from combinations(pins, 2)
        if root in planner.panel.node:
            yield from ((pin, root) for pin in pins if pin != root)
    for one_system, other_system in combinations(by_system.values(), 2):
        yield one_system[0], other_system[0]
    for strip in dict.fromkeys(d.strip for d in planner.panel.devices.values() if d.strip):
        lettered = [d for d in planner.panel.devices.values() if d.strip == strip and not d.mark.isdigit()]
        yield from combinations([d.pin("i") for d in lettered], 2)


def _touched(planner: Planner, pole: SupplyPole) -> PinRef | None:
    """A pin inside the panel on a pole's potential, at a terminal where there is one; None where it stays outside."""
    if pole.pin is None or ":" in pole.system:  # a loop that a device feeds itself, inside it
        return None
    if pole.pin.device in planner.panel.devices and pole.system != MAINS:
        return pole.pin
    return planner.facts.inside(pole.pin)


def insulation_tests(planner: Planner) -> Iterator[Test]:
    """By section against the protective conductor: the power circuit, and each circuit with a supply of its own."""
    root = PinRef(device_id(INCOMER_ID, INCOMING_EARTH), "i")
    if root not in planner.panel.node:
        return
    names, circuits = planner.facts.names.tag, planner.facts.circuits
    off_first = [names[d.id] for d in planner.panel.devices.values() if any(d.kind.can(can) for can in _NOT_AT_500_V)]
    links = [names[d.id] for d in planner.panel.devices.values() if earths_a_circuit(d)]
    whole = INSULATION_NA if planner.facts.north_american else INSULATION
    systems: dict[str, list[SupplyPole]] = {}
    for pole in planner.facts.network.poles:
        if pole.name != "PE" and ":" not in pole.system:
            systems.setdefault(pole.system, []).append(pole)
    for system, poles in systems.items():
        at = [pin for pin in (_touched(planner, pole) for pole in poles) if pin]
        at = [pin for pin in dict.fromkeys(at) if not _same_net(planner, pin, root)]
        if not at:
            continue
        low = max(abs(pole.ac) + abs(pole.dc) for pole in poles) <= LOW_V
        device = next((d for d in circuits.devices if str(d.id) == system), None)
        name = "the power circuit" if system == MAINS else f"the circuit of {names[device.id] if device else system}"
        labels = [planner.point(pin).label for pin in at]
        first = [f"Bridge {', '.join(labels)}." if len(labels) > 1 else ""]
        if system == MAINS:
            first.append(
                "Push in the armature of each contactor in turn, or bridge the terminals of the loads to them."
            )
        if off_first:
            first.append(f"Disconnect {', '.join(off_first)}.")
        if links:
            first.append(f"Open {', '.join(links)}.")
        expected = LOW_VOLTAGE_INSULATION if low else whole
        key, title = f"insulation:{system}", f"Insulation of {name}"
        card = planner.card(ProvingStage.INSULATION, key, title, (root, at[0]), planner.on, expected)
        words = " ".join(part for part in first if part)
        yield replace(card, true_of=planner.wires_in(planner.on, at), first=words, caution=INSULATION_CAUTION)
