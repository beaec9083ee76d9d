"""What a meter reads between two pins in any state of the panel, and which way the reading takes."""

from collections import defaultdict
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from riktig.core.catalogue import Can
from riktig.core.job import PinRef
from riktig.core.simulation.conductors import grouped
from riktig.core.simulation.connectivity import NONE
from riktig.core.simulation.figures import CONTACT_OHM, LINK_OHM
from riktig.core.simulation.network import MAINS, SupplyPole
from riktig.core.simulation.nodal import Array, Source, islands, solve_nodal
from riktig.core.simulation.run import Panel

__all__ = ["Meter", "MeterReading", "meter_of"]

MAINS_OHM, WINDING_INNER_OHM, DIRECT_OHM = 0.05, 0.5, 0.02
"""Inner resistance of the incoming supply, of a transformer and of a regulated supply (chosen by us: typical)."""
WINDING_OHM = 1.5
"""A transformer's second winding without power (chosen by us: typical)."""
DEAD_V = 0.5
"""Below this a pair of probes counts as dead, V (chosen by us)."""


@dataclass(frozen=True, slots=True)
class MeterReading:
    """What the meter shows: its value (None: no way through), unit “V” or “Ω”, and kind “AC”, “DC” or empty.

    ``way`` are the devices, with unit, and wires between the probes in order, device ids in braces;
    ``others`` whether the reading also goes other ways; ``refused`` why the meter must not be used so.
    """

    value: float | None
    unit: str
    kind: str
    way: tuple[str, ...]
    others: bool = False
    refused: str = ""

    @property
    def text(self) -> str:
        """As on a display: “231 V AC”, “560 Ω”, “OL”."""
        if self.refused:
            return "live"
        if self.value is None:
            return "OL"
        if self.unit == "Ω" and self.value >= 1000:
            return f"{self.value / 1000:.3g} kΩ"
        digits = 1 if abs(self.value) < 100 else 0
        return f"{self.value:.{digits}f} {self.unit} {self.kind}".rstrip()


Ends = NDArray[np.int64]
Ohms = NDArray[np.float64]


def meter_of(panel: Panel) -> "Meter":
    """A meter for a panel; it follows the panel's state."""
    return Meter(panel)


class Meter:
    """Two probes on any two pins. A solution is kept until the panel is operated again."""

    def __init__(self, panel: Panel) -> None:
        self.panel = panel
        network = panel.network
        self._links = [conductor for conductor in panel.conductors if not conductor.key and conductor.ohm <= LINK_OHM]
        self._node: dict[PinRef, int] = grouped(network.point, self._links)
        """Pins joined by next to nothing, in a terminal or by a plug, are one node: fewer to solve."""
        outside = max(self._node.values(), default=-1) + 1
        inner = [point for point in range(network.count) if not network.pins[point]]
        self._inside = {point: outside + number for number, point in enumerate(inner)}
        self.count = outside + len(inner)
        self._steps = -1
        self._volts: Array | None = None
        self._ends, self._ohm, self._cold, self._said = self._every_edge()
        self._closed = np.ones(len(self._said), dtype=bool)

    def _every_edge(self) -> tuple[Ends, Ohms, Ohms, list[str]]:
        """Conductors, then contacts, then consumers, then windings: ends, ohm at work, ohm cold, and what each is."""
        panel, node = self.panel, self._node
        units = {(d.id, u.name): u for d in panel.circuits.devices for u in d.kind.units}
        rows: list[tuple[int, int, float, float, str]] = [
            (
                node[conductor.a],
                node[conductor.b],
                conductor.ohm,
                conductor.ohm,
                f"wire {conductor.key}" if conductor.key else "",
            )
            for conductor in panel.conductors
            if conductor.key or conductor.ohm > LINK_OHM
        ]
        self._first_contact = len(rows)
        for contact in panel.network.contacts:
            pins = units[contact.device, contact.unit].pins
            a, b = (node[PinRef(contact.device, pin)] for pin in (pins[0], pins[-1]))
            rows.append((a, b, CONTACT_OHM, CONTACT_OHM, f"{{{contact.device}}} {contact.unit}"))
        for consumer in panel.network.consumers:
            pair = zip(consumer.ends, (consumer.a, consumer.b), strict=True)
            a, b = (node.get(PinRef(consumer.device, end), self._inside.get(at, -1)) for end, at in pair)
            rows.append((a, b, consumer.ohm, consumer.cold_ohm, f"{{{consumer.device}}} {consumer.unit.split('.')[0]}"))
        for device in panel.circuits.devices:
            ends = [node.get(device.pin(pin)) for pin in ("5", "7")]
            if device.kind.can(Can.TRANSFORMS) and ends[0] is not None and ends[1] is not None:
                rows.append((ends[0], ends[1], float("inf"), WINDING_OHM, f"{{{device.id}}} 5-7"))
        return (
            np.array([row[:2] for row in rows], dtype=np.int64).reshape(-1, 2),
            np.array([row[2] for row in rows]),
            np.array([row[3] for row in rows]),
            [row[4] for row in rows],
        )

    def volts(self, black: PinRef, red: PinRef) -> MeterReading:
        """The voltage of red against black, V, in the state of now."""
        self._follow()
        panel = self.panel
        black_at, red_at = (panel.network.point[pin] for pin in (black, red))
        if self._volts is None:
            ends, ohm, sources, count = self.deck()
            self._volts = solve_nodal(count, ends, ohm, sources)
        near, there = self._node[red], self._node[black]
        if panel.volts.at[black_at] is None or panel.volts.at[red_at] is None or not self._tied(black_at, red_at):
            return MeterReading(0.0, "V", "", self._to_source(red, black))
        ac, dc = self._volts[near] - self._volts[there]
        kind = "" if max(abs(ac), abs(dc)) < DEAD_V else "AC" if abs(ac) >= abs(dc) else "DC"
        value = float(abs(ac)) if abs(ac) >= abs(dc) else float(dc.real)
        return MeterReading(value, "V", kind, self._to_source(red, black))

    def ohms(self, black: PinRef, red: PinRef) -> MeterReading:
        """The resistance between two pins, ohm; refused while either is live.

        Method:
            A current of 1 A through what joins them, cold, with all supplies taken away.
        """
        self._follow()
        for pin in (black, red):
            if self._is_live(self.panel.network.point[pin]):
                return MeterReading(None, "Ω", "", (), refused=f"{pin} is live: an ohm-meter is for dead circuits")
        ends = self._ends[self._closed]
        start, goal = self._node[black], self._node[red]
        labels = islands(self.count, ends)
        if start == goal:
            return MeterReading(0.0, "Ω", "", ())
        if labels[start] != labels[goal]:
            return MeterReading(None, "Ω", "", ())
        reached = np.flatnonzero(self._closed)[labels[ends[:, 0]] == labels[start]]
        number = np.cumsum(labels == labels[start]) - 1
        local, ohm = number[self._ends[reached]], self._cold[reached]
        source: Source = (int(number[start]), int(number[goal]), 0j, 1.0, 1e6)
        volts = solve_nodal(int(number[-1]) + 1, local, ohm, [source])
        across = float((volts[number[goal], 1] - volts[number[start], 1]).real)
        value = 1e6 * across / max(1.0 - across, 1e-12)
        way, along = self._shortest(reached, start, goal)
        return MeterReading(value, "Ω", "", way, others=along > value * 1.02 + 1e-3)

    def _tied(self, black: int, red: int) -> bool:
        """Whether something joins the supplies of two points, so that there is a voltage between them."""
        connectivity, volts = self.panel.connectivity, self.panel.volts
        bases = {volts.base(point) for point in (black, red) if connectivity.root[point] != NONE}
        return len(bases) < 2

    def _follow(self) -> None:
        if self._steps != self.panel.steps:
            self._steps = self.panel.steps
            self._volts = None
            panel = self.panel
            first = self._first_contact
            last = first + len(panel.network.contacts)
            self._closed[first:last] = panel.connectivity.closed
            self._closed[last : last + len(panel.network.consumers)] = True
            self._closed[[last + number for number in panel.volts.broken]] = False

    def deck(self) -> tuple[Ends, Ohms, list[Source], int]:
        """The network of now for a solver: ends and ohm of every resistance, the sources, and how many nodes.

        Every supply is a source against the zero of its system; the pins come first, in their order.
        """
        self._follow()
        by_system: dict[str, list[SupplyPole]] = defaultdict(list)
        for pole in self.panel.volts.poles:
            by_system[pole.system].append(pole)
        sources: list[Source] = []
        count = self.count
        for system, poles in by_system.items():
            alternating = any(pole.ac for pole in poles)
            inner = MAINS_OHM if system == MAINS else WINDING_INNER_OHM if alternating else DIRECT_OHM
            for pole in poles:
                at = self._node[pole.pin] if pole.pin is not None else self._inside[pole.point]
                sources.append((count, at, pole.ac, pole.dc, inner))
            count += 1
        live = self._closed & np.isfinite(self._ohm)
        return self._ends[live], self._ohm[live], sources, count

    def cold_deck(self) -> tuple[Ends, Ohms, int]:
        """The dead network of now for a solver: ends and ohm of everything that an ohm-meter goes through."""
        self._follow()
        return self._ends[self._closed], self._cold[self._closed], self.count

    def node(self, pin: PinRef) -> int:
        """The node of a pin in the decks."""
        return self._node[pin]

    def _is_live(self, point: int) -> bool:
        known = self.panel.volts.at[point]
        return known is not None and abs(known[0]) + abs(known[1]) > DEAD_V

    def _to_source(self, red: PinRef, black: PinRef) -> tuple[str, ...]:
        """The ways of both probes: from red back to its pole, and from black's pole on to black."""
        panel = self.panel
        lines: list[str] = []
        for pin, turned in ((red, False), (black, True)):
            point = panel.network.point[pin]
            pole = panel.source_of(point)
            edge = [
                f"{{{panel.network.contacts[n].device}}} {panel.network.contacts[n].unit}"
                for n in panel.connectivity.way(point)
            ]
            whence = [f"{pole.name} of {{{pole.system}}}" if pole.system != "mains" else pole.name] if pole else []
            whole = (
                [*edge, *whence]
                if pole
                else [f"nothing reaches {pin}" if panel.volts.at[point] is None else f"what feeds {pin}"]
            )
            lines += reversed(whole) if turned else whole
        return tuple(lines)

    def _shortest(self, edges: NDArray[np.int64], start: int, goal: int) -> tuple[tuple[str, ...], float]:
        """The way of least resistance between two nodes, and its resistance, ohm."""
        from scipy.sparse import csr_array  # late: its import takes a quarter of a second
        from scipy.sparse.csgraph import dijkstra

        ends, ohm = self._ends[edges], self._cold[edges]
        order = np.argsort(-ohm, kind="stable")
        a, b = ends[order].T
        readings = {}
        for x, y, number in zip(a.tolist(), b.tolist(), edges[order].tolist(), strict=True):
            readings[x, y] = readings[y, x] = number
        least = {(x, y): self._cold[number] for (x, y), number in readings.items()}
        pairs = np.array(list(least), dtype=np.int64)
        graph = csr_array((np.array(list(least.values())), (pairs[:, 0], pairs[:, 1])), shape=(self.count, self.count))
        far, back = (distances[0] for distances in dijkstra(graph, indices=[start], return_predecessors=True))
        way: list[str] = []
        point = goal
        while point != start:
            before = int(back[point])
            text = self._said[readings[before, point]]
            if text and (not way or way[-1] != text):
                way.append(text)
            point = before
        return tuple(reversed(way)), float(far[goal])
