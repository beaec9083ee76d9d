"""The design document: frozen values, one file a noun. Everything else is derived from it.

Words: a *job* is one panel; a *load* is what the customer wants run; a *circuit* is made from a
*recipe* and may carry *changes*; a *placement* says where a device stands on the plate.
"""

from riktig.core.job.circuit import Act, Change, Circuit, Insertable, Recipe
from riktig.core.job.edits import (
    INCOMER_ID,
    add_load,
    change_load,
    new_job,
    remove_load,
    set_enclosure,
    set_heading,
    set_practice,
    set_supply,
)
from riktig.core.job.enclosure import Enclosure, EntrySide, HingeSide
from riktig.core.job.ids import CircuitId, DeviceId, ElementId, LoadId, PinId, pin_id
from riktig.core.job.job import Job
from riktig.core.job.load import LARGEST_KW, Load, read_current, read_power
from riktig.core.job.numbering import GivenNumber, GivenTag
from riktig.core.job.plate import Placement, PlateFix, RailFix
from riktig.core.job.practice import CHOICES, Choice, Practice
from riktig.core.job.practice_values import (
    Batching,
    Colours,
    ControlTap,
    DoorOrder,
    EarthScheme,
    Fixing,
    MarkerText,
    OverloadContact,
    Rulebook,
    RunLamp,
    ShaftFitting,
)
from riktig.core.job.record import Record
from riktig.core.job.supply import Earthing, Supply

__all__ = [
    "CHOICES",
    "INCOMER_ID",
    "LARGEST_KW",
    "Act",
    "Batching",
    "Change",
    "Choice",
    "Circuit",
    "CircuitId",
    "Colours",
    "ControlTap",
    "DeviceId",
    "DoorOrder",
    "EarthScheme",
    "Earthing",
    "ElementId",
    "Enclosure",
    "EntrySide",
    "Fixing",
    "GivenNumber",
    "GivenTag",
    "HingeSide",
    "Insertable",
    "Job",
    "Load",
    "LoadId",
    "MarkerText",
    "OverloadContact",
    "PinId",
    "Placement",
    "PlateFix",
    "Practice",
    "RailFix",
    "Recipe",
    "Record",
    "Rulebook",
    "RunLamp",
    "ShaftFitting",
    "Supply",
    "add_load",
    "change_load",
    "new_job",
    "pin_id",
    "read_current",
    "read_power",
    "remove_load",
    "set_enclosure",
    "set_heading",
    "set_practice",
    "set_supply",
]
