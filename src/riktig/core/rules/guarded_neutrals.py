"""Each neutral against what can return through it: the fullest line of all that is behind it."""

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass

from riktig.core.catalogue import Behaviour, Can, Unit
from riktig.core.job import CircuitId, DeviceId, PinRef
from riktig.core.rules.guarded_wires import TAKES, UNKNOWN, GuardedWires
from riktig.core.rules.view import View
from riktig.core.schematic import Device, Net, NetClass, Zone
from riktig.core.wiring import Wire

__all__ = ["fullest_line", "returned_currents", "shared_neutrals"]

Guards = tuple[tuple[DeviceId, float], ...]
"""Breakers ahead of something with what they open at, A, the one nearest the source first."""
Returns = dict[DeviceId, tuple[int, float, Guards]]
"""By device that returns there: the line that feeds it, how much it takes, A, and what guards it."""


def returned_currents(view: View, guarded: GuardedWires) -> Iterable[tuple[Wire, float]]:
    """Each wire of a neutral with the most that can return through it, A.

    Method:
        Loads on one line add up; of loads on different lines the largest line's sum counts, since the others may be
        switched off (IEC 60204-1 12.4, from memory). A coil or lamp counts what it draws, anything else what the
        breaker ahead of it lets through.

    Args:
        view: The panel as derived.
        guarded: Its live nets with what is ahead of each.
    """
    neutrals = _Neutrals(view, guarded)
    for net in view.nets.nets:
        if net.net_class is NetClass.NEUTRAL:
            yield from neutrals.of_net(net)


def shared_neutrals(view: View, guarded: GuardedWires) -> Iterable[tuple[Device, tuple[DeviceId, ...]]]:
    """Neutral terminals by which loads behind several breakers return that open one by one, with these breakers.

    Args:
        view: The panel as derived.
        guarded: Its live nets with what is ahead of each.
    """
    neutrals = _Neutrals(view, guarded)
    supply = {device.circuit for device in view.circuits.devices if device.kind.can(Can.SUPPLY)}
    for device in view.circuits.devices:
        net = view.nets.of_pin.get(device.pin("f"))
        if not device.kind.can(Can.NEUTRAL_TERMINAL) or device.circuit in supply or net is None:
            continue
        returns = neutrals.behind([device.pin("f")], net)
        nearest = dict.fromkeys(guards[-1][0] for _, _, guards in returns.values() if guards)
        if len(nearest) > 1 and not any(nearest.keys() <= set(tied) for tied in view.circuits.tied):
            yield device, tuple(nearest)


@dataclass(slots=True)
class _Neutrals:
    view: View
    guarded: GuardedWires

    def of_net(self, net: Net) -> Iterable[tuple[Wire, float]]:
        """The wires of one net, as a tree from where its current leaves for the source."""
        wires = [wire for wire in self.view.wiring.wires if wire.net == net.id]
        near: dict[object, list[tuple[object, Wire]]] = defaultdict(list)
        pins: dict[object, list[PinRef]] = defaultdict(list)
        for wire in wires:
            ends = [(self.guarded.place(end.pin, self.view.wiring), end.pin) for end in (wire.start, wire.end)]
            for (place, pin), (other, _) in (ends, ends[::-1]):
                near[place].append((other, wire))
                pins[place].append(pin)
        roots = [place for place, at in pins.items() if any(self._leaves(pin) for pin in at)]
        seen: set[object] = set(roots)
        order: list[tuple[object, object, Wire]] = []
        todo = list(roots)
        while todo:
            nearer = todo.pop()
            for other, wire in near[nearer]:
                if other not in seen:
                    seen.add(other)
                    order.append((nearer, other, wire))
                    todo.append(other)
        behind = {place: self.behind(at, net) for place, at in pins.items()}
        for nearer, other, wire in reversed(order):
            yield wire, fullest_line(behind[other])
            behind[nearer] = behind[nearer] | behind[other]

    def _leaves(self, pin: PinRef) -> bool:
        """Whether the current leaves a net there: the supply's own terminal, or the pole of a switch ahead of it."""
        device = self.view.circuits.device(pin.device)
        supply = {d.circuit for d in self.view.circuits.devices if d.kind.can(Can.SUPPLY)}
        if device.circuit in supply and device.strip:
            return True
        return any(self._onward(device, unit, pin) is not None for unit in device.kind.units)

    def _onward(self, device: Device, unit: Unit, pin: PinRef) -> Net | None:
        """The neutral nearer to the supply that a pole leads to from a pin."""
        if unit.behaviour is not Behaviour.POLE or pin.marking not in unit.pins:
            return None
        other = unit.pins[0] if unit.pins[-1] == pin.marking else unit.pins[-1]
        net, pin_net = self.view.nets.of_pin.get(device.pin(other)), self.view.nets.of_pin.get(pin)
        nearer = net is not None and pin_net is not None and "N" in net.nodes and "N" not in pin_net.nodes
        return net if nearer else None

    def behind(self, at: list[PinRef], net: Net, met: frozenset[PinRef] = frozenset()) -> Returns:
        """What returns at some pins of a net; ``met`` are the nets that were gone through to come here."""
        returns: Returns = {}
        for pin in dict.fromkeys(at):
            device = self.view.circuits.device(pin.device)
            for unit in device.kind.units:
                if pin.marking in unit.pins:
                    returns |= self._returned(device, unit, pin, net, met | {net.id})
            if device.strip:
                for outside in self._in_field(device, net):
                    returns |= {outside.id: self._from(outside, net)}
        return returns

    def _returned(self, device: Device, unit: Unit, pin: PinRef, net: Net, met: frozenset[PinRef]) -> Returns:
        if unit.behaviour in TAKES:
            return {device.id: self._from(device, net)}
        if unit.behaviour is not Behaviour.POLE:
            return {}
        other = unit.pins[0] if unit.pins[-1] == pin.marking else unit.pins[-1]
        further = self.view.nets.of_pin.get(device.pin(other))
        if further is None or further.id in met or "N" in further.nodes:
            return {}
        return self.behind(list(further.pins), further, met)

    def _from(self, device: Device, net: Net) -> tuple[int, float, Guards]:
        """By which line a device is fed, what it can return to a net, A, and what guards it."""
        for unit in device.kind.units:
            nets = [of for name in unit.pins if (of := self.view.nets.of_pin.get(device.pin(name)))]
            live = next((of for of in nets if of.id != net.id), None)
            if unit.behaviour not in TAKES or live is None or net.id not in {of.id for of in nets}:
                continue
            amps = self.guarded.ahead_of(live.id)
            draw = device.kind.draw
            if unit.behaviour in (Behaviour.COIL, Behaviour.LAMP) and draw is not None and not draw.dc:
                amps = min(amps, draw.va / self.view.supply.voltage_to_neutral_v)
            return self.guarded.line_of(live.id), amps, self.guarded.guards_of(live.id)
        return 0, 0.0, ()

    def _in_field(self, terminal: Device, net: Net) -> list[Device]:
        """What returns by a terminal: the cables that land on it, and loads that share its neutral in the field."""
        landed = [
            self.view.circuits.device(core.field_pin.device)
            for cable in self.view.strips.cables
            for core in cable.cores
            if core.panel_pin.device == terminal.id
        ]
        sharing = {load.id for load in self.view.loads if load.neutral_of == self._load_of(terminal.circuit)}
        joined = {size.circuit for size in self.view.sizing.loads if size.load in sharing}
        pins = (self.view.circuits.device(pin.device) for pin in net.pins)
        return [*landed, *(d for d in pins if d.zone is Zone.FIELD and d.circuit in joined)]

    def _load_of(self, circuit: CircuitId) -> object:
        size = self.view.sizing.load_of(circuit)
        return size.load if size else ""


def fullest_line(returns: Returns) -> float:
    """What can return by the fullest line, A: behind a breaker never more than it lets through."""
    by_line: dict[int, list[tuple[Guards, float]]] = defaultdict(list)
    for line, amps, guards in returns.values():
        by_line[line].append((guards, amps))
    return max(map(_capped, by_line.values()), default=0.0)


def _capped(drawn: list[tuple[Guards, float]]) -> float:
    total = 0.0
    behind: dict[tuple[DeviceId, float], list[tuple[Guards, float]]] = defaultdict(list)
    for guards, amps in drawn:
        if guards:
            behind[guards[0]].append((guards[1:], amps))
        else:
            total += 0.0 if amps == UNKNOWN else amps
    return total + sum(min(opens, _capped(further)) for (_, opens), further in behind.items())
