"""Everything a clause may look at, gathered once."""

from collections.abc import Callable
from dataclasses import dataclass, field, replace
from typing import TypeVar, cast

from riktig.core.door import DoorPlan, Shaft
from riktig.core.holes import Blocker, Hole
from riktig.core.job import (
    ApprovalMarks,
    Circuit,
    DeviceId,
    DoorFix,
    Enclosure,
    Load,
    Opening,
    PinRef,
    PlateFix,
    Practice,
    Rulebook,
    Signal,
    Source,
    Supply,
    UnmarkedWire,
)
from riktig.core.labels import Labels
from riktig.core.plate import Layout
from riktig.core.schematic import CircuitFault, Circuits, Names, Nets
from riktig.core.short_circuit import PowerPaths, ShortCircuit, WireEnergy
from riktig.core.simulation import FeedFault, InputFollows, LiveNet, PressedTogether, Restart, ScriptOutcome
from riktig.core.sizing import InsideAir, Laid, Proposal, Sizing
from riktig.core.sizing.electrical import basis_of
from riktig.core.sizing.starter import in_panel
from riktig.core.standards import clause_source
from riktig.core.terminals import Strips
from riktig.core.wiring import DuctUse, Wiring

__all__ = ["View"]

T = TypeVar("T")


@dataclass(frozen=True, slots=True)
class View:
    """The panel as derived."""

    circuits: Circuits
    nets: Nets
    names: Names
    faults: tuple[CircuitFault, ...]
    proposal: Proposal
    sizing: Sizing
    layout: Layout
    door: DoorPlan
    shafts: tuple[Shaft, ...]
    inside_air: InsideAir
    holes: tuple[Hole, ...]
    blockers: tuple[Blocker, ...]
    gland_blockers: tuple[Blocker, ...]
    wiring: Wiring
    ducts: tuple[DuctUse, ...]
    strips: Strips
    labels: Labels
    live_off: tuple[LiveNet, ...]
    loads: tuple[Load, ...]
    signals: tuple[Signal, ...]
    supply: Supply
    practice: Practice
    enclosure: Enclosure
    own_circuits: tuple[Circuit, ...]
    plate_fix: PlateFix | None
    door_fix: DoorFix | None
    openings: tuple[Opening, ...]
    sources: tuple[Source, ...]
    behaviours: tuple[ScriptOutcome, ...]
    """Every circuit tried by the script of its recipe."""
    feed_faults: tuple[FeedFault, ...]
    restarts: tuple[Restart, ...]
    """Every load made to run in each of its ways, and what it does when power returns."""
    pressed_together: tuple[PressedTogether, ...]
    """Opposite buttons pressed at the same instant."""
    inputs_follow: tuple[InputFollows, ...]
    """The contacts in the field that the controller reads, each moved."""
    short_circuit: ShortCircuit
    """What the panel bears, and what the supply can give."""
    wire_energies: tuple[WireEnergy, ...]
    """What guards let through to wires."""
    power_paths: PowerPaths
    """The power circuits with the guards ahead of every part."""
    marks: ApprovalMarks
    """Which marks of approval enclosure and panel are said to carry."""
    unmarked: tuple[UnmarkedWire, ...]
    """Wires that go without markers, by somebody's permission."""
    _once: dict[object, object] = field(default_factory=dict, init=False, repr=False, compare=False)

    def once(self, compute: "Callable[[View], T]") -> T:
        """What several clauses ask of this panel, worked out at the first."""
        if compute not in self._once:
            self._once[compute] = compute(self)
        return cast("T", self._once[compute])

    def tag(self, device: DeviceId) -> str:
        """A device's tag."""
        return self.names.tag[device]

    @property
    def rulebook(self) -> Rulebook:
        """The rulebook of this job: all that most clauses ask of the practice."""
        return self.practice.rulebook

    @property
    def laid(self) -> Laid:
        """How control conductors lie in the panel: all that their currents ask of supply, practice and enclosure."""
        basis, _values = basis_of(self.loads, self.supply, self.practice, self.enclosure, ())
        return replace(in_panel(basis), control=True)

    def source(self, code: str) -> str:
        """What a clause rests on in the rulebook of this job."""
        return clause_source(code, north_american=self.rulebook.north_american)

    def pin_label(self, pin: PinRef) -> str:
        """“K1:13”."""
        device = self.circuits.device(pin.device)
        return f"{self.names.tag[device.id]}:{device.mark if device.strip else pin.marking}"
