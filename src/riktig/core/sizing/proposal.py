"""The proposal: everything sized from the Brief, before a circuit is drawn."""

from dataclasses import dataclass
from functools import partial

from riktig.core.catalogue import first_of_kind
from riktig.core.evaluation import KeyedCache, Memory
from riktig.core.job import Enclosure, Load, LoadId, Override, Practice, Signal, Source, Start, Supply
from riktig.core.sizing.control import Control, size_control
from riktig.core.sizing.heat import Heat, size_heat
from riktig.core.sizing.incoming import Incoming, size_incoming
from riktig.core.sizing.issues import InputIssue, issues_of
from riktig.core.sizing.neutrals import with_shared_neutrals
from riktig.core.sizing.starter import LoadProposal, size_load
from riktig.core.sizing.value import Basis, Value
from riktig.core.standards import Why, rule

__all__ = ["Proposal", "basis_of", "propose"]

END_STOPS = 19.0
"""Two end stops of a strip, mm (common practice, no source)."""


@dataclass(frozen=True, slots=True)
class Proposal:
    """What Riktig proposes for the job, load by load and for the panel as a whole."""

    loads: tuple[LoadProposal, ...]
    incoming: Incoming
    control: Control
    heat: Heat
    shared: tuple[Value, ...]
    issues: tuple[InputIssue, ...]
    space: float
    strayed: tuple[Override, ...]
    """Values of the builder's own that no longer find what they were for."""

    @property
    def panel_values(self) -> tuple[Value, ...]:
        """The values of the panel as a whole, in the order they are shown."""
        return (*self.incoming.values, *self.shared, *self.control.values, *self.heat.values)

    @property
    def values(self) -> tuple[Value, ...]:
        """Every value."""
        return tuple(value for load in self.loads for value in load.values) + self.panel_values

    def value(self, key: str) -> Value | None:
        """The value with a key."""
        return next((value for value in self.values if value.key == key), None)

    def of_load(self, load: LoadId) -> LoadProposal | None:
        """What is proposed for a load."""
        return next((load_proposal for load_proposal in self.loads if load_proposal.load == load), None)

    @property
    def shortfall(self) -> tuple[Value, ...]:
        """Values that are not enough."""
        return tuple(value for value in self.values if value.shortfall)

    @property
    def unsure(self) -> tuple[Value, ...]:
        """Values that a figure we are not sure of decided."""
        return tuple(value for value in self.values if value.unsure)


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


def propose(brief: Brief, memory: Memory | None = None) -> Proposal:
    """Sizes the whole job. Nothing is refused: what cannot stand is among the input issues and shortfalls.

    Args:
        brief: What the Brief says.
        memory: What was sized of single loads before; without it the same, only slower.

    Returns:
        All values with their whys.
    """
    kept: KeyedCache[LoadProposal] = (memory or Memory()).memo(LoadProposal, "sized load")
    loads, signals = brief.loads, brief.signals
    basis, grouped = basis_of(loads, brief.supply, brief.practice, brief.enclosure, brief.overrides)
    sized = tuple(kept.get(load.id, (load, basis), partial(size_load, load, basis)) for load in loads)
    control = size_control(loads, sized, signals, basis)
    incoming = size_incoming(loads, sized, control.line_a, basis)
    sized = with_shared_neutrals(loads, sized, incoming.on_line, basis)
    space = _space(sized, control, incoming)
    parts_w = sum(load_proposal.loss_w for load_proposal in sized) + control.loss_w
    heat = size_heat(parts_w, space, _strip(loads), basis)
    shared = (grouped,) if len(loads) > 1 else ()
    made = Proposal(
        sized,
        incoming,
        control,
        heat,
        shared,
        issues_of(loads, signals, brief.sources, brief.sources_asked, basis),
        round(space, 1),
        (),
    )
    keys = {value.key for value in made.values if value.overridden}
    strayed = tuple(override for override in brief.overrides if override.key not in keys)
    if not strayed:
        return made
    return Proposal(sized, incoming, control, heat, shared, made.issues, made.space, strayed)


def _space(sized: tuple[LoadProposal, ...], control: Control, incoming: Incoming) -> float:
    """Rail that everything but the terminals takes, mm."""
    switch = next((v for v in incoming.values if v.key == "panel.main_switch"), None)
    isolator = first_of_kind("isolator", at_least=switch.amount if switch else 0.0).width
    return sum(load_proposal.space for load_proposal in sized) + control.space + isolator


def _strip(loads: tuple[Load, ...]) -> float:
    """Length of all terminals, mm: those of each load and of the supply, with their end stops."""
    cores = sum(2 * load.phases + 1 if load.start is Start.STAR_DELTA else load.phases + 2 for load in loads)
    return (cores + 5) * first_of_kind("terminal").width + (len(loads) + 1) * END_STOPS
