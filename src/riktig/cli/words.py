"""Texts of the command line: the time, cells and tables."""

from datetime import datetime

__all__ = ["cell_text", "now_text", "print_table"]


def now_text() -> str:
    """The time now, with its zone."""
    return datetime.now().astimezone().isoformat(timespec="milliseconds")


def print_table(heads: list[str], rows: list[list[str]]) -> None:
    """Prints rows under their heads, columns no wider than they can be read."""
    widths = [max(len(row[i]) for row in [heads, *rows]) for i in range(len(heads))]
    widths = [min(width, 48) for width in widths]
    for row in [heads, ["-" * width for width in widths], *rows]:
        cells = (c[:w].ljust(w) for c, w in zip(row, widths, strict=True))
        print("  ".join(cells).rstrip())


def cell_text(value: object) -> str:
    """A value as it is printed."""
    return f"{value:g}" if isinstance(value, float) else "" if value is None else str(value)
