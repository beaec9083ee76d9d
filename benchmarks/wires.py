"""Wires: how long they take from scratch, after one moved part, how near chains are to the least, what batches cost.

Run: .venv/bin/python benchmarks/wires.py
"""

import statistics
import time
from collections.abc import Sequence
from itertools import combinations, pairwise

import networkx as nx
import numpy as np
from numpy.typing import NDArray

from riktig.core.door import DOOR
from riktig.core.evaluation import Evaluation
from riktig.core.job import Job, add_load, new_job, set_enclosure
from riktig.core.plate import LAYOUT, move_block
from riktig.core.schematic import CIRCUITS, NETS, with_names_recorded
from riktig.core.wiring import WIRING, Router, Wiring, best_path, work_compared
from riktig.core.wiring.derived import WIRING_INPUTS
from riktig.demo_job import kelp_shed

MOST_EXACT = 12


def panel(motors: int) -> Job:
    """Motors of three sizes with run and trip lamps, on a plate that holds them."""
    job = new_job("B", "benchmark")
    for n in range(motors):
        job = add_load(job, f"fan {n}", (0.75, 1.5, 4.0)[n % 3], run_lamp=True, trip_lamp=True)
    side = 900.0 + 60.0 * motors**0.5 * 4
    job = set_enclosure(job, width=side, height=side, plate_width=side - 50, plate_height=side - 50)
    return with_names_recorded(job)


def from_scratch(job: Job) -> Wiring:
    """All wires, everything they follow from being known."""
    evaluation = Evaluation(job)
    evaluation.get(WIRING_INPUTS)
    begin = time.perf_counter()
    wiring = evaluation.get(WIRING)
    TIMES.append(time.perf_counter() - begin)
    return wiring


TIMES: list[float] = []


def speed() -> None:
    """From scratch by size, and after one moved part."""
    for motors in (10, 40, 80):
        job = panel(motors)
        TIMES.clear()
        for _ in range(5):
            wiring = from_scratch(job)
        print(f"{motors:4} motors, {len(wiring.wires):5} wires from scratch {statistics.median(TIMES) * 1000:8.0f} ms")
        evaluation = Evaluation(job)
        evaluation.get(WIRING)
        stands = [stand for stand in evaluation.get(LAYOUT).stands if stand.rail]
        found = []
        for n in range(5):
            stand = stands[-1 - n]
            moved = move_block(evaluation.document, evaluation.get(LAYOUT), stand.block.lead, stand.rail, stand.x + 0.5)
            evaluation.move_to(moved)
            evaluation.get(WIRING_INPUTS)
            begin = time.perf_counter()
            evaluation.get(WIRING)
            found.append(time.perf_counter() - begin)
        print(f"{'':24} after one moved part {statistics.median(found) * 1000:8.0f} ms")


def least_path(lengths: NDArray[np.float64]) -> float:
    """The shortest way through all, by Held and Karp: every set of clamps with every last one."""
    count = len(lengths)
    best = {(1 << n, n): 0.0 for n in range(count)}
    for size in range(2, count + 1):
        for members in combinations(range(count), size):
            whole = sum(1 << n for n in members)
            for last in members:
                before = whole & ~(1 << last)
                best[whole, last] = min(best[before, n] + lengths[n, last] for n in members if n != last)
    return min(best[(1 << count) - 1, n] for n in range(count))


def gaps(name: str, job: Job) -> None:
    """How much longer chains are than the least: exact up to a dozen clamps, beyond by the least tree."""
    evaluation = Evaluation(job)
    wiring, nets = evaluation.get(WIRING), evaluation.get(NETS)
    router = Router(
        evaluation.get(LAYOUT), evaluation.get(DOOR), evaluation.get(CIRCUITS).devices, job.enclosure, job.practice
    )
    small: list[float] = []
    large: list[float] = []
    for net in nets.nets:
        ends = {end.pin for wire in wiring.wires if wire.net == net.id for end in (wire.start, wire.end)}
        pins = sorted(ends)
        if len(pins) < 4 or len(pins) > 80:
            continue
        lengths = router.lengths(pins)
        chain = best_path(pins, set(), lengths)
        at = {pin: n for n, pin in enumerate(pins)}
        own = sum(lengths[at[a], at[b]] for a, b in pairwise(chain))
        if len(pins) <= MOST_EXACT:
            small.append(own / least_path(lengths) - 1)
        else:
            large.append(own / tree(lengths) - 1)
    most = (max(small, default=0.0) * 100, max(large, default=0.0) * 100)
    print(f"{name}: {len(small)} chains of up to {MOST_EXACT}, at most {most[0]:.2f} % over the least")
    print(f"{name}: {len(large)} longer ones, at most {most[1]:.1f} % over the least tree, which no chain beats")


def tree(lengths: NDArray[np.float64]) -> float:
    """The least tree that joins all: no chain is shorter."""
    graph: nx.Graph[int] = nx.Graph()
    graph.add_weighted_edges_from((a, b, lengths[a, b]) for a, b in combinations(range(len(lengths)), 2))
    return float(nx.minimum_spanning_tree(graph).size(weight="weight"))


def batches(jobs: Sequence[tuple[str, Job]]) -> None:
    """What the planned batches take beside exact lengths and one wire at a time."""
    for name, job in jobs:
        wiring = Evaluation(job).get(WIRING)
        work = work_compared(wiring.wires, wiring.batches, job.practice)
        for way, done in (("planned", work.planned), ("exact", work.exact), ("alone", work.one_at_a_time)):
            print(f"{name}, {way}: {done.minutes:.0f} min, {done.waste / 1000:.1f} m trimmed off")


if __name__ == "__main__":
    speed()
    gaps("kelp shed", kelp_shed())
    gaps("40 motors", panel(40))
    batches((("kelp shed", kelp_shed()), ("40 motors", panel(40))))
