"""Enclosures that are sold."""

import csv
from dataclasses import dataclass, replace
from functools import cache
from importlib import resources

from riktig.core.job import PLATE_LESS, Enclosure

__all__ = ["Box", "boxes"]


@dataclass(frozen=True, slots=True)
class Box:
    """Outer width, height and depth of a standard enclosure, mm."""

    width: float
    height: float
    depth: float

    @property
    def plate_width(self) -> float:
        """Width of its mounting plate, mm."""
        return self.width - PLATE_LESS

    @property
    def plate_height(self) -> float:
        """Height of its mounting plate, mm."""
        return self.height - PLATE_LESS

    def around(self, enclosure: Enclosure) -> Enclosure:
        """An enclosure of this size, else as another: as much of its depth is lost behind the plate and in the door."""
        lost = enclosure.depth - enclosure.plate_depth
        return replace(
            enclosure,
            width=self.width,
            height=self.height,
            depth=self.depth,
            plate_width=self.plate_width,
            plate_height=self.plate_height,
            plate_depth=max(self.depth - lost, 50.0),
        )

    @property
    def name(self) -> str:
        """“400 × 600 × 200 mm”."""
        return f"{self.width:g} × {self.height:g} × {self.depth:g} mm"


@cache
def boxes() -> tuple[Box, ...]:
    """The standard enclosures, rising.

    Source:
        Common practice, no source.
    """
    path = resources.files("riktig.core.catalogue") / "data" / "enclosures.csv"
    lines = path.read_text(encoding="utf-8").splitlines()[1:]
    return tuple(Box(float(r["width"]), float(r["height"]), float(r["depth"])) for r in csv.DictReader(lines))
