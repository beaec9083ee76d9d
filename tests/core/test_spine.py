"""What holds of the whole core: no thread, no clock, nothing kept between two jobs, and no untyped spine."""

import ast
import re
from pathlib import Path

import pytest

CORE = Path(__file__).parents[2] / "src" / "riktig" / "core"
SPINE = ("job", "schematic", "wiring", "records", "edits", "evaluation.py")
OUTSIDE = {"threading", "time", "datetime", "concurrent", "multiprocessing", "asyncio", "socket", "subprocess"}
READS_MOMENTS = "inputs/moments.py"
"""It reads and compares the moments that stand in records; it never asks what time it is."""
LOCK_FILE = {"store/lock.py"}
"""The note beside the lock says which machine holds it."""


def sources(*parts: str) -> list[Path]:
    return [
        p for part in parts for p in ([CORE / part] if part.endswith(".py") else sorted((CORE / part).rglob("*.py")))
    ]


@pytest.mark.parametrize("path", sorted(CORE.rglob("*.py")), ids=lambda path: str(path.relative_to(CORE)))
def test_the_core_knows_no_thread_and_no_clock(path: Path) -> None:
    named: set[str] = set()
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        if isinstance(node, ast.Import):
            named |= {alias.name.partition(".")[0] for alias in node.names}
        elif isinstance(node, ast.ImportFrom):
            named.add((node.module or "").partition(".")[0])
    if str(path.relative_to(CORE)) == READS_MOMENTS:
        assert named & OUTSIDE == {"datetime"}
        assert not re.search(r"\.(now|today|utcnow|fromtimestamp)\b", path.read_text(encoding="utf-8"))
    elif str(path.relative_to(CORE)) not in LOCK_FILE:
        assert not named & OUTSIDE


def test_nothing_is_kept_at_the_top_of_a_module_but_what_ships() -> None:
    """A store of values that are worked out from jobs would be shared by two threads, and by two jobs."""
    kept = re.compile(
        r"^_?[A-Z]\w*(?::[^=\n]+)? = (?:KeyedCache|RecentCache|Memory)\b|^_?[A-Z]\w*: dict\[.*\] = \{\}$", re.M
    )
    found = [(p.name, m.group()) for p in sources("") for m in kept.finditer(p.read_text(encoding="utf-8"))]
    assert found == []


def test_no_part_of_the_spine_is_written_with_any() -> None:
    found = [
        f"{path.relative_to(CORE)}:{number} {line.strip()}"
        for path in sources(*SPINE)
        for number, line in enumerate(path.read_text(encoding="utf-8").splitlines(), 1)
        if re.search(r"\bAny\b", line)
    ]
    assert found == []
