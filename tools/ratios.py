"""Checks the proportions the project keeps: tests, desk share, file length."""

import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
LONGEST_FILE = 400


def lines(*folders: str) -> int:
    """Counts the non-blank lines of Python under the folders."""
    return sum(
        1
        for folder in folders
        for path in (ROOT / folder).rglob("*.py")
        for line in path.read_text(encoding="utf-8").splitlines()
        if line.strip()
    )


def main() -> int:
    """Prints the proportions; returns 1 if one is out of its bounds."""
    code, tests = lines("src", "benchmarks", "tools"), lines("tests")
    desk, core = lines("src/riktig/desk"), lines("src/riktig/core")
    tested, shown = tests / (code + tests), desk / (desk + core)
    print(f"tests {tested:.1%} of {code + tests} lines (wanted: 25 to 33.3 %)")
    print(f"desk {shown:.1%} of the source (wanted: under 45 %)")
    wrong = [] if 0.25 <= tested <= 1 / 3 + 1e-3 else ["tests"]
    if shown >= 0.45:
        wrong.append("desk")
    for path in sorted((ROOT / "src").rglob("*.py")):
        length = len(path.read_text(encoding="utf-8").splitlines())
        if length > LONGEST_FILE:
            wrong.append(f"{path.relative_to(ROOT)} has {length} lines")
    for fault in wrong:
        print(f"out of bounds: {fault}")
    return bool(wrong)


if __name__ == "__main__":
    sys.exit(main())
