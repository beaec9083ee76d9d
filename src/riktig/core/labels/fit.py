"""Texts fitted into a label: in one line or several, smaller down to what can be read, or not at all."""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache

from riktig.core.geometry import Align, Face, Rect, Text, run_of
from riktig.core.keys import Key

__all__ = ["LEADING", "LEAST_CAPITAL", "USUAL_LIMITS", "FittedText", "LetterLimits", "fit_text", "text_marks"]

LEAST_CAPITAL = 1.6
"""The smallest capital on any label, mm (chosen by us: about 6 point, what can be read at arm's length)."""
LEADING = 1.35
"""From line to line, in heights of a capital."""
WIDER = 1.02
"""How much wider a printer's face may run than ours (chosen by us)."""
MOST_LINES = 4
_BREAKS = re.compile(r"\S*?[/:,;·-](?=\S)|\S+")


@dataclass(frozen=True, slots=True)
class FittedText:
    """A text in lines, and the height of its capitals, mm."""

    lines: tuple[str, ...]
    size: float

    @property
    def height(self) -> float:
        """Of all lines, mm."""
        return self.size * (1 + LEADING * (len(self.lines) - 1))


@dataclass(frozen=True, slots=True)
class LetterLimits:
    """What a medium takes: the smallest capital, mm, and the most letters in a line, 0 without a limit."""

    least: float = LEAST_CAPITAL
    characters: int = 0


USUAL_LIMITS = LetterLimits()


def fit_text(
    text: str, width: float, height: float, most: float, *, mono: bool = False, limits: LetterLimits = USUAL_LIMITS
) -> FittedText | None:
    """A text as large as a room allows; of equal sizes the one with fewer lines.

    Args:
        text: The text.
        width: Of the room, mm.
        height: Of the room, mm.
        most: The largest capital, mm.
        mono: Whether the face is one of fixed width.
        limits: What the medium takes.

    Returns:
        The text in lines, or None when it does not fit at the smallest size.
    """
    best: FittedText | None = None
    for lines in _in_lines(text, mono):
        if limits.characters and max(map(len, lines)) > limits.characters:
            continue
        longest = max(run_of(line, mono=mono) for line in lines) * WIDER
        room = height / (1 + LEADING * (len(lines) - 1))
        size = min(most, room, width / longest if longest else most)
        if size >= limits.least - 1e-9 and (best is None or size > best.size + 0.05):
            best = FittedText(lines, size)
        if best and best.size == most:
            break
    return best


@cache
def _all_in_lines(text: str, mono: bool) -> tuple[tuple[str, ...], ...]:
    pieces = _pieces(text)
    return tuple(_parted(pieces, count, mono) for count in range(1, min(len(pieces), MOST_LINES) + 1))


def _in_lines(text: str, mono: bool) -> Iterator[tuple[str, ...]]:
    """The text in one line, then in two, and so on, each as even as it goes."""
    yield (text,)
    yield from _all_in_lines(text, mono)[1:]


def _pieces(text: str) -> list[str]:
    """What may not be parted: words with the space ahead of them, and what stands between signs."""
    pieces: list[str] = []
    for matched in _BREAKS.finditer(text):
        ahead = " " if pieces and text[matched.start() - 1] == " " else ""
        pieces.append(ahead + matched.group())
    return pieces or [text]


def _parted(pieces: list[str], count: int, mono: bool) -> tuple[str, ...]:
    """So many lines of which the longest is as short as can be."""

    @cache
    def best(begin: int, left: int) -> tuple[float, tuple[str, ...]]:
        if left == 1:
            line = "".join(pieces[begin:]).strip()
            return run_of(line, mono=mono), (line,)
        tries = []
        for end in range(begin + 1, len(pieces) - left + 2):
            line = "".join(pieces[begin:end]).strip()
            longest, rest = best(end, left - 1)
            tries.append((max(run_of(line, mono=mono), longest), (line, *rest)))
        return min(tries)

    return best(0, count)[1]


def text_marks(
    fitted: FittedText,
    room: Rect,
    face: Face,
    *,
    key: Key | None = None,
    role: str = "ink",
    align: Align = Align.MIDDLE,
) -> list[Text]:
    """The lines of a fitted text, in the middle of a room from top to bottom.

    Args:
        fitted: The text.
        room: Where it stands, mm.
        face: The face it was fitted in.
        key: What it belongs to.
        role: Its colour.
        align: Where its lines stand in the room.
    """
    x = {Align.LEFT: room.x, Align.MIDDLE: room.x + room.width / 2, Align.RIGHT: room.right}[align]
    first = room.y + (room.height - fitted.height) / 2 + fitted.size
    return [
        Text(x, first + n * LEADING * fitted.size, line, fitted.size, role, face, align, key=key)
        for n, line in enumerate(fitted.lines)
    ]
