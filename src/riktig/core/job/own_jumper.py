"""A plug-in jumper of a terminal strip as the builder chose it."""

from dataclasses import dataclass

from riktig.core.errors import ImpossibleValueError
from riktig.core.ids import DeviceId

__all__ = ["OwnJumper"]


@dataclass(frozen=True, slots=True)
class OwnJumper:
    """The terminals that one jumper joins, in place of the jumper that joins all of one strip and potential.

    A single terminal stands without a jumper: a wire goes to it. Terminals that no ``OwnJumper`` names are joined as
    usual. Of terminals that have come to stand in other strips, or on other potentials, each group has its own jumper.

    Raises:
        ValueError: no terminal, or one of them twice.
    """

    terminals: tuple[DeviceId, ...]

    def __post_init__(self) -> None:
        if not self.terminals or len(set(self.terminals)) != len(self.terminals):
            raise ImpossibleValueError("a jumper joins no terminal, or one of them twice")
