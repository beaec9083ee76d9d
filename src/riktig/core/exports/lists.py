"""The derived lists by name, each loaded from its own module when it is asked for."""

from collections.abc import Callable, Mapping
from importlib import import_module
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from riktig.core.evaluation import Evaluation
    from riktig.core.exports.schedule_model import Schedule
    from riktig.core.job import Job

__all__ = ["LISTS", "WRITTEN", "schedule"]

LISTS: Mapping[str, str] = {
    "loads": "schedules_brief",
    "signals": "schedules_brief",
    "sources": "schedules_brief",
    "practice": "schedules_brief",
    "proposal": "schedules_brief",
    "reasons": "schedules_reasons",
    "rungs": "schedules_circuits",
    "behaviour": "schedules_circuits",
    "faults": "schedules_circuits",
    "renumber": "renaming",
    "retag": "renaming",
    "tally": "schedules_names",
    "routes": "schedules_cables",
    "cables": "schedules_cables",
    "live": "schedules_live",
    "restart": "schedules_live",
    "transfers": "schedules_live",
    "losses": "schedules_live",
    "box": "schedules_live",
    "returns": "schedules_returns",
    "io": "schedules_controller",
    "places": "schedules_plate",
    "ducts": "schedules_plate",
    "openings": "schedules_plate",
    "bars": "schedules_plate",
    "operators": "schedules_door",
    "entries": "schedules_door",
    "site": "schedules_door",
    "nets": "schedules",
    "wires": "schedules",
    "batches": "schedules_batches",
    "cutting": "schedules_batches",
    "drums": "schedules_kits",
    "colours": "schedules_kits",
    "loom": "schedules_kits",
    "neutrals": "schedules_kits",
    "network": "schedules_kits",
    "terminals": "schedules",
    "labels": "schedules",
    "cuts": "schedules",
    "holes": "schedules",
    "bom": "schedules_parts",
    "picks": "schedules_parts",
    "orders": "schedules_parts",
    "sizing": "schedules",
    "rating": "schedules_short_circuit",
    "ways": "schedules_short_circuit",
    "findings": "schedules",
    "clauses": "schedules",
    "market": "schedules_market",
    "tests": "schedules",
    "work": "schedules_work",
    "operation": "schedules_service",
    "lamps": "schedules_service",
    "maintenance": "schedules_service",
    "declaration": "schedules_service",
}
"""Every list with the module of this folder that makes it; the module has it in its ``SCHEDULES``."""
WRITTEN = tuple(name for name in LISTS if name != "market")
"""The lists that a hand-over writes: what works the whole panel out once more is made when it is asked for."""


def schedule(name: str, evaluation: "Evaluation[Job]") -> "Schedule":
    """One of the derived lists.

    Args:
        name: Which, one of ``LISTS``.
        evaluation: Of the job.

    Returns:
        The list as a table.

    Raises:
        KeyError: there is no list of that name.
    """
    makers: Mapping[str, Callable[[Evaluation[Job]], Schedule]] = import_module(
        f"riktig.core.exports.{LISTS[name]}"
    ).SCHEDULES
    return makers[name](evaluation)
