"""Two states of a job side by side: what is new and what is gone, as lists and as drawings."""

from collections import Counter
from collections.abc import Sequence

from riktig.core.annotation import SHEET_DRAWINGS
from riktig.core.door import DOOR_DRAWING
from riktig.core.evaluation import Evaluation
from riktig.core.exports import LISTS, Schedule, schedule
from riktig.core.geometry import Arc, Circle, Drawing, Line, Poly, Shape, Text
from riktig.core.job import Job
from riktig.core.wiring import PLATE_DRAWING

__all__ = ["COMPARED", "compare_drawings", "compare_jobs", "draw_compared"]

COMPARED = (
    "loads", "signals", "sources", "practice", "bom", "wires", "terminals", "cables", "labels", "holes", "cuts",
    "operators", "sizing", "findings",
)  # fmt: skip
"""The lists that are compared; all others say the same in another order."""
AT_MOST = 5_000


def compare_jobs(before: Evaluation[Job], after: Evaluation[Job], names: Sequence[str] = COMPARED) -> Schedule:
    """Every row that is new, gone or changed, list by list.

    A row that is gone and a new one with the same first cell are one that has changed.

    Args:
        before: Of the earlier job.
        after: Of the later job.
        names: Which lists.
    """
    rows: list[tuple[str, str, str, str]] = []
    for name in names:
        rows += _of_list(name, schedule(name, before), schedule(name, after))
    columns = (("list", "List"), ("change", "Change"), ("before", "Before"), ("after", "After"))
    return Schedule("comparison", "What has changed", columns, tuple(rows[:AT_MOST]))


def _of_list(name: str, old: Schedule, new: Schedule) -> list[tuple[str, str, str, str]]:
    if name not in LISTS:
        raise KeyError(name)
    was, now = Counter(old.rows), Counter(new.rows)
    gone, added = list((was - now).elements()), list((now - was).elements())
    rows: list[tuple[str, str, str, str]] = []
    for row in gone:
        same = next((other for other in added if row and other and other[0] == row[0] and row[0] != ""), None)
        if same is None:
            rows.append((new.title, "gone", _row_words(row), ""))
        else:
            added.remove(same)
            before, after = _differing(old, row, same)
            rows.append((new.title, "changed", before, after))
    return rows + [(new.title, "new", "", _row_words(row)) for row in added]


def _row_words(row: Sequence[object]) -> str:
    return ", ".join(_cell(value) for value in row if value not in ("", None))


def _cell(value: object) -> str:
    return f"{value:g}" if isinstance(value, float) else str(value)


def _differing(table: Schedule, old: Sequence[object], new: Sequence[object]) -> tuple[str, str]:
    """What a row was and is, without the cells that are alike but for the first, which names it."""
    titles = [title for _key, title in table.columns]
    apart = [n for n, (a, b) in enumerate(zip(old, new, strict=True)) if a != b]
    name = _cell(old[0])
    before = "; ".join(f"{titles[n]} {_cell(old[n]) or '–'}" for n in apart)
    after = "; ".join(f"{titles[n]} {_cell(new[n]) or '–'}" for n in apart)
    return f"{name}: {before}", f"{name}: {after}"


def compare_drawings(before: Evaluation[Job], after: Evaluation[Job]) -> tuple[Drawing, ...]:
    """Sheets, plate and door in which something is new or gone, the later with what is gone laid over it, dashed.

    Args:
        before: Of the earlier job.
        after: Of the later job.
    """
    empty = Drawing(10.0, 10.0, (), "")
    old_sheets, new_sheets = before.get(SHEET_DRAWINGS), after.get(SHEET_DRAWINGS)
    count = max(len(old_sheets), len(new_sheets))
    pairs = [
        (old_sheets[n] if n < len(old_sheets) else empty, new_sheets[n] if n < len(new_sheets) else empty)
        for n in range(count)
    ]
    pairs += [(before.get(drawn), after.get(drawn)) for drawn in (PLATE_DRAWING, DOOR_DRAWING)]
    return tuple(draw_compared(old, new) for old, new in pairs if Counter(old.shapes) != Counter(new.shapes))


def draw_compared(old: Drawing, new: Drawing) -> Drawing:
    """One drawing of two: what both have in grey, what is new in the colour of good, what is gone dashed.

    Args:
        old: The earlier.
        new: The later.
    """
    was, now = Counter(old.shapes), Counter(new.shapes)
    gone, added = was - now, now - was
    unchanged = [_in_role(mark, "second") for mark in new.shapes if mark not in added]
    words = _retold(gone, added)
    shapes = [
        *unchanged,
        *(_in_role(mark, "fails", gone=True) for mark in gone.elements()),
        *(_in_role(mark, "meets") for mark in added.elements()),
        *words,
    ]
    counts = sum((now - was).values()), sum((was - now).values())
    title = f"{new.title or old.title}: {counts[0]} marks new, {counts[1]} gone"
    return Drawing(max(old.width, new.width), max(old.height, new.height), tuple(shapes), title)


def _retold(gone: Counter[Shape], added: Counter[Shape]) -> list[Text]:
    """Texts in whose place another stands now, as “13 A → 16 A”; they are taken out of both."""
    at = {(mark.x, mark.y, mark.align): mark for mark in gone if isinstance(mark, Text)}
    retold = []
    for mark in [mark for mark in added if isinstance(mark, Text)]:
        before = at.pop((mark.x, mark.y, mark.align), None)
        if before is not None and gone[before] == added[mark] == 1:
            del gone[before], added[mark]
            retold.append(mark._replace(text=f"{before.text} → {mark.text}", role="meets"))
    return retold


def _in_role(mark: Shape, role: str, *, gone: bool = False) -> Shape:
    """A mark in another colour, without its ground; what is gone is dashed."""
    match mark:
        case Text():
            return mark._replace(role=role)
        case Line():
            return mark._replace(role=role, dashed=True) if gone else mark._replace(role=role)
        case Poly() | Circle():
            plain = mark._replace(role=role, fill="") if mark.role else mark
            return plain._replace(dashed=True) if gone and isinstance(plain, Poly) else plain
        case Arc():
            return mark._replace(role=role)
