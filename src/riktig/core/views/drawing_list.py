"""A drawing as a list: each thing on it by name with what is written on it, then the words that stand by themselves."""

import re
from collections.abc import Iterable
from dataclasses import dataclass

from riktig.core.geometry import Drawing, Text
from riktig.core.keys import DeviceKey, Key, NetKey, WireKey
from riktig.core.labels import IndexEntry
from riktig.core.views.details_pages import device_of

__all__ = ["DrawingLine", "drawing_lines"]

_WORD = re.compile(r"[^\W\d_]{2}")
"""Two letters side by side: figures along a ruler and letters of a grid say nothing in a list."""


@dataclass(frozen=True, slots=True)
class DrawingLine:
    """One line: what it says, and what it leads to; words that belong to nothing lead nowhere."""

    text: str
    key: Key | None = None


def drawing_lines(drawing: Drawing, entries: Iterable[IndexEntry]) -> tuple[DrawingLine, ...]:
    """What is on a drawing, in the order in which it is drawn: things, then conductors, then other words.

    O(n) in shapes and entries. A thing without an entry has the name of its device; one without either is called by
    the texts that are drawn for it; a thing with no name and no text is left out.

    Args:
        drawing: The drawing.
        entries: What things are called.
    """
    called: dict[Key, IndexEntry] = {}
    for entry in entries:
        if entry.key is not None:
            called.setdefault(entry.key, entry)
    written: dict[Key, dict[str, None]] = {}
    words: dict[str, None] = {}
    for mark in drawing.shapes:
        text = mark.text.strip() if isinstance(mark, Text) else ""
        if mark.key is not None:
            texts = written.setdefault(mark.key, {})
            if text:
                texts[text] = None
        elif _WORD.search(text):
            words[text] = None
    # what one looks for first: devices, places, holes; then the conductors between them
    keys = sorted(written, key=lambda key: isinstance(key, NetKey | WireKey))
    lines = (_line(key, tuple(written[key]), called) for key in keys)
    return (*(line for line in lines if line.text), *(DrawingLine(text) for text in words))


def _line(key: Key, texts: tuple[str, ...], called: dict[Key, IndexEntry]) -> DrawingLine:
    entry = called.get(key)
    if entry is None:
        owner = device_of(key)
        entry = called.get(DeviceKey(owner)) if owner else None
    if entry is None:
        return DrawingLine(", ".join(texts), key)
    name = f"{entry.label}: {entry.what}"
    rest = [text for text in texts if text not in name]
    return DrawingLine(f"{name}. {', '.join(rest)}" if rest else name, key)
