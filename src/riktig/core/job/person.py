"""Who works on a panel, and what each may do."""

from dataclasses import dataclass

from riktig.core.errors import ImpossibleValueError

__all__ = ["Person"]

LONGEST_INITIALS = 8


@dataclass(frozen=True, slots=True)
class Person:
    """Somebody of the shop.

    ``initials`` are what he types to take over the bench, ``badge`` what a scanner reads off his badge. ``builds``,
    ``inspects`` and ``signs`` are what he may do: tick work, tick the visual inspection, judge clauses.

    Raises:
        ValueError: no name, or initials that are none or have a blank.
    """

    initials: str
    name: str
    badge: str = ""
    builds: bool = True
    inspects: bool = False
    signs: bool = False

    def __post_init__(self) -> None:
        if not self.name.strip():
            raise ImpossibleValueError("a person has no name")
        if not self.initials.strip() or len(self.initials) > LONGEST_INITIALS or len(self.initials.split()) != 1:
            raise ImpossibleValueError(f"initials are one word of up to {LONGEST_INITIALS} letters")
