"""The panel as an inspector walks it: supply, main switch, bars, branches and loads, door, earth and plates."""

from collections import Counter, defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from riktig.core.catalogue import Can
from riktig.core.door import DoorPlan
from riktig.core.geometry import Align, Circle, Drawing, Face, Line, Rect, Shape, Text, run_of
from riktig.core.ids import CircuitId, DeviceId, circuit_of, device_of_element
from riktig.core.job import INCOMER_ID
from riktig.core.keys import CircuitKey, DeviceKey, ElementKey, Key, NetKey, PartKey, PinKey, WireKey
from riktig.core.plate import box
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.schematic import Circuits, Device, Names, Zone
from riktig.core.wiring import Wiring

__all__ = ["circuit_at", "draw_walk", "group_key", "group_of_key"]

WIDE, GAP, MARGIN = 37.0, 3.0, 5.0
"""A box, the room between two and around all, mm (chosen by us: eight beside each other fill a window)."""
COLUMNS = 8
HEAD, TALL = 17.0, 25.0
LINE = 4.6
"""Height of a box of the walk and of a branch, mm."""
SIGNS = {Verdict.FAILS: "✗", Verdict.JUDGE: "?", Verdict.MEETS: "✓"}
ROLES = {Verdict.FAILS: "fails", Verdict.JUDGE: "judgement", Verdict.MEETS: "meets"}
LETTER = 3.4
ONE_LINE = 16
"""Letters that fit beside each other in a box (chosen by us)."""
_PREFIX = "clauses "


def group_key(group: Group) -> PartKey:
    """What stands for a group of clauses in the picture."""
    return PartKey(_PREFIX + group.value)


def group_of_key(key: Key | None) -> Group | None:
    """The group that a mark of the picture stands for; None for any other."""
    if isinstance(key, PartKey) and key.name.startswith(_PREFIX):
        return Group(key.name.removeprefix(_PREFIX))
    return None


def circuit_at(key: Key | None, wiring: Wiring) -> CircuitId | None:
    """The circuit that a finding is about; None where it is about the panel as a whole.

    Args:
        key: Where the finding is.
        wiring: All wires: each belongs to a circuit.
    """
    match key:
        case DeviceKey():
            return circuit_of(key.device)
        case PinKey():
            return circuit_of(key.pin.device)
        case NetKey():
            return circuit_of(key.net.device)
        case ElementKey():
            return circuit_of(device_of_element(key.element))
        case CircuitKey():
            return key.circuit
        case WireKey():
            wire = wiring.by_key.get(key.wire)
            return wire.circuit if wire else None
    return None


def draw_walk(
    results: Sequence[ClauseResult], circuits: Circuits, names: Names, wiring: Wiring, door: DoorPlan
) -> Drawing:
    """The picture: the groups of clauses along the walk with their verdicts, each circuit with what was found there.

    Args:
        results: The judgement of every clause.
        circuits: All devices of the job.
        names: Their tags.
        wiring: All wires.
        door: The door with its operators.
    """
    painter = _Painter(names.tag)
    top = painter.walk(results, door)
    bottom = painter.branches(circuits, _by_circuit(results, wiring), top)
    width = 2 * MARGIN + COLUMNS * (WIDE + GAP) - GAP
    return Drawing(width, bottom + MARGIN, tuple(painter.shapes), "Walk through the panel")


def _by_circuit(results: Sequence[ClauseResult], wiring: Wiring) -> Mapping[CircuitId, list[Finding]]:
    by_circuit: dict[CircuitId, list[Finding]] = defaultdict(list)
    for result in results:
        for finding in result.findings:
            circuit = circuit_at(finding.where, wiring)
            if circuit is not None:
                by_circuit[circuit].append(finding)
    return by_circuit


@dataclass
class _Painter:
    tags: Mapping[DeviceId, str]
    shapes: list[Shape] = field(default_factory=list)

    def walk(self, results: Sequence[ClauseResult], door: DoorPlan) -> float:
        """The groups of clauses from left to right, joined by the way one walks; gives where it ends."""
        for number, group in enumerate(Group):
            x = MARGIN + number * (WIDE + GAP)
            counts = Counter(result.verdict for result in results if result.group is group)
            rect, key = Rect(x, MARGIN, WIDE, HEAD), group_key(group)
            self._frame(rect, counts, key)
            for row, words in enumerate(_two_lines(group.value)):
                self._words(words, x + 1.5, MARGIN + 4.6 + row * LINE, WIDE - 3.0, Face.BOLD)
            if number:
                self.shapes.append(Line(x - GAP, MARGIN + HEAD / 2, x, MARGIN + HEAD / 2, "ink", 0.6))
            at = x + 1.5
            for verdict, sign in SIGNS.items():
                if counts[verdict]:
                    text = f"{sign} {counts[verdict]}"
                    self.shapes.append(Text(at, MARGIN + HEAD - 2.0, text, 3.8, ROLES[verdict], Face.BOLD, Align.LEFT))
                    at += run_of(text, mono=False) * 3.8 + 2.5
            if group is Group.PLATE:
                self._small_door(door, Rect(x + WIDE - 12.0, MARGIN + 6.0, 10.5, HEAD - 7.5))
        return MARGIN + HEAD + 2 * GAP

    def _small_door(self, door: DoorPlan, into: Rect) -> None:
        """The door with its operators where they are, as small as a stamp."""
        if not door.face.width or not door.face.height:
            return
        scale = min(into.width / door.face.width, into.height / door.face.height)
        x, y = into.right - door.face.width * scale, into.y
        self.shapes.append(box(Rect(x, y, door.face.width * scale, door.face.height * scale), "third", 0.3, ""))
        for seat in door.seats:
            across, down = x + (seat.x - door.face.x) * scale, y + (seat.y - door.face.y) * scale
            self.shapes.append(Circle(across, down, 0.35, "third", 0.2))

    def branches(self, circuits: Circuits, findings: Mapping[CircuitId, list[Finding]], y: float) -> float:
        """The main switch and its bar, on it every circuit with its guards and its load; gives where it ends."""
        of_circuit: dict[CircuitId, list[Device]] = defaultdict(list)
        for device in circuits.devices:
            of_circuit[device.circuit].append(device)
        titles = {circuit: title for circuit, title in circuits.titles if of_circuit[circuit]}
        rows = [list(titles)[n : n + COLUMNS] for n in range(0, len(titles), COLUMNS)]
        for number, row in enumerate(rows):
            bar = y - GAP
            last = MARGIN + (len(row) - 1) * (WIDE + GAP) + WIDE / 2
            self.shapes.append(Line(MARGIN if number else MARGIN + WIDE / 2, bar, last, bar, "ink", 1.1))
            for column, circuit in enumerate(row):
                self._circuit(circuit, titles[circuit], of_circuit[circuit], findings.get(circuit, []), column, y)
            y += TALL + 2 * GAP
        if len(rows) > 1:
            first, end = MARGIN + HEAD + GAP, y - TALL - 3 * GAP
            self.shapes.append(Line(MARGIN, first, MARGIN, end, "ink", 1.1))
            self.shapes.append(Line(MARGIN, first, MARGIN + WIDE / 2, first, "ink", 1.1))
        return y - 2 * GAP

    def _circuit(
        self,
        circuit: CircuitId,
        title: str,
        devices: Sequence[Device],
        findings: Sequence[Finding],
        column: int,
        y: float,
    ) -> None:
        x = MARGIN + column * (WIDE + GAP)
        counts = Counter(finding.verdict for finding in findings)
        head = devices[0] if circuit == INCOMER_ID else next((d for d in devices if d.kind.is_protective), devices[0])
        self.shapes.append(Line(x + WIDE / 2, y - GAP, x + WIDE / 2, y, "ink", 0.5))
        self._frame(Rect(x, y, WIDE, TALL), counts, DeviceKey(head.id))
        inside = [d for d in devices if d.zone is Zone.PLATE and not d.strip and d.kind.row != "terminals"]
        outside = [d for d in devices if d.zone is Zone.FIELD] if circuit != INCOMER_ID else []
        power = [d for d in inside if d.kind.is_protective or _switches(d)]
        lines = [(words, Face.WORDS) for words in _two_lines(title)]
        if inside:
            lines.append((" ".join(self._all(power or inside)), Face.PRINTED))
        if outside:
            lines.append((f"→ {' '.join(self._all(outside))}", Face.PRINTED))
        for row, (words, face) in enumerate(lines):
            self._words(words, x + 1.5, y + 4.8 + row * LINE, WIDE - 3.0, face)
        text, role = "nothing found", "quiet"
        if counts:
            signs = [f"{SIGNS[v]} {counts[v]}" for v in (Verdict.FAILS, Verdict.JUDGE) if counts[v]]
            text, role = "  ".join(signs), ROLES[Verdict.FAILS if counts[Verdict.FAILS] else Verdict.JUDGE]
        size, bold = (3.8, Face.BOLD) if counts else (LETTER, Face.WORDS)
        self.shapes.append(Text(x + 1.5, y + TALL - 1.8, text, size, role, bold, Align.LEFT))

    def _all(self, devices: Sequence[Device]) -> list[str]:
        return list(dict.fromkeys(self.tags[device.id] for device in devices))

    def _frame(self, rect: Rect, counts: Mapping[Verdict, int], key: Key) -> None:
        """A box; its frame is as heavy as what is in it."""
        role = "fails" if counts.get(Verdict.FAILS) else "judgement" if counts.get(Verdict.JUDGE) else "third"
        self.shapes.append(box(rect, role, 0.9 if role != "third" else 0.4, "card", key))

    def _words(self, text: str, x: float, y: float, room: float, face: Face) -> None:
        """A text in one line, smaller where it is long; beyond that it ends in dots."""
        mono = face in (Face.PRINTED, Face.PRINTED_BOLD)
        size = min(LETTER, max(room / run_of(text, mono=mono), 2.9)) if text else LETTER
        while len(text) > 2 and run_of(text, mono=mono) * size > room + 1e-6:
            text = text.rstrip("…")[:-1].rstrip() + "…"
        self.shapes.append(Text(x, y, text, size, "ink", face, Align.LEFT))


def _two_lines(text: str) -> list[str]:
    """A title broken once, where its lines come out most alike."""
    words = text.split()
    if len(words) < 2 or len(text) <= ONE_LINE:
        return [text]
    cuts = [(" ".join(words[:n]), " ".join(words[n:])) for n in range(1, len(words))]
    return list(min(cuts, key=lambda lines: max(map(len, lines))))


def _switches(device: Device) -> bool:
    can = device.kind.can
    return any(map(can, (Can.MAIN_SWITCH, Can.SWITCHES_LOAD, Can.OVERLOAD, Can.VARIES_SPEED, Can.STARTS_SOFTLY,
                         Can.TRANSFORMS, Can.MAKES_DC, Can.CONTROLLER)))  # fmt: skip
