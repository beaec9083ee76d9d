"""Setting trees of elements between two heights."""

from collections.abc import Collection
from dataclasses import dataclass, field

from riktig.core.job import ElementId
from riktig.core.schematic.layout.sheet_model import LINE_GAP, DrawnLine, SheetElement
from riktig.core.schematic.model.elements import Branch, Element, Landing, Parallel, Series

__all__ = ["BRANCH", "LINE_STEP", "PATH_GAP", "BranchLayout", "height_of", "leads_to", "lines_of_path", "width_of"]

CONTACT, TERMINAL, TOUCHED = 15.0, 5.6, 4.0
"""Height of an element with its tag and pin numbers, of a terminal, and of a pin merely touched, mm."""
BRANCH = 4.0
"""From the point where paths part to where they run on side by side, mm."""
ROOMY = 1.3
"""An element grows to so many times its height; what room is left becomes a stretch of line."""
LINE_STEP = 2.6
TAIL = 5.0
"""From an element to the pin that a path ends at, mm: room for the number of the net."""
PATH_GAP = 2 * LINE_GAP + 30.0
"""From one path of three lines to the next beside it: room for its tag."""


@dataclass(slots=True)
class BranchLayout:
    """Collects what stands on a sheet while it is laid out; ``loads`` are the elements that stand in a row below."""

    loads: Collection[ElementId] = ()
    seats: list[SheetElement] = field(default_factory=list)
    wires: list[DrawnLine] = field(default_factory=list)
    dots: list[tuple[float, float]] = field(default_factory=list)
    landings: list[tuple[Landing, float, float]] = field(default_factory=list)

    def put(self, branch: Branch, x: float, top: float, bottom: float, step: float) -> None:
        """Sets a tree between two heights; each leaf takes ``step`` across."""
        match branch:
            case Element():
                room = bottom - top - CONTACT * ROOMY
                if branch.id in self.loads and room > 0 and len(branch.poles) == 1:
                    self.wires.append(DrawnLine(x, top, x, top + room))
                    top += room
                self.seats.append(SheetElement(branch, x, top, bottom))
            case Landing():
                self.landings.append((branch, x, top))
                self.wires += [
                    DrawnLine(x + n * LINE_GAP, top, x + n * LINE_GAP, bottom) for n in range(len(branch.pins))
                ]
            case Series(parts):
                self._series(parts, x, top, bottom, step)
            case Parallel(parts) if lines_of_path(branch) > 1:
                self._exchanged(parts, x, top, bottom, step)
            case Parallel(parts):
                self._side_by_side(parts, x, top, bottom, step)

    def _series(self, parts: tuple[Branch, ...], x: float, top: float, bottom: float, step: float) -> None:
        """One after the other: a load stands at the bottom, what room is left is a line ahead of it."""
        if not parts:
            self.wires += [DrawnLine(x, top, x, bottom)]
            return
        sizes = [_sizes(part) for part in parts]
        soft, hard = sum(size[0] for size in sizes), sum(size[1] for size in sizes)
        scale = max((bottom - top - hard) / (soft or 1), 0.05)
        slack = 0.0
        if scale > ROOMY and self._ends_in_load(parts[-1]) and lines_of_path(parts[-1]) == 1:
            slack = bottom - top - hard - ROOMY * soft
            scale = ROOMY
        y = top
        for part, (grows, fixed) in zip(parts, sizes, strict=True):
            last = part is parts[-1]
            if last and slack:
                self.wires.append(DrawnLine(x, y, x, y + slack))
                y += slack
            if isinstance(part, Landing) and len(part.pins) == 1 and last:
                self.landings.append((part, x, y + TAIL))
                self.wires.append(DrawnLine(x, y, x, y + TAIL))
                continue
            self.put(part, x, y, bottom if last else y + grows * scale + fixed, step)
            y += grows * scale + fixed

    def _ends_in_load(self, branch: Branch) -> bool:
        match branch:
            case Element():
                return branch.id in self.loads
            case Landing():
                return False
            case Series(parts):
                return bool(parts) and self._ends_in_load(parts[-1])
            case Parallel(parts):
                return any(self._ends_in_load(part) for part in parts)

    def _exchanged(self, parts: tuple[Branch, ...], x: float, top: float, bottom: float, step: float) -> None:
        """Paths of several lines side by side: each line branches at a height of its own, so that none is hidden."""
        lines = lines_of_path(parts[0])
        upper, lower = top + lines * LINE_STEP, bottom - lines * LINE_STEP
        for line in range(lines):
            at = x + line * LINE_GAP
            self.wires += [DrawnLine(at, top, at, upper), DrawnLine(at, lower, at, bottom)]
        for index, part in enumerate(parts):
            across = x + index * PATH_GAP
            self.put(part, across, upper, lower, step)
            if not index:
                continue
            for line in range(lines):
                at, out = across + line * LINE_GAP, leads_to(part, line)
                above, below = top + (line + 0.5) * LINE_STEP, lower + (out + 0.5) * LINE_STEP
                self.wires += [
                    DrawnLine(x + line * LINE_GAP, above, at, above),
                    DrawnLine(at, above, at, upper),
                    DrawnLine(at, lower, at, below),
                    DrawnLine(x + out * LINE_GAP, below, at, below),
                ]
                self.dots += [(x + line * LINE_GAP, above), (x + out * LINE_GAP, below)]

    def _side_by_side(self, parts: tuple[Branch, ...], x: float, top: float, bottom: float, step: float) -> None:
        upper, lower = top + BRANCH, bottom - BRANCH
        self.wires += [DrawnLine(x, top, x, upper), DrawnLine(x, lower, x, bottom)]
        across = last = x
        for index, part in enumerate(parts):
            self.put(part, across, upper, lower, step)
            if index:
                self.wires += [DrawnLine(last, upper, across, upper), DrawnLine(last, lower, across, lower)]
            if 0 < index < len(parts) - 1:
                self.dots += [(across, upper), (across, lower)]
            last = across
            across += step * width_of(part)
        self.dots += [(x, upper), (x, lower)]


def _sizes(branch: Branch) -> tuple[float, float]:
    """How tall a tree is: what grows and shrinks with the room there is, and what does not, mm."""
    match branch:
        case Element(poles=poles):
            return (TERMINAL if poles[0].unit == "i-f" else CONTACT, 0.0)
        case Landing():
            return (TOUCHED, 0.0)
        case Series(parts):
            sizes = [_sizes(part) for part in parts]
            return (sum(size[0] for size in sizes), sum(size[1] for size in sizes))
        case Parallel(parts):
            soft, hard = max((_sizes(part) for part in parts), key=sum)
            lines = lines_of_path(branch)
            return (soft, hard + 2 * (BRANCH if lines == 1 else lines * LINE_STEP))


def height_of(branch: Branch, scale: float = 1.0) -> float:
    """How tall a tree is when its elements have ``scale`` times the height that suits them, mm."""
    soft, hard = _sizes(branch)
    return soft * scale + hard


def lines_of_path(branch: Branch) -> int:
    """How many lines a tree has."""
    match branch:
        case Element(poles=poles):
            return len(poles)
        case Landing(pins=pins):
            return len(pins)
        case Series(parts) | Parallel(parts):
            return max((lines_of_path(part) for part in parts), default=1)


def leads_to(branch: Branch, line: int) -> int:
    """The line on which a path that begins on ``line`` ends."""
    match branch:
        case Element():
            return branch.leads_to(line)
        case Series(parts):
            for part in parts:
                line = leads_to(part, line)
    return line


def width_of(branch: Branch) -> int:
    """How many leaves stand side by side."""
    match branch:
        case Element() | Landing():
            return 1
        case Series(parts):
            return max((width_of(part) for part in parts), default=1)
        case Parallel(parts):
            return sum(width_of(part) for part in parts)
