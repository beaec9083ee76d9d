"""Paths in words: ``S.stop:1-2 (S.start:3-4 | K:13-14) K:A1-A2``.

Items stand one after the other; brackets hold paths side by side, parted by ``|``. An item is a
device and its unit; the unit may be left out when the device has one only. ``<`` ahead of an item
says that the path enters it from its far side; ``@`` that the path only touches the pin that
follows. A path of several lines has an item for each line, parted by ``/``: ``K:1-2/3-4/5-6``. A
number after ``^`` says on which line each line leaves: ``^132`` exchanges the second and third.
"""

import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass

from riktig.core.job import ElementId
from riktig.core.schematic.model.elements import Branch, Device, Element, Landing, Parallel, Pole, Series

__all__ = ["NotationError", "parse_path", "path_text"]

_TOKEN = re.compile(r"\s*(?:([()|])|([^\s()|]+))")
_ITEM = re.compile(r"(?P<touch>@)?(?P<far><)?(?P<body>[^^]+)(?:\^(?P<cross>\d+))?$")


class NotationError(Exception):
    """A path that cannot be read: what is wrong, and at which character (from 1)."""

    def __init__(self, message: str, at: int) -> None:
        super().__init__(message)
        self.message, self.at = message, at


Find = Callable[[str], Device | None]
DEEPEST = 30
"""Brackets in brackets (chosen by us: nobody reads a deeper one)."""


@dataclass
class _Reader:
    tokens: list[tuple[str, int]]
    find: Find
    length: int
    at: int = 0
    depth: int = 0
    lines: int = 0

    def peek(self) -> str:
        return self.tokens[self.at][0] if self.at < len(self.tokens) else ""

    def place(self) -> int:
        return self.tokens[self.at][1] if self.at < len(self.tokens) else self.length + 1

    def series(self) -> Series:
        parts: list[Branch] = []
        while self.peek() and self.peek() not in "|)":
            parts.append(self.one())
        return Series(tuple(parts))

    def one(self) -> Branch:
        text, place = self.tokens[self.at]
        self.at += 1
        if text != "(":
            item = _item(text, place, self.find)
            lines = len(item.poles) if isinstance(item, Element) else len(item.pins)
            self.lines = self.lines or lines
            if lines != self.lines:
                raise NotationError(f"“{text}” has {lines} lines where the path has {self.lines}", place)
            return item
        self.depth += 1
        if self.depth > DEEPEST:
            raise NotationError(f"brackets stand more than {DEEPEST} deep; wire through a named node instead", place)
        sides = [self._side(place)]
        while self.peek() == "|":
            self.at += 1
            sides.append(self._side(self.place()))
        if self.peek() != ")":
            raise NotationError("a bracket is opened here and never closed", place)
        self.at += 1
        self.depth -= 1
        return Parallel(tuple(sides)) if len(sides) > 1 else sides[0]

    def _side(self, place: int) -> Branch:
        side = self.series()
        if not side.parts:
            raise NotationError("nothing stands between the brackets or bars here: the path would be bridged", place)
        return side.parts[0] if len(side.parts) == 1 else side


def parse_path(text: str, find: Find) -> Series:
    """Reads a path.

    Args:
        text: The path.
        find: The device with a role or an id, None when there is none.

    Returns:
        The path, its elements in order.

    Raises:
        NotationError: an unknown device or unit, or a bracket that does not close.
    """
    tokens: list[tuple[str, int]] = []
    for token in _TOKEN.finditer(text):
        tokens.append((token[1] or token[2], token.start(1 if token[1] else 2) + 1))
    reader = _Reader(tokens, find, len(text))
    path = reader.series()
    if reader.peek():
        raise NotationError(f"“{reader.peek()}” has no bracket before it", reader.place())
    return path


def _item(text: str, place: int, find: Find) -> Element | Landing:
    matched = _ITEM.match(text)
    if matched is None:
        raise NotationError(f"“{text}” is not a device and its unit", place)
    poles: list[tuple[Device, str]] = []
    for piece in matched["body"].split("/"):
        poles.append(_pole(piece, poles[-1][0] if poles else None, find, place, touch=bool(matched["touch"])))
    devices = [device for device, _ in poles]
    if matched["touch"]:
        if len({device.id for device in devices}) > 1:
            raise NotationError("a path can touch the pins of one device at a time", place)
        return Landing(devices[0].id, tuple(pin for _, pin in poles))
    cross = tuple(int(n) - 1 for n in matched["cross"] or "")
    if cross and sorted(cross) != list(range(len(poles))):
        raise NotationError(f"“^{matched['cross']}” does not name each of the {len(poles)} lines once", place)
    first = poles[0]
    made = tuple(Pole(device.id, unit, bool(matched["far"])) for device, unit in poles)
    return Element(ElementId(f"{first[0].id}/{first[1]}"), made, cross)


def _pole(piece: str, last: Device | None, find: Find, place: int, *, touch: bool) -> tuple[Device, str]:
    """A device and its unit, or with ``touch`` its pin; a bare unit belongs to the device before."""
    role, colon, unit = piece.partition(":")
    device = find(role)
    if device is None and last is not None and not colon:
        device, unit = last, role
    if device is None:
        raise NotationError(f"there is no device “{role}”", place)
    kind = device.kind
    names = [pin.name for pin in kind.pins] if touch else [unit.name for unit in kind.units]
    if not unit:
        if len(names) != 1:
            raise NotationError(f"say which of {', '.join(names) or 'no units'} of “{role}” is meant", place)
        return device, names[0]
    if unit not in names:
        what = "pin" if touch else "unit"
        raise NotationError(f"“{role}” ({kind.name}) has no {what} {unit}; it has {', '.join(names) or 'none'}", place)
    return device, unit


def path_text(branch: Branch, short: Callable[[Device], str], device: Callable[[str], Device]) -> str:
    """A path in words, so that ``parse_path`` reads the same path from it."""

    def pieces(part: Branch) -> Iterator[str]:
        match part:
            case Element(poles=poles, cross=cross):
                owners = [device(pole.device) for pole in poles]
                names = [f"{short(owner)}:{pole.unit}" for owner, pole in zip(owners, poles, strict=True)]
                sign = "^" + "".join(str(n + 1) for n in cross) if cross else ""
                yield ("<" if poles[0].flipped else "") + "/".join(names) + sign
            case Landing(device=owner, pins=pins):
                name = short(device(owner))
                yield "@" + "/".join(f"{name}:{pin}" for pin in pins)
            case Series(parts):
                for branch in parts:
                    yield from pieces(branch)
            case Parallel(parts):
                yield "(" + " | ".join(" ".join(pieces(branch)) for branch in parts) + ")"

    return " ".join(pieces(branch))
