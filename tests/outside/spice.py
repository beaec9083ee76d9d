"""A general circuit solver beside our own: ngspice (Debian's package), asked for operating points."""

import os
import shutil
import subprocess
from collections.abc import Iterable
from pathlib import Path

import numpy as np
import pytest
from numpy.typing import NDArray

NGSPICE = shutil.which("ngspice")
needs_ngspice = pytest.mark.skipif(
    NGSPICE is None and os.environ.get("RIKTIG_ORACLES") != "required",
    reason="ngspice is not installed (Debian: apt-get install ngspice)",
)
"""In CI it is required: there the test fails where it is missing."""


def operating_point(folder: Path, count: int, elements: Iterable[str]) -> NDArray[np.float64]:
    """The potentials of nodes n0 to n(count-1) against ground, V."""
    assert NGSPICE, "ngspice is required here: apt-get install ngspice"
    deck, out = folder / "deck.cir", folder / "out.txt"
    # gmin off: it is a leak at every node that is not in the network.
    lines = ["a network", *elements, ".options gmin=1e-18 reltol=1e-9 abstol=1e-15", ".control", "set width=200"]
    lines += ["op", f"set filetype=ascii\nwrite {out} all", ".endc", ".end"]
    deck.write_text("\n".join(lines) + "\n", encoding="ascii")
    done = subprocess.run([NGSPICE, "-b", str(deck)], capture_output=True, text=True, check=False, timeout=300)
    assert out.exists(), done.stdout[-2000:] + done.stderr[-2000:]
    names, values, at = [], [], ""
    for line in out.read_text(encoding="ascii").splitlines():
        if line.startswith(("Variables:", "Values:")):
            at = line
        elif at == "Variables:" and len(line.split()) >= 3:
            names.append(line.split()[1].lower())
        elif at.startswith("Values:") and line.split():
            values.append(float(line.split()[-1]))
    known = dict(zip(names, values, strict=True))
    return np.array([known.get(f"v(n{number})", known.get(f"n{number}", np.nan)) for number in range(count)])
