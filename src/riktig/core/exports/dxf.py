"""A drawing as DXF in mm, y upwards, a layer a layer."""

import unicodedata
from pathlib import Path

from riktig.core.geometry import Align, Arc, Circle, Drawing, Line, Poly, Text

__all__ = ["dxf_text", "write_dxf"]


def dxf_text(text: str) -> str:
    """A text that is one value of a DXF file.

    A line break would begin another, and “^” begins a control letter there unless a blank follows it (DXF reference,
    from memory).
    """
    return "".join(" " if unicodedata.category(letter) in ("Cc", "Zl", "Zp") else letter for letter in text).replace(
        "^", "^ "
    )


def write_dxf(path: Path, drawing: Drawing) -> None:
    """Writes the drawing true to scale: 1 unit is 1 mm, the page's lower left corner is 0, 0.

    Args:
        path: Where it is written; an existing file is replaced.
        drawing: The drawing, in mm.
    """
    from ezdxf import units
    from ezdxf.enums import TextEntityAlignment
    from ezdxf.filemanagement import new  # late: slow to import

    align = {
        Align.LEFT: TextEntityAlignment.LEFT,
        Align.MIDDLE: TextEntityAlignment.CENTER,
        Align.RIGHT: TextEntityAlignment.RIGHT,
    }
    document = new("R2010", setup=True)
    document.units = units.MM
    space = document.modelspace()
    high = drawing.height
    for mark in drawing.shapes:
        if mark.layer not in document.layers:
            document.layers.add(mark.layer)
        look = {"layer": mark.layer}
        if getattr(mark, "dashed", False):
            look["linetype"] = "DASHED"
        match mark:
            case Line():
                space.add_line((mark.x1, high - mark.y1), (mark.x2, high - mark.y2), dxfattribs=look)
            case Poly():
                points = [(p.x, high - p.y) for p in mark.points]
                space.add_lwpolyline(points, close=mark.closed, dxfattribs=look)
            case Circle():
                space.add_circle((mark.x, high - mark.y), mark.radius, dxfattribs=look)
            case Arc():
                first, last = sorted((-mark.start, -mark.start - mark.span))
                space.add_arc((mark.x, high - mark.y), mark.radius, first, last, dxfattribs=look)
            case Text():
                text = space.add_text(
                    dxf_text(mark.text), height=mark.size, rotation=0 if mark.upright else 90, dxfattribs=look
                )
                text.set_placement((mark.x, high - mark.y), align=align[mark.align])
    document.saveas(path)
