"""How far each station is: the stamp and the one line on the route card."""

from collections.abc import Iterable
from dataclasses import dataclass
from enum import Enum

from riktig.core.door import DOOR
from riktig.core.evaluation import Evaluation
from riktig.core.handover import missing_words
from riktig.core.holes import METAL_HOLES
from riktig.core.job import Job
from riktig.core.labels import LABELS
from riktig.core.plate import LAYOUT
from riktig.core.production import WORK, change_orders, progress_of, red_lines, stage_states
from riktig.core.proving import TESTS, Outcome, results_of
from riktig.core.records import Record, log_of
from riktig.core.rules import RULES, Group, Verdict, stand_of_clauses
from riktig.core.schematic import CIRCUITS, NAMES
from riktig.core.terminals import STRIPS
from riktig.core.wiring import WIRING

__all__ = ["STATIONS", "Stamp", "Status", "statuses"]

STATIONS = (
    "Brief",
    "Circuits",
    "Plate",
    "Door",
    "Wires",
    "Terminals",
    "Labels",
    "Rules",
    "Build",
    "Prove",
    "Hand over",
)


class Stamp(Enum):
    """How a station stands. Drawn as a shape and said in words."""

    BLANK = "blank"
    BEGUN = "begun"
    CLEAR = "clear"
    FIX = "something to fix"
    STALE = "out of date since an edit"


@dataclass(frozen=True, slots=True)
class Status:
    """A station's stamp and its line."""

    station: str
    stamp: Stamp
    line: str


def statuses(evaluation: Evaluation[Job], records: Iterable[Record], out_of_step: str = "") -> tuple[Status, ...]:
    """All stations in the order of work.

    Args:
        evaluation: Of the job.
        records: The log, oldest first.
        out_of_step: Why this bench may not have what the other benches have; "" where it has.
    """
    job, log = evaluation.document, log_of(records)
    if not job.loads:
        waits = [Status(name, Stamp.BLANK, "waits for the Brief") for name in STATIONS[1:]]
        return (Status("Brief", Stamp.BLANK, "start here: say what turns"), *waits)
    return (*_planned(evaluation, log), *_done(evaluation, log, out_of_step))


def _plural(count: int, single: str, many: str = "") -> str:
    return f"{count} {single if count == 1 else many or single + 's'}"


def _planned(evaluation: Evaluation[Job], records: tuple[Record, ...]) -> list[Status]:
    circuits, wiring = evaluation.get(CIRCUITS), evaluation.get(WIRING)
    rules = evaluation.get(RULES)
    layout, door = evaluation.get(LAYOUT), evaluation.get(DOOR)
    doors = {leaf.name for leaf in door.leaves}
    holes = sum(hole.face in doors for hole in evaluation.get(METAL_HOLES))
    clash = _plural(len(circuits.clashes), "change clashes", "changes clash")
    crowded = len(wiring.crowded) + len(wiring.unrouted)
    stand = stand_of_clauses(rules, records, evaluation.document.practice.deviation_signed_by)
    named = len(evaluation.get(NAMES).number)
    labels = evaluation.get(LABELS).labels
    terminals = sum(len(strip.rows) for strip in evaluation.get(STRIPS).strips)

    def fits(count: int, good: str) -> tuple[Stamp, str]:
        if count:
            return Stamp.FIX, _plural(count, "part does not fit", "parts do not fit")
        return Stamp.CLEAR, good

    misfits = len({m.device for m in layout.misfits})
    signed = len(stand.judged) + len(stand.deviating)
    if stand.failing:
        ruled = Stamp.FIX, _plural(len(stand.failing), "clause fails", "clauses fail")
    elif stand.waiting:
        ruled = Stamp.BEGUN, _plural(len(stand.waiting), "needs judgement", "need judgement")
    else:
        met = sum(r.verdict is Verdict.MEETS for r in rules)
        ruled = Stamp.CLEAR, _plural(met, "clause met", "clauses met") + (f", {signed} signed" if signed else "")
    return [
        _brief(evaluation),
        Status(
            "Circuits",
            Stamp.FIX if circuits.clashes else Stamp.CLEAR,
            clash if circuits.clashes else f"{named} nets numbered",
        ),
        Status("Plate", *fits(misfits, f"{len(layout.seats)} parts placed")),
        Status("Door", *fits(len({m.device for m in door.misfits}), _plural(holes, "hole"))),
        Status(
            "Wires",
            Stamp.FIX if crowded else Stamp.CLEAR,
            _plural(crowded, "clamp to check", "clamps to check")
            if crowded
            else f"{_plural(len(wiring.wires), 'wire')}, {_plural(len(wiring.batches), 'batch', 'batches')}",
        ),
        Status("Terminals", Stamp.CLEAR, _plural(terminals, "terminal")),
        Status("Labels", Stamp.CLEAR, f"{sum(label.copies for label in labels)} to print"),
        Status("Rules", *ruled),
    ]


def _brief(evaluation: Evaluation[Job]) -> Status:
    """The Brief: what cannot stand first, then what a person has yet to settle."""
    job = evaluation.document
    findings = [f for result in evaluation.get(RULES) if result.group is Group.BRIEF for f in result.findings]
    failed = sum(finding.verdict is Verdict.FAILS for finding in findings)
    if failed:
        return Status("Brief", Stamp.FIX, _plural(failed, "conflict", "conflicts"))
    outstanding = [finding for finding in findings if finding.code != "B05"]
    if outstanding:
        return Status("Brief", Stamp.BEGUN, _plural(len(outstanding), "item outstanding", "items outstanding"))
    supplies = _plural(1 + len(job.sources), "supply", "supplies")
    return Status("Brief", Stamp.CLEAR, f"{_plural(len(job.loads), 'load')}, {supplies}")


def _build(evaluation: Evaluation[Job], records: tuple[Record, ...]) -> Status:
    """Build is clear when every stage is finished and nothing that was noted at the bench is open."""
    progress = progress_of(evaluation.get(WIRING), records)
    total, finished = len(progress.states), progress.complete
    if progress.stale:
        wires = len({stale.subject for stale in progress.stale})
        return Status("Build", Stamp.STALE, f"{_plural(wires, 'wire')} changed since")
    stages = stage_states(evaluation.get(WORK), progress, records, evaluation.document.practice.door_order)
    is_open = sum(not stage.complete for stage in stages)
    orders = sum(order.is_open for order in change_orders(records)) + sum(x.answer is None for x in red_lines(records))
    began = any(state.done for state in progress.states) or any(stage.finished for stage in stages)
    if finished < total:
        return Status("Build", Stamp.BEGUN if began else Stamp.BLANK, f"{finished} of {total} in")
    if is_open or orders:
        line = f"wires in, {_plural(is_open, 'stage')} open" if is_open else f"{_plural(orders, 'change')} open"
        return Status("Build", Stamp.BEGUN, line)
    return Status("Build", Stamp.CLEAR, f"built, {_plural(total, 'wire')} in")


def _done(evaluation: Evaluation[Job], records: tuple[Record, ...], out_of_step: str) -> list[Status]:
    results = results_of(evaluation.get(TESTS), records)
    build = _build(evaluation, records)
    passed, failed = results.count(Outcome.PASSED), results.count(Outcome.FAILED)
    tests = len(results.readings)
    if failed:
        prove = Status("Prove", Stamp.FIX, _plural(failed, "test failed", "tests failed"))
    elif results.stale:
        prove = Status("Prove", Stamp.STALE, f"{len(results.stale)} to read again")
    elif passed == tests:
        prove = Status("Prove", Stamp.CLEAR, f"all {tests} dead tests passed")
    else:
        stamp = Stamp.BEGUN if passed else Stamp.BLANK
        prove = Status("Prove", stamp, f"{passed} of {tests} dead tests")
    missing = missing_words(evaluation, records, out_of_step)
    last = Status(
        "Hand over",
        Stamp.BLANK if missing else Stamp.CLEAR,
        f"{_plural(len(missing), 'thing')} missing" if missing else "complete",
    )
    return [build, prove, last]
