"""Where things stand, once the builder has taken a hand in it."""

from dataclasses import dataclass

from riktig.core.job.ids import DeviceId

__all__ = ["Placement", "PlateFix", "RailFix"]


@dataclass(frozen=True, slots=True)
class RailFix:
    """A rail (number from 1, from the top) with its centre line at ``y``, mm from the datum."""

    number: int
    y: float


@dataclass(frozen=True, slots=True)
class Placement:
    """A device's left edge on a rail: ``offset`` in mm from the rail's left end."""

    device: DeviceId
    rail: int
    offset: float
    locked: bool = False


@dataclass(frozen=True, slots=True)
class PlateFix:
    """The plate as the builder left it. Devices without a placement are planned around it."""

    rails: tuple[RailFix, ...]
    placements: tuple[Placement, ...]
