"""A terminal strip as the builder ordered it."""

from dataclasses import dataclass

from riktig.core.errors import ImpossibleValueError
from riktig.core.ids import DeviceId

__all__ = ["OwnStrip"]


@dataclass(frozen=True, slots=True)
class OwnStrip:
    """The terminals of one strip from the left; what the circuits add later to that strip stands behind them.

    ``name`` is that of a strip as practice makes it, or any other for one that was split off. ``marks`` are the
    markings of the terminals in the same order, "" where a terminal keeps its own; empty when all do.

    Raises:
        ValueError: no name, no terminal, a terminal twice, or marks for other than these terminals.
    """

    name: str
    terminals: tuple[DeviceId, ...]
    marks: tuple[str, ...] = ()

    def __post_init__(self) -> None:
        if not self.name.strip():
            raise ImpossibleValueError("a strip has no name")
        if not self.terminals or len(set(self.terminals)) != len(self.terminals):
            raise ImpossibleValueError("a strip has no terminal, or one of them twice")
        if self.marks and len(self.marks) != len(self.terminals):
            raise ImpossibleValueError("a strip has other markings than terminals")
