"""A short walk through a panel, from one load to its proof: what each station is for, shown on the same thing."""

from collections.abc import Iterable
from dataclasses import dataclass

from riktig.core.catalogue import Can
from riktig.core.evaluation import Evaluation
from riktig.core.job import DeviceId, Job, Load
from riktig.core.keys import CircuitKey, DeviceKey, Key, LoadKey, WireKey
from riktig.core.schematic import CIRCUITS, NAMES, Device
from riktig.core.wiring import WIRING

__all__ = ["WalkStep", "walk_steps"]


@dataclass(frozen=True, slots=True)
class WalkStep:
    """One step: the station, a title, one or two sentences, and what is selected there."""

    station: str
    title: str
    text: str
    link: Key | None = None


def walk_steps(evaluation: Evaluation[Job]) -> tuple[WalkStep, ...]:
    """Seven steps along the first motor of a job, or its first load; none where the job has no load.

    Args:
        evaluation: The job with everything that follows from it.
    """
    job = evaluation.document
    load = next((load for load in job.loads if load.is_motor), next(iter(job.loads), None))
    load_circuit = next((circuit for circuit in job.circuits if load and circuit.load == load.id), None)
    if load is None or load_circuit is None:
        return ()
    devices = [device for device in evaluation.get(CIRCUITS).devices if device.circuit == load_circuit.id]
    switched = _first_on_plate(devices)
    tag = evaluation.get(NAMES).tag.get(switched, "its parts") if switched else "its parts"
    wires = evaluation.get(WIRING).on_device.get(switched, ()) if switched else ()
    wire = next(iter(wires), None)
    to_wire = WireKey(wire.key) if wire else None
    number = f"Number {wire.number}, {wire.start.label} to {wire.end.label}: " if wire else ""
    return (
        WalkStep("Brief", "What is to run", _of_load(load), LoadKey(load.id)),
        WalkStep(
            "Circuits",
            "How it is switched",
            "The sheets are drawn from the answers. Numbers on lines are wire numbers, numbers in colour are places "
            "where something goes on. E puts power on: press its buttons and watch.",
            CircuitKey(load_circuit.id),
        ),
        WalkStep(
            "Plate",
            "Where it stands",
            f"{tag} is marked. Drag it along its rail and see the clearances in millimetres; “Plan for me” looks for "
            "places with less wire.",
            DeviceKey(switched) if switched else None,
        ),
        WalkStep(
            "Wires",
            "What joins it",
            f"{number}every wire is known before it is cut: both ends, size, colour, length through the ducts, "
            "ferrules.",
            to_wire,
        ),
        WalkStep(
            "Rules",
            "Whether it meets the rules",
            "Each clause shows its evidence. What cannot be known from the plan stays “needs judgement” until someone "
            "decides and signs. Local codes and licensed practice decide.",
        ),
        WalkStep(
            "Build",
            "One wire at a time",
            f"{number}cut, marked, terminated, tightened. Space ticks the next; a scanned number goes to its wire.",
            to_wire,
        ),
        WalkStep(
            "Prove",
            "Measured, point to point",
            "Both points, what should read and why. Live tests stay shut until every dead test has passed. After that "
            "Hand over writes the papers.",
            to_wire,
        ),
    )


def _of_load(load: Load) -> str:
    return (
        f"The {load.name}, {load.power_name}. Breaker, contactor, overload, conductors and cable follow from this "
        "sentence; press a value to read why, or give your own."
    )


def _first_on_plate(devices: Iterable[Device]) -> DeviceId | None:
    """What switches the load, else its first device that stands on the plate."""
    known = [device for device in devices if device.zone.value == "plate" and not device.strip]
    switching = (device.id for device in known if device.kind.can(Can.SWITCHES_LOAD))
    return next(switching, next((device.id for device in known), None))
