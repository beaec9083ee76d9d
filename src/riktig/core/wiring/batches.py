"""Batches: wires of one section and colour between the same places, cut and marked together."""

from collections import defaultdict
from collections.abc import Container

from riktig.core.job import Batching, DeviceId, DoorOrder, FirstSide, PinRef, Practice, WiringOrder
from riktig.core.wiring.model import Batch, Wire, WiringStage

__all__ = ["make_batches"]

FROM_SUPPLY = (WiringStage.FEED, WiringStage.MOTOR, WiringStage.NEUTRAL, WiringStage.CONTROL)
"""The plate as the current goes through it."""


SHORTEST_SHARE = 0.33
"""A wire shorter than this share of a batch's longest goes into a batch of its own (by us)."""


def _place_in_order(wire: Wire, practice: Practice, terminals: Container[DeviceId]) -> tuple[int, float]:
    """When a wire goes in: first what is least, earths always last, the door before or after the plate."""
    if wire.stage is WiringStage.EARTH:
        return (9, 0.0)
    if wire.stage is WiringStage.DOOR:
        return (-1 if practice.door_order is DoorOrder.FIRST else 8, 0.0)
    if practice.wiring_order is WiringOrder.SUPPLY_FIRST:
        return (FROM_SUPPLY.index(wire.stage), 0.0)
    if practice.wiring_order is WiringOrder.CONTROL_FIRST:
        return (int(wire.stage is not WiringStage.CONTROL), 0.0)
    return (int(wire.start.pin.device in terminals or wire.end.pin.device in terminals), -wire.mm2)


def make_batches(
    wires: list[Wire], practice: Practice, terminals: Container[DeviceId], returns: Container[PinRef]
) -> tuple[tuple[Wire, ...], tuple[Batch, ...]]:
    """Wires in the order they go in, cut as the practice has it, and their batches.

    Method:
        Thick first, and what lands on terminals after the rest; or from the supply on; or control before power: as the
        practice has it. Within that, batches are alike in stage, section and colour, the thicker first; where the
        practice parts the sides of a circuit, returns and neutrals go before or after all live wires.

    Args:
        wires: All wires of the panel.
        practice: The practice of the job.
        terminals: The terminals that cables of the field land on.
        returns: The nets that lead back: neutrals, and the earthed sides of control and of 24 V.
    """
    stages = list(WiringStage)
    groups: dict[tuple[int, float, bool, int, float, str], list[Wire]] = defaultdict(list)
    after = {FirstSide.LIVE: True, FirstSide.RETURN: False}
    for wire in wires:
        at = _place_in_order(wire, practice, terminals)
        later = (wire.net in returns) is after.get(practice.first_side)
        groups[(*at, later, stages.index(wire.stage), -wire.mm2, wire.colour)].append(wire)
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
                stages[key[3]],
                -key[4],
                key[5],
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
