"""Power sheets: the supply, the lines across, and every load hanging from them."""

from dataclasses import dataclass, field

from riktig.core.evaluation import Memory
from riktig.core.geometry import Text, bounds_of
from riktig.core.job import CircuitId, DeviceId
from riktig.core.schematic.layout.branch_layout import LINE_STEP, PATH_GAP, BranchLayout, height_of, lines_of_path
from riktig.core.schematic.layout.sheet_model import (
    FIRST_X,
    FRAME_RIGHT,
    LINE_GAP,
    Bus,
    DrawnLine,
    LevelLine,
    Sheet,
    SheetElement,
    SheetKind,
)
from riktig.core.schematic.model.elements import Band, Branch, Circuits, Element, Landing, Parallel, Rung, Series

__all__ = [
    "BELOW",
    "BUS_GAP",
    "INCOMER_X",
    "INCOMING_TOP",
    "POWER_BOTTOM",
    "SMALLEST",
    "is_bus",
    "power_sheets",
    "power_top",
]

POWER_BOTTOM = 131.0
BELOW = POWER_BOTTOM + 4
BUS_WITH_INCOMER, BUS_ALONE, BUS_GAP = 47.0, 19.0, 4.0
INCOMING_TOP = 15.0
ALL_LINES = 3
INCOMER_X = FIRST_X + 32.2
AFTER_INCOMER = 92.0
"""Where loads may begin beside the incoming supply."""
PLAIN_START = 24.0
TALLEST = 1.6
"""Elements of a chain grow to so many times the height that suits them."""
TITLES = {"held": "behind the main contactor", "in": "ahead of the main switch"}
LEFT = {1: 17.0, 2: 17.0, 3: 13.0}
"""Room for tags left of the first line, by lines."""
SMALLEST, TITLE_ROOM = 2.2, 10.3
"""The smallest size of the title beside three lines, and what a word of it may take there, mm."""
RIGHT = {1: 22.0, 2: 30.0, 3: 36.0}
"""Room from the first line to the end of the load with its protective conductor."""


@dataclass(slots=True)
class _LoadPaths:
    """One load on the lines: its paths in the order they hang on each other."""

    circuit: CircuitId
    first: Rung
    others: list[Rung] = field(default_factory=list)
    earth: Rung | None = None
    neutral: Rung | None = None
    """The neutral that goes along with three lines."""

    @property
    def rungs(self) -> tuple[Rung, ...]:
        return (self.first, *self.others, *(rung for rung in (self.neutral, self.earth) if rung))

    @property
    def lines(self) -> int:
        return max(lines_of_path(self.first.path), len(self.first.start))

    @property
    def beside(self) -> int:
        """How many paths stand beside the first."""
        if self.lines == 1:
            return 0
        widest = max((len(p.parts) for p in self.first.path.parts if isinstance(p, Parallel)), default=1) - 1
        starts = [r.start for r in self.others if len(r.start) == 3]
        return widest + sum(starts.count(start) - 1 for start in dict.fromkeys(starts))

    @property
    def width(self) -> float:
        chained = any(len(r.start) == 3 for r in self.others) and self.lines > 1
        return LEFT[self.lines] + RIGHT[self.lines] + self.beside * PATH_GAP + (6 if chained else 0) + self._for_title

    @property
    def _for_title(self) -> float:
        """What the longest word of its title takes more than there is room for right of its lines."""
        if self.lines < ALL_LINES:
            return 0.0
        words = [bounds_of(Text(0, 0, word, SMALLEST)).width for word in self.first.title.split()]
        return max(max(words, default=0.0) - TITLE_ROOM, 0.0)


def is_bus(node: str) -> bool:
    """Whether a node is one of the lines that run across power sheets."""
    return node.startswith(("main.L", "held.L", "in.L"))


def power_top(bus_y: float) -> float:
    """Where the paths of a power sheet begin, below its lines."""
    return bus_y + 2 * BUS_GAP + 7.0


def power_sheets(circuits: Circuits, memory: Memory) -> list[Sheet]:
    """The power sheets: loads by the lines they hang on, three-line ones first, as many as have room."""
    incoming = [r for r in circuits.rungs if r.band is Band.INCOMING]
    power = [r for r in circuits.rungs if r.band is Band.POWER]
    titles = dict(circuits.titles)
    count = max((len(rung.end) for rung in _of_lines(incoming)), default=ALL_LINES)
    sheets: list[Sheet] = []
    for feed in ("main", "held", "in"):
        groups = _groups([r for r in power if r.start and r.start[0].startswith(f"{feed}.L")], power)
        groups.sort(key=lambda group: -group.lines)
        if feed == "main" or groups:
            nodes = tuple(f"{feed}.L{n}" for n in range(1, count + 1))
            sheets += _filled(groups, incoming if feed == "main" else [], nodes, len(sheets), titles, memory)
    return sheets


def _of_lines(incoming: list[Rung]) -> list[Rung]:
    """The rungs of the incoming supply that are its lines, and not its neutral or its protective conductor."""
    return [rung for rung in incoming if rung.end and rung.end[0].startswith(("in.", "main."))]


def _groups(firsts: list[Rung], power: list[Rung]) -> list[_LoadPaths]:
    earths = {
        r.path.parts[-1].device: r
        for r in power
        if r.start == ("PE",) and r.path.parts and isinstance(r.path.parts[-1], Landing)
    }
    of_circuit: dict[CircuitId, list[Rung]] = {}
    for rung in power:
        of_circuit.setdefault(rung.circuit, []).append(rung)
    groups = []
    for first in firsts:
        group = _LoadPaths(first.circuit, first)
        fed = set(first.end)
        for rung in of_circuit[first.circuit]:
            local = [node for node in rung.start if not is_bus(node) and node not in ("N", "PE")]
            if rung is not first and local and set(local) <= fed:
                group.others.append(rung)
                fed |= {node for node in rung.end if node != "N"}
        for rung in (group.first, *group.others):
            for end in _ends(rung.path):
                group.earth = group.earth or earths.get(end)
        fed_devices = set(_ends(first.path))
        for rung in of_circuit[first.circuit]:
            if rung.start == ("N",) and fed_devices & set(_ends(rung.path)):
                group.neutral = rung
        groups.append(group)
    return groups


def _ends(branch: Branch) -> list[DeviceId]:
    match branch:
        case Element():
            return [branch.device]
        case Landing(device=device):
            return [device]
        case Series(parts) | Parallel(parts):
            return [end for part in parts for end in _ends(part)]


Placed = list[tuple[_LoadPaths, float]]


def _filled(
    groups: list[_LoadPaths],
    incoming: list[Rung],
    nodes: tuple[str, ...],
    before: int,
    titles: dict[CircuitId, str],
    memory: Memory,
) -> list[Sheet]:
    """Loads onto sheets: beside the incoming supply those that need no height, the others in order."""
    sheets: list[Placed] = [[]]
    ends = [AFTER_INCOMER if incoming else PLAIN_START]
    for group in groups:
        wide, low = group.width, group.beside == 0
        at = next(
            (n for n, x in enumerate(ends) if x + wide <= FRAME_RIGHT and (low or n or not incoming)), len(sheets)
        )
        if at == len(sheets):
            sheets.append([])
            ends.append(PLAIN_START)
        sheets[at].append((group, ends[at] + LEFT[group.lines]))
        ends[at] += wide
    sheets = [placed for n, placed in enumerate(sheets) if placed or (incoming and not n)]
    cache = memory.memo(Sheet, "power sheet")

    def made(number: int, placed: Placed, incoming: list[Rung]) -> Sheet:
        """The sheet, made anew only when something on it differs."""
        names = tuple(dict.fromkeys(titles.get(group.circuit, str(group.circuit)) for group, _ in placed))
        inputs = (nodes, names, tuple(incoming), tuple((group.rungs, x) for group, x in placed))
        return cache.get(number, inputs, lambda: _sheet(number, placed, incoming, nodes, names))

    return [made(before + n + 1, placed, [] if n else incoming) for n, placed in enumerate(sheets)]


def _title(incoming: bool, feed: str, names: tuple[str, ...]) -> str:
    loads = ", ".join(names)
    if incoming:
        return "Incoming supply" + (f", {loads}" if loads else "")
    return f"{loads}: power" + (f", {TITLES[feed]}" if feed in TITLES else "")


def _sheet(number: int, placed: Placed, incoming: list[Rung], names: tuple[str, ...], titles: tuple[str, ...]) -> Sheet:
    branches = BranchLayout()
    rails: list[LevelLine] = []
    bus_y = BUS_WITH_INCOMER if incoming else BUS_ALONE
    if incoming:
        _incoming(branches, incoming, rails, bus_y)
    last = INCOMER_X + 2 * LINE_GAP if incoming else FIRST_X + 21
    top = power_top(bus_y)
    for group, x in placed:
        _put_group(branches, group, x, top, rails)
        for line, node in enumerate(group.first.start):
            row = names.index(node)
            at, y = x + line * LINE_GAP, bus_y + row * BUS_GAP
            branches.wires.append(DrawnLine(at, y, at, top))
            branches.dots.append((at, y))
            last = max(last, at)
    start = INCOMER_X if incoming else FIRST_X + 21
    bus = Bus(names, start, min(last + 8, FRAME_RIGHT - 14), bus_y)
    circuits = tuple(dict.fromkeys([r.circuit for r in incoming] + [group.circuit for group, _ in placed]))
    title = _title(bool(incoming), names[0].partition(".")[0], titles)
    shown = (*incoming, *(rung for group, _ in placed for rung in group.rungs))
    return Sheet(
        number, title, SheetKind.POWER, circuits, shown, tuple(branches.seats),
        tuple(branches.wires), tuple(branches.dots), tuple(branches.landings), tuple(rails), bus,
    )  # fmt: skip


def _incoming(branches: BranchLayout, incoming: list[Rung], rails: list[LevelLine], bus_y: float) -> None:
    """The supply at the left: the lines down through terminals and main switch, neutral and earth beside them."""
    lines = _of_lines(incoming)
    path = Series(tuple(part for rung in lines for part in rung.path.parts))
    branches.put(path, INCOMER_X, INCOMING_TOP, bus_y - 2, LINE_GAP)
    first = next(iter(branches.seats), None)
    terminals = [s for s in branches.seats if s.element.poles[0].unit == "i-f"]
    if terminals:
        rails.append(LevelLine("in.L1", INCOMER_X, INCOMER_X, terminals[-1].bottom, True))
    for rung in incoming:
        if rung.end and rung.end[0] in ("N", "PE") and first:
            x = INCOMER_X + LINE_GAP * (3 if rung.end == ("N",) else 4)
            for part in rung.path.parts:
                if isinstance(part, Element):
                    branches.seats.append(SheetElement(part, x, first.top, first.bottom))
            branches.wires.append(DrawnLine(x, INCOMING_TOP + 1, x, first.top))
            if rung.end == ("N",):
                rails.append(LevelLine("N", x, x, bus_y + 3 * BUS_GAP + 3, True))


def _put_group(branches: BranchLayout, group: _LoadPaths, x: float, top: float, rails: list[LevelLine]) -> None:
    if group.lines == 1:
        _one_line(branches, group, x, top, rails)
    elif group.others:
        _chain(branches, group.first, group.others, x, top)
    else:
        branches.put(group.first.path, x, top, POWER_BOTTOM, LINE_GAP)
        if group.first.end and is_bus(group.first.end[0]):
            rails.append(LevelLine(group.first.end[0], x, x + 2 * LINE_GAP, POWER_BOTTOM, False))
    if group.neutral:
        at = x + group.lines * LINE_GAP
        terminal = next((s for s in reversed(branches.seats) if s.element.poles[0].unit == "i-f"), None)
        top_n, bottom_n = (terminal.top, terminal.bottom) if terminal else (POWER_BOTTOM - 12, POWER_BOTTOM - 6)
        for part in group.neutral.path.parts:
            if isinstance(part, Element):
                branches.seats.append(SheetElement(part, at, top_n, bottom_n))
            elif isinstance(part, Landing):
                branches.landings.append((part, at, bottom_n))
        rails.append(LevelLine("N", at, at, top_n, True))
    if group.earth:
        at = x + {1: 12.0, 2: 22.0, 3: (4.4 if group.neutral else 3.0) * LINE_GAP}[group.lines]
        for part in group.earth.path.parts:
            if isinstance(part, Element):
                branches.seats.append(SheetElement(part, at, BELOW, BELOW + 10))


def _one_line(branches: BranchLayout, group: _LoadPaths, x: float, top: float, rails: list[LevelLine]) -> None:
    """A single line down to its return; what goes on from its end hangs below it."""
    parts = list(group.first.path.parts)
    between = group.first.end
    for rung in group.others:
        parts += rung.path.parts
    end = group.others[-1].end if group.others else group.first.end
    whole = Series(tuple(parts))
    branches.put(whole, x, top, POWER_BOTTOM, LINE_GAP)
    if between and between != end:
        unit = (POWER_BOTTOM - top) / height_of(whole)
        y = top + unit * height_of(group.first.path)
        rails.append(LevelLine(between[0], x, x, y, False))
    if end:
        at = next((n for n, rail in enumerate(rails) if rail.node == end[0] and rail.y == POWER_BOTTOM), None)
        if at is None:
            rails.append(LevelLine(end[0], x, x, POWER_BOTTOM, False))
        else:
            branches.wires.append(DrawnLine(rails[at].x2, POWER_BOTTOM, x, POWER_BOTTOM))
            branches.dots += [(rails[at].x2, POWER_BOTTOM), (x, POWER_BOTTOM)]
            rails[at] = LevelLine(end[0], rails[at].x1, x, POWER_BOTTOM, False)


def _chain(branches: BranchLayout, first: Rung, others: list[Rung], x: float, top: float) -> None:
    """Power paths that go on from each other's named ends: the first goes on straight, a second beside it."""
    room = POWER_BOTTOM - top
    fixed, grown = _deepest(first, others, 0.0), _deepest(first, others, 1.0)
    unit = min((room - fixed) / max(grown - fixed, 1.0), TALLEST)
    bottom = top + height_of(first.path, unit)
    branches.put(first.path, x, top, bottom, LINE_GAP)
    ends: dict[tuple[str, ...], tuple[float, float]] = {first.end: (x, bottom)}
    taken: set[tuple[str, ...]] = set()
    farthest = x
    for rung in others:
        from_x, from_y = ends[rung.start]
        below_from = from_y + 3 * LINE_STEP
        at = from_x
        if rung.start in taken:
            farthest += PATH_GAP
            at = farthest
        for line in range(len(rung.start)):
            y = from_y + (line + 0.5) * LINE_STEP
            old, new = from_x + line * LINE_GAP, at + line * LINE_GAP
            if at == from_x:
                branches.wires.append(DrawnLine(old, from_y, old, below_from))
            else:
                branches.wires += [DrawnLine(old, y, new, y), DrawnLine(new, y, new, below_from)]
                branches.dots.append((old, y))
        taken.add(rung.start)
        below = below_from + height_of(rung.path, unit) if rung.end else POWER_BOTTOM
        branches.put(rung.path, at, below_from, below, LINE_GAP)
        if len(set(rung.end)) == 1:
            branches.wires.append(DrawnLine(at, below, at + 2 * LINE_GAP, below))
        elif rung.end:
            ends[rung.end] = (at, below)


def _deepest(rung: Rung, others: list[Rung], scale: float) -> float:
    """How far a chain of paths reaches down, mm."""
    below = [_deepest(other, others, scale) for other in others if rung.end and other.start == rung.end]
    return height_of(rung.path, scale) + (max(below) + 3 * LINE_STEP if below else 0.0)
