"""What is left over from earlier jobs and lies on the shelf."""

from dataclasses import dataclass

from riktig.core.errors import ImpossibleValueError

__all__ = ["Offcut"]


@dataclass(frozen=True, slots=True)
class Offcut:
    """A length on the shelf: of what (as the cut list calls it), how long, mm, and what is written on it.

    Raises:
        ValueError: no stock, or a length that cannot be.
    """

    stock: str
    length: float
    mark: str = ""

    def __post_init__(self) -> None:
        if not self.stock.strip():
            raise ImpossibleValueError("an offcut needs to be of something")
        if not 1 <= self.length <= 10_000:
            raise ImpossibleValueError(f"an offcut of {self.length:g} mm cannot be kept")
