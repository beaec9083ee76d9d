"""Schedules as tables on PDF pages: columns as wide as their words, long texts folded, rows never cut."""

from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache
from itertools import groupby
from typing import Any

from riktig.core.exports.fonts import FACES, registered, runs_of
from riktig.core.exports.inks import rgb
from riktig.core.exports.schedule_model import Schedule, Value
from riktig.core.geometry import Face

__all__ = [
    "BENCH_CELL",
    "CELL",
    "beginning_of",
    "grouped",
    "joined",
    "natural_width",
    "rows_in",
    "split_table",
    "table_of",
]

CELL = 7.4
"""Type size in the cells of a schedule, points: capitals of 2 mm."""
BENCH_CELL = 9.4
"""The same of what is read at the bench at arm's length, points: capitals of 2.5 mm."""
FEW, HEADING = 16, 250
"""Rows from which a list is looked at for texts in common, and how many letters the heading of a part and the head of
its table take the room of (chosen by us)."""
TAGS = frozenset({"what", "tag"})
"""First columns whose texts can stand side by side."""
FOR_MACHINES = frozenset({"key", "id"})
"""Columns that stand in files only: stable keys."""
FILLED_BY_THE_HOUSE = frozenset({"bom", "orders"})
"""Lists with columns that stay empty until the workshop gives its purchasing table: left out on paper until then."""
FEWEST_ROWS = 3
"""So many rows at least stand on a page of a list that goes on (chosen by us)."""
PAD, LONGEST, WIDEST = 7.0, 180.0, 420.0
"""Around a text in its cell; how wide a column asks to be among other lists, and at most, points."""


def grouped(schedule: Schedule) -> list[tuple[str, Schedule]]:
    """A schedule in parts: what all rows have in common, or many rows on end, is said once, over them.

    Returns:
        What each part has in common, with its heading, and the part without those columns; the whole schedule where no
        column saves more room than headings take.
    """
    if len(schedule.rows) < FEW:
        return [("", schedule)]
    same = [
        i for i in _printed_columns(schedule) if _saved(schedule, i) > 0 and len({row[i] for row in schedule.rows}) == 1
    ]
    common = "; ".join(f"{schedule.columns[i][1]}: {_cell_text(schedule.rows[0][i])}" for i in same)
    rest = _without(schedule, schedule.rows, same)
    best = max(_printed_columns(rest), key=lambda i: _saved(rest, i), default=None)
    if best is None or _saved(rest, best) <= 0:
        return [(common, rest)]
    parts: list[tuple[str, Schedule]] = []
    for text, rows in groupby(rest.rows, key=lambda row: _cell_text(row[best])):
        heading = f"{rest.columns[best][1]}: {text or '-'}"
        parts.append(("; ".join(filter(None, (heading, common))), _without(rest, tuple(rows), [best])))
    return parts


def joined(schedule: Schedule) -> Schedule:
    """A list of parts in which those with the same texts share a row, their tags side by side.

    Only a list that it makes a quarter shorter changes; rows stand where the first of their tags stood.
    """
    if len(schedule.rows) < FEW or schedule.columns[0][0] not in TAGS:
        return schedule
    tags: dict[tuple[Value, ...], list[str]] = {}
    for tag, *texts in schedule.rows:
        tags.setdefault(tuple(texts), []).append(_cell_text(tag))
    if len(tags) > len(schedule.rows) * 3 / 4:
        return schedule
    return replace(schedule, rows=tuple((", ".join(dict.fromkeys(of)), *texts) for texts, of in tags.items()))


def _saved(schedule: Schedule, column: int) -> float:
    """How many letters it saves to say a column over each run of rows that have it in common; negative for none."""
    texts = [_cell_text(row[column]) for row in schedule.rows]
    heads = [text for text, _ in groupby(texts)]
    if not any(texts):
        return -1.0  # to be written in by hand
    return sum(map(len, texts)) - sum(map(len, heads)) - HEADING * len(heads)


def _without(schedule: Schedule, rows: Sequence[tuple[Value, ...]], columns: Sequence[int]) -> Schedule:
    shown_columns = [i for i in range(len(schedule.columns)) if i not in columns]
    return replace(
        schedule,
        columns=tuple(schedule.columns[i] for i in shown_columns),
        rows=tuple(tuple(row[i] for i in shown_columns) for row in rows),
    )


def table_of(
    schedule: Schedule, width: float, *, cell: float = CELL, common: str = "", among: Sequence[Schedule] = ()
) -> Any:
    """A schedule as a table of a width.

    Args:
        schedule: The schedule.
        width: Of the table, points.
        cell: The type size, points.
        common: What all its rows have in common: said over them, on every page.
        among: The parts that it is one of, with the same columns: all of them get the same widths.

    Returns:
        A table of ReportLab; its head is repeated where it goes on.
    """
    from reportlab.lib.styles import ParagraphStyle
    from reportlab.platypus import LongTable, Paragraph, TableStyle

    registered()
    plain = ParagraphStyle("cell", fontName=FACES[Face.WORDS], fontSize=cell, leading=cell + 2)
    bold = ParagraphStyle("head", parent=plain, fontName=FACES[Face.BOLD])
    shown = _printed_columns(schedule)
    whole = replace(schedule, rows=tuple(row for part in among or (schedule,) for row in part.rows))
    widths = _widths(whole, shown, width, cell)

    def put(text: str, style: Any, room: float) -> Any:
        """A text that stands in its cell as it is needs no paragraph: a third of the time of one that is folded."""
        runs = runs_of(text, style.fontName)
        if len(runs) <= 1 and (not runs or runs[0][0] == style.fontName) and _run(text, style.fontName, cell) <= room:
            return text
        return Paragraph(_safe(text, style), style)

    rows: list[list[Any]] = [[put(schedule.columns[i][1], bold, w - PAD) for i, w in zip(shown, widths, strict=True)]]
    rows += [
        [put(_cell_text(row[i]), plain, w - PAD) for i, w in zip(shown, widths, strict=True)] for row in schedule.rows
    ]
    heads = 1
    if common:
        rows.insert(0, [Paragraph(_safe(common, plain), plain), *[""] * (len(shown) - 1)])
        heads = 2
    style = TableStyle(
        [
            *([("SPAN", (0, 0), (-1, 0))] if common else []),
            ("FONT", (0, heads - 1), (-1, heads - 1), bold.fontName, cell, cell + 2),
            ("FONT", (0, heads), (-1, -1), plain.fontName, cell, cell + 2),
            ("LINEBELOW", (0, heads - 1), (-1, heads - 1), 0.6, rgb("second")),
            ("LINEBELOW", (0, heads), (-1, -1), 0.25, rgb("hair")),
            ("VALIGN", (0, 0), (-1, -1), "TOP"),
            ("LEFTPADDING", (0, 0), (-1, -1), 2),
            ("RIGHTPADDING", (0, 0), (-1, -1), 4),
            ("TOPPADDING", (0, 0), (-1, -1), 1),
            ("BOTTOMPADDING", (0, 0), (-1, -1), 1.5),
        ]
    )
    table = LongTable(rows, widths, style=style, repeatRows=heads)
    table.wrap(width, 1e6)
    # ReportLab works the heights out again whenever a table, or a piece of it, is asked how high it is.
    table._argH = list(table._rowHeights)
    return table


def natural_width(schedule: Schedule, *, cell: float = CELL) -> float:
    """How wide a schedule would be with no text folded but the long ones, points."""
    wants = [_wanted(schedule, i, cell) for i in _printed_columns(schedule)]
    return sum(wants)


def split_table(table: Any, width: float, height: float) -> tuple[Any | None, Any | None]:
    """What of a table stands in a height, and what goes on; neither is a row or two alone.

    Returns:
        The first part, None where nothing of it fits, and the rest, None where all of it fits.
    """
    _, needed = table.wrap(width, height)
    if needed <= height:
        return table, None
    pieces = table.split(width, height)
    if len(pieces) < 2:
        return None, table
    first, rest = pieces[0], pieces[1]
    short = FEWEST_ROWS + 1 - rows_in(rest)
    if short > 0 and rows_in(first) > 2 * FEWEST_ROWS:
        less = sum(first._rowHeights[-short:])
        again = table.split(width, sum(first._rowHeights) - less + 0.1)
        if len(again) == 2:
            first, rest = again
    return first, rest


def beginning_of(table: Any, width: float) -> float:
    """How high the head and the first rows of a table are: less than that stands nowhere alone, points."""
    table.wrap(width, 1e6)
    return float(sum(table._rowHeights[: table.repeatRows + FEWEST_ROWS]))


def rows_in(table: Any) -> int:
    """The rows of a table with its head."""
    return int(table._nrows)


def _printed_columns(schedule: Schedule) -> list[int]:
    keys = {key for key, _ in schedule.columns}
    left_out = FOR_MACHINES | ({"mm2"} if "size" in keys else set())  # a size says its section
    if schedule.name == "practice":
        left_out |= {"field"}
    if schedule.name in FILLED_BY_THE_HOUSE:
        left_out |= {key for i, (key, _) in enumerate(schedule.columns) if all(row[i] == "" for row in schedule.rows)}
    return [i for i, (key, _) in enumerate(schedule.columns) if key not in left_out]


@lru_cache(maxsize=50_000)
def _run(text: str, font: str, cell: float) -> float:
    from reportlab.pdfbase.pdfmetrics import stringWidth

    return float(stringWidth(text, font, cell))


def _wanted(schedule: Schedule, column: int, cell: float, most: float = LONGEST) -> float:
    """How wide its longest text is; a heading may stand on two lines."""
    font = FACES[Face.BOLD]
    registered()
    heading = schedule.columns[column][1]
    texts = {_cell_text(row[column]) for row in schedule.rows}
    widest = max((_run(text, font, cell) for text in texts), default=0.0)
    words = max(_run(word, font, cell) for word in heading.split() or [""])
    return min(max(widest, words, _run(heading, font, cell) * 0.6) + PAD, most)


def _widths(schedule: Schedule, shown: Sequence[int], width: float, cell: float) -> list[float]:
    """Column widths: the longest word always fits; what is left goes where texts are long."""
    font = FACES[Face.BOLD]
    least, wants = [], []
    for i in shown:
        texts = {schedule.columns[i][1], *(_cell_text(row[i]) for row in schedule.rows)}
        words = {word for text in texts for word in text.split()} or {""}
        least.append(max(_run(word, font, cell) for word in words) + PAD)
        wants.append(_wanted(schedule, i, cell, WIDEST))
    spare = width - sum(least)
    if spare <= 0:
        return [width * length / sum(least) for length in least]
    # The columns that ask for little get it; those with long texts share what is left.
    widths = list(least)
    order = sorted(range(len(shown)), key=lambda n: wants[n] - least[n])
    for place, n in enumerate(order):
        extra = min(wants[n] - least[n], spare / (len(order) - place))
        widths[n] += extra
        spare -= extra
    return [column + spare / len(widths) for column in widths]


def _cell_text(value: object) -> str:
    if isinstance(value, float):
        return f"{value:g}"
    return "" if value is None else str(value)


def _safe(text: str, style: Any) -> str:
    """Text for a cell, with what the face lacks marked for the fallback."""
    out = []
    for font, part in runs_of(text, style.fontName):
        part = part.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;")
        out.append(part if font == style.fontName else f'<font name="{font}">{part}</font>')
    return "".join(out)
