"""What is drawn from each drum of conductor, and which wires could be cut from what an earlier batch leaves over."""

from bisect import bisect_left, insort
from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass

from riktig.core.wiring.model import Batch, Wire

__all__ = ["Drum", "drums_of"]


@dataclass(frozen=True, slots=True)
class Drum:
    """One conductor: all that is cut of it, what is trimmed off, and what of that can be cut again, mm.

    ``again`` are the wires that need no new length when trimmed ends are kept.
    """

    mm2: float
    colour: str
    wires: int
    cut: float
    trimmed: float
    again: int
    saved: float


def drums_of(wires: Iterable[Wire], batches: Iterable[Batch]) -> tuple[Drum, ...]:
    """Every conductor with what it takes, the thickest first.

    Method:
        A wire is trimmed when it is in, so that its end can serve a later batch only: for each wire of that the
        shortest end that is long enough; what is left of it is kept again.

    Args:
        wires: All wires.
        batches: Their batches, in the order in which they are made.
    """
    known = {wire.key: wire for wire in wires}
    ends: dict[tuple[float, str], list[float]] = defaultdict(list)
    count: dict[tuple[float, str], int] = defaultdict(int)
    cut: dict[tuple[float, str], float] = defaultdict(float)
    trimmed: dict[tuple[float, str], float] = defaultdict(float)
    again: dict[tuple[float, str], list[float]] = defaultdict(list)
    for batch in batches:
        kind = (batch.mm2, batch.colour)
        reels, fresh = ends[kind], list[float]()
        for wire in (known[key] for key in batch.wires):
            count[kind] += 1
            cut[kind] += wire.cut
            trimmed[kind] += wire.cut - wire.length
            at = bisect_left(reels, wire.length)
            if at < len(reels):
                left = reels.pop(at) - wire.length
                again[kind].append(wire.cut)
                if left > 0:
                    insort(reels, left)
            elif wire.cut > wire.length:
                fresh.append(wire.cut - wire.length)
        for end in fresh:
            insort(reels, end)
    return tuple(
        Drum(
            mm2,
            colour,
            count[mm2, colour],
            cut[mm2, colour],
            trimmed[mm2, colour],
            len(again[mm2, colour]),
            sum(again[mm2, colour]),
        )
        for mm2, colour in sorted(count, key=lambda kind: (-kind[0], kind[1]))
    )
