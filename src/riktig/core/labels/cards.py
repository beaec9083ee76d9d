"""Pin cards: a device as one stands in front of it, its number at every clamp; stickers to put beside them."""

from dataclasses import dataclass

from riktig.core.catalogue import Clamp, Side
from riktig.core.geometry import Align, Drawing, Face, Line, Rect, Shape, Text, run_of
from riktig.core.ids import PinRef
from riktig.core.job import DeviceId
from riktig.core.keys import DeviceKey, PinKey
from riktig.core.plate import box
from riktig.core.schematic import Circuits, Names, Nets, Zone

__all__ = ["PinCard", "PinText", "draw_cards", "make_cards"]

SHEET, GAP = 190.0, 4.0
CELL, HIGH = 9.0, 6.0
"""A sticker, mm: wide enough for four figures beside a clamp (chosen by us)."""
BODY = 17.0


@dataclass(frozen=True, slots=True)
class PinText:
    """A clamp: its marking, the number that lands on it (empty when none does), and where it is reached."""

    marking: str
    number: str
    side: Side
    across: float


@dataclass(frozen=True, slots=True)
class PinCard:
    """A device with its clamps, from left to right."""

    device: DeviceId
    tag: str
    purpose: str
    pins: tuple[PinText, ...]

    def at(self, side: Side) -> tuple[PinText, ...]:
        """The clamps of one side, from left to right."""
        return tuple(sorted((pin for pin in self.pins if pin.side is side), key=lambda pin: pin.across))


def make_cards(circuits: Circuits, nets: Nets, names: Names) -> tuple[PinCard, ...]:
    """A card for every device on plate and door on which a wire lands, in the order of the circuits.

    Terminals have their own markers and are left out.

    Args:
        circuits: All devices and rungs of the job.
        nets: All nets of these circuits.
        names: Tags of devices and numbers of nets.
    """
    cards = []
    for device in circuits.devices:
        if device.strip or device.zone is Zone.FIELD:
            continue
        pins = []
        for pin in device.kind.pins:
            if pin.clamp is Clamp.PLUG:
                continue
            net = nets.of_pin.get(device.pin(pin.name))
            number = names.number.get(net.id, "") if net else ""
            pins.append(PinText(pin.name, number, pin.side, pin.across))
        if any(pin.number for pin in pins):
            cards.append(PinCard(device.id, names.tag[device.id], device.purpose, tuple(pins)))
    return tuple(cards)


def draw_cards(cards: tuple[PinCard, ...]) -> Drawing:
    """The cards, 1 mm to 1 mm: the row of stickers above and below each device can be cut off as one strip."""
    shapes: list[Shape] = []
    x, y, lowest = GAP, GAP, GAP
    for card in cards:
        width = max(CELL * max(len(card.at(Side.TOP)), len(card.at(Side.BOTTOM)), 2), 24.0)
        if x > GAP and x + width > SHEET:
            x, y = GAP, lowest + GAP
        shapes += _card(card, x, y, width)
        x += width + GAP
        lowest = max(lowest, y + 2 * HIGH + BODY)
    bottom = lowest + GAP
    shapes += [
        Line(GAP, bottom + 4, GAP + 100, bottom + 4, "second", 0.2),
        Line(GAP, bottom + 2.5, GAP, bottom + 5.5, "second", 0.2),
        Line(GAP + 100, bottom + 2.5, GAP + 100, bottom + 5.5, "second", 0.2),
        Text(GAP + 102, bottom + 5, "100 mm: measure it on the print", 2.2, "second"),
    ]
    return Drawing(SHEET + GAP, bottom + 9, tuple(shapes), "pin cards")


def _card(card: PinCard, x: float, y: float, width: float) -> list[Shape]:
    key = DeviceKey(card.device)
    body = Rect(x, y + HIGH, width, BODY)
    shapes: list[Shape] = [box(body, "line", 0.3, "panel", key, "card")]
    shapes += [
        _fitted(Text(x + width / 2, body.y + 8.2, card.tag, 4.0, face=Face.PRINTED_BOLD, key=key), width - 2),
        _fitted(Text(x + width / 2, body.y + 11.8, card.purpose, 2.0, face=Face.WORDS, key=key), width - 2),
    ]
    for side, top, marked in ((Side.TOP, y, body.y + 2.9), (Side.BOTTOM, body.bottom, body.bottom - 1.1)):
        pins = card.at(side)
        left = x + (width - CELL * len(pins)) / 2
        for place, pin in enumerate(pins):
            cell = Rect(left + place * CELL, top, CELL, HIGH)
            middle = cell.x + CELL / 2
            pin_key = PinKey(PinRef(card.device, pin.marking))
            marking = Text(middle, marked, pin.marking, 2.0, "second", Face.PRINTED, key=pin_key)
            shapes.append(_fitted(marking, CELL - 0.6))
            if pin.number:
                shapes.append(box(cell, "line", 0.2, "card", pin_key, "label"))
                number = Text(middle, top + 4.2, pin.number, 3.2, face=Face.PRINTED_BOLD, key=pin_key)
                shapes.append(_fitted(number, CELL - 1.0))
            else:
                shapes.append(Line(cell.x + 2.5, top + 3, cell.right - 2.5, top + 3, "hair", 0.3, key=pin_key))
    return shapes


def _fitted(text: Text, width: float) -> Text:
    """A text set in the middle and small enough for a width, mm."""
    run = run_of(text.text, mono=text.face in (Face.PRINTED, Face.PRINTED_BOLD)) * 1.06
    return text._replace(size=min(text.size, width / max(run, 1.0)), align=Align.MIDDLE)
