"""The box: outer size, mounting plate, door and entry."""

from dataclasses import dataclass
from enum import Enum

__all__ = ["Enclosure", "EntrySide", "HingeSide"]


class HingeSide(Enum):
    """The side the door hangs on, seen from the front."""

    LEFT = "left"
    RIGHT = "right"


class EntrySide(Enum):
    """Where the cables come in."""

    BOTTOM = "bottom"


@dataclass(frozen=True, slots=True)
class Enclosure:
    """Outer width, height and depth and the mounting plate, mm.

    The plate hangs in the middle of the box; ``plate_depth`` is from the plate's face to the
    inside of the door.

    Raises:
        ValueError: a size that is not positive, or a plate larger than its box.
    """

    width: float = 400.0
    height: float = 600.0
    depth: float = 200.0
    plate_width: float = 350.0
    plate_height: float = 550.0
    plate_depth: float = 170.0
    plate_thickness: float = 2.0
    hinge: HingeSide = HingeSide.RIGHT
    entry: EntrySide = EntrySide.BOTTOM
    rating: str = "IP65"
    material: str = "painted sheet steel"
    ambient_c: float = 40.0

    def __post_init__(self) -> None:
        for what, value in (
            ("width", self.width),
            ("height", self.height),
            ("depth", self.depth),
            ("plate width", self.plate_width),
            ("plate height", self.plate_height),
        ):
            if not 50 <= value <= 5000:
                raise ValueError(f"the enclosure's {what} cannot be {value:g} mm")
        if self.plate_width > self.width or self.plate_height > self.height:
            raise ValueError("the mounting plate is larger than its enclosure")
        if not -30 <= self.ambient_c <= 70:
            raise ValueError(f"an ambient of {self.ambient_c:g} °C cannot be planned for")

    @property
    def size_name(self) -> str:
        """Width by height by depth as people say it."""
        return f"{self.width:g} × {self.height:g} × {self.depth:g} mm"

    @property
    def door_width(self) -> float:
        """Usable door face, mm: the box less a fold all round."""
        return self.width - 2 * DOOR_FOLD_MM

    @property
    def door_height(self) -> float:
        """Usable door face, mm."""
        return self.height - 2 * DOOR_FOLD_MM


DOOR_FOLD_MM = 15.0
"""From the edge of the box to the door's usable face (chosen by us: a common sheet fold)."""
