"""Says which small faults in a folder of the core the tests of that folder would miss.

    .venv/bin/python tools/mutants.py --known               the named faults: each must be found
    .venv/bin/python tools/mutants.py rules --count 40      faults at random in core/rules, judged by tests/core/rules

One fault at a time is put into a copy of the sources, and the tests of the folder are run on it; a fault that no test
notices is printed. For the night: a folder takes minutes to hours. A script of our own, since the known libraries run
the whole suite for every fault, and what matters here is that a folder's own tests hold it.
"""

import argparse
import ast
import os
import random
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parent.parent
CORE = Path("src/riktig/core")
FOLDERS = ("rules", "wiring", "sizing", "proving", "labels")
LONGEST_S = 900
TURNED: dict[type[ast.AST], Any] = {
    ast.Lt: ast.LtE, ast.LtE: ast.Lt, ast.Gt: ast.GtE, ast.GtE: ast.Gt, ast.Eq: ast.NotEq, ast.NotEq: ast.Eq,
    ast.Is: ast.IsNot, ast.IsNot: ast.Is, ast.In: ast.NotIn, ast.NotIn: ast.In, ast.And: ast.Or, ast.Or: ast.And,
    ast.Add: ast.Sub, ast.Sub: ast.Add, ast.Mult: ast.Div, ast.Div: ast.Mult,
}  # fmt: skip
KNOWN = (
    (
        "a load's neutral at control section",
        "wiring/choose_section.py",
        "if load and (way",
        "if False and (way",
        "wiring",
    ),
    (
        "bond limit ten times as high",
        "proving/plan_joined.py",
        "BOND_LIMIT_OHM = 0.1",
        "BOND_LIMIT_OHM = 1.0",
        "proving",
    ),
    ("damaged file opened", "store/opening.py", 'if problem != "ok":', "if False:", "store"),
    ("older format not brought up", "store/job_file.py", "bring_up(self._db)", "pass", "store"),
    ("cable label once", "labels/of_parts.py", "cable.make_up), 2,", "cable.make_up), 1,", "labels"),
    (
        "tapped hole of a stud lost",
        "holes/make.py",
        "if seat.part.kind.can(Can.EARTH_STUD) and",
        "if False and",
        "holes",
    ),
)


@dataclass(frozen=True)
class Mutant:
    """One fault: what it is, the file below the core, its new text, and the folder whose tests should notice."""

    what: str
    file: str
    text: str
    folder: str


def known_mutants() -> Iterator[Mutant]:
    """The named faults.

    Raises:
        SystemExit: a place is no longer where it was.
    """
    for what, file, old, new, folder in KNOWN:
        text = (ROOT / CORE / file).read_text(encoding="utf-8")
        if old not in text:
            raise SystemExit(f"{file} no longer has “{old}”: give “{what}” its new place.")
        yield Mutant(what, file, text.replace(old, new, 1), folder)


class _Turn(ast.NodeTransformer):
    """Turns the fault number ``number`` of a file, counted as they are met."""

    def __init__(self, number: int) -> None:
        self.number, self.met, self.what = number, 0, ""

    def _is_it(self, what: str, node: ast.AST) -> bool:
        hit = self.met == self.number
        self.met += 1
        if hit:
            self.what = f"line {getattr(node, 'lineno', 0)}: {what}"
        return hit

    def visit_keyword(self, node: ast.keyword) -> ast.AST:
        # What only guards against slips of a programmer changes nothing that a test could see.
        if node.arg in ("frozen", "slots", "strict", "repr", "compare", "eq"):
            return node
        self.generic_visit(node)
        return node

    def visit_Compare(self, node: ast.Compare) -> ast.AST:
        self.generic_visit(node)
        kind = type(node.ops[0])
        if kind in TURNED and self._is_it(f"{kind.__name__} turned", node):
            node.ops[0] = TURNED[kind]()
        return node

    def visit_BoolOp(self, node: ast.BoolOp) -> ast.AST:
        self.generic_visit(node)
        if self._is_it(f"{type(node.op).__name__} turned", node):
            node.op = TURNED[type(node.op)]()
        return node

    def visit_BinOp(self, node: ast.BinOp) -> ast.AST:
        self.generic_visit(node)
        kind = type(node.op)
        if kind in TURNED and self._is_it(f"{kind.__name__} turned", node):
            node.op = TURNED[kind]()
        return node

    def visit_Constant(self, node: ast.Constant) -> ast.AST:
        if isinstance(node.value, bool):
            return ast.copy_location(ast.Constant(not node.value), node) if self._is_it("bool turned", node) else node
        if isinstance(node.value, int | float) and self._is_it(f"{node.value} changed", node):
            return ast.copy_location(ast.Constant(node.value * 10 + 1), node)
        return node


def random_mutants(folder: str, count: int, seed: int) -> Iterator[Mutant]:
    """Faults at random in a folder; the same seed gives the same.

    Args:
        folder: A folder of the core.
        count: How many.
        seed: Of chance.
    """
    chance = random.Random(f"{folder} {seed}")
    files = [p for p in sorted((ROOT / CORE / folder).rglob("*.py")) if p.name != "__init__.py"]
    weights = [len(p.read_text(encoding="utf-8")) for p in files]
    for _ in range(count):
        path = chance.choices(files, weights)[0]
        text = path.read_text(encoding="utf-8")
        counter = _Turn(-1)
        counter.visit(ast.parse(text))
        if not counter.met:
            continue
        turn = _Turn(chance.randrange(counter.met))
        turned = ast.unparse(turn.visit(ast.parse(text)))
        file = str(path.relative_to(ROOT / CORE))
        yield Mutant(f"{file}, {turn.what}", file, turned, folder)


def is_noticed(mutant: Mutant) -> bool:
    """Whether a test of the folder fails on it; one that takes for ever is noticed too."""
    with tempfile.TemporaryDirectory() as folder:
        shutil.copytree(ROOT / "src", Path(folder) / "src", ignore=shutil.ignore_patterns("__pycache__", "*.egg-info"))
        (Path(folder) / CORE / mutant.file).write_text(mutant.text, encoding="utf-8")
        environment = {**os.environ, "PYTHONPATH": str(Path(folder) / "src"), "PYTHONDONTWRITEBYTECODE": "1"}
        tests = ["-x", "-q", "-p", "no:cacheprovider", str(ROOT / "tests" / "core" / mutant.folder)]
        try:
            run = subprocess.run(
                [sys.executable, "-m", "pytest", *tests],
                cwd=ROOT, env=environment, capture_output=True, check=False, timeout=LONGEST_S,
            )  # fmt: skip
        except subprocess.TimeoutExpired:
            return True
    return run.returncode != 0


def main() -> int:
    """Prints what was missed and the share that was noticed; 1 when a known fault was missed."""
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("folders", nargs="*", metavar="FOLDER", help=f"of the core ({' '.join(FOLDERS)})")
    parser.add_argument("--known", action="store_true", help="the named faults only")
    parser.add_argument("--count", type=int, default=20, help="faults a folder (20)")
    parser.add_argument("--seed", type=int, default=1)
    arguments = parser.parse_args()
    missed = 0
    groups = {"known": list(known_mutants())} if arguments.known else {
        folder: list(random_mutants(folder, arguments.count, arguments.seed)) for folder in arguments.folders or FOLDERS
    }  # fmt: skip
    for name, mutants in groups.items():
        noticed = 0
        for mutant in mutants:
            if is_noticed(mutant):
                noticed += 1
            else:
                print(f"missed: {mutant.what}", flush=True)
        missed += len(mutants) - noticed
        print(f"{name}: {noticed} of {len(mutants)} noticed", flush=True)
    return 1 if arguments.known and missed else 0


if __name__ == "__main__":
    sys.exit(main())
