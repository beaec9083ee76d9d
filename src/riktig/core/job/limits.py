"""What a job may hold, looked at when it is opened and after every edit: what is within these limits can be derived."""

import math
from collections.abc import Iterator
from dataclasses import fields, is_dataclass
from typing import cast

from riktig.core.errors import InputFault
from riktig.core.inputs import LONGEST_TEXT, unfit
from riktig.core.job.circuit import OwnRung
from riktig.core.job.design_reason import DesignReason
from riktig.core.job.job import Job
from riktig.core.job.load import Load
from riktig.core.job.override import Override

__all__ = ["LONGEST_PATH", "MOST_WRITTEN", "beyond_limits"]

LARGEST = 100_000.0
"""No size, current or number of a panel is larger (chosen by us)."""
LARGEST_WHOLE = 100_000_000
MOST = {
    "loads": 200,
    "circuits": 400,
    "sources": 50,
    "signals": 500,
    "scripts": 500,
    "parts": 2_000,
    "shelf": 500,
    "purchases": 2_000,
    "wire_orders": 1_000,
    "one_conductor": 5_000,
    "strips": 1_000,
    "cables": 2_000,
    "jumpers": 1_000,
    "label_sheets": 50,
    "label_texts": 1_000,
    "unmarked": 200,
    "reasons": 1_000,
    "people": 200,
}
"""How many of a thing a job may have (chosen by us: far above one panel)."""
MOST_OF_ONE = 5_000
MOST_WRITTEN = {"devices": 1_200, "rungs": 2_500}
"""Of circuits written by hand, all together: what is planned and judged in about a quarter of a minute."""
LONGEST_PATH = 4_000
"""Letters of a path written by hand: some three hundred contacts."""
LONG_TEXTS = {
    (OwnRung, "path"): LONGEST_PATH, (Load, "reason"): 2_000, (Override, "reason"): 2_000,
    (DesignReason, "reason"): 2_000,
}  # fmt: skip
SEVERAL_LINES = {(Load, "reason"), (Override, "reason"), (DesignReason, "reason")}
MOST_FAULTS = 50


def beyond_limits(job: Job, before: Job | None = None) -> tuple[InputFault, ...]:
    """What a job may not hold: a text that cannot be kept, a number beyond all panels, too many of a thing.

    Args:
        job: The job.
        before: A job that was looked at already: what both share is not looked at again.

    Returns:
        The first fifty faults with their places, such as ``$.job.loads[2].name``.
    """
    input_faults: list[InputFault] = []
    for fault in (*_too_many(job), *_in(job, before, "$.job")):
        input_faults.append(fault)
        if len(input_faults) == MOST_FAULTS:
            break
    return tuple(input_faults)


def _too_many(job: Job) -> Iterator[InputFault]:
    for name, most in MOST.items():
        count = len(getattr(job, name))
        if count > most:
            yield InputFault(f"$.job.{name}", f"there are {count}; a panel holds at most {most}.")
    for what, most in MOST_WRITTEN.items():
        written = sum(len(getattr(circuit, what)) for circuit in job.circuits)
        if written > most:
            yield InputFault("$.job.circuits", f"{written} {what} are written by hand; at most {most} can be drawn.")
    for name in ("loads", "circuits", "sources", "signals"):
        ids = [str(item.id) for item in getattr(job, name)]
        twice = next((item_id for item_id in ids if ids.count(item_id) > 1), None) if len(set(ids)) < len(ids) else None
        if twice is not None:
            yield InputFault(f"$.job.{name}", f"two have the id {twice}.")


def _in(value: object, before: object, place: str) -> Iterator[InputFault]:
    """Faults in a value that is not the very one of ``before``."""
    if value is before:
        return
    if is_dataclass(value) and not isinstance(value, type):
        yield from _in_fields(value, before, place)
    elif isinstance(value, tuple):
        yield from _in_items(value, before, place)
    elif isinstance(value, float):
        if not (math.isfinite(value) and abs(value) <= LARGEST):
            yield InputFault(place, f"{value:g} is no figure of a panel.")
    elif isinstance(value, int) and abs(value) > LARGEST_WHOLE:
        yield InputFault(place, f"{str(value)[:20]} is no figure of a panel.")


def _in_fields(value: object, before: object, place: str) -> Iterator[InputFault]:
    kind = type(value)
    same = before if type(before) is kind else None
    for field in fields(cast(type, kind)):
        part = getattr(value, field.name)
        if isinstance(part, str):
            yield from _in_text(part, kind, field.name, f"{place}.{field.name}")
        else:
            yield from _in(part, getattr(same, field.name, None), f"{place}.{field.name}")


def _in_items(value: tuple[object, ...], before: object, place: str) -> Iterator[InputFault]:
    if len(value) > MOST_OF_ONE:
        yield InputFault(place, f"there are {len(value)}; at most {MOST_OF_ONE} can be kept.")
        return
    known = {id(item) for item in before} if isinstance(before, tuple) else set()
    for index, part in enumerate(value):
        if isinstance(part, str):
            yield from _in_text(part, type(value), "", f"{place}[{index}]")
        elif id(part) not in known:
            yield from _in(part, None, f"{place}[{index}]")


def _in_text(text: str, kind: type, name: str, place: str) -> Iterator[InputFault]:
    why = unfit(text, lines=(kind, name) in SEVERAL_LINES, longest=LONG_TEXTS.get((kind, name), LONGEST_TEXT))
    if why:
        yield InputFault(place, f"this text {why}.")
