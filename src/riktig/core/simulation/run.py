"""A panel with power on: operated step by step, with contacts that follow coils in their own time."""

from collections import Counter, defaultdict
from collections.abc import Callable, Mapping
from copy import copy, deepcopy
from dataclasses import dataclass

from riktig.core.catalogue import Behaviour, Can, Part
from riktig.core.job import DeviceId, Supply
from riktig.core.schematic import Circuits, Nets
from riktig.core.simulation.conductors import Conductor, drawn_conductors
from riktig.core.simulation.connectivity import Connectivity
from riktig.core.simulation.electronics import Channels, is_driven
from riktig.core.simulation.event_queue import EventQueue
from riktig.core.simulation.interlock_check import interlock_fault
from riktig.core.simulation.network import Network, SupplyPole, build_network
from riktig.core.simulation.phase_rotation import rotation_of
from riktig.core.simulation.poles_alive import poles_alive
from riktig.core.simulation.shorts import find_short
from riktig.core.simulation.state import ContactStage, OperatorState, is_closed
from riktig.core.simulation.volts import Volts

__all__ = ["Event", "Panel"]

MOST_TURNS = 12
"""How often one device may move after one operation until it counts as never coming to rest (chosen by us)."""


@dataclass(frozen=True, slots=True)
class Event:
    """Something that happened: when, s since power came on; ``text`` holds device ids in braces."""

    at_s: float
    text: str
    device: DeviceId | None = None
    wrong: bool = False


class Panel:
    """A panel that is operated. Change ``operator_state``, then ``run_until_stable``; or ``wait`` for time to pass.

    Method:
        Contacts open before others close, each device in its own time; what moves at the same instant
        moves together. After each instant only the points behind what moved are worked out anew;
        ``after_each`` is called each time.
    """

    def __init__(
        self,
        circuits: Circuits,
        nets: Nets,
        supply: Supply | None = None,
        control_v: float = 230.0,
        conductors: tuple[Conductor, ...] = (),
        parts: Mapping[DeviceId, Part] | None = None,
    ) -> None:
        self.circuits, self.nets = circuits, nets
        self.conductors = conductors or drawn_conductors(nets)
        self.network: Network = build_network(
            circuits, nets, supply or Supply(), control_v, self.conductors, parts or {}
        )
        self.operator_state = OperatorState()
        self.clock_s = 0.0
        self.steps = 0
        self.shorts: list[str] = []
        self.restless: tuple[DeviceId, ...] = ()
        self.events: list[Event] = []
        self.after_each: Callable[[], None] | None = None
        self.connectivity = Connectivity(self.network.count, self.network.contacts)
        self.volts = Volts(self.network, self.connectivity)
        self.fed: list[bool] = [False] * len(self.network.consumers)
        self.stage: dict[DeviceId, ContactStage] = defaultdict(lambda: ContactStage.OUT)
        self._driven: dict[DeviceId, bool] = {}
        self._coil: dict[DeviceId, bool] = {}
        self._unfinished: tuple[DeviceId, ...] = ()
        self._known: tuple[SupplyPole, ...] | None = None
        self._clockwork = EventQueue()
        self._contacts: dict[DeviceId, list[int]] = defaultdict(list)
        for number, contact in enumerate(self.network.contacts):
            self._contacts[contact.device].append(number)
        self.contact = {(contact.device, contact.unit): n for n, contact in enumerate(self.network.contacts)}
        self._consumer = {(consumer.device, consumer.unit): n for n, consumer in enumerate(self.network.consumers)}
        self.units = {(d.id, u.name): u for d in circuits.devices for u in d.kind.units}
        self._coiled = {d.id for d in circuits.devices if d.kind.has_coil or d.kind.can(Can.WATCHES_PHASES)}
        coiled = {device_id for device_id in self._coiled if not self._moves_by_itself(device_id)}
        self._plain = {
            number: self.units[contact.device, contact.unit].behaviour
            for number, contact in enumerate(self.network.contacts)
            if contact.device in coiled and self.units[contact.device, contact.unit].symbol != "trip"
        }
        """The contacts that only follow a coil."""
        self._watch: dict[int, set[DeviceId]] = defaultdict(set)
        for device in circuits.devices:
            if device.kind.can(Can.WATCHES_LINES):
                for pin in device.kind.pins:
                    at = self.network.at(device.id, pin.name)
                    if at is not None:
                        self._watch[at].add(device.id)
        self.controllers = [d.id for d in circuits.devices if d.kind.can(Can.CONTROLLER)]
        self._outputs = {d.id for d in circuits.devices if d.kind.can(Can.GIVES_OUTPUTS)}
        self._mates = {device_id: tied - {device_id} for tied in map(frozenset, circuits.tied) for device_id in tied}
        self.channels = {d.id: Channels() for d in circuits.devices if d.kind.can(Can.TWO_CHANNELS)}
        self._turning: dict[DeviceId, str] = {}
        self._was = OperatorState()
        self._stale: set[DeviceId] = set(self._contacts)
        self._bridged: list[int] = []
        self.run_until_stable()
        self.events = [event for event in self.events if event.wrong]

    def _moves_by_itself(self, did: DeviceId) -> bool:
        """Whether contacts do not simply follow a coil: of a timer, a phase monitor, a safety relay."""
        kind = self.network.devices[did].kind
        return kind.timer is not None or kind.can(Can.WATCHES_PHASES) or kind.can(Can.TWO_CHANNELS)

    @property
    def fed_units(self) -> set[tuple[DeviceId, str]]:
        """The consumers that work: device and unit."""
        return {
            (consumer.device, consumer.unit)
            for consumer, fed in zip(self.network.consumers, self.fed, strict=True)
            if fed
        }

    @property
    def on(self) -> set[DeviceId]:
        """The devices that are in, lit, running or fed."""
        devices = self.network.devices
        fed = {device_id for device_id, _ in self.fed_units if not devices[device_id].kind.can(Can.ON_THREE_LINES)}
        fed -= {device_id for device_id in self.channels if self.stage[device_id] != ContactStage.IN}
        return fed | {device_id for device_id, turns in self._turning.items() if turns != "off"}

    def is_fed(self, device: DeviceId, unit: str = "A1-A2") -> bool:
        """Whether a coil, lamp or input works."""
        number = self._consumer.get((device, unit))
        return number is not None and self.fed[number]

    def take_state(self, before: "Panel") -> None:
        """Stands as another panel stood: its time, where coils and timers are, and what worked."""
        there = set(self.network.devices)
        self.clock_s = before.clock_s
        self.stage.update({device_id: stage for device_id, stage in before.stage.items() if device_id in there})
        self._driven.update({device_id: on for device_id, on in before._driven.items() if device_id in there})
        self._coil.update({device_id: on for device_id, on in before._coil.items() if device_id in there})
        self._clockwork = before._clockwork.only(there)
        self.channels.update(
            {device_id: channel for device_id, channel in before.channels.items() if device_id in self.channels}
        )
        for key, number in self._consumer.items():
            if key in before._consumer:
                self.fed[number] = before.fed[before._consumer[key]]
        self._known, self._stale = None, set(self._contacts)
        self.volts.set_poles(())  # so that every consumer is looked at anew

    def fork(self) -> "Panel":
        """A panel that stands as this one does and is operated on its own from now on; nobody watches it."""
        fork = copy(self)
        fork.operator_state, fork._was = self.operator_state.copy(), self._was.copy()
        fork.shorts, fork.events, fork.after_each = list(self.shorts), list(self.events), None
        fork.connectivity = self.connectivity.fork()
        fork.volts = self.volts.fork(fork.connectivity)
        fork.fed, fork._stale, fork._bridged = list(self.fed), set(self._stale), []
        fork.stage, fork._driven, fork._coil = self.stage.copy(), dict(self._driven), dict(self._coil)
        fork._turning, fork.channels = dict(self._turning), deepcopy(self.channels)
        fork._clockwork = self._clockwork.only(set(self.network.devices))
        return fork

    def bridge(self, first: int, last: int) -> None:
        """Lays a piece of metal across two points of the network and lets everything follow."""
        self._bridged.append(self.connectivity.bridge(first, last))
        self.run_until_stable()

    def share(self, device: DeviceId, unit: str) -> float:
        """The voltage across a consumer as a share of its own, such as a drive's speed reference of 10 V."""
        number = self._consumer.get((device, unit))
        return self.volts.across[number] / self.network.consumers[number].volts if number is not None else 0.0

    def run_until_stable(self) -> None:
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
        self.shorts, self.restless = [], ()
        self.steps += 1
        self.operator_state.tie_handles(self._was, self._mates)
        self._stale |= self._moved_by_hand()
        for device_id in sorted(self._stale & self._coiled):
            self._drive(device_id, fed=self._coil.get(device_id, False))
        for device_id in self._unfinished:
            driven = self._driven.get(device_id, False)
            if self.stage[device_id] != (ContactStage.IN if driven else ContactStage.OUT):
                self._schedule(device_id, on=driven, by_hand=False)
        self._unfinished = ()
        self._known = None

    def _moved_by_hand(self) -> set[DeviceId]:
        """The devices whose contacts may stand otherwise than when it was last looked."""
        now, was = self.operator_state, self._was
        device_ids: set[DeviceId] = set()
        for name in ("pressed", "opened", "tripped", "pushed", "foreign"):
            device_ids |= getattr(now, name) ^ getattr(was, name)
        for name in ("pressed_units", "outputs", "blown", "welded", "dead", "stuck", "changed_over"):
            device_ids |= {device_id for device_id, _ in getattr(now, name) ^ getattr(was, name)}
        device_ids |= {device_id for device_id, _ in now.position.items() ^ was.position.items()}
        self.volts.broken = {self._consumer[key] for key in now.dead if key in self._consumer}
        if now.dead != was.dead:
            ends = [self.network.consumers[self._consumer[o]] for o in now.dead ^ was.dead if o in self._consumer]
            self._recheck(self.volts.update({point for end in ends for point in (end.a, end.b)}))
        self._was = now.copy()
        return device_ids

    def _run(self, until: float) -> None:
        turns: Counter[DeviceId] = Counter()
        self._flow()
        while True:
            at, batch = self._clockwork.next(self.clock_s, until)
            if not batch:
                return
            self.clock_s = max(self.clock_s, at)
            for device_id, stage in batch:
                turns[device_id] += 1
                self._move(device_id, stage)
            never = sorted(device_id for device_id, count in turns.items() if count > MOST_TURNS)
            if never:
                self._give_up(tuple(never), turns)
                return
            self._flow()

    def _move(self, did: DeviceId, stage: ContactStage) -> None:
        self.stage[did] = stage
        self._stale.add(did)
        timed = self.network.devices[did].kind.can(Can.TIMED)
        if timed and stage == ContactStage.DONE:
            self._say(f"{{{did}}} has run out", did)
        elif not timed and stage in (ContactStage.IN, ContactStage.OUT):
            self._say(f"{{{did}}} {'in' if stage == ContactStage.IN else 'out'}", did)
            if stage == ContactStage.IN:
                wrong = interlock_fault(self.network, self.connectivity, self.volts, self.stage, did)
                if wrong:
                    self._say(wrong, did, wrong=True)

    def _give_up(self, never: tuple[DeviceId, ...], turns: Counter[DeviceId]) -> None:
        """What never comes to rest: said with what opens its path, and left as it is."""
        self.restless = never
        self._unfinished = self._clockwork.stop()
        names = " and ".join(f"{{{device_id}}}" for device_id in never)
        if len(never) > 1:
            text = f"Race: {names} are fed at the same instant, and each opens the other's path. Chance decides."
        else:
            text = f"{names} never comes to rest: it opens the path of its own coil ({turns[never[0]]} times)."
        self._say(text, never[0], wrong=True)

    def _flow(self) -> None:
        """Everything that follows at once from what moved."""
        for _ in range(50):
            opened: list[int] = []
            closed, self._bridged = self._bridged, []
            for device_id in sorted(self._stale):
                for number in self._contacts[device_id]:
                    (closed if self._closed(number) else opened).append(number)
            self._stale.clear()
            poles = self._known = tuple(poles_alive(self)) if self._known is None else self._known
            dirty = self.connectivity.change(opened, closed, {pole.point for pole in poles})
            same = poles == self.volts.poles
            if not same:
                self.volts.set_poles(poles)
            if not same or self.volts.tie():
                self.volts.tie()
                dirty = set(range(self.network.count))
            if not dirty:
                return
            self._recheck(self.volts.update(dirty))
            self._react({device_id for point in dirty for device_id in self._watch[point]})
            self._check_shorts()
            if self.after_each:
                self.after_each()
            if not self._stale:
                return

    def _closed(self, number: int) -> bool:
        contact = self.network.contacts[number]
        behaviour = self._plain.get(number)
        state = self.operator_state
        if behaviour is not None and not (state.welded or state.stuck or state.changed_over):
            return self.stage[contact.device] == (ContactStage.IN if behaviour is Behaviour.NO else ContactStage.OUT)
        device = self.network.devices[contact.device]
        powered = True
        if device.kind.can(Can.GIVES_OUTPUTS):
            powered = any(self.is_fed(device_id, "24-0") for device_id in self.controllers) or not self.controllers
        elif device.kind.can(Can.SENSOR):
            powered = self.is_fed(contact.device, "P-M")
        unit = self.units[contact.device, contact.unit]
        return is_closed(state, device, unit, self.stage[contact.device], powered=powered)

    def _recheck(self, consumers: set[int]) -> None:
        """Which consumers work now, and what follows for their devices."""
        devices: set[DeviceId] = set()
        for number in consumers:
            consumer = self.network.consumers[number]
            share = self.volts.across[number] / consumer.volts
            now = share >= (consumer.hold if self.fed[number] else consumer.pick)
            if now != self.fed[number]:
                self.fed[number] = now
                devices.add(consumer.device)
        self._react(devices)

    def _react(self, devices: set[DeviceId]) -> None:
        for device_id in sorted(devices):
            device = self.network.devices[device_id]
            kind = device.kind
            if kind.is_motor or kind.can(Can.THREE_LINE_LOAD):
                self._turn(device_id)
                continue
            if kind.can(Can.MAKES_POTENTIAL):
                self._known = None
            if kind.can(Can.CONTROLLER):
                self._stale |= self._outputs
            elif kind.can(Can.SENSOR):
                self._stale.add(device_id)
            driven = is_driven(self, device)
            if kind.can(Can.ELECTRONIC_STARTER):
                self._stale.add(device_id)
            if driven is None:
                if kind.can(Can.TRANSFORMS) or kind.can(Can.MAKES_DC) or kind.can(Can.FOREIGN_SUPPLY):
                    self._stale.add(device_id)
                continue
            self._drive(device_id, fed=driven)

    def _drive(self, did: DeviceId, *, fed: bool) -> None:
        """What moves a device's contacts: its coil or electronics, or a finger on its armature."""
        self._coil[did] = fed
        hand = did in self.operator_state.pushed
        if (fed or hand) != self._driven.get(did, False):
            self._driven[did] = fed or hand
            self._schedule(did, on=fed or hand, by_hand=hand and not fed)

    def _schedule(self, did: DeviceId, *, on: bool, by_hand: bool) -> None:
        kind = self.network.devices[did].kind
        self._clockwork.start(self.clock_s, did, kind, self.stage[did], on=on, by_hand=by_hand)

    def _check_shorts(self) -> None:
        """Poles of one supply that meet: what guards them opens, and it is said where."""
        short = find_short(self.network, self.connectivity, self.volts)
        if short is None:
            return
        if short.met not in self.shorts:
            self.shorts.append(short.met)
        if short.guard is not None:
            self.operator_state.tripped.add(short.guard)
            self._was.tripped.add(short.guard)
            self._stale.add(short.guard)
        else:
            self._known = None
            self.operator_state.lost |= short.supplies
        self._say(short.said, short.device, wrong=True)
        self._stale.add(short.device)

    def _turn(self, did: DeviceId) -> None:
        was, now = self._turning.get(did, "off"), self.turns(did)
        if now != was:
            self._turning[did] = now
            self._say(f"{{{did}}} {'stands' if now == 'off' else f'runs {now}'}", did)

    def _say(self, text: str, device: DeviceId | None = None, *, wrong: bool = False) -> None:
        self.events.append(Event(round(self.clock_s, 4), text, device, wrong))

    def source_of(self, point: int) -> SupplyPole | None:
        """The pole that reaches a point through contacts."""
        return self.volts.pole_at(point)

    def alive(self, node: str) -> bool:
        """Whether a named node is joined to a pole of any supply."""
        net = next((net for net in self.nets.nets if node in net.nodes), None)
        return net is not None and self.source_of(self.network.point[net.id]) is not None

    def turns(self, device: DeviceId) -> str:
        """“forward”, “reverse”, “star”, “delta” or “off”: what a motor does; “on” for another load of three lines."""
        return rotation_of(self.network, self.connectivity, self.volts, device)
