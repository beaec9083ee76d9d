"""A circuit: a recipe with its parameters, and what the builder changed afterwards."""

from dataclasses import dataclass
from enum import Enum

from riktig.core.job.ids import CircuitId, ElementId, LoadId

__all__ = ["Act", "Change", "Circuit", "Insertable", "Recipe"]


class Recipe(Enum):
    """What a circuit is made from."""

    INCOMER = "incomer"
    DIRECT_ON_LINE = "direct-on-line"
    REVERSING = "direct-on-line, both ways"
    STAR_DELTA = "star-delta"
    PLANNED = "sized, not yet drawn"


class Insertable(Enum):
    """What may be put into a control path: kept as the words shown to the builder."""

    STOP_BUTTON = "stop button on the door"
    START_BUTTON = "start button on the door"
    FIELD_CONTACT = "contact in the field, closed at rest"


class Act(Enum):
    """What a change does to the element it is made to."""

    AFTER = "put in after"
    ACROSS = "put in across"
    OUT = "taken out"


@dataclass(frozen=True, slots=True)
class Change:
    """One change the builder made to what the recipe gave.

    Args:
        act: What was done.
        element: The element it was done to.
        number: Makes the id of what was put in; counts within the circuit.
        what: What was put in, None when something was taken out.
        text: What it is for.
    """

    act: Act
    element: ElementId
    number: int = 0
    what: Insertable | None = None
    text: str = ""


@dataclass(frozen=True, slots=True)
class Circuit:
    """One circuit of the job. ``load`` is None for the incomer."""

    id: CircuitId
    recipe: Recipe
    load: LoadId | None = None
    changes: tuple[Change, ...] = ()
