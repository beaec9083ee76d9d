"""Cards of a controller: which of their units are points, and under which address."""

from riktig.core.circuit.model import Device

__all__ = ["CARDS", "io_address"]

CARDS = {"inputs": 0, "outputs": 1, "analogue_out": 0}
"""Cards of a controller, and which pin of a unit is the point."""


def io_address(device: Device, unit: str) -> str:
    """The address of a point of a card: “%IX0.3”, “%QW1”; empty for anything else."""
    first = next((word for word in device.purpose.split() if word.startswith("%")), "")
    if not first or device.kind_id not in CARDS:
        return ""
    point = unit.split("-")[CARDS[device.kind_id]].lstrip("AIOQ")
    if "." in first:
        return f"{first.rsplit('.', 1)[0]}.{point}"
    letters = first.rstrip("0123456789")
    return f"{letters}{int(first.removeprefix(letters)) + int(point)}"
