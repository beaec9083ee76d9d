"""Which live steps are done and still count, and what keeps them shut."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from riktig.core.errors import RiktigError
from riktig.core.production import StageState
from riktig.core.proving.live_step import LiveStep
from riktig.core.proving.tests import ProvingStage
from riktig.core.proving.verdicts import LONGEST_READING, Outcome, Results
from riktig.core.records import FromLog, LiveReleased, LiveStepDone, Log, Record, Slot, last_word, log_of, why_not

__all__ = ["LiveGate", "LiveResult", "live_facts", "live_gate", "live_results", "read_value"]

MOST_VALUE = 10_000.0
"""No voltage, current or time of a panel is more (chosen by us)."""
MOST_NAMED = 4
"""Open things that are named at the gate (chosen by us: a glance)."""


@dataclass(frozen=True, slots=True)
class LiveResult:
    """A step with what came of it: the record that counts, or why an earlier one no longer does."""

    step: LiveStep
    outcome: Outcome
    said: LiveStepDone | None
    who: str = ""
    when: str = ""
    stale: str = ""


@dataclass(frozen=True, slots=True)
class LiveGate:
    """What keeps the live tests shut, "" when they are open; what is open all the same; whether it may be signed for.

    A test that failed is never signed for.
    """

    shut: str
    open_work: tuple[str, ...]
    may_release: bool
    stands_by: str = ""


def live_results(plan: Sequence[LiveStep], records: Iterable[Record]) -> tuple[LiveResult, ...]:
    """Every step with what came of it.

    Args:
        plan: All steps, in order.
        records: The log, oldest first.
    """
    return log_of(records).get(_RESULTS, plan)


def _results_anew(plan: Sequence[LiveStep], log: Log) -> tuple[LiveResult, ...]:
    return tuple(_result_of(step, log) for step in plan)


def _results_further(
    before: tuple[LiveResult, ...], plan: Sequence[LiveStep], log: Log, new: Sequence[Record]
) -> tuple[LiveResult, ...]:
    touched = {meant.subject for meant in map(log.meant, new) if isinstance(meant.facts, LiveStepDone)}
    if not touched:
        return before
    return tuple(_result_of(result.step, log) if result.step.key in touched else result for result in before)


_RESULTS = FromLog[Sequence[LiveStep], tuple[LiveResult, ...]](
    "results of settings and live steps", _results_anew, _results_further
)


def _result_of(step: LiveStep, log: Log) -> LiveResult:
    record = last_word(log, Slot(LiveStepDone, step.key))
    if record is None or not isinstance(record.facts, LiveStepDone):
        return LiveResult(step, Outcome.OPEN, None)
    facts = record.facts
    why = why_not(facts, live_facts(step, Outcome.OPEN))
    if not why and facts.stage == step.stage.value:
        return LiveResult(step, facts.outcome, facts, record.who, record.when)
    return LiveResult(step, Outcome.OPEN, None, stale=why or "it was noted as something else")


def live_facts(
    step: LiveStep, outcome: Outcome, value: str = "", found: str = "", meter: str = "", reason: str = ""
) -> LiveStepDone:
    """What a record of a step says."""
    expected, stage = ", ".join(step.expected), step.stage.value
    what = (value, found, step.unit, meter, reason, step.true_of)
    return LiveStepDone(outcome, step.title, step.done, expected, *what, stage)


def live_gate(
    results: Results, inspection: StageState | None, records: Iterable[Record], settings: Sequence[LiveResult] = ()
) -> LiveGate:
    """What keeps the live tests shut: dead tests and the visual inspection that are open, and who stands by.

    Args:
        results: All dead tests with their readings.
        inspection: The visual inspection at the bench; None where there is none.
        records: The log, oldest first.
        settings: The settings with what came of them.
    """
    failed = results.count(Outcome.FAILED)
    open_work: list[str] = []
    for stage in (stage for stage in ProvingStage if not stage.live):
        left = results.count(Outcome.OPEN, stage) + results.count(Outcome.SKIPPED, stage)
        if left:
            open_work.append(f"{stage.value}: {left} not passed")
    unset = sum(result.outcome is not Outcome.PASSED for result in settings)
    if unset:
        open_work.append(f"{ProvingStage.SETTINGS.value}: {unset} not passed")
    if inspection and not inspection.complete:
        open_work.append(f"visual inspection: {inspection.count - inspection.finished} of {inspection.count} open")
    releases = log_of(records).said(LiveReleased)
    released = releases[-1][1] if releases else None
    now = tuple(open_work)
    if failed:
        shut = f"{failed} dead tests failed: find and mend what is wrong first."
        return LiveGate(shut, now, may_release=False)
    if released is None:
        shut = f"Not done yet: {'; '.join(now)}." if now else "Everything dead has passed. Say who stands by."
        return LiveGate(shut, now, may_release=True)
    then = dict(map(_counted, released.open_work.split("; ")))
    more = [words for words in now if _counted(words)[1] > then.get(_counted(words)[0], 0)]
    shut = f"Open since it was released: {'; '.join(more[:MOST_NAMED])}." if more else ""
    return LiveGate(shut, now, may_release=True, stands_by=released.stands_by)


def _counted(words: str) -> tuple[str, int]:
    """What is open, and how many of it, as the gate says it: “Bonds: 3 not passed”."""
    name, _, rest = words.partition(": ")
    number = rest.split(" ")[0]
    return name, int(number) if number.isdecimal() else 0


def read_value(text: str) -> float:
    """Reads a typed figure: “231”, “231,5 V”, “8.5 A”, “0”.

    Raises:
        RiktigError: it cannot be read as one.
    """
    body = text.strip()[:LONGEST_READING].replace(",", ".").rstrip("VvAams ").strip()
    try:
        value = float(body)
    except ValueError:
        value = -1.0
    if not 0 <= value < MOST_VALUE:
        raise RiktigError(
            f"“{text.strip()[:LONGEST_READING]}” cannot be read as a figure, so nothing was recorded.",
            hint="Type a figure such as 231, 24.1 or 8.5.",
        )
    return value
