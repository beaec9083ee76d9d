"""Says whether every list and drawing of 33 jobs is byte for byte what it was in another version.

    .venv/bin/python tools/same_lists.py                     the digest of this working tree
    .venv/bin/python tools/same_lists.py --against REV       compared with a commit; exit 1 where they differ

The jobs are the three demonstrations and the 30 random ones of tests/data/random_jobs.jsonl. A list is compared
as the CSV that the command line prints, a drawing as its SVG. Lists that only one of the versions knows are left
out and named.
"""

import argparse
import hashlib
import json
import os
import subprocess
import sys
import tempfile
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
RANDOM_JOBS = ROOT / "tests" / "data" / "random_jobs.jsonl"
Digests = dict[str, dict[str, str]]


def digests_of(name: str, text: str) -> tuple[str, dict[str, str]]:
    """The digest of every list and drawing of one job; an error counts as what it says."""
    from riktig.core.annotation import SHEET_DRAWINGS
    from riktig.core.door import DOOR_BEHIND, DOOR_DRAWING
    from riktig.core.evaluation import Evaluation
    from riktig.core.exports import LISTS, as_csv, as_svg, schedule
    from riktig.core.labels import INDEX, find
    from riktig.core.store import dump_job, load_job
    from riktig.core.terminals import STRIP_DRAWINGS
    from riktig.core.views import trace_page
    from riktig.core.wiring import PLATE_DRAWING

    evaluation = Evaluation(load_job(text))
    texts: dict[str, str] = {"job": dump_job(evaluation.document)}

    def put(key: str, make: object) -> None:
        try:
            texts[key] = make()  # type: ignore[operator]
        except Exception as error:  # noqa: BLE001 - what goes wrong must go wrong alike
            texts[key] = f"{type(error).__name__}: {error}"

    for what in LISTS:
        put(what, lambda what=what: as_csv(schedule(what, evaluation)))
    for what, derived in (("plate", PLATE_DRAWING), ("door", DOOR_DRAWING), ("behind", DOOR_BEHIND)):
        put(f"drawing {what}", lambda derived=derived: as_svg(evaluation.get(derived)))
    for what, drawings in (("sheets", SHEET_DRAWINGS), ("strips", STRIP_DRAWINGS)):
        put(f"drawing {what}", lambda drawings=drawings: "\n".join(as_svg(one) for one in evaluation.get(drawings)))
    put(
        "find", lambda: "\n".join(f"{e.label} {e.what}" for text in "kfsx1m" for e in find(evaluation.get(INDEX), text))
    )
    labels = [f"{letter}{n}" for letter in "MKQFSHX" for n in (1, 2, 3)]

    def traces() -> str:
        pages = []
        for label in labels:
            entry = next((e for e in find(evaluation.get(INDEX), label) if e.label == label), None)
            page = trace_page(evaluation, entry.key) if entry else None
            stops = [stop for column in page.columns for stop in column] if page else []
            said = [f"{stop.key} {stop.words} {stop.asked}" for stop in stops]
            pages.append(f"{label}: {page.title} {said}" if page else label)
        return "\n".join(pages)

    put("traces", traces)
    return name, {key: hashlib.sha256(value.encode()).hexdigest()[:16] for key, value in texts.items()}


def jobs() -> dict[str, str]:
    """The text of every job by its name."""
    from riktig.core.store import dump_job
    from riktig.demo_job import DEMOS

    made = {name: dump_job(make()) for name, make in DEMOS.items()}
    lines = RANDOM_JOBS.read_text(encoding="utf-8").splitlines()
    return made | {f"random {number:02}": line for number, line in enumerate(lines)}


def all_digests() -> Digests:
    """Every job in two processes."""
    with ProcessPoolExecutor(2) as pool:
        work = [pool.submit(digests_of, name, text) for name, text in jobs().items()]
        return dict(one.result() for one in work)


def digests_at(revision: str) -> Digests:
    """The digests of a commit, worked out in a checkout of its own by this very script."""
    with tempfile.TemporaryDirectory() as folder:
        tree = Path(folder) / "tree"
        git = ["git", "-C", str(ROOT), "worktree"]
        subprocess.run([*git, "add", "--detach", "--quiet", str(tree), revision], check=True)
        try:
            environment = {**os.environ, "PYTHONPATH": str(tree / "src"), "PYTHONSAFEPATH": "1"}
            run = subprocess.run(
                [sys.executable, str(Path(__file__).resolve()), "--json"],
                env=environment, check=True, capture_output=True, text=True,
            )  # fmt: skip
            answer: Digests = json.loads(run.stdout)
            return answer
        finally:
            subprocess.run([*git, "remove", "--force", str(tree)], check=True)


def differences(before: Digests, after: Digests) -> list[str]:
    """One line for every list that is not the same."""
    lines = []
    for name, digests in after.items():
        old = before.get(name, {})
        changed = [key for key, digest in digests.items() if key in old and old[key] != digest]
        if changed:
            lines.append(f"{name}: {', '.join(changed)}")
    known = {key for digests in before.values() for key in digests}
    now = {key for digests in after.values() for key in digests}
    lines += [f"not compared, in one version only: {key}" for key in sorted(known ^ now)]
    return lines


def main() -> int:
    """Prints the digest, or what differs from a commit."""
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("--against", metavar="REV", help="the commit to compare with")
    parser.add_argument("--json", action="store_true", help="the digest of every list, as JSON")
    parser.add_argument("--kept", type=Path, metavar="FILE", help="compare with what --json printed earlier")
    arguments = parser.parse_args()
    after = all_digests()
    if arguments.json:
        print(json.dumps(after, indent=1))
        return 0
    whole = hashlib.sha256(json.dumps(after, sort_keys=True).encode()).hexdigest()[:16]
    print(f"{len(after)} jobs, {sum(map(len, after.values()))} lists: {whole}")
    if arguments.against or arguments.kept:
        before = json.loads(arguments.kept.read_text()) if arguments.kept else digests_at(arguments.against)
        lines = differences(before, after)
        print("\n".join(lines) if lines else "all the same")
        return 1 if any(not line.startswith("not compared") for line in lines) else 0
    return 0


if __name__ == "__main__":
    sys.exit(main())
