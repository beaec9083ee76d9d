"""Scripts of the builder's own: what is done to the whole panel, and what must then be so."""

from dataclasses import dataclass

from riktig.core.errors import ImpossibleValueError

__all__ = ["OwnScript"]


@dataclass(frozen=True, slots=True)
class OwnScript:
    """A named list of steps, each “what is done: what is then so, what is then so”, things called by their tags.

    Raises:
        ValueError: no name, or no step.
    """

    name: str
    steps: tuple[str, ...]

    def __post_init__(self) -> None:
        if not self.name.strip():
            raise ImpossibleValueError("a script needs a name")
        if not self.steps:
            raise ImpossibleValueError("a script needs a step")
