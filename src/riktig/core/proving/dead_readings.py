"""What an ohm-meter reads between two pins of the dead panel: between which bounds while every piece is sound.

The resistance between two points rises with that of every piece and falls with none (Rayleigh's monotonicity law), so
the bounds are those of the panel with every piece at its least and at its most.
"""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from riktig.core.ids import PinRef
from riktig.core.proving.dead_panel import DeadPanel
from riktig.core.proving.switch_state import SwitchState
from riktig.core.simulation import islands

__all__ = ["bounds", "resistances"]

Mask = NDArray[np.bool_]
Ohm = NDArray[np.float64]
NEXT_TO_NOTHING_OHM = 1e-4
"""Pieces below are one point to the solver (chosen by us: far below what a meter shows)."""


def bounds(panel: DeadPanel, state: SwitchState, pairs: Sequence[tuple[PinRef, PinRef]]) -> tuple[Ohm, Ohm]:
    """The least and the most that a meter reads between pairs of pins, ohm; infinite where nothing joins them.

    Args:
        panel: The dead panel.
        state: How the switches stand.
        pairs: The two pins of each reading.
    """
    ends = np.array([(panel.node[a], panel.node[b]) for a, b in pairs], dtype=np.int64).reshape(-1, 2)
    closed = panel.closed(state)
    return resistances(panel, closed, panel.low, ends), resistances(panel, closed, panel.high, ends)


def resistances(
    panel: DeadPanel, leading: Mask, ohm: Ohm, pairs: NDArray[np.int64], shorts: Sequence[tuple[int, int]] = ()
) -> Ohm:
    """The resistance between pairs of nodes, ohm, each piece having that of ``ohm``; infinite means it is open.

    Args:
        panel: The dead panel.
        leading: Which pieces lead on.
        ohm: The resistance of every piece.
        pairs: The nodes of each reading, of shape (readings, 2).
        shorts: Nodes that are joined by next to nothing beside.

    Method:
        What is next to nothing is contracted. In what remains one node of each island is held; the reading of a pair is
        the voltage between its ends when a current of 1 A goes through it. Sparse factors, all pairs at once.
    """
    there = leading & np.isfinite(ohm)
    short = there & (ohm < NEXT_TO_NOTHING_OHM)
    bare = np.array(shorts, dtype=np.int64).reshape(-1, 2)
    label = islands(len(panel.pins), np.concatenate([panel.ends[short], bare])).astype(np.int64)
    rest = panel.ends[there & ~short]
    ends = label[rest]
    values = ohm[there & ~short]
    apart = ends[:, 0] != ends[:, 1]
    ends, values = ends[apart], values[apart]
    count = int(label.max(initial=-1)) + 1
    island = islands(count, ends)
    a, b = label[pairs].T if len(pairs) else (np.zeros(0, np.int64), np.zeros(0, np.int64))
    result = np.full(len(pairs), np.inf)
    result[a == b] = 0.0
    joined_pairs = np.flatnonzero((a != b) & (island[a] == island[b]))
    if not len(joined_pairs):
        return result
    keep = np.isin(island, island[a[joined_pairs]])
    number = np.cumsum(keep) - 1
    inside = keep[ends[:, 0]]
    result[joined_pairs] = _solved(
        int(keep.sum()),
        number[ends[inside]],
        values[inside],
        np.stack([number[a[joined_pairs]], number[b[joined_pairs]]], axis=1),
    )
    return result


def _solved(count: int, ends: NDArray[np.int64], ohm: Ohm, pairs: NDArray[np.int64]) -> Ohm:
    from scipy.sparse import coo_array, csc_array  # late: its import takes a quarter of a second
    from scipy.sparse.linalg import splu

    a, b = ends.T
    siemens = 1.0 / ohm
    rows = np.concatenate([a, b, a, b])
    columns = np.concatenate([a, b, b, a])
    values = np.concatenate([siemens, siemens, -siemens, -siemens])
    matrix = csc_array(coo_array((values, (rows, columns)), shape=(count, count)))
    free = np.ones(count, dtype=bool)
    free[np.unique(islands(count, ends), return_index=True)[1]] = False
    which = np.flatnonzero(free)
    reduced = csc_array(matrix[which][:, which])
    place = np.cumsum(free) - 1
    factors = splu(reduced, options={"SymmetricMode": True}, diag_pivot_thresh=0.0, permc_spec="MMD_AT_PLUS_A")
    result = np.empty(len(pairs))
    step = 256  # columns at a time: memory stays small
    for first in range(0, len(pairs), step):
        some = pairs[first : first + step]
        current = np.zeros((len(which), len(some)))
        for column, (start, end) in enumerate(some.tolist()):
            if free[start]:
                current[place[start], column] = 1.0
            if free[end]:
                current[place[end], column] = -1.0
        volts = factors.solve(current)
        for column, (start, end) in enumerate(some.tolist()):
            high = volts[place[start], column] if free[start] else 0.0
            low = volts[place[end], column] if free[end] else 0.0
            result[first + column] = high - low
    return np.maximum(result, 0.0)
