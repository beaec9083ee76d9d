"""Faults of paths as they are drawn: interlocks, exchanged phases, monitors, contact numbers."""

from riktig.core.catalogue import Behaviour, Can
from riktig.core.job import DeviceId
from riktig.core.keys import DeviceKey, ElementKey
from riktig.core.schematic.model.elements import Branch, Element, Landing, Parallel, Series, elements_of
from riktig.core.schematic.netlist.unit_graph import CONTACTS, PASS, CircuitFault, UnitGraph, behaves

__all__ = ["interlocks_bypassed", "monitor_downstream", "phases_exchanged", "wrong_pairs"]


def interlocks_bypassed(graph: UnitGraph) -> list[CircuitFault]:
    """A device's own closing contact that reaches its coil past the opening contact of its rival."""
    faults = []
    for rung in graph.circuits.rungs:
        for coil in [e for e in elements_of(rung.path) if behaves(graph, e, Behaviour.COIL)]:
            for way in _ways(rung.path, coil):
                guards = {
                    e.device for e in way if behaves(graph, e, Behaviour.NC) and _rival(graph, e.device, coil.device)
                }
                for other in _ways(rung.path, coil):
                    holds = [e for e in other if e.device == coil.device and behaves(graph, e, Behaviour.NO)]
                    opening = {e.device for e in other if behaves(graph, e, Behaviour.NC)}
                    if holds and guards - opening:
                        rival = sorted(guards - opening)[0]
                        faults.append(
                            CircuitFault(
                                "interlock bypassed",
                                f"The hold contact of {{{coil.device}}} reaches its coil past the interlock of "
                                f"{{{rival}}}: pushed in by hand, both can stay in.",
                                ElementKey(holds[0].id),
                                "Let the hold contact re-join ahead of the interlock.",
                            )
                        )
    return list(dict.fromkeys(faults))


def _rival(graph: UnitGraph, device_id: DeviceId, other: DeviceId) -> bool:
    """Whether two contactors switch the same load."""
    a, b = graph.devices[device_id], graph.devices[other]
    return (
        device_id != other
        and a.kind.can(Can.SWITCHES_LOAD)
        and b.kind.can(Can.SWITCHES_LOAD)
        and a.circuit == b.circuit
    )


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
                for branch in parts:
                    more, before = walk(branch, before)
                    done += more
                return done, before
            case Parallel(parts):
                done, on = [], []
                for branch in parts:
                    more, further = walk(branch, before)
                    done += more
                    on += further
                return done, on[:MOST_WAYS]

    return walk(branch, [[]])[0][:MOST_WAYS]


MOST_WAYS = 200
"""Ways through one path that are looked at (chosen by us: no one draws more by hand)."""


def phases_exchanged(graph: UnitGraph) -> list[CircuitFault]:
    """Two contactors side by side on one motor: between them the phases change places exactly once."""
    faults = []
    for rung in graph.circuits.rungs:
        for part in rung.path.parts:
            if isinstance(part, Parallel) and all(_is_pole(graph, e) for e in elements_of(part)):
                turned = [e for e in elements_of(part) if e.cross and _odd(e.cross)]
                if len(turned) != 1:
                    first = next(elements_of(part))
                    words = "not exchanged at all" if not turned else "exchanged twice"
                    faults.append(
                        CircuitFault(
                            "phase exchange",
                            f"Between {{{first.device}}} and its partner the phases are {words}: the motor would "
                            "turn the same way with both.",
                            ElementKey(first.id),
                            "Exchange two phases on the output of one of the two contactors.",
                        )
                    )
    return faults


def _is_pole(graph: UnitGraph, element: Element) -> bool:
    """Whether an element is three main poles of a contactor: a soft starter beside its bypass exchanges nothing."""
    unit = graph.devices[element.device].kind.unit(element.poles[0].unit)
    return len(element.poles) == 3 and unit.symbol == "contactor"


def _odd(order: tuple[int, ...]) -> bool:
    """Whether an order of three turns the rotation round."""
    return sum(order[i] > order[j] for i in range(len(order)) for j in range(i + 1, len(order))) % 2 == 1


def monitor_downstream(graph: UnitGraph) -> list[CircuitFault]:
    """Phase monitors that watch the lines behind the contactor which they let in, and so never let it in."""
    faults = []
    for monitor in (d for d in graph.circuits.devices if d.kind.can(Can.WATCHES_PHASES)):
        monitored = graph.net(monitor, "L1")
        for coil_rung in graph.circuits.rungs:
            elements = list(elements_of(coil_rung.path))
            if not any(e.device == monitor.id for e in elements):
                continue
            for coil in (e for e in elements if behaves(graph, e, Behaviour.COIL)):
                contactor = graph.devices[coil.device]
                behind = {graph.net(contactor, pin) for pin in ("2", "4", "6")}
                reached = graph.reach({n for n in behind if n}, lambda d, b: b in PASS and not d.kind.has_coil)
                if monitored in reached:
                    faults.append(
                        CircuitFault(
                            "monitor downstream",
                            f"{{{monitor.id}}} is fed behind {{{contactor.id}}}, which it controls: it would never see "
                            "a supply to switch on.",
                            DeviceKey(monitor.id),
                            "Feed the monitor ahead of the contactor.",
                        )
                    )
    return faults


def wrong_pairs(graph: UnitGraph) -> list[CircuitFault]:
    """Contacts whose numbers do not say what they do: …3-…4 close, …1-…2 open (EN 50005, from memory)."""
    faults = []
    for device in graph.circuits.devices:
        for unit in device.kind.units:
            digits = [pin for pin in unit.pins if len(pin) == 2 and pin.isdigit()]
            if len(digits) != 2 or not graph.used[(device.id, unit.name)] or unit.behaviour not in CONTACTS:
                continue
            want = {"1", "2"} if unit.behaviour is Behaviour.NC else {"3", "4"}
            ends = {pin[1] for pin in digits}
            does = "opens" if unit.behaviour is Behaviour.NC else "closes"
            special = {"5", "6", "7", "8"}
            apart = digits[0][0] != digits[1][0]
            if (apart and not ends <= special | {"1", "4"}) or (not ends & special and not apart and ends != want):
                if device.kind.can(Can.CHANGEOVER) and ends == {"1", "4"}:
                    continue
                faults.append(
                    CircuitFault(
                        "contact numbers",
                        f"{{{device.id}}} {unit.name} {does}, but its numbers say otherwise.",
                        DeviceKey(device.id),
                        "Use the pair of numbers that belongs to its function.",
                    )
                )
    return faults
