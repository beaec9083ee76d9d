"""What the purchasing desk knows of a line of the parts list: order number, supplier, price, stock, lead time."""

from dataclasses import dataclass
from math import isfinite

from riktig.core.errors import ImpossibleValueError

__all__ = ["MOST_PRICE", "Purchase"]

MOST_PRICE, MOST_STOCK, MOST_DAYS = 10_000_000.0, 10_000_000.0, 2_000
"""What no part of a panel costs, no shop has on its shelf, and nobody waits for (chosen by us)."""


@dataclass(frozen=True, slots=True)
class Purchase:
    """One line of the workshop's purchasing table.

    ``item`` is a part of the parts list by its name or by its description. ``price`` is for one piece or one metre,
    ``stock`` what lies on the shelf, in the unit of the parts list; None where the table does not say.

    Raises:
        ValueError: no item, or a figure that cannot be.
    """

    item: str
    order_number: str = ""
    supplier: str = ""
    price: float | None = None
    stock: float | None = None
    lead_days: int | None = None

    def __post_init__(self) -> None:
        if not self.item.strip():
            raise ImpossibleValueError("a line of a purchasing table needs a part")
        for value, most, what in (
            (self.price, MOST_PRICE, "price"),
            (self.stock, MOST_STOCK, "stock"),
            (self.lead_days, MOST_DAYS, "lead time"),
        ):
            if value is not None and not (isfinite(value) and 0 <= value <= most):
                raise ImpossibleValueError(f"a {what} of {value:g} cannot be")
