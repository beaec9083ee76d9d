"""Notes beside the lines of a sheet: conductors, voltages, and at the foot of a power sheet what its loads are."""

from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from itertools import chain, product
from typing import NamedTuple

from riktig.core.catalogue import Can
from riktig.core.geometry import Align, Line, Text, bounds_of
from riktig.core.job import DeviceId, PinRef
from riktig.core.keys import DeviceKey, NetKey
from riktig.core.schematic.drawing.draw_power import LEAST, SMALL
from riktig.core.schematic.drawing.draw_wires import ends_of
from riktig.core.schematic.drawing.label_collisions import LabelCollisions
from riktig.core.schematic.drawing.sheet_data import SheetData
from riktig.core.schematic.drawing.sheet_notes import PinConductor
from riktig.core.schematic.layout.frame import broken
from riktig.core.schematic.layout.ladder_page import LADDER_WIDTH, MARGIN, SHIFT, frame_bottom
from riktig.core.schematic.layout.power_sheets import INCOMER_X, INCOMING_TOP, POWER_BOTTOM
from riktig.core.schematic.layout.sheet_model import (
    FIRST_X,
    FIRST_Y,
    FRAME_BOTTOM,
    FRAME_RIGHT,
    LINE_GAP,
    Sheet,
    SheetElement,
)
from riktig.core.schematic.model.elements import Zone
from riktig.core.schematic.netlist.nets import NetClass

__all__ = ["write_notes"]

FOOT = POWER_BOTTOM + 23.6
"""First line of what is written of loads, below the line of the protective conductors, mm."""
APART = 0.5
"""A note stays so far from every other text that the two never read as one, mm."""
STEP = 1.26
"""From line to line of a note, in its size."""
LINE_STEP = 3.6


def write_notes(data: SheetData, sheet: Sheet, collisions: LabelCollisions) -> None:
    """Writes the notes of a sheet, each where nothing stands yet; what finds no place is left out.

    Args:
        data: What the sheets read.
        sheet: The sheet.
        collisions: What stands on it so far; the notes are added.
    """
    page = _Page(data, sheet, collisions)
    if sheet.bus:
        _supply(page)
        _loads(page)
    _conductors(page)
    _voltages(page)


@dataclass(slots=True)
class _Page:
    """One sheet with what stands on it so far, and where notes may stand."""

    data: SheetData
    sheet: Sheet
    collisions: LabelCollisions
    left: float = field(init=False)
    right: float = field(init=False)
    bottom: float = field(init=False)
    usual: PinConductor = field(default_factory=lambda: PinConductor("", ""))
    written: set[tuple[object, ...]] = field(default_factory=set)
    """The lines whose conductors are written already."""
    unplaced: list[tuple[str, str]] = field(default_factory=list)
    """Numbers of lines that have no room for their conductors, and these."""

    def __post_init__(self) -> None:
        ladder = self.sheet.is_ladder
        self.left, self.right = (MARGIN, LADDER_WIDTH - 4) if ladder else (FIRST_X, FRAME_RIGHT)
        self.bottom = frame_bottom(self.sheet) if ladder else FRAME_BOTTOM

    def first(self, spots: Iterable[list[Text]], apart: float = APART) -> bool:
        """Writes the first group of texts that is inside the frame, free of lines, and so far from other texts, mm."""
        for texts in spots:
            boxes = [bounds_of(text) for text in texts]
            across = all(box.x > self.left + 1.0 and box.right < self.right - 1.0 for box in boxes)
            inside = across and all(box.y > FIRST_Y and box.bottom < self.bottom for box in boxes)
            if inside and all(self.collisions.free(text, apart) for text in texts):
                self.collisions.add(texts)
                return True
        return False

    def ends(self) -> Iterator[tuple[SheetElement, list[tuple[PinRef, PinRef]]]]:
        """Every element with the upper and lower pin of each of its poles."""
        for seat in self.sheet.seats:
            yield seat, [(upper, lower) for _, _, upper, lower in ends_of(seat, self.data.devices)]

    def at(self, x: float, y: float) -> tuple[float, float]:
        """Where a point of the upright layout stands on the page: a ladder is turned over."""
        return (y + SHIFT, x) if self.sheet.is_ladder else (x, y)


def _supply(page: _Page) -> None:
    """What the supply is: beside its lines where it enters, over the lines across on any other sheet."""
    data, bus = page.data, page.sheet.bus
    cable = next((m.device for m, _, _ in page.sheet.landings if data.devices[m.device].kind.can(Can.SUPPLY)), None)
    if cable is not None:
        words = (*data.notes.supply, " ".join(data.notes.cables.get(cable, ())))
        first = Text(INCOMER_X + 6 * LINE_GAP, INCOMING_TOP + 1, "", SMALL, "second", key=DeviceKey(cable))
        page.first([[first._replace(y=first.y + n * LINE_STEP, text=row) for n, row in enumerate(filter(None, words))]])
    elif bus is not None and data.notes.supply:
        over = Text(bus.x2, bus.y - 1.2, data.notes.supply[0], SMALL, "second", align=Align.RIGHT)
        page.first([over._replace(x=x)] for x in (bus.x2, *(bus.x2 - 20.0 * n for n in range(1, 8))))


def _loads(page: _Page) -> None:
    """At the foot of a power sheet, under each load and each transformer: power, current and cable."""
    data = page.data
    ends = [(m.device, x + (len(m.pins) - 1) * LINE_GAP / 2) for m, x, _ in page.sheet.landings]
    ends += [(s.element.device, s.x) for s in page.sheet.seats if data.devices[s.element.device].zone is Zone.FIELD]
    placed: set[DeviceId] = set()
    for device_id, middle in ends:
        kind = data.devices[device_id].kind
        rows = [", ".join(data.notes.ratings.get(device_id, ())), " ".join(data.notes.cables.get(device_id, ()))]
        if device_id in placed or kind.can(Can.SUPPLY) or kind.can(Can.DISTRIBUTES) or not any(rows):
            continue
        text = Text(middle, FOOT, "", SMALL, "second", align=Align.MIDDLE, key=DeviceKey(device_id))
        spots = (
            (_below(text._replace(x=middle + dx, size=size), [row for row in rows if row]), apart)
            for apart, size, dx in product((2.0, APART), (SMALL, LEAST), (0.0, 4.0, -4.0, 8.0, -8.0, 12.0, -12.0))
        )
        if any(page.first([spot], apart) for spot, apart in spots):
            placed.add(device_id)


def _below(first: Text, rows: Iterable[str]) -> list[Text]:
    """Rows of text below each other."""
    return [first._replace(text=row, y=first.y + n * STEP * first.size) for n, row in enumerate(rows)]


def _usual(page: _Page) -> PinConductor:
    """The conductor that most pins of a sheet have; of a power sheet only its colour."""
    conductors, power = page.data.notes.conductors, page.sheet.bus is not None
    counted = Counter(
        PinConductor("", conductors[pin].colour) if power else conductors[pin]
        for _, ends in page.ends()
        for pin in chain.from_iterable(ends)
        if pin in conductors and not _is_earth(page, pin)
    )
    return counted.most_common(1)[0][0] if counted else PinConductor("", "")


def _is_earth(page: _Page, pin: PinRef) -> bool:
    net = page.data.of_pin.get(pin)
    return net is not None and net.net_class is NetClass.EARTH


def _conductors(page: _Page) -> None:
    """At each line its conductor where it is not the usual one of the sheet.

    The usual one is written once; with it what has no room at its own line, by the numbers of the lines.
    """
    usual = page.usual = _usual(page)
    if not usual.text:
        return
    for group in _groups(page):
        _write_group(page, group)
    for line in _single_lines(page):
        _one_line(page, line)
    power = f"Lines without a colour: {usual.colour}; without a size: as the line above them"
    words = f"Lines without a size: {usual.text}" if usual.size else power
    rows = [words, *(f"{numbers}: {text}" for numbers, text in page.unplaced)]
    for size, align, low in product((SMALL, LEAST), (Align.RIGHT, Align.LEFT), (True, False)):
        x = page.right - 2 if align is Align.RIGHT else page.left + 2
        y = page.bottom - 1.6 - (len(rows) - 1) * STEP * size if low else FIRST_Y + 4.4
        if page.first([_below(Text(x, y, "", size, "second", align=align), rows)]):
            return


class _Group(NamedTuple):
    """Several lines that run together at one end of an element: what is written beside the last of them."""

    words: str
    nets: tuple[PinRef, ...]
    x: float
    y: float
    lines: int
    at_top: bool
    changes: bool
    """Whether the lines above it in the same column have other conductors, or there are none."""


def _groups(page: _Page) -> list[_Group]:
    """The lines that run together, first those whose conductors differ from the ones above them."""
    groups: list[_Group] = []
    above: dict[float, str] = {}
    for seat, ends in sorted(page.ends(), key=lambda end: end[0].top):
        for at_top in (True, False) if len(ends) > 1 else ():
            pins = [pair[0 if at_top else 1] for pair in ends]
            words = _group_words(page, pins)
            nets = [page.data.of_pin.get(pin) for pin in pins]
            if not words:
                continue
            y = seat.top if at_top else seat.bottom
            ids = tuple(net.id for net in nets if net)
            groups.append(_Group(words, ids, seat.x, y, len(pins), at_top, above.get(seat.x) != words))
            above[seat.x] = words
    return sorted(groups, key=lambda group: not group.changes)


def _group_words(page: _Page, pins: list[PinRef]) -> str:
    """“3 × 2.5 mm²”; empty where a pin has no conductor of its own."""
    known = page.data.notes.conductors
    conductors = [known[pin] for pin in pins if pin in known]
    if len(conductors) < len(pins):
        return ""
    thickest, colours = [c.thickest for c in conductors], list(dict.fromkeys(c.colour for c in conductors))
    size = f"{len(pins)} × {thickest[0]}" if len(set(thickest)) == 1 else ", ".join(thickest)
    return size if colours == [page.usual.colour] else f"{size} {', '.join(colours)}"


def _write_group(page: _Page, group: _Group) -> None:
    """Beside the last or the first of the lines; once for lines between two elements."""
    between = (group.words, *group.nets)
    if between in page.written and not group.changes:
        return
    last = group.x + (group.lines - 1) * LINE_GAP
    text = Text(0.0, 0.0, group.words, SMALL, "second", key=NetKey(group.nets[-1]) if group.nets else None)
    sides = ((last + 1.4, Align.LEFT), (group.x - 1.4, Align.RIGHT), (last - LINE_GAP + 1.2, Align.LEFT))
    if page.first(
        _rows(text._replace(x=x, y=group.y + dy, size=size, align=align), most)
        for most, size in ((40, SMALL), (14, SMALL), (14, LEAST), (9, LEAST))
        for dy in ((-1.0, -3.4, 1.4, -5.8, 3.8, -8.2) if group.at_top else (2.4, 4.8, 0.6, 7.0, -1.0))
        for x, align in sides
    ):
        page.written.add(between)
    elif group.changes:
        numbers = [page.data.names.number.get(net, "") for net in group.nets]
        page.unplaced.append((" ".join(filter(None, numbers)), group.words))


def _rows(text: Text, most: int) -> list[Text]:
    """A text in lines of so many characters."""
    return _below(text, broken(text.text, most))


class _SingleLine(NamedTuple):
    """A line by itself whose conductor is not the usual one of the sheet: a net, and where it is first met."""

    net: PinRef
    words: str
    at: tuple[float, float]


def _single_lines(page: _Page) -> list[_SingleLine]:
    """Each once a net on a control sheet; on a power sheet, where the taps of a feed differ, at each of them."""
    met: dict[tuple[PinRef, float], list[PinConductor]] = {}
    first: dict[tuple[PinRef, float], tuple[float, float]] = {}
    for seat, ends in page.ends():
        for pin, y in zip(ends[0], (seat.top, seat.bottom), strict=True) if len(ends) == 1 else ():
            conductor, net = page.data.notes.conductors.get(pin), page.data.of_pin.get(pin)
            if conductor is not None and net is not None and net.net_class is not NetClass.EARTH:
                line = (net.id, seat.x if page.sheet.bus else 0.0)
                met.setdefault(line, []).append(conductor)
                first.setdefault(line, (seat.x, y))
    return [
        _SingleLine(line[0], words, first[line])
        for line, conductors in met.items()
        if (words := _line_words(list(dict.fromkeys(conductors)), page.usual))
    ]


def _line_words(conductors: list[PinConductor], usual: PinConductor) -> str:
    """What stands at a line that has these conductors; empty where it has the usual one alone."""
    if conductors == [usual]:
        return ""
    sizes = " / ".join(dict.fromkeys(conductor.size for conductor in conductors))
    colours = list(dict.fromkeys(conductor.colour for conductor in conductors))
    return sizes if colours == [usual.colour] else f"{sizes} {' / '.join(colours)}"


def _one_line(page: _Page, line: _SingleLine) -> None:
    """Beside a single line what its conductor is, or in the list of the sheet where there is no room."""
    text = Text(0.0, 0.0, line.words, SMALL, "second", key=NetKey(line.net))
    if not page.first(_rows(spot, most) for most in (40, 9) for spot in _texts_beside(page, text, line.at)):
        page.unplaced.append((page.data.names.number.get(line.net, ""), line.words))


def _texts_beside(page: _Page, text: Text, at: tuple[float, float]) -> Iterator[Text]:
    """Places of a text beside the lines of its net, the longest first, and beside a point that it ends at."""
    lines = [mark for mark in page.collisions.shapes if isinstance(mark, Line) and mark.layer == "circuit"]
    own_lines = [line for line in lines if line.key == text.key]
    if page.sheet.bus:
        own_lines = [line for line in lines if line.x1 == line.x2 == at[0] and line.key in (text.key, None)]
    for line in sorted(own_lines, key=lambda m: -abs(m.x2 - m.x1) - abs(m.y2 - m.y1))[:4]:
        x, y = (line.x1 + line.x2) / 2, (line.y1 + line.y2) / 2
        if line.x1 == line.x2:
            for dy, size in product((1.0, 6.0, -4.0, 11.0, -9.0), (SMALL, LEAST)):
                yield text._replace(x=x + 1.4, y=y + dy, size=size)
                yield text._replace(x=x - 1.4, y=y + dy, size=size, align=Align.RIGHT)
        else:
            for dx, size in product((0.0, 8.0, -8.0, 16.0, -16.0), (SMALL, LEAST)):
                yield text._replace(x=x + dx, y=y - 1.2, size=size, align=Align.MIDDLE)
                yield text._replace(x=x + dx, y=y + 3.6, size=size, align=Align.MIDDLE)
    for point in (page.at(*at), *((line.x2, line.y2) for line in own_lines if page.sheet.bus)):
        yield from _around(text._replace(size=LEAST), point)


def _around(text: Text, at: tuple[float, float]) -> Iterator[Text]:
    """Places of a text around a point: right and left of it, from near to far."""
    x, y = at
    for dy in (1.0, 4.0, -2.0, 7.0, -5.0, 10.0, -8.0):
        yield text._replace(x=x + 1.4, y=y + dy)
        yield text._replace(x=x - 1.4, y=y + dy, align=Align.RIGHT)


def _voltages(page: _Page) -> None:
    """At the level that a path hangs on or returns to its voltage, once a net on a sheet."""
    data, written = page.data, set()
    for rail in page.sheet.rails:
        net = data.by_node.get(rail.node) or (data.of_pin.get(rail.pin) if rail.pin else None)
        volts = data.notes.voltages.get(net.id, "") if net else ""
        if net is None or not volts or net.id in written:
            continue
        text = Text(0.0, 0.0, volts, SMALL, "second", key=NetKey(net.id))
        ends = [page.at(rail.x1, rail.y), page.at(rail.x2, rail.y)]
        if page.first(
            [spot] for size in (SMALL, LEAST) for end in ends for spot in _around(text._replace(size=size), end)
        ):
            written.add(net.id)
