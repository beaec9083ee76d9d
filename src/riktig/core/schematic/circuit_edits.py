"""Circuits that serve no load of the Brief, added and taken out."""

from dataclasses import replace

from riktig.core.errors import RiktigError
from riktig.core.job import Circuit, CircuitId, Job, Param, Recipe
from riktig.core.schematic.templates.emergency import FOR_NEW

__all__ = ["FIRST_FREE", "add_circuit", "remove_circuit"]

FIRST_FREE = 100
"""Circuits that serve no load count from here, so that their ids never meet those of loads."""


def add_circuit(job: Job, recipe: Recipe, title: str = "", params: tuple[Param, ...] = ()) -> Job:
    """Adds a circuit that serves no load of the Brief.

    Args:
        job: The job; it is not changed.
        recipe: The recipe of the circuit.
        title: What the job or the picture is called.
        params: What is chosen about it.
    """
    used = [c.id for c in job.circuits] + [load.id for load in job.loads]
    number = max((int(name[1:]) for name in used if name[1:].isdecimal()), default=0) + 1
    name, wanted_params = CircuitId(f"c{max(number, FIRST_FREE)}"), params or FOR_NEW.get(recipe, ())
    return replace(job, circuits=(*job.circuits, Circuit(name, recipe, title=title.strip(), params=wanted_params)))


def remove_circuit(job: Job, circuit: CircuitId) -> Job:
    """Takes a circuit out that serves no load of the Brief.

    Args:
        job: The job; it is not changed.
        circuit: Which circuit.

    Raises:
        RiktigError: it serves a load, or is the incoming supply.
    """
    known = next((c for c in job.circuits if c.id == circuit), None)
    if known is None or known.load is not None or known.recipe is Recipe.INCOMER:
        raise RiktigError(
            "This circuit follows from the Brief, so it cannot be taken out here.",
            hint="Take its load out in the Brief, or change how it is started.",
        )
    return replace(job, circuits=tuple(c for c in job.circuits if c.id != circuit))
