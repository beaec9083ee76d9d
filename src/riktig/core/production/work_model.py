"""The work at the bench as stages and tasks, from the delivered parts to the visual inspection."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import Enum

from riktig.core.job import DoorOrder
from riktig.core.keys import Key
from riktig.core.production.ticks import Done
from riktig.core.records import Facts, Slot, slot_of

__all__ = ["NEEDS", "BuildStage", "PassedGate", "StageState", "TaskState", "WorkTask", "needs_of", "stages_in_order"]


class BuildStage(Enum):
    """The stages of building a panel, in the usual order (common practice, no source)."""

    RECEIVE = "Parts received"
    HOLES = "Mark-out and holes"
    CUT = "Rails and ducts cut"
    RAILS = "Rails and ducts fixed"
    FINGERS = "Duct fingers out"
    PARTS = "Parts mounted"
    TAGS = "Labels on parts"
    STRIPS = "Strips built"
    OPERATOR_TESTS = "Operators tested"
    OPERATORS = "Operators fitted"
    WIRES = "Wires on the plate"
    DOOR = "Door loom"
    EARTHS = "Earths"
    SUPPLY_AGAIN = "Supply retightened"
    COVERS = "Covers and lids"
    CLEAN = "Cleaning"
    INSPECTION = "Visual inspection"

    @property
    def is_wiring(self) -> bool:
        """Whether its tasks are the operations on wires."""
        return self in (BuildStage.WIRES, BuildStage.DOOR, BuildStage.EARTHS)


_S = BuildStage
NEEDS: Mapping[BuildStage, tuple[BuildStage, ...]] = {
    _S.RAILS: (_S.HOLES, _S.CUT),
    _S.FINGERS: (_S.RAILS,),
    _S.PARTS: (_S.RECEIVE, _S.RAILS),
    _S.TAGS: (_S.PARTS,),
    _S.STRIPS: (_S.RECEIVE,),
    _S.OPERATOR_TESTS: (_S.RECEIVE,),
    _S.OPERATORS: (_S.HOLES, _S.OPERATOR_TESTS),
    _S.WIRES: (_S.FINGERS, _S.PARTS, _S.TAGS, _S.STRIPS),
    _S.DOOR: (_S.OPERATORS, _S.FINGERS, _S.PARTS, _S.WIRES),
    _S.EARTHS: (_S.PARTS,),
    _S.SUPPLY_AGAIN: (_S.WIRES, _S.EARTHS),
    _S.COVERS: (_S.SUPPLY_AGAIN, _S.DOOR),
    _S.CLEAN: (_S.WIRES, _S.DOOR, _S.EARTHS),
    _S.INSPECTION: (_S.COVERS, _S.CLEAN),
}
"""What must be finished before a stage is begun (common practice, no source): its gate."""


def needs_of(stage: BuildStage, door_order: DoorOrder) -> tuple[BuildStage, ...]:
    """What must be finished before a stage is begun; a loom that is made first does not wait for the plate's wires."""
    needed = NEEDS.get(stage, ())
    if stage is BuildStage.DOOR and door_order is DoorOrder.FIRST:
        return tuple(other for other in needed if other is not BuildStage.WIRES)
    return needed


def stages_in_order(door_order: DoorOrder) -> tuple[BuildStage, ...]:
    """The stages in the order of the practice: the door's loom before the wires of the plate, or after them."""
    stages = list(BuildStage)
    if door_order is DoorOrder.FIRST:
        stages.remove(BuildStage.DOOR)
        stages.insert(stages.index(BuildStage.WIRES), BuildStage.DOOR)
    return tuple(stages)


@dataclass(frozen=True, slots=True)
class WorkTask:
    """One thing to be done and ticked.

    Args:
        stage: The stage it belongs to.
        subject: The stable key of what its records are about.
        title: What it is: “K1 contactor C-9”.
        how: Where and how, a line each.
        facts: What is recorded when it is done now.
        where: What is shown of it on plate and door.
        minutes: About how long it takes (chosen by us, see ``work_plan``).
        caution: What can hurt or spoil here, "" for nothing beyond the usual.
    """

    stage: BuildStage
    subject: str
    title: str
    how: tuple[str, ...]
    facts: Facts
    where: tuple[Key, ...] = ()
    minutes: float = 0.0
    caution: str = ""
    slot: Slot = field(init=False, repr=False, compare=False)
    """What its records are the last word in; asked at every tick, so worked out once."""

    def __post_init__(self) -> None:
        object.__setattr__(self, "slot", slot_of(self.subject, self.facts))


@dataclass(frozen=True, slots=True)
class TaskState:
    """A task with what counts of it: who did it and when, by which record; or why what was done no longer counts."""

    task: WorkTask
    done: Done | None = None
    record: str = ""
    stale: str = ""


@dataclass(frozen=True, slots=True)
class PassedGate:
    """A gate that somebody passed while it was shut."""

    who: str
    when: str
    reason: str
    open_work: str
    record: str


@dataclass(frozen=True, slots=True)
class StageState:
    """How far a stage is.

    ``shut`` is what keeps its gate shut, a line for each stage that must be finished first; ``passed`` who went
    through all the same. ``finished`` and ``count`` are tasks, or wires in a stage of wiring.
    """

    stage: BuildStage
    tasks: tuple[TaskState, ...]
    finished: int
    count: int
    minutes_left: float
    shut: tuple[str, ...] = ()
    passed: PassedGate | None = None

    @property
    def complete(self) -> bool:
        """Whether everything in it is done."""
        return self.finished == self.count

    @property
    def may_begin(self) -> bool:
        """Whether its gate is open, or somebody passed it."""
        return not self.shut or self.passed is not None
