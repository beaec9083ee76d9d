"""Every potential is joined in the panel: wires, jumpers, combs and plugged parts reach all of its clamps."""

from collections.abc import Iterable
from itertools import pairwise

from riktig.core.catalogue import Behaviour, Clamp, Kind
from riktig.core.ids import PinRef
from riktig.core.keys import PinKey
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.rules.view import View
from riktig.core.schematic import Net, NetClass, Zone
from riktig.core.wiring import JUMPER

__all__ = ["JOINED_POTENTIALS", "parts_of"]


def parts_of(view: View, *, with_jumpers: bool = True) -> dict[PinRef, list[list[PinRef]]]:
    """The clamps of every net in the panel, in groups that something joins; one group where all of them are joined.

    What has no place on plate or door is left out: that is said of it already.

    Args:
        view: What the rules look at.
        with_jumpers: Whether plug-in jumpers of terminals join too; without them: what they alone hold together.
    """
    from scipy.sparse import coo_array  # late: only who judges the panel pays for it
    from scipy.sparse.csgraph import connected_components

    missing = set(view.wiring.unrouted)
    pins = [(net, pin) for net in view.nets.nets for pin in net.pins if _is_inside(view, pin) and pin not in missing]
    place = {pin: number for number, (_, pin) in enumerate(pins)}
    pairs = [(wire.start.pin, wire.end.pin) for wire in view.wiring.wires]
    pairs += [pair for group in _joints(view, pins, with_jumpers).values() for pair in pairwise(group)]
    edges = [(place[a], place[b]) for a, b in pairs if a in place and b in place]
    rows, columns = zip(*edges, strict=True) if edges else ((), ())
    graph = coo_array(([1] * len(edges), (rows, columns)), shape=(len(pins), len(pins)))
    labels = connected_components(graph, directed=False)[1].tolist() if pins else []
    of_net: dict[PinRef, dict[int, list[PinRef]]] = {}
    for (net, pin), label in zip(pins, labels, strict=True):
        of_net.setdefault(net.id, {}).setdefault(label, []).append(pin)
    return {net: sorted(groups.values(), key=len, reverse=True) for net, groups in of_net.items()}


def _is_inside(view: View, pin: PinRef) -> bool:
    device = view.circuits.by_id[pin.device]
    return device.zone is not Zone.FIELD and device.kind.pin(pin.marking).clamp is not Clamp.FIELD


def _joints(view: View, pins: Iterable[tuple[Net, PinRef]], with_jumpers: bool) -> dict[object, list[PinRef]]:
    """What joins pins of a net without a wire: combs and jumpers, plugs, and the joints of one device."""
    joints: dict[object, list[PinRef]] = {}
    joined, devices = view.wiring.joined, view.circuits.by_id
    inside: dict[int, dict[str, list[str]]] = {}
    for net, pin in pins:
        kind = devices[pin.device].kind
        if pin in joined and (with_jumpers or not joined[pin].startswith(JUMPER)):
            joints.setdefault((net.id, joined[pin]), []).append(pin)
        if kind.pin(pin.marking).clamp is Clamp.PLUG:
            joints.setdefault((net.id, "plugged"), []).append(pin)
        units = inside.get(id(kind))  # hundreds of devices are of one kind, and most have no joint at all
        if units is None:
            units = inside[id(kind)] = _joint_units(kind)
        for unit in units.get(pin.marking, ()):
            joints.setdefault((net.id, pin.device, unit), []).append(pin)
    return joints


def _joint_units(kind: Kind) -> dict[str, list[str]]:
    """By marking of a pin, the joints of its device that it belongs to."""
    units: dict[str, list[str]] = {}
    for unit in kind.units:
        if unit.behaviour is Behaviour.JOINT:
            for marking in unit.pins:
                units.setdefault(marking, []).append(unit.name)
    return units


def potentials_joined(view: View) -> ClauseResult:
    """No clamp of a potential stays apart; what would have to land where a part is plugged is said by name."""
    clause = view.source("W07")
    findings: list[Finding] = []
    count, parts = 0, parts_of(view)
    for net in view.nets.nets:
        if net.net_class is NetClass.EARTH:  # its points are judged one by one: E09, E13
            continue
        count += 1
        first, *others = parts.get(net.id) or [[]]
        for apart in others:
            findings.append(_finding(view, first, apart, clause))
    for pin in view.wiring.strays:
        known = view.circuits.by_id.get(pin.device)
        name = view.pin_label(pin) if known else str(pin)
        findings.append(
            Finding(
                "W07",
                Verdict.JUDGE,
                f"An order of wires of your own names {name}, which is not on its potential any more: it is left out.",
                PinKey(pin) if known else None,
                clause,
                "Set the order of that potential anew in Wires, or take it back.",
            )
        )
    evidence = (f"{count} potentials, {len(view.wiring.wires)} wires",)
    return ClauseResult("W07", Group.WIRING, "Potentials joined", clause, evidence, tuple(findings))


def _finding(view: View, first: list[PinRef], apart: list[PinRef], clause: str) -> Finding:
    kinds = view.circuits.by_id
    plugged = [pin for pin in (*first, *apart) if kinds[pin.device].kind.pin(pin.marking).clamp is Clamp.PLUG]
    if plugged:
        landing = next((pin for pin in (*apart, *first) if pin not in plugged), apart[0])
        names = " and ".join(view.pin_label(pin) for pin in plugged[:2])
        text = f"{view.pin_label(landing)} is to be joined to {names}, which are plugged together and take no wire."
        remedy = "Land it at the other side of one of the two parts, or at a terminal of that potential."
    else:
        landing = apart[0]
        text = f"{view.pin_label(landing)} is on one potential with {view.pin_label(first[0])}, and nothing joins them."
        remedy = "Give the potential a bar or block with more ways, or place the part where a wire reaches it."
    return Finding("W07", Verdict.FAILS, text, PinKey(landing), clause, remedy)


JOINED_POTENTIALS = (potentials_joined,)
