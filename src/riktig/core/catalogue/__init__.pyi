from .capabilities import Can
from .enclosures import Box, boxes
from .insulation import Insulation, insulation_of
from .kind_model import Behaviour, Clamp, Draw, Kind, Mounting, Pin, Quickness, Side, TimerSetting, Unit
from .kind_table import AUX_BLOCK, SIGNAL_BLOCK, is_kind, kind, kinds, with_aux_block
from .letters import class_of, classes, letters_ever, letters_of
from .part_table import (
    RAIL_HEIGHT,
    ClampData,
    HoleSpot,
    Part,
    every_part_of,
    first_of_kind,
    own_part,
    part,
    parts,
    parts_of,
    placeable_kinds,
)
from .short_circuit_figures import Combination, ShortCircuitFigures, read_combinations, short_circuit_figures

__all__ = [
    "AUX_BLOCK",
    "RAIL_HEIGHT",
    "SIGNAL_BLOCK",
    "Behaviour",
    "Box",
    "Can",
    "Clamp",
    "ClampData",
    "Combination",
    "Draw",
    "HoleSpot",
    "Insulation",
    "Kind",
    "Mounting",
    "Part",
    "Pin",
    "Quickness",
    "ShortCircuitFigures",
    "Side",
    "TimerSetting",
    "Unit",
    "boxes",
    "class_of",
    "classes",
    "every_part_of",
    "first_of_kind",
    "insulation_of",
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
    "read_combinations",
    "short_circuit_figures",
    "with_aux_block",
]
