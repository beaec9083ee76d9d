"""Readings against the plan: verdicts, what is out of date, and which stages are open."""

from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property

from riktig.core.errors import RiktigError
from riktig.core.production import Stale
from riktig.core.proving.tests import ProvingStage, Test, TestPlan
from riktig.core.records import FromLog, Log, Outcome, ReadingTaken, Record, Slot, last_word, log_of, slot_of, why_not

__all__ = [
    "OPEN_LINE",
    "CountedReading",
    "Outcome",
    "Results",
    "judge",
    "read_ohm",
    "reading_facts",
    "results_of",
    "without_leads",
]

OPEN_LINE = float("inf")
"""What a meter shows as open, as a value."""
FACTORS = {"k": 1e3, "M": 1e6, "G": 1e9}
LONGEST_READING = 30
"""Letters of a typed reading."""


@dataclass(frozen=True, slots=True)
class CountedReading:
    """The last reading of a test that still counts."""

    outcome: Outcome
    ohm: float | None
    who: str
    when: str
    meter: str
    reason: str
    zero: float = 0.0

    @property
    def text(self) -> str:
        """“0.3 Ω”, “open” or the reason of a skip; without what the leads read."""
        return self.reason if self.ohm is None else ohm_text(without_leads(self.ohm, self.zero))


@dataclass(frozen=True)
class Results:
    """The outcome of every test, in the order of the plan, what is out of date, and how many have which outcome."""

    readings: tuple[tuple[Test, CountedReading | None], ...]
    stale: tuple[Stale, ...]
    counts: Mapping[tuple[ProvingStage, Outcome], int] = field(repr=False)

    @cached_property
    def by_key(self) -> Mapping[str, tuple[Test, CountedReading | None]]:
        """Every test with its reading, by the key of the test."""
        return {test.key: (test, reading) for test, reading in self.readings}

    def outcome(self, key: str) -> Outcome:
        """The outcome of one test."""
        _, reading = self.by_key.get(key, (None, None))
        return reading.outcome if reading else Outcome.OPEN

    def count(self, outcome: Outcome, stage: ProvingStage | None = None) -> int:
        """Tests with an outcome, of one stage or of all."""
        if stage is not None:
            return self.counts.get((stage, outcome), 0)
        return sum(count for (_, other), count in self.counts.items() if other is outcome)

    def tests_of(self, stage: ProvingStage) -> int:
        """How many tests a stage has."""
        return sum(count for (other, _), count in self.counts.items() if other is stage)

    def next(self, after: str = "", stage: ProvingStage | None = None) -> Test | None:
        """The next test to do after one, going round."""
        tests = [(t, r) for t, r in self.readings if stage is None or t.stage is stage]
        keys = [t.key for t, _ in tests]
        start = keys.index(after) + 1 if after in keys else 0
        for test, reading in [*tests[start:], *tests[:start]]:
            if reading is None or reading.outcome is Outcome.FAILED:
                return test
        return None


def ohm_text(ohm: float) -> str:
    """A reading as the meter shows it."""
    if ohm == OPEN_LINE:
        return "open"
    if ohm >= 1e6:
        return f"{ohm / 1e6:.1f} MΩ"
    if ohm >= 1e3:
        return f"{ohm / 1e3:.1f} kΩ"
    return f"{ohm:.1f} Ω" if ohm < 100 else f"{ohm:.0f} Ω"


def read_ohm(text: str) -> float:
    """Reads a typed value: “0.3”, “0,3 Ω”, “1.2 k”, “5 MΩ”, “> 2 GΩ”, “open” or “OL”.

    Raises:
        RiktigError: it cannot be read as a resistance.
    """
    if len(text) > LONGEST_READING:
        text = f"{text[:LONGEST_READING]}…"
    body = text.strip().lstrip("> ").replace(",", ".").replace("Ω", "").replace("ohm", "").strip()
    if body.lower() in ("open", "ol", "inf"):
        return OPEN_LINE
    factor = 1.0
    if body[-1:] in FACTORS:
        factor = FACTORS[body[-1]]
        body = body[:-1].strip()
    try:
        value = float(body) * factor
    except ValueError:
        value = -1.0
    if not 0 <= value < 1e12:
        raise RiktigError(
            f"“{text.strip()}” cannot be read as a resistance, so nothing was recorded.",
            hint="Type ohms such as 0.3, 1.2 k or 5 M, or “open”.",
        )
    return value


def without_leads(ohm: float, zero: float) -> float:
    """A reading less what the leads read short-circuited, ohm; never below nothing.

    Args:
        ohm: The reading; infinite for open.
        zero: What the leads read.
    """
    return max(ohm - zero, 0.0)


def judge(test: Test, ohm: float, zero: float = 0.0) -> Outcome:
    """Passed when the reading, the leads taken off, lies in the expected range.

    Args:
        test: The test.
        ohm: The reading, ohm; infinite for open.
        zero: What the leads read short-circuited, ohm.
    """
    return Outcome.PASSED if test.expected.passes(without_leads(ohm, zero)) else Outcome.FAILED


def reading_facts(
    test: Test, outcome: Outcome, *, ohm: float | None, meter: str, reason: str = "", zero: float = 0.0
) -> ReadingTaken:
    """What a reading says: recorded with it, and compared ever after.

    Args:
        test: The test.
        outcome: Passed, failed or skipped.
        ohm: The reading, ohm; infinite for open, None when nothing was read.
        meter: The instrument that was read, with its serial number and calibration.
        reason: Why, in the words of whoever did it.
        zero: What its leads read short-circuited, ohm.
    """
    return ReadingTaken(
        outcome,
        "" if ohm is None else repr(ohm),
        meter,
        reason,
        test.title,
        f"{test.black.label} to {test.red.label}",
        test.expected.text,
        test.true_of,
        test.switch_state,
        test.expected.low,
        None if test.expected.high == OPEN_LINE else test.expected.high,
        zero,
    )


def results_of(plan: TestPlan, records: Iterable[Record]) -> Results:
    """Outcomes from the log: the last reading of a test counts, while what it is true of holds.

    Args:
        plan: All tests of the panel.
        records: The log, oldest first.

    Returns:
        The outcomes by test.
    """
    return log_of(records).get(_RESULTS, plan).results


@dataclass(frozen=True, slots=True)
class _Known:
    """The results with where each test is, and what is out of date of what."""

    results: Results
    places: dict[str, int]
    stale: dict[str, Stale]


def _known_anew(plan: TestPlan, log: Log) -> _Known:
    present = plan.present
    for test in plan.tests if not present else ():
        facts = reading_facts(test, Outcome.OPEN, ohm=None, meter="")
        present[slot_of(test.key, facts)] = facts
    places = {test.key: place for place, test in enumerate(plan.tests)}
    counts = Counter((test.stage, Outcome.OPEN) for test in plan.tests)
    unread = _Known(Results(tuple((test, None) for test in plan.tests), (), counts), places, {})
    return _known_further(unread, plan, log, log)


def _known_further(before: _Known, plan: TestPlan, log: Log, new: Sequence[Record]) -> _Known:
    """The results after further entries: of the tests that they are about."""
    touched = dict.fromkeys(meant.subject for meant in map(log.meant, new) if isinstance(meant.facts, ReadingTaken))
    if not touched:
        return before
    readings, stale, totals = list(before.results.readings), dict(before.stale), Counter(before.results.counts)
    for key in touched:
        place = before.places.get(key)
        record = last_word(log, Slot(ReadingTaken, key))
        counts: CountedReading | None = None
        stale.pop(key, None)
        if record and isinstance(record.facts, ReadingTaken):
            now = plan.present.get(Slot(ReadingTaken, key))
            why = why_not(record.facts, now, subject_is_known=place is not None)
            if why:
                title = record.facts.title if place is None else plan.tests[place].title
                stale[key] = Stale(key, title, "reading", why)
            else:
                counts = _reading(record, record.facts)
        if place is not None:
            test, was = readings[place]
            totals[test.stage, was.outcome if was else Outcome.OPEN] -= 1
            totals[test.stage, counts.outcome if counts else Outcome.OPEN] += 1
            readings[place] = (test, counts)
    last = len(readings)
    in_order = sorted(stale, key=lambda key: before.places.get(key, last))
    results = Results(tuple(readings), tuple(stale[key] for key in in_order), totals)
    return _Known(results, before.places, stale)


_RESULTS = FromLog[TestPlan, _Known]("results of the dead tests", _known_anew, _known_further)


def _reading(record: Record, facts: ReadingTaken) -> CountedReading:
    ohm = float(facts.ohm) if facts.ohm else None
    return CountedReading(facts.outcome, ohm, record.who, record.when, facts.meter, facts.reason, facts.zero)
