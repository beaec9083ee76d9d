"""Cards for what is made ready away from the plate: the loom of a door, the neutrals of a bar, a network's cables."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from riktig.core.geometry import Align, Circle, Drawing, Face, Line, Point, Rect, Shape, Text, moved, run_of
from riktig.core.job import DeviceId
from riktig.core.keys import DeviceKey, PinKey, WireKey
from riktig.core.plate import box
from riktig.core.schematic import PinLabels
from riktig.core.standards import conductor_name
from riktig.core.wiring.bench_cards import CARD_WIDTH, LEAST
from riktig.core.wiring.draw import wire_roles
from riktig.core.wiring.loom import Loom, LoomWire
from riktig.core.wiring.network_cables import NetworkCable
from riktig.core.wiring.neutral_kits import NeutralKit

__all__ = ["loom_cards", "network_cards", "neutral_cards"]

ROW, TOP = 6.2, 30.0
PICTURE_X, PICTURE_WIDTH, PICTURE_HEIGHT = 4.0, 178.0, 92.0
"""Where the door is drawn and the most that it takes, mm."""
COLUMNS = (4.0, 96.0)
CARD_HEIGHT = 232.0
"""Of the highest card, mm."""
CABLES_ON_CARD = 8


def loom_cards(loom: Loom, tags: Mapping[DeviceId, str], labels: PinLabels) -> tuple[Drawing, ...]:
    """The cards of one door: it is drawn from behind, as it is wired, with where each wire leaves the loom.

    Args:
        loom: The loom.
        tags: The tag of each device.
        labels: What pins are called.
    """
    rows: list[LoomWire | _Further] = [*loom.over, *_door_links(loom), *_cables_over(loom, labels)]
    door, below = _door(loom, tags)
    metres = sum(item.wire.cut for item in loom.over) / 1000
    title, cards = f"Loom of the {loom.leaf.name}", list[Drawing]()
    while rows or not cards:
        top = TOP if cards else below + 10.0
        each = min(int((CARD_HEIGHT - top) / ROW), -(-len(rows) // len(COLUMNS)))
        shapes = [*_frame(top + each * ROW + 3.0, title, f"{len(loom.over)} wires over the hinge, {metres:.1f} m")]
        shapes += door if not cards else ()
        for left in COLUMNS:
            shapes += _loom_rows(rows[:each], left, top)
            rows = rows[each:]
        cards.append(Drawing(CARD_WIDTH, top + each * ROW + 3.0, tuple(shapes), title))
    return tuple(cards)


def _frame(height: float, title: str, right: str) -> Iterable[Shape]:
    yield box(Rect(0.5, 0.5, CARD_WIDTH - 1, height - 1), "line", 0.35, "card", None, "card")
    yield Text(4, 11, title, 5.6, face=Face.BOLD)
    room = CARD_WIDTH - 14 - run_of(title, mono=False) * 5.6
    size = min(3.2, room / max(run_of(right, mono=False), 1.0))
    yield Text(CARD_WIDTH - 4, 10.5, right, size, "second", align=Align.RIGHT)
    yield Line(3, 15, CARD_WIDTH - 3, 15, "hair", 0.3)


def _door(loom: Loom, tags: Mapping[DeviceId, str]) -> tuple[list[Shape], float]:
    """The part of the door that has operators, from behind, with a branch to each; and where that ends."""
    face = loom.leaf.face
    shown = [item for item in loom.over if not item.bonds] or list(loom.over)
    heights = [loom.turns_at, *(item.at.y for item in shown)]
    upper, lower = min(heights) - 60.0, max(heights) + 60.0
    factor = min(PICTURE_WIDTH / face.width, PICTURE_HEIGHT / (lower - upper))
    left = PICTURE_X + (PICTURE_WIDTH - face.width * factor) / 2

    def seen(at: Point) -> Point:
        return Point(left + (face.right - at.x) * factor, TOP + (at.y - upper) * factor)

    outline = Rect(left, TOP, face.width * factor, (lower - upper) * factor)
    hinge = seen(Point(loom.leaf.hinge_x, loom.turns_at))
    furthest = max((item.along for item in shown), default=0.0) * factor
    tip = hinge.x + (furthest if hinge.x < outline.centre.x else -furthest)
    shapes: list[Shape] = [
        Text(4, 21.5, "The door from behind, as it is wired; millimetres from the hinge", LEAST, "second"),
        box(outline, "hair", 0.3, "panel"),
        box(Rect(hinge.x - 1.0, outline.y, 2.0, outline.height), "third", 0.3, "hair"),
        Line(hinge.x, hinge.y, tip, hinge.y, "act", 1.4),
    ]
    ends = {item.door_end.pin.device: item for item in shown}
    taken: list[Rect] = []
    for device, item in ends.items():
        at, key = seen(item.at), DeviceKey(device)
        shapes.append(Line(at.x, hinge.y, at.x, at.y, "act", 0.5, key=key))
        shapes.append(Circle(at.x, at.y, 1.6, "ink", 0.3, "card", key=key))
        taken.append(Rect(at.x - 1.6, at.y - 1.6, 3.2, 3.2))
    for device, item in ends.items():
        at = seen(item.at)
        spots = (Point(at.x, at.y - 2.6), Point(at.x, at.y + 2.6 + LEAST))
        name = Text(0, 0, tags[device], LEAST, "ink", Face.PRINTED_BOLD, key=DeviceKey(device))
        shapes += _placed(name, spots, taken)
    for along, x in sorted({(item.along, seen(item.at).x) for item in ends.values()}):
        feet = tuple(Point(x, hinge.y + 1.6 + row * (LEAST + 0.7)) for row in (1, 2))
        shapes += _placed(Text(0, 0, f"{along:g}", LEAST, "second"), feet, taken)
    return shapes, outline.bottom


def _placed(text: Text, spots: Sequence[Point], taken: list[Rect]) -> list[Shape]:
    """A text by its mark, at the first spot where it lies over no other; none where there is no room."""
    width = run_of(text.text, mono=text.face is not Face.WORDS) * text.size
    beside = [
        Point(spots[0].x + side * (2.4 + width / 2), (spots[0].y + spots[-1].y - text.size) / 2 + 1.0)
        for side in (1, -1)
    ]
    for spot in (*spots, *beside):
        room = Rect(spot.x - width / 2, spot.y - text.size, width, text.size)
        if not any(min(room.overlap(other)) > 0 for other in taken):
            taken.append(room)
            return [text._replace(x=spot.x, y=spot.y, align=Align.MIDDLE, backed=True)]
    return []


def _loom_rows(part: Sequence["LoomWire | _Further"], left: float, top: float) -> Iterable[Shape]:
    heads = (
        ("wire", 6.0, False),
        ("plate", 19.0, False),
        ("door", 40.0, False),
        ("past hinge", 74.0, True),
        ("cut", 86.0, True),
    )
    for word, x, right in heads if part else ():
        yield Text(left + x, top - 3.0, word, LEAST, "second", align=Align.RIGHT if right else Align.LEFT)
    for n, item in enumerate(part):
        y = top + n * ROW
        yield box(Rect(left, y, 3.2, 3.2), "ink", 0.3, "card", None, "card")
        for mark in _loom_wire(item, y) if isinstance(item, LoomWire) else _further(item, y):
            yield moved(mark, left, 0.0)


def _loom_wire(item: LoomWire, y: float) -> Iterable[Shape]:
    key = WireKey(item.wire.key)
    body, stripe = wire_roles(item.wire.colour)
    yield Line(5.6, y + 3.9, 14, y + 3.9, "ink", 1.0, key=key)
    yield Line(5.7, y + 3.9, 13.9, y + 3.9, body, 0.7, key=key)
    if stripe:
        yield Line(8.6, y + 3.9, 11, y + 3.9, stripe, 0.7, key=key)
    yield Text(6, y + 2.9, item.wire.number, _fits(item.wire.number, 12), face=Face.PRINTED_BOLD, key=key)
    for end, x in ((item.plate_end, 19), (item.door_end, 40)):
        yield Text(x, y + 3.2, end.label, _fits(end.label, 21), face=Face.PRINTED, key=PinKey(end.pin))
    yield Text(74, y + 3.2, f"{item.beyond:.0f}", LEAST, align=Align.RIGHT, key=key)
    yield Text(86, y + 3.2, f"{item.wire.cut:g}", LEAST, face=Face.PRINTED_BOLD, align=Align.RIGHT, key=key)


def _further(item: "_Further", y: float) -> Iterable[Shape]:
    yield Text(6, y + 3.2, item.number, _fits(item.number, 12), face=Face.PRINTED_BOLD)
    yield Text(19, y + 3.2, item.text, _fits(item.text, 42), face=Face.PRINTED)
    yield Text(74, y + 3.2, item.what, LEAST, "second", align=Align.RIGHT)
    yield Text(86, y + 3.2, f"{item.length:g}", LEAST, face=Face.PRINTED_BOLD, align=Align.RIGHT)


def _fits(text: str, width: float) -> float:
    """The size of a printed text, smaller where it would run beyond its column."""
    return min(2.8, width / max(run_of(text, mono=True), 1.0))


@dataclass(frozen=True, slots=True)
class _Further:
    """A row of the card that is no wire over the hinge: its number, from where to where, what it is, its length, mm."""

    number: str
    text: str
    what: str
    length: float


def _door_links(loom: Loom) -> Iterable[_Further]:
    """The wires that stay on the door."""
    for wire in loom.links:
        yield _Further(wire.number, f"{wire.start.label} to {wire.end.label}", "stays", wire.cut)


def _cables_over(loom: Loom, labels: PinLabels) -> Iterable[_Further]:
    for cable in loom.cables:
        yield _Further("", f"{labels(cable.start)} to {labels(cable.end)}", "network", cable.length)


def neutral_cards(kits: Sequence[NeutralKit], tags: Mapping[DeviceId, str]) -> tuple[Drawing, ...]:
    """A card for each kit: the trunk at scale from the bar, with its tails.

    Args:
        kits: The kits.
        tags: The tag of each device.
    """
    cards: list[Drawing] = []
    for kit in kits:
        height = TOP + 12.0 + len(kit.tails) * 9.0
        title = f"Neutrals of {tags[kit.bar]}"
        shapes: list[Shape] = [
            *_frame(height, title, f"{kit.metres:.2f} m in one piece; {kit.metres_apart:.2f} m as wires of their own"),
            Text(
                4,
                21.5,
                f"Trunk {conductor_name(kit.mm2)} {kit.colour}, {kit.trunk:.0f} mm, and a tail at each mark",
                3.0,
            ),
        ]
        shapes += _tails(kit)
        cards.append(Drawing(CARD_WIDTH, height, tuple(shapes), title))
    return tuple(cards)


def _tails(kit: NeutralKit) -> Iterable[Shape]:
    body, _ = wire_roles(kit.colour)
    left, width, y = 8.0, 96.0, TOP
    foot = y + 4.0 + len(kit.tails) * 9.0
    scale = width / max(kit.trunk, 1.0)
    yield from _drawn(left, y, left + width, y, body, 1.8)
    yield Circle(left, y, 1.6, "ink", 0.3, "card", key=DeviceKey(kit.bar))
    for n, tail in enumerate(kit.tails, 1):
        at, row, key = left + tail.along * scale, y + n * 9.0, WireKey(tail.wire.key)
        yield from _drawn(at, y, at, row, body, 1.0)
        yield from _drawn(at, row, 108.0, row, body, 1.0)
        yield box(Rect(110.5, row - 1.6, 3.2, 3.2), "ink", 0.3, "card", key, "card")
        yield Text(116, row + 1.2, f"{tail.wire.number}", 3.0, face=Face.PRINTED_BOLD, key=key)
        yield Text(128, row + 1.2, tail.end.label, 3.0, face=Face.PRINTED, key=PinKey(tail.end.pin))
        text = f"at {tail.along:.0f}, tail {tail.length:.0f} mm"
        yield Text(CARD_WIDTH - 4, row + 1.2, text, LEAST, "second", align=Align.RIGHT, key=key)
    yield Text(
        left, foot + 6.0, "Millimetres from the bar. The trunk carries what all its tails may carry.", LEAST, "second"
    )


def _drawn(x1: float, y1: float, x2: float, y2: float, role: str, width: float) -> Iterable[Shape]:
    yield Line(x1, y1, x2, y2, "ink", width + 0.4)
    yield Line(x1, y1, x2, y2, role, width)


def network_cards(cables: Sequence[NetworkCable], labels: PinLabels) -> tuple[Drawing, ...]:
    """The cables of the network in the order in which they are laid, port by port.

    Args:
        cables: All of them.
        labels: What pins are called.
    """
    parts = [cables[at : at + CABLES_ON_CARD] for at in range(0, len(cables), CABLES_ON_CARD)]
    cards: list[Drawing] = []
    for n, part in enumerate(parts):
        height = TOP + len(part) * 12.0
        inside = sum(cable.inside for cable in cables)
        right = f"{inside} ready made in the panel, {len(cables) - inside} outside, measured there"
        shapes: list[Shape] = [*_frame(height, "Cables of the network", right)]
        for row, cable in enumerate(part):
            y = TOP - 6.0 + row * 12.0
            shapes += _hop(cable, n * CABLES_ON_CARD + row + 1, y, labels)
        cards.append(Drawing(CARD_WIDTH, height, tuple(shapes), "Cables of the network"))
    return tuple(cards)


def _hop(cable: NetworkCable, number: int, y: float, labels: PinLabels) -> Iterable[Shape]:
    yield box(Rect(4, y + 1.2, 3.6, 3.6), "ink", 0.3, "card")
    yield Text(12, y + 4.6, str(number), 3.6, "third", Face.BOLD)
    for pin, x in ((cable.start, 20.0), (cable.end, 96.0)):
        yield box(Rect(x, y - 0.6, 34.0, 7.2), "ink", 0.35, "part", PinKey(pin), "card")
        label = labels(pin)
        yield Text(
            x + 17, y + 4.4, label, _fits(label, 30), face=Face.PRINTED_BOLD, align=Align.MIDDLE, key=PinKey(pin)
        )
    yield Line(54, y + 3.0, 96, y + 3.0, "act", 1.2, dashed=not cable.inside)
    length = f"{cable.length / 1000:g} m" if cable.inside else "measured on site"
    yield Text(75, y + 1.6, length, LEAST, align=Align.MIDDLE, backed=True)
    if cable.route is not None:
        text = "by " + " ".join(cable.route.ducts) + (", over the hinge" if cable.route.via_door else "")
        yield Text(134, y + 4.4, text, LEAST, "second")
