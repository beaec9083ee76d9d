"""What each part lets a panel be connected to, and what the panel bears by its weakest part."""

from dataclasses import dataclass, field
from enum import Enum

from riktig.core.ids import DeviceId

__all__ = ["Basis", "Limit", "Rating", "SharedFeed"]


class Basis(Enum):
    """What a limit rests on."""

    BREAKS = "what it breaks"
    MARKED = "its own marking"
    TESTED = "a tested combination"
    ASSUMED = "assumed: nothing is marked"
    RAISED = "raised by the let-through of a feeder's fuses"
    BEARS = "what it bears for a second against what its guard lets through"
    EXCEPTED = "excepted behind a small transformer"
    UNKNOWN = "not known"


@dataclass(frozen=True, slots=True)
class Limit:
    """What one part lets the panel be connected to, kA; None where it is not known. ``why`` is a sentence."""

    device: DeviceId
    ka: float | None
    basis: Basis
    why: str
    raised_from: float | None = None
    """What it was before the let-through of a feeder raised it, kA."""
    is_feeder: bool = False
    """Whether it belongs to a feeder, so that all of the panel hangs on it."""


@dataclass(frozen=True, slots=True)
class SharedFeed:
    """Busbars or a comb that feed several guards: the first of these, and what they are called."""

    first: DeviceId
    name: str


@dataclass(frozen=True, slots=True)
class Rating:
    """The short-circuit rating of a panel, kA at a voltage: the least of its limits.

    ``ka`` is None where nothing is known at all. Where anything is ``unknown`` the rating is only that of the rest.
    """

    ka: float | None
    volts: float
    limits: tuple[Limit, ...]
    name: str
    """What it is called in the rulebook."""
    notes: tuple[str, ...] = field(default=())

    @property
    def unknown(self) -> tuple[Limit, ...]:
        """The parts of which a figure is missing."""
        return tuple(limit for limit in self.limits if limit.ka is None)

    @property
    def weakest(self) -> tuple[Limit, ...]:
        """The parts that set the rating."""
        return tuple(limit for limit in self.limits if limit.ka is not None and limit.ka == self.ka)

    @property
    def is_known(self) -> bool:
        """Whether it is that of the whole panel."""
        return self.ka is not None and not self.unknown
