"""How long texts run, against the shipped font files read by another library (fontTools)."""

from importlib import resources

import pytest
from fontTools.ttLib import TTFont

from riktig.core.geometry import CAPITAL, Align, Face, Text, bounds_of, run_of

FILES = {
    Face.WORDS: "B612-Regular",
    Face.BOLD: "B612-Bold",
    Face.PRINTED: "B612Mono-Regular",
    Face.PRINTED_BOLD: "B612Mono-Bold",
}
WORDS = ["main isolator", "from 12.4", "K12", "%IX0.3", "Drying fan: power", "Øvre tørkehall – vest", "√2 ≤ Ω"]


def read(face: Face) -> TTFont:
    with resources.as_file(resources.files("riktig") / "assets" / "fonts" / f"{FILES[face]}.ttf") as path:
        return TTFont(path)


@pytest.mark.parametrize("face", FILES)
def test_a_text_runs_as_long_as_its_letters_in_the_font_file(face: Face) -> None:
    font = read(face)
    names, advances, unit = font.getBestCmap(), font["hmtx"], font["head"].unitsPerEm
    for word in WORDS:
        if not all(ord(letter) in names for letter in word):
            continue
        wanted = sum(advances[names[ord(letter)]][0] for letter in word) / unit / CAPITAL
        found = run_of(word, mono=face in (Face.PRINTED, Face.PRINTED_BOLD))
        assert found == pytest.approx(wanted, rel=0.012)


def test_a_capital_is_as_high_as_it_is_said_to_be() -> None:
    font = read(Face.WORDS)
    glyphs, name = font["glyf"], font.getBestCmap()[ord("H")]
    assert glyphs[name].yMax / font["head"].unitsPerEm == pytest.approx(CAPITAL, abs=0.005)


@pytest.mark.parametrize(("align", "share"), [(Align.LEFT, 0.0), (Align.MIDDLE, 0.5), (Align.RIGHT, 1.0)])
def test_the_box_of_a_text_lies_as_it_is_aligned(align: Align, share: float) -> None:
    text = Text(10.0, 5.0, "K12", 2.0, face=Face.PRINTED, align=align)
    run = 2.0 * run_of("K12", mono=True)
    box = bounds_of(text)
    assert box.width == pytest.approx(run)
    assert box.x == pytest.approx(10.0 - share * run)
    assert box.y == pytest.approx(3.0)


def test_a_letter_that_only_the_fallback_has_counts_as_a_wide_one() -> None:
    assert run_of("Ł", mono=False) >= run_of("L", mono=False)
