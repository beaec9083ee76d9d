"""The parts of the job that results read: an edit that leaves one alone leaves what reads it alone."""

from collections.abc import Callable
from typing import TypeVar, get_type_hints

from riktig.core.evaluation import DocumentPart
from riktig.core.job.job import Job

__all__ = [
    "JOB_CABLES",
    "JOB_CIRCUITS",
    "JOB_CLIENT",
    "JOB_DOOR",
    "JOB_DOORS",
    "JOB_DRAWING_NUMBER",
    "JOB_ENCLOSURE",
    "JOB_JOINS",
    "JOB_JUMPERS",
    "JOB_LABEL_SHEETS",
    "JOB_LABEL_TEXTS",
    "JOB_LAST_NUMBER",
    "JOB_LID_GAP",
    "JOB_LOADS",
    "JOB_MADE",
    "JOB_MAKER",
    "JOB_MARKS",
    "JOB_NUMBER",
    "JOB_NUMBERS",
    "JOB_ONE_CONDUCTOR",
    "JOB_OPENINGS",
    "JOB_OVERRIDES",
    "JOB_PARTS",
    "JOB_PICKS",
    "JOB_PLATE",
    "JOB_PRACTICE",
    "JOB_PRINTED",
    "JOB_REVISION",
    "JOB_SCRIPTS",
    "JOB_SERIAL",
    "JOB_SHELF",
    "JOB_SIGNALS",
    "JOB_SOURCES",
    "JOB_SOURCES_ASKED",
    "JOB_STANDARD",
    "JOB_STRIPS",
    "JOB_SUPPLY",
    "JOB_TAGS",
    "JOB_TITLE",
    "JOB_UNMARKED",
    "JOB_VENTILATION",
    "JOB_WIRE_ORDERS",
]

T = TypeVar("T")
_CLASSES = get_type_hints(Job)


def _part(name: str, read: Callable[[Job], T]) -> DocumentPart[Job, T]:
    return DocumentPart(name, read, _CLASSES.get(name))


JOB_NUMBER = _part("number", lambda job: job.number)
JOB_TITLE = _part("title", lambda job: job.title)
JOB_CLIENT = _part("client", lambda job: job.client)
JOB_DRAWING_NUMBER = _part("drawing_number", lambda job: job.drawing_number)
JOB_REVISION = _part("revision", lambda job: job.revision)
JOB_MAKER = _part("maker", lambda job: job.maker)
JOB_SERIAL = _part("serial", lambda job: job.serial)
JOB_MADE = _part("made", lambda job: job.made)
JOB_STANDARD = _part("standard", lambda job: job.standard)
JOB_MARKS = _part("marks", lambda job: job.marks)
JOB_SUPPLY = _part("supply", lambda job: job.supply)
JOB_PRACTICE = _part("practice", lambda job: job.practice)
JOB_ENCLOSURE = _part("enclosure", lambda job: job.enclosure)
JOB_LOADS = _part("loads", lambda job: job.loads)
JOB_CIRCUITS = _part("circuits", lambda job: job.circuits)
JOB_PLATE = _part("plate", lambda job: job.plate)
JOB_TAGS = _part("tags", lambda job: job.tags)
JOB_NUMBERS = _part("numbers", lambda job: job.numbers)
JOB_LAST_NUMBER = _part("last_number", lambda job: job.last_number)
JOB_PRINTED = _part("printed", lambda job: job.printed)
JOB_SOURCES = _part("sources", lambda job: job.sources)
JOB_SOURCES_ASKED = _part("sources_asked", lambda job: job.sources_asked)
JOB_SIGNALS = _part("signals", lambda job: job.signals)
JOB_OVERRIDES = _part("overrides", lambda job: job.overrides)
JOB_SCRIPTS = _part("scripts", lambda job: job.scripts)
JOB_PARTS = _part("parts", lambda job: job.parts)
JOB_PICKS = _part("picks", lambda job: job.picks)
JOB_JOINS = _part("joins", lambda job: job.joins)
JOB_SHELF = _part("shelf", lambda job: job.shelf)
JOB_WIRE_ORDERS = _part("wire orders", lambda job: job.wire_orders)
JOB_ONE_CONDUCTOR = _part("clamps for one conductor", lambda job: job.one_conductor)
JOB_LABEL_SHEETS = _part("label sheets", lambda job: job.label_sheets)
JOB_LABEL_TEXTS = _part("label texts", lambda job: job.label_texts)
JOB_UNMARKED = _part("wires without markers", lambda job: job.unmarked)
JOB_CABLES = _part("cables", lambda job: job.cables)
JOB_JUMPERS = _part("jumpers", lambda job: job.jumpers)
JOB_PEOPLE = _part("people", lambda job: job.people)
JOB_STRIPS = _part("strips", lambda job: job.strips)
JOB_DOOR = _part("door", lambda job: job.door)
JOB_OPENINGS = _part("openings", lambda job: job.openings)
JOB_VENTILATION = _part("ventilation", lambda job: job.enclosure.ventilation)
JOB_DOORS = _part("doors", lambda job: job.enclosure.doors)
JOB_LID_GAP = _part("lid gap", lambda job: job.practice.lid_gap)
