"""The named faults of tools/mutants.py are still where they were, so that the nightly run can put them in."""

import importlib.util
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent


def test_every_named_fault_has_its_place() -> None:
    spec = importlib.util.spec_from_file_location("mutants", ROOT / "tools" / "mutants.py")
    assert spec and spec.loader
    mutants = importlib.util.module_from_spec(spec)
    sys.modules["mutants"] = mutants
    spec.loader.exec_module(mutants)
    for what, file, old, new, folder in mutants.KNOWN:
        text = (ROOT / mutants.CORE / file).read_text(encoding="utf-8")
        assert old in text, f"{what}: “{old}” stands no longer in {file}"
        assert old != new
        assert (ROOT / "tests" / "core" / folder).is_dir()
