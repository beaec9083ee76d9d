"""What the builder decides of the wires himself: the order of a potential, and clamps that take one conductor."""

from collections.abc import Iterable
from dataclasses import dataclass
from itertools import pairwise

from riktig.core.errors import ImpossibleValueError
from riktig.core.ids import PinRef, read_pin

__all__ = ["WireOrder"]


@dataclass(frozen=True, slots=True)
class WireOrder:
    """In which order the clamps of one potential are joined.

    Each of ``chains`` is a row of clamps by their text form, such as ``c2.K:13``, with a wire from each to the next. A
    chain that begins at a clamp of an earlier one splits the potential there; one that begins at a clamp of its own is
    joined to the others by a bar or a block.

    Raises:
        ValueError: a chain of fewer than two clamps, or a clamp that is reached twice.
    """

    chains: tuple[tuple[str, ...], ...]

    def __post_init__(self) -> None:
        seen: set[str] = set()
        for chain in self.chains:
            if len(chain) < 2:
                raise ImpossibleValueError("a chain of wires needs at least two clamps")
            beyond_first = chain[1:] if chain[0] in seen else chain
            if len(set(beyond_first)) != len(beyond_first) or seen & set(beyond_first):
                raise ImpossibleValueError("a clamp stands twice in one order")
            seen |= set(beyond_first)
        if not self.chains:
            raise ImpossibleValueError("an order needs at least one chain")

    @classmethod
    def of_rows(cls, rows: Iterable[tuple[str, str | None]]) -> "WireOrder":
        """The order in which every clamp is wired from another; a clamp from which nothing goes on is left out.

        Args:
            rows: Clamps, each with the clamp that it is wired from, None where a chain begins.

        Raises:
            ValueError: see the class; also when no clamp is wired from another.
        """
        chains: list[list[str]] = []
        for clamp, origin in rows:
            if origin is not None and chains and chains[-1][-1] == origin:
                chains[-1].append(clamp)
            else:
                chains.append([clamp] if origin is None else [origin, clamp])
        return cls(tuple(tuple(chain) for chain in chains if len(chain) > 1))

    @property
    def rows(self) -> tuple[tuple[str, str | None], ...]:
        """Every clamp with the clamp that it is wired from, None where a chain begins; the way back of ``of_rows``."""
        rows: dict[str, str | None] = {}
        for chain in self.chains:
            rows.setdefault(chain[0], None)
            rows |= {clamp: origin for origin, clamp in pairwise(chain)}
        return tuple(rows.items())

    @property
    def clamps(self) -> tuple[tuple[PinRef, ...], ...]:
        """The chains as pins."""
        return tuple(tuple(read_pin(text) for text in chain) for chain in self.chains)

    @property
    def pins(self) -> tuple[PinRef, ...]:
        """All clamps of it, each once, in its order."""
        return tuple(dict.fromkeys(pin for chain in self.clamps for pin in chain))
