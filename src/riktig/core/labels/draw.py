"""Labels at their true size, medium by medium, on sheets as they will print."""

from dataclasses import dataclass, replace
from functools import lru_cache

from riktig.core.geometry import (
    Align,
    Circle,
    Drawing,
    Face,
    Line,
    Point,
    Poly,
    Rect,
    Shape,
    Text,
    code_fits,
    code_marks,
    moved,
    unprintable,
)
from riktig.core.keys import Key
from riktig.core.labels.fit import USUAL_LIMITS, FittedText, LetterLimits, fit_text, text_marks
from riktig.core.labels.model import Label, Labels, Medium
from riktig.core.plate import box

__all__ = [
    "GAP",
    "SHEET",
    "SHEET_HIGH",
    "check_line",
    "draw_medium",
    "label_marks",
    "label_pages",
    "misfit_texts",
    "printed_lines",
]

SHEET, SHEET_HIGH = 184.0, 225.0
"""What a sheet of labels takes of the paper, mm: A4 and Letter have as much between margins, head and check line."""
GAP = 3.0

SIGN = 22.0
"""Side of the warning sign, mm: seen at about a metre (ISO 3864-1, from memory)."""
SIGN_HIGH = SIGN * 0.866
_FLASH = (
    (0.535, 0.28), (0.415, 0.50), (0.505, 0.485), (0.435, 0.645), (0.395, 0.625), (0.425, 0.745), (0.53, 0.675),
    (0.487, 0.665), (0.585, 0.43), (0.497, 0.447), (0.575, 0.30),
)  # fmt: skip
"""The flash in shares of the side: two slanting strokes and an arrow head that points down."""


def draw_medium(labels: Labels, medium: Medium, only: tuple[Label, ...] | None = None) -> Drawing:
    """The labels of one medium, or some of them, 1 mm to 1 mm, all sheets one below the other, as they will print.

    Args:
        labels: All labels of the panel.
        medium: What they are printed on.
        only: Only these; None draws all.
    """
    pages = label_pages(labels, medium, only)
    shapes: list[Shape] = []
    top = 0.0
    for page in pages:
        shapes += [moved(mark, 0.0, top) for mark in page.shapes]
        top += page.height + GAP
    return Drawing(SHEET, top, tuple(shapes), medium.value)


def label_pages(labels: Labels, medium: Medium, only: tuple[Label, ...] | None = None) -> tuple[Drawing, ...]:
    """The labels of one medium, or some of them, 1 mm to 1 mm, on as many sheets as they take.

    Each sheet fits A4 and Letter with their margins, and has a line to measure the print by. A label whose text does
    not fit is crossed out; ``misfit_labels`` names it.

    Args:
        labels: All labels of the panel.
        medium: What they are printed on.
        only: Only these; None draws all.
    """
    shown = [label for label in (labels.on(medium) if only is None else only) for _ in range(label.copies)]
    sheets: list[list[Shape]] = [[]]
    bottoms = [0.0]
    x = y = GAP
    for label in shown:
        width, height = label.size
        if x + width > SHEET:
            x, y = GAP, y + height + GAP
        if y + height + GAP > SHEET_HIGH:
            x, y = GAP, GAP
            sheets.append([])
            bottoms.append(0.0)
        sheets[-1] += label_marks(label, Rect(x, y, width, height))
        bottoms[-1] = y + height + GAP
        x += width + (0 if medium is Medium.TERMINAL else GAP)
    count = len(sheets)
    titles = [medium.value if count == 1 else f"{medium.value}, sheet {n} of {count}" for n in range(1, count + 1)]
    return tuple(
        Drawing(SHEET, bottom + 9, (*marks, *check_line(bottom)), title)
        for marks, bottom, title in zip(sheets, bottoms, titles, strict=True)
    )


def check_line(bottom: float) -> list[Shape]:
    """100 mm to measure a print by, below everything else.

    Args:
        bottom: Where all else ends, mm.
    """
    return [
        Line(GAP, bottom + 4, GAP + 100, bottom + 4, "second", 0.2),
        Line(GAP, bottom + 2.5, GAP, bottom + 5.5, "second", 0.2),
        Line(GAP + 100, bottom + 2.5, GAP + 100, bottom + 5.5, "second", 0.2),
        Text(GAP + 102, bottom + 5, "100 mm: measure it on the print", 2.2, "second"),
    ]


@dataclass(frozen=True, slots=True)
class _Written:
    """A text of a label: its words, where they stand, the largest capital, and the look.

    ``short`` are the words with the house's abbreviations, "" without any.
    """

    text: str
    room: Rect
    most: float
    face: Face = Face.WORDS
    role: str = "ink"
    align: Align = Align.MIDDLE
    short: str = ""
    limits: LetterLimits = USUAL_LIMITS

    @property
    def fitted(self) -> FittedText | None:
        """The text in its room, abbreviated where only that fits; None when nothing does."""
        mono = self.face in (Face.PRINTED, Face.PRINTED_BOLD)
        for text in (self.text, self.short) if self.short else (self.text,):
            fitted = fit_text(text, self.room.width, self.room.height, self.most, mono=mono, limits=self.limits)
            if fitted is not None and not unprintable(text):
                return fitted
        return None


def _written(medium: Medium, lines: tuple[str, ...], rect: Rect) -> list[_Written]:
    """What stands on a label of a medium, and where: one entry for each line."""
    inside = Rect(rect.x + 0.6, rect.y + 0.3, rect.width - 1.2, rect.height - 0.6)
    first, second = lines[0] if lines else "", lines[1] if len(lines) > 1 else ""
    match medium:
        case Medium.WIRE | Medium.CORE:
            room = Rect(rect.x + 0.4, rect.y + 0.1, rect.width - 0.8, rect.height - 0.2)
            return [_Written(first, room, 2.6, Face.PRINTED)]
        case Medium.TERMINAL:
            return [_Written(first, inside, 2.4, Face.PRINTED)]
        case Medium.DEVICE | Medium.TORQUE:
            tag = Rect(inside.x, rect.y + 0.8, inside.width, 3.2)
            words = Rect(inside.x, tag.bottom + 0.6, inside.width, rect.bottom - tag.bottom - 1.2)
            return [_Written(first, tag, 3.2, Face.PRINTED_BOLD), _Written(second, words, 1.9)]
        case Medium.EARTH:
            return [_Written(first, Rect(inside.x, rect.bottom - 5.2, inside.width, 4.4), 3.2, Face.PRINTED_BOLD)]
        case Medium.LEGEND:
            room = Rect(rect.x + 2, rect.y + 1.2, rect.width - 4, rect.height - 2.4)
            return [
                _Written(line, row, 3.2, Face.PRINTED_BOLD)
                for line, row in zip(lines, _rows(room, len(lines)), strict=True)
            ]
        case Medium.CABLE | Medium.PIECE:
            high = rect.height / 2 - 0.8
            tag = Rect(rect.x + 2, rect.y + 0.8, rect.width - 4, high)
            words = Rect(rect.x + 2, tag.bottom + 0.4, rect.width - 4, rect.bottom - tag.bottom - 1.2)
            return [_Written(first, tag, 3.6, Face.PRINTED_BOLD), _Written(second, words, 2.2)]
        case Medium.NAMEPLATE:
            room = Rect(rect.x + 3, rect.y + 2, rect.width - 6, rect.height - 4)
            return [
                _Written(line, Rect(row.x, row.y + 0.6, row.width, row.height - 1.2), 2.6, align=Align.LEFT)
                for line, row in zip(lines, _rows(room, len(lines), 6), strict=True)
            ]
        case Medium.NOTICE:
            head = Rect(rect.x + 5, rect.y + 4, rect.width - 10, 9)
            room = Rect(head.x, head.bottom + 3, head.width, rect.bottom - head.bottom - 7)
            rows = _rows(room, len(lines) - 1, 4)
            return [_Written(first, head, 6.0, Face.BOLD)] + [
                _Written(line, Rect(row.x, row.y + 0.6, row.width, row.height - 1.2), 4.4, align=Align.LEFT)
                for line, row in zip(lines[1:], rows, strict=True)
            ]
        case Medium.WARNING:
            words = Rect(rect.x + SIGN + 6, rect.y + 2, rect.width - SIGN - 9, rect.height - 4)
            head = Rect(words.x, words.y, words.width, 8)
            body = Rect(words.x, head.bottom + 1, words.width, words.bottom - head.bottom - 1)
            return [_Written(first, head, 4.4, Face.BOLD, "sign ink"), _Written(second, body, 3.4, role="sign ink")]


def _rows(room: Rect, count: int, least: int = 1) -> list[Rect]:
    """So many rows below each other, as high as if there were at least so many."""
    high = room.height / max(count, least)
    return [Rect(room.x, room.y + n * high, room.width, high) for n in range(count)]


def _texts(label: Label, rect: Rect) -> list[_Written]:
    """What stands on a label in the room for its words, by the limits of what it is printed on."""
    texts = _written(label.medium, label.lines, rect)
    beyond = label.lines[
        len(texts) :
    ]  # the builder's own text may have more lines than its medium: they go on the last
    if beyond and texts:
        texts[-1] = replace(texts[-1], text=" ".join((texts[-1].text, *beyond)))
    shorter = label.short if len(label.short) == len(texts) else ("",) * len(texts)
    return [
        replace(
            written,
            most=max(written.most, label.limits.least),
            short=short if short != written.text else "",
            limits=label.limits,
        )
        for written, short in zip(texts, shorter, strict=True)
    ]


def misfit_texts(label: Label) -> tuple[str, ...]:
    """The texts of a label that do not fit it at the smallest capital, or that no face can print."""
    return _misfits(label.medium, label.lines, label.code, label.short, label.limits, label.size)


@lru_cache(maxsize=16384)  # pure; the same texts come again with every edit
def _misfits(
    medium: Medium,
    lines: tuple[str, ...],
    code: str,
    short: tuple[str, ...],
    limits: LetterLimits,
    size: tuple[float, float],
) -> tuple[str, ...]:
    label = Label(medium, lines, 1, "", None, code, size, short, limits)
    words, square = _code_and_text(Rect(0, 0, *label.size), label.code)
    misfits = [part.text for part in _texts(label, words) if part.text and part.fitted is None]
    if square and not code_fits(label.code, square.height):
        misfits.append(label.code)
    return tuple(misfits)


def printed_lines(label: Label) -> tuple[str, ...]:
    """The lines as they come out, each abbreviated where only that fits."""
    words, _square = _code_and_text(Rect(0, 0, *label.size), label.code)
    texts = _texts(label, words) if label.short else []
    if not texts:
        return label.lines
    return tuple(" ".join(text.fitted.lines) if text.fitted else text.text for text in texts)


WIDEST_CODE = 18.0
"""The side of the largest code on a label, mm (chosen by us: read at arm's length)."""


def _code_and_text(rect: Rect, code: str) -> tuple[Rect, Rect | None]:
    """The room for the words of a label, and the square for its code at the right; None without one."""
    if not code:
        return rect, None
    side = min(rect.height, WIDEST_CODE)
    square = Rect(rect.right - side, rect.y + (rect.height - side) / 2, side, side)
    return Rect(rect.x, rect.y, rect.width - side, rect.height), square


def label_marks(label: Label, rect: Rect) -> list[Shape]:
    """A label with its texts, or crossed out where one does not fit.

    Args:
        label: The label.
        rect: Its outline, mm.
    """
    key = label.key
    shapes: list[Shape] = [box(rect, "line", 0.2, "card", key, "label")]
    if label.medium is Medium.WARNING:
        shapes[0] = box(rect, "ink", 0.4, "lens yellow", key, "label")
        shapes += electricity_sign(rect.x + 3, rect.centre.y - SIGN_HIGH / 2, key)
    if label.medium is Medium.EARTH:
        shapes += earth_sign(rect.centre.x, rect.y + 1.2, min(rect.width - 2.0, rect.height - 7.6), key)
    words, square = _code_and_text(rect, label.code)
    if square:
        shapes += code_marks(label.code, square, key)
    for written in _level(label.medium, _texts(label, words)):
        fitted = written.fitted
        if fitted is None and written.text:
            shapes.append(Line(rect.x, rect.y, rect.right, rect.bottom, "fails", 0.4, key=key))
            shapes.append(Line(rect.x, rect.bottom, rect.right, rect.y, "fails", 0.4, key=key))
        elif fitted is not None:
            shapes += text_marks(fitted, written.room, written.face, key=key, role=written.role, align=written.align)
    return shapes


def _level(medium: Medium, texts: list[_Written]) -> list[_Written]:
    """The lines of a legend in letters of one height."""
    if medium is not Medium.LEGEND or len(texts) < 2:
        return texts
    sizes = [text.fitted.size for text in texts if text.fitted]
    return [replace(text, most=min(sizes)) for text in texts] if len(sizes) == len(texts) else texts


def earth_sign(x: float, y: float, side: float, key: Key | None) -> list[Shape]:
    """The sign of protective earth: a circle with the sign of earth in it, from the middle of its upper edge.

    Source:
        IEC 60417-5019 (three bars, each shorter than the one above, under a stem, in a circle), from memory.

    Args:
        x: Its middle, mm.
        y: Its top, mm.
        side: Its diameter, mm.
        key: What it belongs to.
    """
    middle, radius = y + side / 2, side / 2
    bars = [(0.06, 0.56), (0.28, 0.36), (0.50, 0.16)]
    return [
        Circle(x, middle, radius, "print", 0.35, layer="sign", key=key),
        Line(x, middle - 0.72 * radius, x, middle + 0.06 * radius, "print", 0.5, layer="sign", key=key),
        *(
            Line(x - half * radius, middle + down * radius, x + half * radius, middle + down * radius, "print", 0.5,
                 layer="sign", key=key)
            for down, half in bars
        ),
    ]  # fmt: skip


def electricity_sign(x: float, y: float, key: Key | None) -> list[Shape]:
    """The warning of electricity: a black-edged yellow triangle with an arrowed flash, from its upper left corner.

    Source:
        ISO 7010 W012 and ISO 3864-1 (proportions of the triangle), from memory.

    Args:
        x: Its left end, mm.
        y: Its top, mm.
        key: What it belongs to.
    """

    def placed(points: tuple[tuple[float, float], ...]) -> tuple[Point, ...]:
        return tuple(Point(x + px * SIGN, y + py * SIGN) for px, py in points)

    edge = placed(((0.5, 0.0), (1.0, 0.866), (0.0, 0.866)))
    inside = placed(((0.5, 0.16), (0.862, 0.786), (0.138, 0.786)))
    return [
        Poly(edge, "sign ink", 0.2, closed=True, fill="sign ink", layer="sign", key=key),
        Poly(inside, "sign ink", 0.2, closed=True, fill="lens yellow", layer="sign", key=key),
        Poly(placed(_FLASH), "sign ink", 0.1, closed=True, fill="sign ink", layer="sign", key=key),
    ]
