"""Which live steps are done and still count, and what keeps them shut."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from riktig.core.errors import RiktigError
from riktig.core.production import StageState
from riktig.core.proving.live_step import LiveStep
from riktig.core.proving.tests import ProvingStage
from riktig.core.proving.verdicts import LONGEST_READING, Outcome, Results
from riktig.core.records import LiveReleased, LiveStepDone, Record, Slot, counted, slot_of, taken_back

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
    present: dict[Slot, LiveStepDone] = {}
    for step in plan:
        facts = live_facts(step, Outcome.OPEN)
        present[slot_of(step.key, facts)] = facts
    last = {item.record.subject: item for item in counted(records, LiveStepDone, present)}
    results: list[LiveResult] = []
    for step in plan:
        item = last.get(step.key)
        if item is None:
            results.append(LiveResult(step, Outcome.OPEN, None))
        elif item.counts and item.facts.stage == step.stage.value:
            record, facts = item.record, item.facts
            results.append(LiveResult(step, facts.outcome, facts, record.who, record.when))
        else:
            why = item.why_not or "it was noted as something else"
            results.append(LiveResult(step, Outcome.OPEN, None, stale=why))
    return tuple(results)


def live_facts(
    step: LiveStep, outcome: Outcome, value: str = "", found: str = "", meter: str = "", reason: str = ""
) -> LiveStepDone:
    """What a record of a step says."""
    asked, stage = ", ".join(step.expected), step.stage.value
    what = (value, found, step.unit, meter, reason, step.true_of)
    return LiveStepDone(outcome, step.title, step.done, asked, *what, stage)


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
    log = tuple(records)
    gone = taken_back(log)
    facts = (record.facts for record in reversed(log) if record.id not in gone)
    released = next((entry for entry in facts if isinstance(entry, LiveReleased)), None)
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
