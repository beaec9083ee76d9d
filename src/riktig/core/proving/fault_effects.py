"""What faults change in how points are joined, for all faults and all readings at once.

A fault takes pieces out of the network and joins other points, otherwise in every position of the switches. Whether
two points are then joined is told from one search of the sound panel: a piece that is the only way cuts off what lies
behind it in the search, and a new piece brings two such parts together.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from riktig.core.ids import PinRef, read_pin
from riktig.core.proving.dead_panel import DeadPanel, PieceKind
from riktig.core.proving.switch_state import SwitchState, closed_in
from riktig.core.simulation import CHANGED_OVER, FaultKind, InjectedFault

__all__ = ["BETWEEN", "JOINED", "LOW_OHM", "OPEN", "PERHAPS", "Changes", "Effects", "Faults"]

Faults = tuple[InjectedFault, ...]
JOINED, PERHAPS, BETWEEN, OPEN = 0, 1, 2, 3
"""How two points are: joined by what is next to nothing; by what may be so little; by coils, lamps or windings; or not
at all."""
LOW_OHM = 6.0
"""What is no more than this is next to nothing: a wire, a closed contact, most breakers (chosen by us)."""
MOST = 4
"""Pieces that a hypothesis takes out, and points that it joins: two pairs of swapped wires."""


@dataclass(frozen=True, slots=True)
class Changes:
    """What a fault does to the network in one state: pieces taken out, and nodes joined."""

    out: tuple[int, ...] = ()
    joined: tuple[tuple[int, int], ...] = ()


class _Search:
    """A depth first search: the island of each node, its place in the search, and what each piece cuts off."""

    def __init__(self, panel: DeadPanel, leading: NDArray[np.bool_]) -> None:
        count = len(panel.pins)
        beside: list[list[tuple[int, int]]] = [[] for _ in range(count)]
        for number in np.flatnonzero(leading).tolist():
            a, b = panel.ends[number].tolist()
            beside[a].append((number, b))
            beside[b].append((number, a))
        self.island = np.full(count, -1, dtype=np.int64)
        self.place = np.zeros(count, dtype=np.int64)
        begin = np.zeros(len(panel.pieces), dtype=np.int64)
        end = np.zeros(len(panel.pieces), dtype=np.int64)
        place, lowest, clock = [-1] * count, [0] * count, 0
        for root in range(count):
            if place[root] >= 0:
                continue
            self.island[root] = root
            place[root] = lowest[root] = clock
            clock += 1
            todo = [(root, -1, iter(beside[root]))]
            while todo:
                at, came, ways = todo[-1]
                for number, other in ways:
                    if number == came:
                        continue
                    if place[other] < 0:
                        self.island[other] = root
                        place[other] = lowest[other] = clock
                        clock += 1
                        todo.append((other, number, iter(beside[other])))
                        break
                    lowest[at] = min(lowest[at], place[other])
                else:
                    todo.pop()
                    if todo:
                        above = todo[-1][0]
                        lowest[above] = min(lowest[above], lowest[at])
                        if lowest[at] > place[above]:
                            begin[came], end[came] = place[at], clock
        self.place[:] = place
        self.begin, self.end = begin, end
        """Of each piece that is the only way the places that it cuts off; an empty range of any other."""


class Effects:
    """How points are joined in a panel with each of many hypotheses about what is wrong.

    Args:
        panel: The dead panel as it should be.
        hypotheses: Each a set of faults that are there together; none of it for a sound panel.
    """

    def __init__(self, panel: DeadPanel, hypotheses: Sequence[Faults]) -> None:
        self.panel, self.hypotheses = panel, tuple(hypotheses)
        self._wire = {p.what: n for n, p in enumerate(panel.pieces) if p.kind is PieceKind.WIRE}
        self._unit = {(str(p.device), p.what): n for n, p in enumerate(panel.pieces) if p.unit is not None}
        self._searches: dict[tuple[SwitchState, int], _Search] = {}

    def classes(self, state: SwitchState, pairs: Sequence[tuple[PinRef, PinRef]]) -> NDArray[np.int8]:
        """How each pair of pins is with each hypothesis, of shape (hypotheses, pairs).

        Args:
            state: How the switches stand.
            pairs: The points of each reading.
        """
        ends = np.array([(self.panel.node[a], self.panel.node[b]) for a, b in pairs], dtype=np.int64).reshape(-1, 2)
        changes = [self.changes(faults, state) for faults in self.hypotheses]
        surely, perhaps, linked = (self._joined(state, ends, changes, what) for what in (JOINED, PERHAPS, BETWEEN))
        return np.select([surely, perhaps, linked], [JOINED, PERHAPS, BETWEEN], OPEN).astype(np.int8)

    def changes(self, faults: Faults, state: SwitchState) -> Changes:
        """What some faults change together in one state."""
        out: list[int] = []
        joined: list[tuple[int, int]] = []
        for fault in faults:
            more = self._of_fault(fault, state)
            out += more.out
            joined += more.joined
        return Changes(tuple(out[:MOST]), tuple(joined[:MOST]))

    def _of_fault(self, fault: InjectedFault, state: SwitchState) -> Changes:
        node = self.panel.node
        match fault.wrong:
            case FaultKind.OFF:
                return Changes((self._wire[fault.what],))
            case FaultKind.NEIGHBOUR:
                return self._moved(fault.what, fault.where, fault.to)
            case FaultKind.SWAPPED:
                first = self._moved(fault.what, fault.where, fault.other)
                second = self._moved(fault.to, fault.other, fault.where)
                return Changes((*first.out, *second.out), (*first.joined, *second.joined))
            case FaultKind.SHORT:
                return Changes((), ((node[read_pin(fault.where)], node[read_pin(fault.to)]),))
        number = self._unit.get((fault.what, fault.where))
        return Changes() if number is None else self._of_part(fault.wrong, number, state)

    def _moved(self, wire: str, pin: str, to: str) -> Changes:
        number = self._wire[wire]
        piece = self.panel.pieces[number]
        stays = piece.b if piece.a == read_pin(pin) else piece.a
        return Changes((number,), ((self.panel.node[stays], self.panel.node[read_pin(to)]),))

    def _of_part(self, wrong: FaultKind, number: int, state: SwitchState) -> Changes:
        piece, closed = self.panel.pieces[number], bool(self.panel.closed(state)[number])
        ends = (int(self.panel.ends[number, 0]), int(self.panel.ends[number, 1]))
        leads_on = closed
        match wrong:
            case FaultKind.WELDED:
                leads_on = True
            case FaultKind.BLOWN | FaultKind.STUCK | FaultKind.OPEN_COIL:
                leads_on = False
            case FaultKind.WRONG_BLOCK if piece.unit and piece.device:
                turned = CHANGED_OVER.get(piece.unit.behaviour, piece.unit.behaviour)
                unit = type(piece.unit)(piece.unit.name, piece.unit.pins, turned, piece.unit.symbol)
                leads_on = closed_in(self.panel.devices[piece.device], unit, state)
        if leads_on == closed:
            return Changes()
        return Changes((), (ends,)) if leads_on else Changes((number,))

    def _search(self, state: SwitchState, what: int) -> _Search:
        """Of the pieces that surely are next to nothing, that may be, or of all."""
        known = self._searches.get((state, what))
        if known is None:
            bound = {JOINED: self.panel.high, PERHAPS: self.panel.low}.get(what)
            leading = self.panel.closed(state)
            known = _Search(self.panel, leading if bound is None else leading & (bound <= LOW_OHM))
            self._searches[state, what] = known
        return known

    def _joined(
        self, state: SwitchState, ends: NDArray[np.int64], changes: Sequence[Changes], what: int
    ) -> NDArray[np.bool_]:
        """Whether each pair of nodes is joined with each of the changes, of shape (changes, pairs)."""
        search = self._search(state, what)
        begin, end, first, last = _as_arrays(changes, search)
        a = _part(search, ends[:, 0][None, :], begin, end)
        b = _part(search, ends[:, 1][None, :], begin, end)
        x = _part(search, np.maximum(first, 0), begin, end)
        y = _part(search, np.maximum(last, 0), begin, end)
        for column in range(first.shape[1]):
            there = first[:, column] >= 0
            if not there.any():
                break
            gone, stays = np.where(there, y[:, column], -1), x[:, column].copy()
            for parts in (a, b, x, y):
                np.copyto(parts, np.broadcast_to(stays[:, None], parts.shape), where=parts == gone[:, None])
        joined: NDArray[np.bool_] = a == b
        return joined


def _as_arrays(changes: Sequence[Changes], search: _Search) -> tuple[NDArray[np.int64], ...]:
    """The ranges that the pieces taken out cut off, and the nodes joined (−1: none), of shape (changes, at most 4)."""
    width = max((len(c.out) for c in changes), default=0)
    wide = max((len(c.joined) for c in changes), default=0)
    begin, end = (np.zeros((len(changes), width), dtype=np.int64) for _ in range(2))
    first, last = (np.full((len(changes), wide), -1, dtype=np.int64) for _ in range(2))
    for row, change in enumerate(changes):
        for column, number in enumerate(change.out):
            begin[row, column], end[row, column] = search.begin[number], search.end[number]
        for column, (x, y) in enumerate(change.joined):
            first[row, column], last[row, column] = x, y
    return begin, end, first, last


def _part(
    search: _Search, nodes: NDArray[np.int64], begin: NDArray[np.int64], end: NDArray[np.int64]
) -> NDArray[np.int64]:
    """A number for the part of its island that each node is in once the pieces are out, of shape (changes, nodes)."""
    shape = np.broadcast_shapes(nodes.shape, (len(begin), nodes.shape[1]))
    part = np.broadcast_to(search.island[nodes] << MOST, shape).copy()
    place = search.place[nodes]
    for column in range(begin.shape[1]):
        behind = (place >= begin[:, column, None]) & (place < end[:, column, None])
        part += behind.astype(np.int64) << column
    return part
