"""This tree against a commit, in one run: every figure as a ratio. Medians; the two take turns.

Run: .venv/bin/python benchmarks/against.py REV [ROUNDS]

What is measured runs in a process of its own for each tree and round, so that neither warms the other. Only what
both trees have is used.
"""

import inspect
import json
import os
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from importlib import import_module
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parent.parent
Figures = dict[str, float]
COLD = """
import time; begin = time.perf_counter()
from riktig.desk.app import application, make_window
from riktig.desk.demo_file import demo_file
app = application()
window = make_window()
window.show()
app.processEvents()
window.session.open(demo_file(window.session))
window.go_to("Brief")
app.processEvents()
print(time.perf_counter() - begin)
"""


def _spine() -> tuple[Any, Any]:
    """What derives from a job, and what records its names, as the tree calls them."""
    try:
        from riktig.core.evaluation import Evaluation
        from riktig.core.schematic import with_names_recorded
    except ImportError:  # until November 2026
        return import_module("riktig.core.plan").Plan, import_module("riktig.core.circuit").settle
    return Evaluation, with_names_recorded


def worker() -> None:
    """Prints the figures of the tree on the path, in ms."""
    from riktig.core.job import Job, add_load, change_load, new_job, set_heading
    from riktig.core.rules import RULES
    from riktig.demo_job import DEMOS

    evaluate, with_names_recorded = _spine()

    found: Figures = {}

    def note(name: str, act: Callable[[int], object], runs: int) -> None:
        taken = []
        for n in range(runs):
            begin = time.perf_counter()
            act(n)
            taken.append(time.perf_counter() - begin)
        found[name] = statistics.median(taken) * 1000

    shed = DEMOS["kelp-shed"]()
    many = new_job("B", "benchmark")
    for n in range(40):
        many = add_load(many, f"fan {n}", (0.75, 1.5, 4.0)[n % 3])
    many = with_names_recorded(many)
    evaluate(shed).get(RULES)
    note("everything anew, the shed", lambda n: evaluate(shed).get(RULES), 3)
    note("everything anew, 40 motors", lambda n: evaluate(many).get(RULES), 1)

    def after_edits(name: str, job: Job, change: Callable[[Job, int], Job], runs: int) -> None:
        evaluation = evaluate(job)
        evaluation.get(RULES)

        kept = (
            {"memory": evaluation.memory} if "memory" in inspect.signature(with_names_recorded).parameters else {}
        )  # once: globals

        def act(n: int) -> object:
            evaluation.move_to(with_names_recorded(change(evaluation.document, n), **kept))
            return evaluation.get(RULES)

        act(-1)
        note(name, act, runs)

    power = (4.0, 5.5)
    after_edits(
        "rules after another power, the shed",
        shed,
        lambda job, n: change_load(job, job.loads[0].id, kw=power[n % 2]),
        9,
    )
    after_edits(
        "rules after another power, 40 motors",
        many,
        lambda job, n: change_load(job, job.loads[0].id, kw=power[n % 2]),
        2,
    )
    after_edits("rules after another title, 40 motors", many, lambda job, n: set_heading(job, title=f"title {n}"), 9)
    found |= _window()
    print(json.dumps(found))


def _window() -> Figures:
    """An edit in the window until the station shows it, ms."""
    from riktig.desk.app import application, make_window
    from riktig.desk.demo_file import demo_file

    app = application()
    window = make_window()
    window.session.open(demo_file(window.session))
    window.show()
    found: Figures = {}
    for station in ("Brief", "Circuits", "Plate", "Wires", "Rules"):
        window.go_to(station)
        app.processEvents()
        taken = []
        for n in range(9):
            change = _power(window.session.job.loads[0].id, (4.0, 5.5)[n % 2])
            begin = time.perf_counter()
            window.session.edit("power", change)  # type: ignore[arg-type]
            app.processEvents()
            taken.append(time.perf_counter() - begin)
            while window.deriver.busy:  # what is worked out aside must not reach into the next
                app.processEvents()
        found[f"edit to view, {station}"] = statistics.median(taken[1:]) * 1000
    window.close()
    return found


def _power(load: str, kw: float) -> object:
    """The edit as the tree wants it: a value, or a function in trees before edits were values."""
    try:
        from riktig.core.edits import ChangeLoad
        from riktig.core.job import LoadId
    except ImportError:
        from riktig.core.job import change_load

        return lambda job: change_load(job, load, kw=kw)  # type: ignore[arg-type]
    return ChangeLoad(LoadId(load), {"kw": kw})


def _run(tree: Path) -> Figures:
    environment = {**os.environ, "PYTHONPATH": str(tree / "src"), "PYTHONSAFEPATH": "1", "QT_QPA_PLATFORM": "offscreen"}
    run = subprocess.run(
        [sys.executable, str(Path(__file__).resolve()), "--worker"],
        env=environment, check=True, capture_output=True, text=True,
    )  # fmt: skip
    figures: Figures = json.loads(run.stdout.splitlines()[-1])
    cold = []
    for _ in range(3):
        out = subprocess.run(
            [sys.executable, "-c", COLD], env=environment, check=True, capture_output=True, text=True
        ).stdout
        cold.append(float(out.split()[-1]) * 1000)
    return figures | {"cold start, the shed open": statistics.median(cold)}


def main(revision: str, rounds: int) -> None:
    """Prints each figure before and now, and how many times as long it takes now."""
    with tempfile.TemporaryDirectory() as folder:
        tree = Path(folder) / "tree"
        git = ["git", "-C", str(ROOT), "worktree"]
        subprocess.run([*git, "add", "--detach", "--quiet", str(tree), revision], check=True)
        try:
            before: list[Figures] = []
            now: list[Figures] = []
            for turn in range(rounds + 1):
                pair = (_run(tree), _run(ROOT))
                if turn:  # the first compiles and fills the caches of both
                    before.append(pair[0])
                    now.append(pair[1])
        finally:
            subprocess.run([*git, "remove", "--force", str(tree)], check=True)
    print(f"{'':40} before ms     now ms   ratio    of the best   ({rounds} rounds, medians)")
    for name in now[0]:
        old, new = [one[name] for one in before], [one[name] for one in now]
        ratio = statistics.median(b / a for a, b in zip(old, new, strict=True))
        middle = (statistics.median(old), statistics.median(new))
        print(f"{name:40} {middle[0]:9.1f}  {middle[1]:9.1f}   {ratio:5.2f}   {min(new) / min(old):10.2f}")


if __name__ == "__main__":
    if sys.argv[1:] == ["--worker"]:
        worker()
    else:
        main(sys.argv[1], int(sys.argv[2]) if len(sys.argv) > 2 else 5)
