"""A hole, the tool that makes it, and the sheets that holes are made in. All in mm."""

from dataclasses import dataclass
from enum import Enum

from riktig.core.geometry import Point, Rect
from riktig.core.keys import Key
from riktig.core.records import HoleWork

__all__ = ["Hole", "HoleSurface", "HoleWork", "Tool"]


class Tool(Enum):
    """What makes a hole."""

    DRILL = "drill"
    TAP = "drill and tap"
    SCREW = "self-drilling screw"
    PUNCH = "punch"
    HOLE_SAW = "hole saw"
    CUT = "cut out"


@dataclass(frozen=True, slots=True)
class Hole:
    """A hole: its number, the surface it is in, its middle from that surface's datum, drill and tap.

    ``key`` stays when its number changes; ``where`` is what to select to see whose it is. A cut-out has ``width`` and
    ``height`` and no ``drill``. ``rating`` is the class of what is fitted in it, "" when nothing is.
    """

    number: str
    face: str
    x: float
    y: float
    drill: float
    tap: str
    purpose: str
    note: str = ""
    tool: Tool = Tool.DRILL
    width: float = 0.0
    height: float = 0.0
    key: str = ""
    where: Key | None = None
    rating: str = ""

    @property
    def outline(self) -> Rect:
        """The square round it, or its cut-out."""
        wide, high = (self.width, self.height) if self.is_cut_out else (self.drill, self.drill)
        return Rect(self.x - wide / 2, self.y - high / 2, wide, high)

    @property
    def is_cut_out(self) -> bool:
        """Whether it is a rectangle."""
        return self.height > 0

    @property
    def size(self) -> str:
        """“22.3”, “188 × 138”, “4.2 M5”."""
        if self.is_cut_out:
            return f"{self.width:g} × {self.height:g}"
        return f"{self.drill:g} {self.tap}".strip()

    @property
    def tool_said(self) -> str:
        """The tool with its size: what is taken in hand."""
        if self.tool is Tool.SCREW:
            return f"screw {self.tap or self.note.split(',')[0]}"
        if self.tool is Tool.TAP:
            return f"drill {self.drill:g}, tap {self.tap}"
        return f"{self.tool.value} {self.size}"

    @property
    def at(self) -> Point:
        """Its middle."""
        return Point(self.x, self.y)

    @property
    def operations(self) -> tuple[HoleWork, ...]:
        """What is done to it: a self-drilling screw needs neither hole nor file, a cut-out no centre punch."""
        if self.tool is Tool.SCREW:
            return (HoleWork.MARKED, HoleWork.PUNCHED)
        if self.is_cut_out:
            return (HoleWork.MARKED, HoleWork.MADE, HoleWork.DEBURRED)
        return tuple(HoleWork)


@dataclass(frozen=True, slots=True)
class HoleSurface:
    """A surface that holes are made in: its name, its size, and the letters its holes are numbered with."""

    name: str
    width: float
    height: float
    letters: str

    @property
    def rect(self) -> Rect:
        """Its outline from its datum."""
        return Rect(0, 0, self.width, self.height)
