"""The electrical half of the proposal: loads, control and the supply side, from the Brief and what is drawn."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import partial

from riktig.core.catalogue import first_of_kind
from riktig.core.evaluation import KeyedCache, Memory
from riktig.core.job import Circuit, Enclosure, Load, LoadId, Override, Practice, Signal, Source, Supply
from riktig.core.schematic import Circuits, Nets
from riktig.core.sizing.control import Control, size_control
from riktig.core.sizing.drawn_loads import DrawnLoads, drawn_loads
from riktig.core.sizing.incoming import Incoming, size_incoming
from riktig.core.sizing.issues import InputIssue, issues_of
from riktig.core.sizing.neutrals import with_shared_neutrals
from riktig.core.sizing.starter import LoadProposal, size_load
from riktig.core.sizing.value import Basis, Value
from riktig.core.standards import Why, rule

__all__ = ["Brief", "ElectricalProposal", "basis_of", "propose_electrical"]


@dataclass(frozen=True, slots=True)
class ElectricalProposal:
    """What Riktig proposes for the job, load by load and for the panel as a whole, before its parts are chosen."""

    loads: tuple[LoadProposal, ...]
    incoming: Incoming
    control: Control
    shared: tuple[Value, ...]
    issues: tuple[InputIssue, ...]
    space: float
    drawn: DrawnLoads
    """What is drawn besides the loads of the Brief."""
    _by_key: Mapping[str, Value] = field(init=False, repr=False, compare=False)

    def __post_init__(self) -> None:
        object.__setattr__(self, "_by_key", {value.key: value for value in reversed(self.values)})

    @property
    def panel_values(self) -> tuple[Value, ...]:
        """The values of the panel as a whole, in the order they are shown."""
        return (*self.incoming.values, *self.shared, *self.control.values)

    @property
    def values(self) -> tuple[Value, ...]:
        """Every value."""
        return tuple(value for load in self.loads for value in load.values) + self.panel_values

    def value(self, key: str) -> Value | None:
        """The value with a key."""
        return self._by_key.get(key)

    def of_load(self, load: LoadId) -> LoadProposal | None:
        """What is proposed for a load."""
        return next((load_proposal for load_proposal in self.loads if load_proposal.load == load), None)


def basis_of(
    loads: tuple[Load, ...], supply: Supply, practice: Practice, enclosure: Enclosure, overrides: tuple[Override, ...]
) -> tuple[Basis, Value]:
    """What every sizing rests on, and how many circuits are taken to share a duct."""
    most = rule("grouped circuits")
    count = max(min(len(loads), int(most.value)), 1)
    why = Why(
        f"Why {count}",
        "Loaded circuits that lie in one duct warm each other. In a plate laid in columns no duct carries more than a "
        "few; give the true number when yours does.",
        (f"{len(loads)} loads, counted at most {most.value:g}",),
        most.source,
        most.confidence,
    )
    first = Basis(supply, practice, enclosure, overrides)
    value = first.with_override(Value("panel.grouped", "Circuits in one duct", count, "", why))
    return Basis(supply, practice, enclosure, overrides, max(round(value.amount), 1)), value


@dataclass(frozen=True, slots=True, eq=False)
class Brief:
    """What the Brief says, as far as something is sized after it."""

    loads: tuple[Load, ...]
    supply: Supply
    practice: Practice
    enclosure: Enclosure
    signals: tuple[Signal, ...]
    sources: tuple[Source, ...]
    """Supplies that arrive from elsewhere."""
    sources_asked: bool
    """Whether the builder was asked for further supplies."""
    overrides: tuple[Override, ...]
    """What the builder put in the place of proposals."""


def propose_electrical(
    brief: Brief, own: tuple[Circuit, ...], circuits: Circuits, nets: Nets, memory: Memory | None = None
) -> ElectricalProposal:
    """Sizes the loads, the control supply and the supply side. Nothing is refused: what cannot stand is said.

    Args:
        brief: What the Brief says.
        own: The circuits of the job: which of them serves which load.
        circuits: All devices and rungs of the job: coils, lamps, ways and sockets count too.
        nets: All nets of these circuits.
        memory: What was sized of single loads before; without it the same, only slower.

    Returns:
        All values with their whys.
    """
    cache: KeyedCache[LoadProposal] = (memory or Memory()).memo(LoadProposal, "sized load")
    loads, signals = brief.loads, brief.signals
    basis, grouped = basis_of(loads, brief.supply, brief.practice, brief.enclosure, brief.overrides)
    sized = tuple(cache.get(load.id, (load, basis), partial(size_load, load, basis)) for load in loads)
    by_load = {load_proposal.load: load_proposal for load_proposal in sized}
    of_circuit = {circuit.id: by_load[circuit.load] for circuit in own if circuit.load in by_load}
    drawn = drawn_loads(circuits, nets, of_circuit, brief.supply, basis.practice.transformer_v)
    control = size_control(loads, drawn, signals, basis)
    incoming = size_incoming(loads, sized, drawn.ways, control.line_a, basis)
    sized = with_shared_neutrals(loads, sized, incoming.on_line, basis)
    return ElectricalProposal(
        sized,
        incoming,
        control,
        (grouped,) if len(loads) > 1 else (),
        issues_of(loads, signals, brief.sources, brief.sources_asked, basis),
        round(_space(sized, control, incoming), 1),
        drawn,
    )


def _space(sized: tuple[LoadProposal, ...], control: Control, incoming: Incoming) -> float:
    """Rail that everything but the terminals takes, mm."""
    switch = next((v for v in incoming.values if v.key == "panel.main_switch"), None)
    isolator = first_of_kind("isolator", at_least=switch.amount if switch else 0.0).width
    return sum(load_proposal.space for load_proposal in sized) + control.space + isolator
