"""What all labels of a panel follow from."""

from collections.abc import Mapping
from dataclasses import dataclass

from riktig.core.door import DoorPlan
from riktig.core.job import CodesOn, DeviceId, LabelSheet, LabelText, Practice, Source, Supply, UnmarkedWire
from riktig.core.labels.nameplate import NameplateField
from riktig.core.plate import Layout, Piece
from riktig.core.schematic import Circuits, Names, Nets
from riktig.core.short_circuit import ShortCircuit
from riktig.core.simulation import LiveNet
from riktig.core.sizing import Sizing
from riktig.core.terminals import Strips
from riktig.core.wiring import Wiring

__all__ = ["LabelInputs"]


@dataclass(frozen=True, slots=True, eq=False)
class LabelInputs:
    """What all labels of a panel follow from."""

    circuits: Circuits
    names: Names
    wiring: Wiring
    strips: Strips
    practice: Practice
    supply: Supply
    sources: tuple[Source, ...]
    """Supplies that arrive from elsewhere."""
    fields: tuple[NameplateField, ...]
    """What the nameplate says."""
    live: tuple[LiveNet, ...]
    """What stays live with the main switch off: it is named on the warning plates."""
    settings: Mapping[DeviceId, float]
    """What dials are set to, A: it stands on the label of the device."""
    pieces: tuple[Piece, ...]
    """What is cut of rail, duct and lids: each carries its name and length."""
    short_circuit: ShortCircuit
    """What the supply can give: it stands on the plate over its terminals."""
    number: str
    """Of the job: codes begin with it."""
    sheets: tuple[LabelSheet, ...]
    """What labels are printed on, where the job says so."""
    nets: Nets
    sizing: Sizing
    layout: Layout
    door: DoorPlan
    legends: Mapping[DeviceId, tuple[str, ...]]
    """The lines of the legend of every operator."""
    texts: tuple[LabelText, ...]
    """What labels say by the builder's word."""
    unmarked: tuple[UnmarkedWire, ...]
    """Wires that go without markers."""

    def code(self, thing: str) -> str:
        """What a code of a device or a cable says, where the practice wants codes: “KS-0418/-K1”."""
        return f"{self.number}/-{thing}" if self.practice.codes is CodesOn.LABELS else ""
