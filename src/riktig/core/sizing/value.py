"""A sized value with its reasons, and the place where the builder's own value wins."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace

from riktig.core.catalogue import Part
from riktig.core.ids import LoadId
from riktig.core.job import Enclosure, Override, Practice, Rulebook, Supply, load_of_value
from riktig.core.standards import Figure, Why

__all__ = ["Basis", "Value", "first_part", "weakest"]

_RANK = ("sure", "fairly sure", "unsure")


def weakest(*figures: Figure | str) -> str:
    """The least sure of what a value rests on."""
    confidences = [figure if isinstance(figure, str) else figure.confidence for figure in figures]
    return max(
        (next((r for r in reversed(_RANK) if text.startswith(r)), "unsure") for text in confidences),
        key=_RANK.index,
        default="sure",
    )


def first_part(offered: Iterable[Part], fits: Callable[[Part], bool]) -> tuple[Part, bool]:
    """The first part that fits, or the last offered and False.

    Raises:
        LookupError: nothing is offered.
    """
    last: Part | None = None
    for last in offered:
        if fits(last):
            return last, True
    if last is None:
        raise LookupError("the catalogue has no part of this kind")
    return last, False


@dataclass(frozen=True, slots=True)
class Value:
    """One sized value.

    Args:
        key: Whose and which: ``m1.current``, ``panel.feeder``.
        name: As shown: “Motor current”.
        amount: In ``unit``.
        unit: “A”, “mm²”, “V”, “VA”, “W”, “°C”, “%” or "".
        why: The reasons.
        words: What is shown instead of amount and unit, such as “13 A type D”.
        proposed: What Riktig proposed, when the builder gave another value; else None.
        reason: The builder's reason for it.
        short: What is not enough, or "".
        settable: Whether the builder may give another.
    """

    key: str
    name: str
    amount: float
    unit: str
    why: Why
    words: str = ""
    proposed: float | None = None
    reason: str = ""
    shortfall: str = ""
    settable: bool = True

    @property
    def load(self) -> LoadId | None:
        """The load that it is of; None for a value of the panel."""
        return load_of_value(self.key)

    @property
    def text(self) -> str:
        """As shown."""
        return self.words or f"{self.amount:g} {self.unit}".strip()

    @property
    def overridden(self) -> bool:
        """Whether the builder's own value stands here."""
        return self.proposed is not None

    @property
    def unsure(self) -> bool:
        """Whether a figure that we do not recall with certainty decided it."""
        return self.why.confidence.startswith("unsure")


@dataclass(frozen=True, slots=True)
class Basis:
    """What every sizing rests on: the supply, the practice, the box, and the builder's own values."""

    supply: Supply
    practice: Practice
    enclosure: Enclosure
    overrides: tuple[Override, ...] = ()
    circuits: int = 1

    @property
    def north_american(self) -> bool:
        """Whether the North American rulebook holds."""
        return self.practice.rulebook is Rulebook.UL

    def cites(self, iec: str, north_american: str) -> str:
        """The source of a figure in the rulebook of the job; both from memory."""
        return f"{north_american if self.north_american else iec}, from memory"

    def own(self, key: str) -> Override | None:
        """The builder's own value for a key."""
        return next((override for override in self.overrides if override.key == key), None)

    def with_override(self, value: Value, words: Callable[[float], str] | None = None) -> Value:
        """The value, or the builder's own in its place, marked as such with its reason."""
        own_value = self.own(value.key)
        if words:
            value = replace(value, words=words(value.amount))
        if own_value is None or not value.settable:
            return value
        why = Why(
            value.why.title,
            f"Decided by the builder: {own_value.reason} Riktig proposes {value.text}: {value.why.reason}",
            value.why.lines,
            value.why.source,
            value.why.confidence,
        )
        return replace(
            value,
            amount=own_value.amount,
            words=words(own_value.amount) if words else "",
            proposed=value.amount,
            reason=own_value.reason,
            why=why,
        )
