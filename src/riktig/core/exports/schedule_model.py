"""A derived list as a table with stable keys."""

from dataclasses import dataclass

__all__ = ["Schedule", "Value"]

Value = str | float | int | None


@dataclass(frozen=True, slots=True)
class Schedule:
    """A table: its name, title, columns as (key, heading), and rows in column order."""

    name: str
    title: str
    columns: tuple[tuple[str, str], ...]
    rows: tuple[tuple[Value, ...], ...]

    def as_dicts(self) -> list[dict[str, Value]]:
        """Rows as mappings by key."""
        keys = [key for key, _ in self.columns]
        return [dict(zip(keys, row, strict=True)) for row in self.rows]
