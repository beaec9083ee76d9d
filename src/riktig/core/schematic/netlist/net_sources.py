"""What each net is fed by: a neutral, direct current, or something that the main switch does not cut off."""

from collections import defaultdict
from collections.abc import Callable, Iterable, Mapping

from riktig.core.catalogue import Behaviour, Can
from riktig.core.job import PinRef, circuit_of
from riktig.core.schematic.model.elements import Circuits, Device

__all__ = ["NetSources"]

_PASSES = {Behaviour.POLE, Behaviour.NO, Behaviour.NC, Behaviour.HEATER}
_LINK = "link"
"""The symbol of what earths one side of a supply: it joins a potential to earth and feeds nothing."""
Passes = Callable[[Device, Behaviour], bool]


class NetSources:
    """By number of the net: which are neutrals, carry direct current, are earthed on purpose, stay live.

    Method:
        From every source along whatever can switch, as if it were closed. Never across a link to earth, an earth or
        the neutral: those are common to supplies that have nothing else in common.
    """

    def __init__(self, circuits: Circuits, root: Mapping[PinRef, int], names: Mapping[int, list[str]]) -> None:
        self._circuits, self._root = circuits, root
        nodes = {net: set(net_names) for net, net_names in names.items()}
        self._common = {net for net, net_names in nodes.items() if net_names & {"N", "PE"}}
        earth = {net for net, net_names in nodes.items() if "PE" in net_names}
        neutral = {net for net, net_names in nodes.items() if "N" in net_names} - earth
        ahead = {net for net, net_names in nodes.items() if any(node.startswith("in.") for node in net_names)}
        self.neutral = neutral | self._reached(neutral, lambda _, behaviour: behaviour is Behaviour.POLE)
        self.earthed = self._earthed(earth)
        self.dc = self._direct_current(nodes)
        self.excepted = self._excepted(ahead) - self.neutral
        self.stays_live = self.excepted | self._neutrals_of(self.excepted, neutral)

    def _ends(self, passes: Passes) -> dict[int, set[int]]:
        joined: dict[int, set[int]] = defaultdict(set)
        for device in self._circuits.devices:
            for unit, pins in device.unit_pins:
                if unit.behaviour in _PASSES and unit.symbol != _LINK and passes(device, unit.behaviour):
                    a, b = self._root.get(pins[0]), self._root.get(pins[-1])
                    if a is not None and b is not None:
                        joined[a].add(b)
                        joined[b].add(a)
        return joined

    def _reached(self, seeds: set[int], passes: Passes) -> set[int]:
        """What the seeds reach, without them and without what is common to several supplies."""
        if not seeds:
            return set()
        joined = self._ends(passes)
        seen, todo = set(seeds), list(seeds)
        while todo:
            fresh = joined.get(todo.pop(), set()) - seen - self._common
            seen |= fresh
            todo += fresh
        return seen - seeds

    def _nets(self, device: Device, pins: Iterable[str]) -> set[int]:
        return {self._root[pin] for name in pins if (pin := device.pin(name)) in self._root}

    def _earthed(self, earth: set[int]) -> set[int]:
        """The sides of supplies that a link joins to earth."""
        linked: set[int] = set()
        for device in self._circuits.devices:
            for unit, pins in device.unit_pins:
                if unit.symbol == _LINK:
                    ends = {self._root[pin] for pin in pins if pin in self._root}
                    linked |= ends - earth if ends & earth else set()
        return linked

    def _direct_current(self, nodes: Mapping[int, set[str]]) -> set[int]:
        seeds = {
            net for net, net_names in nodes.items() if any(node.startswith(("dc.", "limited.")) for node in net_names)
        }
        for device in self._circuits.devices:
            seeds |= self._nets(device, device.kind.dc_pins)
        seeds -= self._common
        return seeds | self._reached(seeds, lambda *_: True)

    def _excepted(self, ahead: set[int]) -> set[int]:
        """What stays live with the main switch off: tapped ahead of it, or fed by another panel.

        A transformer or supply that is fed so hands it on to its other side.
        """
        fed_elsewhere = {device.circuit for device in self._circuits.devices if device.kind.can(Can.SUPPLY)}
        tapped = any(net in ahead and circuit_of(pin.device) not in fed_elsewhere for pin, net in self._root.items())
        foreign: set[int] = set()
        for device in self._circuits.devices:
            if device.kind.can(Can.FOREIGN_SUPPLY):
                foreign |= self._nets(device, ("1", "2"))
        if not tapped and not foreign:
            return set()
        seeds = (ahead if tapped else set()) | foreign
        while True:
            live = seeds | self._reached(seeds, lambda device, _: not device.kind.can(Can.MAIN_SWITCH))
            onward = self._onward(live) - live
            if not onward:
                return live - ahead - self._common
            seeds |= onward

    def _onward(self, live: set[int]) -> set[int]:
        """The far sides of transformers and supplies that are fed from such nets."""
        far: set[int] = set()
        for device in self._circuits.devices:
            if not (device.kind.can(Can.TRANSFORMS) or device.kind.can(Can.MAKES_DC)):
                continue
            sources = [unit for unit in device.kind.units if unit.behaviour is Behaviour.SOURCE]
            fed = [unit for unit in device.kind.units if unit.behaviour is not Behaviour.SOURCE]
            if any(self._nets(device, unit.pins) & live for unit in fed):
                for unit in sources:
                    far |= self._nets(device, unit.pins)
        return far

    def _neutrals_of(self, excepted: set[int], neutral: set[int]) -> set[int]:
        """Neutrals behind a switch that cuts an excepted circuit with them."""
        neutrals: set[int] = set()
        for device in self._circuits.devices:
            nets = {self._root[pin] for _, pins in device.unit_pins for pin in pins if pin in self._root}
            if nets & excepted:
                neutrals |= nets & self.neutral - neutral
        return neutrals
