"""Pin cards: a device as one stands in front of it, its number at every clamp; stickers to put beside them."""

from dataclasses import dataclass

from riktig.core.catalogue import Clamp, Side
from riktig.core.geometry import Drawing, Face, Line, Rect, Shape, moved
from riktig.core.ids import PinRef
from riktig.core.job import DeviceId
from riktig.core.keys import DeviceKey, PinKey
from riktig.core.labels.draw import GAP, SHEET, SHEET_HIGH, check_line
from riktig.core.labels.fit import FittedText, LetterLimits, fit_text, text_marks
from riktig.core.plate import box
from riktig.core.schematic import Circuits, Names, Nets, Zone

__all__ = ["PinCard", "PinText", "card_pages", "draw_cards", "make_cards"]

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
    """The cards, 1 mm to 1 mm, all sheets one below the other, as they will print."""
    shapes: list[Shape] = []
    top = 0.0
    for page in card_pages(cards):
        shapes += [moved(mark, 0.0, top) for mark in page.shapes]
        top += page.height + GAP
    return Drawing(SHEET, top, tuple(shapes), "pin cards")


def card_pages(cards: tuple[PinCard, ...]) -> tuple[Drawing, ...]:
    """The cards, 1 mm to 1 mm, on as many sheets as they take.

    The row of stickers above and below each device can be cut off as one strip.
    """
    sheets: list[list[Shape]] = [[]]
    bottoms = [0.0]
    x, y, high = GAP, GAP, 2 * HIGH + BODY
    for card in cards:
        width = max(_cell(card) * _columns(card), 24.0)
        if x > GAP and x + width > SHEET:
            x, y = GAP, y + high + 4
        if y + high + GAP > SHEET_HIGH:
            x, y = GAP, GAP
            sheets.append([])
            bottoms.append(0.0)
        sheets[-1] += _card(card, x, y, width)
        bottoms[-1] = y + high + GAP
        x += width + 4
    count = len(sheets)
    titles = ["pin cards" if count == 1 else f"pin cards, sheet {n} of {count}" for n in range(1, count + 1)]
    return tuple(
        Drawing(SHEET, bottom + 9, (*marks, *check_line(bottom)), title)
        for marks, bottom, title in zip(sheets, bottoms, titles, strict=True)
    )


def _columns(card: PinCard) -> int:
    return max(len(card.at(Side.TOP)), len(card.at(Side.BOTTOM)), 2)


def _cell(card: PinCard) -> float:
    """How wide its stickers are, mm: narrower where a row of them would not fit the sheet."""
    return min(CELL, (SHEET - 2 * GAP) / _columns(card))


def _card(card: PinCard, x: float, y: float, width: float) -> list[Shape]:
    key = DeviceKey(card.device)
    body = Rect(x, y + HIGH, width, BODY)
    shapes: list[Shape] = [box(body, "line", 0.3, "panel", key, "card")]
    middle_room = Rect(x + 1, body.y + 3.4, width - 2, 4.6), Rect(x + 1, body.y + 8.4, width - 2, 4.6)
    for text, room, most, face in (
        (card.tag, middle_room[0], 4.0, Face.PRINTED_BOLD),
        (card.purpose, middle_room[1], 2.0, Face.WORDS),
    ):
        fitted = fit_text(text, room.width, room.height, most, mono=face is Face.PRINTED_BOLD)
        if fitted is not None:  # what it is for is on its label too: a card has its tag, and its numbers
            shapes += text_marks(fitted, room, face, key=key)
    wide = _cell(card)
    for side, top, marked in ((Side.TOP, y, body.y + 2.9), (Side.BOTTOM, body.bottom, body.bottom - 1.1)):
        pins = card.at(side)
        left = x + (width - wide * len(pins)) / 2
        for place, pin in enumerate(pins):
            cell = Rect(left + place * wide, top, wide, HIGH)
            pin_key = PinKey(PinRef(card.device, pin.marking))
            marking = fit_text(pin.marking, wide - 0.6, 2.2, 2.0, mono=True, limits=LetterLimits(1.2)) or FittedText(
                (pin.marking,), 1.2
            )
            shapes += text_marks(
                marking, Rect(cell.x, marked - 2.1, wide, 2.2), Face.PRINTED, key=pin_key, role="second"
            )
            if pin.number:
                shapes.append(box(cell, "line", 0.2, "card", pin_key, "label"))
                number = fit_text(pin.number, wide - 0.8, HIGH - 0.8, 3.2, mono=True)
                if number is None:
                    shapes.append(Line(cell.x, cell.y, cell.right, cell.bottom, "fails", 0.4, key=pin_key))
                else:
                    shapes += text_marks(number, cell, Face.PRINTED_BOLD, key=pin_key)
            else:
                shapes.append(Line(cell.x + 2.5, top + 3, cell.right - 2.5, top + 3, "hair", 0.3, key=pin_key))
    return shapes
