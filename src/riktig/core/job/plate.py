"""Where things stand, once the builder has taken a hand in it. All in mm from the plate's datum."""

from dataclasses import dataclass

from riktig.core.job.ids import DeviceId

__all__ = ["DuctFix", "Placement", "PlateFix", "RailFix", "Spot"]


@dataclass(frozen=True, slots=True)
class RailFix:
    """A rail (number from 1) with its centre line at ``y``; without ends it runs as the plan has it."""

    number: int
    y: float
    x1: float | None = None
    x2: float | None = None


@dataclass(frozen=True, slots=True)
class DuctFix:
    """A duct (number from 1): left upper corner, width and height."""

    number: int
    x: float
    y: float
    width: float
    height: float
    upright: bool


@dataclass(frozen=True, slots=True)
class Placement:
    """A device's left edge on a rail: ``offset`` in mm from the rail's left end."""

    device: DeviceId
    rail: int
    offset: float
    locked: bool = False


@dataclass(frozen=True, slots=True)
class Spot:
    """A device that is screwed to the plate: the left upper corner of what moves with it."""

    device: DeviceId
    x: float
    y: float
    locked: bool = False


@dataclass(frozen=True, slots=True)
class PlateFix:
    """The plate as the builder left it. What has no place here is planned around it; no ducts: as the rails ask."""

    rails: tuple[RailFix, ...]
    placements: tuple[Placement, ...]
    ducts: tuple[DuctFix, ...] = ()
    spots: tuple[Spot, ...] = ()
