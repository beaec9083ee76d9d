"""Texts that every file and paper can hold, and names that are the same person's."""

import unicodedata

__all__ = ["LONGEST_TEXT", "plain_name", "same_person", "unfit", "without_unfit"]

LONGEST_TEXT = 400
"""Letters in one field: four lines of a label (chosen by us)."""
_TURNS = frozenset("\u202a\u202b\u202c\u202d\u202e\u2066\u2067\u2068\u2069")
_LINES = frozenset("\n\t")


def _unfit_letter(letter: str, *, lines: bool) -> str:
    kind = unicodedata.category(letter)
    if kind == "Cs":
        return "half of a letter (a lone surrogate)"
    if lines and letter in _LINES:
        return ""
    if kind in ("Cc", "Zl", "Zp"):
        return "a line break" if letter in "\n\r\u2028\u2029" else "a control character"
    if letter in _TURNS:
        return "a sign that turns the direction of writing"
    return "a sign that means nothing" if ord(letter) & 0xFFFE == 0xFFFE else ""


def unfit(text: str, *, lines: bool = False, longest: int = LONGEST_TEXT) -> str:
    """Why a text cannot be kept: it has letters that a file or paper cannot hold, or too many; "" when it can.

    Args:
        text: What was typed, pasted or read.
        lines: Whether it may have several lines.
        longest: How many letters it may have.
    """
    if len(text) > longest:
        return f"has {len(text)} letters, and {longest} is the most"
    if text.isascii() and text.isprintable():
        return ""
    for place, letter in enumerate(text, 1):
        what = _unfit_letter(letter, lines=lines)
        if what:
            return f"has {what} at letter {place}"
    return ""


def without_unfit(text: str, *, lines: bool = False) -> str:
    """The text with “\N{REPLACEMENT CHARACTER}” in the place of every letter that cannot be kept.

    Args:
        text: The text.
        lines: Whether line breaks may stay.
    """
    return "".join("\N{REPLACEMENT CHARACTER}" if _unfit_letter(letter, lines=lines) else letter for letter in text)


def same_person(name: str, other: str) -> bool:
    """Whether two names are one person's: “Ida”, “ida” and “Ida” with a letter that cannot be seen are.

    Args:
        name: A name.
        other: Another name.
    """
    return plain_name(name) == plain_name(other)


def plain_name(name: str) -> str:
    """A name as it sounds: without case, accents' two spellings, invisible letters and doubled blanks."""
    plain = unicodedata.normalize("NFKC", name).casefold()
    seen = "".join(letter for letter in plain if unicodedata.category(letter) not in ("Cf", "Cc", "Mn", "Cs"))
    return " ".join(unicodedata.normalize("NFKC", seen).split())
