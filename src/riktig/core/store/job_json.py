"""The job as JSON and back, with the place of every fault."""

import functools
import re
from typing import Any

import msgspec

from riktig.core.errors import InputFault, RiktigError
from riktig.core.inputs import parse_json
from riktig.core.job import Job, beyond_limits, read_pin
from riktig.core.store.schema import JOB_FORMAT

__all__ = ["dump_job", "load_job", "placed_fault", "unknown_fields"]

_WHERE = re.compile(r"^(.*?)(?: - at `(.*)`)?$", re.S)


def dump_job(job: Job, *, indent: bool = False) -> str:
    """The job as JSON: ``{"format": 1, "job": {...}}``; the same job gives the same text.

    Args:
        job: The job; it is not changed.
        indent: Whether it is set out to be read.
    """
    plain: dict[str, object] = msgspec.to_builtins(job)
    plain["numbers"] = [
        {"number": number.number, "pins": [str(pin) for pin in number.pins], "marks": number.marks}
        for number in job.numbers
    ]
    data = msgspec.json.encode({"format": JOB_FORMAT, "job": plain})
    return (msgspec.json.format(data, indent=2) if indent else data).decode()


def load_job(text: str, *, where: str = "", mend: bool = False) -> Job:
    """A job from JSON; with ``mend``, letters that cannot be kept are replaced and not refused.

    Args:
        text: The text.
        where: What the text came from, for messages.
        mend: Whether what is no text any more may be replaced.

    Raises:
        RiktigError: not JSON, not ours, newer than this edition, an unknown or missing field, a
            value that cannot be; with the path of each fault.
    """
    data = parse_json(text, what="a job", where=where, hint="Choose a file that Riktig exported.", mend=mend)
    if not isinstance(data, dict) or "job" not in data or "format" not in data:
        raise RiktigError(
            "This is JSON, but not a job of Riktig: it has no “format” and “job”.",
            hint="Choose a file that Riktig exported.",
            where=where or "$",
        )
    form = data["format"]
    if not isinstance(form, int) or form > JOB_FORMAT:
        raise RiktigError(
            f"The job was written by a newer edition of Riktig (format {form}, this one reads {JOB_FORMAT}).",
            hint="Open it with that edition. It was not changed.",
            where="$.format",
        )
    if form < 2:
        _numbers_as_texts(data["job"])
    faults = unknown_fields(data["job"], Job, "$.job")
    _pins_from_texts(data["job"])
    try:
        job = msgspec.convert(data["job"], Job)
    except msgspec.ValidationError as error:
        faults.append(placed_fault(error, "$.job"))
    faults = faults or list(beyond_limits(job))
    if faults:
        raise RiktigError(
            f"The job cannot be read: {len(faults)} {'place is' if len(faults) == 1 else 'places are'} wrong.",
            hint="Mend what is listed and try again.",
            where=where,
            faults=faults,
        )
    return job


def _numbers_as_texts(job: Any) -> None:
    """Format 1 kept the given numbers as figures."""
    numbers = job.get("numbers") if isinstance(job, dict) else None
    for number in numbers if isinstance(numbers, list) else ():
        if isinstance(number, dict) and isinstance(number.get("number"), int):
            number["number"] = str(number["number"])


def _pins_from_texts(job: Any) -> None:
    """A pin stands as one text in the file: ``c2.K:13``. What is no text stays, for the reader to refuse."""
    numbers = job.get("numbers") if isinstance(job, dict) else None
    for number in numbers if isinstance(numbers, list) else ():
        if isinstance(number, dict) and isinstance(number.get("pins"), list):
            number["pins"] = [read_pin(pin) if isinstance(pin, str) else None for pin in number["pins"]]


def placed_fault(error: msgspec.ValidationError, root: str) -> InputFault:
    """What the serialiser found wrong, with its path below ``root``."""
    matched = _WHERE.match(str(error))
    message, path = (matched[1], matched[2]) if matched else (str(error), "")
    return InputFault(root + (path or "$").removeprefix("$"), f"{message}.")


@functools.cache
def _type_info(kind: type) -> msgspec.inspect.Type:
    """The fields of a class, and of all classes in it: walked once, as a job has some two hundred."""
    return msgspec.inspect.type_info(kind)


def unknown_fields(value: Any, kind: Any, path: str) -> list[InputFault]:
    """Fields that the document does not have, all at once: a misspelt field is not ignored."""
    faults: list[InputFault] = []
    info = _type_info(kind) if isinstance(kind, type) else kind
    if isinstance(info, msgspec.inspect.UnionType):
        options = [option for option in info.types if not isinstance(option, msgspec.inspect.NoneType)]
        if value is not None and len(options) == 1:
            return unknown_fields(value, options[0], path)
        if isinstance(value, dict):
            tries = [unknown_fields(value, option, path) for option in options]
            return min(tries, key=len) if tries else []
        return []
    if isinstance(info, msgspec.inspect.DataclassType | msgspec.inspect.StructType) and isinstance(value, dict):
        known = {field.encode_name: field.type for field in info.fields}
        for name, part in value.items():
            if name in known:
                faults += unknown_fields(part, known[name], f"{path}.{name}")
            else:
                faults.append(InputFault(f"{path}.{name}", "there is no such field."))
    elif isinstance(info, msgspec.inspect.VarTupleType | msgspec.inspect.ListType) and isinstance(value, list):
        for index, part in enumerate(value):
            faults += unknown_fields(part, info.item_type, f"{path}[{index}]")
    return faults
