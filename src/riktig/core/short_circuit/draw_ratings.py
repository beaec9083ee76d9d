"""The power circuits as one line, with what each part lets the panel be connected to along it."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from riktig.core.geometry import Align, Drawing, Face, Line, Rect, Shape, Text
from riktig.core.ids import DeviceId
from riktig.core.keys import DeviceKey
from riktig.core.plate import box
from riktig.core.short_circuit.model import Limit, Rating
from riktig.core.short_circuit.power_paths import PowerPart, PowerPaths

__all__ = ["draw_ratings", "limits_by_tag"]

WIDE, TALL, GAP = 40.0, 8.0, 2.0
"""A part and the room between two, mm (chosen by us: legible when ten branches fill a window)."""
MARGIN, RISER = 6.0, 3.0
COLUMNS = 7
"""Branches beside each other (chosen by us: an A4 page across, legible)."""


@dataclass
class _Branch:
    """A guard, the parts behind it, and the guards that hang on it; the first has no guard: it is the incoming side."""

    parts: list[PowerPart] = field(default_factory=list)
    behind: "list[_Branch]" = field(default_factory=list)

    @property
    def columns(self) -> int:
        """How many columns it takes."""
        return max((sum(branch.columns for branch in row) for row in self.lines()), default=1)

    @property
    def rows(self) -> int:
        """How many rows it takes."""
        return len(self.parts) + sum(max(branch.rows for branch in row) + 1 for row in self.lines())

    def lines(self) -> "list[list[_Branch]]":
        """What hangs on it, broken into rows that a page is wide enough for."""
        rows: list[list[_Branch]] = []
        for branch in self.behind:
            if rows and sum(other.columns for other in rows[-1]) + branch.columns <= COLUMNS:
                rows[-1].append(branch)
            else:
                rows.append([branch])
        return rows


def draw_ratings(paths: PowerPaths, rating: Rating, prospective_ka: float, tags: Mapping[DeviceId, str]) -> Drawing:
    """The picture: the supply with its current on top, below it each guard with what hangs on it, and each one's limit.

    Args:
        paths: The power circuits.
        rating: What the panel bears.
        prospective_ka: What the supply can give.
        tags: The tags of devices.
    """
    root = _tree(paths, tags)
    painter = _Painter({limit.device: limit for limit in reversed(rating.limits)}, rating, prospective_ka, tags)
    painter.supply(MARGIN)
    rows = painter.incoming(root.parts, MARGIN, MARGIN + TALL)
    painter.branch(_Branch([], root.behind), MARGIN, MARGIN + TALL + rows * (TALL + GAP) + GAP)
    width = 2 * MARGIN + max(root.columns, min(len(root.parts), COLUMNS), 4) * (WIDE + GAP)
    high = rows + root.rows - len(root.parts) + 1
    return Drawing(width, 2 * MARGIN + high * (TALL + GAP), tuple(painter.shapes), "Short-circuit limits")


def _tree(paths: PowerPaths, tags: Mapping[DeviceId, str]) -> _Branch:
    branches: dict[tuple[DeviceId, ...], _Branch] = {(): _Branch()}
    seen: set[tuple[tuple[DeviceId, ...], str]] = set()
    for part in paths.parts:
        if part.is_guard:
            branches[(*part.ahead, part.id)] = _Branch([part])
    for way, branch in branches.items():
        if way:
            branches[way[:-1]].behind.append(branch)
    for part in paths.parts:
        named = (part.ahead, tags[part.id])
        if not part.is_guard and not part.is_transformer and named not in seen:  # terminals of a strip stand once
            seen.add(named)
            branches[part.ahead].parts.append(part)
    return branches[()]


class _Painter:
    def __init__(
        self, limits: Mapping[DeviceId, Limit], rating: Rating, prospective_ka: float, tags: Mapping[DeviceId, str]
    ) -> None:
        self._limits, self._rating, self._ka, self._tags = limits, rating, prospective_ka, tags
        self.shapes: list[Shape] = []

    def supply(self, x: float) -> None:
        """What arrives, and what the panel bears."""
        rating = self._rating
        bears = f"the panel bears {rating.ka:.3g} kA" if rating.ka is not None else "what the panel bears is not known"
        missing = f", {len(rating.unknown)} figures missing" if rating.unknown else ""
        words = f"Supply: {self._ka:.3g} kA at {rating.volts:g} V; {bears}{missing}"
        self.shapes.append(Text(x, MARGIN + 3.0, words, 5.0, "ink", Face.WORDS, Align.LEFT))

    def incoming(self, parts: Sequence[PowerPart], x: float, y: float) -> int:
        """What no guard of the panel protects, beside each other; gives how many rows it takes."""
        for number, part in enumerate(parts):
            row, column = divmod(number, COLUMNS)
            self._part(part, x + column * (WIDE + GAP), y + row * (TALL + GAP), line=False)
        return max((len(parts) - 1) // COLUMNS + 1, 1)

    def branch(self, branch: _Branch, x: float, y: float) -> None:
        """A branch from where its line comes in; what hangs on it stands on bars, row below row."""
        for part in branch.parts:
            self._part(part, x, y)
            y += TALL + GAP
        rows, riser = branch.lines(), x - RISER
        top = y - GAP / 2
        for row in rows:
            bar, at = y - GAP / 2, x
            for hanging in row:
                self.shapes.append(Line(at + WIDE / 2, bar, at + WIDE / 2, y, "ink", 0.5))
                last = at
                self.branch(hanging, at, y)
                at += hanging.columns * (WIDE + GAP)
            begin = riser if len(rows) > 1 else x + WIDE / 2
            self.shapes.append(Line(begin, bar, max(last, x) + WIDE / 2, bar, "ink", 0.9))
            if row is rows[-1] and len(rows) > 1:
                self.shapes.append(Line(riser, top, riser, bar, "ink", 0.9))
            y += (max(hanging.rows for hanging in row) + 1) * (TALL + GAP)

    def _part(self, part: PowerPart, x: float, y: float, *, line: bool = True) -> None:
        limit = self._limits.get(part.id)
        key, rect = DeviceKey(part.id), Rect(x, y, WIDE, TALL)
        ink, words = self._limit_words(limit)
        if line:
            self.shapes.append(Line(x + WIDE / 2, y - GAP, x + WIDE / 2, y, "ink", 0.5))
        self.shapes += [
            box(rect, ink, 0.8 if ink != "third" else 0.4, "card", key),
            Text(x + 1.5, y + 5.6, self._tags[part.id], 4.0, "ink", Face.PRINTED_BOLD, Align.LEFT),
            Text(x + WIDE - 1.5, y + 5.6, words, 3.8, ink if ink != "third" else "second", Face.WORDS, Align.RIGHT),
        ]

    def _limit_words(self, limit: Limit | None) -> tuple[str, str]:
        """The colour of a part's frame, and its limit in words: the sign tells it without colour."""
        if limit is None or limit.ka is None:
            return "judgement", "?"
        raised = f"{limit.raised_from:.3g} → " if limit.raised_from is not None else ""
        if limit.ka < self._ka:
            return "fails", f"✗ {raised}{limit.ka:.3g} kA"
        sign = "▸ " if limit.ka == self._rating.ka else ""
        return ("act" if sign else "third"), f"{sign}{raised}{limit.ka:.3g} kA"


def limits_by_tag(limits: Sequence[Limit], tags: Mapping[DeviceId, str]) -> list[Limit]:
    """One limit a tag: of the terminals of a strip the weakest stands for all.

    Args:
        limits: Of every part.
        tags: The tags of devices.
    """
    first: dict[str, Limit] = {}
    for limit in limits:
        known = first.get(tags[limit.device])
        if known is None or (known.ka is not None and (limit.ka is None or limit.ka < known.ka)):
            first[tags[limit.device]] = limit
    return list(first.values())
