"""The faces of the papers, and which of them has a letter."""

from functools import cache, lru_cache
from importlib import resources
from typing import Any

from riktig.core.geometry import Face

__all__ = ["FACES", "FALLBACK", "missing_glyphs", "registered", "runs_of"]

FACES = {
    Face.WORDS: "B612-Regular",
    Face.BOLD: "B612-Bold",
    Face.PRINTED: "B612Mono-Regular",
    Face.PRINTED_BOLD: "B612Mono-Bold",
}
FALLBACK = "DejaVuSans"


@cache
def registered() -> dict[str, Any]:
    """The faces by name, made known to the PDF library."""
    from reportlab.pdfbase import pdfmetrics
    from reportlab.pdfbase.ttfonts import TTFont

    fonts = {}
    for name in (*FACES.values(), FALLBACK):
        with resources.as_file(resources.files("riktig") / "assets" / "fonts" / f"{name}.ttf") as file:
            fonts[name] = TTFont(name, str(file))
        pdfmetrics.registerFont(fonts[name])
    return fonts


@lru_cache(maxsize=50_000)
def runs_of(text: str, font: str) -> tuple[tuple[str, str], ...]:
    """The text in stretches of one font each: letters the face lacks go to the fallback.

    Args:
        text: The text.
        font: The name of its face.

    Returns:
        Font and text of each stretch.
    """
    known = registered()[font].face.charToGlyph
    runs: list[tuple[str, str]] = []
    for letter in text:
        name = font if ord(letter) in known else FALLBACK
        if runs and runs[-1][0] == name:
            runs[-1] = (name, runs[-1][1] + letter)
        else:
            runs.append((name, letter))
    return tuple(runs)


def missing_glyphs(text: str) -> str:
    """Letters that neither face nor fallback has: they would print as a box."""
    fonts = registered()
    return "".join(
        c
        for c in text
        if ord(c) not in fonts["B612-Regular"].face.charToGlyph and ord(c) not in fonts[FALLBACK].face.charToGlyph
    )
