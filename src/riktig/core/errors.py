"""What can go wrong, sorted by who can do something about it.

A broken rule of the design is a finding (``riktig.core.rules``): data, never raised.
``RiktigError`` is for what the user can act on; ``Cancelled`` (in ``work``) for what the user
stopped; anything else is a bug and reaches the one handler of the window.
"""

from collections.abc import Sequence
from dataclasses import dataclass

__all__ = ["ImpossibleValueError", "InputFault", "RiktigError"]


@dataclass(frozen=True, slots=True)
class InputFault:
    """One thing that is wrong in an input: where it stands and what to do about it."""

    where: str
    message: str
    hint: str = ""

    def __str__(self) -> str:
        text = f"{self.where}: {self.message}" if self.where else self.message
        return f"{text} {self.hint}".strip()


class RiktigError(Exception):
    """Something the user can act on.

    Args:
        message: What happened, and what it means for the panel.
        hint: What to do next.
        where: The place: a path, a line of a file, ``$.circuits[2]``.
        faults: All the single faults, when there are several.
    """

    def __init__(self, message: str, *, hint: str = "", where: str = "", faults: Sequence[InputFault] = ()) -> None:
        super().__init__(message)
        self.message = message
        self.hint = hint
        self.where = where
        self.faults = tuple(faults)

    def __str__(self) -> str:
        head = f"{self.where}: {self.message}" if self.where else self.message
        lines = [f"{head} {self.hint}".strip()]
        lines += [f"  {fault}" for fault in self.faults]
        return "\n".join(lines)


class ImpossibleValueError(RiktigError, ValueError):
    """A value that the document cannot hold, such as a supply of minus 400 V.

    Raised where a document type is made. It is a ``ValueError`` too, so that the reader of files can add
    the place to it; any other ``ValueError`` is a fault of the program.
    """
