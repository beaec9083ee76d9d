"""A step under voltage or a setting, with what must then be so."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import inf

from riktig.core.ids import PinRef
from riktig.core.job import CircuitId
from riktig.core.proving.tests import ProvingStage

__all__ = ["DEAD_V", "LiveStep", "dead_at"]

DEAD_V = 5.0
"""No more than this is dead, read with a tester that loads the point (chosen by us)."""


@dataclass(frozen=True, slots=True)
class LiveStep:
    """One step: what is done, what must then be so, and, where something is measured, its bounds and unit.

    ``trimmed`` asks for the value as found and as left. Of a step of a function test ``circuit`` and ``number`` say
    whose script it is in, and where, from 1; ``points`` are those behind a switch that was closed, with its voltage.
    """

    key: str
    stage: ProvingStage
    title: str
    done: str
    expected: tuple[str, ...]
    low: float | None = None
    high: float | None = None
    unit: str = ""
    trimmed: bool = False
    circuit: CircuitId | None = None
    number: int = 0
    points: tuple[PinRef, PinRef] | None = None

    @property
    def true_of(self) -> str:
        """What a record of it is true of: when it changes, the step is made again."""
        return f"{self.done} → {', '.join(self.expected)}"

    def passes(self, value: float) -> bool:
        """Whether a measured value is as expected."""
        return (self.low if self.low is not None else -inf) <= value <= (self.high if self.high is not None else inf)


def dead_at(key: str, title: str, before: str, points: Sequence[str]) -> LiveStep:
    """A step that looks whether points are dead, read one after the other; the highest voltage is what counts.

    Args:
        key: Its key.
        title: Its title.
        before: How everything is switched.
        points: What is measured, as it is called on the panel: “2 of K1 to PE”.
    """
    highest = ", the highest" if len(points) > 1 else ""
    words = f"{before}: measure {', '.join(points)}{highest}"
    expected = (f"dead, below {DEAD_V:g} V",)
    return LiveStep(key, ProvingStage.ENERGISE, title, words, expected, 0.0, DEAD_V, "V")
