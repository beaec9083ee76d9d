"""Batches: wires of one stage, section and colour between the same two areas, cut and marked together."""

from collections import defaultdict
from collections.abc import Callable, Container, Mapping, Sequence
from typing import Protocol

from riktig.core.job import Batching, CircuitId, DeviceId, DoorOrder, FirstSide, PinRef, Practice, WiringOrder
from riktig.core.wiring.batch_costs import (
    Prices,
    Work,
    cheapest_parts,
    work_of_batch,
    work_one_at_a_time,
    work_to_length,
)
from riktig.core.wiring.model import Batch, Wire, WiringStage, WorkCompared

__all__ = ["make_batches", "prices_of", "work_compared"]

_POWER = (WiringStage.MAINS, WiringStage.NEUTRAL, WiringStage.FEED, WiringStage.LOAD)
_CONTROL = (WiringStage.CONTROL, WiringStage.DC, WiringStage.EXCEPTED)
_LAST = (WiringStage.EARTH, WiringStage.DOOR, WiringStage.FIELD)
IN_ORDER: Mapping[WiringOrder, tuple[WiringStage, ...]] = {
    WiringOrder.THICK_FIRST: (*_POWER, *_CONTROL, *_LAST),
    WiringOrder.SUPPLY_FIRST: (
        WiringStage.MAINS, WiringStage.FEED, WiringStage.LOAD, WiringStage.NEUTRAL, *_CONTROL, *_LAST,
    ),
    WiringOrder.CONTROL_FIRST: (*_CONTROL, *_POWER, *_LAST),
    WiringOrder.BY_CIRCUIT: (
        WiringStage.MAINS, WiringStage.FEED, WiringStage.LOAD, WiringStage.NEUTRAL, *_CONTROL, *_LAST,
    ),
}  # fmt: skip
"""The stages in the order of the work, by practice (common practice, no source)."""
OF_A_CIRCUIT = frozenset({WiringStage.FEED, WiringStage.LOAD, WiringStage.NEUTRAL, *_CONTROL})
"""What is done for one circuit after the other where the practice goes by circuits."""

Area = Callable[[DeviceId], str]
"""Where a device stands: a rail such as “R2”, the plate beside the rails, a leaf of the door."""


def prices_of(practice: Practice) -> Prices:
    """What minutes and metres cost in a workshop."""
    return Prices(practice.batch_minutes, practice.hour_price, practice.metre_price)


class Cutter(Protocol):
    """What cuts wires to length and parts a group of them into batches."""

    def cut(self, wire: Wire, length: float) -> Wire:
        """A wire cut to a length, mm."""
        ...

    def parts(self, lengths: Sequence[float], mm2: float, prices: Prices) -> list[list[int]]:
        """The batches of a group that together cost least, by the places of their wires in it."""
        ...


class _Fresh:
    """Cuts and parts everything anew."""

    def cut(self, wire: Wire, length: float) -> Wire:
        return wire.cut_to(length)

    def parts(self, lengths: Sequence[float], mm2: float, prices: Prices) -> list[list[int]]:
        return cheapest_parts(lengths, mm2, prices)


_FRESH = _Fresh()


def make_batches(
    wires: list[Wire], practice: Practice, returns: Container[PinRef], area_of: Area, cutter: "Cutter | None" = None
) -> tuple[tuple[Wire, ...], tuple[Batch, ...]]:
    """Wires in the order they go in, cut as the practice has it, and their batches.

    Method:
        Stage by stage, as the practice orders them; or after the supply circuit by circuit. Within a stage the thicker
        first; where the practice parts the sides of a circuit, returns and neutrals go before or after all live wires.
        A batch is alike in stage, section, colour and the two areas it runs between; where it is cut to its longest, it
        is parted so that all batches together cost least.

    Args:
        wires: All wires of the panel.
        practice: The practice of the job.
        returns: The nets that lead back: neutrals, and the earthed sides of control and of 24 V.
        area_of: Where a device stands.
        cutter: What cuts wires and parts groups; it may keep what it did before.
    """
    cutter = cutter or _FRESH
    order = IN_ORDER[practice.wiring_order]
    circuits = {circuit: n for n, circuit in enumerate(dict.fromkeys(wire.circuit for wire in wires), 1)}
    after = {FirstSide.LIVE: True, FirstSide.RETURN: False}
    groups: dict[tuple[int, int, bool, float, str, tuple[str, str]], list[Wire]] = defaultdict(list)
    for wire in wires:
        later = (wire.net in returns) is after.get(practice.first_side)
        first, second = sorted((area_of(wire.start.pin.device), area_of(wire.end.pin.device)))
        rank, circuit = _place_in_order(wire, practice, order, circuits)
        groups[circuit, rank, later, -wire.mm2, wire.colour, (first, second)].append(wire)
    prices = prices_of(practice)
    to_longest = practice.batching is Batching.LONGEST
    done: list[Wire] = []
    batches: list[Batch] = []
    for key in sorted(groups):
        mm2, colour, areas = -key[3], key[4], key[5]
        group = groups[key]
        lengths = [wire.length for wire in group]
        for part in cutter.parts(lengths, mm2, prices) if to_longest else [range(len(group))]:
            part_lengths = [lengths[n] for n in part]
            longest, total = max(part_lengths), sum(part_lengths)
            made = [cutter.cut(group[n], longest if to_longest else group[n].length) for n in part]
            work = (work_of_batch if to_longest else work_to_length)(part_lengths, mm2, prices)
            batches.append(
                Batch(
                    len(batches) + 1, made[0].stage, mm2, colour, tuple(wire.key for wire in made), longest,
                    total + work.waste, work.waste, _places(made), areas, work.minutes, work.cost,
                )
            )  # fmt: skip
            done += made
    return tuple(done), tuple(batches)


def work_compared(wires: Sequence[Wire], batches: Sequence[Batch], practice: Practice) -> WorkCompared:
    """The work of cutting as planned, with the same batches cut to exact lengths, and with each wire by itself.

    Args:
        wires: All wires of the panel.
        batches: Their batches.
        practice: The practice of the job: what minutes and metres cost.
    """
    lengths = {wire.key: wire.length for wire in wires}
    prices = prices_of(practice)
    planned, exact, single = Work(), Work(), Work()
    for batch in batches:
        batch_lengths = [lengths[key] for key in batch.wires]
        planned += Work(batch.minutes, batch.waste, batch.cost)
        exact += work_to_length(batch_lengths, batch.mm2, prices)
        single += work_one_at_a_time(batch_lengths, batch.mm2, prices)
    return WorkCompared(planned, exact, single)


def _place_in_order(
    wire: Wire, practice: Practice, order: Sequence[WiringStage], circuits: Mapping[CircuitId, int]
) -> tuple[int, int]:
    """When a wire goes in: its place among the stages, and among the circuits where the work goes by these."""
    rank = order.index(wire.stage)
    if wire.stage is WiringStage.DOOR and practice.door_order is DoorOrder.FIRST:
        return -1, -1
    if practice.wiring_order is not WiringOrder.BY_CIRCUIT:
        return rank, 0
    if wire.stage in OF_A_CIRCUIT:
        return rank, circuits[wire.circuit]
    return rank, 0 if wire.stage is WiringStage.MAINS else len(circuits) + 1


def _places(group: Sequence[Wire]) -> str:
    """The devices a batch runs between, in a few words."""
    tags = dict.fromkeys(end.label.split(":")[0] for wire in group for end in (wire.start, wire.end))
    shown = list(tags)
    return ", ".join(shown[:5]) + (" …" if len(shown) > 5 else "")
