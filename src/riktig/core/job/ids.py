"""Stable names of things: made once, never shown; a tag may change, an id does not."""

from typing import NewType

__all__ = ["CircuitId", "DeviceId", "ElementId", "LoadId", "PinId", "SignalId", "SourceId", "pin_id"]

LoadId = NewType("LoadId", str)
SignalId = NewType("SignalId", str)
SourceId = NewType("SourceId", str)
CircuitId = NewType("CircuitId", str)
DeviceId = NewType("DeviceId", str)
"""The circuit's id, a point, and the device's role in it: ``c2.K``."""
ElementId = NewType("ElementId", str)
"""The device's id, a slash, and which of its units the element is: ``c2.K/13-14``."""
PinId = NewType("PinId", str)
"""The device's id, a colon, and the pin's marking: ``c2.K:13``."""


def pin_id(device: DeviceId, pin: str) -> PinId:
    """The id of a device's pin."""
    return PinId(f"{device}:{pin}")
