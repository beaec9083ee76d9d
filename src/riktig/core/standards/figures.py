"""A published figure and what stands behind it; and the explanation of a value."""

from dataclasses import dataclass

__all__ = ["COMMON_PRACTICE", "Figure", "Why"]

COMMON_PRACTICE = "common practice, no source"


@dataclass(frozen=True, slots=True)
class Figure:
    """One figure out of a table. All are quoted from memory: compare them with the print."""

    value: float
    source: str
    confidence: str

    @property
    def sure(self) -> bool:
        """Whether we recall it clearly."""
        return self.confidence.startswith("sure")


@dataclass(frozen=True, slots=True)
class Why:
    """Why a value is what it is.

    Args:
        title: The value, as “Why 8.5 A”.
        reason: In words.
        lines: The formula with its numbers, a line each.
        source: Table or clause and edition, or “common practice, no source”.
        confidence: Of the figures used: “sure”, “fairly sure” or “unsure”.
    """

    title: str
    reason: str
    lines: tuple[str, ...] = ()
    source: str = COMMON_PRACTICE
    confidence: str = "sure"
