"""Exports of the house's own: functions that other packages offer, called with the panel as derived.

A package offers one under the entry point group ``riktig.exports``; ``examples/house_export`` is one.
"""

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from importlib.metadata import entry_points
from pathlib import Path

from riktig.core.evaluation import Evaluation
from riktig.core.job import Job
from riktig.core.records import Record

__all__ = ["GROUP", "HouseExport", "HouseExports", "house_exports", "write_house_exports"]

GROUP = "riktig.exports"
HouseExport = Callable[[Evaluation[Job], tuple[Record, ...], Path], Iterable[Path]]
"""Gets the panel, its record and a folder of its own; returns the files that it wrote there."""


@dataclass(frozen=True, slots=True)
class HouseExports:
    """What the house's own exports wrote, and which of them failed and why."""

    files: tuple[Path, ...]
    faults: tuple[str, ...]


def house_exports() -> dict[str, Callable[[], HouseExport]]:
    """The exports that are offered on this machine, by name; loaded when they are called."""
    return {point.name: point.load for point in sorted(entry_points(group=GROUP), key=lambda point: point.name)}


def write_house_exports(
    evaluation: Evaluation[Job],
    records: Iterable[Record],
    folder: Path,
    offered: dict[str, Callable[[], HouseExport]] | None = None,
) -> HouseExports:
    """Calls every export of the house, each with a folder of its own below one.

    One that fails takes nothing else with it: it is named, and Riktig's own papers stand.

    Args:
        evaluation: Of the job.
        records: The log, oldest first.
        folder: Where the papers are; each export gets ``house/NAME`` in it.
        offered: The exports; None for those of this machine.
    """
    log = tuple(records)
    files: list[Path] = []
    faults: list[str] = []
    for name, load in (house_exports() if offered is None else offered).items():
        house_file = folder / "house" / name
        try:
            house_file.mkdir(parents=True, exist_ok=True)
            written = [Path(path) for path in load()(evaluation, log, house_file)]
        except Exception as error:  # noqa: BLE001 - what another package does must not cost the papers
            faults.append(f"the house's export “{name}” failed ({type(error).__name__}: {error})")
            continue
        outside = [path for path in written if not path.resolve().is_relative_to(house_file.resolve())]
        if outside:
            faults.append(f"the house's export “{name}” wrote outside its folder: {outside[0]}")
        files += [path for path in written if path not in outside]
    return HouseExports(tuple(files), tuple(faults))
