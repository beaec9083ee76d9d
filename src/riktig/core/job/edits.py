"""Edits of the document that need no knowledge of circuits: ``Job -> Job``."""

from dataclasses import replace
from typing import Any

from riktig.core.job.circuit import Circuit, Recipe
from riktig.core.job.ids import CircuitId, LoadId
from riktig.core.job.job import Job
from riktig.core.job.load import Load

__all__ = [
    "add_load",
    "change_load",
    "new_job",
    "remove_load",
    "set_enclosure",
    "set_heading",
    "set_practice",
    "set_supply",
]

INCOMER_ID = CircuitId("c0")


def new_job(number: str = "", title: str = "") -> Job:
    """An empty job with the incoming supply and nothing to run yet."""
    return Job(number=number, title=title, circuits=(Circuit(INCOMER_ID, Recipe.INCOMER),))


def set_heading(job: Job, **fields: Any) -> Job:
    """Sets title, number, client, drawing number, revision, maker or serial number."""
    changed = replace(job, **fields)
    return job if changed == job else changed


def set_supply(job: Job, **fields: Any) -> Job:
    """Changes the supply; the same job when nothing changes.

    Raises:
        ValueError: a value that no supply can have.
    """
    supply = replace(job.supply, **fields)
    return job if supply == job.supply else replace(job, supply=supply)


def set_practice(job: Job, **fields: Any) -> Job:
    """Changes what practice the job follows."""
    practice = replace(job.practice, **fields)
    return job if practice == job.practice else replace(job, practice=practice)


def set_enclosure(job: Job, **fields: Any) -> Job:
    """Changes the box; what stood on the old plate is planned anew when the plate changes size."""
    enclosure = replace(job.enclosure, **fields)
    if enclosure == job.enclosure:
        return job
    same_plate = (enclosure.plate_width, enclosure.plate_height) == (
        job.enclosure.plate_width,
        job.enclosure.plate_height,
    )
    return replace(job, enclosure=enclosure, plate=job.plate if same_plate else None)


def add_load(
    job: Job, name: str, kw: float, *, place: str = "", nameplate_a: float | None = None, cable_m: float = 10.0
) -> Job:
    """Adds a motor and its direct-on-line circuit. Ids are never given twice."""
    used = [int(load.id[1:]) for load in job.loads]
    used += [int(circuit.id[1:]) for circuit in job.circuits]
    number = max(used, default=0) + 1
    load = Load(LoadId(f"m{number}"), name, kw, place=place, nameplate_a=nameplate_a, cable_m=cable_m)
    circuit = Circuit(CircuitId(f"c{number}"), Recipe.DIRECT_ON_LINE, load.id)
    return replace(job, loads=(*job.loads, load), circuits=(*job.circuits, circuit))


def change_load(job: Job, load_id: LoadId, **fields: Any) -> Job:
    """Changes one load, leaving the others the same objects."""
    return replace(job, loads=tuple(replace(load, **fields) if load.id == load_id else load for load in job.loads))


def remove_load(job: Job, load_id: LoadId) -> Job:
    """Takes a load and its circuit out of the job."""
    return replace(
        job,
        loads=tuple(load for load in job.loads if load.id != load_id),
        circuits=tuple(circuit for circuit in job.circuits if circuit.load != load_id),
    )
