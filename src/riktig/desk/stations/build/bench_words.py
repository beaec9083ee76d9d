"""What the bench card says of a wire and of a task."""

from riktig.core.production import Operation, StageState, TaskState, WireState
from riktig.core.standards import conductor_name, is_awg, torque_name
from riktig.core.wiring import Batch, Wire, WireEnd
from riktig.desk.bench import BenchWords

__all__ = ["task_words", "wire_words"]

SHORT = {
    Operation.CUT: "cut", Operation.MARKED: "marked", Operation.STRIPPED: "stripped",
    Operation.LANDED_START: "first end", Operation.LANDED_END: "second end", Operation.TIGHTENED: "tight",
}  # fmt: skip

MOST_LINES = 8
"""So many lines are read from two metres (chosen by us); the page behind the card has them all."""


def wire_words(state: WireState, batch: Batch, stage: StageState, who: str) -> BenchWords:
    """What is done to a wire now."""
    wire = state.wire
    head = f"{stage.stage.value}   {stage.finished} of {stage.count}   batch {batch.number}   {who}"
    steps = tuple((SHORT[operation], state.has(operation)) for operation in Operation)
    return BenchWords(
        head,
        wire.number,
        _next(wire, state.next),
        ((wire.start.label, _end(wire, wire.start)), (wire.end.label, _end(wire, wire.end))),
        steps=steps,
    )


def _next(wire: Wire, operation: Operation | None) -> str:
    conductor = f"{conductor_name(wire.mm2)} {wire.colour}"
    match operation:
        case None:
            return "finished"
        case Operation.CUT:
            return f"Cut {wire.cut:g} mm of {conductor}"
        case Operation.MARKED:
            return f"Mark both ends {wire.number}"
        case Operation.STRIPPED:
            return _strip(wire)
        case Operation.LANDED_START:
            return f"Land and tug at {wire.start.label}"
        case Operation.LANDED_END:
            return f"Land and tug at {wire.end.label}"
        case Operation.TIGHTENED:
            first, second = (torque_name(end.torque_n_m, awg=is_awg(wire.mm2)) for end in (wire.start, wire.end))
            return f"Tighten {first}" if first == second else f"Tighten {first} and {second}"


def _strip(wire: Wire) -> str:
    first, second = ((f"{end.strip:g} mm", end.fitting) for end in (wire.start, wire.end))
    if first == second:
        return f"Strip both ends {first[0]}, fit {first[1]}"
    return f"Strip {first[0]} and {second[0]}, fit {first[1]} and {second[1]}"


def _end(wire: Wire, end: WireEnd) -> str:
    shared = ", shared" if end.shared else ""
    return f"{end.fitting}{shared}, strip {end.strip:g} mm, {torque_name(end.torque_n_m, awg=is_awg(wire.mm2))}"


def task_words(task: TaskState | None, stage: StageState, who: str) -> BenchWords:
    """What is done in a stage now."""
    head = f"{stage.stage.value}   {stage.finished} of {stage.count}   {who}"
    if task is None:
        return BenchWords(head, "–", "Nothing to do here")
    name, _, rest = task.task.title.partition(" ")
    how = task.task.how
    first = f"✓ {task.done.who}" if task.done else (rest.strip() or how[0])
    lines = tuple(how if rest.strip() else how[1:])[:MOST_LINES]
    return BenchWords(head, name, first, lines=lines, caution=task.stale or task.task.caution)
