"""Edits of circuits, tags and numbers."""

from dataclasses import dataclass, field, replace

from riktig.core.evaluation import Evaluation
from riktig.core.job import (
    Act,
    Change,
    CircuitId,
    DeviceId,
    ElementId,
    FoundNames,
    Insertable,
    Job,
    OwnDevice,
    OwnRung,
    Param,
    Recipe,
    set_script,
)
from riktig.core.schematic import (
    Insertion,
    add_circuit,
    add_device,
    add_rung,
    add_written,
    insert_element,
    move_element,
    name_element,
    numbers_on_paper,
    reapply_change,
    remove_circuit,
    remove_element,
    rename,
    renumber,
    rewire,
    set_param,
    tag_anew,
    take_back,
)

__all__ = [
    "AddCircuit",
    "AddDevice",
    "AddRung",
    "AddWrittenCircuit",
    "DropChange",
    "KeepPrinted",
    "MoveChange",
    "MoveElement",
    "NameElement",
    "NumberAnew",
    "PutIn",
    "RemoveCircuit",
    "RenameDevice",
    "SetParameter",
    "SetScript",
    "TagAnew",
    "TakeOut",
    "WireElsewhere",
]


@dataclass(frozen=True)
class PutIn:
    """Something after, ahead of, across or in the place of an element of a control path.

    ``to`` is the device and unit of a contact that is there: “c1.K:43-44”.
    """

    at: ElementId
    what: Insertable
    text: str = ""
    act: Act = Act.AFTER
    to: str = ""

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with it put in."""
        insertion = Insertion(self.what, self.text, self.act, self.to)
        return insert_element(evaluation.document, self.at, insertion, memory=evaluation.memory)


@dataclass(frozen=True)
class TakeOut:
    """An element out of a control path."""

    element: ElementId

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job without the element."""
        return remove_element(evaluation.document, self.element, memory=evaluation.memory)


@dataclass(frozen=True)
class MoveElement:
    """An element to after another of the same circuit."""

    element: ElementId
    after: ElementId

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the element moved."""
        return move_element(evaluation.document, self.element, self.after, memory=evaluation.memory)


@dataclass(frozen=True)
class WireElsewhere:
    """The start or the end of an element's rung to another named potential."""

    element: ElementId
    node: str
    start: bool

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the rung wired there."""
        return rewire(evaluation.document, self.element, self.node, start=self.start, memory=evaluation.memory)


@dataclass(frozen=True)
class NameElement:
    """What the device of an element is for; on the door its legend too."""

    element: ElementId
    text: str

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the device named."""
        return name_element(evaluation.document, self.element, self.text, memory=evaluation.memory)


@dataclass(frozen=True)
class MoveChange:
    """A change that lost its element, made to another one instead."""

    circuit: CircuitId
    change: Change
    element: ElementId

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the change moved."""
        return reapply_change(evaluation.document, self.circuit, self.change, self.element)


@dataclass(frozen=True)
class DropChange:
    """One change of a circuit less."""

    circuit: CircuitId
    change: Change

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job without the change."""
        return take_back(evaluation.document, self.circuit, self.change)


@dataclass(frozen=True)
class AddCircuit:
    """A circuit more that serves no load of the Brief."""

    recipe: Recipe
    title: str = ""
    params: tuple[Param, ...] = ()

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the circuit."""
        return add_circuit(evaluation.document, self.recipe, self.title, self.params)


@dataclass(frozen=True)
class RemoveCircuit:
    """A circuit less that serves no load of the Brief."""

    circuit: CircuitId

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job without the circuit."""
        return remove_circuit(evaluation.document, self.circuit)


@dataclass(frozen=True)
class SetParameter:
    """A parameter of a circuit's recipe."""

    circuit: CircuitId
    name: str
    value: str

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the parameter."""
        return set_param(evaluation.document, self.circuit, self.name, self.value)


@dataclass(frozen=True)
class AddDevice:
    """A device of the builder's own in a circuit."""

    circuit: CircuitId
    device: OwnDevice

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the device."""
        return add_device(evaluation.document, self.circuit, self.device, memory=evaluation.memory)


@dataclass(frozen=True)
class AddRung:
    """A rung of the builder's own in a circuit."""

    circuit: CircuitId
    rung: OwnRung

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the rung."""
        return add_rung(evaluation.document, self.circuit, self.rung, memory=evaluation.memory)


@dataclass(frozen=True)
class AddWrittenCircuit:
    """A whole circuit written by hand (docs/rungs.md)."""

    title: str
    devices: tuple[OwnDevice, ...]
    rungs: tuple[OwnRung, ...]
    found: FoundNames = field(default_factory=FoundNames)

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the circuit, and the names that were found on it."""
        return add_written(evaluation.document, self.title, self.devices, self.rungs, self.found)


@dataclass(frozen=True)
class RenameDevice:
    """Another tag for a device, or for the whole strip it belongs to."""

    device: DeviceId
    tag: str

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the tag."""
        return rename(evaluation.document, self.device, self.tag, memory=evaluation.memory)


@dataclass(frozen=True)
class NumberAnew:
    """Every wire number anew by the practice of now, gaps closed."""

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with new numbers."""
        return renumber(evaluation.document, memory=evaluation.memory)


@dataclass(frozen=True)
class TagAnew:
    """Every tag anew by the practice of now; the builder's own stay."""

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with new tags."""
        return tag_anew(evaluation.document, memory=evaluation.memory)


@dataclass(frozen=True)
class KeepPrinted:
    """Numbers that stand on labels or papers: out of use, they are given to nothing else. None: those of now."""

    numbers: tuple[str, ...] | None = None

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job that remembers them."""
        job = evaluation.document
        numbers = numbers_on_paper(job, memory=evaluation.memory) if self.numbers is None else self.numbers
        printed = tuple(sorted({*job.printed, *numbers}))
        return job if printed == job.printed else replace(job, printed=printed)


@dataclass(frozen=True)
class SetScript:
    """A script of the builder's own under a name; without steps it is taken away."""

    name: str
    steps: tuple[str, ...]

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the script."""
        return set_script(evaluation.document, self.name, self.steps)
