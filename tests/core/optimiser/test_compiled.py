"""Compiled code belongs to all the sources of its folder: an update of any of them is compiled anew."""

import os
import subprocess
import sys
from pathlib import Path

from riktig.core.optimiser.compiled import sources_digest

INNER = """
from riktig.core.optimiser.compiled import compiled

def inner(x):
    return x + {more}

inner = compiled(inner)
"""
OUTER = """
from inner import inner
from riktig.core.optimiser.compiled import compiled

def outer(x):
    return inner(x) * 10

outer = compiled(outer)
print(outer(1))
"""


def answer(folder: Path) -> str:
    run = subprocess.run(
        [sys.executable, "outer.py"], cwd=folder, env={**os.environ}, capture_output=True, text=True, check=True
    )
    return run.stdout.strip()


def test_a_change_in_a_file_that_is_called_reaches_the_caller_and_nothing_else_is_compiled(tmp_path: Path) -> None:
    """The caller's own file does not change, and numba alone would go on with what it kept."""
    (tmp_path / "outer.py").write_text(OUTER)
    (tmp_path / "inner.py").write_text(INNER.format(more=1))
    assert answer(tmp_path) == "20"
    first = sources_digest(tmp_path)
    (tmp_path / "inner.py").write_text(INNER.format(more=2))
    assert sources_digest(tmp_path) != first
    assert answer(tmp_path) == "30"
    kept = {path: path.stat().st_mtime_ns for path in tmp_path.rglob("*.nbc")}
    assert kept
    assert answer(tmp_path) == "30"
    assert {path: path.stat().st_mtime_ns for path in tmp_path.rglob("*.nbc")} == kept, "unchanged: compiled once"


WITHOUT = """
import sys
if sys.argv[1] == "without":
    sys.modules["numba"] = None
from riktig.core.evaluation import Evaluation
from riktig.core.optimiser import improve
from riktig.core.optimiser.replan import replan_of
from riktig.demo_job import DEMOS
for name in ("wash-drum", "frost-fan"):
    found = improve(replan_of(Evaluation(DEMOS[name]())).problem, 150, seed=3)
    print(name, repr(found.cost), found.seq.tolist(), found.ends.tolist())
"""


def test_the_planner_finds_the_same_plan_without_the_compiler() -> None:
    """Numba is an extra: what is installed must not decide where a contactor stands."""
    answers = [
        subprocess.run([sys.executable, "-c", WITHOUT, how], capture_output=True, text=True, check=True).stdout
        for how in ("with", "without")
    ]
    assert answers[0].startswith("wash-drum")
    assert answers[0] == answers[1]
