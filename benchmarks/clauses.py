"""All clauses of a job of forty motors from scratch, and again after one edit of each kind.

Run: .venv/bin/python benchmarks/clauses.py
"""

from collections.abc import Callable
from statistics import median
from time import perf_counter

from wires import panel

from riktig.core.evaluation import Evaluation
from riktig.core.ids import DeviceId
from riktig.core.job import Job, change_load, set_enclosure, set_heading, set_practice, set_supply
from riktig.core.plate import LAYOUT, move_block
from riktig.core.rules import RULES, VIEW
from riktig.core.schematic import with_names_recorded

EDITS: dict[str, Callable[[Job, int], Job]] = {
    "heading": lambda job, n: set_heading(job, client=f"client {n}"),
    "height of the box": lambda job, n: set_enclosure(job, above_floor=300.0 + n),
    "room temperature": lambda job, n: set_enclosure(job, room_c=25.0 + n / 10),
    "upstream, A": lambda job, n: set_supply(job, upstream_a=630.0 + n),
    "name of a load": lambda job, n: change_load(job, job.loads[3].id, name=f"fan {n}"),
    "cable of a load": lambda job, n: change_load(job, job.loads[3].id, cable_m=20.0 + n),
    "spare room": lambda job, n: set_practice(job, spare_share=0.1 + n / 1000),
}
TIMES = 7


def main() -> None:
    """Says the medians, and how many clauses read something new."""
    job = with_names_recorded(panel(40))
    scratch = []
    for _ in range(5):
        evaluation = Evaluation(job)
        evaluation.get(VIEW)
        begun = perf_counter()
        evaluation.get(RULES)
        scratch.append(perf_counter() - begun)
    print(f"from scratch {median(scratch) * 1000:6.1f} ms")
    evaluation = Evaluation(job)
    evaluation.get(RULES)
    for name, edit in EDITS.items():
        say(name, [edit(job, n) for n in range(1, TIMES + 1)], evaluation)
    layout = evaluation.get(LAYOUT)
    moved = [move_block(job, layout, DeviceId("c4.F"), 1, 300.0 + 10 * n) for n in range(TIMES)]
    say("a part moved", moved, evaluation)


def say(name: str, jobs: list[Job], evaluation: Evaluation[Job]) -> None:
    """The clauses alone, after everything they read has been derived."""
    taken = []
    for job in jobs:
        evaluation.move_to(with_names_recorded(job))
        evaluation.get(VIEW)
        begun = perf_counter()
        evaluation.get(RULES)
        taken.append(perf_counter() - begun)
    print(f"{name:20} {median(taken) * 1000:6.1f} ms")


if __name__ == "__main__":
    main()
