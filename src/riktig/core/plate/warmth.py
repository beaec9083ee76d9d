"""What every part in the box loses at its rated current: where it gets warm."""

from riktig.core.circuit import Circuits, Zone
from riktig.core.job import DeviceId
from riktig.core.sizing import Sizing

__all__ = ["Losses", "rated_losses"]

Losses = tuple[tuple[DeviceId, float], ...]
"""Devices and what they lose, W, the hottest first."""


def rated_losses(circuits: Circuits, sizing: Sizing) -> Losses:
    """Losses of the parts in the box from their data, at rated current: an upper limit, since loads draw less.

    What the air inside comes to with the loads running is worked out in the proposal.
    """
    found = [
        (device.id, sizing.parts[device.id].loss_w)
        for device in circuits.devices
        if device.zone is not Zone.FIELD and device.id in sizing.parts and sizing.parts[device.id].loss_w > 0
    ]
    return tuple(sorted(found, key=lambda one: (-one[1], one[0])))
