"""Edits of terminal strips: order, split, spare terminals, markings from the left, and back to the usual order."""

from dataclasses import dataclass, replace

from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.ids import DeviceId
from riktig.core.job import INCOMER_ID, Job, OwnStrip
from riktig.core.schematic import CIRCUITS, Device, inserted_spare

__all__ = ["DropStrip", "InsertSpareTerminal", "NumberStrip", "SetStrip", "SplitStrip"]


@dataclass(frozen=True)
class SetStrip:
    """The terminals of a strip from the left; those of other strips move over to it."""

    name: str
    terminals: tuple[DeviceId, ...]

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the strip.

        Raises:
            RiktigError: a device that is no terminal, or one of the supply among others.
        """
        known = {device.id: device for device in evaluation.get(CIRCUITS).devices if device.strip}
        unknown = [terminal for terminal in self.terminals if terminal not in known]
        if unknown:
            raise RiktigError(f"{unknown[0]} is no terminal of this panel, so no strip was changed.")
        supply = {known[terminal].circuit == INCOMER_ID for terminal in self.terminals}
        if len(supply) > 1:
            raise RiktigError(
                "The terminals of the supply stay by themselves, so no strip was changed.",
                hint="They are live with the main switch off; mixed with others they would be taken for dead.",
            )
        mark_of = {known[terminal].id: known[terminal].mark for terminal in self.terminals}
        before = _own_strip(evaluation.document, self.name)
        marks = tuple(mark_of[terminal] for terminal in self.terminals) if before and before.marks else ()
        return _with_strip(evaluation, OwnStrip(self.name, self.terminals, marks))


@dataclass(frozen=True)
class SplitStrip:
    """A strip parted: a terminal and all to the right of it become a strip of their own."""

    terminal: DeviceId

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the strip parted.

        Raises:
            RiktigError: there is no such terminal, or nothing stands left of it.
        """
        strip, members = _strip_of(evaluation, self.terminal)
        ids = [device.id for device in members]
        at = ids.index(self.terminal)
        if not at:
            raise RiktigError(
                "Nothing stands left of that terminal, so the strip was not parted.",
                hint="Choose the first terminal of the new strip.",
            )
        names = {device.strip for device in evaluation.get(CIRCUITS).devices}
        number = 2
        while f"{strip}, part {number}" in names:
            number += 1
        job = _with_strip(evaluation, OwnStrip(strip, tuple(ids[:at])))
        return replace(job, strips=(*job.strips, OwnStrip(f"{strip}, part {number}", tuple(ids[at:]))))


@dataclass(frozen=True)
class InsertSpareTerminal:
    """A spare terminal to the right of another."""

    after: DeviceId

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the terminal.

        Raises:
            RiktigError: there is no such terminal, or no plain one in its strip that it could be like.
        """
        strip, members = _strip_of(evaluation, self.after)
        ids = [device.id for device in members]
        new = inserted_spare(str(members[0].circuit), [device.id for device in evaluation.get(CIRCUITS).devices])
        at = ids.index(self.after) + 1
        before = _own_strip(evaluation.document, strip)
        marks = tuple(device.mark for device in members) if before and before.marks else ()
        strip_with_spare = OwnStrip(strip, (*ids[:at], new, *ids[at:]), (*marks[:at], "", *marks[at:]) if marks else ())
        job = _with_strip(evaluation, strip_with_spare)
        if new not in {device.id for device in Evaluation(job).get(CIRCUITS).devices}:
            raise RiktigError(
                "There is no plain terminal in that strip, so no spare one was inserted.",
                hint="A spare terminal is like a plain one of its strip; insert it in another.",
            )
        return job


@dataclass(frozen=True)
class NumberStrip:
    """The numbered terminals of a strip counted from the left; those with letters keep them."""

    terminal: DeviceId

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the markings."""
        strip, members = _strip_of(evaluation, self.terminal)
        marks: list[str] = []
        count = 0
        for device in members:
            count += device.mark.isdecimal()
            marks.append(str(count) if device.mark.isdecimal() else device.mark)
        return _with_strip(evaluation, OwnStrip(strip, tuple(device.id for device in members), tuple(marks)))


@dataclass(frozen=True)
class DropStrip:
    """A strip back in the usual order; what was split off from it or moved to it goes back."""

    terminal: DeviceId

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job without the builder's order of that strip.

        Raises:
            RiktigError: the strip stands in the usual order already.
        """
        strip, _ = _strip_of(evaluation, self.terminal)
        base = strip.partition(", part ")[0]
        other_strips = tuple(
            own_strip for own_strip in evaluation.document.strips if own_strip.name.partition(", part ")[0] != base
        )
        if len(other_strips) == len(evaluation.document.strips):
            raise RiktigError("That strip stands in the usual order, so nothing was changed.")
        return _moved(evaluation, replace(evaluation.document, strips=other_strips))


def _own_strip(job: Job, name: str) -> OwnStrip | None:
    return next((own_strip for own_strip in job.strips if own_strip.name == name), None)


def _strip_of(evaluation: Evaluation[Job], terminal: DeviceId) -> tuple[str, list[Device]]:
    """The strip of a terminal, and all its terminals from the left."""
    circuits = evaluation.get(CIRCUITS)
    device = circuits.by_id.get(terminal)
    if device is None or not device.strip:
        raise RiktigError(f"{terminal} is no terminal of this panel, so no strip was changed.")
    return device.strip, [other for other in circuits.devices if other.strip == device.strip]


def _with_strip(evaluation: Evaluation[Job], strip: OwnStrip) -> Job:
    """The job with a strip in place of the one of that name; its terminals leave the others."""
    job, moved = evaluation.document, set(strip.terminals)
    others: list[OwnStrip] = []
    for own_strip in job.strips:
        staying = [n for n, terminal in enumerate(own_strip.terminals) if terminal not in moved]
        if own_strip.name != strip.name and staying:
            marks = tuple(own_strip.marks[n] for n in staying) if own_strip.marks else ()
            others.append(OwnStrip(own_strip.name, tuple(own_strip.terminals[n] for n in staying), marks))
    return _moved(evaluation, replace(job, strips=(*others, strip)))


def _moved(evaluation: Evaluation[Job], job: Job) -> Job:
    """The job with every strip where it stood: its place goes by its first terminal, which may be another now."""
    before = _first_of(evaluation)
    after = _first_of(Evaluation(job))
    other = {device: after[strip] for strip, device in before.items() if strip in after and after[strip] != device}
    plate = job.plate
    if not other or plate is None:
        return job
    placements = tuple(replace(place, device=other.get(place.device, place.device)) for place in plate.placements)
    spots = tuple(replace(spot, device=other.get(spot.device, spot.device)) for spot in plate.spots)
    return replace(job, plate=replace(plate, placements=placements, spots=spots))


def _first_of(evaluation: Evaluation[Job]) -> dict[str, DeviceId]:
    first: dict[str, DeviceId] = {}
    for device in evaluation.get(CIRCUITS).devices:
        if device.strip:
            first.setdefault(device.strip, device.id)
    return first
