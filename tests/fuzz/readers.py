"""Every reader of files from outside, and what is done with what it read."""

import io
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

from openpyxl import Workbook

from riktig.core.edits import Action, ChangeLoad, SetHeading, after_edits, dump_action, load_actions
from riktig.core.exports import run_panel_script
from riktig.core.imports import read_loads, read_parts
from riktig.core.inputs import read_text
from riktig.core.job import Job
from riktig.core.records import NewRecord, Operation, WireDone
from riktig.core.rules import RULES
from riktig.core.schematic import CIRCUITS, add_written, as_written, with_names_recorded
from riktig.core.simulation import read_script
from riktig.core.store import JobFile, WrittenCircuit, dump_job, dump_rungs, load_job, load_rungs, user_practice
from riktig.demo_job import DEMOS, wash_drum
from tests.shared_plan import plan_for

__all__ = ["READERS", "Reader"]

Read = Callable[[Path], None]
EXAMPLES = Path(__file__).parents[2] / "examples"


@dataclass(frozen=True)
class Reader:
    """A reader by the kind of its files: sound files to start from, and what reads one of them."""

    ending: str
    sound: Callable[[], tuple[bytes, ...]]
    read: Read
    is_json: bool = False


def _derived(job: Job) -> None:
    """A job that can be read can be derived."""
    plan_for(with_names_recorded(job)).get(RULES)


def _json_job(path: Path) -> None:
    _derived(load_job(read_text(path)))


def _job_file(path: Path) -> None:
    file = JobFile(path, who="Ida", read_only=True)
    try:
        file.job()
        file.records()
    finally:
        file.close()


def _rungs(path: Path) -> None:
    written = load_rungs(read_text(path))
    job = add_written(wash_drum(), written.title, written.devices, written.rungs)
    _derived(job)


def _script(path: Path) -> None:
    run_panel_script(plan_for(wash_drum()), read_script(read_text(path)))


def _edits(path: Path) -> None:
    actions = load_actions(read_text(path).splitlines(), path.name)
    after_edits(plan_for(wash_drum()), [(where, one) for where, one in actions if not isinstance(one, NewRecord)])


def _some_edits() -> tuple[bytes, ...]:
    job = wash_drum()
    actions: list[Action] = [
        SetHeading({"title": "another"}),
        ChangeLoad(job.loads[0].id, {"kw": 5.5, "name": "drum"}),
        NewRecord("a~b", WireDone(Operation.CUT, length=640.0)),
    ]
    return ("".join(f"{dump_action(one)}\n" for one in actions).encode(),)


def _some_rungs() -> tuple[bytes, ...]:
    circuits = plan_for(wash_drum()).get(CIRCUITS)
    found = []
    for cid, title in circuits.titles:
        devices, rungs = as_written(circuits, cid)
        if rungs:
            found.append(dump_rungs(WrittenCircuit(title, devices, rungs)).encode())
    return tuple(found)


def _workbook(rows: list[list[object]]) -> bytes:
    book = Workbook()
    sheet = book.active
    for row in rows:
        sheet.append(row)
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


LOADS: list[list[object]] = [
    ["load", "kw", "start", "place", "cable_m"],
    ["wash drum", 4, "star-delta", "bay", 14],
    ["rinse pump", 1.5, "", "bay", 9],
]
PARTS: list[list[object]] = [["ref", "kind", "width", "height", "depth"], ["Z-1", "contactor", 45, 85, 90]]


def _csv(rows: list[list[object]]) -> bytes:
    return "".join(",".join(str(cell) for cell in row) + "\n" for row in rows).encode()


def _a_file() -> tuple[bytes, ...]:
    import tempfile

    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "a.riktig"
        file = JobFile.create(path, wash_drum(), who="Ida", at="t")
        for number in range(5):
            file.add_all(None, [NewRecord("a~b", WireDone(Operation.CUT, length=600.0 + number))], who="Ida", at="t",
                         why="x", new_id=lambda n=number: f"r{n}")  # type: ignore[misc]  # fmt: skip
        file.close()
        return (path.read_bytes(),)


PRACTICE = b'{"spare_share": 0.2, "duct_width": 40.0, "tags": "class letter and running number"}'
SCRIPTS = (b'{"steps": ["press S1: K1 on", "release S1"]}', b"press S1: K1 on\n")

READERS = {
    "job json": Reader(".json", lambda: tuple(dump_job(make()).encode() for make in DEMOS.values()), _json_job, True),
    "job file": Reader(".riktig", _a_file, _job_file),
    "rungs": Reader(".json", _some_rungs, _rungs, True),
    "loads csv": Reader(".csv", lambda: (_csv(LOADS),), lambda path: void(read_loads(path))),
    "loads xlsx": Reader(".xlsx", lambda: (_workbook(LOADS),), lambda path: void(read_loads(path))),
    "parts csv": Reader(".csv", lambda: (_csv(PARTS),), lambda path: void(read_parts(path))),
    "parts xlsx": Reader(".xlsx", lambda: (_workbook(PARTS),), lambda path: void(read_parts(path))),
    "script": Reader(
        ".json", lambda: SCRIPTS, _script
    ),
    "edits": Reader(".jsonl", _some_edits, _edits),
    "practice": Reader(".json", lambda: (PRACTICE,),
                       lambda path: void(user_practice(path)), True),
}  # fmt: skip


def void(_read: object) -> None:
    """Nothing: what was read is dropped."""
