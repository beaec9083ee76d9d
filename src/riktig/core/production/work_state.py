"""How far every stage of the work is, from the log; and what keeps its gate shut."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from riktig.core.ids import PinRef, read_pin
from riktig.core.job import DoorOrder
from riktig.core.keys import PinKey
from riktig.core.production.ticks import OPERATIONS, BuildProgress, Done, WireState
from riktig.core.production.work_model import (
    BuildStage,
    PassedGate,
    StageState,
    TaskState,
    WorkTask,
    needs_of,
    stages_in_order,
)
from riktig.core.records import (
    FromLog,
    GatePassed,
    Log,
    PartReceived,
    Record,
    Slot,
    WireDone,
    last_word,
    log_of,
    slot_of,
    why_not,
)
from riktig.core.wiring import Wire, WiringStage

__all__ = [
    "WIRE_MINUTES",
    "gate_facts",
    "gate_subject",
    "received",
    "stage_of_wire",
    "stage_states",
    "task_states",
    "wires_of_stage",
]

WIRE_MINUTES = 2.0
"""What marking, fitting, landing and tightening of a wire take beside the cutting, min (chosen by us)."""
MOST_NAMED = 3
"""Open tasks that are named at a gate (chosen by us: what is read at a glance)."""


@dataclass(frozen=True, slots=True)
class _OfStage:
    """The tasks of a stage: all, those not done, and the minutes that these take."""

    tasks: tuple[TaskState, ...]
    left: tuple[TaskState, ...]
    minutes: float


@dataclass(frozen=True, slots=True)
class _Known:
    """The states of all tasks with what is needed to go on from them.

    Args:
        states: Of every task.
        places: Where the tasks of a slot are among them.
        screws: Where those are that tighten screws a second time.
        opened: Where in the log each clamp was last opened.
        stages: The tasks of each stage.
    """

    states: tuple[TaskState, ...]
    places: dict[Slot, tuple[int, ...]]
    screws: tuple[int, ...]
    opened: dict[PinRef, int]
    stages: dict[BuildStage, _OfStage]


def task_states(tasks: Sequence[WorkTask], records: Iterable[Record]) -> tuple[TaskState, ...]:
    """Every task with what counts of it.

    Args:
        tasks: All tasks.
        records: The log, oldest first.
    """
    return log_of(records).get(_TASKS, tasks).states


def _known_anew(tasks: Sequence[WorkTask], log: Log) -> _Known:
    places: dict[Slot, tuple[int, ...]] = {}
    for place, task in enumerate(tasks):
        places[task.slot] = (*places.get(task.slot, ()), place)
    screws = tuple(place for place, task in enumerate(tasks) if task.stage is BuildStage.SUPPLY_AGAIN)
    begun = _Known(tuple(map(TaskState, tasks)), places, screws, _opened_again({}, log, log), {})
    touched = {place for slot, slot_places in places.items() if log.about(slot.subject) for place in slot_places}
    return _with_tasks(begun, tasks, log, touched)


def _known_further(before: _Known, tasks: Sequence[WorkTask], log: Log, new: Sequence[Record]) -> _Known:
    """The states after further entries: of the tasks that they are about, and of screws whose clamp was opened."""
    touched: set[int] = set()
    for meant in map(log.meant, new):
        touched.update(before.places.get(slot_of(meant.subject, meant.facts), ()))
    opened = _opened_again(before.opened, log, new)
    if opened is not before.opened:
        touched.update(before.screws)
    known = _Known(before.states, before.places, before.screws, opened, before.stages)
    return _with_tasks(known, tasks, log, touched)


def _with_tasks(known: _Known, tasks: Sequence[WorkTask], log: Log, touched: Iterable[int]) -> _Known:
    """The states with those of some tasks read from the log; by stage anew where one changed."""
    states, stages = list(known.states), dict(known.stages)
    changed = set() if stages else set(BuildStage)
    for place in touched:
        states[place] = _state_of(tasks[place], known, tasks, log)
        changed.add(tasks[place].stage)
    by_stage: dict[BuildStage, list[TaskState]] = {stage: [] for stage in changed}
    for state in states if changed else ():
        if state.task.stage in by_stage:
            by_stage[state.task.stage].append(state)
    for stage, stage_tasks in by_stage.items():
        left = tuple(state for state in stage_tasks if state.done is None)
        stages[stage] = _OfStage(tuple(stage_tasks), left, sum(state.task.minutes for state in left))
    return _Known(tuple(states), known.places, known.screws, known.opened, stages)


def _state_of(task: WorkTask, known: _Known, tasks: Sequence[WorkTask], log: Log) -> TaskState:
    """What counts of one task. Tasks of one slot share what counts: what the last of them says is what is compared."""
    record = last_word(log, task.slot)
    if record is None:
        return TaskState(task)
    why = why_not(record.facts, tasks[known.places[task.slot][-1]].facts)
    if why:
        return TaskState(task, None, record.id, why)
    if task.stage is BuildStage.SUPPLY_AGAIN:  # counts until its clamp is opened again
        pins = [key.pin for key in task.where if isinstance(key, PinKey)]
        if any(known.opened.get(pin, -1) > log.place(record.id) for pin in pins):
            return TaskState(task, None, record.id, "its clamp was opened again since")
    return TaskState(task, Done(record.who, record.when), record.id)


def _opened_again(before: dict[PinRef, int], log: Log, new: Sequence[Record]) -> dict[PinRef, int]:
    """Where in the log something last went into a clamp, or came out of it by a correction."""
    opened: dict[PinRef, int] = {}
    for place, record in enumerate(new, len(log) - len(new)):
        facts = log.meant(record).facts
        if isinstance(facts, WireDone) and facts.operation.is_landing and facts.pin:
            opened[read_pin(facts.pin)] = place
    return {**before, **opened} if opened else before


_TASKS = FromLog[Sequence[WorkTask], _Known]("states of the tasks", _known_anew, _known_further)


_OF_WIRING = {WiringStage.DOOR: BuildStage.DOOR, WiringStage.EARTH: BuildStage.EARTHS}


def stage_of_wire(wire: Wire) -> BuildStage:
    """The stage of the bench that a wire belongs to."""
    return _OF_WIRING.get(wire.stage, BuildStage.WIRES)


def wires_of_stage(stage: BuildStage, progress: BuildProgress) -> tuple[WireState, ...]:
    """The wires of a stage of wiring, in the order they go in."""
    return tuple(state for state in progress.states if stage_of_wire(state.wire) is stage)


def stage_states(
    tasks: Sequence[WorkTask],
    progress: BuildProgress,
    records: Iterable[Record],
    door_order: DoorOrder = DoorOrder.LAST,
) -> tuple[StageState, ...]:
    """All stages in their order.

    Args:
        tasks: All tasks but those of wires.
        progress: What is done to the wires.
        records: The log, oldest first.
        door_order: Whether the door's loom is made before the wires of the plate, by practice.
    """
    log = log_of(records)
    of_stage = log.get(_TASKS, tasks).stages
    wires_by_stage: dict[BuildStage, list[WireState]] = {stage: [] for stage in BuildStage if stage.is_wiring}
    by_wiring = {stage: wires_by_stage[_OF_WIRING.get(stage, BuildStage.WIRES)] for stage in WiringStage}
    for wire_state in progress.states:
        by_wiring[wire_state.wire.stage].append(wire_state)
    plain: dict[BuildStage, StageState] = {}
    for stage, stage_work in of_stage.items():
        finished, count, minutes = (
            len(stage_work.tasks) - len(stage_work.left),
            len(stage_work.tasks),
            stage_work.minutes,
        )
        if stage.is_wiring:
            wires = wires_by_stage[stage]
            done = [len(state.done) for state in wires]
            finished, count = finished + done.count(OPERATIONS), count + len(wires)
            minutes += WIRE_MINUTES * (len(wires) - sum(done) / OPERATIONS)
        plain[stage] = StageState(stage, stage_work.tasks, finished, count, minutes)
    passed = _passed(log)
    # A wire that lands in a clamp of an earlier stage loosens its screw; that must not shut the gate behind it.
    begun = {stage for stage, wires in wires_by_stage.items() if any(state.done for state in wires)}
    lines = {stage: _not_finished(plain[stage], stage_work.left) for stage, stage_work in of_stage.items()}

    def shut(stage: BuildStage) -> tuple[str, ...]:
        if stage in begun and stage not in passed:
            return ()
        return tuple(lines[needed] for needed in needs_of(stage, door_order) if lines[needed])

    return tuple(
        replace(plain[stage], shut=shut(stage), passed=passed.get(stage)) for stage in stages_in_order(door_order)
    )


def _not_finished(state: StageState, left: Sequence[TaskState]) -> str:
    """What a stage that is not finished says at the gate of a later one; "" when it is finished."""
    if state.complete:
        return ""
    few = ", ".join(task.task.title for task in left[:MOST_NAMED])
    if len(left) > MOST_NAMED:
        few += f" and {len(left) - MOST_NAMED} more"
    return f"{state.stage.value}: {state.finished} of {state.count}" + (f"; open: {few}" if few else "")


def gate_subject(stage: BuildStage) -> str:
    """What the record of a passed gate is about."""
    return f"gate:{stage.name.lower()}"


def gate_facts(state: StageState, reason: str) -> GatePassed:
    """What is recorded when somebody begins a stage whose gate is shut.

    Args:
        state: The stage with what keeps it shut.
        reason: Why it is begun all the same.

    Raises:
        ValueError: no reason is given, or its gate is open.
    """
    if not reason.strip():
        raise ValueError("a gate is passed with a reason")
    if not state.shut:
        raise ValueError("this gate is open")
    return GatePassed(state.stage.value, reason.strip(), "; ".join(state.shut))


def _passed(log: Log) -> dict[BuildStage, PassedGate]:
    by_subject = {gate_subject(stage): stage for stage in BuildStage}
    passed: dict[BuildStage, PassedGate] = {}
    for record in log.standing(GatePassed):
        facts = record.facts
        if isinstance(facts, GatePassed) and record.subject in by_subject:
            gate = PassedGate(record.who, record.when, facts.reason, facts.open_work, record.id)
            passed[by_subject[record.subject]] = gate
    return passed


def received(facts: PartReceived, quantity: int, serials: str, batch: str) -> PartReceived:
    """What is recorded when parts come: how many are there now, and their numbers.

    Args:
        facts: What the task would record when all are there.
        quantity: How many there are now in all.
        serials: Serial numbers of those that matter, "" for none.
        batch: Their batch, "" for none.

    Raises:
        ValueError: the quantity is negative.
    """
    if quantity < 0:
        raise ValueError("fewer than none cannot be there")
    return PartReceived(facts.part, quantity, facts.wanted, serials.strip(), batch.strip())
