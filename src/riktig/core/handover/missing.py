"""What is missing before a panel may leave the house, and before it is as built: read from the thing and its record."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from enum import Enum

from riktig.core.evaluation import Evaluation
from riktig.core.exports import site_items
from riktig.core.handover.issues import is_issued_now, last_issue, papers_are_of_now
from riktig.core.handover.site import site_states
from riktig.core.job import Job
from riktig.core.keys import Key, PartKey, WireKey
from riktig.core.labels import LABELS, LabelWork, Medium, label_changes
from riktig.core.production import (
    WORK,
    BuildStage,
    TaskState,
    change_orders,
    progress_of,
    red_lines,
    stage_states,
    task_states,
)
from riktig.core.proving import LIVE_PLAN, TESTS, Outcome, live_results, results_of
from riktig.core.records import SIMULATED, LabelPrinted, Log, Record, log_of
from riktig.core.rules import RULES, StandOfClauses, findings_noted, stand_of_clauses
from riktig.core.wiring import WIRING, WireId

__all__ = ["Missing", "MissingFor", "missing_of", "missing_words"]


class MissingFor(Enum):
    """What it is missing for."""

    DISPATCH = "before it leaves"
    AS_BUILT = "before it is as built"


@dataclass(frozen=True, slots=True)
class Missing:
    """One thing that is missing: in words, at which station it is mended, and what to look at there."""

    text: str
    station: str
    key: Key | None = None
    needed_for: MissingFor = MissingFor.DISPATCH


def missing_of(evaluation: Evaluation[Job], records: Iterable[Record], out_of_step: str = "") -> tuple[Missing, ...]:
    """Everything that is missing, in the order in which a panel is made.

    Args:
        evaluation: Of the job.
        records: The log, oldest first.
        out_of_step: Why this bench may not have what the other benches have; "" where it has.
    """
    log = log_of(records)
    return (
        *_of_wires(evaluation, log),
        *_of_bench(evaluation, log),
        *_of_tests(evaluation, log),
        *_of_rules(evaluation, log),
        *_of_labels(evaluation, log),
        *_of_papers(evaluation, log),
        *_of_site(evaluation, log),
        *_of_benches(out_of_step),
    )


def missing_words(evaluation: Evaluation[Job], records: Iterable[Record], out_of_step: str = "") -> tuple[str, ...]:
    """What is missing before the panel may leave, in words.

    Args:
        evaluation: Of the job.
        records: The log, oldest first.
        out_of_step: Why this bench may not have what the other benches have; "" where it has.
    """
    missing = missing_of(evaluation, records, out_of_step)
    return tuple(item.text for item in missing if item.needed_for is MissingFor.DISPATCH)


def _of_wires(evaluation: Evaluation[Job], log: Log) -> Iterator[Missing]:
    progress = progress_of(evaluation.get(WIRING), log)
    left = [state.wire for state in progress.states if not state.done]
    count = len(progress.states) - progress.complete
    if count:
        key = WireKey(left[0].key) if left else None
        yield Missing(f"{count} of {len(progress.states)} wires are not finished", "Build", key)
    stale = {stale.subject: stale for stale in progress.stale}
    if stale:
        first = next(iter(stale))
        known = WireId(first) in evaluation.get(WIRING).by_key
        yield Missing(
            f"{len(stale)} wires have changed since they were made: {next(iter(stale.values())).why}",
            "Build",
            WireKey(WireId(first)) if known else None,
        )


def _of_bench(evaluation: Evaluation[Job], log: Log) -> Iterator[Missing]:
    """Stages, gates that were passed, change orders and red-lines.

    A gate that was passed is missing while what it waited for is; after that it stands in the work record alone.
    """
    tasks = task_states(evaluation.get(WORK), log)
    by_stage: dict[BuildStage, list[TaskState]] = {stage: [] for stage in BuildStage}
    for task in tasks:
        by_stage[task.task.stage].append(task)
    for stage, stage_tests in by_stage.items():
        left = [task for task in stage_tests if task.done is None]
        if left:
            key = left[0].task.where[0] if left[0].task.where else None
            yield Missing(f"{stage.value.lower()}: {len(left)} of {len(stage_tests)} not done", "Build", key)
    outdated = [task for task in tasks if task.stale]
    if outdated:
        title = outdated[0].task.title
        yield Missing(f"{len(outdated)} pieces of work are out of date: {title} ({outdated[0].stale})", "Build")
    door_order = evaluation.document.practice.door_order
    states = stage_states(evaluation.get(WORK), progress_of(evaluation.get(WIRING), log), log, door_order)
    for state in states:
        if state.passed and state.shut:
            name, passed = state.stage.value.lower(), state.passed
            yield Missing(f"{name} was begun with a shut gate by {passed.who}: {passed.reason}", "Build")
    for order in change_orders(log):
        if order.is_open:
            yield Missing(f"change order {order.number} is open: {order.said.title}", "Build")
    for line in red_lines(log):
        if line.answer is None:
            yield Missing(f"a red-line is open: {line.said.name}", "Build")


def _of_tests(evaluation: Evaluation[Job], log: Log) -> Iterator[Missing]:
    results = results_of(evaluation.get(TESTS), log)
    count = len(results.readings)
    todo = [test for test, reading in results.readings if reading is None]
    if todo:
        yield Missing(f"{len(todo)} of {count} dead tests outstanding", "Prove", _key_of(todo[0].wire))
    for outcome in (Outcome.FAILED, Outcome.SKIPPED):
        tests = [test for test, reading in results.readings if reading and reading.outcome is outcome]
        if tests:
            text = f"{len(tests)} of {count} dead tests {outcome.value}: {tests[0].title}"
            yield Missing(text, "Prove", _key_of(tests[0].wire))
    bare = [
        test
        for test, reading in results.readings
        if reading and reading.outcome is Outcome.PASSED and (not reading.meter.strip() or SIMULATED in reading.meter)
    ]
    if bare:
        yield Missing(f"{len(bare)} of {count} dead tests passed without an instrument", "Prove", _key_of(bare[0].wire))
    if results.stale:
        first = results.stale[0]
        yield Missing(f"{len(results.stale)} readings are out of date: {first.name} ({first.why})", "Prove")
    live = live_results(evaluation.get(LIVE_PLAN), log)
    not_passed = [result for result in live if result.outcome is not Outcome.PASSED]
    if not_passed:
        text = f"{len(not_passed)} of {len(live)} settings and live steps outstanding"
        yield Missing(f"{text}: {not_passed[0].step.title}", "Prove")


def _key_of(wire: str) -> Key | None:
    return WireKey(WireId(wire)) if wire else None


def _of_rules(evaluation: Evaluation[Job], log: Log) -> Iterator[Missing]:
    """What fails without a deviation, what waits for a judgement; a deviation is named as long as it stands."""
    signed_by = evaluation.document.practice.deviation_signed_by
    stand: StandOfClauses = stand_of_clauses(evaluation.get(RULES), log, signed_by)
    for results, words in (
        (stand.failing, "fails"),
        (stand.waiting, "waits for a judgement"),
        (stand.deviating, "fails, a deviation is signed"),
    ):
        for result in results:
            key = result.findings[0].where if result.findings else None
            yield Missing(f"clause “{result.title}” {words}", "Rules", key)
    for noted in findings_noted(log):
        if noted.is_open:
            yield Missing(f"finding “{noted.facts.text}” is open", "Rules")


def _of_labels(evaluation: Evaluation[Job], log: Log) -> Iterator[Missing]:
    labels = evaluation.get(LABELS)
    changes = label_changes(labels, log)
    for work, words in (
        (LabelWork.PRINT, "must be printed again"),
        (LabelWork.PUT_ON, "must be exchanged on the panel"),
        (LabelWork.TAKE_OFF, "must be taken off the panel"),
    ):
        work_changes = [change for change in changes if change.work is work]
        if work_changes:
            key = work_changes[0].label.key if work_changes[0].label else None
            text = work_changes[0].text or work_changes[0].was
            yield Missing(f"{_counted(len(work_changes), 'label')} {words}: {text}", "Labels", key)
    printed = {record.subject.partition("/")[0] for record in log.standing(LabelPrinted)}
    bare = [medium for medium in Medium if labels.on(medium) and medium.name.lower() not in printed]
    if bare:
        names = ", ".join(medium.value for medium in bare)
        yield Missing(f"labels were never printed: {names}", "Labels", labels.on(bare[0])[0].key)
    for field in labels.nameplate:
        if field.required and not field.value:
            yield Missing(f"the nameplate lacks its {field.name.lower()}", "Brief", PartKey("nameplate"))


def _of_papers(evaluation: Evaluation[Job], log: Log) -> Iterator[Missing]:
    job = evaluation.document
    for name, value in (
        ("maker", job.maker),
        ("serial number", job.serial),
        ("title", job.title),
        ("drawing number", job.drawing_number),
    ):
        if not value:
            yield Missing(f"the job has no {name}", "Brief", PartKey("nameplate"))
    if "date" in job.marks.missing:  # its words and its number are asked for by the nameplate
        yield Missing("the mark of the panel has no date", "Brief", PartKey("nameplate"))
    issue = last_issue(log)
    if issue is None:
        yield Missing("the job was never issued", "Hand over")
    elif not is_issued_now(job, log):
        yield Missing(f"the drawings have changed since issue {issue.facts.letter}: issue them anew", "Hand over")
    if not papers_are_of_now(job, log):
        yield Missing("the documents of this job as it is now were not written", "Hand over")


def _of_site(evaluation: Evaluation[Job], log: Log) -> Iterator[Missing]:
    states = site_states(site_items(evaluation), log)
    left = [state for state in states if state.done is None]
    if left:
        text = f"{len(left)} of {len(states)} items of the site list are open: {left[0].what}"
        yield Missing(text, "Hand over", None, MissingFor.AS_BUILT)


def _of_benches(out_of_step: str) -> Iterator[Missing]:
    """What other benches found is not known here until both are in step again."""
    if out_of_step:
        yield Missing(f"this bench and the shop's server are not in step: {out_of_step}", "Hand over")


def _counted(count: int, single: str) -> str:
    return f"{count} {single if count == 1 else single + 's'}"
