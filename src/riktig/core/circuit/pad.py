"""Setting trees of elements between two heights."""

from dataclasses import dataclass, field

from riktig.core.circuit.model import Branch, Element, Landing, Parallel, Series
from riktig.core.circuit.sheet_model import LINE_GAP, Seat, Wire

__all__ = ["Pad", "height_of", "leads_to", "lines_of_path", "width_of"]

BRANCH = 4.5
TERMINAL_HEIGHT = 0.4
"""A terminal in a path against a contact."""
LINE_STEP = 2.6
TAIL = 5.0
"""From an element to the pin that a path ends at, mm: room for the number of the net."""
PATH_GAP = 2 * LINE_GAP + 30.0
"""From one path of three lines to the next beside it: room for its tag."""


@dataclass(slots=True)
class Pad:
    """Collects what stands on a sheet while it is laid out."""

    seats: list[Seat] = field(default_factory=list)
    wires: list[Wire] = field(default_factory=list)
    dots: list[tuple[float, float]] = field(default_factory=list)
    landings: list[tuple[Landing, float, float]] = field(default_factory=list)

    def put(self, branch: Branch, x: float, top: float, bottom: float, step: float) -> None:
        """Sets a tree between two heights; each leaf takes ``step`` across."""
        match branch:
            case Element():
                self.seats.append(Seat(branch, x, top, bottom))
            case Landing():
                self.landings.append((branch, x, top))
                self.wires += [Wire(x + n * LINE_GAP, top, x + n * LINE_GAP, bottom) for n in range(len(branch.pins))]
            case Series(parts):
                heights = [height_of(part) for part in parts]
                unit = (bottom - top) / (sum(heights) or 1)
                y = top
                for part, height in zip(parts, heights, strict=True):
                    if isinstance(part, Landing) and len(part.pins) == 1 and part is parts[-1]:
                        self.landings.append((part, x, y + TAIL))
                        self.wires.append(Wire(x, y, x, y + TAIL))
                        continue
                    self.put(part, x, y, y + unit * height, step)
                    y += unit * height
                if not parts:
                    self.wires.append(Wire(x, top, x, bottom))
            case Parallel(parts) if lines_of_path(branch) > 1:
                self._exchanged(parts, x, top, bottom, step)
            case Parallel(parts):
                self._side_by_side(parts, x, top, bottom, step)

    def _exchanged(self, parts: tuple[Branch, ...], x: float, top: float, bottom: float, step: float) -> None:
        """Paths of several lines side by side: each line branches at a height of its own, so that none is hidden."""
        lines = lines_of_path(parts[0])
        upper, lower = top + lines * LINE_STEP, bottom - lines * LINE_STEP
        for line in range(lines):
            at = x + line * LINE_GAP
            self.wires += [Wire(at, top, at, upper), Wire(at, lower, at, bottom)]
        for index, part in enumerate(parts):
            across = x + index * PATH_GAP
            self.put(part, across, upper, lower, step)
            if not index:
                continue
            for line in range(lines):
                at, out = across + line * LINE_GAP, leads_to(part, line)
                above, below = top + (line + 0.5) * LINE_STEP, lower + (out + 0.5) * LINE_STEP
                self.wires += [
                    Wire(x + line * LINE_GAP, above, at, above),
                    Wire(at, above, at, upper),
                    Wire(at, lower, at, below),
                    Wire(x + out * LINE_GAP, below, at, below),
                ]
                self.dots += [(x + line * LINE_GAP, above), (x + out * LINE_GAP, below)]

    def _side_by_side(self, parts: tuple[Branch, ...], x: float, top: float, bottom: float, step: float) -> None:
        upper, lower = top + BRANCH, bottom - BRANCH
        self.wires += [Wire(x, top, x, upper), Wire(x, lower, x, bottom)]
        across = last = x
        for index, part in enumerate(parts):
            self.put(part, across, upper, lower, step)
            if index:
                self.wires += [Wire(last, upper, across, upper), Wire(last, lower, across, lower)]
            if 0 < index < len(parts) - 1:
                self.dots += [(across, upper), (across, lower)]
            last = across
            across += step * width_of(part)
        self.dots += [(x, upper), (x, lower)]


def height_of(branch: Branch) -> float:
    """How tall a tree is against one contact."""
    match branch:
        case Element(poles=poles):
            return TERMINAL_HEIGHT if poles[0].unit == "i-f" else 1
        case Landing():
            return 0.3
        case Series(parts):
            return sum(height_of(part) for part in parts)
        case Parallel(parts):
            return max(height_of(part) for part in parts) + 0.4


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
