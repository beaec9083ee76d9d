"""Why the panel is as it is: every reason that somebody gave, for the manual."""

from collections.abc import Callable, Iterator

from riktig.core.evaluation import Evaluation
from riktig.core.exports.schedule_model import Schedule, Value
from riktig.core.ids import WireId
from riktig.core.job import Job, load_of_value, word_of_value
from riktig.core.labels import INDEX, LABELS
from riktig.core.wiring import WIRING

__all__ = ["SCHEDULES"]

GONE = "no longer in the panel"


def _reasons(evaluation: Evaluation[Job]) -> Schedule:
    """What it is about, its own value or text, the reason in the words of whoever gave it, and who."""
    rows = (*_of_loads(evaluation), *_of_labels(evaluation), *_of_things(evaluation))
    columns = (("thing", "About"), ("what", "What it is"), ("reason", "Reason"), ("who", "By"))
    return Schedule("reasons", "Design reasons", columns, rows)


def _of_loads(evaluation: Evaluation[Job]) -> Iterator[tuple[Value, ...]]:
    """The reasons of loads, and of values of the builder's own."""
    job = evaluation.document
    names = {load.id: load.name for load in job.loads}
    for load in job.loads:
        if load.reason:
            yield load.name, f"load, {load.kind.value}", load.reason, ""
    for override in job.overrides:
        owner = load_of_value(override.key)
        name = "panel" if owner is None else names.get(owner, str(owner))
        yield name, f"{word_of_value(override.key)} {override.amount:g}, own value", override.reason, ""


def _of_labels(evaluation: Evaluation[Job]) -> Iterator[tuple[Value, ...]]:
    """The reasons of labels' own texts, and of wires that go without markers."""
    job = evaluation.document
    there = evaluation.get(LABELS).by_name if job.label_texts else {}
    wires = evaluation.get(WIRING).by_key if job.unmarked else {}
    for label_text in job.label_texts:
        yield (
            " / ".join(label_text.lines),
            "label, own text" if label_text.label in there else GONE,
            label_text.reason,
            "",
        )
    for excused in job.unmarked:
        wire = wires.get(WireId(excused.wire))
        what = "wire without markers" if wire else GONE
        yield wire.name if wire else excused.wire, what, excused.reason, excused.allowed_by


def _of_things(evaluation: Evaluation[Job]) -> Iterator[tuple[Value, ...]]:
    """The reasons of anything else: operators, terminals, earths, numbers, parts."""
    job = evaluation.document
    # A thing is found under several words: its tag comes first.
    entries = {str(entry.key): entry for entry in reversed(evaluation.get(INDEX).entries)} if job.reasons else {}
    for given in job.reasons:
        entry = entries.get(given.thing)
        yield (entry.label if entry else given.thing), (entry.what if entry else GONE), given.reason, given.who


SCHEDULES: dict[str, Callable[[Evaluation[Job]], Schedule]] = {"reasons": _reasons}
