"""Generic parts: kinds, pins, contacts, outlines, clamps, losses and ratings.

Words: a *kind* says which *pins* a part has and which *units* (contacts, coils, poles) join
them; a *part* of that kind adds sizes and ratings; a *clamp* is where a wire lands.
"""

from riktig.core.catalogue.capabilities import Can
from riktig.core.catalogue.enclosures import Box, boxes
from riktig.core.catalogue.kinds import (
    AUX_BLOCK,
    Behaviour,
    Clamp,
    Draw,
    Kind,
    Mounting,
    Pin,
    Quickness,
    Side,
    TimerSetting,
    Unit,
    is_kind,
    kind,
    kinds,
    with_aux_block,
)
from riktig.core.catalogue.letters import class_of, classes, letters_ever, letters_of
from riktig.core.catalogue.parts import (
    RAIL_HEIGHT,
    ClampData,
    HoleSpot,
    Part,
    first_of_kind,
    own_part,
    part,
    parts,
    parts_of,
    placeable_kinds,
)

__all__ = [
    "AUX_BLOCK",
    "RAIL_HEIGHT",
    "Behaviour",
    "Box",
    "Can",
    "Clamp",
    "ClampData",
    "Draw",
    "HoleSpot",
    "Kind",
    "Mounting",
    "Part",
    "Pin",
    "Quickness",
    "Side",
    "TimerSetting",
    "Unit",
    "boxes",
    "class_of",
    "classes",
    "first_of_kind",
    "is_kind",
    "kind",
    "kinds",
    "letters_ever",
    "letters_of",
    "own_part",
    "part",
    "parts",
    "parts_of",
    "placeable_kinds",
    "with_aux_block",
]
