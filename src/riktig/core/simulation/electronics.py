"""What moves the contacts of a device: its coil, or electronics that look at more than one thing."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Protocol

from riktig.core.catalogue import Can
from riktig.core.job import DeviceId
from riktig.core.schematic import Device
from riktig.core.simulation.network import Network
from riktig.core.simulation.phase_rotation import lines_at
from riktig.core.simulation.volts import Volts

__all__ = ["Channels", "Fed", "is_driven"]

FIRST, SECOND, RESET = "S11-S12", "S21-S22", "S33-S34"
"""The loops of a safety relay: its two channels and its monitored reset."""


@dataclass
class Channels:
    """What a safety relay remembers: which channels were open since it last ran, and whether its reset is held."""

    opened: set[str] = field(default_factory=lambda: {FIRST, SECOND})
    reset_held: bool = False
    runs: bool = False

    def step(self, *, power: bool, closed: Mapping[str, bool], reset: bool) -> bool:
        """Whether its outputs are closed after a change.

        Both channels must be closed, and both have been open since it last ran: one that stays closed, welded or
        bridged, keeps it from being reset. It starts as the reset is released, so a button held or stuck in starts
        nothing (ISO 13849-1 and IEC 60204-1 9.2.3.4, from memory). Without power it forgets.

        Args:
            power: Whether it is fed.
            closed: Whether each channel is closed.
            reset: Whether the reset is pressed.
        """
        if not power:
            self.opened, self.reset_held, self.runs = {FIRST, SECOND}, False, False
            return False
        self.opened |= {channel for channel, is_closed in closed.items() if not is_closed}
        whole = all(closed.values())
        released = self.reset_held and not reset
        self.reset_held = reset
        if not whole:
            self.runs = False
        elif released and len(self.opened) == len(closed):
            self.opened, self.runs = set(), True
        return self.runs


class Fed(Protocol):
    """What is asked of a panel with power on."""

    network: Network
    volts: Volts
    channels: dict[DeviceId, Channels]

    def is_fed(self, device: DeviceId, unit: str = "A1-A2") -> bool:
        """Whether a coil, lamp or input works."""
        ...


def is_driven(panel: Fed, device: Device) -> bool | None:
    """Whether the contacts of a device are moved; None for one that moves none.

    Args:
        panel: The panel with power on.
        device: The device.
    """
    device_id, can = device.id, device.kind.can
    if can(Can.TWO_CHANNELS):
        closed = {channel: panel.is_fed(device_id, channel) for channel in (FIRST, SECOND)}
        return panel.channels[device_id].step(
            power=panel.is_fed(device_id), closed=closed, reset=panel.is_fed(device_id, RESET)
        )
    if can(Can.WATCHES_PHASES):
        watched = all(panel.is_fed(device_id, unit) for unit in ("L1-L2", "L2-L3", "L3-L1"))
        return watched and lines_at(panel.network, panel.volts, device_id) == "forward"
    if can(Can.STARTS_SOFTLY):
        return panel.is_fed(device_id) and panel.is_fed(device_id, "S1-S2")
    if can(Can.VARIES_SPEED):
        told = panel.is_fed(device_id, "R1-0") or panel.is_fed(device_id, "R2-0")
        return told and lines_at(panel.network, panel.volts, device_id) != ""
    return panel.is_fed(device_id) if device.kind.has_coil else None
