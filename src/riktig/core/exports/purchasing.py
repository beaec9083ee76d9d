"""The purchasing table beside the parts list: which line is which, what is short, what it costs."""

from collections.abc import Iterable, Mapping

from riktig.core.exports.schedule_model import Schedule, Value
from riktig.core.job import Purchase

__all__ = ["PURCHASE", "line_of", "purchase_cells", "purchase_summary", "shortage", "table_of"]

PURCHASE = (
    ("order_number", "Order number"),
    ("supplier", "Supplier"),
    ("price", "Price"),
    ("sum", "Sum"),
    ("stock", "On the shelf"),
    ("short", "Short"),
    ("lead_days", "Lead days"),
)
"""The columns that a purchasing table adds to the parts list."""


def table_of(purchases: Iterable[Purchase]) -> Mapping[str, Purchase]:
    """The lines by what they are of, whatever its capitals."""
    return {line.item.strip().casefold(): line for line in purchases}


def line_of(known: Mapping[str, Purchase], part: str, description: str) -> Purchase | None:
    """The line of the table that is of a line of the parts list.

    Args:
        known: As ``table_of`` gives it.
        part: The name of the part; "" where it has none.
        description: What it is.
    """
    return (known.get(part.strip().casefold()) if part else None) or known.get(description.strip().casefold())


def shortage(line: Purchase | None, needed: float) -> float:
    """What is missing on the shelf; all of it where the stock is not known.

    Args:
        line: The line of the table; None where there is none.
        needed: What the panel needs, in the unit of the parts list.
    """
    return max(needed - (line.stock or 0.0), 0.0) if line else needed


def purchase_cells(line: Purchase, needed: float) -> list[Value]:
    """The cells of ``PURCHASE`` for a line of the parts list.

    Args:
        line: The line of the table.
        needed: What the panel needs.
    """
    unknown = line.stock is None
    return [
        line.order_number,
        line.supplier,
        "" if line.price is None else line.price,
        "" if line.price is None else round(line.price * needed, 2),
        "" if line.stock is None else line.stock,
        "" if unknown else round(shortage(line, needed), 3),
        "" if line.lead_days is None else line.lead_days,
    ]


def purchase_summary(bom: Schedule, purchases: Iterable[Purchase]) -> str:
    """What a purchasing table says of a panel, in a sentence or two; "" without one.

    Args:
        bom: The parts list, with the table beside it.
        purchases: The table.
    """
    lines = tuple(purchases)
    if not lines:
        return ""
    rows = bom.as_dicts()
    wanted = {str(row[key]).strip().casefold() for row in rows for key in ("part", "description")}
    ordered = sum(bool(row["order_number"]) for row in rows)
    short = sum(isinstance(row["short"], float | int) and row["short"] > 0 for row in rows)
    text = f"{ordered} of {len(rows)} lines of the parts list have an order number; short: {short}."
    foreign = sum(line.item.strip().casefold() not in wanted for line in lines)
    if foreign:
        text += f" Lines of the table that are of nothing in this panel: {foreign}."
    late = max(rows, key=_days)
    if _days(late):
        what = late["part"] or late["description"]
        text += f" The longest lead time is {late['lead_days']} days: {what}. Order it before metal is cut."
    return text


def _days(row: Mapping[str, Value]) -> int:
    days = row["lead_days"]
    return days if isinstance(days, int) else 0
