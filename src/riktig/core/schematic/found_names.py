"""Tags and numbers that stand in a panel already: what is added from it keeps them where the job has none like them."""

from collections.abc import Sequence
from dataclasses import replace

from riktig.core.errors import InputFault
from riktig.core.ids import CircuitId, PinRef, device_id
from riktig.core.job import FoundNames, GivenNumber, GivenTag, Job, OwnDevice

__all__ = ["faults_in_names", "names_taken", "taken_words", "with_found_names"]


def with_found_names(job: Job, circuit: CircuitId, found: FoundNames) -> Job:
    """The job whose circuit keeps the tags and numbers found; one that something else has is left out.

    Args:
        job: The job with the circuit.
        circuit: The circuit that was added.
        found: Its names, by role and by clamp.
    """
    tags, numbers = _there(job)
    own_tags = tuple(GivenTag(device_id(circuit, role), tag, True) for role, tag in found.tags if tag not in tags)
    own_numbers = tuple(
        GivenNumber(number, tuple(sorted(_pin(circuit, clamp) for clamp in clamps)))
        for number, clamps in found.numbers
        if number not in numbers
    )
    return replace(job, tags=(*job.tags, *own_tags), numbers=(*job.numbers, *own_numbers))


def names_taken(job: Job, found: FoundNames) -> tuple[str, ...]:
    """The tags and numbers found that something else in the job has: on the panel two things would be called alike.

    Args:
        job: The job without the circuit.
        found: The names of what is to be added.
    """
    tags, numbers = _there(job)
    return (
        *(tag for _, tag in found.tags if tag in tags),
        *(f"number {number}" for number, _ in found.numbers if number in numbers),
    )


def taken_words(taken: Sequence[str]) -> str:
    """Names that something else has, as a sentence."""
    verb = "is" if len(taken) == 1 else "are"
    return f"{', '.join(taken)} {verb} in this job already: what was found got another name."


def faults_in_names(devices: Sequence[OwnDevice], found: FoundNames) -> list[InputFault]:
    """Names of what is not there, and names that are there twice."""
    roles = {device.role for device in devices}
    unknown = [role for role, _ in found.tags if role not in roles]
    faults = [InputFault(f"$.tags.{role}", "there is no device with that role.") for role in unknown]
    tags = [tag for _, tag in found.tags]
    faults += [
        InputFault(f"$.tags.{role}", f"“{tag}” is empty, or another device has it.")
        for role, tag in found.tags
        if not tag.strip() or tags.count(tag) > 1
    ]
    for number, clamps in found.numbers:
        strange = [clamp for clamp in clamps if clamp.rpartition(":")[0] not in roles]
        faults += [InputFault(f"$.numbers.{number}", f"“{clamp}” is no clamp of a device here.") for clamp in strange]
    return faults


def _there(job: Job) -> tuple[set[str], set[str]]:
    return {given.tag for given in job.tags}, {given.number for given in job.numbers} | set(job.printed)


def _pin(circuit: CircuitId, clamp: str) -> PinRef:
    role, _, marking = clamp.rpartition(":")
    return PinRef(device_id(circuit, role), marking)
