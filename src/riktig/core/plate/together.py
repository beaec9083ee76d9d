"""What is one thing for who works at the plate: a controller with its cards, an interlock between its contactors."""

from collections.abc import Container
from dataclasses import replace
from itertools import pairwise

from riktig.core.job import IMPLIED, CircuitId, DeviceId, Recipe
from riktig.core.plate.model import Block, Layout
from riktig.core.schematic import REVERSE, STAR, Circuits, Device, Zone

__all__ = ["apart", "groups_of", "kept_together", "side_by_side"]

CARDS_LETTER = "A"
"""Class letter of a controller and its cards."""
INTERLOCK, DELTA, FORWARD = "KI", "KD", "K"


def groups_of(circuits: Circuits) -> tuple[tuple[DeviceId, ...], ...]:
    """The devices that belong side by side, from left to right, group by group.

    The controller's cards in their order; two contactors that exclude each other with their interlock between them;
    breakers that one handle opens.

    Args:
        circuits: All devices of the job.
    """
    on_plate: dict[CircuitId, list[Device]] = {}
    for device in circuits.devices:
        if device.zone is Zone.PLATE and not device.strip:
            on_plate.setdefault(device.circuit, []).append(device)
    groups: list[tuple[DeviceId, ...]] = [tuple(tied) for tied in circuits.tied]
    for circuit, devices in on_plate.items():
        if circuit == IMPLIED[Recipe.CONTROLLER]:
            groups.append(tuple(device.id for device in devices if device.kind.letter == CARDS_LETTER))
        by_role = {device.role: device.id for device in devices}
        for first, second in ((FORWARD, REVERSE), (DELTA, STAR)):
            if first in by_role and second in by_role:
                groups.append(tuple(by_role[role] for role in (first, INTERLOCK, second) if role in by_role))
    return tuple(group for group in groups if len(group) > 1)


def kept_together(
    blocks: tuple[Block, ...], circuits: Circuits, run: float, placed: Container[DeviceId]
) -> tuple[Block, ...]:
    """The blocks with those of every group made one, as long as it goes onto a rail.

    Args:
        blocks: All blocks of the plate.
        circuits: All devices of the job.
        run: Length of a rail, mm: a longer group stays apart.
        placed: Leads that the builder has given a place of their own: their groups stay as they are.
    """
    by_lead = {block.lead: block for block in blocks}
    for group in groups_of(circuits):
        parts = [by_lead[lead] for lead in group if lead in by_lead]
        long = sum(block.width for block in parts) > run
        if len(parts) < len(group) or long or any(block.lead in placed for block in parts[1:]):
            continue
        made = side_by_side(parts)
        for block in parts:
            del by_lead[block.lead]
        by_lead[made.lead] = made
    order = {block.lead: n for n, block in enumerate(blocks)}
    return tuple(sorted(by_lead.values(), key=lambda block: order[block.lead]))


def side_by_side(parts: list[Block], *, with_room: bool = True) -> Block:
    """Blocks as one, from left to right; between them the room that a part itself asks for, or none."""
    first = parts[0]
    x, members = 0.0, []
    for before, block in pairwise((None, *parts)):
        assert block is not None
        x += max(before.room_right, block.room_left) if before and with_room else 0.0
        members += [(device, part, x + dx, dy) for device, part, dx, dy in block.members]
        x += block.width
    return replace(
        first,
        members=tuple(members),
        width=x,
        above=max(block.above for block in parts),
        below=max(block.below for block in parts),
        room_left=first.room_left,
        room_right=parts[-1].room_right,
        room_above=max(block.room_above for block in parts),
        room_below=max(block.room_below for block in parts),
        screwed=any(block.screwed for block in parts),
    )


def apart(layout: Layout, circuits: Circuits) -> tuple[tuple[DeviceId, DeviceId], ...]:
    """Neighbours of a group that do not stand beside each other on one rail.

    Args:
        layout: The plate: where everything stands.
        circuits: All devices of the job.
    """
    parted: list[tuple[DeviceId, DeviceId]] = []
    ordered = sorted(layout.seats, key=lambda seat: (seat.rail, seat.rect.x))
    place = {seat.device: n for n, seat in enumerate(ordered)}
    plugged = {device.id for device in circuits.devices if device.under}
    for group in groups_of(circuits):
        for left, right in pairwise(group):
            if left not in place or right not in place:
                continue
            a, b = ordered[place[left]], ordered[place[right]]
            between = [s for s in ordered[place[left] + 1 : place[right]] if s.device not in plugged]
            level = a.rect.y < b.rect.bottom and b.rect.y < a.rect.bottom
            if a.rail != b.rail or between or place[left] > place[right] or not level:
                parted.append((left, right))
    return tuple(parted)
