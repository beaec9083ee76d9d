"""The box: outer size, mounting plate, door and entry."""

from dataclasses import dataclass
from enum import Enum

from riktig.core.errors import ImpossibleValueError
from riktig.core.job.number_ranges import BOX_LIMITS

__all__ = ["Enclosure", "EnclosureMounting", "EntrySide", "HingeSide", "Ventilation"]


class HingeSide(Enum):
    """The side the door hangs on, seen from the front."""

    LEFT = "left"
    RIGHT = "right"


class EntrySide(Enum):
    """Where the cables come in."""

    BOTTOM = "bottom"
    TOP = "top"


class EnclosureMounting(Enum):
    """How the box stands: what of its skin can give off heat."""

    WALL = "on a wall"
    FREE = "free-standing"
    ROW_END = "end of a row"
    ROW_END_WALL = "end of a row on a wall"
    ROW = "middle of a row"
    ROW_WALL = "middle of a row on a wall"


class Ventilation(Enum):
    """How the heat leaves the box."""

    NONE = "closed"
    FAN = "filter and fan"


@dataclass(frozen=True, slots=True)
class Enclosure:
    """Outer width, height and depth and the mounting plate, mm.

    The plate hangs in the middle of the box; ``plate_depth`` is from the plate's face to the
    inside of the door. ``plate_left`` and ``plate_top`` are from the box's outer edge to the plate's
    datum, ``door_left`` and ``door_top`` to the door's, as measured; None: as drawn. ``room_c`` is the
    warmest air around the box, ``ambient_c`` the air inside around the conductors, which everything is
    sized for. ``entry`` is where the supply comes in, ``field_entry`` where the cables of the loads do.

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
    field_entry: EntrySide = EntrySide.BOTTOM
    standing: EnclosureMounting = EnclosureMounting.WALL
    ventilation: Ventilation = Ventilation.NONE
    room_c: float = 30.0
    environment: str = "indoors, dry"
    doors: int = 1
    door_thickness: float = 1.5
    plate_left: float | None = None
    plate_top: float | None = None
    door_left: float | None = None
    door_top: float | None = None
    above_floor: float | None = None
    """Its lower edge above the floor it is served from, mm; None: not known."""

    def __post_init__(self) -> None:
        for what, value in (
            ("width", self.width),
            ("height", self.height),
            ("depth", self.depth),
            ("plate width", self.plate_width),
            ("plate height", self.plate_height),
        ):
            if not 50 <= value <= 5000:
                raise ImpossibleValueError(f"the enclosure's {what} cannot be {value:g} mm")
        if self.plate_width > self.width or self.plate_height > self.height:
            raise ImpossibleValueError("the mounting plate is larger than its enclosure")
        if self.doors not in (1, 2):
            raise ImpossibleValueError(f"a box with {self.doors} doors cannot be planned")
        for what, offset in (
            ("plate", self.plate_left),
            ("plate", self.plate_top),
            ("door", self.door_left),
            ("door", self.door_top),
        ):
            if offset is not None and not 0 <= offset <= 1000:
                raise ImpossibleValueError(f"the {what}'s datum cannot be {offset:g} mm from the box's edge")
        if self.above_floor is not None:
            BOX_LIMITS["above_floor"].see(self.above_floor)
        BOX_LIMITS["ambient_c"].see(self.ambient_c)
        BOX_LIMITS["room_c"].see(self.room_c)

    @property
    def size_name(self) -> str:
        """Width by height by depth as people say it."""
        return f"{self.width:g} × {self.height:g} × {self.depth:g} mm"

    @property
    def plate_datum(self) -> tuple[float, float]:
        """From the box's upper left outer corner to the plate's datum, mm: measured, or the plate in its middle."""
        return (
            (self.width - self.plate_width) / 2 if self.plate_left is None else self.plate_left,
            (self.height - self.plate_height) / 2 if self.plate_top is None else self.plate_top,
        )

    @property
    def door_datum(self) -> tuple[float, float]:
        """From the box's upper left outer corner to the door's datum, mm: measured, or the fold's width."""
        return (
            DOOR_FOLD_MM if self.door_left is None else self.door_left,
            DOOR_FOLD_MM if self.door_top is None else self.door_top,
        )

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
