"""Why something in the panel is as it is, in the words of whoever chose it."""

from dataclasses import dataclass

from riktig.core.errors import ImpossibleValueError

__all__ = ["DesignReason"]


@dataclass(frozen=True, slots=True)
class DesignReason:
    """A reason, and what it is about: the text form of a key, such as ``device:c1.K`` or ``wire:c1.K:A2~XN:4``.

    ``who`` gave it, "" where that was not said.

    Raises:
        ValueError: nothing that it is about, or no reason.
    """

    thing: str
    reason: str
    who: str = ""

    def __post_init__(self) -> None:
        if not self.thing.strip():
            raise ImpossibleValueError("a design reason is about something in the panel")
        if not self.reason.strip():
            raise ImpossibleValueError("a design reason needs its words")
