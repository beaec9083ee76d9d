"""A circuit: a recipe with its parameters, and what the builder changed afterwards."""

from dataclasses import dataclass
from enum import Enum

from riktig.core.job.ids import CircuitId, ElementId, LoadId

__all__ = ["Change", "Circuit", "Insertable", "Inserted", "Recipe", "Removed"]


class Recipe(Enum):
    """What a circuit is made from."""

    INCOMER = "incomer"
    DIRECT_ON_LINE = "direct-on-line"


class Insertable(Enum):
    """What may be put into a control path: kept as the words shown to the builder."""

    STOP_BUTTON = "stop button on the door"
    START_BUTTON = "start button on the door"
    FIELD_CONTACT = "contact in the field, closed at rest"


@dataclass(frozen=True, slots=True)
class Inserted:
    """A contact was put in at the element ``at``: after it, or across it when ``parallel``.

    ``number`` makes the id of what is inserted; ``text`` says what it is for.
    """

    number: int
    at: ElementId
    what: Insertable
    parallel: bool
    text: str


@dataclass(frozen=True, slots=True)
class Removed:
    """An element was taken out; a path in series closes over the gap."""

    element: ElementId


Change = Inserted | Removed


@dataclass(frozen=True, slots=True)
class Circuit:
    """One circuit of the job. ``load`` is None for the incomer."""

    id: CircuitId
    recipe: Recipe
    load: LoadId | None = None
    changes: tuple[Change, ...] = ()
