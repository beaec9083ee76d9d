"""All papers of a job: the first set of a job, and the same again. Medians of seconds, and against an empty loop.

python benchmarks/papers.py [ROUNDS]
"""

import statistics
import sys
import tempfile
import time
from pathlib import Path

from riktig.core.evaluation import Evaluation
from riktig.core.exports import Issue, export_all
from riktig.core.job import Job, add_load, new_job
from riktig.core.rules import RULES
from riktig.core.schematic import with_names_recorded
from riktig.demo_job import kelp_shed


def loop_s() -> float:
    """How long the machine takes for a loop of 10^7 now, seconds of the processor."""
    begin, count = time.process_time(), 0
    for number in range(10_000_000):
        count += number
    return time.process_time() - begin


def many_motors(count: int) -> Job:
    """A panel of so many small motors."""
    job = new_job("B-40", "many motors")
    for number in range(count):
        job = add_load(job, f"pump {number + 1}", (0.55, 1.5, 4.0)[number % 3])
    return with_names_recorded(job)


def papers_s(evaluation: Evaluation[Job]) -> float:
    """How long the papers of a job take whose plan stands, seconds of the processor."""
    with tempfile.TemporaryDirectory() as folder:
        begin = time.process_time()
        export_all(evaluation, (), Path(folder) / "papers", issue=Issue("2026-12-02", "Ida"))
        return time.process_time() - begin


def main() -> None:
    """Prints a line a job."""
    rounds = int(sys.argv[1]) if len(sys.argv) > 1 else 5
    for name, job in (("kelp shed", kelp_shed()), ("40 motors", many_motors(40))):
        evaluation = Evaluation(job)
        evaluation.get(RULES)
        pairs = [(papers_s(evaluation), loop_s()) for _ in range(rounds)]
        seconds = statistics.median(pair[0] for pair in pairs)
        ratio = statistics.median(pair[0] / pair[1] for pair in pairs)
        loop = statistics.median(pair[1] for pair in pairs)
        print(f"{name}: {seconds:.1f} s, {ratio:.1f} loops of 10^7 (one took {loop:.2f} s)")


main()
