"""A panel with power on: operated step by step, with contacts that follow coils in their own time."""

import heapq
from collections import Counter, defaultdict
from dataclasses import dataclass

from riktig.core.circuit import Circuits, Nets
from riktig.core.energise.conductors import Conductor, drawn_conductors
from riktig.core.energise.figures import BY_HAND, QUICK, TIMERS
from riktig.core.energise.forest import NONE, Forest
from riktig.core.energise.network import MAINS, Network, Pole, build_network
from riktig.core.energise.state import Hands, Stage, is_closed
from riktig.core.energise.volts import Volts
from riktig.core.job import DeviceId, Supply

__all__ = ["Event", "Panel"]

MOST_TURNS = 12
"""How often one device may move after one operation until it counts as never coming to rest (chosen by us)."""
_TIMED = ("timer", "timer_on")
_WATCHED = ("drive", "phase_monitor", "motor", "motor6", "load_three")
"""Kinds that look at which line is where, not only at a voltage."""


@dataclass(frozen=True, slots=True)
class Event:
    """Something that happened: when, s since power came on; ``text`` holds device ids in braces."""

    at_s: float
    text: str
    device: DeviceId | None = None
    wrong: bool = False


class Panel:
    """A panel that is operated. Change ``hands``, then ``settle``; or ``wait`` for time to pass.

    Method:
        Contacts open before others close, each device in its own time; what moves at the same instant
        moves together. After each instant only the points behind what moved are worked out anew.
    """

    def __init__(
        self,
        circuits: Circuits,
        nets: Nets,
        supply: Supply | None = None,
        control_v: float = 230.0,
        conductors: tuple[Conductor, ...] = (),
    ) -> None:
        self.circuits, self.nets = circuits, nets
        self.network: Network = build_network(
            circuits, nets, supply or Supply(), control_v, conductors or drawn_conductors(nets)
        )
        self.hands = Hands()
        self.clock_s = 0.0
        self.shorts: list[str] = []
        self.restless: tuple[DeviceId, ...] = ()
        self.events: list[Event] = []
        self.changed: set[int] = set()
        self.forest = Forest(self.network.count, self.network.contacts)
        self.volts = Volts(self.network, self.forest)
        self.fed: list[bool] = [False] * len(self.network.consumers)
        self.stage: dict[DeviceId, Stage] = defaultdict(lambda: Stage.OUT)
        self._driven: dict[DeviceId, bool] = {}
        self._coil: dict[DeviceId, bool] = {}
        self._round: dict[DeviceId, int] = defaultdict(int)
        self._quick: list[tuple[float, DeviceId, Stage, int]] = []
        self._slow: list[tuple[float, DeviceId, Stage, int]] = []
        self._contacts: dict[DeviceId, list[int]] = defaultdict(list)
        for number, contact in enumerate(self.network.contacts):
            self._contacts[contact.device].append(number)
        self._consumer = {(one.device, one.unit): n for n, one in enumerate(self.network.consumers)}
        self._units = {(d.id, u.name): u for d in circuits.devices for u in d.kind.units}
        self._watch: dict[int, set[DeviceId]] = defaultdict(set)
        for device in circuits.devices:
            if device.kind_id in _WATCHED:
                for pin in device.kind.pins:
                    at = self.network.at(device.id, pin.name)
                    if at is not None:
                        self._watch[at].add(device.id)
        self._controllers = [d.id for d in circuits.devices if d.kind_id == "controller"]
        self._turning: dict[DeviceId, str] = {}
        self._was = Hands()
        self._stale: set[DeviceId] = set(self._contacts)
        self.settle()
        self.events.clear()

    @property
    def fed_units(self) -> set[tuple[DeviceId, str]]:
        """The consumers that work: device and unit."""
        return {(one.device, one.unit) for one, fed in zip(self.network.consumers, self.fed, strict=True) if fed}

    @property
    def on(self) -> set[DeviceId]:
        """The devices that are in, lit, running or fed."""
        devices = self.network.devices
        fed = {did for did, _ in self.fed_units if devices[did].kind_id not in ("motor", "motor6", "load_three")}
        return fed | {did for did, turns in self._turning.items() if turns != "off"}

    def is_fed(self, device: DeviceId, unit: str = "A1-A2") -> bool:
        """Whether a coil, lamp or input works."""
        number = self._consumer.get((device, unit))
        return number is not None and self.fed[number]

    def settle(self) -> None:
        """Lets everything that follows follow, until nothing moves or it is clear that it never will."""
        self._begin()
        self._run(self.clock_s)

    def wait(self, seconds: float) -> None:
        """Lets time pass: timers run out."""
        self._begin()
        until = self.clock_s + seconds
        self._run(until)
        self.clock_s = max(self.clock_s, until)

    def _begin(self) -> None:
        self.shorts, self.restless, self.changed = [], (), set()
        self._stale |= self._moved_by_hand()
        for did in sorted(self._stale & set(self.network.devices)):
            kind = self.network.devices[did].kind
            if kind.has_coil or kind.id == "phase_monitor":
                self._drive(did, fed=self._coil.get(did, False))
        for did, driven in self._driven.items():
            at_rest = self.stage[did] == (Stage.IN if driven else Stage.OUT) or did in self._timers()
            if not at_rest and not any(one[1] == did and one[3] == self._round[did] for one in self._quick):
                self._schedule(did, on=driven)

    def _timers(self) -> set[DeviceId]:
        return {did for did in self._driven if self.network.devices[did].kind_id in _TIMED}

    def _moved_by_hand(self) -> set[DeviceId]:
        """The devices whose contacts may stand otherwise than when it was last looked."""
        now, was = self.hands, self._was
        found: set[DeviceId] = set()
        for name in ("pressed", "opened", "tripped", "pushed", "foreign"):
            found |= getattr(now, name) ^ getattr(was, name)
        for name in ("pressed_units", "outputs", "blown", "welded", "dead"):
            found |= {did for did, _ in getattr(now, name) ^ getattr(was, name)}
        found |= {did for did, _ in now.position.items() ^ was.position.items()}
        self.volts.broken = {self._consumer[one] for one in now.dead if one in self._consumer}
        if now.dead != was.dead:
            ends = [self.network.consumers[self._consumer[o]] for o in now.dead ^ was.dead if o in self._consumer]
            self._recheck(self.volts.update({point for one in ends for point in (one.a, one.b)}))
        self._was = Hands(
            set(now.pressed), set(now.pressed_units), dict(now.position), set(now.opened), set(now.tripped),
            set(now.lost), set(now.outputs), set(now.foreign), set(now.pushed), set(now.blown), set(now.welded),
            set(now.dead), dict(now.reference),
        )  # fmt: skip
        return found

    def _run(self, until: float) -> None:
        turns: Counter[DeviceId] = Counter()
        self._flow()
        while True:
            batch = self._next(until)
            if not batch:
                return
            for did, stage in batch:
                turns[did] += 1
                self._move(did, stage)
            never = sorted(did for did, count in turns.items() if count > MOST_TURNS)
            if never:
                self._give_up(tuple(never), turns)
                return
            self._flow()

    def _next(self, until: float) -> list[tuple[DeviceId, Stage]]:
        """What moves at the next instant; timers only up to ``until``."""
        for queue in (self._quick, self._slow):
            while queue and queue[0][3] != self._round[queue[0][1]]:
                heapq.heappop(queue)
        due = self._slow[0][0] if self._slow else float("inf")
        first = self._quick[0][0] if self._quick else float("inf")
        queue = self._quick if first <= due else self._slow
        at = min(first, due)
        if not queue or (queue is self._slow and due > max(until, self.clock_s) + 1e-9):
            return []
        self.clock_s = max(self.clock_s, at)
        batch = []
        while queue and queue[0][0] <= at + 1e-9:
            _, did, stage, number = heapq.heappop(queue)
            if number == self._round[did]:
                batch.append((did, stage))
        return batch

    def _move(self, did: DeviceId, stage: Stage) -> None:
        self.stage[did] = stage
        self._stale.add(did)
        timed = self.network.devices[did].kind_id in _TIMED
        if timed and stage == Stage.DONE:
            self._say(f"{{{did}}} has run out", did)
        elif not timed and stage in (Stage.IN, Stage.OUT):
            self._say(f"{{{did}}} {'in' if stage == Stage.IN else 'out'}", did)

    def _give_up(self, never: tuple[DeviceId, ...], turns: Counter[DeviceId]) -> None:
        """What never comes to rest: said with what opens its path, and left as it is."""
        self.restless = never
        self._quick.clear()
        names = " and ".join(f"{{{did}}}" for did in never)
        if len(never) > 1:
            text = f"Race: {names} are fed at the same instant, and each opens the other's path. Chance decides."
        else:
            text = f"{names} never comes to rest: it opens the path of its own coil ({turns[never[0]]} times)."
        self._say(text, never[0], wrong=True)

    def _flow(self) -> None:
        """Everything that follows at once from what moved."""
        for _ in range(50):
            opened: list[int] = []
            closed: list[int] = []
            for did in sorted(self._stale):
                for number in self._contacts[did]:
                    (closed if self._closed(number) else opened).append(number)
            self._stale.clear()
            poles = tuple(self._poles())
            dirty = self.forest.change(opened, closed, {pole.point for pole in poles})
            same = poles == self.volts.poles
            if not same:
                self.volts.set_poles(poles)
            if not same or self.volts.tie():
                self.volts.tie()
                dirty = set(range(self.network.count))
            if not dirty:
                return
            self.changed |= dirty
            self._recheck(self.volts.update(dirty))
            self._react({did for point in dirty for did in self._watch[point]})
            self._check_shorts()
            if not self._stale:
                return

    def _closed(self, number: int) -> bool:
        one = self.network.contacts[number]
        device = self.network.devices[one.device]
        powered = True
        if device.kind_id == "outputs":
            powered = any(self.is_fed(did, "24-0") for did in self._controllers) or not self._controllers
        elif device.kind_id == "sensor":
            powered = self.is_fed(one.device, "P-M")
        unit = self._units[one.device, one.unit]
        return is_closed(self.hands, device, unit, self.stage[one.device], powered=powered)

    def _poles(self) -> list[Pole]:
        """The poles that give voltage now."""
        found = []
        for pole in self.network.poles:
            owner, _, channel = pole.system.partition(":")
            device = self.network.devices.get(DeviceId(owner))
            if pole.system == MAINS:
                alive = pole.name not in self.hands.lost
            elif device is None or device.id in self.hands.lost:
                alive = False
            elif device.kind_id == "transformer":
                alive = self.is_fed(device.id, "1-3")
            elif device.kind_id == "dc_supply":
                alive = self.is_fed(device.id, "L-N")
            elif device.kind_id == "foreign_source":
                alive = device.id in self.hands.foreign
            elif device.kind_id == "soft_starter":
                alive = self.is_fed(device.id)
            elif device.kind_id == "drive":
                alive = self.lines(device.id, ("L1", "L2", "L3")) != ""
            else:
                alive = any(self.is_fed(did, "24-0") for did in self._controllers)
                share = self.hands.reference.get(pole.system, 0.0)
                pole = pole if pole.is_zero else Pole(pole.system, pole.name, pole.point, pole.ac, pole.dc * share)
            if alive:
                found.append(pole)
        return found

    def _recheck(self, consumers: set[int]) -> None:
        """Which consumers work now, and what follows for their devices."""
        devices: set[DeviceId] = set()
        for number in consumers:
            one = self.network.consumers[number]
            share = self.volts.across[number] / one.volts
            now = share >= (one.hold if self.fed[number] else one.pick)
            if now != self.fed[number]:
                self.fed[number] = now
                devices.add(one.device)
        self._react(devices)

    def _react(self, devices: set[DeviceId]) -> None:
        for did in sorted(devices):
            device = self.network.devices[did]
            kind = device.kind
            if kind.is_motor or kind.id == "load_three":
                self._turn(did)
                continue
            if kind.id in ("controller", "sensor", "inputs", "lamp"):
                self._stale |= {did, *(d for d in self._contacts if self.network.devices[d].kind_id == "outputs")}
            if kind.id == "phase_monitor":
                watched = [n for n, one in enumerate(self.network.consumers) if one.device == did]
                driven = all(self.fed[n] for n in watched) and self.lines(did, ("L1", "L2", "L3")) == "forward"
            elif kind.id == "soft_starter":
                driven = self.is_fed(did) and self.is_fed(did, "S1-S2")
                self._stale.add(did)
            elif kind.id == "drive":
                driven = self.lines(did, ("L1", "L2", "L3")) != "" and (
                    self.is_fed(did, "R1-0") or self.is_fed(did, "R2-0")
                )
                self._stale.add(did)
            elif kind.has_coil:
                driven = self.is_fed(did)
            else:
                if kind.id in ("transformer", "dc_supply", "foreign_source"):
                    self._stale.add(did)
                continue
            self._drive(did, fed=driven)

    def _drive(self, did: DeviceId, *, fed: bool) -> None:
        """What moves a device's contacts: its coil or electronics, or a finger on its armature."""
        self._coil[did] = fed
        hand = did in self.hands.pushed
        if (fed or hand) != self._driven.get(did, False):
            self._driven[did] = fed or hand
            self._schedule(did, on=fed or hand, by_hand=hand and not fed)

    def _schedule(self, did: DeviceId, *, on: bool, by_hand: bool = False) -> None:
        self._round[did] += 1
        kind, at, stage = self.network.devices[did].kind_id, self.clock_s, self.stage[did]
        quick = BY_HAND if by_hand else QUICK.get(kind.split("_with_")[0], QUICK[""])
        if kind in _TIMED:
            delay, pause = TIMERS[kind]
            if on:
                self._push(self._quick, at + quick.leaves, did, Stage.WAY)
                self._push(self._slow, at + delay, did, Stage.IN)
                self._push(self._slow, at + delay + pause, did, Stage.DONE)
            else:
                self._push(self._quick, at + quick.falls, did, Stage.OUT)
        elif on and stage != Stage.IN:
            if stage == Stage.OUT:
                self._push(self._quick, at + quick.leaves, did, Stage.WAY)
            self._push(self._quick, at + quick.arrives - (quick.leaves if stage else 0.0), did, Stage.IN)
        elif not on and stage != Stage.OUT:
            if stage == Stage.IN:
                self._push(self._quick, at + quick.falls, did, Stage.WAY)
            self._push(self._quick, at + quick.rests - (quick.falls if stage == Stage.WAY else 0.0), did, Stage.OUT)

    def _push(
        self, queue: list[tuple[float, DeviceId, Stage, int]], at: float, did: DeviceId, stage: Stage
    ) -> None:
        heapq.heappush(queue, (round(at, 6), did, stage, self._round[did]))

    def _check_shorts(self) -> None:
        """Poles of one supply that meet: what guards them opens, and it is said where."""
        for number in sorted(self.forest.crossings):
            one = self.network.contacts[number]
            a, b = self.forest.root[one.a], self.forest.root[one.b]
            if NONE in (a, b) or self.volts.between(one.a, one.b) < 1.0:
                continue
            ends = [self.volts.pole_at(point) for point in (one.a, one.b)]
            poles = sorted(pole.name for pole in ends if pole)
            met = f"{poles[0]} meets {poles[1]}"
            way = [*reversed(self.forest.way(one.a)), number, *self.forest.way(one.b)]
            guard = self._guard(way)
            if met not in self.shorts:
                self.shorts.append(met)
            through = ", ".join(self._called(n) for n in way if not self._protects(n))
            if guard is not None:
                self.hands.tripped.add(guard)
                self._was.tripped.add(guard)
                self._stale.add(guard)
                said = f"{{{guard}}} trips"
            else:
                self.hands.lost |= {pole.name if pole.system == MAINS else pole.system for pole in ends if pole}
                said = "nothing in the panel guards it: the feed's own protection goes"
            self._say(f"Short circuit: {met} through {through}; {said}", one.device, wrong=True)
            self._stale.add(one.device)
            return

    def _protects(self, number: int) -> bool:
        return self.network.devices[self.network.contacts[number].device].kind.is_protective

    def _guard(self, way: list[int]) -> DeviceId | None:
        """Of the protective devices on a way between two poles the one nearest its middle: nearest the fault."""
        there = [place for place, number in enumerate(way) if self._protects(number)]
        if not there:
            return None
        place = max(there, key=lambda n: (min(n, len(way) - 1 - n), -n))
        return self.network.contacts[way[place]].device

    def _called(self, number: int) -> str:
        one = self.network.contacts[number]
        return f"{{{one.device}}} {one.unit}"

    def _turn(self, did: DeviceId) -> None:
        was, now = self._turning.get(did, "off"), self.turns(did)
        if now != was:
            self._turning[did] = now
            self._say(f"{{{did}}} {'stands' if now == 'off' else f'runs {now}'}", did)

    def _say(self, text: str, device: DeviceId | None = None, *, wrong: bool = False) -> None:
        self.events.append(Event(round(self.clock_s, 4), text, device, wrong))

    def source_of(self, point: int) -> Pole | None:
        """The pole that reaches a point through contacts."""
        return self.volts.pole_at(point)

    def alive(self, node: str) -> bool:
        """Whether a named node is joined to a pole of any supply."""
        net = next((one for one in self.nets.nets if node in one.nodes), None)
        return net is not None and self.source_of(self.network.point[net.id]) is not None

    def lines(self, device: DeviceId, pins: tuple[str, str, str]) -> str:
        """The order in which three pins have the three lines: forward or reverse; empty when one is missing."""
        found = []
        for pin in pins:
            at = self.network.at(device, pin)
            pole = self.source_of(at) if at is not None else None
            if pole is None or pole.system != MAINS or pole.is_zero:
                return ""
            found.append(pole.name[-1])
        if len(set(found)) < 3:
            return ""
        return "forward" if "".join(found) in ("123", "231", "312") else "reverse"

    def turns(self, device: DeviceId) -> str:
        """“forward”, “reverse”, “star”, “delta” or “off”: what a motor does; “on” for another load of three lines."""
        kind = self.network.devices[device].kind
        if kind.id == "load_three":
            return "on" if self.lines(device, ("L1", "L2", "L3")) else "off"
        way = self.lines(device, ("U1", "V1", "W1"))
        if not way or not any(pin.name == "W2" for pin in kind.pins):
            return way or "off"
        tails = [self.network.at(device, pin) for pin in ("W2", "U2", "V2")]
        if None in tails:
            return "off"
        first, second, third = (int(point) for point in tails if point is not None)
        if self.forest.root[first] == NONE and {second, third} <= self.forest.joined(first):
            return "star"
        return "delta" if self.lines(device, ("U2", "V2", "W2")) else "off"
