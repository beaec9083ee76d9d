"""What faults change in how points are joined, for all faults and all readings at once.

A fault takes pieces out of the network and joins other points, otherwise in every position of the switches. Whether
two points are then joined is told from one search of the sound panel: a piece that is the only way cuts off what lies
behind it in the search, and a new piece brings two such parts together.
"""

from collections.abc import Collection, Sequence
from copy import copy
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from riktig.core.ids import PinRef, read_pin
from riktig.core.proving.dead_panel import DeadPanel, PieceKind
from riktig.core.proving.switch_state import SwitchState, closed_in
from riktig.core.simulation import CHANGED_OVER, FaultKind, InjectedFault, islands

__all__ = ["BETWEEN", "JOINED", "LOW_OHM", "OPEN", "PERHAPS", "Changes", "Effects", "Faults"]

Faults = tuple[InjectedFault, ...]
JOINED, PERHAPS, BETWEEN, OPEN = 0, 1, 2, 3
"""How two points are: joined by what is next to nothing; by what may be so little; by coils, lamps or windings; or not
at all."""
_BY_STATE = (FaultKind.WELDED, FaultKind.BLOWN, FaultKind.STUCK, FaultKind.OPEN_COIL, FaultKind.WRONG_BLOCK)
"""Faults of parts: what they change follows from how the switches stand."""
LOW_OHM = 6.0
"""What is no more than this is next to nothing: a wire, a closed contact, most breakers (chosen by us)."""
AT_ONCE = 60_000
"""Hypotheses times pairs that are looked at together (measured: what stays in the cache takes a third of the time)."""
MOST = 4
"""Pieces that a hypothesis takes out, and points that it joins: two pairs of swapped wires."""


@dataclass(frozen=True, slots=True)
class Changes:
    """What a fault does to the network in one state: pieces taken out, and nodes joined."""

    out: tuple[int, ...] = ()
    joined: tuple[tuple[int, int], ...] = ()


class _Search:
    """A tree through each island: the island of each node, its place in the tree, and what each piece cuts off.

    Method:
        Breadth first from a root that joins one node of each island. Places are numbered so that what hangs below a
        node follows it at once. A piece of the tree is the only way unless another piece leads out of what hangs below
        it: every other piece gets a random number, and the numbers below cancel out (exclusive or) exactly when none
        leads out, but for one case in 2^62.
    """

    def __init__(self, panel: DeadPanel, leading: NDArray[np.bool_]) -> None:
        from scipy.sparse import coo_array  # late: its import takes a quarter of a second
        from scipy.sparse.csgraph import breadth_first_order

        count = len(panel.pins)
        numbers = np.flatnonzero(leading)
        ends = panel.ends[numbers]
        self.island = islands(count, ends).astype(np.int64)
        firsts = np.unique(self.island, return_index=True)[1]
        a = np.concatenate([ends[:, 0], np.full(len(firsts), count)])
        b = np.concatenate([ends[:, 1], firsts])
        graph = coo_array((np.ones(len(a)), (a, b)), shape=(count + 1, count + 1)).tocsr()
        order, above = breadth_first_order(graph, count, directed=False)
        parent = above.astype(np.int64)
        parent[count] = count
        self.place, size = _preorder(order.astype(np.int64), parent)
        self.begin = np.zeros(len(panel.pieces), dtype=np.int64)
        self.end = np.zeros(len(panel.pieces), dtype=np.int64)
        down = np.where(
            parent[ends[:, 1]] == ends[:, 0], ends[:, 1], np.where(parent[ends[:, 0]] == ends[:, 1], ends[:, 0], -1)
        )
        down[ends[:, 0] == ends[:, 1]] = -1
        # Of several pieces between the same two nodes one is of the tree, the others lead out beside it.
        _, first = np.unique(down, return_index=True)
        of_tree = np.zeros(len(down), dtype=bool)
        of_tree[first] = True
        of_tree &= down >= 0
        marks = np.zeros(count + 1, dtype=np.int64)
        others = np.flatnonzero(~of_tree)
        drawn = np.random.default_rng(1).integers(1, 2**62, len(others))
        np.bitwise_xor.at(marks, self.place[ends[others, 0]], drawn)
        np.bitwise_xor.at(marks, self.place[ends[others, 1]], drawn)
        before = np.concatenate([[0], np.bitwise_xor.accumulate(marks)])
        child = down[of_tree]
        start, stop = self.place[child], self.place[child] + size[child]
        only = before[stop] == before[start]
        pieces = numbers[of_tree][only]
        self.begin[pieces], self.end[pieces] = start[only], stop[only]
        """Of each piece that is the only way the places that it cuts off; an empty range of any other."""


def _preorder(order: NDArray[np.int64], parent: NDArray[np.int64]) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
    """The place of each node so that what hangs below it follows at once, and how many nodes that is with itself.

    Args:
        order: The nodes, each behind the one it hangs on.
        parent: What each node hangs on; the root on itself.
    """
    size = [1] * len(order)
    nodes, above = order.tolist(), parent.tolist()
    for node in reversed(nodes[1:]):
        size[above[node]] += size[node]
    place, free = [0] * len(order), [0] * len(order)
    free[nodes[0]] = 1
    for node in nodes[1:]:
        on = above[node]
        place[node] = free[on]
        free[on] += size[node]
        free[node] = place[node] + 1
    return np.array(place, dtype=np.int64), np.array(size, dtype=np.int64)


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
        rest = SwitchState()
        self._everywhere = _as_arrays([self.changes(faults, rest) for faults in self.hypotheses])
        self._sort_by_state()

    def only(self, rows: NDArray[np.int64]) -> "Effects":
        """Some of the hypotheses.

        Args:
            rows: The places of those that are kept, in order.
        """
        part = copy(self)
        part.hypotheses = tuple(self.hypotheses[row] for row in rows.tolist())
        part._everywhere = tuple(column[rows] for column in self._everywhere)
        number = np.full(len(self.hypotheses), -1, dtype=np.int64)
        number[rows] = np.arange(len(rows))

        def of(alone: tuple[NDArray[np.int64], NDArray[np.int64]]) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
            there = number[alone[0]] >= 0
            return number[alone[0][there]], alone[1][there]

        part._welded, part._held_open, part._turned = of(self._welded), of(self._held_open), of(self._turned)
        part._by_state = [int(number[row]) for row in self._by_state if number[row] >= 0]
        return part

    def _sort_by_state(self) -> None:
        """The hypotheses that change the panel otherwise in every state: those of one plain contact, and the others."""
        self._welded = self._single_faults({FaultKind.WELDED})
        self._held_open = self._single_faults({FaultKind.BLOWN, FaultKind.STUCK, FaultKind.OPEN_COIL})
        self._turned = self._single_faults({FaultKind.WRONG_BLOCK})
        plain = {row for rows, _ in (self._welded, self._held_open, self._turned) for row in rows.tolist()}
        self._by_state = [
            row
            for row, faults in enumerate(self.hypotheses)
            if row not in plain and any(fault.wrong in _BY_STATE for fault in faults)
        ]

    def _single_faults(self, kinds: Collection[FaultKind]) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
        """The hypotheses of one fault of some kinds, and the piece of the panel that each is in.

        On a dead panel a contact stands at one of its two ends, so the other block in its place is open where it is
        closed. A pole or a heater has no such other block.
        """
        alone = [
            (row, number)
            for row, faults in enumerate(self.hypotheses)
            if len(faults) == 1 and faults[0].wrong in kinds
            for number in (self._unit.get((faults[0].what, faults[0].where)),)
            if number is not None and (faults[0].wrong is not FaultKind.WRONG_BLOCK or self._has_other_block(number))
        ]
        places = np.array(alone, dtype=np.int64).reshape(-1, 2)
        return places[:, 0], places[:, 1]

    def _has_other_block(self, number: int) -> bool:
        unit = self.panel.pieces[number].unit
        return unit is not None and unit.behaviour in CHANGED_OVER

    def classes(self, state: SwitchState, pairs: Sequence[tuple[PinRef, PinRef]]) -> NDArray[np.int8]:
        """How each pair of pins is with each hypothesis, of shape (hypotheses, pairs).

        Args:
            state: How the switches stand.
            pairs: The points of each reading.
        """
        ends = self._nodes(pairs)
        changes = self._changes_in(state)
        searches = [self._search(state, what) for what in (BETWEEN, PERHAPS, JOINED)]
        classes = np.full((len(self.hypotheses), len(pairs)), OPEN, dtype=np.int8)
        rows_at_once = max(AT_ONCE // max(len(pairs), 1), 1)
        for begin in range(0, len(classes), rows_at_once):
            some = slice(begin, begin + rows_at_once)
            block_changes = tuple(column[some] for column in changes)
            for search, what in zip(searches, (BETWEEN, PERHAPS, JOINED), strict=True):
                classes[some][_joined(search, ends[None, :, 0], ends[None, :, 1], block_changes)] = what
        return classes

    def own_classes(self, state: SwitchState, pairs: Sequence[tuple[PinRef, PinRef]]) -> NDArray[np.int8]:
        """How one pair of pins is with each hypothesis: as many pairs as hypotheses, of shape (hypotheses,).

        Args:
            state: How the switches stand.
            pairs: The points of one reading for each hypothesis.
        """
        ends, changes = self._nodes(pairs), self._changes_in(state)
        classes = np.full((len(pairs), 1), OPEN, dtype=np.int8)
        for what in (BETWEEN, PERHAPS, JOINED):
            classes[_joined(self._search(state, what), ends[:, :1], ends[:, 1:], changes)] = what
        return classes[:, 0]

    def _nodes(self, pairs: Sequence[tuple[PinRef, PinRef]]) -> NDArray[np.int64]:
        node = self.panel.node
        return np.array([(node[a], node[b]) for a, b in pairs], dtype=np.int64).reshape(-1, 2)

    def _changes_in(self, state: SwitchState) -> tuple[NDArray[np.int64], ...]:
        """What each hypothesis changes in one state: the pieces taken out and the nodes joined."""
        out, first, last = (column.copy() for column in self._everywhere)
        if self._by_state:
            changed = _as_arrays([self.changes(self.hypotheses[row], state) for row in self._by_state])
            for whole, part in zip((out, first, last), changed, strict=True):
                whole[self._by_state] = part
        closed = self.panel.closed(state)
        for rows, pieces in (self._held_open, self._turned):
            out[rows, 0] = np.where(closed[pieces], pieces, -1)
        for rows, pieces in (self._welded, self._turned):
            for whole, ends_of in ((first, self.panel.ends[:, 0]), (last, self.panel.ends[:, 1])):
                whole[rows, 0] = np.where(closed[pieces], -1, ends_of[pieces])
        return out, first, last

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
        known = self.panel.kept.get((state, what))
        if not isinstance(known, _Search):
            bound = {JOINED: self.panel.high, PERHAPS: self.panel.low}.get(what)
            leading = self.panel.closed(state)
            known = _Search(self.panel, leading if bound is None else leading & (bound <= LOW_OHM))
            self.panel.kept[state, what] = known
        return known


def _joined(
    search: _Search, one: NDArray[np.int64], other: NDArray[np.int64], changes: tuple[NDArray[np.int64], ...]
) -> NDArray[np.bool_]:
    """Whether pairs of nodes are joined with each of the changes, of shape (changes, pairs).

    Args:
        search: Of the sound panel.
        one: A node of each pair, of shape (1, pairs), or (changes, pairs) where each change has pairs of its own.
        other: The other node of each pair, of the same shape.
        changes: The pieces taken out and the nodes joined, each of shape (changes, 4).
    """
    out, first, last = changes
    begin = np.where(out >= 0, search.begin[out], 0)
    end = np.where(out >= 0, search.end[out], 0)
    a, b = _part(search, one, begin, end), _part(search, other, begin, end)
    x = _part(search, np.maximum(first, 0), begin, end)
    y = _part(search, np.maximum(last, 0), begin, end)
    for column in range(first.shape[1]):
        rows = np.flatnonzero(first[:, column] >= 0)
        if not len(rows):
            break
        gone, stays = y[rows, column], x[rows, column]
        for parts in (a, b, x, y):
            part_rows = parts[rows]
            parts[rows] = np.where(part_rows == gone[:, None], stays[:, None], part_rows)
    joined: NDArray[np.bool_] = a == b
    return joined


def _as_arrays(changes: Sequence[Changes]) -> tuple[NDArray[np.int64], ...]:
    """The pieces taken out and the nodes joined, −1 where there are fewer than four, each of shape (changes, 4)."""
    out, first, last = (np.full((len(changes), MOST), -1, dtype=np.int64) for _ in range(3))
    for row, change in enumerate(changes):
        if change.out:
            out[row, : len(change.out)] = change.out
        for column, (x, y) in enumerate(change.joined):
            first[row, column], last[row, column] = x, y
    return out, first, last


def _part(
    search: _Search, nodes: NDArray[np.int64], begin: NDArray[np.int64], end: NDArray[np.int64]
) -> NDArray[np.int64]:
    """A number for the part of its island that each node is in once the pieces are out, of shape (changes, nodes)."""
    shape = np.broadcast_shapes(nodes.shape, (len(begin), nodes.shape[1]))
    part = np.broadcast_to(search.island[nodes] << MOST, shape).copy()
    place = np.broadcast_to(search.place[nodes], shape)
    for column in range(begin.shape[1]):
        rows = np.flatnonzero(end[:, column] > begin[:, column])
        if len(rows):
            row_places = place[rows]
            behind = (row_places >= begin[rows, column, None]) & (row_places < end[rows, column, None])
            part[rows] += behind.astype(np.int64) << column
    return part
