"""Orders of the builder's own: which of them a potential has, and what they come to with the clamps of now."""

from collections import Counter
from collections.abc import Callable, Container, Iterable, Mapping, Sequence
from itertools import pairwise

from riktig.core.job import DeviceId, PinRef, WireOrder
from riktig.core.schematic import Net
from riktig.core.wiring.connections import Connection
from riktig.core.wiring.model import Wire

__all__ = ["OwnOrders", "order_of"]

Chain = Callable[[list[PinRef]], list[PinRef]]
"""The shortest chain through clamps; a builder's clamp that new ones follow stands first or last in it."""


class OwnOrders:
    """The builder's orders by the potentials of now.

    An order belongs to the potential that holds most of its clamps; of two orders of one potential the later counts.
    """

    def __init__(self, orders: Iterable[WireOrder], of_pin: Mapping[PinRef, Net]) -> None:
        self._of_net: dict[PinRef, WireOrder] = {}
        self.lost: list[WireOrder] = []
        """Orders of which no two clamps are on one potential any more."""
        for order in orders:
            counts: dict[PinRef, int] = {}
            for pin in order.pins:
                if pin in of_pin:
                    counts[of_pin[pin].id] = counts.get(of_pin[pin].id, 0) + 1
            best = max(counts, key=lambda net: counts[net], default=None)
            if best is None or counts[best] < 2:
                self.lost.append(order)
            else:
                self._of_net[best] = order

    def of(self, net: Net) -> WireOrder | None:
        """The order of a potential; None where the builder gave none."""
        return self._of_net.get(net.id)

    def strays(self, net: Net) -> tuple[PinRef, ...]:
        """Clamps that the order of a potential names and that are not on it any more."""
        order = self.of(net)
        return tuple(pin for pin in order.pins if pin not in net.pins) if order else ()

    def connections(
        self,
        net: Net,
        pins: Sequence[PinRef],
        stands_for: Mapping[PinRef, PinRef],
        spreads: Container[DeviceId],
        shortest: Chain,
    ) -> list[Connection] | None:
        """The wires of a potential in the builder's order; None where he gave none.

        Args:
            net: The potential.
            pins: Its clamps that take a wire.
            stands_for: For clamps that a bridge or a comb joins, the one of them that takes the wire.
            spreads: Bars and blocks: their ways are joined without wires, and a free one feeds a new clamp.
            shortest: Orders new clamps that find no way free: they go on from the last that he named.
        """
        order = self.of(net)
        if order is None:
            return None
        pairs: list[tuple[PinRef, PinRef]] = []
        named: set[PinRef] = set()
        placed: list[PinRef] = []
        for chain in order.clamps:
            still_there = list(
                dict.fromkeys(stands_for.get(pin, pin) for pin in chain if stands_for.get(pin, pin) in pins)
            )
            still_there = still_there[:1] + [pin for pin in still_there[1:] if pin not in placed]
            # Where the clamp at which it split is gone, a chain goes on from the first of the potential.
            if placed and still_there and still_there[0] not in placed and chain[0] in named:
                still_there = [placed[0], *still_there]
            pairs += pairwise(still_there)
            placed += [pin for pin in still_there if pin not in placed]
            named |= set(chain)
        new = [pin for pin in pins if pin not in placed and pin.device not in spreads]
        ways = [pin for pin in pins if pin not in placed and pin.device in spreads]
        pairs += zip(ways, new, strict=False)
        new = new[len(ways) :]
        if new:
            row = [*placed[-1:], *new]
            way = shortest(row) if len(row) > 2 else row
            if placed and way[0] != placed[-1]:
                way = way[::-1] if way[-1] == placed[-1] else [placed[-1], *(pin for pin in way if pin != placed[-1])]
            pairs += pairwise(way)
        landed = Counter(pin for pair in pairs for pin in pair)
        return [Connection(net, a, b, tuple(pin for pin in (a, b) if landed[pin] == 1)) for a, b in pairs]


def order_of(wires: Iterable[Wire]) -> WireOrder | None:
    """The order that the wires of one potential have now; None where there is no wire.

    Args:
        wires: All wires of the potential.
    """
    graph: dict[PinRef, list[PinRef]] = {}
    for wire in wires:
        graph.setdefault(wire.start.pin, []).append(wire.end.pin)
        graph.setdefault(wire.end.pin, []).append(wire.start.pin)
    rows: dict[str, str | None] = {}
    for begin in sorted(graph, key=lambda pin: len(graph[pin])):
        # Depth first, so that a chain is one row from end to end.
        ahead: list[tuple[PinRef, str | None]] = [(begin, None)]
        while ahead:
            pin, origin = ahead.pop()
            if str(pin) not in rows:
                rows[str(pin)] = origin
                ahead += [(other, str(pin)) for other in reversed(graph[pin])]
    return WireOrder.of_rows(rows.items()) if rows else None
