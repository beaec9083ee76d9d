"""Edits of the document that need no knowledge of circuits: each gives the changed job."""

from dataclasses import replace
from typing import Unpack

from riktig.core.ids import CircuitId, DeviceId, LoadId, SignalId, SourceId
from riktig.core.job.circuit import INCOMER_ID, Circuit, Recipe
from riktig.core.job.fields import (
    ChangedLoadFields,
    ChangedSignalFields,
    EnclosureFields,
    FurtherLoadFields,
    HeadingFields,
    MarkFields,
    PracticeFields,
    SignalFields,
    SourceFields,
    SupplyFields,
)
from riktig.core.job.job import Job
from riktig.core.job.load import Load
from riktig.core.job.load_values import Start
from riktig.core.job.override import Override, load_of_value
from riktig.core.job.own_part import OwnPart, Pick
from riktig.core.job.practice import Practice
from riktig.core.job.script import OwnScript
from riktig.core.job.signal import Signal, Source

__all__ = [
    "add_load",
    "add_signal",
    "add_source",
    "change_load",
    "change_signal",
    "change_source",
    "new_job",
    "override",
    "pick_part",
    "remove_load",
    "remove_part",
    "remove_signal",
    "remove_source",
    "set_box",
    "set_enclosure",
    "set_heading",
    "set_marks",
    "set_part",
    "set_practice",
    "set_script",
    "set_supply",
]

PLATE_LESS = 50.0
"""The mounting plate is so much smaller than its box each way, mm (common practice, no source)."""
DOOR_LESS = 30.0
"""From the depth of the box to the room between plate and door, mm (common practice, no source)."""
OF_NUMBERS = ("numbering", "reserved_numbers", "number_step", "reserved", "scheme", "motor_numbers", "pairs")
OF_TAGS = ("tags", "letters", "house_letters")
"""The choices of practice that decide numbers, and tags."""


def new_job(number: str = "", title: str = "", practice: Practice | None = None) -> Job:
    """An empty job with the incoming supply and nothing to run yet; ``practice`` is the house's own.

    Args:
        number: The number.
        title: What the job or the picture is called.
        practice: The practice to start from; the default when none is given.
    """
    circuits = (Circuit(INCOMER_ID, Recipe.INCOMER),)
    return Job(number=number, title=title, practice=practice or Practice(), circuits=circuits)


def set_heading(job: Job, **fields: Unpack[HeadingFields]) -> Job:
    """Sets title, number, client, drawing number, revision, maker, serial number, date or standard.

    Args:
        job: The job; it is not changed.
        **fields: What is changed, by name.
    """
    changed = replace(job, **fields)
    return job if changed == job else changed


def set_marks(job: Job, **fields: Unpack[MarkFields]) -> Job:
    """Sets what the marks of approval say; the same job when nothing changes.

    Args:
        job: The job; it is not changed.
        **fields: What is changed, by name.
    """
    marks = replace(job.marks, **fields)
    return job if marks == job.marks else replace(job, marks=marks)


def set_supply(job: Job, **fields: Unpack[SupplyFields]) -> Job:
    """Changes the supply; the same job when nothing changes.

    Args:
        job: The job; it is not changed.
        **fields: What is changed, by name.

    Raises:
        ValueError: a value that no supply can have.
    """
    supply = replace(job.supply, **fields)
    return job if supply == job.supply else replace(job, supply=supply)


def set_practice(job: Job, **fields: Unpack[PracticeFields]) -> Job:
    """Changes what practice the job follows.

    Another school of numbers or tags names everything anew as long as no label is printed; after that
    what has a name keeps it until it is named anew on request. The builder's own tags stay.

    Args:
        job: The job; it is not changed.
        **fields: What is changed, by name.
    """
    old, practice = job.practice, replace(job.practice, **fields)
    if practice == old:
        return job
    changed = replace(job, practice=practice)
    if job.printed:
        return changed
    if any(getattr(practice, name) != getattr(old, name) for name in OF_NUMBERS):
        changed = replace(changed, numbers=(), last_number=0)
    if any(getattr(practice, name) != getattr(old, name) for name in OF_TAGS):
        changed = replace(changed, tags=tuple(tag for tag in job.tags if tag.own))
    return changed


def set_enclosure(job: Job, **fields: Unpack[EnclosureFields]) -> Job:
    """Changes the box; what stood on the old plate is planned anew when the plate changes size.

    Args:
        job: The job; it is not changed.
        **fields: What is changed, by name.
    """
    enclosure = replace(job.enclosure, **fields)
    if enclosure == job.enclosure:
        return job
    same_plate = (enclosure.plate_width, enclosure.plate_height) == (
        job.enclosure.plate_width,
        job.enclosure.plate_height,
    )
    return replace(job, enclosure=enclosure, plate=job.plate if same_plate else None)


def set_box(job: Job, width: float, height: float, depth: float) -> Job:
    """Changes the box to another size with the mounting plate that belongs to it, mm.

    Args:
        job: The job; it is not changed.
        width: Outer width, mm.
        height: Outer height, mm.
        depth: Outer depth, mm.
    """
    return set_enclosure(
        job,
        width=width,
        height=height,
        depth=depth,
        plate_width=width - PLATE_LESS,
        plate_height=height - PLATE_LESS,
        plate_depth=depth - DOOR_LESS,
    )


def _fresh(job: Job) -> int:
    """A number that no load, circuit, signal or source has; ids are never given twice."""
    used: list[str] = [load.id for load in job.loads] + [circuit.id for circuit in job.circuits]
    used += [signal.id for signal in job.signals] + [source.id for source in job.sources]
    return max((int(name[1:]) for name in used if name[1:].isdecimal()), default=0) + 1


def _recipe(load: Load) -> Recipe:
    """What the circuit of a load is made from."""
    if load.maintained and load.phases == 1:
        return Recipe.MAINTAINED
    return {
        Start.REVERSING: Recipe.REVERSING,
        Start.STAR_DELTA: Recipe.STAR_DELTA,
        Start.SOFT: Recipe.SOFT_START,
        Start.DRIVE: Recipe.DRIVE,
        Start.WAY: Recipe.WAY,
        Start.CONTACTOR: Recipe.CONTACTOR,
    }.get(load.start, Recipe.DIRECT_ON_LINE)


def add_load(job: Job, name: str, kw: float | None = None, **fields: Unpack[FurtherLoadFields]) -> Job:
    """Adds a load and its circuit. ``fields`` are those of ``Load``.

    Args:
        job: The job; it is not changed.
        name: What it is called.
        kw: Rated output, kW; None where it is not known.
        **fields: What is changed, by name.
    """
    number = _fresh(job)
    load = Load(LoadId(f"m{number}"), name, kw, **fields)
    circuit = Circuit(CircuitId(f"c{number}"), _recipe(load), load.id)
    return replace(job, loads=(*job.loads, load), circuits=(*job.circuits, circuit))


def change_load(job: Job, load_id: LoadId, **fields: Unpack[ChangedLoadFields]) -> Job:
    """Changes one load, leaving the others the same objects; its circuit keeps what was changed in it.

    Args:
        job: The job; it is not changed.
        load_id: Which load.
        **fields: What is changed, by name.
    """
    changed = replace(job.load(load_id), **fields)
    loads = tuple(changed if load.id == load_id else load for load in job.loads)
    if all(c.recipe is _recipe(changed) for c in job.circuits if c.load == load_id):
        return replace(job, loads=loads)
    return replace(
        job,
        loads=loads,
        circuits=tuple(
            replace(circuit, recipe=_recipe(changed)) if circuit.load == load_id else circuit
            for circuit in job.circuits
        ),
    )


def remove_load(job: Job, load_id: LoadId) -> Job:
    """Takes a load, its circuit and the values of the builder's own for it out of the job.

    Args:
        job: The job; it is not changed.
        load_id: Which load.
    """
    return replace(
        job,
        loads=tuple(
            replace(load, neutral_of=None) if load.neutral_of == load_id else load
            for load in job.loads
            if load.id != load_id
        ),
        circuits=tuple(circuit for circuit in job.circuits if circuit.load != load_id),
        overrides=tuple(earlier for earlier in job.overrides if load_of_value(earlier.key) != load_id),
        signals=tuple(replace(signal, load=None) if signal.load == load_id else signal for signal in job.signals),
    )


def add_signal(job: Job, name: str, **fields: Unpack[SignalFields]) -> Job:
    """Adds a field device. ``fields`` are those of ``Signal``.

    Args:
        job: The job; it is not changed.
        name: What it is called.
        **fields: What is changed, by name.
    """
    return replace(job, signals=(*job.signals, Signal(SignalId(f"i{_fresh(job)}"), name, **fields)))


def change_signal(job: Job, signal_id: SignalId, **fields: Unpack[ChangedSignalFields]) -> Job:
    """Changes one field device.

    Args:
        job: The job; it is not changed.
        signal_id: Which field device.
        **fields: What is changed, by name.
    """
    return replace(job, signals=tuple(replace(s, **fields) if s.id == signal_id else s for s in job.signals))


def remove_signal(job: Job, signal_id: SignalId) -> Job:
    """Takes a field device out.

    Args:
        job: The job; it is not changed.
        signal_id: Which field device.
    """
    return replace(job, signals=tuple(s for s in job.signals if s.id != signal_id))


def add_source(job: Job, name: str, voltage_v: float, comes_from: str = "") -> Job:
    """Names a supply that arrives live from elsewhere.

    Args:
        job: The job; it is not changed.
        name: What it is called.
        voltage_v: The voltage, V.
        comes_from: Where it comes from.
    """
    source = Source(SourceId(f"e{_fresh(job)}"), name, voltage_v, comes_from)
    return replace(job, sources=(*job.sources, source))


def change_source(job: Job, source_id: SourceId, **fields: Unpack[SourceFields]) -> Job:
    """Changes one of the further supplies.

    Args:
        job: The job; it is not changed.
        source_id: Which supply.
        **fields: What is changed, by name.
    """
    return replace(job, sources=tuple(replace(s, **fields) if s.id == source_id else s for s in job.sources))


def remove_source(job: Job, source_id: SourceId) -> Job:
    """Takes a further supply out.

    Args:
        job: The job; it is not changed.
        source_id: Which supply.
    """
    return replace(job, sources=tuple(s for s in job.sources if s.id != source_id))


def override(job: Job, key: str, amount: float | None, reason: str = "") -> Job:
    """Gives a value of the builder's own, or with None goes back to what Riktig proposes.

    Args:
        job: The job; it is not changed.
        key: The key of a sized value, such as “m1.breaker”.
        amount: The value; None goes back to the proposal.
        reason: Why, in the words of whoever did it.

    Raises:
        ValueError: not an amount above zero, or no reason.
    """
    others = tuple(earlier for earlier in job.overrides if earlier.key != key)
    if amount is None:
        return job if len(others) == len(job.overrides) else replace(job, overrides=others)
    return replace(job, overrides=(*others, Override(key, amount, reason.strip())))


def set_script(job: Job, name: str, steps: tuple[str, ...]) -> Job:
    """Keeps a script of the builder's own under a name; without steps it is taken away.

    Args:
        job: The job; it is not changed.
        name: What it is called.
        steps: The steps, each “what is done: what must then be so”.

    Raises:
        ValueError: no name.
    """
    others = tuple(script for script in job.scripts if script.name != name)
    return replace(job, scripts=(*others, OwnScript(name.strip(), steps)) if steps else others)


def set_part(job: Job, part: OwnPart) -> Job:
    """Keeps a part of the builder's own under its reference; one of that reference is replaced.

    Args:
        job: The job; it is not changed.
        part: The part of one's own.
    """
    others = tuple(own_part for own_part in job.parts if own_part.ref != part.ref)
    return replace(job, parts=tuple(sorted((*others, part), key=lambda own_part: own_part.ref)))


def remove_part(job: Job, ref: str) -> Job:
    """Takes a part of the builder's own out; devices it was chosen for go back to what Riktig proposes.

    Args:
        job: The job; it is not changed.
        ref: The reference of a part of one's own.
    """
    picks = tuple(pick for pick in job.picks if pick.ref != ref)
    return replace(job, parts=tuple(part for part in job.parts if part.ref != ref), picks=picks)


def pick_part(job: Job, device: DeviceId, ref: str) -> Job:
    """Chooses the part of a device by its reference; with "" Riktig's own proposal holds again.

    Args:
        job: The job; it is not changed.
        device: Which device.
        ref: The reference of a part of one's own.
    """
    others = tuple(pick for pick in job.picks if pick.device != device)
    return replace(job, picks=(*others, Pick(device, ref)) if ref else others)
