"""What must be off and locked before a part is worked on, whatever else in the panel may close.

Not what is live now: a part that is dead at rest is live as soon as a relay, a switch or a program closes a contact. So
every contact counts as closed, every consumer as a way through, and every supply from elsewhere as on.
"""

from collections import defaultdict, deque
from dataclasses import dataclass
from itertools import pairwise

from riktig.core.catalogue import Behaviour, Can
from riktig.core.job import DeviceId
from riktig.core.schematic import Circuits
from riktig.core.simulation.network import MAINS, Network

__all__ = ["LockOff", "lock_off", "lock_off_text", "lockable"]


@dataclass(frozen=True, slots=True)
class LockOff:
    """What to do before a part is touched.

    ``switches`` are to be off and locked: on each way from a source the one nearest the part. ``sources`` reach the
    part by a way that no switch of the panel opens and are cut off where they come from: “mains”, or the device that
    stands for a supply from elsewhere. ``stored`` are devices on the part's side of the locks, or the part itself,
    whose capacitors stay charged.
    """

    switches: tuple[DeviceId, ...]
    sources: tuple[str, ...]
    stored: tuple[DeviceId, ...]


def lockable(circuits: Circuits) -> tuple[DeviceId, ...]:
    """Isolators first, then everything else with poles of its own: what a person can switch off and lock."""
    with_poles = [d for d in circuits.devices if any(u.behaviour is Behaviour.POLE for u in d.kind.units)]
    switches = [d for d in with_poles if not any(u.symbol == "link" for u in d.kind.units)]
    return tuple(d.id for d in sorted(switches, key=lambda d: not d.kind.can(Can.ISOLATES)))


def lock_off(circuits: Circuits, network: Network, device: DeviceId) -> LockOff:
    """What must be locked, cut off and waited for before a device is worked on.

    Method:
        From the part's points outwards along everything that can conduct, until a pole of a source from outside is
        reached; of that way the switch nearest the part is opened; again, until no source is reached. What a
        supply inside the panel makes counts as reached by what feeds that supply. The zero of a supply of the panel
        and the protective conductor lead nowhere: they are taken to be earthed, as the drawing has them.

    Args:
        circuits: All devices and rungs of the job.
        network: The network of contacts and consumers.
        device: Which device.
    """
    graph = _Graph(circuits, network, device)
    switches: dict[DeviceId, None] = {}
    sources: dict[str, None] = {}
    while True:
        way = graph.way_to_a_source(frozenset(switches), frozenset(sources))
        if way is None:
            break
        source, passed = way
        nearest = next((device_id for device_id in passed if device_id in graph.able), None)
        if nearest is None:
            sources[source] = None
        else:
            switches[nearest] = None
    for switch in tuple(switches):  # a later lock may have made an earlier one needless
        if graph.way_to_a_source(frozenset(switches) - {switch}, frozenset(sources)) is None:
            del switches[switch]
    behind = graph.reached(frozenset(switches), frozenset(sources))
    stored = [
        drive.id
        for drive in circuits.devices
        if drive.kind.can(Can.VARIES_SPEED) and (drive.id == device or behind & graph.points_of(drive.id))
    ]
    return LockOff(tuple(switches), tuple(sources), tuple(stored))


def lock_off_text(points: LockOff, circuits: Circuits, device: DeviceId) -> str:
    """The whole instruction in words, devices as ids in braces. It always ends with proving dead.

    Where no way from a source was found it does not say that there is nothing to lock: the main switch is locked.

    Args:
        points: What must be locked.
        circuits: All devices and rungs of the job.
        device: Which device.
    """
    texts = []
    switches = points.switches
    if not switches and not points.sources:
        switches = tuple(d.id for d in circuits.devices if d.kind.can(Can.MAIN_SWITCH))
        texts.append("no way from a source to it is drawn, so the main switch is locked all the same")
    if switches:
        texts.append(f"switch off and lock {', '.join(f'{{{switch}}}' for switch in switches)}")
    for source in points.sources:
        if source == MAINS:
            texts.append("cut off the incoming supply where it comes from, and lock it there")
        else:
            purpose = circuits.by_id[DeviceId(source)].purpose
            texts.append(f"cut off {{{source}}} ({purpose}) where it comes from, and lock it there")
    if points.stored:
        named = ", ".join(f"{{{device_id}}}" for device_id in points.stored)
        texts.append(f"wait as long as {named} says on its label: its capacitors stay charged")
    return (
        f"To work on {{{device}}}: {'; '.join(texts)}; then prove it dead, with a tester proved before and after. "
        "Local codes decide."
    )


class _Graph:
    """Points joined by whatever can conduct, each edge with the device whose contact it is."""

    def __init__(self, circuits: Circuits, network: Network, device: DeviceId) -> None:
        self._network, self._device = network, device
        self.able = set(lockable(circuits)) - {device}
        self._joined: dict[int, list[tuple[int, DeviceId | None]]] = defaultdict(list)
        self._hot: dict[int, str] = {}
        self._dead_ends: set[int] = set()
        self._points: dict[DeviceId, set[int]] = defaultdict(set)
        for pin, point in network.point.items():
            self._points[pin.device].add(point)
        for contact in network.contacts:
            self._join(contact.a, contact.b, contact.device)
        for consumer in network.consumers:
            self._join(consumer.a, consumer.b, None)
        self._add_supplies(circuits)

    def points_of(self, device: DeviceId) -> set[int]:
        """The points of a device's pins that are connected."""
        return self._points[device]

    def _join(self, a: int, b: int, device: DeviceId | None) -> None:
        self._joined[a].append((b, device))
        self._joined[b].append((a, device))

    def _add_supplies(self, circuits: Circuits) -> None:
        foreign = {str(d.id) for d in circuits.devices if d.kind.can(Can.FOREIGN_SUPPLY)}
        makers: set[DeviceId] = {d.id for d in circuits.devices if d.kind.can(Can.VARIES_SPEED)}
        for pole in self._network.poles:
            if pole.system in foreign:
                self._hot[pole.point] = pole.system  # which of its two is the zero, only those there know
            elif pole.is_zero:
                self._dead_ends.add(pole.point)
            elif pole.system == MAINS:
                self._hot[pole.point] = MAINS
            elif pole.pin is not None:
                makers.add(pole.pin.device)
        self._dead_ends -= self._hot.keys()
        for maker in makers:
            # What feeds it makes what it gives: its points are as one, but those that lead nowhere.
            for near, other in pairwise(sorted(self._points[maker] - self._dead_ends)):
                self._join(near, other, None)

    def reached(self, opened: frozenset[DeviceId], cut: frozenset[str]) -> set[int]:
        """Every point that the part is joined to with ``opened`` off."""
        return set(self._search(opened, cut)[0])

    def way_to_a_source(
        self, opened: frozenset[DeviceId], cut: frozenset[str]
    ) -> tuple[str, tuple[DeviceId, ...]] | None:
        """The source that is fewest steps away and the devices whose contacts lie on the way, the part's side first."""
        before, source = self._search(opened, cut, until_source=True)
        if source is None:
            return None
        passed: list[DeviceId] = []
        point = source
        while (step := before[point]) is not None:
            point, device = step
            if device is not None:
                passed.append(device)
        return self._hot[source], tuple(reversed(passed))

    def _search(
        self, opened: frozenset[DeviceId], cut: frozenset[str], *, until_source: bool = False
    ) -> tuple[dict[int, tuple[int, DeviceId | None] | None], int | None]:
        starts = self._points[self._device] - self._dead_ends
        before: dict[int, tuple[int, DeviceId | None] | None] = dict.fromkeys(starts)
        todo = deque(sorted(starts))
        while todo:
            point = todo.popleft()
            if until_source and point in self._hot and self._hot[point] not in cut:
                return before, point
            for other, device in self._joined[point]:
                if other not in before and other not in self._dead_ends and device not in opened:
                    before[other] = (point, device)
                    todo.append(other)
        return before, None
