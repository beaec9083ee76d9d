"""What all wires of a panel follow from."""

from dataclasses import dataclass

from riktig.core.door import DoorPlan
from riktig.core.job import Enclosure, Join, OwnJumper, Practice, Supply, WireOrder
from riktig.core.plate import Layout
from riktig.core.schematic import Circuits, Names, Nets
from riktig.core.sizing import Sizing

__all__ = ["WiringInputs"]


@dataclass(frozen=True, slots=True, eq=False)
class WiringInputs:
    """What all wires of a panel follow from."""

    circuits: Circuits
    nets: Nets
    names: Names
    sizing: Sizing
    layout: Layout
    door: DoorPlan
    enclosure: Enclosure
    practice: Practice
    supply: Supply
    joins: tuple[Join, ...] = ()
    """What the builder joined to blocks."""
    orders: tuple[WireOrder, ...] = ()
    one_conductor: tuple[str, ...] = ()
    jumpers: tuple[OwnJumper, ...] = ()
