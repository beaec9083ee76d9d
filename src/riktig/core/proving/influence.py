"""Which faults can reach what somebody looks at: told from how everything hangs together, before anything is tried."""

from collections import defaultdict, deque
from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass

from riktig.core.catalogue import Behaviour, Can
from riktig.core.ids import DeviceId, PinRef, WireId, read_pin, read_wire
from riktig.core.simulation import IN_WIRES, FaultKind, InjectedFault, Network, Panel

__all__ = ["Influence"]

_ONLY_SWITCHES = (Behaviour.POLE, Behaviour.NO, Behaviour.NC, Behaviour.HEATER, Behaviour.JOINT)
"""Units that no voltage moves: a device of only these does the same whatever is at its clamps."""
_ASK_CONTROLLER = (Can.GIVES_OUTPUTS, Can.GIVES_LEVELS)
_Potential = tuple[str, object]


@dataclass(frozen=True, slots=True)
class _Surroundings:
    """The network of the sound panel, looked up from its points and devices.

    Args:
        network: The network.
        contacts_at: The contacts at a point, by number.
        contacts_of: The contacts of a device.
        consumers_at: The consumers at a point.
        fed_at: The devices at a point that do more than switch.
        poles_of: The points at which a device gives voltage.
        asking: The devices that do as the controller says.
        hangs_on: The contact through which a point is held, −1 for a pole; nothing else is held.
        below: The points that are held through a point.
        potential: Of every point that is held.
    """

    network: Network
    contacts_at: Mapping[int, list[int]]
    contacts_of: Mapping[DeviceId, list[int]]
    consumers_at: Mapping[int, list[int]]
    fed_at: Mapping[int, set[DeviceId]]
    poles_of: Mapping[str, list[int]]
    asking: Sequence[DeviceId]
    hangs_on: Mapping[int, int]
    below: Mapping[int, list[int]]
    potential: Mapping[int, _Potential]


class Influence:
    """What a fault can make a difference to.

    Method:
        A point is *held* that a pole reaches through contacts which stay closed all the time on the sound panel: its
        potential is the same whatever hangs on it. A fault reaches the points at its ends, and from there, through
        contacts in any position and through consumers, all that hangs together up to held points; the devices fed
        there; what their contacts join, and so on. What is held through a contact or pole of a device so reached is
        held no more. Where contacts alone could join two potentials something may trip: then anything may follow.
        It tells too much, never too little; a test holds it against trying every fault.

    Args:
        panel: The sound panel at rest.
        always: The contacts that stay closed all the time.
        poles: The poles that give voltage all the time, by system and name.
        looked_at: The devices somebody looks at.
        measured: The pins between which somebody measured.
    """

    def __init__(
        self,
        panel: Panel,
        always: Collection[int],
        poles: Collection[tuple[str, str]],
        looked_at: Collection[DeviceId],
        measured: Iterable[PinRef],
    ) -> None:
        point = panel.network.point
        self._looked_at = frozenset(looked_at)
        self._measured = frozenset(point[pin] for pin in measured if pin in point)
        self._around = _surroundings(panel, frozenset(always), frozenset(poles))
        self._known: dict[object, bool] = {}

    def reaches(self, fault: InjectedFault) -> bool:
        """Whether a fault can make a difference to what is looked at or measured."""
        if fault.wrong not in (*IN_WIRES, FaultKind.SHORT) and DeviceId(fault.what) in self._looked_at:
            return True
        begins = _begins(fault)
        if begins not in self._known:
            reached = _Reached(self._around, fault, self._looked_at, self._measured)
            self._known[begins] = reached.is_seen or reached.may_trip()
        return self._known[begins]


def _begins(fault: InjectedFault) -> object:
    """Where a fault begins to reach: faults that begin alike reach alike, as a contact stuck or turned round."""
    if fault.wrong is FaultKind.WELDED or fault.wrong is FaultKind.OPEN_COIL:
        return fault.wrong, fault.what
    return fault if fault.wrong in (*IN_WIRES, FaultKind.SHORT) else (fault.what, fault.where)


def _surroundings(panel: Panel, always: frozenset[int], poles: frozenset[tuple[str, str]]) -> _Surroundings:
    network = panel.network
    contacts_at: dict[int, list[int]] = defaultdict(list)
    contacts_of: dict[DeviceId, list[int]] = defaultdict(list)
    consumers_at: dict[int, list[int]] = defaultdict(list)
    fed_at: dict[int, set[DeviceId]] = defaultdict(set)
    poles_of: dict[str, list[int]] = defaultdict(list)
    for number, contact in enumerate(network.contacts):
        contacts_of[contact.device].append(number)
        for end in {contact.a, contact.b}:
            contacts_at[end].append(number)
    for number, consumer in enumerate(network.consumers):
        for end in {consumer.a, consumer.b}:
            consumers_at[end].append(number)
    for pin, point in network.point.items():
        device = network.devices.get(pin.device)
        if device and any(unit.behaviour not in _ONLY_SWITCHES for unit in device.kind.units):
            fed_at[point].add(pin.device)
    for pole in network.poles:
        poles_of[pole.system.partition(":")[0]].append(pole.point)
    asking = [
        device.id for device in network.devices.values() if any(device.kind.can(able) for able in _ASK_CONTROLLER)
    ]
    hangs_on = {pole.point: -1 for pole in panel.volts.poles if (pole.system, pole.name) in poles}
    below: dict[int, list[int]] = defaultdict(list)
    todo = deque(hangs_on)
    while todo:
        point = todo.popleft()
        for number in contacts_at[point]:
            contact = network.contacts[number]
            other = contact.b if contact.a == point else contact.a
            if number in always and other not in hangs_on:
                hangs_on[other] = number
                below[point].append(other)
                todo.append(other)
    potential: dict[int, _Potential] = {node: (panel.volts.base(node), panel.volts.at[node]) for node in hangs_on}
    return _Surroundings(
        network, contacts_at, contacts_of, consumers_at, fed_at, poles_of, asking, hangs_on, below, potential
    )


class _Reached:
    """How far one fault reaches; it is followed no further once it reaches what is looked at or measured."""

    def __init__(
        self, around: _Surroundings, fault: InjectedFault, looked_at: frozenset[DeviceId], measured: frozenset[int]
    ) -> None:
        self._around, self._looked_at, self._measured = around, looked_at, measured
        self.is_seen = False
        self._devices: set[DeviceId] = set()
        """Devices that may do otherwise."""
        self._points: set[int] = set()
        """Points whose potential may be another."""
        self._loose: set[int] = set()
        """Points that are held no more."""
        self._moved: set[int] = set()
        """Contacts that may stand otherwise."""
        self._joined: list[tuple[int, int]] = []
        self._todo: list[int] = []
        self._begin(fault)
        self._spread()

    def _begin(self, fault: InjectedFault) -> None:
        around, device = self._around, DeviceId(fault.what)
        match fault.wrong:
            case FaultKind.SHORT:
                self._join(read_pin(fault.where), read_pin(fault.to))
            case FaultKind.OPEN_COIL:
                self._take(device)
                for consumer in around.network.consumers:
                    if consumer.device == device:
                        self._todo += (consumer.a, consumer.b)
            case FaultKind.WELDED:  # it may keep the others of its device from moving too
                self._move(around.contacts_of.get(device, ()))
            case FaultKind.OFF | FaultKind.NEIGHBOUR | FaultKind.SWAPPED:
                pins = [pin for key in (fault.what, fault.to) if "~" in key for pin in read_wire(WireId(key))]
                pins += [read_pin(text) for text in (fault.where, fault.to, fault.other) if "~" not in text and text]
                for pin in pins:
                    self._loosen(around.network.point.get(pin))
                    self._join(pins[0], pin)
            case _:
                contacts = around.contacts_of.get(device, ())
                self._move([n for n in contacts if around.network.contacts[n].unit == fault.where])

    def _join(self, first: PinRef, last: PinRef) -> None:
        ends = [self._around.network.point.get(pin) for pin in (first, last)]
        if ends[0] is not None and ends[1] is not None:
            self._joined.append((ends[0], ends[1]))
            self._todo += (ends[0], ends[1])

    def _move(self, numbers: Iterable[int]) -> None:
        """Contacts may stand otherwise: their ends are reached, and what is held through them is held no more."""
        for number in numbers:
            if number not in self._moved:
                self._moved.add(number)
                contact = self._around.network.contacts[number]
                for end in (contact.a, contact.b):
                    self._todo.append(end)
                    if self._around.hangs_on.get(end) == number:
                        self._loosen(end)

    def _loosen(self, point: int | None) -> None:
        """A point, and all that is held through it, is held no more."""
        behind = [] if point is None else [point]
        while behind:
            loose = behind.pop()
            if loose not in self._loose:
                self._loose.add(loose)
                self._points.discard(loose)
                self._todo.append(loose)
                behind += self._around.below.get(loose, ())

    def _take(self, device: DeviceId) -> None:
        """A device may do otherwise, with all that follows from it."""
        if device in self._devices:
            return
        around = self._around
        self._devices.add(device)
        self.is_seen = self.is_seen or device in self._looked_at
        self._move(around.contacts_of.get(device, ()))
        for point in around.poles_of.get(device, ()):
            self._loosen(point)
        there = around.network.devices.get(device)
        if there and there.kind.can(Can.CONTROLLER):
            for other in around.asking:
                self._take(other)

    def _is_held(self, point: int) -> bool:
        return point in self._around.hangs_on and point not in self._loose

    def _spread(self) -> None:
        around = self._around
        while self._todo and not self.is_seen:
            point = self._todo.pop()
            if point in self._points or self._is_held(point):
                continue
            self._points.add(point)
            self.is_seen = self.is_seen or point in self._measured
            for number in around.contacts_at.get(point, ()):
                contact = around.network.contacts[number]
                self._todo.append(contact.b if contact.a == point else contact.a)
            for number in around.consumers_at.get(point, ()):
                consumer = around.network.consumers[number]
                self._take(consumer.device)
                self._todo.append(consumer.b if consumer.a == point else consumer.a)
            for device in around.fed_at.get(point, ()):
                self._take(device)

    def may_trip(self) -> bool:
        """Whether contacts alone, in any position, could join two potentials by what was reached."""
        contacts = self._around.network.contacts
        edges = [(contacts[number].a, contacts[number].b) for number in self._moved] + self._joined
        near: dict[int, list[int]] = defaultdict(list)
        for point in self._points:
            for number in self._around.contacts_at.get(point, ()):
                edges.append((contacts[number].a, contacts[number].b))
        for first, last in edges:
            near[first].append(last)
            near[last].append(first)
        seen: set[int] = set()
        for begin in near:
            if begin in seen:
                continue
            seen.add(begin)
            todo, potentials = [begin], set[_Potential]()
            while todo:
                point = todo.pop()
                if self._is_held(point):
                    potentials.add(self._around.potential[point])
                for other in near[point]:
                    if other not in seen:
                        seen.add(other)
                        todo.append(other)
            if len(potentials) > 1:
                return True
        return False
