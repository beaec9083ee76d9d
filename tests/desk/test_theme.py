"""Themes: contrast, faces, and one place for colours."""

import re
from pathlib import Path

import pytest
from PySide6.QtGui import QColor, QFontDatabase, QFontInfo, QRawFont
from PySide6.QtWidgets import QApplication

from riktig.core.exports.inks import ink
from riktig.core.job import BODY_COLOURS
from riktig.desk.theme import DARK, LIGHT, MONO, WORDS, Theme, style_sheet, words_font
from tests.effort import some

TEXT_ROLES = ("ink", "second", "third", "act", "meets", "fails", "judgement", "out of date")
GROUNDS = ("paper", "panel", "card")


def luminance(colour: QColor) -> float:
    """Relative luminance (WCAG 2.1)."""
    parts = [
        c / 12.92 if c <= 0.04045 else ((c + 0.055) / 1.055) ** 2.4
        for c in (colour.redF(), colour.greenF(), colour.blueF())
    ]
    return 0.2126 * parts[0] + 0.7152 * parts[1] + 0.0722 * parts[2]


@pytest.mark.parametrize("theme", [LIGHT, DARK], ids=lambda t: t.name)
@pytest.mark.parametrize("role", TEXT_ROLES)
@pytest.mark.parametrize("ground", GROUNDS)
def test_text_stands_out_from_its_ground(theme: Theme, role: str, ground: str) -> None:
    a, b = sorted((luminance(theme.colour(role)), luminance(theme.colour(ground))))
    assert (b + 0.05) / (a + 0.05) >= 4.5, f"{role} on {ground}"


@pytest.mark.parametrize("colour", BODY_COLOURS)
def test_the_mark_of_a_terminal_is_read_on_its_body(colour: str) -> None:
    """An orange terminal was drawn black, its mark black on it."""
    grounds = [(theme.colour(f"terminal {colour}"), theme.colour("ink")) for theme in (LIGHT, DARK)]
    grounds.append((QColor(f"#{ink(f'terminal {colour}')}"), QColor(f"#{ink('ink')}")))
    for ground, text in grounds:
        a, b = sorted((luminance(ground), luminance(text)))
        assert (b + 0.05) / (a + 0.05) >= 4.5, f"{colour}: {ground.name()}"


@pytest.mark.parametrize("theme", [LIGHT, DARK], ids=lambda t: t.name)
def test_both_themes_have_the_same_roles_and_style_every_one_they_name(theme: Theme) -> None:
    assert set(LIGHT.colours) == set(DARK.colours)
    assert "{" in style_sheet(theme)
    assert not re.search(r"#[0-9A-Fa-f]{1,5}\b(?![0-9A-Fa-f])\s*;", style_sheet(theme))


def test_what_has_a_colour_on_screen_has_one_on_paper() -> None:
    """A role without an ink is printed black: the stripe of green-yellow was."""
    plain = {role for role in LIGHT.colours if ink(role) == ink("no such role")}
    assert plain == {role for role in LIGHT.colours if LIGHT.colours[role].lstrip("#").upper() == ink("ink")}
    assert ink("wire stripe") != ink("ink")


def test_the_shipped_faces_are_used_and_have_the_signs_of_the_trade(app: QApplication) -> None:
    assert {WORDS, MONO} <= set(QFontDatabase.families())
    assert QFontInfo(words_font(10)).family() == WORDS
    assert QFontInfo(words_font(10, mono=True)).family() == MONO
    raw = QRawFont.fromFont(words_font(10))
    assert all(raw.supportsCharacter(ord(sign)) for sign in "ΩΔ√≤²×·–äåø")


def test_no_colour_is_written_outside_the_theme() -> None:
    desk = Path(__file__).parents[2] / "src" / "riktig" / "desk"
    for path in some(desk.rglob("*.py")):
        if path.name != "theme.py":
            assert not re.search(r"#[0-9a-fA-F]{6}\b", path.read_text(encoding="utf-8")), path
