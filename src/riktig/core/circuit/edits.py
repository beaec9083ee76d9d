"""Edits of the circuits: ``Job -> Job``. Each ends settled: tags and numbers are kept."""

from dataclasses import replace

from riktig.core.circuit.expand import expand
from riktig.core.circuit.model import Band, elements_of
from riktig.core.circuit.nets import find_nets
from riktig.core.circuit.numbers import name_all
from riktig.core.errors import RiktigError
from riktig.core.job import Act, Change, Circuit, CircuitId, DeviceId, ElementId, GivenTag, Insertable, Job

__all__ = ["insert_contact", "remove_element", "rename", "renumber", "settle", "take_back"]

LONGEST_TAG = 12
"""Characters that still fit a device label (chosen by us)."""


def settle(job: Job) -> Job:
    """The job with every tag and number of now on record, so that later edits keep them."""
    circuits = expand(job.circuits, job.loads, job.supply, job.practice, job.signals)
    names = name_all(circuits, find_nets(circuits), job.tags, job.numbers, job.last_number)
    if (names.given_tags, names.given_numbers, names.last_number) == (job.tags, job.numbers, job.last_number):
        return job
    return replace(job, tags=names.given_tags, numbers=names.given_numbers, last_number=names.last_number)


def insert_contact(job: Job, at: ElementId, what: Insertable, text: str, *, parallel: bool = False) -> Job:
    """Puts a contact after the element ``at`` of a control path, or across it.

    Raises:
        RiktigError: there is no such element in a control path.
    """
    circuit = _circuit_of(job, at)
    number = max((change.number for change in circuit.changes), default=0) + 1
    act = Act.ACROSS if parallel else Act.AFTER
    return _with_change(job, circuit, Change(act, at, number, what, text))


def remove_element(job: Job, element: ElementId) -> Job:
    """Takes an element out of a control path.

    Raises:
        RiktigError: there is no such element in a control path.
    """
    return _with_change(job, _circuit_of(job, element), Change(Act.OUT, element))


def take_back(job: Job, circuit: CircuitId, change: Change) -> Job:
    """Drops one change of a circuit, such as one that clashes."""
    return replace(
        job,
        circuits=tuple(
            replace(c, changes=tuple(x for x in c.changes if x != change)) if c.id == circuit else c
            for c in job.circuits
        ),
    )


def rename(job: Job, device: DeviceId, tag: str) -> Job:
    """Gives a device (or the whole strip it belongs to) another tag.

    Raises:
        RiktigError: the tag is empty, too long, has a space, or another device has it.
    """
    tag = tag.strip()
    settled = settle(job)
    circuits = expand(job.circuits, job.loads, job.supply, job.practice, job.signals)
    strip = circuits.device(device).strip
    group = {d.id for d in circuits.devices if d.id == device or (strip and d.strip == strip)}
    if not tag or len(tag) > LONGEST_TAG or any(c.isspace() or c in ":/~" for c in tag):
        raise RiktigError(
            f"“{tag}” cannot be a tag: labels and markers could not carry it.",
            hint=f"Use 1 to {LONGEST_TAG} letters and digits without spaces, colons or slashes.",
        )
    if any(one.tag == tag and one.device not in group for one in settled.tags):
        raise RiktigError(
            f"{tag} is already the tag of another device, so its label would be found twice.",
            hint="Choose a tag that is free.",
        )
    return replace(
        settled, tags=tuple(GivenTag(one.device, tag) if one.device in group else one for one in settled.tags)
    )


def renumber(job: Job) -> Job:
    """Counts all numbers anew from the supply, gaps closed. Only on request: labels change."""
    return settle(replace(job, numbers=(), last_number=0))


def _circuit_of(job: Job, element: ElementId) -> Circuit:
    circuits = expand(job.circuits, job.loads, job.supply, job.practice, job.signals)
    for rung in circuits.rungs:
        if rung.band is Band.CONTROL and any(e.id == element for e in elements_of(rung.path)):
            return next(c for c in job.circuits if c.id == rung.circuit)
    raise RiktigError(
        f"{element} is not in a control path, so nothing was changed.",
        hint="Choose a contact, a coil or a lamp on a control sheet.",
    )


def _with_change(job: Job, circuit: Circuit, change: Change) -> Job:
    new = replace(circuit, changes=(*circuit.changes, change))
    return replace(job, circuits=tuple(new if c.id == circuit.id else c for c in job.circuits))
