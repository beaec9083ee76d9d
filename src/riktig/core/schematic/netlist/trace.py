"""From anything back to its source, on to its load, and what makes it run, through relays and cards."""

from collections.abc import Sequence
from dataclasses import dataclass

from riktig.core.catalogue import Behaviour, Can, Unit
from riktig.core.job import DeviceId, ElementId, PinRef
from riktig.core.schematic.model.elements import Circuits, Device, Element
from riktig.core.schematic.netlist.nets import Nets
from riktig.core.schematic.netlist.supply_paths import Crossing, SupplyPaths
from riktig.core.schematic.netlist.unit_graph import PASS, TAKES

__all__ = ["Trace", "TraceStep", "Way", "trace", "trace_line"]

MOST_WAYS = 12
"""Ways on one page (chosen by us): a chain of relays longer than that is followed from its middle."""
MOST_OTHERS = 4
"""Other ways that let one coil in (chosen by us: hand, automatic, and two stations)."""
MOST_LOADS = 12
"""Loads named behind what was asked for (chosen by us: two lines of tags)."""


@dataclass(frozen=True, slots=True)
class TraceStep:
    """A device on a way. ``beside``: what else joins the same two potentials; ``asked``: what the trace is of."""

    crossing: Crossing
    element: ElementId | None
    beside: tuple[tuple[DeviceId, str], ...] = ()
    asked: bool = False


@dataclass(frozen=True, slots=True)
class Way:
    """From a source through devices to a load and back. ``why`` holds device ids in braces.

    ``begins`` and ``finishes`` are pins of sources; None where no source is reached. ``also`` are
    further loads behind what was asked for.
    """

    why: str
    begins: PinRef | None
    steps: tuple[TraceStep, ...]
    finishes: PinRef | None
    also: tuple[DeviceId, ...] = ()


@dataclass(frozen=True, slots=True)
class Trace:
    """The ways of one thing: its own first, then what lets in each relay on it, and so on."""

    paths: tuple[Way, ...]


class Tracer:
    """What every trace in one set of circuits looks up: the way of each pin, and what stands beside what."""

    def __init__(self, circuits: Circuits, nets: Nets) -> None:
        self.paths, self.nets = SupplyPaths(circuits), nets
        self.beside = _Beside(self.paths, nets)


def trace(tracer: Tracer, asked: DeviceId | PinRef, unit: str = "") -> Trace:
    """All ways that matter for a device, one of its units, or a pin.

    Method:
        The way back is the one with fewest devices from any source (a contact that only holds its
        own coil counts more); the way on leads to the nearest load that does not lie back. For
        each closing contact on a way that follows a coil, a run input or a card, the way that
        drives it is followed in turn.

    Args:
        tracer: What knows the ways to every pin.
        asked: A device, or a pin of one.
        unit: Of a device: the one meant; the most telling one when empty.

    Returns:
        At most 12 ways; none when nothing of it is drawn or it is not known.
    """
    return _Walk(tracer).of(asked, unit)


def trace_line(tracer: Tracer, pins: tuple[PinRef, ...], why: str) -> Trace:
    """All ways that matter for a wire or a potential: back from its nearest pin, on from its last.

    Args:
        tracer: What knows the ways to every pin.
        pins: The pins.
        why: Why it is traced.
    """
    return _Walk(tracer).of_line(pins, why)


class _Walk:
    def __init__(self, tracer: Tracer) -> None:
        self.paths, self.nets, self.beside = tracer.paths, tracer.nets, tracer.beside
        self.made: list[Way] = []

    def of_line(self, pins: tuple[PinRef, ...], why: str) -> Trace:
        """Of what lies between pins of one potential."""
        first = min(pins, key=self.paths.cost)
        self._passive(why, first, None, pins[-1] if len(pins) == 2 and first == pins[0] else pins[0])
        return self._followed()

    def of(self, asked: DeviceId | PinRef, unit: str) -> Trace:
        """Of a device, a unit of it, or a pin."""
        devices = self.paths.devices
        if isinstance(asked, PinRef):
            if asked.device in devices:
                self._pin(asked)
        elif asked in devices:
            self._device(devices[asked], unit)
        return self._followed()

    def _followed(self) -> Trace:
        """The ways made so far, and those of all that moves on them."""
        devices = self.paths.devices
        todo, seen = list(self.made), {_met(way) for way in self.made}
        while todo and len(self.made) < MOST_WAYS:
            for step in todo.pop(0).steps:
                for mover in self._movers(step):
                    for way in self._driving(devices[mover]):
                        if _met(way) not in seen and len(self.made) < MOST_WAYS:
                            seen.add(_met(way))
                            self.made.append(way)
                            todo.append(way)
        return Trace(tuple(self.made))

    def _device(self, device: Device, unit_name: str) -> None:
        drawn = [u for u in device.kind.units if (device.id, u.name) in self.paths.elements or self._fed_at(device, u)]
        if unit_name:
            drawn = [unit for unit in drawn if unit.name == unit_name]
        drawn.sort(key=lambda unit: _rank(device, unit))
        if not drawn:
            return
        if device.kind.point_pin is not None:
            for unit in drawn:
                self._unit(device, unit, f"{{{device.id}}} {unit.name}")
            return
        self._unit(device, drawn[0], "{" + device.id + "}")
        if drawn[0].behaviour is Behaviour.COIL:
            for unit in drawn[1:5]:
                self._unit(device, unit, f"What {{{device.id}}} {unit.name} operates")

    def _fed_at(self, device: Device, unit: Unit) -> bool:
        """Whether a motor, a terminal or a card has lines although no path crosses it."""
        is_fed_through = unit.behaviour in TAKES | {Behaviour.JOINT, Behaviour.WINDING, Behaviour.SOURCE}
        return is_fed_through and any(device.pin(pin) in self.nets.of_pin for pin in unit.pins)

    def _unit(self, device: Device, unit: Unit, why: str) -> None:
        first, last = device.pin(unit.pins[0]), device.pin(unit.pins[-1])
        if self.paths.takes(first):
            self.made.append(self._load(why, device, unit))
            self.made += self._others(device, unit)
            return
        if unit.behaviour is Behaviour.SOURCE:
            primary = self.paths.primary(first)
            crossing = Crossing(device.id, unit.name, primary, first) if primary else None
            self._passive(why, primary or first, crossing, first)
            return
        if unit.behaviour is Behaviour.JOINT:
            pins = [pin for pin in (device.pin(name) for name in unit.pins) if pin in self.nets.of_pin]
            first = min(pins, key=self.paths.cost)
            last = max(pins, key=self.paths.cost)
        elif self.paths.cost(last) < self.paths.cost(first):
            first, last = last, first
        self._passive(why, first, Crossing(device.id, unit.name, first, last), last)

    def _pin(self, pin: PinRef) -> None:
        owner, name = pin
        device = self.paths.devices[owner]
        unit = next((u for u in device.kind.units if name in u.pins and (owner, u.name) in self.paths.elements), None)
        unit = unit or next((u for u in device.kind.units if name in u.pins), None)
        if unit is not None:
            self._unit(device, unit, "{" + owner + "} " + unit.name)
        elif pin in self.nets.of_pin:
            self._passive("{" + owner + "} " + name, pin, None, pin)

    def _passive(self, why: str, first: PinRef, crossing: Crossing | None, last: PinRef) -> None:
        """What is no load itself: back from the nearer side, on from the other, and the load's way home."""
        begins, back, met = self.paths.back(first)
        asked = (self._step(crossing, asked=True),) if crossing else ()
        ahead = self.paths.on(last, lambda pin: self.paths.takes(pin) is not None, met | {first}, MOST_LOADS)
        feed = tuple(self._step(crossing) for crossing in back)
        if not ahead:
            self.made.append(Way(why, begins, (*feed, *asked), None))
            return
        pin, between = ahead[0]
        on = tuple(self._step(crossing) for crossing in between)
        also = tuple(dict.fromkeys(taken[0] for pin_ref, _ in ahead if (taken := self.paths.takes(pin_ref))))
        load = self._load_step(pin)
        others = tuple(device_id for device_id in also if device_id != load.crossing.device)
        if load.crossing.leaves == pin and load.crossing.enters != pin:
            source, ahead_of, _ = self.paths.back(load.crossing.enters)
            home = tuple(_turned(step) for step in reversed((*feed, *asked, *on)))
            steps = (*(self._step(crossing) for crossing in ahead_of), load, *home)
            self.made.append(Way(why, source, steps, begins, others))
            return
        finishes, home = self._home(load.crossing)
        self.made.append(Way(why, begins, (*feed, *asked, *on, load, *home), finishes, others))

    def _load(self, why: str, device: Device, unit: Unit) -> Way:
        load = self._load_step(device.pin(unit.pins[0]), asked=True)
        begins, back, _ = self.paths.back(load.crossing.enters)
        if begins is None:
            goal = load.crossing.leaves
            loop = self.paths.on(load.crossing.enters, lambda pin: pin == goal, frozenset())
            closed = tuple(self._step(crossing) for crossing in (loop[0][1] if loop else ()))
            return Way(why, None, (*closed, _turned(load)), None)
        finishes, home = self._home(load.crossing)
        return Way(why, begins, (*(self._step(crossing) for crossing in back), load, *home), finishes)

    def _others(self, device: Device, unit: Unit) -> list[Way]:
        """Other ways that let in a coil: by the automatic side of a selector, by floats, by a second station.

        Each contact of the nearest way is shut in turn, and it is looked how else the coil is reached from what lies
        ahead of it. A contact of the coil's own device holds it and lets nothing in; what stands beside a single
        contact is named there.
        """
        if unit.behaviour is not Behaviour.COIL:
            return []
        load = self._load_step(device.pin(unit.pins[0]), asked=False)
        begins, back, _ = self.paths.back(load.crossing.enters)
        other_pins = {device.pin(pin.name) for pin in device.kind.pins} - {load.crossing.enters}
        finishes, home = self._home(load.crossing)
        ways: list[Way] = []
        for place, crossing in enumerate(back):
            if not self._can_be_shut(crossing):
                continue
            ahead = {earlier.leaves: number for number, earlier in enumerate(back[:place])}
            blocked = frozenset({crossing.enters, crossing.leaves, *other_pins})
            reached = self.paths.on(load.crossing.enters, lambda pin, ahead=ahead: pin in ahead, blocked)  # type: ignore[misc]
            for pin, between in reached:
                other = (*back[: ahead[pin] + 1], *(passed.turned() for passed in reversed(between)))
                steps = tuple(self._step(passed) for passed in other)
                other_contacts = {(passed.device, passed.unit) for passed in other}
                new = other_contacts - {(passed.device, passed.unit) for passed in back}
                if new <= set(self._step(crossing).beside):
                    continue
                ways.append(Way(f"Another way that energises {{{device.id}}}", begins, (*steps, load, *home), finishes))
        return _unlike(ways)[:MOST_OTHERS]

    def _can_be_shut(self, crossing: Crossing) -> bool:
        """Whether it is a contact or a button, not a terminal, a fuse or a bar."""
        device = self.paths.devices[crossing.device]
        behaviour = device.kind.unit(crossing.unit).behaviour
        return behaviour in (Behaviour.NO, Behaviour.NC) and not device.strip

    def _load_step(self, pin: PinRef, *, asked: bool = False) -> TraceStep:
        taken = self.paths.takes(pin)
        assert taken is not None
        device, name = self.paths.devices[taken[0]], taken[1]
        unit = device.kind.unit(name)
        first, last = device.pin(unit.pins[0]), device.pin(unit.pins[-1])
        if unit.behaviour is Behaviour.WINDING or len(unit.pins) > 2:
            first, last = pin, last if pin != last else first
        return self._step(Crossing(device.id, name, first, last), asked=asked)

    def _home(self, load: Crossing) -> tuple[PinRef | None, tuple[TraceStep, ...]]:
        """The way from a load back to the other pole; a load of three lines has none."""
        device = self.paths.devices[load.device]
        if device.kind.is_motor or len(device.kind.unit(load.unit).pins) > 2:
            return None, ()
        pole, crossings, _ = self.paths.back(load.leaves)
        return pole, tuple(self._step(crossing.turned()) for crossing in reversed(crossings))

    def _driving(self, device: Device) -> list[Way]:
        """The ways that make the contacts of a device move: of its coil, of each of its inputs that is wired."""
        paths = []
        for unit in device.kind.units:
            if unit.behaviour is Behaviour.COIL and (device.id, unit.name) in self.paths.elements:
                paths.append(self._load(f"What energises {{{device.id}}}", device, unit))
                paths += self._others(device, unit)
            elif unit.behaviour is Behaviour.INPUT and device.pin(unit.pins[0]) in self.nets.of_pin:
                paths.append(self._load(f"What switches {{{device.id}}} {unit.name}", device, unit))
        return paths

    def _movers(self, step: TraceStep) -> list[DeviceId]:
        """The devices whose coil or input closes a step, or what stands beside it."""
        crossed = [(step.crossing.device, step.crossing.unit), *step.beside]
        return list(dict.fromkeys(device for device, unit in crossed if _follows(self.paths.devices[device], unit)))

    def _step(self, crossing: Crossing, *, asked: bool = False) -> TraceStep:
        element = self.paths.elements.get((crossing.device, crossing.unit))
        beside = self.beside.of(element) if element else ()
        return TraceStep(crossing, element.id if element else None, beside, asked)


class _Beside:
    """What stands beside each element, worked out for an element when first asked for."""

    def __init__(self, paths: SupplyPaths, nets: Nets) -> None:
        self._paths, self._nets = paths, nets
        self._found: dict[ElementId, tuple[tuple[DeviceId, str], ...]] = {}
        self._met: dict[ElementId, frozenset[frozenset[PinRef]]] = {}

    def of(self, element: Element) -> tuple[tuple[DeviceId, str], ...]:
        """What else joins the potentials on the two sides of an element. O(pins of the smaller side)."""
        if element.id not in self._found:
            self._found[element.id] = self._coils_across(element)
        return self._found[element.id]

    def _coils_across(self, element: Element) -> tuple[tuple[DeviceId, str], ...]:
        sides = self._sides(element)
        if not sides:
            return ()
        pins = [[pin for net in sorted(side) for pin in self._nets.of_pin[net].pins] for side in sides]
        coils: dict[ElementId, tuple[DeviceId, str]] = {}
        for pin in min(pins, key=len):
            owner = pin.device
            for unit in self._paths.devices[owner].kind.units:
                other = self._paths.elements.get((owner, unit.name))
                if other and other.id != element.id and self._sides(other) == sides:
                    coils.setdefault(other.id, (owner, unit.name))
        return tuple(coils.values())

    def _sides(self, element: Element) -> frozenset[frozenset[PinRef]]:
        """The net ids on the one side and on the other of what parts them; empty for anything else."""
        if element.id not in self._met:
            self._met[element.id] = self._parted(element)
        return self._met[element.id]

    def _parted(self, element: Element) -> frozenset[frozenset[PinRef]]:
        ends: tuple[set[PinRef], set[PinRef]] = (set(), set())
        for pole in element.poles:
            device = self._paths.devices[pole.device]
            unit = device.kind.unit(pole.unit)
            nets = [self._nets.of_pin.get(device.pin(name)) for name in (unit.pins[0], unit.pins[-1])]
            if unit.behaviour not in PASS or nets[0] is None or nets[1] is None:
                return frozenset()
            ends[pole.flipped].add(nets[0].id)
            ends[not pole.flipped].add(nets[1].id)
        return frozenset((frozenset(ends[0]), frozenset(ends[1])))


_MAIN = ("contactor", "drive", "soft")


def _rank(device: Device, unit: Unit) -> int:
    """Which unit of a device tells most of it: what it is there for first, then what it takes."""
    main = unit.behaviour in PASS and unit.symbol in _MAIN
    makes = unit.behaviour is Behaviour.SOURCE and not device.kind.can(Can.VARIES_SPEED)
    return 0 if main or makes else 1 if unit.behaviour in TAKES else 2


def _follows(device: Device, unit: str) -> bool:
    """Whether a contact closes because a coil or an input of its device is fed."""
    return device.kind.unit(unit).behaviour is Behaviour.NO and any(
        unit.behaviour in (Behaviour.COIL, Behaviour.INPUT) for unit in device.kind.units
    )


def _met(way: Way) -> tuple[Crossing, ...]:
    """What a way crosses: two ways that cross the same are one."""
    return tuple(step.crossing for step in way.steps)


def _unlike(ways: Sequence[Way]) -> list[Way]:
    """Each of these ways once."""
    return list({_met(way): way for way in ways}.values())


def _turned(step: TraceStep) -> TraceStep:
    return TraceStep(step.crossing.turned(), step.element, step.beside, step.asked)
