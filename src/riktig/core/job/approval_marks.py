"""Marks of approval: that of the empty enclosure, and that of the panel as a whole."""

from dataclasses import dataclass

__all__ = ["ApprovalMarks"]


@dataclass(frozen=True, slots=True)
class ApprovalMarks:
    """What the two marks say, in the words of whoever saw them; "" where there is none, or none was looked at.

    That of the enclosure covers the empty box as it was bought. That of the panel covers the whole panel, has a number
    of its own (which no other panel has) and a date. Neither is ever proposed.
    """

    enclosure: str = ""
    panel: str = ""
    number: str = ""
    date: str = ""

    @property
    def missing(self) -> tuple[str, ...]:
        """What a mark of the panel lacks, by name; nothing where the panel has none."""
        if not (self.panel or self.number or self.date):
            return ()
        parts = (("words", self.panel), ("number", self.number), ("date", self.date))
        return tuple(name for name, said in parts if not said.strip())

    @property
    def is_same_text(self) -> bool:
        """Whether the panel is said to carry what the empty enclosure carries: one cannot stand for the other."""
        panel = " ".join(self.panel.casefold().split())
        return bool(panel) and panel == " ".join(self.enclosure.casefold().split())
