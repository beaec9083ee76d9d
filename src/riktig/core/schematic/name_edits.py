"""Edits of names: tags of devices, numbers of potentials, and what stands on labels already."""

from dataclasses import replace

from riktig.core.errors import RiktigError
from riktig.core.evaluation import Memory
from riktig.core.job import DeviceId, GivenTag, Job
from riktig.core.schematic.edits import expanded, with_names_recorded
from riktig.core.schematic.netlist.nets import find_nets
from riktig.core.schematic.numbering.numbers import names_of, wire_number

__all__ = ["numbers_on_paper", "record_printed", "rename", "renumber", "tag_anew"]

LONGEST_TAG = 12
"""Characters that still fit a device label (chosen by us)."""


def rename(job: Job, device: DeviceId, tag: str, *, memory: Memory | None = None) -> Job:
    """Gives a device (or the whole strip it belongs to) another tag.

    Args:
        job: The job; it is not changed.
        device: Which device.
        tag: The tag.
        memory: What earlier computations of the evaluation left; without it the same, only slower.

    Raises:
        RiktigError: the tag is empty, too long, has a space, or another device has it.
    """
    tag = tag.strip()
    settled = with_names_recorded(job, memory=memory)
    circuits = expanded(job, memory)
    if not any(known_device.id == device for known_device in circuits.devices):
        raise RiktigError(f"There is no device {device}, so nothing was renamed.", hint="Choose one that is drawn.")
    strip = circuits.device(device).strip
    group = {d.id for d in circuits.devices if d.id == device or (strip and d.strip == strip)}
    if not tag or len(tag) > LONGEST_TAG or any(c.isspace() or c in ":/~" for c in tag):
        raise RiktigError(
            f"“{tag}” cannot be a tag: labels and markers could not carry it.",
            hint=f"Use 1 to {LONGEST_TAG} letters and digits without spaces, colons or slashes.",
        )
    if any(given_tag.tag == tag and given_tag.device not in group for given_tag in settled.tags):
        raise RiktigError(
            f"{tag} is already the tag of another device, so its label would be found twice.",
            hint="Choose a tag that is free.",
        )
    return replace(
        settled,
        tags=tuple(
            GivenTag(given_tag.device, tag, True) if given_tag.device in group else given_tag
            for given_tag in settled.tags
        ),
    )


def renumber(job: Job, *, memory: Memory | None = None) -> Job:
    """Numbers everything anew by the practice of now, gaps closed. Only on request: labels change.

    Args:
        job: The job; it is not changed.
        memory: What earlier computations of the evaluation left; without it the same, only slower.
    """
    return with_names_recorded(replace(job, numbers=(), last_number=0, printed=()), memory=memory)


def tag_anew(job: Job, *, memory: Memory | None = None) -> Job:
    """Names every device anew by the practice of now; the builder's own tags stay. Only on request.

    Args:
        job: The job; it is not changed.
        memory: What earlier computations of the evaluation left; without it the same, only slower.
    """
    return with_names_recorded(replace(job, tags=tuple(tag for tag in job.tags if tag.own)), memory=memory)


def record_printed(job: Job, written: Job | None = None, *, memory: Memory | None = None) -> Job:
    """Every number of now stands on a label: out of use, it is retired and given to nothing else.

    Args:
        job: The job of now.
        written: The job that stands on paper, when it is an earlier one.
        memory: What earlier computations of the evaluation left; without it the same, only slower.
    """
    numbers = numbers_on_paper(written or job, memory=memory)
    printed = tuple(sorted({*job.printed, *numbers}))
    return job if printed == job.printed else replace(job, printed=printed)


def numbers_on_paper(job: Job, *, memory: Memory | None = None) -> tuple[str, ...]:
    """Every number that stands on labels and papers of a job: of potentials, and of single wires.

    Args:
        job: The job; it is not changed.
        memory: What earlier computations of the evaluation left; without it the same, only slower.
    """
    circuits = expanded(job, memory)
    names = names_of(job, circuits, find_nets(circuits, memory), memory)
    idents = {
        wire_number(given_number.number, mark) for given_number in names.given_numbers for mark in given_number.marks
    }
    return tuple(sorted({*names.number.values(), *idents}))
