"""What the house and the builder say of labels: other words, shorter words, texts of their own, wires without one."""

from dataclasses import dataclass

from riktig.core.errors import ImpossibleValueError

__all__ = ["MOST_LINES_OF_A_LABEL", "LabelText", "LabelWord", "UnmarkedWire"]

MOST_LINES_OF_A_LABEL = 20
"""Chosen by us: a nameplate has 14."""


@dataclass(frozen=True, slots=True)
class LabelWord:
    """Words as Riktig says them, and what stands on the labels instead.

    With a ``language``, two or three letters such as “de”, it holds for jobs whose labels are in that language; without
    one it is an abbreviation, taken only where the whole text does not fit.

    Raises:
        ValueError: nothing to replace, or a language that is no code.
    """

    words: str
    instead: str
    language: str = ""

    def __post_init__(self) -> None:
        if not self.words.strip():
            raise ImpossibleValueError("a row of the table of words needs the words that it replaces")
        if self.language and not (self.language.isalpha() and self.language.islower() and len(self.language) in (2, 3)):
            raise ImpossibleValueError(f"“{self.language}” is no code of a language: use “de”, “pl”, “tr”")


@dataclass(frozen=True, slots=True)
class LabelText:
    """What a label says by the builder's word. ``label`` names it, ``was`` is what Riktig had written there then.

    Raises:
        ValueError: no reason, no text, or more lines than a label has.
    """

    label: str
    lines: tuple[str, ...]
    was: tuple[str, ...]
    reason: str

    def __post_init__(self) -> None:
        if not self.reason.strip():
            raise ImpossibleValueError("a label's own text needs a reason")
        if not any(line.strip() for line in self.lines):
            raise ImpossibleValueError("a label's own text needs words")
        if len(self.lines) > MOST_LINES_OF_A_LABEL:
            raise ImpossibleValueError(f"a label has at most {MOST_LINES_OF_A_LABEL} lines")


@dataclass(frozen=True, slots=True)
class UnmarkedWire:
    """A wire that goes without markers, by its text form: why, and who allowed it.

    Raises:
        ValueError: no reason or nobody who allowed it.
    """

    wire: str
    reason: str
    allowed_by: str

    def __post_init__(self) -> None:
        if not self.reason.strip():
            raise ImpossibleValueError("a wire without markers needs a reason")
        if not self.allowed_by.strip():
            raise ImpossibleValueError("a wire without markers needs the name of who allows it")
