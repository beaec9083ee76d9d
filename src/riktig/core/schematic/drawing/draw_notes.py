"""Notes beside the lines of a sheet: conductors, voltages, and at the foot of a power sheet what its loads are."""

from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from itertools import chain, product

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
"""First line of what is said of loads, below the line of the protective conductors, mm."""
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

    def __post_init__(self) -> None:
        ladder = self.sheet.is_ladder
        self.left, self.right = (MARGIN, LADDER_WIDTH - 4) if ladder else (FIRST_X, FRAME_RIGHT)
        self.bottom = frame_bottom(self.sheet) if ladder else FRAME_BOTTOM

    def first(self, spots: Iterable[list[Text]]) -> bool:
        """Writes the first group of texts that is free of everything and inside the frame."""
        for texts in spots:
            boxes = [bounds_of(text) for text in texts]
            across = all(box.x > self.left + 1.0 and box.right < self.right - 1.0 for box in boxes)
            inside = across and all(box.y > FIRST_Y and box.bottom < self.bottom for box in boxes)
            if inside and all(self.collisions.free(text, APART) for text in texts):
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
    told: set[DeviceId] = set()
    for did, middle in ends:
        kind = data.devices[did].kind
        rows = [", ".join(data.notes.ratings.get(did, ())), " ".join(data.notes.cables.get(did, ()))]
        if did in told or kind.can(Can.SUPPLY) or kind.can(Can.DISTRIBUTES) or not any(rows):
            continue
        text = Text(middle, FOOT, "", SMALL, "second", align=Align.MIDDLE, key=DeviceKey(did))
        if page.first(
            _below(text._replace(x=middle + dx, size=size), (row for row in rows if row))
            for size, dx in product((SMALL, LEAST), (0.0, 4.0, -4.0, 8.0, -8.0, 12.0, -12.0))
        ):
            told.add(did)


def _below(first: Text, rows: Iterable[str]) -> list[Text]:
    """Rows of text below each other."""
    return [first._replace(text=row, y=first.y + n * STEP * first.size) for n, row in enumerate(rows)]


def _usual(page: _Page) -> PinConductor:
    """The conductor that most pins of a sheet have; of a power sheet only its colour."""
    conductors, power = page.data.notes.conductors, page.sheet.bus is not None
    counted = Counter(
        PinConductor("" if power else conductors[pin].size, conductors[pin].colour)
        for _, ends in page.ends()
        for pin in chain.from_iterable(ends)
        if pin in conductors and not _is_earth(page, pin)
    )
    return counted.most_common(1)[0][0] if counted else PinConductor("", "")


def _is_earth(page: _Page, pin: PinRef) -> bool:
    net = page.data.of_pin.get(pin)
    return net is not None and net.net_class is NetClass.EARTH


def _conductors(page: _Page) -> None:
    """At each line its conductor where it is not the usual one of the sheet; and the usual one once."""
    usual = _usual(page)
    if not usual.text:
        return
    words = f"Lines without a size: {usual.text}" if usual.size else f"Lines without a colour: {usual.colour}"
    low = Text(page.right - 2, page.bottom - 1.6, words, SMALL, "second", align=Align.RIGHT)
    corners = (low, low._replace(x=page.left + 2, align=Align.LEFT))
    page.first([at._replace(y=y)] for y in (page.bottom - 1.6, FIRST_Y + 4.4, FIRST_Y + 8.4) for at in corners)
    written: set[tuple[object, ...]] = set()
    for seat, ends in page.ends():
        if len(ends) > 1:
            _group(page, seat, [upper for upper, _ in ends], usual, written, at_top=True)
            _group(page, seat, [lower for _, lower in ends], usual, written, at_top=False)
    said: set[tuple[PinRef, float]] = set()
    for seat, ends in page.ends():
        if len(ends) == 1:
            for pin, y in zip(ends[0], (seat.top, seat.bottom), strict=True):
                _one_line(page, pin, (seat.x, y), usual, said)


def _group(
    page: _Page,
    seat: SheetElement,
    pins: list[PinRef],
    usual: PinConductor,
    written: set[tuple[object, ...]],
    *,
    at_top: bool,
) -> None:
    """Beside the last of several lines that run together: “3 × 2.5 mm²”."""
    known = page.data.notes.conductors
    conductors = [known[pin] for pin in pins if pin in known]
    if len(conductors) < len(pins):
        return
    sizes, colours = (
        list(dict.fromkeys(texts)) for texts in zip(*((c.size, c.colour) for c in conductors), strict=True)
    )
    size = f"{len(pins)} × {sizes[0]}" if len(sizes) == 1 else ", ".join(c.size for c in conductors)
    words = size if colours == [usual.colour] else f"{size} {', '.join(colours)}"
    nets = [page.data.of_pin.get(pin) for pin in pins]
    lines = (
        words,
        seat.x if page.sheet.bus and any(net and net.is_shared for net in nets) else 0.0,
        *(net and net.id for net in nets),
    )
    if lines in written:
        return
    net = nets[-1]
    last = seat.x + (len(pins) - 1) * LINE_GAP
    y = seat.top if at_top else seat.bottom
    text = Text(0.0, 0.0, words, SMALL, "second", key=NetKey(net.id) if net else None)
    sides = ((last + 1.4, Align.LEFT), (seat.x - 1.4, Align.RIGHT), (last - LINE_GAP + 1.2, Align.LEFT))
    if page.first(
        _rows(text._replace(x=x, y=y + dy, size=size_mm, align=align), most)
        for most, size_mm in ((40, SMALL), (14, SMALL), (14, LEAST), (9, LEAST))
        for dy in ((-1.0, -3.4, 1.4, -5.8, 3.8) if at_top else (2.4, 4.8, 0.6, 7.0, -1.0))
        for x, align in sides
    ):
        written.add(lines)


def _rows(text: Text, most: int) -> list[Text]:
    """A text in lines of so many characters."""
    return _below(text, broken(text.text, most))


def _one_line(
    page: _Page, pin: PinRef, at: tuple[float, float], usual: PinConductor, said: set[tuple[PinRef, float]]
) -> None:
    """Beside a single line what its conductor is, once a net on a sheet; nothing where it is the usual one."""
    conductor, net = page.data.notes.conductors.get(pin), page.data.of_pin.get(pin)
    if conductor is None or net is None or conductor == usual or net.net_class is NetClass.EARTH:
        return
    told = (net.id, at[0] if page.sheet.bus else 0.0)  # taps of a feed differ: each is said at its own line
    if told in said:
        return
    words = conductor.size if conductor.colour == usual.colour else conductor.text
    text = Text(0.0, 0.0, words, SMALL, "second", key=NetKey(net.id))
    if page.first(_rows(spot, most) for most in (40, 9) for spot in _beside(page, text, at)):
        said.add(told)


def _beside(page: _Page, text: Text, at: tuple[float, float]) -> Iterator[Text]:
    """Places of a text beside the lines of its net, the longest first, and beside a point that it ends at."""
    own = [m for m in page.collisions.shapes if isinstance(m, Line) and m.key == text.key and m.layer == "circuit"]
    if page.sheet.bus:
        own = [line for line in own if line.x1 == line.x2 == at[0]]
    for line in sorted(own, key=lambda m: -abs(m.x2 - m.x1) - abs(m.y2 - m.y1))[:4]:
        x, y = (line.x1 + line.x2) / 2, (line.y1 + line.y2) / 2
        if line.x1 == line.x2:
            for dy, size in product((1.0, 6.0, -4.0, 11.0, -9.0), (SMALL, LEAST)):
                yield text._replace(x=x + 1.4, y=y + dy, size=size)
                yield text._replace(x=x - 1.4, y=y + dy, size=size, align=Align.RIGHT)
        else:
            for dx, size in product((0.0, 8.0, -8.0, 16.0, -16.0), (SMALL, LEAST)):
                yield text._replace(x=x + dx, y=y - 1.2, size=size, align=Align.MIDDLE)
                yield text._replace(x=x + dx, y=y + 3.6, size=size, align=Align.MIDDLE)
    yield from _around(text._replace(size=LEAST), page.at(*at))


def _around(text: Text, at: tuple[float, float]) -> Iterator[Text]:
    """Places of a text around a point: right and left of it, from near to far."""
    x, y = at
    for dy in (1.0, 4.0, -2.0, 7.0, -5.0, 10.0, -8.0):
        yield text._replace(x=x + 1.4, y=y + dy)
        yield text._replace(x=x - 1.4, y=y + dy, align=Align.RIGHT)


def _voltages(page: _Page) -> None:
    """At the level that a path hangs on or returns to its voltage, once a net on a sheet."""
    data, said = page.data, set()
    for rail in page.sheet.rails:
        net = data.by_node.get(rail.node) or (data.of_pin.get(rail.pin) if rail.pin else None)
        volts = data.notes.voltages.get(net.id, "") if net else ""
        if net is None or not volts or net.id in said:
            continue
        text = Text(0.0, 0.0, volts, SMALL, "second", key=NetKey(net.id))
        ends = [page.at(rail.x1, rail.y), page.at(rail.x2, rail.y)]
        if page.first(
            [spot] for size in (SMALL, LEAST) for end in ends for spot in _around(text._replace(size=size), end)
        ):
            said.add(net.id)
