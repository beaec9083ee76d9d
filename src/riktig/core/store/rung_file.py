"""A circuit as a readable JSON of devices and rungs, and back, with the place of every fault.

The form is described in docs/rungs.md.
"""

from dataclasses import dataclass, field

import msgspec

from riktig.core.errors import InputFault, RiktigError
from riktig.core.inputs import parse_json
from riktig.core.job import LONGEST_PATH, MOST_WRITTEN, FoundNames, OwnDevice, OwnRung
from riktig.core.store.job_json import placed_fault, unknown_fields

__all__ = ["RUNG_FORMAT", "WrittenCircuit", "dump_rungs", "load_rungs"]

RUNG_FORMAT = 1
MOST_BYTES = 20_000_000
"""A file larger than this is not a circuit written by hand."""


class _Device(msgspec.Struct, omit_defaults=True):
    role: str
    kind: str
    place: str = "plate"
    purpose: str = ""
    legend: str = ""
    mark: str = ""
    colour: str = ""


class _Rung(msgspec.Struct, omit_defaults=True, rename={"start": "from", "end": "to"}):
    role: str
    path: str
    title: str = ""
    start: str = ""
    end: str = ""
    band: str = "control"


class _File(msgspec.Struct, omit_defaults=True, rename={"rungs_format": "rungs format"}):
    rungs_format: int
    title: str
    devices: list[_Device]
    rungs: list[_Rung]
    tags: dict[str, str] = {}
    numbers: dict[str, list[str]] = {}


@dataclass(frozen=True, slots=True)
class WrittenCircuit:
    """What a rung file holds."""

    title: str
    devices: tuple[OwnDevice, ...] = field(default=())
    rungs: tuple[OwnRung, ...] = field(default=())
    found: FoundNames = field(default_factory=FoundNames)


def load_rungs(text: str, *, where: str = "") -> WrittenCircuit:
    """A circuit from JSON. Whether its paths can be drawn is for ``circuit.add_written`` to say.

    Args:
        text: The text.
        where: What the text came from, for messages.

    Raises:
        RiktigError: not JSON, not of this form, newer than this edition; with the path of each fault.
    """
    if len(text) > MOST_BYTES:
        raise RiktigError("This file is too large for a circuit.", hint="Choose a rung file.", where=where)
    data = parse_json(text, what="a rung file", where=where, hint="See docs/rungs.md for the form.")
    if not isinstance(data, dict) or "rungs format" not in data:
        raise RiktigError(
            "This is JSON, but not a rung file: it has no “rungs format”.",
            hint="See docs/rungs.md for the form.",
            where=where or "$",
        )
    form = data["rungs format"]
    if not isinstance(form, int) or form > RUNG_FORMAT:
        raise RiktigError(
            f"The rungs were written for a newer edition (format {form}; this one reads {RUNG_FORMAT}).",
            hint="Read them with that edition.",
            where="$['rungs format']",
        )
    faults = unknown_fields(data, _File, "$")
    try:
        rung_file = msgspec.convert(data, _File)
    except msgspec.ValidationError as error:
        faults.append(placed_fault(error, "$"))
        rung_file = None
    faults += _beyond(rung_file) if rung_file else []
    if faults or rung_file is None:
        raise _wrong(faults, where)
    return WrittenCircuit(
        rung_file.title,
        tuple(OwnDevice(d.role, d.kind, d.place, d.purpose, d.legend, d.mark, d.colour) for d in rung_file.devices),
        tuple(OwnRung(r.role, r.title, r.start, r.path, r.end, r.band) for r in rung_file.rungs),
        FoundNames(
            tuple(rung_file.tags.items()),
            tuple((number, tuple(clamps)) for number, clamps in rung_file.numbers.items()),
        ),
    )


def _beyond(rung_file: _File) -> list[InputFault]:
    """What cannot be drawn, seen before any path is read."""
    faults = [
        InputFault(f"$.{what}", f"there are {count}; at most {MOST_WRITTEN[what]} can be drawn.")
        for what, count in (("devices", len(rung_file.devices)), ("rungs", len(rung_file.rungs)))
        if count > MOST_WRITTEN[what]
    ]
    return faults + [
        InputFault(f"$.rungs[{number}].path", f"it has {len(rung.path)} letters; {LONGEST_PATH} is the most.")
        for number, rung in enumerate(rung_file.rungs)
        if len(rung.path) > LONGEST_PATH
    ]


def _wrong(faults: list[InputFault], where: str) -> RiktigError:
    return RiktigError(
        f"The rungs cannot be read: {len(faults)} {'place is' if len(faults) == 1 else 'places are'} wrong.",
        hint="Mend what is listed and try again.",
        where=where,
        faults=faults,
    )


def dump_rungs(circuit: WrittenCircuit) -> str:
    """The circuit as indented JSON; ``load_rungs`` reads the same circuit from it."""
    whole = _File(
        RUNG_FORMAT,
        circuit.title,
        [_Device(d.role, d.kind, d.zone, d.purpose, d.legend, d.mark, d.colour) for d in circuit.devices],
        [_Rung(r.role, r.path, r.title, r.start, r.end, r.band) for r in circuit.rungs],
        dict(circuit.found.tags),
        {number: list(clamps) for number, clamps in circuit.found.numbers},
    )
    return msgspec.json.format(msgspec.json.encode(whole), indent=2).decode()
