"""The shop board: every job of the server, how it stands, what blocks it, and who is on it."""

from dataclasses import dataclass

from sqlalchemy import func, select
from sqlalchemy.engine import Engine

from riktig.server.address import ServerAddress
from riktig.server.connecting import rights_of, server_errors
from riktig.server.tables import BENCH, HEAD, JOB, STANDING

__all__ = ["BoardRow", "board_lines", "shop_board"]

THERE_S = 60
"""A bench that said nothing for so long is not there any more (three times what a bench is silent at most)."""


@dataclass(frozen=True, slots=True)
class BoardRow:
    """One job of the shop: ``here`` are the people at its benches now, ``minutes_left`` what its plan still asks."""

    job: str
    number: str = ""
    title: str = ""
    stage: str = ""
    blocks: str = ""
    minutes_left: int = 0
    here: tuple[str, ...] = ()
    entries: int = 0

    @property
    def hours(self) -> str:
        """What is left, in words."""
        return f"{self.minutes_left // 60} h {self.minutes_left % 60:02} min" if self.stage else "not known"


def shop_board(engine: Engine, address: ServerAddress) -> tuple[BoardRow, ...]:
    """All jobs, those with somebody at them first.

    Args:
        engine: The way to the server.
        address: The server.

    Raises:
        RiktigError: it cannot be reached or says no.
    """
    with server_errors(address), engine.begin() as db:
        rights_of(db, address)
        fresh = BENCH.c.seen > func.now() - func.make_interval(0, 0, 0, 0, 0, 0, THERE_S)
        here: dict[str, list[str]] = {}
        query = select(BENCH.c.job, BENCH.c.bench, BENCH.c.who).where(fresh).order_by(BENCH.c.who)
        for job, bench, who in db.execute(query):
            here.setdefault(job, []).append(f"{who} ({bench})" if who else bench)
        joined = JOB.outerjoin(STANDING, STANDING.c.job == JOB.c.name).outerjoin(HEAD, HEAD.c.job == JOB.c.name)
        columns = (
            JOB.c.name, STANDING.c.number, STANDING.c.title, STANDING.c.stage, STANDING.c.blocks,
            STANDING.c.minutes_left, HEAD.c.entries,
        )  # fmt: skip
        rows = [
            BoardRow(
                name, number or "", title or "", stage or "", blocks or "", int(minutes or 0),
                tuple(here.get(name, ())), int(entries or 0),
            )
            for name, number, title, stage, blocks, minutes, entries in db.execute(select(*columns).select_from(joined))
        ]  # fmt: skip
    return tuple(sorted(rows, key=lambda row: (not row.here, row.job.casefold())))


def board_lines(rows: tuple[BoardRow, ...]) -> list[tuple[str, ...]]:
    """The board as a table, with its headings first.

    Args:
        rows: What ``shop_board`` returned.
    """
    heading = ("Job", "Number", "Title", "Stage", "Left to do", "What blocks", "Who is on it")
    lines = [
        (row.job, row.number, row.title, row.stage or "not begun", row.hours, row.blocks, ", ".join(row.here))
        for row in rows
    ]
    return [heading, *lines]
