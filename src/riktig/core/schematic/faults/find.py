"""What is wrong with the circuits as they are drawn: facts, with the place and the remedy, for the rulebook."""

from collections import Counter, defaultdict

from riktig.core.catalogue import Behaviour, Can
from riktig.core.job import DeviceId, PinRef
from riktig.core.keys import DeviceKey, ElementKey, NetKey, PartKey
from riktig.core.schematic.faults.paths import interlocks_bypassed, monitor_downstream, phases_exchanged, wrong_pairs
from riktig.core.schematic.layout.power_sheets import is_bus
from riktig.core.schematic.model.elements import Band, Circuits, Device, Element, elements_of
from riktig.core.schematic.netlist.nets import NetClass, Nets
from riktig.core.schematic.netlist.unit_graph import CONTACTS, PASS, TAKES, CircuitFault, UnitGraph

__all__ = ["CircuitFault", "find_faults"]


MAIN_CONTACTS = {"contactor", "soft", "drive"}
"""Signs of the contacts that lead a starter's main current."""


def find_faults(circuits: Circuits, nets: Nets) -> tuple[CircuitFault, ...]:
    """Everything that is wrong with the circuits, kind by kind, in the order of the rungs."""
    graph = UnitGraph(circuits, nets)
    circuit_faults: list[CircuitFault] = []
    for look in (
        _contacts_beyond_the_device,
        _contacts_without_coil,
        _coils_without_contact,
        _shorts,
        _sources_joined,
        _no_return,
        _lamps_without_meaning,
        interlocks_bypassed,
        phases_exchanged,
        monitor_downstream,
        wrong_pairs,
        _bare_paths,
        _loops,
        _unfed,
    ):
        circuit_faults += look(graph)
    return tuple(circuit_faults)


def _contacts_beyond_the_device(graph: UnitGraph) -> list[CircuitFault]:
    return [
        CircuitFault(
            "more contacts than the device has",
            f"{{{device}}} {unit} is drawn {count} times, but the device has it once.",
            DeviceKey(device),
            "Use a spare contact, or one of an auxiliary block.",
        )
        for (device, unit), count in graph.used.items()
        if count > 1 and unit != "i-f"
    ]


def _contacts_without_coil(graph: UnitGraph) -> list[CircuitFault]:
    return [
        CircuitFault(
            "contact without coil",
            f"The coil of {{{device.id}}} is in no circuit, so its contacts never move.",
            DeviceKey(device.id),
            "Put the coil into a path, or take the contacts out.",
        )
        for device in graph.circuits.devices
        if device.kind.has_coil and device.id in graph.drawn and not graph.used[(device.id, "A1-A2")]
    ]


def _coils_without_contact(graph: UnitGraph) -> list[CircuitFault]:
    faults = []
    for device in graph.circuits.devices:
        if not device.kind.has_coil or not graph.used[(device.id, "A1-A2")]:
            continue
        moved = [u.name for u in device.kind.units if u.behaviour in CONTACTS and graph.used[(device.id, u.name)]]
        if not moved:
            faults.append(
                CircuitFault(
                    "coil without contact",
                    f"{{{device.id}}} pulls in, but none of its contacts is in a circuit.",
                    DeviceKey(device.id),
                    "Put one of its contacts to use, or take the coil out.",
                )
            )
    return faults


def _shorts(graph: UnitGraph) -> list[CircuitFault]:
    """Poles of sources that contacts alone would join: through however many rungs, with no load between.

    Method:
        Each pole spreads over what its breakers feed, then over all contacts but the main ones of starters in power
        paths, which the scripts of the circuits and their interlocks answer for;
        where the spread of a second pole meets it, the element that makes the joint is reported.
    """
    joined = _joined_by_contacts(graph)
    owner: dict[PinRef, str] = {}
    todo: list[PinRef] = []
    faults: dict[frozenset[str], CircuitFault] = {}

    def meet(net: PinRef, pole: str, element: Element | None) -> None:
        if net not in owner:
            owner[net] = pole
            todo.append(net)
        elif owner[net] != pole and frozenset((owner[net], pole)) not in faults:
            faults[frozenset((owner[net], pole))] = _short(owner[net], pole, net, element)

    for net, name in _poles(graph):
        meet(net, name, None)
    for net in todo:
        for other, through in joined[net]:
            meet(other, owner[net], through)
    return list(faults.values())


def _joined_by_contacts(graph: UnitGraph) -> dict[PinRef, list[tuple[PinRef, Element]]]:
    """By net, those that a breaker or a contact joins it to, with the element that does."""
    joined: dict[PinRef, list[tuple[PinRef, Element]]] = defaultdict(list)
    for rung in graph.circuits.rungs:
        control = rung.band in (Band.CONTROL, Band.TAP)
        for element in elements_of(rung.path):
            for pole in element.poles:
                device = graph.devices[pole.device]
                unit = device.kind.unit(pole.unit)
                if unit.symbol == "link":
                    continue  # it earths one side of a supply, which the other supplies' earths do not meet
                aside = unit.behaviour in CONTACTS and unit.symbol not in MAIN_CONTACTS
                if unit.behaviour is Behaviour.POLE or aside or (control and unit.behaviour in PASS):
                    a, b = graph.net(device, unit.pins[0]), graph.net(device, unit.pins[-1])
                    if a and b:
                        joined[a].append((b, element))
                        joined[b].append((a, element))
    return joined


def _poles(graph: UnitGraph) -> list[tuple[PinRef, str]]:
    """The poles of all sources, each at its net."""
    poles: list[tuple[PinRef, str]] = []
    for device in graph.circuits.devices:
        pins: tuple[str, ...] = ()
        if device.kind.can(Can.SUPPLY):
            pins = ("L1", "L2", "L3", "N")
        elif device.kind.can(Can.FOREIGN_SUPPLY):
            pins = ("1", "2")
        for unit in device.kind.units:
            if unit.behaviour is Behaviour.SOURCE and graph.used[(device.id, unit.name)]:
                pins = (*pins, unit.pins[0], unit.pins[-1])
        for pin in pins:
            net = graph.net(device, pin)
            if net:
                poles.append((net, f"{{{device.id}}}:{pin}"))
    return poles


def _short(a: str, b: str, net: PinRef, element: Element | None) -> CircuitFault:
    where = ElementKey(element.id) if element else NetKey(net)
    if a.partition(":")[0] != b.partition(":")[0]:
        text = f"{a} and {b} are of two supplies, and contacts alone join them: closed, the two are no longer apart."
        return CircuitFault(
            "two sources on one net", text, where, "Take one over by a relay with a contact of its own."
        )
    return CircuitFault(
        "short",
        f"{a} and {b} are joined by contacts alone, with nothing between that takes the current: closed, they are a "
        "short circuit.",
        where,
        "Put a coil, a lamp or a load between them, or wire one end elsewhere.",
    )


def _sources_joined(graph: UnitGraph) -> list[CircuitFault]:
    """Two outputs of sources on one net, other than a common return that both are meant to share."""
    at: dict[PinRef, list[DeviceId]] = defaultdict(list)
    for device in graph.circuits.devices:
        for unit in device.kind.units:
            if unit.behaviour is Behaviour.SOURCE and graph.used[(device.id, unit.name)]:
                net = graph.net(device, unit.pins[0])
                if net:
                    at[net].append(device.id)
        if device.kind.can(Can.SUPPLY):
            for pin in ("L1", "L2", "L3"):
                net = graph.net(device, pin)
                if net:
                    at[net].append(device.id)
    return [
        CircuitFault(
            "two sources on one net",
            " and ".join(f"{{{item}}}" for item in dict.fromkeys(feeders)) + " feed the same conductor.",
            NetKey(net),
            "Part them, or change over between them with an interlocked pair.",
        )
        for net, feeders in at.items()
        if len(feeders) > 1
    ]


def _no_return(graph: UnitGraph) -> list[CircuitFault]:
    """Coils, lamps and loads of which one side leads to no source or return, whatever is switched."""

    def passes(device: Device, behaviour: Behaviour) -> bool:
        return behaviour in PASS

    ends = {net.id for net in graph.nets.nets if "N" in net.nodes}
    for device in graph.circuits.devices:
        for unit in device.kind.units:
            if unit.behaviour is Behaviour.SOURCE:
                ends |= {net for pin in unit.pins if (net := graph.net(device, pin))}
        if device.kind.can(Can.SUPPLY):
            ends |= {net for pin in device.kind.pins if (net := graph.net(device, pin.name))}
    reached = graph.reach(ends, passes)
    faults = []
    for device in graph.circuits.devices:
        for unit in device.kind.units:
            if unit.behaviour not in TAKES or not graph.used[(device.id, unit.name)]:
                continue
            lost = [pin for pin in (unit.pins[0], unit.pins[-1]) if graph.net(device, pin) not in reached]
            if lost:
                faults.append(
                    CircuitFault(
                        "load without return",
                        f"{{{device.id}}}:{lost[0]} leads nowhere: the {device.kind.name} can never work.",
                        DeviceKey(device.id),
                        "Wire that end to a supply or a return.",
                    )
                )
    return faults


def _lamps_without_meaning(graph: UnitGraph) -> list[CircuitFault]:
    return [
        CircuitFault(
            "lamp without meaning",
            f"Nothing says what {{{device.id}}} is lit for.",
            DeviceKey(device.id),
            "Name it: the text becomes its legend.",
        )
        for device in graph.circuits.devices
        if device.kind.can(Can.INDICATES) and not device.purpose.strip(" ,")
    ]


def _loops(graph: UnitGraph) -> list[CircuitFault]:
    """Paths that begin and end at one potential: whatever they go through, nothing can ever flow."""
    faults = []
    for rung in graph.circuits.rungs:
        first = next(elements_of(rung.path), None)
        if rung.band is not Band.CONTROL or first is None or not rung.start or not rung.end:
            continue
        ends = [graph.by_node.get(node) for node in (rung.start[0], rung.end[0])]
        crossed = [e for e in elements_of(rung.path) if not graph.is_joint(e)]
        if crossed and ends[0] is not None and ends[0] == ends[1]:
            faults.append(
                CircuitFault(
                    "loop",
                    f"“{rung.title}” begins and ends at one potential, so nothing can ever flow through it.",
                    ElementKey(crossed[0].id),
                    "Wire one of its ends to another potential.",
                )
            )
    return faults


def _unfed(graph: UnitGraph) -> list[CircuitFault]:
    """Paths that no supply reaches, through whatever switches or takes current."""
    seeds = {net for net, _ in _poles(graph)}
    for device in graph.circuits.devices:
        for unit in device.kind.units:
            if unit.behaviour is Behaviour.SOURCE:
                seeds |= {net for pin in unit.pins if (net := graph.net(device, pin))}
            if unit.name in device.kind.own_loops:
                seeds |= {net for pin in unit.pins if (net := graph.net(device, pin))}
    reached = graph.reach(seeds, lambda device, behaviour: behaviour in PASS | TAKES)
    faults = []
    for rung in graph.circuits.rungs:
        if rung.band is not Band.CONTROL:
            continue
        for element in elements_of(rung.path):
            device = graph.devices[element.device]
            nets = [graph.net(device, pin) for pin in device.kind.unit(element.poles[0].unit).pins]
            if not any(net in reached for net in nets):
                faults.append(
                    CircuitFault(
                        "no supply",
                        f"“{rung.title}” hangs on no supply: {{{device.id}}} can never be fed.",
                        ElementKey(element.id),
                        "Connect its line side to a supply, or to a node that one feeds.",
                    )
                )
                break
    return faults


def _bare_paths(graph: UnitGraph) -> list[CircuitFault]:
    """Nodes that a rung starts from and nothing feeds, and ends that nothing goes on from."""
    fed: Counter[str] = Counter()
    for rung in graph.circuits.rungs:
        for node in (*rung.start, *rung.end):
            fed[node] += 1
    faults = []
    for rung in graph.circuits.rungs:
        if rung.band is not Band.CONTROL:
            continue
        for node in (*rung.start, *rung.end):
            if fed[node] == 1 and not _known(node) and not _bonded(graph, node):
                faults.append(
                    CircuitFault(
                        "path ends nowhere",
                        f"“{rung.title}” goes to “{node}”, and nothing else does.",
                        ElementKey(next(elements_of(rung.path)).id)
                        if any(elements_of(rung.path))
                        else PartKey("circuit"),
                        "Wire it to a potential that is there.",
                    )
                )
    return faults


def _known(node: str) -> bool:
    common = node.startswith(("control.", "dc.", "limited.", "safe.", "lamps."))
    return common or is_bus(node) or node in ("N", "PE")


def _bonded(graph: UnitGraph, node: str) -> bool:
    pins = graph.pins_at.get(node, ())
    return len(pins) > 1 or graph.class_at.get(node) is NetClass.EARTH
