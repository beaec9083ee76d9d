"""The surface at true size on the office printer: sheets to be glued together, holes to be punched through."""

from bisect import bisect_right
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from pathlib import Path

from riktig.core.errors import ImpossibleValueError, RiktigError
from riktig.core.exports.pdf import PaperSheet as Paper
from riktig.core.exports.pdf import SetHead, write_shapes
from riktig.core.geometry import Align, Circle, Drawing, Face, Line, Point, Rect, Shape, Text
from riktig.core.holes import Hole, HoleSurface
from riktig.core.keys import HoleKey, PartKey
from riktig.core.plate import box
from riktig.core.plate.outlines import dashed

__all__ = ["CHECK_MM", "PRINT_TOLERANCE", "Template", "Tile", "check_bar", "template_of", "write_template"]

MARGIN, FOOT = 10.0, 22.0
"""What printers leave white, and what the foot of a sheet takes for its number, bar and map, mm (chosen by us)."""
OVERLAP = 8.0
"""How much of its neighbours each sheet shows past its cut lines, to glue on, mm (chosen by us)."""
CHECK_MM = 100.0
PRINT_TOLERANCE = 0.3
"""Of the check bar, mm (chosen by us: half a millimetre over 170 mm of sheet is what a rule shows)."""


@dataclass(frozen=True, slots=True)
class Tile:
    """One sheet: its place in the grid from 1, what it shows of the surface, and the holes that are on it."""

    row: int
    column: int
    part: Rect
    holes: tuple[Hole, ...]

    @property
    def name(self) -> str:
        """“B3”: second row, third column."""
        return f"{chr(ord('A') + self.row - 1)}{self.column}"


@dataclass(frozen=True, slots=True)
class Template:
    """A surface cut into sheets of paper; every hole is on exactly one of them."""

    sheet: HoleSurface
    paper: tuple[float, float]
    tiles: tuple[Tile, ...]
    xs: tuple[float, ...]
    ys: tuple[float, ...]

    def tile_of(self, hole: Hole) -> Tile:
        """The sheet a hole is on."""
        return next(tile for tile in self.tiles if hole in tile.holes)


def template_of(sheet: HoleSurface, holes: Sequence[Hole], paper: Paper = Paper.A4) -> Template:
    """Cuts a surface into sheets of paper, upright or across, whichever takes fewer.

    The cuts between sheets run where they go through no hole, if there is such a place.

    Args:
        sheet: The surface.
        holes: The holes.
        paper: The size of the paper.

    Returns:
        The sheets, in reading order, with the holes on each.

    Raises:
        RiktigError: a hole lies outside the surface, so that no sheet would have it.
    """
    on_sheet = [hole for hole in holes if hole.face == sheet.name]
    for hole in on_sheet:
        if not sheet.rect.holds(hole.at):
            raise RiktigError(
                f"The hole {hole.number} for {hole.purpose} lies outside the {sheet.name}, so no template was made.",
                hint="Move it onto the surface, then print again.",
            )
    across, down = paper.size
    best: Template | None = None
    for size in ((across, down), (down, across)):
        room = (size[0] - 2 * (MARGIN + OVERLAP), size[1] - 2 * (MARGIN + OVERLAP) - FOOT)
        xs = _cuts(sheet.width, room[0], [(h.outline.x, h.outline.right) for h in on_sheet])
        ys = _cuts(sheet.height, room[1], [(h.outline.y, h.outline.bottom) for h in on_sheet])
        made = Template(sheet, size, _tiles(xs, ys, on_sheet), xs, ys)
        if best is None or len(made.tiles) < len(best.tiles):
            best = made
    assert best is not None
    return best


def _cuts(length: float, room: float, spans: Sequence[tuple[float, float]]) -> tuple[float, ...]:
    """Where one way is cut: as few pieces as there must be, through no hole where that can be."""
    count = max(int(-(-length // room)), 1)
    cuts: list[float] = [0.0]
    for left in range(count, 1, -1):
        most = cuts[-1] + room
        least = max(length - (left - 1) * room, cuts[-1] + 1.0)
        even = cuts[-1] + (length - cuts[-1]) / left
        steps = max(int((most - least) // 0.5) + 1, 1)
        choices = [least + 0.5 * n for n in range(steps)]
        clear = [x for x in choices if not any(a < x < b for a, b in spans)]
        nearest = min(clear or choices, key=lambda x: abs(x - even))
        cuts.append(round(nearest, 2))
    return (*cuts, length)


def _tiles(xs: Sequence[float], ys: Sequence[float], holes: Sequence[Hole]) -> tuple[Tile, ...]:
    where: dict[tuple[int, int], list[Hole]] = {}
    for hole in holes:
        column = min(max(bisect_right(xs, hole.x), 1), len(xs) - 1)
        row = min(max(bisect_right(ys, hole.y), 1), len(ys) - 1)
        where.setdefault((row, column), []).append(hole)
    return tuple(
        Tile(
            row,
            column,
            Rect(xs[column - 1], ys[row - 1], xs[column] - xs[column - 1], ys[row] - ys[row - 1]),
            tuple(where.get((row, column), ())),
        )
        for row in range(1, len(ys))
        for column in range(1, len(xs))
    )


def tile_shapes(template: Template, tile: Tile) -> tuple[Shape, ...]:
    """What is on one sheet, in mm from its upper left corner."""
    part = tile.part
    origin = Point(MARGIN + OVERLAP, MARGIN + OVERLAP)
    shown = part.grown(OVERLAP)
    shapes: list[Shape] = []

    def at(x: float, y: float) -> Point:
        return Point(x - part.x + origin.x, y - part.y + origin.y)

    shapes += _edges(template.sheet.rect, shown, at, "outline")
    for other in template.tiles:
        for hole in other.holes:
            if hole.is_cut_out:
                # One that is larger than a sheet goes on over its neighbours, without a number there.
                shapes += _edges(hole.outline, shown, at, "hole")
    shapes += _register(template, tile, at)
    for hole in tile.holes:
        shapes += _hole(hole, at(hole.x, hole.y))
    if tile.row == tile.column == 1:
        corner = at(0.0, 0.0)
        shapes.append(Text(corner.x + 2, corner.y + 5, "datum", 2.4, "fails", Face.BOLD))
    return (*shapes, *_foot(template, tile))


def _edges(rect: Rect, shown: Rect, at: Callable[[float, float], Point], layer: str) -> list[Shape]:
    """As much of a rectangle's edges as a sheet shows."""
    shapes: list[Shape] = []
    for (ax, ay), (bx, by) in (
        ((rect.x, rect.y), (rect.right, rect.y)),
        ((rect.right, rect.y), (rect.right, rect.bottom)),
        ((rect.x, rect.bottom), (rect.right, rect.bottom)),
        ((rect.x, rect.y), (rect.x, rect.bottom)),
    ):
        x1, x2 = max(ax, shown.x), min(bx, shown.right)
        y1, y2 = max(ay, shown.y), min(by, shown.bottom)
        if x1 <= x2 and y1 <= y2:
            a, b = at(x1, y1), at(x2, y2)
            shapes.append(Line(a.x, a.y, b.x, b.y, "ink", 0.5 if layer == "outline" else 0.35, layer=layer))
    return shapes


def _register(template: Template, tile: Tile, at: Callable[[float, float], Point]) -> list[Shape]:
    """Cut lines with crosses where sheets meet, each with its place from the datum: the same on every sheet."""
    part = tile.part
    shapes: list[Shape] = []
    inner_x, inner_y = template.xs[1:-1], template.ys[1:-1]
    for x in (part.x, part.right):
        if x in inner_x:
            a, b = at(x, part.y), at(x, part.bottom)
            shapes.append(Line(a.x, a.y, b.x, b.y, "third", 0.2, dashed=True, layer="cut"))
    for y in (part.y, part.bottom):
        if y in inner_y:
            a, b = at(part.x, y), at(part.right, y)
            shapes.append(Line(a.x, a.y, b.x, b.y, "third", 0.2, dashed=True, layer="cut"))
    for x in (part.x, part.right):
        for y in (part.y, part.bottom):
            if x in inner_x or y in inner_y:
                c = at(x, y)
                shapes += [
                    Line(c.x - 5, c.y, c.x + 5, c.y, "ink", 0.25, layer="register"),
                    Line(c.x, c.y - 5, c.x, c.y + 5, "ink", 0.25, layer="register"),
                    Circle(c.x, c.y, 2.5, "ink", 0.25, layer="register"),
                    Text(c.x + 1.0, c.y - 5.6, f"{x:g}, {y:g}", 1.8, "second", face=Face.PRINTED, layer="register"),
                ]
    return shapes


def _hole(hole: Hole, c: Point) -> list[Shape]:
    reach = max(hole.drill / 2 + 2.0, 4.0)
    shapes: list[Shape] = []
    if hole.is_cut_out:
        reach = 6.0
    else:
        shapes.append(Circle(c.x, c.y, hole.drill / 2, "ink", 0.35, layer="hole", key=HoleKey(hole.number)))
    tap = f" {hole.tap}" if hole.tap else ""
    text = hole.size if hole.is_cut_out else f"⌀{hole.drill:g}{tap}"
    return [
        *shapes,
        Line(c.x - reach, c.y, c.x + reach, c.y, "ink", 0.2, layer="hole"),
        Line(c.x, c.y - reach, c.x, c.y + reach, "ink", 0.2, layer="hole"),
        Text(c.x + reach + 0.5, c.y - 0.8, hole.number, 2.6, face=Face.PRINTED_BOLD),
        Text(c.x + reach + 0.5, c.y + 3.0, text, 2.1, "second", Face.PRINTED),
    ]


def _foot(template: Template, tile: Tile) -> list[Shape]:
    """The bar to check the print with, the sheet's number, and a map of all sheets with this one filled."""
    width, height = template.paper
    y = height - MARGIN - 3
    x = MARGIN + OVERLAP
    shapes: list[Shape] = [
        Line(x, y, x + CHECK_MM, y, "ink", 0.4, layer="check"),
        *(
            Line(x + mm, y - (4 if mm % 50 == 0 else 2), x + mm, y, "ink", 0.3, layer="check")
            for mm in range(0, int(CHECK_MM) + 1, 10)
        ),
        Text(
            x,
            y - 6,
            f"This bar measures {CHECK_MM:.2f} mm. If not, do not drill: print at 100 %, without fitting to the page.",
            2.0,
        ),
    ]
    rows, columns = len(template.ys) - 1, len(template.xs) - 1
    cell = min(12.0 / rows, 24.0 / columns, 5.0)
    left, top = width - MARGIN - OVERLAP - columns * cell, height - MARGIN - 3 - rows * cell
    for row in range(rows):
        for column in range(columns):
            is_here = (row + 1, column + 1) == (tile.row, tile.column)
            cell_rect = Rect(left + column * cell, top + row * cell, cell, cell)
            shapes.append(box(cell_rect, "second", 0.2, "second" if is_here else "", layer="map"))
    name = f"{template.sheet.name}, sheet {tile.name} of {rows * columns}"
    shapes.append(Text(left - 3, height - MARGIN - 3, name, 2.8, face=Face.BOLD, align=Align.RIGHT))
    return shapes


def write_template(path: Path, head: SetHead, templates: Sequence[Template], *, bare: bool = False) -> None:
    """Writes templates as one PDF at true size, sheet by sheet.

    Args:
        path: Where it is written; an existing file is replaced.
        head: What stands at the head of every page.
        templates: The templates, a few sheets each.
        bare: Also the sheets without holes; without them the others are laid by the places at their crosses.

    Raises:
        OSError: the file cannot be written.
    """
    pages: list[tuple[tuple[float, float], tuple[Shape, ...]]] = []
    words = " · ".join(x for x in (head.number, f"revision {head.revision}", head.made) if x)
    for template in templates:
        x, y = template.paper[0] / 2, MARGIN - 2.5
        named = Text(x, y, words, 2.2, "second", align=Align.MIDDLE, layer="check")
        tiles = [tile for tile in template.tiles if bare or tile.holes]
        pages += [(template.paper, (*tile_shapes(template, tile), named)) for tile in tiles]
    write_shapes(path, head, pages)


def overview(template: Template) -> Drawing:
    """All sheets as they lie on the surface, for the screen: cut lines, names, holes."""
    sheet = template.sheet
    pad = 14.0
    shapes: list[Shape] = []
    size = max(sheet.width, sheet.height) / 45
    for tile in template.tiles:
        part = tile.part.moved(pad, pad)
        shapes.append(dashed(box(part, "act", 0.8, "panel", PartKey(f"tile {tile.name}"), "cut")))
        shapes.append(
            Text(
                part.x + size * 0.5,
                part.y + size * 1.5,
                tile.name,
                size,
                "act",
                Face.BOLD,
                key=PartKey(f"tile {tile.name}"),
            )
        )
    for tile in template.tiles:
        for hole in tile.holes:
            if hole.is_cut_out:
                shapes.append(box(hole.outline.moved(pad, pad), "ink", 0.6, key=HoleKey(hole.number)))
            else:
                shapes.append(
                    Circle(hole.x + pad, hole.y + pad, max(hole.drill / 2, 2.0), "ink", 0.6, key=HoleKey(hole.number))
                )
    return Drawing(sheet.width + 2 * pad, sheet.height + 2 * pad, tuple(shapes), f"Sheets of the {sheet.name}")


def check_bar(read_mm: float) -> tuple[bool, str]:
    """Whether a print is true: what was read on the bar, mm, and what that means.

    Raises:
        ValueError: no length at all.
    """
    if not 1.0 <= read_mm <= 1000.0:
        raise ImpossibleValueError(f"a bar of {read_mm:g} mm was not printed")
    share = read_mm / CHECK_MM
    if abs(read_mm - CHECK_MM) <= PRINT_TOLERANCE:
        return True, f"The bar reads {read_mm:g} mm: the print is true, and the sheets may be glued and punched."
    return False, (
        f"The bar reads {read_mm:g} mm: this was printed at {share:.1%} of its size, and every hole would be off. "
        "Throw these sheets away and print at 100 %, without fitting to the page."
    )
