"""A number of its own for every wire, where practice has it so."""

from collections import defaultdict

from riktig.core.job import PinRef
from riktig.core.schematic import Names, wire_number
from riktig.core.wiring.connections import Connection
from riktig.core.wiring.model import WireId, wire_key

__all__ = ["INSIDE_ONE", "wire_ids_of"]

INSIDE_ONE = "link"
"""In the place of a number: a wire between two units of one device, at whose joint nothing else lands."""


def wire_ids_of(connections: list[Connection], names: Names) -> dict[WireId, str]:
    """The number of every wire by its key: the number of its potential, and the ident of the end it feeds.

    Method:
        The wires of a potential make a tree. Seen from its pin with the lowest ident, every wire leads to one
        pin more, and has that pin's ident: so no two are alike, and a wire keeps its own while its end stays.
        Nothing where a potential has one number all along.
    """
    if not names.marks:
        return {}
    near: dict[PinRef, list[PinRef]] = defaultdict(list)
    number: dict[PinRef, str] = {}
    for connection in connections:
        near[connection.a].append(connection.b)
        near[connection.b].append(connection.a)
        number[connection.a] = number[connection.b] = names.number.get(connection.net.id, "")
    ids: dict[WireId, str] = {}
    seen: set[PinRef] = set()
    for root in sorted(near, key=lambda pin: (names.marks.get(pin, 0), pin)):
        if root in seen:
            continue
        seen.add(root)
        todo = [root]
        while todo:
            pin = todo.pop()
            for other in near[pin]:
                if other not in seen:
                    seen.add(other)
                    todo.append(other)
                    if number[other]:
                        ids[wire_key(pin, other)] = wire_number(number[other], names.marks[other])
    return ids
