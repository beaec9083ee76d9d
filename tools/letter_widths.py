"""Writes how wide each letter runs in the shipped faces: run after a face was exchanged.

The face of words is the wider of B612 Regular and Bold; what only the fallback has is read off DejaVu Sans.
"""

from pathlib import Path

from fontTools.ttLib import TTFont

ROOT = Path(__file__).resolve().parent.parent / "src" / "riktig"
FONTS = ROOT / "assets" / "fonts"
DATA = ROOT / "core" / "geometry" / "data"
CAPITAL, SPACE = 0.76, 0x20


def widths(*names: str) -> dict[int, float]:
    """The advance of every letter that all of some faces have, in heights of a capital; the widest of them."""
    wide: dict[int, float] = {}
    common: set[int] | None = None
    for name in names:
        face = TTFont(FONTS / f"{name}.ttf")
        to_glyph, advances, units = face.getBestCmap(), face["hmtx"], face["head"].unitsPerEm
        common = set(to_glyph) if common is None else common & set(to_glyph)
        for code, glyph in to_glyph.items():
            wide[code] = max(wide.get(code, 0.0), advances[glyph][0] / units / CAPITAL)
    return {code: width for code, width in wide.items() if code in (common or ())}


def main() -> None:
    """Writes the widths of the two faces, and those of the letters that one of them lacks."""
    words, fixed = widths("B612-Regular", "B612-Bold"), widths("B612Mono-Regular", "B612Mono-Bold")
    fallback = widths("DejaVuSans")
    _write("advances.csv", {code: width for code, width in words.items() if code >= SPACE})
    _write("fixed.csv", {code: width for code, width in fixed.items() if code >= SPACE})
    _write("fallback.csv", {code: width for code, width in fallback.items() if code not in words or code not in fixed})


def _write(name: str, wide: dict[int, float]) -> None:
    lines = ["code,advance", *(f"{code:04X},{round(wide[code] * 1000)}" for code in sorted(wide))]
    (DATA / name).write_text("\n".join(lines) + "\n", encoding="utf-8")


if __name__ == "__main__":
    main()
