"""The labels of a sheet: words, numbers of nets, names of lines, arrows, mirrors; each where nothing stands yet."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from itertools import chain, product

from riktig.core.catalogue import Behaviour, Can
from riktig.core.geometry import Align, Face, Shape, Text, bounds_of
from riktig.core.job import PinRef
from riktig.core.keys import ElementKey, NetKey, PlaceKey
from riktig.core.schematic.drawing.draw_power import CORE, LEAST, PRINTED, SMALL
from riktig.core.schematic.drawing.label_collisions import LabelCollisions
from riktig.core.schematic.drawing.sheet_data import SheetData, facts_of, places_elsewhere, words_of
from riktig.core.schematic.layout.frame import broken
from riktig.core.schematic.layout.power_sheets import POWER_BOTTOM, is_bus
from riktig.core.schematic.layout.sheet_model import (
    FIRST_X,
    FIRST_Y,
    FRAME_BOTTOM,
    FRAME_RIGHT,
    LINE_GAP,
    RAIL_BOTTOM,
    RAIL_TOP,
    TAP_TOP,
    Arrow,
    LevelLine,
    Sheet,
    SheetElement,
)
from riktig.core.schematic.model.elements import Device, Zone
from riktig.core.schematic.netlist.nets import Net, NetClass
from riktig.core.schematic.symbols.choose import earth_sign

__all__ = ["WIDE", "LabelPlacer", "left_of"]

MAIN_POLES = ("1-2", "3-4", "5-6")
MIRROR_STEP = 3.4
"""From one line of a contact mirror to the next, mm."""
PLACE_GAP = 1.2
"""Between two places in one row, mm."""
NEAR_ROWS = (1.0, -1.5, 3.5, -4.0, 6.0, -6.5, 8.5, -9.0, 10.0)
"""Above and below the middle of a symbol, mm, from near to far."""
SPARE_LETTERS = 15
"""So much of the spare contacts stands in one row: the next coil may stand a column on."""
ON_LINE = 4.4
"""A stretch of line so long carries the number of its net, mm."""
WIDE = {"push", "turn", "key", "mushroom", "float", "limit", "temperature", "trip", "delay"}
"""Symbols with a sign at their left."""


def _rows(parts: list[str], most: int) -> list[str]:
    """Texts in rows of so many characters, each beginning a row of its own."""
    return [row for part in parts if part for row in broken(part, most)]


def _lines(rows: list[str], first: Text, zone: list[str], zone_size: float) -> list[Text]:
    """Rows below each other; where a device stands is written fainter, and no larger than that."""
    return [
        first._replace(
            y=first.y + n * first.size * 1.26,
            text=row,
            size=first.size if row not in zone else min(first.size, zone_size),
            role="third" if row in zone else "second",
        )
        for n, row in enumerate(rows)
    ]


def _left_of(parts: list[str], zone: list[str], at: Text) -> Iterator[list[Text]]:
    """Under the tag, wide and large first."""
    for most, size in ((18, SMALL), (12, SMALL), (9, SMALL), (12, LEAST), (9, LEAST), (6, LEAST), (5, LEAST)):
        rows, first = _rows(parts, most), at._replace(y=at.y + 3.4, size=size)
        yield _lines(rows + zone, first, zone, size)
        yield _lines(rows + zone, first, zone, LEAST)
        yield _lines(rows, first, zone, size)


def _right_of(parts: list[str], zone: list[str], at: Text) -> Iterator[list[Text]]:
    """At the other side, below and above the symbol."""
    for size, dy in product((SMALL, LEAST), (7.6, -4.6, 10.0)):
        yield _lines(_rows(parts, 12) + zone, at._replace(y=at.y + dy, size=size), zone, size)


def _small_left(parts: list[str], at: Text) -> Iterator[list[Text]]:
    """Under or over the tag, as small as can be read."""
    for size, most in product((LEAST, 2.0, 1.8), (14, 8, 5)):
        rows = _rows(parts, most)
        for dy in (4.6, 6.0, -4.2 - size * 1.26 * len(rows)):
            yield _lines(rows, at._replace(y=at.y + dy, size=size), [], size)


def _in_a_row(places: list[str], at: Text) -> list[Text]:
    """Places beside each other, each its own link; from a point to the right, or up to it."""
    texts = [at._replace(text=place, key=PlaceKey(place), align=Align.LEFT) for place in places]
    widths = [bounds_of(text).width + PLACE_GAP for text in texts]
    x = at.x if at.align is Align.LEFT else at.x - sum(widths) + PLACE_GAP
    return [text._replace(x=x + sum(widths[:n])) for n, text in enumerate(texts)]


def left_of(device: Device, seat: SheetElement) -> float:
    """Where the tag of an element ends: left of its symbol and of the sign that moves it."""
    unit = device.kind.unit(seat.element.poles[0].unit)
    return seat.x - (12.0 if unit.symbol in WIDE and len(seat.element.poles) == 1 else 7.0)


@dataclass(slots=True)
class LabelPlacer:
    """Sets the labels of one sheet onto its ground, the hardest to place first."""

    reading: SheetData
    sheet: Sheet
    collisions: LabelCollisions
    bonded: frozenset[PinRef]
    numbered: set[PinRef]

    def __init__(
        self, reading: SheetData, sheet: Sheet, collisions: LabelCollisions, bonded: frozenset[PinRef]
    ) -> None:
        self.reading, self.sheet, self.collisions, self.bonded = reading, sheet, collisions, bonded
        self.numbered = set()

    def set_all(self) -> None:
        """All labels."""
        sheet = self.sheet
        if not sheet.bus:
            for seat in sheet.seats:
                if self.reading.coils.get(seat.element.device) == seat.element:
                    self.collisions.add(self._mirror(self.reading.devices[seat.element.device], seat.x))
        for rail in sheet.rails:
            self.collisions.add(self._rail(rail))
        for arrow in sheet.arrows:
            self._arrow(arrow)
        for seat in sheet.seats:
            self._write_labels(seat)
        for seat in sheet.seats:
            self._numbers(seat)
        for seat in sheet.seats:
            self._elsewhere(seat)
        self._captions()

    def _first_free(self, spots: Iterable[list[Text]]) -> bool:
        """Sets the first group of texts that is free of everything and inside the frame."""
        for shapes in spots:
            inside = all(bounds_of(m).x > FIRST_X + 1.2 and bounds_of(m).right < FRAME_RIGHT for m in shapes)
            if inside and all(self.collisions.free(mark) for mark in shapes):
                self.collisions.add(shapes)
                return True
        return False

    def _write_labels(self, seat: SheetElement) -> None:
        """What is said under a tag, in as many lines and as large as there is room for; never cut.

        Where there is no room for all, what it is for gives way to its ratings.
        """
        device = self.reading.devices[seat.element.device]
        if device.strip:
            return
        words = words_of(self.reading, device, seat.element, on_control=not self.sheet.bus)
        facts = facts_of(self.reading, device, seat.element, on_control=not self.sheet.bus)
        zone = [] if device.zone is Zone.PLATE else [device.zone.value]
        tiers = [[words, *facts], *([[*facts]] if facts else [])]
        y, left = (seat.top + seat.bottom) / 2, left_of(device, seat)
        right = seat.x + (len(seat.element.poles) - 1) * LINE_GAP + 7.4
        text = Text(left, y + 3.0, "…", SMALL, "second", align=Align.RIGHT, key=ElementKey(seat.element.id))
        spots = chain(
            *(_left_of(tier, zone, text._replace(y=y)) for tier in tiers),
            *(_right_of(tier, zone, text._replace(x=right, y=y, align=Align.LEFT)) for tier in tiers),
            *(_small_left(tier, text._replace(y=y)) for tier in tiers),
            _left_of([words], zone, text._replace(y=y)) if facts else (),
        )
        if not self._first_free(spots):
            self._first_free([[text]])

    def _elsewhere(self, seat: SheetElement) -> None:
        """Where else a device without a coil is drawn, beside its symbol or under its tag."""
        device = self.reading.devices[seat.element.device]
        places = places_elsewhere(self.reading, device, seat.element)
        if not places:
            return
        left, y = left_of(device, seat), (seat.top + seat.bottom) / 2
        right = seat.x + (len(seat.element.poles) - 1) * LINE_GAP

        def spots() -> Iterator[list[Text]]:
            for size, dx, dy in product((SMALL, LEAST), (4.6, 8.4), (1.0, 4.4, -2.4)):
                at = Text(right + dx, y + dy, "", size, "act")
                yield [at._replace(y=at.y + n * size * 1.26, text=p, key=PlaceKey(p)) for n, p in enumerate(places)]
            for size in (SMALL, LEAST):
                yield _in_a_row(places, Text(left, y - 4.0, "", size, "act", align=Align.RIGHT))
            for size in (SMALL, LEAST):
                at = Text(left, y - 4.0 - (len(places) - 1) * size * 1.26, "", size, "act", align=Align.RIGHT)
                yield [at._replace(y=at.y + n * size * 1.26, text=p, key=PlaceKey(p)) for n, p in enumerate(places)]
            for size, row in product((SMALL, LEAST), range(6)):
                at = Text(left, y + 3.4 + row * SMALL * 1.26, "", size, "act", align=Align.RIGHT)
                yield [at._replace(y=at.y + n * size * 1.26, text=p, key=PlaceKey(p)) for n, p in enumerate(places)]
            # last of all in one row, anywhere beside the last pole
            for size, dx, dy in product((SMALL, LEAST, 1.8), (4.6, 2.6, 1.4, 7.0), NEAR_ROWS):
                yield _in_a_row(places, Text(right + dx, y + dy, "", size, "act"))

        self._first_free(spots())

    def _numbers(self, seat: SheetElement) -> None:
        """The number of each net where it first can be written without touching another label."""
        power = self.sheet.bus is not None
        for index, pole in enumerate(seat.element.poles):
            x = seat.x + index * LINE_GAP
            owner = self.reading.devices[pole.device]
            pins = owner.kind.unit(pole.unit).pins
            ends = (pins[-1], pins[0]) if pole.flipped else (pins[0], pins[-1])
            incoming = self.sheet.bus and owner.strip and seat.top < self.sheet.bus.y
            for pin, y in zip(ends, (seat.top, seat.bottom), strict=True):
                net = self.reading.of_pin.get(owner.pin(pin))
                below = owner.kind.can(Can.OVERLOAD) and y == seat.bottom
                above = bool(owner.strip) and y == seat.top
                leg = power and not owner.strip and net is not None and self._is_leg(net)
                if not (power and (below or above or leg or incoming)):
                    self._number(net, x, y)

    def _arrives(self, net: Net) -> bool:
        """Whether a net is a line of the supply, which is named at its terminal."""
        return any(self.reading.devices[p.device].kind.can(Can.SUPPLY) for p in net.pins)

    def _is_leg(self, net: Net) -> bool:
        """Whether a net is a motor's own conductor, which is named at its terminal."""
        return any(self.reading.devices[p.device].kind.is_motor for p in net.pins)

    def _number(self, net: Net | None, x: float, y: float) -> None:
        number = self.reading.names.number.get(net.id, "") if net else ""
        if not net or not number or net.id in self.numbered or net.is_shared:
            return
        power = self.sheet.bus is not None
        if self._arrives(net) or (not power and y in (RAIL_TOP, RAIL_BOTTOM)):
            return
        key = NetKey(net.id)
        if power and self._is_leg(net):
            leg = Text(x - 1.2, y + 2.2, number, CORE, face=Face.PRINTED, align=Align.RIGHT, key=key, backed=True)
            if self.collisions.clear(leg):
                self.numbered.add(net.id)
                self.collisions.add([leg])
            return

        def on(at: float) -> Text:
            return Text(x, at + 1.3, number, PRINTED, face=Face.PRINTED, align=Align.MIDDLE, key=key, backed=True)

        long = [
            (w.y1 + w.y2) / 2
            for w in self.sheet.wires
            if w.x1 == w.x2 == x and w.y2 - w.y1 >= ON_LINE and (abs(w.y1 - y) < 0.1 or abs(w.y2 - y) < 0.1)
        ]
        spots = [on(at) for at in long if not power and self.collisions.clear(on(at))]
        for dy in (1.0, 2.4, -0.6, 3.6, -2.0):
            spots += [
                Text(x - 1.2, y + dy, number, PRINTED, face=Face.PRINTED, align=Align.RIGHT, key=key),
                Text(x + 1.2, y + dy, number, PRINTED, face=Face.PRINTED, key=key),
            ]
        for spot in spots:
            if spot.backed or self.collisions.free(spot):
                self.numbered.add(net.id)
                self.collisions.add([spot])
                return

    def _rail(self, rail: LevelLine) -> list[Shape]:
        """The name of a node at the left end of its stretch, and what shows that it ends in earth."""
        net = self.reading.by_node.get(rail.node) or (self.reading.of_pin.get(rail.pin) if rail.pin else None)
        if is_bus(rail.node) and rail.y not in (RAIL_TOP, RAIL_BOTTOM, TAP_TOP):
            return []
        if net is None:
            return []
        if "N" in net.nodes and not rail.top and rail.y not in (RAIL_BOTTOM, POWER_BOTTOM):
            return []
        name = "PE" if net.net_class is NetClass.EARTH else self.reading.names.number.get(net.id, "")
        self.numbered.add(net.id)
        if not rail.top and self.bonded & set(net.pins) and net.net_class is NetClass.EARTH:
            return [*earth_sign(rail.x1, rail.y + 3.4)]
        key = NetKey(net.id)

        def at(x: float, y: float, align: Align) -> Text:
            return Text(x, y, name, PRINTED, face=Face.PRINTED, align=align, key=key)

        left, right = rail.x1 - 1.6, rail.x1 + 1.4
        if not rail.top:
            spots = [at(right, rail.y + 4.3, Align.LEFT), at(left, rail.y + 4.3, Align.RIGHT)]
        else:
            y = rail.y + 2.0 if rail.y == TAP_TOP else rail.y - 2.4
            sides = ((left, Align.RIGHT), (right, Align.LEFT))
            spots = [at(left, y, Align.RIGHT), at(left, y + 0.7, Align.RIGHT)]
            spots += [at(x, y - up, align) for up in (0.0, 3.4, 6.8) for x, align in sides]
        return [next((spot for spot in spots if self.collisions.free(spot)), spots[0])]

    def _arrow(self, arrow: Arrow) -> None:
        """Where a node goes on or comes from: the place of its partner, beside the end of its line."""
        words = f"{'to' if arrow.onward else 'from'} {arrow.to}"
        key = PlaceKey(arrow.to.full)
        sides = [(2.0, Align.LEFT), (-2.0, Align.RIGHT)]
        if not arrow.onward:
            sides.reverse()
        if arrow.y == TAP_TOP and not arrow.onward:
            sides[0] = (-7.0, Align.RIGHT)
        heights = (1.0, 4.2, -2.6, 7.4, -5.8, 10.6, -9.0, 13.8)

        def spot(dx: float, dy: float, align: Align) -> list[Text]:
            return [Text(arrow.x + dx, arrow.y + dy, words, SMALL, "act", align=align, key=key)]

        near = [spot(dx, dy, align) for dy in heights[:3] for dx, align in sides]
        far = [spot(dx, dy, align) for dy in heights[3:] for dx, align in sides]
        both = [s for s in (*near, *far) if FIRST_Y + 3 < s[0].y < FRAME_BOTTOM - 1]
        if not self._first_free(both):
            self.collisions.add(both[0])

    def _mirror(self, device: Device, x: float) -> list[Shape]:
        """Under a coil: where its contacts are, the main poles in one line, the spare ones in the last."""
        places = self.reading.used.get(device.id, {})
        shown = (u for u in device.kind.units if u.behaviour is not Behaviour.COIL)
        rows = [(u.name, places.get(u.name, "spare")) for u in shown if u.name not in device.kind.own_loops]
        used = [row for row in rows if row[1] != "spare"]
        poles = [place for unit, place in used if unit in MAIN_POLES]
        if len(poles) == len(MAIN_POLES) and len(set(poles)) == 1:
            used = [("1 to 6", poles[0]), *(row for row in used if row[0] not in MAIN_POLES)]
        spare = [unit for unit, place in rows if place == "spare" and unit not in MAIN_POLES]
        shapes: list[Shape] = []
        top = RAIL_BOTTOM + 7.9
        spare_rows = broken("spare " + " ".join(unit.split("-")[0] for unit in spare), SPARE_LETTERS) if spare else []
        step = min(MIRROR_STEP, 13.2 / max(len(used) + len(spare_rows) - 1, 1))
        size = min(PRINTED, step * 0.8)
        for index, (unit, place) in enumerate(used):
            y = top + index * step
            shapes += [
                Text(x - 9, y, unit, size, "second", Face.PRINTED),
                Text(x + 6.4, y, place, size, "act", key=PlaceKey(place)),
            ]
        for index, row in enumerate(spare_rows, len(used)):
            shapes.append(Text(x - 9, top + index * step, row, size, "third"))
        return shapes

    def _captions(self) -> None:
        """What a path is for, above the line it hangs on; the first of a circuit with the circuit's name."""
        for x, title, words_of_column, rung in self.sheet.captions:
            lines = list(dict.fromkeys(t for t in (title, words_of_column) if t))
            name = self.reading.rung_name(rung)
            joined = [*lines[:-1], f"{lines[-1]}, {name}"] if lines and name else lines
            tries = ([joined, [*lines, name], [name], lines] if lines else [[name]]) if name else [lines]

            def spots(
                x: float = x, tries: list[list[str]] = tries, named: bool = bool(title), name: str = name
            ) -> Iterator[list[Text]]:
                for words, dx, size in product(tries, (2.0, 8.0, 13.0), (SMALL, LEAST)):
                    yield [
                        Text(x + dx, RAIL_TOP - 2.6 - (len(words) - 1 - n) * 3.7, part, size, "second",
                             Face.BOLD if named and n == 0 and part != name else Face.WORDS)
                        for n, part in enumerate(words)
                    ]  # fmt: skip

            self._first_free(spots())
