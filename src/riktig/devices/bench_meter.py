"""A simulated bench meter: reads the panel as it is wired, with faults one can put in."""

from collections import defaultdict
from random import Random

from riktig.core.ids import role_of
from riktig.core.job import PinRef
from riktig.core.proving import OPEN_LINE, ProvingStage, Test
from riktig.core.standards import wire_resistance
from riktig.core.wiring import Wiring

__all__ = ["BenchMeter"]

LEADS_OHM = 0.2
DECIMALS = 1


class BenchMeter:
    """Reads ohms between two points of the simulated, dead panel.

    Every wire of the plan is in, but those in ``off``; pairs in ``shorted`` are joined. Jumpers, combs
    and links are in.
    The same test reads the same each time: the noise is drawn from its key.
    """

    name = "bench meter (simulated)"

    def __init__(self) -> None:
        self.off: set[str] = set()
        self.shorted: set[str] = set()

    def read(self, test: Test, wiring: Wiring) -> float:
        """The reading in ohm, as the display rounds it; ``OPEN_LINE`` when open."""
        noise = Random(test.key).uniform(-0.04, 0.06)
        if test.stage is ProvingStage.SHORTS:
            if test.key in self.shorted:
                return 0.3
            if test.expected.high == float("inf"):
                return OPEN_LINE
            return round((test.expected.low + test.expected.high) / 2)
        ohm = self._through(test.black.pin, test.red.pin, wiring)
        if ohm is None:
            return OPEN_LINE
        return round(ohm + LEADS_OHM + noise, DECIMALS)

    def _through(self, start: PinRef, goal: PinRef, wiring: Wiring) -> float | None:
        """Resistance along the wires and bars from pin to pin: the wires of a net form a tree."""
        joined: dict[str, list[tuple[str, float]]] = defaultdict(list)
        for wire in wiring.wires:
            if wire.key in self.off:
                continue
            ohm = wire_resistance(wire.mm2).value * wire.length / 1e6
            a, b = _node(wire.start.pin), _node(wire.end.pin)
            joined[a].append((b, ohm))
            joined[b].append((a, ohm))
        for first, *others in (*wiring.jumpers, *wiring.links):
            for pin in others:
                joined[_node(first)].append((_node(pin), 0.0))
                joined[_node(pin)].append((_node(first), 0.0))
        todo, seen = [(_node(start), 0.0)], {_node(start)}
        while todo:
            point, ohm = todo.pop()
            if point == _node(goal):
                return ohm
            for there, more in joined[point]:
                if there not in seen:
                    seen.add(there)
                    todo.append((there, ohm + more))
        return None


def _node(pin: PinRef) -> str:
    """The ways of an earth bar are one piece of metal."""
    bar = any(word.startswith("PE") for word in role_of(pin.device).split("."))
    return pin.device if bar else str(pin)
