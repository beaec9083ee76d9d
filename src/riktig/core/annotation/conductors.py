"""The conductors at each pin and the cables to the field, as the sheets name them."""

from collections import defaultdict

from riktig.core.job import DeviceId, PinRef
from riktig.core.schematic import PinConductor
from riktig.core.standards import conductor_name
from riktig.core.terminals import Strips
from riktig.core.wiring import Wiring

__all__ = ["field_cables", "pin_conductors"]

NO_WAY = PinConductor("no way found", "", "no way found")
"""Of a pin that no wire reaches: without it the line would be taken for one with the usual conductor."""


def pin_conductors(wiring: Wiring) -> dict[PinRef, PinConductor]:
    """The sizes and colours of the wires that land on each pin; the thickest first.

    Args:
        wiring: The wires as they are, with the builder's changes.
    """
    at_pin: dict[PinRef, list[tuple[float, str]]] = defaultdict(list)
    for wire in wiring.wires:
        for end in (wire.start, wire.end):
            at_pin[end.pin].append((wire.mm2, wire.colour))
    routed = {
        pin: PinConductor(
            " / ".join(conductor_name(mm2) for mm2 in sorted({mm2 for mm2, _ in wires}, reverse=True)),
            " / ".join(sorted({colour for _, colour in wires})),
            conductor_name(max(mm2 for mm2, _ in wires)),
        )
        for pin, wires in at_pin.items()
    }
    return {pin: NO_WAY for pin in wiring.unrouted if pin not in routed} | routed


def field_cables(strips: Strips) -> dict[DeviceId, tuple[str, str]]:
    """The cable to each device in the field: its tag, and its make-up with its length where that is known.

    Args:
        strips: The strips with their cables.
    """
    return {
        device: (cable.tag, f"{cable.make_up}, {cable.length_m:g} m" if cable.length_m else cable.make_up)
        for cable in strips.cables
        if cable.cores
        for device in cable.devices
    }
