"""Clamps side by side: where a wire may land in the wrong one, and where two may touch."""

from itertools import pairwise

from riktig.core.catalogue import Clamp
from riktig.core.ids import DeviceId, PinRef
from riktig.core.proving.dead_panel import DeadPanel

__all__ = ["neighbours"]


def neighbours(panel: DeadPanel) -> list[tuple[PinRef, PinRef]]:
    """Clamps of two potentials side by side: along each side of a part, and of a strip from terminal to terminal.

    Args:
        panel: The dead panel as it should be.
    """
    pairs: list[tuple[PinRef, PinRef]] = []
    strips: dict[str, list[DeviceId]] = {}
    for device in panel.devices.values():
        if device.strip:
            strips.setdefault(device.strip, []).append(device.id)
        sides: dict[str, list[tuple[float, PinRef]]] = {}
        for pin in device.kind.pins:
            if pin.clamp is not Clamp.PLUG:
                sides.setdefault(pin.side.value, []).append((pin.across, device.pin(pin.name)))
        for side_pins in sides.values():
            pairs += pairwise(pin for _, pin in sorted(side_pins, key=lambda placed: (placed[0], str(placed[1]))))
    for strip in strips.values():
        pairs += [(PinRef(first, "i"), PinRef(second, "i")) for first, second in pairwise(strip)]
    return [(a, b) for a, b in dict.fromkeys(pairs) if _potential(panel, a) != _potential(panel, b)]


def _potential(panel: DeadPanel, pin: PinRef) -> int:
    """The number of what a pin is joined with whatever the switches do; a wire more or less there changes nothing."""
    return panel.potentials[panel.node[pin]]
