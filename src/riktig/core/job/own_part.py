"""Parts of the builder's own, and which part he has chosen for a device."""

import math
import re
from dataclasses import dataclass

from riktig.core.errors import ImpossibleValueError
from riktig.core.ids import DeviceId

__all__ = ["BODY_COLOURS", "OwnHole", "OwnPart", "Pick"]

LARGEST_MM = 2000.0
"""No part of a panel is larger (chosen by us: a slip of the decimal point is found)."""

COMBINATION = re.compile(r"[A-Za-z][A-Za-z\- ]* \d+(?:\.\d+)?\s*:\s*\d+(?:\.\d+)?\*?")
"""A guard by its kind, its most A, and the kA of the combination."""

BODY_COLOURS = (
    "", "grey", "light blue", "blue", "green-yellow", "green", "orange", "red", "yellow", "brown", "white", "black",
)  # fmt: skip
"""What a terminal is made in (common practice, no source)."""


@dataclass(frozen=True, slots=True)
class OwnHole:
    """A fixing hole, mm from the part's left upper corner, and its thread."""

    x: float
    y: float
    thread: str = "M4"


@dataclass(frozen=True, slots=True)
class OwnPart:
    """A part that the catalogue lacks. Sizes, room around it and bending room mm, loss W, currents A, torque N·m.

    A size of 0 is not known yet: the part can be written down, but not placed. ``kind`` is what it is wired
    like; without ``holes`` it stands on a rail if its kind does.

    Raises:
        ValueError: no reference, a size that cannot be, a hole outside the part.
    """

    ref: str
    kind: str
    description: str = ""
    width: float = 0.0
    height: float = 0.0
    depth: float = 0.0
    room_left: float = 0.0
    room_right: float = 0.0
    room_top: float = 0.0
    room_bottom: float = 0.0
    bend: float = 0.0
    loss_w: float = 0.0
    rated_a: float = 0.0
    min_mm2: float = 0.5
    max_mm2: float = 6.0
    strip: float = 10.0
    torque_n_m: float = 1.2
    holes: tuple[OwnHole, ...] = ()
    colour: str = ""
    """Of its body, where that tells what it is for, as on a terminal."""
    breaking_ka: float = 0.0
    """What it breaks of a short circuit, kA; 0: not known, or it breaks none."""
    marked_ka: float = 0.0
    """The short-circuit current that its maker marks it for, kA; 0: not known."""
    energy_ka2s: float = 0.0
    """What it lets through at what it breaks, thousand A²s; 0: not known."""
    peak_ka: float = 0.0
    """The peak that it lets through at what it breaks, kA, where it limits the current; 0: not known, or none."""
    tested_with: str = ""
    """Combinations it was tested in: the guard ahead with its most A, and the kA: “gG 63: 50; breaker 40: 10”. A star
    behind the kA says that it stays fit for use afterwards (coordination type 2)."""

    def __post_init__(self) -> None:
        if not self.ref.strip():
            raise ImpossibleValueError("a part needs a reference")
        for what, value in (("width", self.width), ("height", self.height), ("depth", self.depth)):
            if not (math.isfinite(value) and 0 <= value <= LARGEST_MM):
                raise ImpossibleValueError(f"a part cannot be {value:g} mm in {what}; 0 means not known yet")
        for value in (self.room_left, self.room_right, self.room_top, self.room_bottom, self.bend):
            if not (math.isfinite(value) and 0 <= value <= LARGEST_MM):
                raise ImpossibleValueError(f"the room around a part cannot be {value:g} mm")
        for what, value in (
            ("loss", self.loss_w),
            ("current", self.rated_a),
            ("torque", self.torque_n_m),
            ("breaking capacity", self.breaking_ka),
            ("short-circuit rating", self.marked_ka),
            ("energy let through", self.energy_ka2s),
            ("peak let through", self.peak_ka),
        ):
            if not (math.isfinite(value) and 0 <= value < 1e5):
                raise ImpossibleValueError(f"a {what} of {value:g} cannot be")
        self._check_texts_and_holes()

    def _check_texts_and_holes(self) -> None:
        if not 0 < self.min_mm2 <= self.max_mm2 <= 400:
            raise ImpossibleValueError(f"a clamp cannot take {self.min_mm2:g} to {self.max_mm2:g} mm²")
        if self.colour not in BODY_COLOURS:
            raise ImpossibleValueError(f"a part has no colour “{self.colour}”; it may be {', '.join(BODY_COLOURS[1:])}")
        for text in filter(str.strip, self.tested_with.split(";")):
            if not COMBINATION.fullmatch(text.strip()):
                raise ImpossibleValueError(
                    f"“{text.strip()}” is no tested combination; write one as “gG 63: 50”, several with semicolons"
                )
        for hole in self.holes:
            if not (0 <= hole.x <= self.width and 0 <= hole.y <= self.height):
                raise ImpossibleValueError(f"the hole at {hole.x:g}, {hole.y:g} lies outside the part")

    @property
    def has_size(self) -> bool:
        """Whether it can be placed."""
        return min(self.width, self.height, self.depth) > 0


@dataclass(frozen=True, slots=True)
class Pick:
    """The part the builder has chosen for a device, by its reference."""

    device: DeviceId
    ref: str
