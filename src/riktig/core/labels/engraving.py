"""Texts as outlines: what an engraver or a laser follows, with no font of its own."""

from functools import cache
from importlib import resources
from itertools import pairwise
from math import hypot
from typing import Any

from fontTools.pens.recordingPen import DecomposingRecordingPen
from fontTools.ttLib import TTFont

from riktig.core.geometry import CAPITAL, Align, Drawing, Face, Point, Poly, Shape, Text

__all__ = ["engraved", "outlines_of"]

FILES = {
    Face.WORDS: "B612-Regular", Face.BOLD: "B612-Bold",
    Face.PRINTED: "B612Mono-Regular", Face.PRINTED_BOLD: "B612Mono-Bold",
}  # fmt: skip
FALLBACK = "DejaVuSans"
STEPS = 6
"""Straight pieces a curve is parted into: at 4 mm capitals they leave the curve by under 0.01 mm (chosen by us)."""
SAME_MM = 1e-9


@cache
def _face(name: str) -> tuple[Any, Any, float]:
    with resources.as_file(resources.files("riktig") / "assets" / "fonts" / f"{name}.ttf") as path:
        font = TTFont(path)
        return font.getBestCmap(), font.getGlyphSet(), float(font["head"].unitsPerEm)


@cache
def _contours(letter: str, face: Face) -> tuple[tuple[tuple[tuple[float, float], ...], ...], float]:
    """The closed outlines of a letter, y upwards, and its advance, all in heights of a capital."""
    for name in (FILES[face], FALLBACK):
        names, glyphs, units = _face(name)
        if ord(letter) in names:
            break
    else:
        raise KeyError(letter)
    glyph = glyphs[names[ord(letter)]]
    pen = DecomposingRecordingPen(glyphs)
    glyph.draw(pen)
    scale = 1 / units / CAPITAL
    contours: list[list[tuple[float, float]]] = []
    for step, points in pen.value:
        if step == "moveTo":
            contours.append([points[0]])
        elif step == "lineTo":
            contours[-1].append(points[0])
        elif step == "qCurveTo":
            contours[-1] += _quadratic(contours[-1][-1], points)
    closed = tuple(tuple((x * scale, y * scale) for x, y in _without_repeats(contour)) for contour in contours)
    return tuple(contour for contour in closed if len(contour) > 2), glyph.width * scale


def _quadratic(begin: tuple[float, float], points: tuple[tuple[float, float], ...]) -> list[tuple[float, float]]:
    """Points on a row of quadratic curves of TrueType: between two controls lies a point of the curve."""
    *controls, last = points
    ends = [((a[0] + b[0]) / 2, (a[1] + b[1]) / 2) for a, b in pairwise(controls)] + [last]
    curve = []
    for control, end in zip(controls, ends, strict=True):
        for n in range(1, STEPS + 1):
            t = n / STEPS
            s = 1 - t
            curve.append(
                (
                    s * s * begin[0] + 2 * s * t * control[0] + t * t * end[0],
                    s * s * begin[1] + 2 * s * t * control[1] + t * t * end[1],
                )
            )
        begin = end
    return curve


def _without_repeats(contour: list[tuple[float, float]]) -> list[tuple[float, float]]:
    corners = [point for n, point in enumerate(contour) if n == 0 or hypot(
        point[0] - contour[n - 1][0], point[1] - contour[n - 1][1]) > SAME_MM]  # fmt: skip
    return corners[:-1] if len(corners) > 1 and corners[0] == corners[-1] else corners


def outlines_of(text: Text) -> list[Poly]:
    """A text as closed outlines, in its place and size; level texts only.

    Args:
        text: The text.

    Raises:
        KeyError: a letter that no shipped face has; ``misfit_texts`` names it before.
    """
    parts = [_contours(letter, text.face) for letter in text.text]
    run = sum(advance for _, advance in parts)
    x = text.x - text.size * run * {Align.LEFT: 0.0, Align.MIDDLE: 0.5, Align.RIGHT: 1.0}[text.align]
    outlines = []
    for contours, advance in parts:
        for contour in contours:
            points = tuple(Point(x + text.size * px, text.y - text.size * py) for px, py in contour)
            outlines.append(Poly(points, text.role, 0.1, closed=True, layer="engraving", key=text.key))
        x += text.size * advance
    return outlines


def engraved(drawing: Drawing) -> Drawing:
    """A drawing in which every text is outlines."""
    shapes: list[Shape] = []
    for mark in drawing.shapes:
        shapes += outlines_of(mark) if isinstance(mark, Text) else [mark]
    return Drawing(drawing.width, drawing.height, tuple(shapes), drawing.title)
