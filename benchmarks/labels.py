"""How long labels take: 5,000 of them as a PDF, and the list of those that changed in a job of 1,000 wires.

Aims: 5 s and 50 ms. Run: .venv/bin/python benchmarks/labels.py
"""

from dataclasses import replace
from pathlib import Path
from statistics import median
from tempfile import TemporaryDirectory
from time import perf_counter

from riktig.core.evaluation import Evaluation
from riktig.core.exports import export_drawings
from riktig.core.job import Job, Supply, add_load, change_load, new_job
from riktig.core.labels import LABELS, Medium, label_changes, label_pages, print_entries
from riktig.core.records import Record
from riktig.core.schematic import with_names_recorded
from riktig.core.wiring import WIRING

RUNS = 5


def many_motors(count: int) -> Job:
    """A panel of direct starters."""
    job = replace(new_job("B", "labels"), supply=Supply(upstream_a=400.0), sources_asked=True)
    for number in range(count):
        job = add_load(job, f"belt {number + 1}", 1.5, run_lamp=True)
    return with_names_recorded(job)


def main() -> None:
    """Prints medians."""
    evaluation = Evaluation(many_motors(42))
    labels = evaluation.get(LABELS)
    print(f"{len(evaluation.get(WIRING).wires)} wires, {sum(label.copies for label in labels.labels)} labels")
    some = labels.on(Medium.WIRE)
    five_thousand = (some * (5000 // len(some) + 1))[:5000]
    times = []
    with TemporaryDirectory() as folder:
        for run in range(RUNS):
            begin = perf_counter()
            pages = label_pages(labels, Medium.WIRE, five_thousand)
            export_drawings(evaluation, pages, Path(folder) / f"{run}.pdf", to_scale=True)
            times.append(perf_counter() - begin)
    print(f"5,000 labels to PDF: {median(times):.2f} s (aim 5)")
    log: list[Record] = []
    for medium in Medium:
        for entry in print_entries(labels, medium):
            log.append(Record(str(len(log)), entry.subject, entry.facts, "Ida", "2026-12-01T10:00:00+00:00", 1))
    after = Evaluation(change_load(evaluation.document, evaluation.document.loads[3].id, name="lift")).get(LABELS)
    times = []
    for _ in range(RUNS):
        begin = perf_counter()
        changes = label_changes(after, log)
        times.append(perf_counter() - begin)
    print(f"{len(changes)} changes in {len(log)} printed labels: {1000 * median(times):.0f} ms (aim 50)")


if __name__ == "__main__":
    main()
