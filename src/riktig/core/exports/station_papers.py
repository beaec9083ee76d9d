"""The papers of one station: its drawings and lists as one PDF, to look at and to print by themselves."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from pathlib import Path

from riktig.core.evaluation import Evaluation
from riktig.core.exports.lists import schedule
from riktig.core.exports.paper_sets import batch_card_sheets, drawings_of, head_of, label_sheets, paper_of
from riktig.core.exports.pdf_document import write_set
from riktig.core.exports.record import build_record, inspection_record, judgement_record, test_record
from riktig.core.exports.schedule_model import Schedule
from riktig.core.exports.verification import live_record, verification_record
from riktig.core.exports.work_record import change_record, note_record, work_record
from riktig.core.job import Job
from riktig.core.records import Record, log_of

__all__ = ["STATION_PAPERS", "StationPaper", "write_station_papers"]

RecordList = Callable[[Evaluation[Job], Iterable[Record]], Schedule]


@dataclass(frozen=True, slots=True)
class StationPaper:
    """What is printed of a station.

    ``kinds`` are kinds of drawings as ``drawings_of`` names them, ``labels`` adds every label at true size, ``cards``
    the cards of the batches of wires;
    ``numbered`` papers carry wire numbers, which are given to nothing else once they are on paper.
    """

    kinds: tuple[str, ...] = ()
    lists: tuple[str, ...] = ()
    records: tuple[RecordList, ...] = ()
    labels: bool = False
    cards: bool = False
    numbered: bool = False


STATION_PAPERS: dict[str, StationPaper] = {
    "Brief": StationPaper(lists=("loads", "sources", "signals", "practice", "sizing")),
    "Circuits": StationPaper(("sheets",), ("behaviour", "returns", "io"), numbered=True),
    "Plate": StationPaper(("plate",), ("places", "holes", "cuts", "bars")),
    "Door": StationPaper(("door", "gland", "side"), ("operators", "openings", "entries")),
    "Wires": StationPaper(
        lists=("wires", "batches", "cutting", "colours", "drums", "loom", "network", "neutrals", "tally"),
        cards=True,
        numbered=True,
    ),
    "Terminals": StationPaper(("strips",), ("terminals", "cables", "routes"), numbered=True),
    "Labels": StationPaper(labels=True, numbered=True),
    "Rules": StationPaper(
        ("rating",), lists=("findings", "clauses", "rating", "ways"), records=(judgement_record, inspection_record)
    ),
    "Build": StationPaper(
        lists=("picks", "wires"), records=(work_record, build_record, change_record, note_record), numbered=True
    ),
    "Prove": StationPaper(
        lists=("tests", "box", "live"), records=(test_record, live_record, verification_record), numbered=True
    ),
    "Hand over": StationPaper(lists=("bom", "site", "restart", "losses")),
}
"""By station; each list that is empty is left out."""


def write_station_papers(
    evaluation: Evaluation[Job], records: Iterable[Record], station: str, path: Path, *, made: str = "", who: str = ""
) -> int:
    """Writes the papers of a station as one PDF; the same input gives the same file.

    Args:
        evaluation: Of the job.
        records: Of the job.
        station: The name of the station, one of ``STATION_PAPERS``.
        path: Where it is written; an existing file is replaced.
        made: The day, for the title blocks; "" for none.
        who: Who prints it.

    Returns:
        How many drawings and lists there are; with none, nothing is written.
    """
    paper, log, job = STATION_PAPERS[station], log_of(records), evaluation.document
    drawings = drawings_of(evaluation) if paper.kinds else []
    pages = [page for kind, page in drawings if kind in paper.kinds]
    if paper.labels:
        pages += label_sheets(evaluation)
    if paper.cards:
        pages += batch_card_sheets(evaluation)
    tables = [schedule(name, evaluation) for name in paper.lists]
    tables += [of(evaluation, log) for of in paper.records] if log else []
    tables = [table for table in tables if table.rows]
    if pages or tables:
        write_set(path, head_of(job, made, who), pages, tables, paper=paper_of(job))
    return len(pages) + len(tables)
