"""How long a record and an edit take until they are durable, through the whole job file, signed.

Run: .venv/bin/python benchmarks/record.py [FOLDER]
"""

import statistics
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

from riktig.core.records import Operation, Record, Signer, WireDone, new_private_key
from riktig.core.store import JobFile
from riktig.demo_job import DEMOS


def main(folder: Path) -> None:
    """Prints medians and the slowest of twenty."""
    with tempfile.TemporaryDirectory(dir=folder) as name:
        job = DEMOS["kelp-shed"]()
        file = JobFile.create(Path(name) / "a.riktig", job, who="Ida", at="t", signer=Signer(new_private_key()))

        def record(number: int) -> None:
            facts = WireDone(Operation.CUT, length=600.0)
            file.add_records([Record(f"r{number}", "w", facts, "Ida", "t", 1)])

        def edit(number: int) -> None:
            file.add_revision(job, who="Ida", at="t", why=str(number))

        for what, act, count in (("record", record, 300), ("edit", edit, 60)):
            print(f"{what:8} {_times(act, count)}")
        begin = time.perf_counter()
        file.close()
        again = JobFile(file.path, who="Ida")
        again.job(), again.records()
        again.close()
        size = file.path.stat().st_size / 1e6
        print(f"close and open again, {size:.1f} MB: {(time.perf_counter() - begin) * 1000:.0f} ms")


def _times(act: Callable[[int], None], count: int) -> str:
    taken = []
    for number in range(count):
        begin = time.perf_counter()
        act(number)
        taken.append((time.perf_counter() - begin) * 1000)
    taken.sort()
    return f"median {statistics.median(taken):.2f} ms, 95 of 100 under {taken[int(count * 0.95)]:.2f} ms"


if __name__ == "__main__":
    main(Path(sys.argv[1]) if len(sys.argv) > 1 else Path.cwd())
