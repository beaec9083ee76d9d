"""Two benches on one job of the shop's server: from a tick at the one until the other shows it, and what a tick takes.

Run: PYTHONPATH=. .venv/bin/python benchmarks/server.py   (PostgreSQL is started on a port of its own)
"""

import os
import statistics
import tempfile
import time
from pathlib import Path

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

import psycopg
from PySide6.QtCore import QObject
from tests.server.conftest import OWNER, TABLES, Cluster
from tests.waiting import let_pass
from wires import panel

from riktig.core.records import NoteKept, Record
from riktig.core.store import JobFile
from riktig.desk.app import application
from riktig.desk.server import ServerBench
from riktig.desk.session import Session
from riktig.server.address import ServerAddress
from riktig.server.connecting import engine_for
from riktig.server.moving import put
from riktig.server.opening import open_server_job

RUNS = 21
NOW = "2026-12-01T08:00:00+01:00"
ENTRIES = 5000
"""So many are in the log from the start."""


def main() -> None:
    """Prints the medians."""
    application()
    cluster = Cluster()
    try:
        with tempfile.TemporaryDirectory() as folder:
            _measure(cluster, Path(folder))
    finally:
        cluster.remove()


def _measure(cluster: Cluster, folder: Path) -> None:
    for database, commands in (
        ("postgres", [b"CREATE DATABASE shop"]),
        ("shop", [TABLES.read_bytes(), *_people("ida", "eve")]),
    ):
        with psycopg.connect(host="127.0.0.1", port=cluster.port, user=OWNER, dbname=database, autocommit=True) as db:
            for command in commands:
                db.execute(command)
    address = cluster.address("ida", "shop", "job")
    file = JobFile.create(folder / "job.riktig", panel(40), who="Ida", at=NOW)
    file.add_records([Record(f"r{n}", "job", NoteKept(str(n), "job"), "Ida", NOW, 1) for n in range(ENTRIES)])
    engine = engine_for(address)
    put(engine, address, file)
    engine.dispose()
    file.close()
    parent = QObject()
    first, second = (_bench(parent, folder / name, cluster.address(name, "shop", "job")) for name in ("ida", "eve"))
    for _ in range(100):
        let_pass(10)
    ticks, seen = [], []
    for n in range(RUNS):
        known = len(second.session.records)
        begin = time.perf_counter()
        first.session.record("job", NoteKept(f"tick {n}", "job"))
        ticks.append((time.perf_counter() - begin) * 1000)
        while len(second.session.records) == known:
            let_pass(2)
        seen.append((time.perf_counter() - begin) * 1000)
        let_pass(50)
    print(f"{ENTRIES} entries in the log, 40 motors")
    print(f"a tick, durable at its bench    {statistics.median(ticks):8.1f} ms, at most {max(ticks):.1f}")
    print(f"until the other bench has it    {statistics.median(seen):8.1f} ms, at most {max(seen):.1f}")
    for bench in (first, second):
        bench.end()
        bench.session.close()


def _people(*names: str) -> list[bytes]:
    lines = []
    for name in names:
        lines.append(f"CREATE ROLE {name} LOGIN PASSWORD 'wire'".encode())
        lines.append(f"GRANT riktig_people TO {name}".encode())
        lines.append(f"INSERT INTO riktig.person VALUES ('{name}', true, true, true, true)".encode())
    return lines


def _bench(parent: QObject, folder: Path, address: ServerAddress) -> ServerBench:
    session = Session(who=folder.name)
    bench = ServerBench(session, parent)
    engine = engine_for(address)
    session.open(open_server_job(engine, address, folder, who=folder.name))
    engine.dispose()
    return bench


if __name__ == "__main__":
    main()
