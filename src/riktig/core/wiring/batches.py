"""Batches: wires of one section and colour between the same places, cut and marked together."""

from collections import defaultdict

from riktig.core.job import Batching, DoorOrder, Practice
from riktig.core.wiring.model import Batch, Wire, WiringStage

__all__ = ["make_batches", "order_of_stages"]


SHORTEST_SHARE = 0.33
"""A wire shorter than this share of a batch's longest goes into a batch of its own (by us)."""


def order_of_stages(practice: Practice) -> tuple[WiringStage, ...]:
    """Thick first, small on top, earths last; the door before or after the plate."""
    plate = (WiringStage.FEED, WiringStage.MOTOR, WiringStage.NEUTRAL, WiringStage.CONTROL)
    if practice.door_order is DoorOrder.FIRST:
        return (WiringStage.DOOR, *plate, WiringStage.EARTH)
    return (*plate, WiringStage.DOOR, WiringStage.EARTH)


def make_batches(wires: list[Wire], practice: Practice) -> tuple[tuple[Wire, ...], tuple[Batch, ...]]:
    """Wires in the order they go in, cut as the practice has it, and their batches."""
    order = order_of_stages(practice)
    groups: dict[tuple[int, float, str], list[Wire]] = defaultdict(list)
    for wire in wires:
        groups[(order.index(wire.stage), -wire.mm2, wire.colour)].append(wire)
    done: list[Wire] = []
    batches: list[Batch] = []
    split = [(key, group) for key in sorted(groups) for group in _alike(groups[key])]
    for number, (key, group) in enumerate(split, 1):
        longest = max(wire.length for wire in group)
        if practice.batching is Batching.LONGEST:
            group = [wire.cut_to(longest) for wire in group]
        total = sum(wire.cut for wire in group)
        batches.append(
            Batch(
                number,
                order[key[0]],
                -key[1],
                key[2],
                tuple(wire.key for wire in group),
                longest,
                total,
                total - sum(wire.length for wire in group),
                _places(group),
            )
        )
        done += group
    return tuple(done), tuple(batches)


def _alike(wires: list[Wire]) -> list[list[Wire]]:
    """Splits a group where cutting to the longest would throw too much of a wire away."""
    longest = max(wire.length for wire in wires)
    long = [wire for wire in wires if wire.length >= SHORTEST_SHARE * longest]
    rest = [wire for wire in wires if wire.length < SHORTEST_SHARE * longest]
    return [long, *(_alike(rest) if rest else [])]


def _places(group: list[Wire]) -> str:
    """The devices a batch runs between, in a few words."""
    tags = dict.fromkeys(end.label.split(":")[0] for wire in group for end in (wire.start, wire.end))
    shown = list(tags)
    return ", ".join(shown[:5]) + (" …" if len(shown) > 5 else "")
