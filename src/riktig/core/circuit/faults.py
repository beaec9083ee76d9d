"""What is wrong with the circuits as they are drawn: facts, with the place and the remedy, for the rulebook."""

from collections import Counter, defaultdict
from collections.abc import Callable
from dataclasses import dataclass

from riktig.core.catalogue import Behaviour
from riktig.core.circuit.model import Band, Branch, Circuits, Device, Element, Landing, Parallel, Series, elements_of
from riktig.core.circuit.nets import NetClass, Nets
from riktig.core.circuit.power_sheets import is_bus
from riktig.core.job import DeviceId, PinId

__all__ = ["Fault", "find_faults"]

_PASS = {Behaviour.POLE, Behaviour.NO, Behaviour.NC, Behaviour.HEATER}
_TAKES = {Behaviour.COIL, Behaviour.LAMP, Behaviour.LOAD, Behaviour.INPUT}
_CONTACTS = {Behaviour.NO, Behaviour.NC}
FIELD_SOURCES = {"supply", "foreign_source"}


@dataclass(frozen=True, slots=True)
class Fault:
    """One thing wrong: its kind, what it says with ``{device}`` ids in braces, where, and what mends it."""

    kind: str
    text: str
    where: str
    remedy: str


class _Graph:
    """The circuits as nets joined by units."""

    def __init__(self, circuits: Circuits, nets: Nets) -> None:
        self.circuits, self.nets = circuits, nets
        self.devices = {device.id: device for device in circuits.devices}
        self.used = Counter(
            (pole.device, pole.unit) for rung in circuits.rungs for one in elements_of(rung.path) for pole in one.poles
        )
        self.drawn = {device for device, _ in self.used}

    def net(self, device: Device, pin: str) -> PinId | None:
        """The net of a pin, by its id."""
        found = self.nets.of_pin.get(device.pin(pin))
        return found.id if found else None

    def reach(self, seeds: set[PinId], passes: Callable[[Device, Behaviour], bool]) -> set[PinId]:
        """The nets that ``seeds`` reach through units that ``passes`` lets through."""
        joined: dict[PinId, set[PinId]] = defaultdict(set)
        for device in self.circuits.devices:
            for unit in device.kind.units:
                if passes(device, unit.behaviour) and (device.id, unit.name) in self.used:
                    ends = [self.net(device, pin) for pin in (unit.pins[0], unit.pins[-1])]
                    if ends[0] and ends[1]:
                        joined[ends[0]].add(ends[1])
                        joined[ends[1]].add(ends[0])
        seen, todo = set(seeds), list(seeds)
        while todo:
            fresh = joined[todo.pop()] - seen
            seen |= fresh
            todo += fresh
        return seen


def find_faults(circuits: Circuits, nets: Nets) -> tuple[Fault, ...]:
    """Everything that is wrong with the circuits, kind by kind, in the order of the rungs."""
    graph = _Graph(circuits, nets)
    found: list[Fault] = []
    for look in (
        _contacts_beyond_the_device,
        _contacts_without_coil,
        _coils_without_contact,
        _shorts,
        _sources_joined,
        _no_return,
        _lamps_without_meaning,
        _interlocks_bypassed,
        _phases_exchanged,
        _monitor_downstream,
        _wrong_pairs,
        _bare_paths,
    ):
        found += look(graph)
    return tuple(found)


def _contacts_beyond_the_device(graph: _Graph) -> list[Fault]:
    return [
        Fault(
            "more contacts than the device has",
            f"{{{device}}} {unit} is drawn {count} times, but the device has it once.",
            f"device:{device}",
            "Use a spare contact, or one of an auxiliary block.",
        )
        for (device, unit), count in graph.used.items()
        if count > 1 and unit != "i-f"
    ]


def _contacts_without_coil(graph: _Graph) -> list[Fault]:
    return [
        Fault(
            "contact without coil",
            f"The coil of {{{device.id}}} is in no circuit, so its contacts never move.",
            f"device:{device.id}",
            "Put the coil into a path, or take the contacts out.",
        )
        for device in graph.circuits.devices
        if device.kind.has_coil and device.id in graph.drawn and not graph.used[(device.id, "A1-A2")]
    ]


def _coils_without_contact(graph: _Graph) -> list[Fault]:
    found = []
    for device in graph.circuits.devices:
        if not device.kind.has_coil or not graph.used[(device.id, "A1-A2")]:
            continue
        moved = [u.name for u in device.kind.units if u.behaviour in _CONTACTS and graph.used[(device.id, u.name)]]
        if not moved:
            found.append(
                Fault(
                    "coil without contact",
                    f"{{{device.id}}} pulls in, but none of its contacts is in a circuit.",
                    f"device:{device.id}",
                    "Put one of its contacts to use, or take the coil out.",
                )
            )
    return found


def _shorts(graph: _Graph) -> list[Fault]:
    """Rungs that lead from one potential to another through nothing that takes the current."""
    found = []
    for rung in graph.circuits.rungs:
        if not rung.start or not rung.end or rung.band is not Band.CONTROL:
            continue
        a, b = (_net_of(graph, node) for node in (rung.start[0], rung.end[0]))
        sides = {_side(graph, a), _side(graph, b)}
        through = any(
            graph.devices[e.device].kind.unit(e.poles[0].unit).behaviour not in _PASS | {Behaviour.JOINT}
            for e in elements_of(rung.path)
        )
        closed = _leads_straight(rung.path, graph)
        switched = any(
            graph.devices[e.device].kind.unit(e.poles[0].unit).behaviour in _PASS for e in elements_of(rung.path)
        )
        if (a == b and switched and not through) or (closed and len(sides) == 2 and "" not in sides):
            found.append(
                Fault(
                    "short",
                    f"“{rung.title}” joins {rung.start[0]} to {rung.end[0]} with nothing between that takes the "
                    "current: closed, it is a short circuit.",
                    f"element:{next(elements_of(rung.path)).id}" if any(elements_of(rung.path)) else "circuit",
                    "Put a coil, a lamp or a load into it, or wire its end elsewhere.",
                )
            )
    return found


def _leads_straight(branch: Branch, graph: _Graph) -> bool:
    """Whether some way through a path meets nothing but contacts, poles and terminals."""
    match branch:
        case Element():
            unit = graph.devices[branch.device].kind.unit(branch.poles[0].unit)
            return unit.behaviour in _PASS or unit.behaviour is Behaviour.JOINT
        case Landing():
            return True
        case Series(parts):
            return all(_leads_straight(part, graph) for part in parts)
        case Parallel(parts):
            return any(_leads_straight(part, graph) for part in parts)


def _net_of(graph: _Graph, node: str) -> PinId | None:
    return next((net.id for net in graph.nets.nets if node in net.nodes), None)


def _side(graph: _Graph, net: PinId | None) -> str:
    """“live” or “back” for the two sides of a supply, empty for a node between."""
    found = next((one for one in graph.nets.nets if one.id == net), None)
    if found is None:
        return ""
    if any(node.endswith((".back", ".zero", "ref.com")) or node == "N" for node in found.nodes):
        return "back"
    if any(is_bus(node) or node.endswith((".live", ".plus", ".devices", ".control")) for node in found.nodes):
        return "live"
    return ""


def _sources_joined(graph: _Graph) -> list[Fault]:
    """Two outputs of sources on one net, other than a common return that both are meant to share."""
    at: dict[PinId, list[DeviceId]] = defaultdict(list)
    for device in graph.circuits.devices:
        for unit in device.kind.units:
            if unit.behaviour is Behaviour.SOURCE and graph.used[(device.id, unit.name)]:
                net = graph.net(device, unit.pins[0])
                if net:
                    at[net].append(device.id)
        if device.kind_id == "supply":
            for pin in ("L1", "L2", "L3"):
                net = graph.net(device, pin)
                if net:
                    at[net].append(device.id)
    return [
        Fault(
            "two sources on one net",
            " and ".join(f"{{{one}}}" for one in dict.fromkeys(here)) + " feed the same conductor.",
            f"net:{net}",
            "Part them, or change over between them with an interlocked pair.",
        )
        for net, here in at.items()
        if len(here) > 1
    ]


def _no_return(graph: _Graph) -> list[Fault]:
    """Coils, lamps and loads of which one side leads to no source or return, whatever is switched."""

    def passes(device: Device, behaviour: Behaviour) -> bool:
        return behaviour in _PASS

    ends = {net.id for net in graph.nets.nets if net.net_class is NetClass.NEUTRAL}
    for device in graph.circuits.devices:
        for unit in device.kind.units:
            if unit.behaviour is Behaviour.SOURCE:
                ends |= {net for pin in unit.pins if (net := graph.net(device, pin))}
        if device.kind_id == "supply":
            ends |= {net for pin in device.kind.pins if (net := graph.net(device, pin.name))}
    reached = graph.reach(ends, passes)
    found = []
    for device in graph.circuits.devices:
        for unit in device.kind.units:
            if unit.behaviour not in _TAKES or not graph.used[(device.id, unit.name)]:
                continue
            lost = [pin for pin in (unit.pins[0], unit.pins[-1]) if graph.net(device, pin) not in reached]
            if lost:
                found.append(
                    Fault(
                        "load without return",
                        f"{{{device.id}}}:{lost[0]} leads nowhere: the {device.kind.name} can never work.",
                        f"device:{device.id}",
                        "Wire that end to a supply or a return.",
                    )
                )
    return found


def _lamps_without_meaning(graph: _Graph) -> list[Fault]:
    return [
        Fault(
            "lamp without meaning",
            f"Nothing says what {{{device.id}}} is lit for.",
            f"device:{device.id}",
            "Name it: the text becomes its legend.",
        )
        for device in graph.circuits.devices
        if device.kind_id in ("lamp", "test_lamp", "beacon") and not device.purpose.strip(" ,")
    ]


def _interlocks_bypassed(graph: _Graph) -> list[Fault]:
    """A device's own closing contact that reaches its coil past the opening contact of its rival."""
    found = []
    for rung in graph.circuits.rungs:
        for coil in [e for e in elements_of(rung.path) if _is(graph, e, Behaviour.COIL)]:
            for way in _ways(rung.path, coil):
                guards = {e.device for e in way if _is(graph, e, Behaviour.NC) and _rival(graph, e.device, coil.device)}
                for other in _ways(rung.path, coil):
                    holds = [e for e in other if e.device == coil.device and _is(graph, e, Behaviour.NO)]
                    kept = {e.device for e in other if _is(graph, e, Behaviour.NC)}
                    if holds and guards - kept:
                        rival = sorted(guards - kept)[0]
                        found.append(
                            Fault(
                                "interlock bypassed",
                                f"The hold contact of {{{coil.device}}} reaches its coil past the interlock of "
                                f"{{{rival}}}: pushed in by hand, both can stay in.",
                                f"element:{holds[0].id}",
                                "Let the hold contact re-join ahead of the interlock.",
                            )
                        )
    return list(dict.fromkeys(found))


def _is(graph: _Graph, element: Element, behaviour: Behaviour) -> bool:
    return graph.devices[element.device].kind.unit(element.poles[0].unit).behaviour is behaviour


def _rival(graph: _Graph, one: DeviceId, other: DeviceId) -> bool:
    """Whether two contactors switch the same load."""
    a, b = graph.devices[one], graph.devices[other]
    return one != other and a.kind.family == b.kind.family == "contactor" and a.circuit == b.circuit


def _ways(branch: Branch, target: Element) -> list[list[Element]]:
    """The elements met on each way through a tree that ends at ``target``."""

    def walk(part: Branch, before: list[list[Element]]) -> tuple[list[list[Element]], list[list[Element]]]:
        """(ways that end at the target, ways that go on)."""
        match part:
            case Element():
                return (before, []) if part == target else ([], [[*way, part] for way in before])
            case Landing():
                return [], before
            case Series(parts):
                done: list[list[Element]] = []
                for one in parts:
                    more, before = walk(one, before)
                    done += more
                return done, before
            case Parallel(parts):
                done, on = [], []
                for one in parts:
                    more, further = walk(one, before)
                    done += more
                    on += further
                return done, on[:MOST_WAYS]

    return walk(branch, [[]])[0][:MOST_WAYS]


MOST_WAYS = 200
"""Ways through one path that are looked at (chosen by us: no one draws more by hand)."""


def _phases_exchanged(graph: _Graph) -> list[Fault]:
    """Two contactors side by side on one motor: between them the phases change places exactly once."""
    found = []
    for rung in graph.circuits.rungs:
        for part in rung.path.parts:
            if isinstance(part, Parallel) and all(len(e.poles) == 3 for e in elements_of(part)):
                turned = [e for e in elements_of(part) if e.cross and _odd(e.cross)]
                if len(turned) != 1:
                    first = next(elements_of(part))
                    words = "not exchanged at all" if not turned else "exchanged twice"
                    found.append(
                        Fault(
                            "phase exchange",
                            f"Between {{{first.device}}} and its partner the phases are {words}: the motor would "
                            "turn the same way with both.",
                            f"element:{first.id}",
                            "Exchange two phases on the output of one of the two contactors.",
                        )
                    )
    return found


def _odd(order: tuple[int, ...]) -> bool:
    """Whether an order of three turns the rotation round."""
    return sum(order[i] > order[j] for i in range(len(order)) for j in range(i + 1, len(order))) % 2 == 1


def _monitor_downstream(graph: _Graph) -> list[Fault]:
    found = []
    for monitor in (d for d in graph.circuits.devices if d.kind_id == "phase_monitor"):
        mine = graph.net(monitor, "L1")
        for coil_rung in graph.circuits.rungs:
            elements = list(elements_of(coil_rung.path))
            if not any(e.device == monitor.id for e in elements):
                continue
            for coil in (e for e in elements if _is(graph, e, Behaviour.COIL)):
                contactor = graph.devices[coil.device]
                behind = {graph.net(contactor, pin) for pin in ("2", "4", "6")}
                reached = graph.reach({n for n in behind if n}, lambda d, b: b in _PASS and not d.kind.has_coil)
                if mine in reached:
                    found.append(
                        Fault(
                            "monitor downstream",
                            f"{{{monitor.id}}} is fed behind {{{contactor.id}}}, which it lets in: it would never see "
                            "a supply to let in.",
                            f"device:{monitor.id}",
                            "Feed the monitor ahead of the contactor.",
                        )
                    )
    return found


def _wrong_pairs(graph: _Graph) -> list[Fault]:
    """Contacts whose numbers do not say what they do: …3-…4 close, …1-…2 open (EN 50005, from memory)."""
    found = []
    for device in graph.circuits.devices:
        for unit in device.kind.units:
            digits = [pin for pin in unit.pins if len(pin) == 2 and pin.isdigit()]
            if len(digits) != 2 or not graph.used[(device.id, unit.name)] or unit.behaviour not in _CONTACTS:
                continue
            want = {"1", "2"} if unit.behaviour is Behaviour.NC else {"3", "4"}
            ends = {pin[1] for pin in digits}
            does = "opens" if unit.behaviour is Behaviour.NC else "closes"
            special = {"5", "6", "7", "8"}
            apart = digits[0][0] != digits[1][0]
            if (apart and not ends <= special | {"1", "4"}) or (not ends & special and not apart and ends != want):
                if device.kind_id.startswith("relay_dc") and ends == {"1", "4"}:
                    continue
                found.append(
                    Fault(
                        "contact numbers",
                        f"{{{device.id}}} {unit.name} {does}, but its numbers say otherwise.",
                        f"device:{device.id}",
                        "Use the pair of numbers that belongs to its function.",
                    )
                )
    return found


def _bare_paths(graph: _Graph) -> list[Fault]:
    """Nodes that a rung starts from and nothing feeds, and ends that nothing goes on from."""
    fed: Counter[str] = Counter()
    for rung in graph.circuits.rungs:
        for node in (*rung.start, *rung.end):
            fed[node] += 1
    found = []
    for rung in graph.circuits.rungs:
        if rung.band is not Band.CONTROL:
            continue
        for node in (*rung.start, *rung.end):
            if fed[node] == 1 and not _known(node) and not _bonded(graph, node):
                found.append(
                    Fault(
                        "path ends nowhere",
                        f"“{rung.title}” goes to “{node}”, and nothing else does.",
                        f"element:{next(elements_of(rung.path)).id}" if any(elements_of(rung.path)) else "circuit",
                        "Wire it to a potential that is there.",
                    )
                )
    return found


def _known(node: str) -> bool:
    common = node.startswith(("control.", "dc.", "limited.", "safe.", "lamps."))
    return common or is_bus(node) or node in ("N", "PE")


def _bonded(graph: _Graph, node: str) -> bool:
    net = next((one for one in graph.nets.nets if node in one.nodes), None)
    return net is not None and (net.net_class is NetClass.EARTH or len(net.pins) > 1)
