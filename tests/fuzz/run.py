"""Feeds mutated files to a reader: each is read, or refused with our own error; none takes long.

Run: .venv/bin/python -m tests.fuzz.run [COUNT] [SEED] [READER ...]
"""

import random
import resource
import sys
import tempfile
import time
import traceback
from collections import Counter
from dataclasses import dataclass, field
from pathlib import Path

from riktig.core.errors import RiktigError
from tests.fuzz.mutate import mutated_bytes, mutated_json
from tests.fuzz.readers import READERS

__all__ = ["Fuzzed", "fuzz"]

LONGEST_S = 5.0


@dataclass
class Fuzzed:
    """What came of a run: how many were read and refused, and every one that went wrong, with its bytes."""

    read: int = 0
    refused: int = 0
    faults: list[tuple[str, bytes]] = field(default_factory=list)
    longest: float = 0.0


def fuzz(name: str, count: int, seed: int) -> Fuzzed:
    """Reads ``count`` mutated files with one reader; the same seed makes the same files."""
    reader, rng, found = READERS[name], random.Random(f"{name} {seed}"), Fuzzed()
    sound = reader.sound()
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / f"fuzzed{reader.ending}"
        for _ in range(count):
            data = rng.choice(sound)
            if reader.is_json and rng.random() < 0.7:
                wild = mutated_json(data.decode(), rng).encode()
            else:
                wild = mutated_bytes(data, rng)
            path.write_bytes(wild)
            begin = time.perf_counter()
            try:
                reader.read(path)
                found.read += 1
            except RiktigError:
                found.refused += 1
            except Exception as error:  # noqa: BLE001 - that is what is looked for
                last = traceback.extract_tb(error.__traceback__)[-1]
                found.faults.append((f"{type(error).__name__} {last.filename}:{last.lineno} {str(error)[:80]}", wild))
            taken = time.perf_counter() - begin
            found.longest = max(found.longest, taken)
            if taken > LONGEST_S:
                found.faults.append((f"took {taken:.1f} s", wild))
    return found


def main() -> int:
    count, seed = int(sys.argv[1]) if len(sys.argv) > 1 else 200, int(sys.argv[2]) if len(sys.argv) > 2 else 1
    wrong = 0
    for name in sys.argv[3:] or READERS:
        done = fuzz(name, count, seed)
        peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
        print(f"{name:12} {done.read} read, {done.refused} refused, {len(done.faults)} faults, "  # noqa: T201
              f"longest {done.longest:.2f} s, peak {peak:.0f} MB")  # fmt: skip
        for text, times in Counter(text for text, _ in done.faults).most_common(12):
            print(f"   {times:4} x {text}")  # noqa: T201
        for number, (_, data) in enumerate(done.faults[:5]):
            Path(tempfile.gettempdir(), f"fuzz-{name.replace(' ', '-')}-{number}").write_bytes(data)
        wrong += len(done.faults)
    return 1 if wrong else 0


if __name__ == "__main__":
    sys.exit(main())
