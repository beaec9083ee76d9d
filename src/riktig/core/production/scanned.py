"""What a scanner reads at the bench: the marker of a wire, the code of a batch, the tag of a part."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass
from enum import Enum

from riktig.core.ids import DeviceId, WireId
from riktig.core.production.ticks import BuildProgress
from riktig.core.wiring import Batch

__all__ = ["Scan", "ScanKind", "batch_code", "read_scan", "wire_code"]

LONGEST = 60
"""Characters of a code; a longer one is none of ours (chosen by us)."""


class ScanKind(Enum):
    """What was scanned."""

    WIRE = "wire"
    BATCH = "batch"
    DEVICE = "device"
    UNKNOWN = "unknown"


@dataclass(frozen=True, slots=True)
class Scan:
    """What a code stands for; ``said`` is what is wrong with one that is not known.

    ``wires`` are all wires that carry a scanned number, those that are not finished first; or those of a batch.
    """

    kind: ScanKind
    wires: tuple[WireId, ...] = ()
    batch: int = 0
    device: DeviceId | None = None
    said: str = ""


def batch_code(job_number: str, batch: int) -> str:
    """The code of a batch, as its card carries it: “KS-0418/B12”."""
    return f"{job_number}/B{batch}"


def wire_code(job_number: str, number: str) -> str:
    """The code of a wire's marker: “KS-0418/36”."""
    return f"{job_number}/{number}"


def read_scan(
    text: str,
    job_number: str,
    progress: BuildProgress,
    batches: Collection[Batch],
    things: Mapping[str, DeviceId],
    printed: Collection[str] = (),
) -> Scan:
    """What a code stands for in a job.

    A code names its job before a slash; one without is taken for this job's. “B12” is a batch, unless a wire carries
    that number; a tag is that of a device.

    Args:
        text: What the scanner typed.
        job_number: Of the job at hand.
        progress: What is done to the wires.
        batches: All batches.
        things: Devices by their tags, and what each cable goes to by its own.
        printed: Numbers that were printed once; one that no wire carries any more is retired.
    """
    code = text.strip()
    if not code or len(code) > LONGEST or not code.isprintable():
        return Scan(ScanKind.UNKNOWN, said="That is no code of a panel: scan the marker, the batch card or the label.")
    job, _, thing = code.rpartition("/")
    if job and job.casefold() != job_number.casefold():
        return Scan(ScanKind.UNKNOWN, said=f"“{code}” belongs to the job {job}; this is {job_number}.")
    if thing.startswith("-"):  # the code of a device or a cable, so that “B1” of a label is no batch
        return _of_label(code, thing.removeprefix("-"), things)
    wires = [state for state in progress.states if state.wire.number == thing]
    if wires:
        wires.sort(key=lambda state: state.complete)
        return Scan(ScanKind.WIRE, tuple(state.wire.key for state in wires))
    number = thing[1:]
    if thing[:1] in ("B", "b") and number.isdecimal():
        batch = next((batch for batch in batches if str(batch.number) == number.lstrip("0")), None)
        if batch:
            return Scan(ScanKind.BATCH, batch.wires, batch.number)
    device = _tagged(thing, things)
    if device:
        return Scan(ScanKind.DEVICE, device=device)
    if thing in printed:
        message = (
            f"“{thing}” is retired: no wire carries it any more. A wire that still has this marker is to be taken out."
        )
        return Scan(ScanKind.UNKNOWN, said=message)
    return Scan(ScanKind.UNKNOWN, said=f"Nothing in this panel is called “{thing}”.")


def _of_label(code: str, tag: str, things: Mapping[str, DeviceId]) -> Scan:
    device = _tagged(tag, things)
    if device:
        return Scan(ScanKind.DEVICE, device=device)
    return Scan(ScanKind.UNKNOWN, said=f"Nothing in this panel is called “{tag}”; the code says “{code}”.")


def _tagged(tag: str, things: Mapping[str, DeviceId]) -> DeviceId | None:
    return next((device for thing_tag, device in things.items() if thing_tag.casefold() == tag.casefold()), None)
