"""Cards of a controller: which of their units are points, and under which address."""

from riktig.core.schematic.model.elements import Device

__all__ = ["io_address"]


def io_address(device: Device, unit: str) -> str:
    """The address of a point of a card: “%IX0.3”, “%QW1”; empty for anything else.

    Args:
        device: The device.
        unit: The name of a unit of the device, such as “13-14”.
    """
    first = next((word for word in device.purpose.split() if word.startswith("%")), "")
    if not first or device.kind.point_pin is None:
        return ""
    point = unit.split("-")[device.kind.point_pin].lstrip("AIOQ")
    if "." in first:
        return f"{first.rsplit('.', 1)[0]}.{point}"
    letters = first.rstrip("0123456789")
    return f"{letters}{int(first.removeprefix(letters)) + int(point)}"
