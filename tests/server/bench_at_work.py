"""A bench of its own process: records one thing after the other, hands in now and then, and is cut off at random."""

import sys
from contextlib import suppress
from pathlib import Path
from random import Random
from time import monotonic, sleep

from riktig.core.records import NoteKept, Record
from riktig.server.address import read_address
from riktig.server.connecting import NoServerError, engine_for
from riktig.server.exchange import exchange
from riktig.server.opening import open_server_job
from riktig.server.server_job import ServerJob

NOW = "2026-12-01T08:00:00+01:00"
LONGEST_S = 120.0


def main(url: str, folder: str, name: str, count: int) -> None:
    address = read_address(url)
    engine, chance = engine_for(address), Random(name)
    job = open_server_job(engine, address, Path(folder), who=name)
    sys.stdout.write("open\n")
    sys.stdout.flush()

    def swap() -> None:
        job.take(exchange(engine, address, job.known(), job.waiting))

    for n in range(count):
        job.add_records([Record(f"{name}-{n}", "job", NoteKept(f"{n}", "job"), name, NOW, 1)])
        if chance.random() < 0.02:  # what a power cut at the bench does: the file is opened anew
            job.close()
            job = ServerJob(job.path, address, who=name)
        if chance.random() < 0.1:
            with suppress(NoServerError):
                swap()
    end = monotonic() + LONGEST_S
    while job.waiting and monotonic() < end:
        with suppress(NoServerError):
            swap()
        sleep(0.05)
    sys.stdout.write(f"{len(job.waiting.entries)}\n")
    job.close()
    engine.dispose()


if __name__ == "__main__":
    main(sys.argv[1], sys.argv[2], sys.argv[3], int(sys.argv[4]))
