"""Which poles of supplies give voltage now: a supply that is lost or not fed itself gives none."""

from dataclasses import replace
from typing import Protocol

from riktig.core.catalogue import Can
from riktig.core.job import DeviceId
from riktig.core.schematic import Device
from riktig.core.simulation.network import MAINS, Network, SupplyPole
from riktig.core.simulation.phase_rotation import lines_at
from riktig.core.simulation.state import OperatorState
from riktig.core.simulation.volts import Volts

__all__ = ["Supplied", "poles_alive"]


class Supplied(Protocol):
    """What is asked of a panel with power on."""

    network: Network
    volts: Volts
    operator_state: OperatorState
    controllers: list[DeviceId]

    def is_fed(self, device: DeviceId, unit: str = "A1-A2") -> bool:
        """Whether a coil, lamp or input works."""
        ...


def poles_alive(panel: Supplied) -> list[SupplyPole]:
    """The poles that give voltage now.

    Args:
        panel: The panel with power on.
    """
    state = panel.operator_state
    alive: list[SupplyPole] = []
    for pole in panel.network.poles:
        device = panel.network.devices.get(DeviceId(pole.system.partition(":")[0]))
        if pole.system == MAINS:
            if pole.name not in state.lost:
                alive.append(pole)
        elif device is not None and device.id not in state.lost and _gives(panel, device):
            level = device.kind.can(Can.GIVES_LEVELS) and not pole.is_zero  # somebody sets how much it gives
            alive.append(replace(pole, dc=pole.dc * state.reference.get(pole.system, 0.0)) if level else pole)
    return alive


def _gives(panel: Supplied, device: Device) -> bool:
    """Whether a device that makes a supply makes it now."""
    can = device.kind.can
    if can(Can.TRANSFORMS):
        return panel.is_fed(device.id, "1-3")
    if can(Can.MAKES_DC):
        return panel.is_fed(device.id, "L-N")
    if can(Can.FOREIGN_SUPPLY):
        return device.id in panel.operator_state.foreign
    if can(Can.STARTS_SOFTLY) or can(Can.TWO_CHANNELS):
        return panel.is_fed(device.id)
    if can(Can.VARIES_SPEED):
        return lines_at(panel.network, panel.volts, device.id) != ""
    return any(panel.is_fed(controller, "24-0") for controller in panel.controllers)
