"""What every part of the test plan asks: points with their places, groups of what is joined, and bounds of readings."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from math import inf, isinf
from typing import TypeAlias

import numpy as np

from riktig.core.ids import DeviceId, PinRef
from riktig.core.proving.dead_panel import DeadPanel, PieceKind
from riktig.core.proving.dead_readings import bounds
from riktig.core.proving.neighbours import neighbours
from riktig.core.proving.switch_state import SwitchState, state_of, state_words
from riktig.core.proving.tests import OPEN_ABOVE_OHM, Expected, ProvingStage, Test, TestPoint
from riktig.core.schematic import Circuits, Device, Names, Nets, Zone
from riktig.core.simulation import Network, Rating, islands
from riktig.core.sizing import Sizing
from riktig.core.wiring import Wire, Wiring

__all__ = ["CLOSED_BELOW_OHM", "PanelFacts", "Planner", "earths_a_circuit", "expected_between", "wire_sign"]

CLOSED_BELOW_OHM = 0.5
"""A sound wire reads less, the leads taken off (common practice, no source)."""
PROBE_OHM = 0.3
"""Contact of the probes and the last digit of a meter, ohm (chosen by us)."""
RING_OHM = 5.0
"""Pieces of more than this each hide no wire, even several of them side by side (chosen by us)."""
METER_SHARE = 0.03
"""What a meter may be off, of its reading (chosen by us: three times the usual data of a hand-held one)."""


@dataclass(frozen=True)
class PanelFacts:
    """What the test plan reads: the panel as it is drawn, named, bought and wired."""

    circuits: Circuits
    nets: Nets
    names: Names
    sizing: Sizing
    wiring: Wiring
    ratings: Mapping[DeviceId, tuple[Rating, ...]]
    network: Network
    north_american: bool = False

    def label(self, pin: PinRef) -> str:
        """What a pin is called at the bench: the tag and the marking, of a terminal its number."""
        device = self.circuits.by_id[pin.device]
        return f"{self.names.tag[device.id]}:{device.mark if device.strip else pin.marking}"

    def inside(self, pin: PinRef) -> PinRef | None:
        """A pin inside the panel on the potential of a pin, at a terminal where there is one; None where none is."""
        net, devices = self.nets.of_pin.get(pin), self.circuits.by_id
        pins = [other for other in net.pins if devices[other.device].zone is not Zone.FIELD] if net else []
        terminals = [other for other in pins if devices[other.device].strip and other.marking == "i"]
        return next(iter((*terminals, *pins)), None)


Ways: TypeAlias = dict[int, list[tuple[int, int]]]
"""From some nodes the pieces that lead on, with the node at their other end."""


@dataclass
class Planner:
    """Answers about one panel, each worked out once."""

    facts: PanelFacts
    panel: DeadPanel
    off: SwitchState = field(init=False)
    on: SwitchState = field(init=False)
    _labels: dict[SwitchState, list[int]] = field(default_factory=dict)
    _signs: dict[SwitchState, dict[int, list[str]]] = field(default_factory=dict)
    _passive: dict[SwitchState, dict[frozenset[int], tuple[str, ...]]] = field(default_factory=dict)
    _low_ways: dict[SwitchState, list[list[tuple[int, int]]]] = field(default_factory=dict)
    _low_groups: dict[SwitchState, list[int]] = field(default_factory=dict)
    _differences: dict[SwitchState, tuple[frozenset[int], dict[int, list[tuple[int, int]]]]] = field(
        default_factory=dict
    )
    _words: dict[SwitchState, str] = field(default_factory=dict)
    _points: dict[PinRef, TestPoint] = field(default_factory=dict)

    def __post_init__(self) -> None:
        facts = self.facts
        self.off, self.on = (state_of(facts.circuits, on=on) for on in (False, True))

    def point(self, pin: PinRef) -> TestPoint:
        """Where a pin is touched."""
        known = self._points.get(pin)
        if known is None:
            device, marking = self.facts.circuits.by_id[pin.device], pin.marking
            side = device.kind.pin(marking).side.value
            where = "door" if device.zone.value == "door" else "plate"
            known = TestPoint(pin, self.facts.label(pin), f"{where}, {device.kind.name}, {device.purpose}, {side}")
            self._points[pin] = known
        return known

    def card(
        self,
        stage: ProvingStage,
        key: str,
        title: str,
        points: tuple[PinRef, PinRef],
        state: SwitchState,
        expected: Expected,
    ) -> Test:
        """A test between two pins; what it is true of is still to be said."""
        black, red = points
        return Test(
            key, stage, title, self.point(black), self.point(red), self.words(state), expected, "",
            switch_state=state.text, state=state,
        )  # fmt: skip

    def low_ways(self, state: SwitchState) -> list[list[tuple[int, int]]]:
        """From each node the pieces of low resistance that lead on, with the node at their other end."""
        known = self._low_ways.get(state)
        if known is None:
            panel = self.panel
            known = [[] for _ in panel.pins]
            numbers = np.flatnonzero(panel.closed(state) & (panel.low <= RING_OHM))
            for number, (a, b) in zip(numbers.tolist(), panel.ends[numbers].tolist(), strict=True):
                known[a].append((number, b))
                known[b].append((number, a))
            self._low_ways[state] = known
        return known

    def _low_labels(self, state: SwitchState) -> list[int]:
        """The number of what each node is joined with through pieces of low resistance."""
        known = self._low_groups.get(state)
        if known is None:
            panel = self.panel
            low = panel.closed(state) & (panel.low <= RING_OHM)
            known = self._low_groups[state] = islands(len(panel.pins), panel.ends[low]).tolist()
        return known

    def _differs(self, state: SwitchState) -> tuple[frozenset[int], Ways]:
        """The low pieces that the hands open against the same breakers without them, and those that they close."""
        known = self._differences.get(state)
        if known is None:
            panel = self.panel
            low = panel.low <= RING_OHM
            now, then = panel.closed(state) & low, panel.closed(SwitchState(state.off)) & low
            more: Ways = {}
            numbers = np.flatnonzero(now & ~then)
            for number, (a, b) in zip(numbers.tolist(), panel.ends[numbers].tolist(), strict=True):
                more.setdefault(a, []).append((number, b))
                more.setdefault(b, []).append((number, a))
            known = self._differences[state] = frozenset(np.flatnonzero(then & ~now).tolist()), more
        return known

    def way(self, state: SwitchState, first: PinRef, last: PinRef, *, without: int = -1) -> list[int]:
        """The fewest pieces of low resistance that lead from one pin to another, in order; none where none do.

        Args:
            state: How the switches stand.
            first: Where the way begins.
            last: Where it ends.
            without: A piece that is taken as missing.
        """
        start, goal = self.panel.node[first], self.panel.node[last]
        labels = self._low_labels(state)
        if labels[start] != labels[goal]:
            return []
        beside = self.low_ways(SwitchState(state.off))
        gone, more = self._differs(state)
        came: dict[int, tuple[int, int]] = {start: (-1, start)}
        edge = [start]
        while edge and goal not in came:
            further: list[int] = []
            for at in edge:
                for number, other in (*beside[at], *more.get(at, ())):
                    if other not in came and number != without and number not in gone:
                        came[other] = (number, at)
                        further.append(other)
            edge = further
        way: list[int] = []
        at = goal
        while at in came and at != start:
            number, at = came[at]
            way.append(number)
        return way[::-1]

    def words(self, state: SwitchState) -> str:
        """How the switches stand, in words."""
        if state not in self._words:
            self._words[state] = state_words(state, self.facts.circuits, self.facts.names.tag)
        return self._words[state]

    @cached_property
    def beside(self) -> Mapping[PinRef, tuple[PinRef, ...]]:
        """The clamps of other potentials next to each clamp."""
        beside: dict[PinRef, tuple[PinRef, ...]] = {}
        for a, b in neighbours(self.panel):
            beside[a] = (*beside.get(a, ()), b)
            beside[b] = (*beside.get(b, ()), a)
        return beside

    def group(self, state: SwitchState, pin: PinRef) -> int:
        """The number of what is joined with a pin through wires, joints and closed contacts."""
        labels = self._labels.get(state)
        if labels is None:
            panel = self.panel
            whole = np.array([piece.kind is not PieceKind.PASSIVE for piece in panel.pieces], dtype=bool)
            labels = islands(len(panel.pins), panel.ends[panel.closed(state) & whole]).tolist()
            self._labels[state] = labels
        return labels[self.panel.node[pin]]

    def wires_in(self, state: SwitchState, pins: Iterable[PinRef]) -> str:
        """The signs of all wires that are joined with some pins: what a reading between them is true of."""
        groups = {self.group(state, pin) for pin in pins}
        return " ".join(sorted(sign for group in groups for sign in self._signs_by_group(state).get(group, ())))

    def _signs_by_group(self, state: SwitchState) -> dict[int, list[str]]:
        known = self._signs.get(state)
        if known is None:
            known = self._signs[state] = {}
            for wire in self.facts.wiring.wires:
                known.setdefault(self.group(state, wire.start.pin), []).append(wire_sign(wire))
        return known

    def between(self, state: SwitchState, pairs: Sequence[tuple[PinRef, PinRef]]) -> list[Expected]:
        """What must be read between pairs of pins."""
        low, high = bounds(self.panel, state, pairs)
        return [
            expected_between(least, most, self._why(state, pair))
            for pair, least, most in zip(pairs, low.tolist(), high.tolist(), strict=True)
        ]

    def _why(self, state: SwitchState, pair: tuple[PinRef, PinRef]) -> str:
        groups = {self.group(state, pin) for pin in pair}
        if len(groups) == 1:
            return "Joined in this position."
        across = self._across(state).get(frozenset(groups), ())
        return f"{', '.join(across)} between them." if across else ""

    def _across(self, state: SwitchState) -> dict[frozenset[int], tuple[str, ...]]:
        """The tags of coils, lamps and windings by the two groups that they lie between."""
        known = self._passive.get(state)
        if known is None:
            tags: dict[frozenset[int], dict[str, None]] = {}
            for piece in self.panel.pieces:
                if piece.kind is PieceKind.PASSIVE and piece.device:
                    sides = frozenset((self.group(state, piece.a), self.group(state, piece.b)))
                    tags.setdefault(sides, {})[self.facts.names.tag[piece.device]] = None
            known = self._passive[state] = {sides: tuple(named) for sides, named in tags.items()}
        return known


def earths_a_circuit(device: Device) -> bool:
    """Whether it is the link that earths one side of a circuit: no metal to bond, opened to measure insulation."""
    return any(unit.symbol == "link" for unit in device.kind.units)


def expected_between(low: float, high: float, why: str) -> Expected:
    """The range that a meter must show of what lies between two bounds, its own error and that of the probes counted.

    Args:
        low: The least there can be, ohm; infinite where nothing joins the points.
        high: The most there can be, ohm; infinite where it may as well be open.
        why: What the bounds come from.
    """
    if isinf(low):
        return Expected(OPEN_ABOVE_OHM, inf, why or "Nothing joins them.")
    least = max(low * (1 - METER_SHARE) - PROBE_OHM, 0.0)
    if isinf(high):
        return Expected(_three_digits(least), inf, why or "What hangs on other potentials is between them.")
    most = max(high * (1 + METER_SHARE) + PROBE_OHM, CLOSED_BELOW_OHM)
    return Expected(_three_digits(least), _three_digits(most), why or "What hangs on other potentials is between them.")


def _three_digits(ohm: float) -> float:
    """As it is said on the card, so that what is shown is what is judged."""
    return float(f"{ohm:.3g}")


def wire_sign(wire: Wire) -> str:
    """What a reading of a wire is true of: its clamps and its conductor."""
    return f"{wire.key} {wire.mm2:g} {wire.colour}"
