"""What an operator is made up of, from the front to the last block: forget one item and it cannot be fitted."""

from dataclasses import dataclass

from riktig.core.catalogue import Behaviour, Can, Kind, Part
from riktig.core.standards import operator_stack

__all__ = ["Stack", "StackItem", "may_move", "stack_of", "when_let_go"]

_CONTACTS = {Behaviour.NO: "NO block", Behaviour.NC: "NC block"}
_WAYS = ("left", "right", "middle")
"""In which order blocks are snapped on; a lamp takes the middle (common practice, no source)."""


@dataclass(frozen=True, slots=True)
class StackItem:
    """One item: what it is, its terminals, and where behind the door it sits (layer 0: no block)."""

    what: str
    pins: tuple[str, ...] = ()
    way: str = ""
    layer: int = 0


@dataclass(frozen=True, slots=True)
class Stack:
    """The whole build-up, from the front; how many contact places are taken of how many; its depth, mm."""

    items: tuple[StackItem, ...]
    taken: int
    limit: int
    depth: float

    @property
    def too_many(self) -> int:
        """Contacts that have no place."""
        return max(self.taken - self.limit, 0)

    @property
    def blocks(self) -> tuple[StackItem, ...]:
        """What is snapped on from behind."""
        return tuple(item for item in self.items if item.layer)

    @property
    def said(self) -> str:
        """The blocks in words: “NO block 3-4 left, lamp X1-X2 middle”."""
        return ", ".join(f"{b.what} {'-'.join(b.pins)} {b.way}".strip() for b in self.blocks)


def stack_of(kind: Kind, part: Part, legend: str) -> Stack:
    """What a device of the door is made up of. What has no head of a 22 mm operator is one item with its frame.

    Source:
        Ways, layers and depth of a block: ``operator_stacks``, common practice, from memory.

    Args:
        kind: The kind of the device.
        part: Its part.
        legend: What stands on the legend plate.
    """
    figures = operator_stack()
    head = kind.head
    plate = (StackItem(f"legend plate “{legend}”"),) if legend else ()
    if not head:
        return Stack((StackItem(part.description), StackItem("frame and seal")), 0, 0, part.depth)
    front = (*plate, StackItem(head), StackItem("seal"), StackItem("fixing nut, from behind"))
    contacts = [unit for unit in kind.units if unit.behaviour in _CONTACTS]
    lamp = next((unit for unit in kind.units if unit.behaviour is Behaviour.LAMP), None)
    inputs = tuple(dict.fromkeys(pin for u in kind.units if u.behaviour is Behaviour.LAMP for pin in u.pins))
    ways = _WAYS[: figures.ways - 1] if lamp else _WAYS[: figures.ways]
    blocks = [StackItem("lamp block", inputs, "middle", 1)] if lamp else []
    for n, unit in enumerate(contacts):
        blocks.append(StackItem(_CONTACTS[unit.behaviour], unit.pins, ways[n % len(ways)], n // len(ways) + 1))
    layers = max((block.layer for block in blocks), default=1)
    limit = len(ways) * figures.layers
    depth = part.depth + (layers - 1) * figures.block_depth
    return Stack((*front, *blocks), len(contacts), limit, depth)


def may_move(kind: Kind) -> str:
    """Who can move an operator."""
    if kind.can(Can.KEY):
        return "who holds the key"
    if any(unit.behaviour in _CONTACTS for unit in kind.units):
        return "anyone"
    return ""


def when_let_go(kind: Kind) -> str:
    """What an operator does when it is let go: a button springs back, a selector and a mushroom head stay."""
    if not any(unit.behaviour in _CONTACTS for unit in kind.units):
        return ""
    stays = kind.can(Can.TURNED) or kind.can(Can.MUSHROOM) or kind.can(Can.KEY)
    return "stays" if stays else "springs back"
