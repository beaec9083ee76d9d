"""How long a job is looked for among 5,000: the first look through the folder, and each search after it.

Aim: a search under 0.2 s. Run: .venv/bin/python benchmarks/find_jobs.py
"""

import shutil
from dataclasses import replace
from pathlib import Path
from statistics import median
from tempfile import TemporaryDirectory
from time import perf_counter

from riktig.core.handover import JobIndex
from riktig.core.store import JobFile
from riktig.demo_job import DEMOS

COUNT, RUNS = 5_000, 15


def main() -> None:
    """Prints medians."""
    with TemporaryDirectory() as place:
        folder = Path(place) / "jobs"
        for number in range(20):
            (folder / f"{2000 + number}").mkdir(parents=True)
        made = []
        for name, make in DEMOS.items():
            for number in range(10):
                path = folder / f"{name}-{number}.riktig"
                job = replace(make(), serial=f"S-{name}-{number}", client=f"customer {number}")
                JobFile.create(path, job, who="Ida", at="2026-12-01").close()
                made.append(path)
        for number in range(COUNT - len(made)):
            shutil.copy(made[number % len(made)], folder / f"{2000 + number % 20}" / f"job-{number}.riktig")
        index = JobIndex(Path(place) / "index.sqlite")
        begin = perf_counter()
        count = index.refresh(folder)
        print(f"{count} jobs looked through once: {perf_counter() - begin:.1f} s")
        begin = perf_counter()
        index.refresh(folder)
        print(f"looked through again, nothing new: {perf_counter() - begin:.2f} s")
        for words in ("S-kelp-shed-7", "customer 3 fan", "drying", "no such thing"):
            times = []
            for _ in range(RUNS):
                begin = perf_counter()
                jobs = index.find(words)
                times.append(perf_counter() - begin)
            print(f"“{words}”: {len(jobs)} shown, {1000 * median(times):.0f} ms (aim 200)")


if __name__ == "__main__":
    main()
