"""What the builder decided otherwise than Riktig proposed."""

import math
from dataclasses import dataclass

from riktig.core.errors import ImpossibleValueError
from riktig.core.ids import LoadId

__all__ = ["Override", "load_of_value", "word_of_value"]


def load_of_value(key: str) -> LoadId | None:
    """The load that the value with a key is of: ``m1`` of ``m1.current``; None for ``panel.feeder``."""
    owner = key.partition(".")[0]
    return None if owner == "panel" else LoadId(owner)


def word_of_value(key: str) -> str:
    """What the value with a key is in a word: ``breaker`` of ``m1.breaker``."""
    return key.partition(".")[2].replace("_", " ")


@dataclass(frozen=True, slots=True)
class Override:
    """A value of the builder's own: which (``m1.breaker``), how much, and why.

    Raises:
        ValueError: not an amount above zero, or no reason.
    """

    key: str
    amount: float
    reason: str

    def __post_init__(self) -> None:
        if not (math.isfinite(self.amount) and 0 < self.amount < 1e6):
            raise ImpossibleValueError(f"{self.amount:g} cannot be used")
        if not self.reason.strip():
            raise ImpossibleValueError("a value of your own needs its reason, so that the next person can judge it")
