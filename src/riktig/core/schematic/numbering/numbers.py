"""Numbers of nets, kept once given, and with the tags everything that is written on things."""

from collections import defaultdict
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field

from riktig.core.catalogue import Can
from riktig.core.evaluation import Memory
from riktig.core.job import (
    DeviceId,
    GivenNumber,
    GivenTag,
    Job,
    MotorNumbers,
    NewBetween,
    Numbering,
    PairNumbers,
    PinRef,
    Practice,
    circuit_of,
)
from riktig.core.schematic.model.elements import Circuits, Device
from riktig.core.schematic.netlist.nets import Net, NetClass, Nets
from riktig.core.schematic.numbering.schemes import NetPlace, NumberingScheme, net_places, pairs_of, without_suffix
from riktig.core.schematic.numbering.tags import tag_all

__all__ = ["GivenNames", "Names", "PinLabels", "name_all", "names_of", "wire_number"]


@dataclass(frozen=True, slots=True)
class Names:
    """What is written on things: a tag each device, a number each net (inner nets have none).

    ``marks`` are the idents of pins within their nets where every wire has a number of its own.
    """

    tag: dict[DeviceId, str]
    number: dict[PinRef, str]
    """By net id."""
    given_tags: tuple[GivenTag, ...]
    given_numbers: tuple[GivenNumber, ...]
    last_number: int
    marks: dict[PinRef, int] = field(default_factory=dict)


@dataclass(frozen=True, slots=True, eq=False)
class GivenNames:
    """What new names follow: how the job names things, and what was named before."""

    practice: Practice
    tags: tuple[GivenTag, ...] = ()
    numbers: tuple[GivenNumber, ...] = ()
    last_number: int = 0
    """The last running number that was given."""
    printed: tuple[str, ...] = ()
    """Numbers that stand on labels already."""

    @property
    def parts(self) -> tuple[object, ...]:
        """The objects one by one, for a cache that compares by identity."""
        return (self.practice, self.tags, self.numbers, self.last_number, self.printed)


def name_all(circuits: Circuits, nets: Nets, given: GivenNames, memory: Memory | None = None) -> Names:
    """Tags every device and numbers every net.

    Method:
        The supply's conductors keep their names; a motor's conductors are named by the motor's tag and
        the phase; what the house reserved for a common potential is its own. All other nets are numbered
        by the school of the practice, each device crossed giving the next. A net takes back the number
        that most of its pins carried before. A point between two units of one device at which nothing
        else lands has no number: the group is one. A number out of use is not given again by the
        running schools, a printed one by none. What was given once is given again, so the names of a
        document that keeps them are those it was settled with. O(pins).

    Args:
        circuits: All devices and rungs of the job.
        nets: All nets of these circuits.
        given: How the job names things, and what was named before.
        memory: What earlier computations of the evaluation left; without it the same, only slower.

    Returns:
        The names of everything, with what is to be kept in the job.
    """
    memory = memory or Memory()
    inputs = (circuits, nets, *given.parts)
    return memory.recent(Names, "names").get(inputs, lambda: _named(circuits, nets, given, memory))


class PinLabels:
    """How pins are called on the panel: “K1:13”, “X1:L1”."""

    def __init__(self, circuits: Circuits, names: Names) -> None:
        self._devices = circuits.by_id
        self._tag = names.tag

    def __call__(self, pin: PinRef) -> str:
        """The tag and the marking; of a terminal its mark, whichever side.

        Raises:
            KeyError: there is no such device.
        """
        device, marking = self._devices[pin.device], pin.marking
        return f"{self._tag[device.id]}:{device.mark if device.strip else marking}"


def wire_number(number: str, mark: int) -> str:
    """The number of a wire of its own: that of its potential, and the ident of the pin it feeds.

    Args:
        number: The number.
        mark: Which wire of its number, from 1.
    """
    return f"{number}.{mark}"


def names_of(job: Job, circuits: Circuits, nets: Nets, memory: Memory | None = None) -> Names:
    """The names in a job's circuits.

    Args:
        job: The job; it is not changed.
        circuits: All devices and rungs of the job.
        nets: All nets of these circuits.
        memory: What earlier computations of the evaluation left; without it the same, only slower.
    """
    given = GivenNames(job.practice, job.tags, job.numbers, job.last_number, job.printed)
    return name_all(circuits, nets, given, memory)


def _named(circuits: Circuits, nets: Nets, before: GivenNames, memory: Memory) -> Names:
    practice = before.practice
    tag, given_tags = tag_all(circuits, before.tags, practice, memory)
    devices = circuits.by_id
    reserved = {reserved_number.potential: reserved_number.number for reserved_number in practice.reserved}
    number: dict[PinRef, str] = {}
    counted: list[Net] = []
    numbered: list[Net] = []
    for net in nets.nets:
        if net.inner or _within_one_device(net):
            continue
        numbered.append(net)
        name = _name_of(net, devices, tag, practice, reserved)
        if name:
            number[net.id] = name
        else:
            counted.append(net)
    taken = _numbers_kept(counted, before.numbers, set(number.values()))
    counter = _NetCounter(circuits, nets, before, {*number.values(), *before.printed}, memory)
    last = counter.count(counted, taken)
    number |= taken
    marks: dict[PinRef, int] = {}
    if practice.numbering is Numbering.BY_WIRE:
        marks = _marks(numbered, number, before.numbers, set(before.printed))
        given = tuple(GivenNumber(number[n.id], n.pins, tuple(marks[p] for p in n.pins)) for n in numbered)
    else:
        given = tuple(GivenNumber(number[net.id], net.pins) for net in counted)
    names = Names(tag, number, given_tags, given, last, marks)
    settled = GivenNames(practice, given_tags, given, last, before.printed)
    return memory.recent(Names, "names").put((circuits, nets, *settled.parts), names)


def _within_one_device(net: Net) -> bool:
    """Whether a net is nothing but the joint of two units of one device: no wire leaves there."""
    return len(net.pins) == 2 and net.pins[0].device == net.pins[1].device


def _name_of(
    net: Net, devices: Mapping[DeviceId, Device], tag: dict[DeviceId, str], practice: Practice, reserved: dict[str, str]
) -> str:
    if net.net_class is NetClass.EARTH:
        return "PE"
    if net.is_shared:
        return "N"
    if reserved:
        for node in net.nodes:
            if node in reserved:
                return reserved[node]
    for pin in net.pins:
        owner, marking = pin
        device = devices[owner]
        if device.kind.can(Can.SUPPLY):
            return practice.phase_names.of(marking)
        if device.kind.is_motor and practice.motor_numbers is MotorNumbers.TAG:
            whole = device.kind.can(Can.SIX_ENDS) or marking.startswith("T")
            return f"{tag[device.id]}-{marking if whole else marking[0]}"
    return ""


def _numbers_kept(nets: list[Net], given: tuple[GivenNumber, ...], named: set[str]) -> dict[PinRef, str]:
    """Numbers taken back: the largest share of common pins first, the lower number on a tie."""
    old: dict[PinRef, str] = {
        pin: given_number.number
        for given_number in given
        if given_number.number not in named
        for pin in given_number.pins
    }
    claims: list[tuple[int, int, str, int, Net]] = []
    for place, net in enumerate(nets):
        shares: dict[str, int] = defaultdict(int)
        for pin in net.pins:
            if pin in old:
                shares[old[pin]] += 1
        claims += [(-count, len(number), number, place, net) for number, count in shares.items()]
    taken: dict[PinRef, str] = {}
    used: set[str] = set()
    for _, _, number, _, net in sorted(claims, key=lambda claim: claim[:4]):
        if net.id not in taken and number not in used:
            taken[net.id] = number
            used.add(number)
    return taken


@dataclass(slots=True)
class _NetCounter:
    """Numbers what has no number yet."""

    circuits: Circuits
    nets: Nets
    before: GivenNames
    barred: set[str]
    """Names that no net may take."""
    memory: Memory
    _places: dict[PinRef, NetPlace] | None = None

    def _met(self) -> dict[PinRef, NetPlace]:
        """Where each net is met on the sheets, worked out when the scheme first asks."""
        if self._places is None:
            ladder = self.before.practice.rulebook.north_american
            self._places = net_places(self.circuits, self.nets, self.memory, ladder=ladder)
        return self._places

    def count(self, counted: list[Net], taken: dict[PinRef, str]) -> int:
        """Puts the new numbers into ``taken``; gives the highest running number ever given."""
        practice, nets = self.before.practice, self.nets
        running = _running(taken)
        highest: dict[str, int] = {}
        for net_id, value in running.items():
            circuit = circuit_of(net_id.device)
            highest[circuit] = max(highest.get(circuit, 0), value)
        last = max([self.before.last_number, *running.values()], default=0)
        scheme = NumberingScheme(practice, self._met, {*taken.values(), *self.barred}, last, highest)
        pairs = pairs_of(self.circuits, nets) if practice.pairs is PairNumbers.SHARED else {}
        shared: dict[PinRef, str] = {}
        old = dict(taken)
        between = bool(self.before.numbers) and practice.new_between is NewBetween.SUFFIX
        for net in counted:
            if net.id in taken:
                continue
            if net.id in pairs:
                taken[net.id] = _paired(net, pairs, shared, scheme)
            elif between and (base := _number_beside(net, self.circuits, nets, old)):
                taken[net.id] = scheme.suffixed(without_suffix(base)) or scheme.next(net)
            else:
                taken[net.id] = scheme.next(net)
        if practice.numbering in (Numbering.BY_NODE, Numbering.BY_WIRE):
            return scheme.last
        return max([last, *_running(taken).values()])  # with the new ones, so that recording again changes nothing


def _running(taken: dict[PinRef, str]) -> dict[PinRef, int]:
    """The numbers that are figures, by net."""
    return {net_id: int(text) for net_id, text in taken.items() if text.isdecimal() and len(text) < 10}


def _paired(
    net: Net, pairs: dict[PinRef, tuple[PinRef, str]], shared: dict[PinRef, str], scheme: NumberingScheme
) -> str:
    first, sign = pairs[net.id]
    if first not in shared:
        shared[first] = scheme.next(net)
    return shared[first] + sign


def _number_beside(net: Net, circuits: Circuits, nets: Nets, before: dict[PinRef, str]) -> str:
    """The number of a potential of the same circuit that one device parts from this one: the nearest to the supply."""
    circuit = circuit_of(net.id.device)
    near: list[Net] = []
    for owner in {pin.device for pin in net.pins}:
        device = circuits.device(owner)
        for unit in device.kind.units:
            ends = [nets.of_pin.get(device.pin(pin)) for pin in unit.pins]
            if net in ends:
                near += [end for end in ends if end is not None and end.id in before]
    order = {net.id: place for place, net in enumerate(nets.nets)}
    circuit_nets = [net for net in near if circuit_of(net.id.device) == circuit]
    return before[min(circuit_nets, key=lambda net: order[net.id]).id] if circuit_nets else ""


def _marks(
    nets: Iterable[Net], number: dict[PinRef, str], given: tuple[GivenNumber, ...], printed: set[str]
) -> dict[PinRef, int]:
    """The ident of each pin within its net: kept while the pin stays; new ones count on, past what is printed."""
    old = {
        pin: mark for given_number in given for pin, mark in zip(given_number.pins, given_number.marks, strict=False)
    }
    marks: dict[PinRef, int] = {}
    for net in nets:
        used: set[int] = set()
        fresh: list[PinRef] = []
        for pin in net.pins:
            mark = old.get(pin, -1)
            if mark < 0 or mark in used:
                fresh.append(pin)
            else:
                marks[pin] = mark
                used.add(mark)
        following = max(used, default=-1) + 1
        for pin in fresh:
            while wire_number(number[net.id], following) in printed:
                following += 1
            marks[pin] = following
            following += 1
    return marks
