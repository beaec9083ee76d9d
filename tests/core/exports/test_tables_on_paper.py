"""Lists on paper: what rows have in common is said once, the same of every row is still there."""

from io import BytesIO

from pypdf import PdfReader
from reportlab.pdfgen.canvas import Canvas

from riktig.core.exports.pdf_tables import grouped, joined, natural_width, table_of
from riktig.core.exports.schedule_model import Schedule, Value


def listed(*columns: str, rows: list[tuple[Value, ...]]) -> Schedule:
    return Schedule("list", "List", tuple((key, key.capitalize()) for key in columns), tuple(rows))


def test_what_all_rows_say_stands_over_them_once() -> None:
    rows: list[tuple[Value, ...]] = [(n, "stranded, class five", f"K{n}") for n in range(40)]
    ((common, part),) = grouped(listed("order", "conductor", "to", rows=rows))
    assert common == "Conductor: stranded, class five"
    assert [key for key, _ in part.columns] == ["order", "to"]
    assert part.rows == tuple((n, f"K{n}") for n in range(40))


def test_a_text_of_long_runs_heads_its_part_beside_what_all_have() -> None:
    long = "all switches are closed and the supply is not connected"
    rows: list[tuple[Value, ...]] = [(n, "IEC 60204-1 18.2.2", long + str(n // 20)) for n in range(60)]
    parts = grouped(listed("order", "source", "state", rows=rows))
    assert [common for common, _ in parts] == [f"State: {long}{n}; Source: IEC 60204-1 18.2.2" for n in range(3)]
    assert [row for _, part in parts for row in part.rows] == [(n,) for n in range(60)]


def test_a_column_for_the_pen_and_a_short_list_stay_as_they_are() -> None:
    by_hand = listed("part", "ready", rows=[(f"part {n}", "") for n in range(40)])
    assert grouped(by_hand) == [("", by_hand)]
    short = listed("part", "kit", rows=[(f"part {n}", "the same in every row, and long") for n in range(5)])
    assert grouped(short) == [("", short)]


def test_parts_with_the_same_reason_share_a_row() -> None:
    rows: list[tuple[Value, ...]] = [(f"X{n}", "T-4", f"reason {n % 3}") for n in range(18)]
    shared = joined(listed("what", "value", "reason", rows=rows))
    assert [row[2] for row in shared.rows] == ["reason 0", "reason 1", "reason 2"]
    tags = [tag for row in shared.rows for tag in str(row[0]).split(", ")]
    assert sorted(tags) == sorted(str(row[0]) for row in rows)
    alone = listed("what", "value", rows=[(f"X{n}", n) for n in range(18)])
    assert joined(alone) == alone
    wires = listed("order", "colour", rows=[(1, "black")] * 18)
    assert joined(wires) == wires, "only tags stand side by side"


def left_of(table: object, wanted: str) -> float:
    """From where a text of a table begins on a page, read back by another library."""
    written = BytesIO()
    page = Canvas(written)
    table.wrapOn(page, 400, 700)  # type: ignore[attr-defined]
    table.drawOn(page, 0, 0)  # type: ignore[attr-defined]
    page.save()
    places: list[float] = []

    def visit(text: str, cm: list[float], tm: list[float], font: object, size: float) -> None:
        if text.strip() == wanted:
            places.append(cm[4] + tm[4])

    PdfReader(written).pages[0].extract_text(visitor_text=visit)
    (place,) = places
    return place


def test_parts_of_one_list_have_their_columns_in_the_same_places() -> None:
    first = listed("tag", "text", rows=[("K1", "short")])
    second = listed("tag", "text", rows=[("K1:A1-and-a-long-tag", "longer than that of the first")])
    among = [first, second]
    aligned = left_of(table_of(first, 400, among=among), "short")
    assert aligned == left_of(table_of(second, 400, among=among), "longer than that of the first")
    assert aligned != left_of(table_of(first, 400), "short")


def test_a_heading_may_stand_on_two_lines_and_then_leaves_room() -> None:
    heading = Schedule("list", "List", (("torque", "Torque from N·m"),), ((2,),))
    assert natural_width(heading) < natural_width(listed("x" * 15, rows=[(2,)]))
