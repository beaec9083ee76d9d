"""How far every stage of the work is, from the log; and what keeps its gate shut."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import replace

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
from riktig.core.records import Facts, GatePassed, PartReceived, Record, Slot, WireDone, counted, taken_back
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


def task_states(tasks: Sequence[WorkTask], records: Iterable[Record]) -> tuple[TaskState, ...]:
    """Every task with what counts of it.

    Args:
        tasks: All tasks.
        records: The log, oldest first.
    """
    log = tuple(records)
    slots = [task.slot for task in tasks]
    present: dict[Slot, Facts] = {slot: task.facts for slot, task in zip(slots, tasks, strict=True)}
    states: dict[Slot, tuple[Done | None, str, str]] = {}
    for kind in {type(task.facts) for task in tasks}:
        of_kind = {slot: facts for slot, facts in present.items() if slot.kind is kind}
        for item in counted(log, kind, of_kind):
            done = Done(item.record.who, item.record.when) if item.counts else None
            states[item.slot] = (done, item.record.id, item.why_not)
    opened, place_of = _opened_again(log), {record.id: place for place, record in enumerate(log)}
    kept = (TaskState(task, *states.get(slot, (None, "", ""))) for slot, task in zip(slots, tasks, strict=True))
    return tuple(_while_shut(state, opened, place_of) for state in kept)


def _opened_again(log: Sequence[Record]) -> dict[PinRef, int]:
    """Where in the log something last went into a clamp, or came out of it by a correction."""
    by_id = {record.id: record for record in log}
    opened: dict[PinRef, int] = {}
    for place, record in enumerate(log):
        facts = by_id[record.corrects].facts if record.corrects in by_id else record.facts
        if isinstance(facts, WireDone) and facts.operation.is_landing and facts.pin:
            opened[read_pin(facts.pin)] = place
    return opened


def _while_shut(state: TaskState, opened: Mapping[PinRef, int], place_of: Mapping[str, int]) -> TaskState:
    """A screw that was tightened a second time counts until its clamp is opened again."""
    if state.done is None or state.task.stage is not BuildStage.SUPPLY_AGAIN:
        return state
    pins = [key.pin for key in state.task.where if isinstance(key, PinKey)]
    if any(opened.get(pin, -1) > place_of[state.record] for pin in pins):
        return replace(state, done=None, stale="its clamp was opened again since")
    return state


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
    log = tuple(records)
    by_stage: dict[BuildStage, list[TaskState]] = {stage: [] for stage in BuildStage}
    for state in task_states(tasks, log):
        by_stage[state.task.stage].append(state)
    wires_by_stage: dict[BuildStage, list[WireState]] = {stage: [] for stage in BuildStage}
    for wire_state in progress.states:
        wires_by_stage[stage_of_wire(wire_state.wire)].append(wire_state)
    plain: dict[BuildStage, StageState] = {}
    for stage in BuildStage:
        own = by_stage[stage]
        left = sum(state.task.minutes for state in own if state.done is None)
        finished, count = sum(state.done is not None for state in own), len(own)
        if stage.is_wiring:
            wires = wires_by_stage[stage]
            whole = sum(state.complete for state in wires)
            finished, count = finished + whole, count + len(wires)
            left += WIRE_MINUTES * sum(1 - len(state.done) / OPERATIONS for state in wires)
        plain[stage] = StageState(stage, tuple(own), finished, count, left)
    passed = _passed(log)
    # A wire that lands in a clamp of an earlier stage loosens its screw; that must not shut the gate behind it.
    begun = {stage for stage, wires in wires_by_stage.items() if any(state.done for state in wires)}
    return tuple(
        replace(
            plain[stage],
            shut=() if stage in begun - set(passed) else _shut(needs_of(stage, door_order), plain),
            passed=passed.get(stage),
        )
        for stage in stages_in_order(door_order)
    )


def _shut(needs: Iterable[BuildStage], states: Mapping[BuildStage, StageState]) -> tuple[str, ...]:
    """What keeps a gate shut: a line for each stage before it that is not finished."""
    lines: list[str] = []
    for needed in needs:
        state = states[needed]
        if state.complete:
            continue
        names = [task.task.title for task in state.tasks if task.done is None]
        few = ", ".join(names[:MOST_NAMED]) + (
            f" and {len(names) - MOST_NAMED} more" if len(names) > MOST_NAMED else ""
        )
        lines.append(f"{needed.value}: {state.finished} of {state.count}" + (f"; open: {few}" if few else ""))
    return tuple(lines)


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


def _passed(log: Sequence[Record]) -> dict[BuildStage, PassedGate]:
    gone = taken_back(log)
    by_subject = {gate_subject(stage): stage for stage in BuildStage}
    passed: dict[BuildStage, PassedGate] = {}
    for record in log:
        facts = record.facts
        if isinstance(facts, GatePassed) and record.id not in gone and record.subject in by_subject:
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
