"""Why something is on or off, and which closed contacts are the sole way to what works."""

import heapq
from enum import Enum

from riktig.core.job import DeviceId
from riktig.core.simulation.connectivity import NONE
from riktig.core.simulation.run import Panel

__all__ = ["Role", "called", "path_words", "roles_of", "why"]


class Role(Enum):
    """What a closed contact means for what works now."""

    IDLE = "leads to nothing that works"
    SOLE = "the only way: open it, and what hangs on it stops"
    SHARED = "one of several ways: it no longer matters alone"


def why(panel: Panel, device: DeviceId, unit: str = "") -> str:
    """Why a coil, lamp or load works or not: the contacts it is fed through, or those that would have to close.

    Device ids stand in braces.

    Args:
        panel: The panel with power on.
        device: Which device.
        unit: The name of a unit of the device, such as “13-14”.
    """
    network = panel.network
    consumers = [
        (number, consumer)
        for number, consumer in enumerate(network.consumers)
        if consumer.device == device and (not unit or consumer.unit == unit)
    ]
    if not consumers:
        return f"{{{device}}} takes no current of its own"
    fed = next((consumer for number, consumer in consumers if panel.fed[number]), None)
    if fed is not None:
        live = next((p for p in (fed.a, fed.b) if (pole := panel.source_of(p)) and not pole.is_zero), fed.a)
        pole = panel.source_of(live)
        ways = [called(panel, n) for n in panel.connectivity.way(live)]
        through = ", ".join(ways) or "nothing that opens"
        return f"{{{device}}} is fed from {pole.name if pole else 'two sides'} through {through}"
    volts = max(panel.volts.across[number] for number, _ in consumers)
    if volts > 1.0:
        return f"{{{device}}} has only {volts:.0f} V"
    lines = []
    for number, consumer in consumers:
        if number in panel.volts.broken:
            return f"{{{device}}} {consumer.unit} is open inside"
        for point in (consumer.a, consumer.b):
            if panel.source_of(point) is None:
                lines += [f"{called(panel, n)} is open" for n in _openings(panel, point)] or ["nothing leads to it"]
    return f"{{{device}}} is not fed: {', '.join(dict.fromkeys(lines))}"


def path_words(panel: Panel, roles: dict[int, Role], device: DeviceId, unit: str) -> str:
    """What a contact means for what works now: the sole path, one of several, redundant; empty for what is none.

    Args:
        panel: The panel with power on.
        roles: What every closed contact means now; see ``roles_of``.
        device: The device of the contact.
        unit: Its name, such as “13-14”.
    """
    number = panel.contact.get((device, unit))
    if number is None:
        return ""
    if panel.connectivity.closed[number]:
        match roles.get(number, Role.IDLE):
            case Role.SOLE:
                return "closed, sole path: opened, what hangs on it stops"
            case Role.SHARED:
                return "closed, one of several parallel paths: opened alone, nothing changes"
        return "closed, and nothing that works hangs on it"
    contact = panel.network.contacts[number]
    first, last = panel.source_of(contact.a), panel.source_of(contact.b)
    if first is not None and first == last:
        return "open and redundant: another path joins its two sides, so closing it changes nothing"
    if (first is not None and not first.is_zero) or (last is not None and not last.is_zero):
        return "open: live up to here"
    return "open"


def called(panel: Panel, number: int) -> str:
    """A contact by its device's id in braces and its unit.

    Args:
        panel: The panel with power on.
        number: Which, counted from 1.
    """
    contact = panel.network.contacts[number]
    return f"{{{contact.device}}} {contact.unit}"


def _openings(panel: Panel, start: int) -> list[int]:
    """The fewest open contacts between a point and a pole."""
    connectivity = panel.connectivity
    best, back = {start: 0}, {start: (NONE, NONE)}
    queue = [(0, start)]
    while queue:
        cost, point = heapq.heappop(queue)
        if cost > best[point]:
            continue
        if connectivity.root[point] != NONE:
            parts = []
            while back[point][0] != NONE:
                point, number = back[point]
                if not connectivity.closed[number]:
                    parts.append(number)
            return parts
        for number, other in connectivity.beside[point]:
            total = cost + (not connectivity.closed[number])
            if total < best.get(other, 1 << 30):
                best[other], back[other] = total, (point, number)
                heapq.heappush(queue, (total, other))
    return []


def _working_at(panel: Panel) -> list[int]:
    """How many ends of consumers that work hang on each point."""
    works = [0] * panel.network.count
    for fed, consumer in zip(panel.fed, panel.network.consumers, strict=True):
        if fed:
            works[consumer.a] += 1
            works[consumer.b] += 1
    return works


def roles_of(panel: Panel) -> dict[int, Role]:
    """What every closed contact means now; by the number of the contact.

    Method:
        A contact leads to something when a point behind it feeds a consumer that works. It is the only
        way when it is a bridge of the closed contacts (Tarjan): without it the far side hangs on no pole.
        Poles count as one point. O(contacts).
    """
    connectivity, network = panel.connectivity, panel.network
    closed, root, beside = connectivity.closed, connectivity.root, connectivity.beside
    poles = sorted({pole.point for pole in panel.volts.poles})
    at_pole = set(poles)
    works = _working_at(panel)
    roles: dict[int, Role] = {}
    order, low = [0] * network.count, [0] * network.count
    tick = 1
    for pole in poles:
        if order[pole]:
            continue
        tick += 1
        order[pole], low[pole] = tick, 1
        stack = [(pole, NONE, iter(beside[pole]))]
        while stack:
            point, came, edges = stack[-1]
            for number, other in edges:
                if number == came or not closed[number] or root[other] == NONE:
                    continue
                if order[other]:
                    low[point] = min(low[point], order[other])
                    if order[other] < order[point]:
                        roles[number] = Role.SHARED
                    continue
                tick += 1
                order[other] = tick
                low[other] = 1 if other in at_pole else tick
                stack.append((other, number, iter(beside[other])))
                break
            else:
                stack.pop()
                if stack:
                    above = stack[-1][0]
                    low[above] = min(low[above], low[point])
                    works[above] += works[point]
                    bridge = low[point] > order[above]
                    roles[came] = (Role.SOLE if bridge else Role.SHARED) if works[point] else Role.IDLE
    for number, is_closed in enumerate(closed):
        if is_closed:
            roles.setdefault(number, Role.IDLE)
    return roles
