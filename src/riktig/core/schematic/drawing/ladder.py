"""A ladder: control paths that run level between two uprights, one below the other, each with the number of its line.

A control sheet is laid out with its paths upright; here it is turned over its diagonal, and labelled anew.
"""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field

from riktig.core.catalogue import Behaviour
from riktig.core.geometry import Align, Face, Text, bounds_of, run_of
from riktig.core.job import DeviceId, PinRef
from riktig.core.keys import DeviceKey, ElementKey, NetKey, PlaceKey
from riktig.core.schematic.drawing.draw_labels import WIDE
from riktig.core.schematic.drawing.draw_power import LEAST, PRINTED, SMALL, TAG
from riktig.core.schematic.drawing.label_collisions import LabelCollisions
from riktig.core.schematic.drawing.sheet_data import SheetData, facts_of, places_elsewhere, words_of
from riktig.core.schematic.layout.frame import broken
from riktig.core.schematic.layout.ladder_page import LADDER_WIDTH, MARGIN, SHIFT
from riktig.core.schematic.layout.sheet_model import RAIL_BOTTOM, RAIL_TOP, TAP_TOP, LevelLine, Sheet, SheetElement
from riktig.core.schematic.layout.sheets import LADDER_STEP
from riktig.core.schematic.model.controller_cards import io_address
from riktig.core.schematic.model.elements import Device, Element, Zone
from riktig.core.schematic.netlist.nets import NetClass

__all__ = ["LadderLabels"]

LEFT, RIGHT = RAIL_TOP + SHIFT, RAIL_BOTTOM + SHIFT
"""Where the uprights of the ladder stand, mm."""
NOTE_X = RIGHT + 25.0
"""Where it is said at the right of a line where its contacts are and what it is for, mm."""
NOTE_LETTERS = 17
ENDS = (TAP_TOP, RAIL_TOP, RAIL_BOTTOM)
"""Where a path hangs on an upright, whose number stands there already."""
PIN_ASIDE = 5.6
"""From the middle of a symbol to the numbers of its pins, mm."""


@dataclass(slots=True)
class LadderLabels:
    """Sets the labels of one ladder onto what is drawn of it, the most needed first."""

    reading: SheetData
    sheet: Sheet
    collisions: LabelCollisions
    numbered: set[tuple[PinRef, float]] = field(default_factory=set)

    def set_all(self) -> None:
        """All labels."""
        for n, x in enumerate(self.sheet.lines, self.sheet.first_line):
            self.collisions.add([Text(MARGIN + 1.5, x + 1.3, str(n), PRINTED, face=Face.PRINTED_BOLD)])
        self._notes()
        for seat in self.sheet.seats:
            self._named(seat)
        for landing, x, y in self.sheet.landings:
            device = self.reading.devices[landing.device]
            name = f"{self.reading.names.tag[device.id]}:{landing.pins[0]}"
            text = Text(y + SHIFT, x, name, PRINTED, face=Face.PRINTED_BOLD, key=DeviceKey(device.id))
            self._first_free(self._around(text), must=True)
        for rail in self.sheet.rails:
            self._rail(rail)
        for arrow in self.sheet.arrows:
            words, key = f"{'to' if arrow.onward else 'from'} {arrow.to}", PlaceKey(arrow.to.full)
            self._first_free(self._around(Text(arrow.y + SHIFT, arrow.x, words, SMALL, "act", key=key)), must=True)
        for seat in self.sheet.seats:
            self._numbers(seat)
        for seat in self.sheet.seats:
            self._write_labels(seat)

    def _first_free(self, spots: Iterable[list[Text]], *, must: bool = False) -> bool:
        """Sets the first group of texts that is free of everything and on the page."""
        tried: list[list[Text]] = []
        for texts in spots:
            tried.append(texts)
            boxes = [bounds_of(text) for text in texts]
            inside = all(box.x > MARGIN and box.right < LADDER_WIDTH - 2 and box.y > 2 for box in boxes)
            if inside and all(self.collisions.free(text) for text in texts):
                self.collisions.add(texts)
                return True
        if must and tried:
            self.collisions.add(tried[0])
        return False

    def _around(self, text: Text) -> Iterator[list[Text]]:
        """A text at its point, tried above and below it and to both sides."""
        for dy in (-1.6, 4.4, -5.4, 8.2, -9.2, 12.0):
            for dx, align in ((1.4, Align.LEFT), (-1.4, Align.RIGHT), (0.0, Align.MIDDLE)):
                yield [text._replace(x=text.x + dx, y=text.y + dy, align=align)]

    def _named(self, seat: SheetElement) -> None:
        """The tag above a symbol and the numbers of its pins on both sides of it; a terminal's own name."""
        element = seat.element
        device = self.reading.devices[element.device]
        key = ElementKey(element.id)
        middle, y = (seat.top + seat.bottom) / 2 + SHIFT, seat.x
        tag = self.reading.names.tag[device.id]
        if device.strip:
            name = Text(middle, y, f"{tag}:{device.mark}", PRINTED, align=Align.MIDDLE, face=Face.PRINTED, key=key)
            beside = ((dx, dy) for dy in (-2.6, 4.6, -5.6, 7.6, -8.6, 10.6) for dx in (0.0, -3.0, 3.0))
            self._first_free(([name._replace(x=name.x + dx, y=y + dy)] for dx, dy in beside), must=True)
            return
        unit = device.kind.unit(element.poles[0].unit)
        coil = self.reading.coils.get(device.id)
        where = ""
        if coil and coil.id != element.id:
            where = f" ({self.reading.at_coil.get(device.id, '').removeprefix('line ')})"
        title = Text(middle, y, tag + where, TAG, align=Align.MIDDLE, face=Face.PRINTED_BOLD, key=key)
        above = 9.6 if unit.symbol in WIDE else 5.4
        whole = [[title._replace(y=y - up, size=size)] for size in (TAG, PRINTED, SMALL) for up in (above, 12.0, 14.4)]
        alone, line = title._replace(text=tag), title._replace(text=where.strip(), size=SMALL, face=Face.PRINTED)
        apart = [
            [alone._replace(y=y - up, size=size), line._replace(y=y + down)]
            for size in (TAG, PRINTED, SMALL)
            for up in (above, 12.0, 3.6)
            for down in (8.0, 10.6, 5.2)
        ]
        self._first_free([*whole, *(apart if where else ())], must=True)
        pins = (unit.pins[-1], unit.pins[0]) if element.poles[0].flipped else (unit.pins[0], unit.pins[-1])
        aside = 7.2 if unit.behaviour is Behaviour.LAMP else PIN_ASIDE
        for pin, to_left in ((pins[0], True), (pins[1], False)):
            half = PRINTED * run_of(pin, mono=True) / 2 + 0.3
            low, high = seat.top + SHIFT + half, seat.bottom + SHIFT - half
            at = max(low, middle - aside) if to_left else min(high, middle + aside)
            spot = Text(at, y, pin, PRINTED, "second", Face.PRINTED, Align.MIDDLE, key=key)
            self._first_free(([spot._replace(y=y + dy)] for dy in (4.4, 5.4, 6.4, -1.2, 8.2, 9.8)), must=True)

    def _write_labels(self, seat: SheetElement) -> None:
        """What a device is for, below its symbol, in as many lines as there is room for; never cut."""
        device = self.reading.devices[seat.element.device]
        words = "" if device.strip else self._words(device, seat.element)
        zone = [] if device.zone is Zone.PLATE or device.strip else [device.zone.value]
        facts: tuple[str, ...] = ()
        if not device.strip:
            places = [place.removeprefix("line ") for place in places_elsewhere(self.reading, device, seat.element)]
            also = f"also {', '.join(places)}" if places else ""
            facts = (also, *facts_of(self.reading, device, seat.element, on_control=True))
        if not words and not zone and not any(facts):
            return
        middle, key = (seat.top + seat.bottom) / 2 + SHIFT, ElementKey(seat.element.id)

        def spots() -> Iterator[list[Text]]:
            for most, size in ((16, SMALL), (12, SMALL), (10, LEAST), (8, LEAST), (6, LEAST)):
                stated = [row for fact in facts if fact for row in broken(fact, max(most, 9))]
                full = (broken(words, most) if words else []) + stated
                for rows in (full + zone, full, *((stated,) if stated else ())):
                    for top in (8.0, 11.0, 13.4, -9.0 - size * 1.26 * len(rows)):
                        first = Text(middle, seat.x + top, "", size, "second", align=Align.MIDDLE, key=key)
                        yield [first._replace(y=first.y + n * size * 1.26, text=row) for n, row in enumerate(rows)]

        self._first_free(spots())

    def _words(self, device: Device, element: Element) -> str:
        """What is said of it; nothing of a contact, whose coil stands in brackets beside its tag."""
        coil = self.reading.coils.get(device.id)
        if coil and coil.id != element.id and not io_address(device, element.poles[0].unit):
            return ""
        return words_of(self.reading, device, element, on_control=True)

    def _numbers(self, seat: SheetElement) -> None:
        """The number of each net on the line, once on each line that it is on."""
        for pole in seat.element.poles:
            owner = self.reading.devices[pole.device]
            pins = owner.kind.unit(pole.unit).pins
            ends = (pins[-1], pins[0]) if pole.flipped else (pins[0], pins[-1])
            for pin, along in zip(ends, (seat.top, seat.bottom), strict=True):
                net = self.reading.of_pin.get(owner.pin(pin))
                number = self.reading.names.number.get(net.id, "") if net else ""
                if net is None or not number or (net.id, seat.x) in self.numbered or along in ENDS:
                    continue
                key = NetKey(net.id)
                spots = (
                    [Text(at + SHIFT, seat.x - up, number, PRINTED, face=Face.PRINTED, align=Align.MIDDLE, key=key)]
                    for at in (along, along - 2.5, along + 2.5)
                    for up in (1.0, -4.4)
                )
                if self._first_free(spots):
                    self.numbered.add((net.id, seat.x))

    def _rail(self, rail: LevelLine) -> None:
        """The name of what an upright carries, at the upper end of its stretch."""
        net = self.reading.by_node.get(rail.node) or (self.reading.of_pin.get(rail.pin) if rail.pin else None)
        if net is None:
            return
        name = "PE" if net.net_class is NetClass.EARTH else self.reading.names.number.get(net.id, "")
        text = Text(rail.y + SHIFT, rail.x1, name, PRINTED, face=Face.PRINTED, key=NetKey(net.id))
        aside, align = (-1.4, Align.RIGHT) if rail.top else (1.4, Align.LEFT)
        spots = [[text._replace(x=text.x + aside, y=text.y + dy, align=align)] for dy in (-1.2, 4.2, -5.0, 8.0)]
        self._first_free([*spots, *self._around(text)], must=True)

    def _notes(self) -> None:
        """At the right of a line where the contacts of its coil are, and what the line is for."""
        notes = {
            round(x, 2): (title, ", ".join(part for part in (words, self.reading.rung_name(rung)) if part))
            for x, title, words, rung in self.sheet.captions
        }
        coils = {round(s.x, 2): s for s in self.sheet.seats if self.reading.coils.get(s.element.device) == s.element}
        for n, x in enumerate(self.sheet.lines):
            room = (self.sheet.lines[n + 1] - x) if n + 1 < len(self.sheet.lines) else LADDER_STEP
            seat = coils.get(x)
            contacts = self._contacts(seat.element.device) if seat else ()
            rows = [Text(NOTE_X, 0, text, SMALL, "act", Face.PRINTED) for text in contacts]
            title, words = notes.get(x, ("", ""))
            for said_here, face in ((title, Face.BOLD), (words, Face.WORDS)):
                lines = broken(said_here, NOTE_LETTERS) if said_here else []
                rows += [Text(NOTE_X, 0, line, SMALL, "second", face) for line in lines]
            size = min(SMALL, max(room / (1.3 * max(len(rows), 1)), LEAST))
            self.collisions.add(row._replace(y=x + 1.2 + n * size * 1.3, size=size) for n, row in enumerate(rows))

    def _contacts(self, coil: DeviceId) -> Iterator[str]:
        """The lines of a coil's contacts, closing ones first; those that are spare are counted."""
        device, used = self.reading.devices[coil], self.reading.used.get(coil, {})
        units = [unit for unit in device.kind.units if unit.name not in device.kind.own_loops]
        for word, behaviour in (("NO", Behaviour.NO), ("NC", Behaviour.NC)):
            alike = (unit.name for unit in units if unit.behaviour is behaviour)
            lines = dict.fromkeys(used[unit].removeprefix("line ") for unit in alike if unit in used)
            if lines:
                yield from (f"{word} {part}" if not k else part for k, part in enumerate(_wrapped(list(lines))))
        spare = sum(unit.name not in used and unit.behaviour in (Behaviour.NO, Behaviour.NC) for unit in units)
        if spare:
            yield f"{spare} spare"


def _wrapped(places: list[str]) -> list[str]:
    """Places parted by commas, in rows that the margin holds."""
    return broken(", ".join(places), NOTE_LETTERS - 6)
