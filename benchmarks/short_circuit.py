"""The short-circuit rating and all clauses of a job of forty motors, in both markets.

Run: .venv/bin/python benchmarks/short_circuit.py
"""

from bench import median_ms
from wires import panel

from riktig.core.evaluation import Evaluation
from riktig.core.job import Job, Rulebook, set_practice
from riktig.core.rules import CLAUSES, VIEW
from riktig.core.schematic import NAMES, with_names_recorded
from riktig.core.short_circuit import POWER_PATHS, rate_iec, rate_north_american, ways_to


def main() -> None:
    """Says the medians."""
    for rulebook in (Rulebook.IEC, Rulebook.UL):
        measure(with_names_recorded(set_practice(panel(40), rulebook=rulebook)))


def measure(job: Job) -> None:
    """The rating, the ways to more, and all clauses."""
    evaluation = Evaluation(job)
    paths, tags = evaluation.get(POWER_PATHS), evaluation.get(NAMES).tag
    supply, practice = job.supply, job.practice
    print(practice.rulebook.value, f"{len(paths.parts)} parts of power circuits")
    if practice.rulebook.north_american:
        print(f"rating   {median_ms(lambda: rate_north_american(paths, supply, tags)):8.1f} ms")
        print(f"ways     {median_ms(lambda: ways_to(65.0, paths, supply, tags, 120.0)):8.1f} ms")
    else:
        print(f"rating   {median_ms(lambda: rate_iec(paths, supply, 6.0, tags)):8.1f} ms")
    view = evaluation.get(VIEW)

    def judged() -> None:
        view._once.clear()
        for clause in CLAUSES:
            clause(view)

    print(f"clauses  {median_ms(judged):8.1f} ms")


if __name__ == "__main__":
    main()
