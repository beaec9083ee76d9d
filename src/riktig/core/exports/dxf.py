"""A drawing as DXF in mm, y upwards: a layer a layer with its colour, and a block a device."""

import re
import unicodedata
from collections.abc import Mapping
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from riktig.core.geometry import Align, Arc, Circle, Drawing, Line, Point, Poly, Shape, Text, bounds_of
from riktig.core.ids import DeviceId
from riktig.core.keys import device_of

__all__ = ["DxfStyle", "dxf_text", "write_dxf"]

COLOURS = {"plate": 8, "rail": 9, "duct": 30, "device": 7, "pin": 4, "hole": 1, "text": 3, "wire": 5, "fill": 151}
"""AutoCAD colour index by layer (the numbers are of the DXF reference, the choice is ours); any other layer is 7."""
OTHER_COLOUR = 7


@dataclass(frozen=True, slots=True)
class DxfStyle:
    """What a drawing becomes besides its marks.

    ``datum`` is the point of the drawing, mm, that lies at 0, 0; None for the lower left corner. Devices that ``tags``
    names become blocks of that name.
    """

    datum: Point | None = None
    tags: Mapping[DeviceId, str] = field(default_factory=dict)


def dxf_text(text: str) -> str:
    """A text that is one value of a DXF file.

    A line break would begin another, and “^” begins a control letter there unless a blank follows it (DXF reference,
    from memory).
    """
    return "".join(" " if unicodedata.category(letter) in ("Cc", "Zl", "Zp") else letter for letter in text).replace(
        "^", "^ "
    )


def write_dxf(path: Path, drawing: Drawing, style: DxfStyle | None = None) -> None:
    """Writes the drawing true to scale: 1 unit is 1 mm.

    Args:
        path: Where it is written; an existing file is replaced.
        drawing: The drawing, in mm.
        style: Where 0, 0 lies, and which devices become blocks.
    """
    from ezdxf import units
    from ezdxf.filemanagement import new  # late: slow to import

    style = style or DxfStyle()
    document = new("R2010", setup=True)
    document.units = units.MM
    zero = style.datum or Point(0.0, drawing.height)
    of_device: dict[DeviceId, list[Shape]] = {}
    for layer in dict.fromkeys(mark.layer for mark in drawing.shapes):
        if layer not in document.layers:
            document.layers.add(layer, color=COLOURS.get(layer, OTHER_COLOUR))
    space = document.modelspace()
    for mark in drawing.shapes:
        device = device_of(mark.key)
        if device is not None and device in style.tags:
            of_device.setdefault(device, []).append(mark)
        else:
            _add(space, mark, zero)
    for device, marks in of_device.items():
        boxes = [bounds_of(mark) for mark in marks]
        corner = Point(min(box.x for box in boxes), max(box.bottom for box in boxes))
        block = document.blocks.new(_block_name(style.tags[device], document.blocks))
        for mark in marks:
            _add(block, mark, corner)
        at = (corner.x - zero.x, zero.y - corner.y)
        space.add_blockref(block.name, at, dxfattribs={"layer": marks[0].layer})
    document.saveas(path)


def _block_name(tag: str, taken: Any) -> str:
    """A tag as the name of a block that is not there yet."""
    name = re.sub(r"[^\w.-]+", "_", tag) or "device"
    number = 2
    free = name
    while free in taken:
        free, number = f"{name}_{number}", number + 1
    return free


def _add(space: Any, mark: Shape, zero: Point) -> None:
    """Adds a mark to a space or block whose 0, 0 is a point of the drawing."""
    from ezdxf.enums import TextEntityAlignment

    look = {"layer": mark.layer}
    if getattr(mark, "dashed", False):
        look["linetype"] = "DASHED"

    def at(x: float, y: float) -> tuple[float, float]:
        return x - zero.x, zero.y - y

    match mark:
        case Line():
            space.add_line(at(mark.x1, mark.y1), at(mark.x2, mark.y2), dxfattribs=look)
        case Poly():
            space.add_lwpolyline([at(p.x, p.y) for p in mark.points], close=mark.closed, dxfattribs=look)
        case Circle():
            space.add_circle(at(mark.x, mark.y), mark.radius, dxfattribs=look)
        case Arc():
            first, last = sorted((-mark.start, -mark.start - mark.span))
            space.add_arc(at(mark.x, mark.y), mark.radius, first, last, dxfattribs=look)
        case Text():
            turned = 0 if mark.upright else 90
            text = space.add_text(dxf_text(mark.text), height=mark.size, rotation=turned, dxfattribs=look)
            align = {
                Align.LEFT: TextEntityAlignment.LEFT,
                Align.MIDDLE: TextEntityAlignment.CENTER,
                Align.RIGHT: TextEntityAlignment.RIGHT,
            }
            text.set_placement(at(mark.x, mark.y), align=align[mark.align])
