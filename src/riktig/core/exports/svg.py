"""A drawing as SVG, in mm."""

from collections import Counter
from xml.etree import ElementTree as Xml

from riktig.core.exports.arcs import arc_ends
from riktig.core.exports.inks import ink
from riktig.core.geometry import CAPITAL, Align, Arc, Circle, Drawing, Face, Line, Poly, Text

__all__ = ["as_svg"]

_ANCHOR = {Align.LEFT: "start", Align.MIDDLE: "middle", Align.RIGHT: "end"}


def as_svg(drawing: Drawing) -> str:
    """The drawing as an SVG document; 1 user unit is 1 mm."""
    root = Xml.Element(
        "svg",
        xmlns="http://www.w3.org/2000/svg",
        width=f"{drawing.width:g}mm",
        height=f"{drawing.height:g}mm",
        viewBox=f"0 0 {drawing.width:g} {drawing.height:g}",
    )
    Xml.SubElement(root, "title").text = drawing.title
    counts: Counter[str] = Counter()
    layer, last = root, None
    for mark in drawing.shapes:
        if mark.layer != last:  # marks stay in painting order: a layer that comes again covers what was drawn before
            last = mark.layer
            counts[last] += 1
            name = last if counts[last] == 1 else f"{last}-{counts[last]}"
            layer = Xml.SubElement(root, "g", {"id": name, "class": last})
        stroke = {"stroke": f"#{ink(mark.role)}", "fill": "none"}
        if not isinstance(mark, Text):
            stroke["stroke-width"] = f"{mark.width:g}"
        fill = getattr(mark, "fill", "")
        if fill:
            stroke["fill"] = f"#{ink(fill)}"
        if getattr(mark, "dashed", False):
            stroke["stroke-dasharray"] = "1.6 1.2"
        match mark:
            case Line():
                at = {"x1": mark.x1, "y1": mark.y1, "x2": mark.x2, "y2": mark.y2}
                Xml.SubElement(layer, "line", _text_of(at) | stroke)
            case Poly():
                points = " ".join(f"{p.x:g},{p.y:g}" for p in mark.points)
                name = "polygon" if mark.closed else "polyline"
                Xml.SubElement(layer, name, {"points": points} | stroke)
            case Circle():
                at = {"cx": mark.x, "cy": mark.y, "r": mark.radius}
                Xml.SubElement(layer, "circle", _text_of(at) | stroke)
            case Arc():
                (x1, y1), (x2, y2) = arc_ends(mark)
                sweep = 1 if mark.span > 0 else 0
                large = 1 if abs(mark.span) > 180 else 0
                r = mark.radius
                path = f"M{x1:g} {y1:g} A{r:g} {r:g} 0 {large} {sweep} {x2:g} {y2:g}"
                Xml.SubElement(layer, "path", {"d": path} | stroke)
            case Text():
                _write(layer, mark)
    return Xml.tostring(root, encoding="unicode")


def _text_of(values: dict[str, float]) -> dict[str, str]:
    return {name: f"{value:g}" for name, value in values.items()}


def _write(layer: Xml.Element, mark: Text) -> None:
    mono = mark.face in (Face.PRINTED, Face.PRINTED_BOLD)
    at = {
        "x": f"{mark.x:g}",
        "y": f"{mark.y:g}",
        "font-size": f"{mark.size / CAPITAL:.2f}",
        "font-family": ("'B612 Mono'" if mono else "B612") + ", 'DejaVu Sans', sans-serif",
        "text-anchor": _ANCHOR[mark.align],
        "fill": f"#{ink(mark.role)}",
    }
    if mark.face in (Face.BOLD, Face.PRINTED_BOLD):
        at["font-weight"] = "bold"
    if not mark.upright:
        at["transform"] = f"rotate(-90 {mark.x:g} {mark.y:g})"
    Xml.SubElement(layer, "text", at).text = mark.text
