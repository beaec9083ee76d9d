"""The papers that speak of what was done: the build record and the test record."""

from collections.abc import Iterable

from riktig.core.build import Operation, progress_of
from riktig.core.job import Job, Record
from riktig.core.papers.schedules import Schedule
from riktig.core.plan import Plan
from riktig.core.prove import TESTS, results_of
from riktig.core.wiring import WIRING

__all__ = ["build_record", "missing_papers", "test_record"]


def build_record(plan: Plan[Job], records: Iterable[Record]) -> Schedule:
    """Every wire with who did what and when; what is out of date is not shown as done."""
    progress = progress_of(plan.get(WIRING), records)
    rows = []
    for state in progress.states:
        done = dict(state.done)
        cells = [f"{done[one].who} {done[one].when[:16]}" if one in done else "" for one in Operation]
        rows.append((state.wire.number, state.wire.start.label, state.wire.end.label, *cells))
    columns = (
        ("number", "Number"),
        ("from", "From"),
        ("to", "To"),
        *((one.name.lower(), one.value.capitalize()) for one in Operation),
    )
    return Schedule("build record", "Build record", columns, tuple(rows))


def test_record(plan: Plan[Job], records: Iterable[Record]) -> Schedule:
    """Every test with its reading and verdict; a reading out of date counts as to do."""
    results = results_of(plan.get(TESTS), tuple(records))
    rows = []
    for test, reading in results.readings:
        said = (
            (reading.text, reading.outcome.value, reading.meter, reading.who, reading.when[:16])
            if reading
            else ("", "to do", "", "", "")
        )
        rows.append((test.stage.value, test.title, test.black.label, test.red.label, test.expected.text, *said))
    columns = (
        ("stage", "Stage"),
        ("title", "Test"),
        ("black", "Black"),
        ("red", "Red"),
        ("expected", "Expected"),
        ("reading", "Reading"),
        ("verdict", "Verdict"),
        ("meter", "Meter"),
        ("who", "Who"),
        ("when", "When"),
    )
    return Schedule("test record", "Record of the dead tests", columns, tuple(rows))


def missing_papers(plan: Plan[Job], records: Iterable[Record]) -> tuple[str, ...]:
    """What the papers still lack, in words."""
    kept = tuple(records)
    missing = []
    progress = progress_of(plan.get(WIRING), kept)
    left = len(progress.states) - progress.complete
    if left:
        missing.append(f"{left} of {len(progress.states)} wires are not finished")
    results = results_of(plan.get(TESTS), kept)
    todo = sum(reading is None for _, reading in results.readings)
    if todo:
        missing.append(f"{todo} of {len(results.readings)} dead tests have no reading that counts")
    job = plan.document
    for name, value in (
        ("a maker", job.maker),
        ("a serial number", job.serial),
        ("a title", job.title),
        ("a drawing number", job.drawing_number),
    ):
        if not value:
            missing.append(f"the job has no {name.split(' ', 1)[1]}")
    return tuple(missing)
