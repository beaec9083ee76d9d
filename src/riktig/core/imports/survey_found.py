"""What a survey shows: the potentials, what contradicts itself or is not known, and the circuits as rungs."""

from collections import Counter, defaultdict
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from riktig.core.catalogue import Behaviour, Unit
from riktig.core.imports.survey_sheet import Clamped, Survey, SurveyedPart, SurveyedWire
from riktig.core.job import FoundNames, OwnDevice, OwnRung
from riktig.core.simulation import islands
from riktig.core.store import WrittenCircuit

__all__ = ["FoundPotentials", "SurveyFinding", "circuit_found", "survey_findings"]

EARTH = "PE"
GREEN_YELLOW = ("gnye", "green-yellow", "green/yellow", "gn/ye", "gn-ye")
MOST_IN_CLAMP = 2
"""Conductors in one clamp, more are said (common practice, no source)."""
_CROSSED = {
    Behaviour.POLE, Behaviour.NO, Behaviour.NC, Behaviour.HEATER, Behaviour.COIL, Behaviour.LAMP, Behaviour.LOAD,
    Behaviour.INPUT,
}  # fmt: skip
"""What a path goes through from one potential to another."""


@dataclass(frozen=True, slots=True)
class SurveyFinding:
    """Something that contradicts itself or is not known: in one word what it is, what it is about, and a sentence."""

    kind: str
    about: str
    text: str


class FoundPotentials:
    """The potentials of a surveyed panel: clamps joined by wires, terminals and bars, each with a number.

    Args:
        survey: What was noted.
    """

    def __init__(self, survey: Survey) -> None:
        self.survey = survey
        self.parts: Mapping[str, SurveyedPart] = {part.tag: part for part in survey.parts}
        self._place = {clamp: number for number, clamp in enumerate(dict.fromkeys(self._clamps()))}
        edges = [(self._place[a], self._place[b]) for a, b in self._joints()]
        ends = np.array(edges, dtype=np.int64).reshape(-1, 2)
        self.of: Mapping[Clamped, int] = dict(zip(self._place, islands(len(self._place), ends).tolist(), strict=True))
        """By clamp, the number of its potential."""

    def _clamps(self) -> Iterator[Clamped]:
        for wire in self.survey.wires:
            yield from (end for end in (wire.start, wire.end) if end)
        for source in self.survey.sources:
            yield source.clamp
        for part in self.survey.parts:
            yield from ((part.tag, pin) for unit in _joints_of(part) for pin in unit.pins)

    def _joints(self) -> Iterator[tuple[Clamped, Clamped]]:
        for wire in self.survey.wires:
            if wire.start and wire.end:
                yield wire.start, wire.end
        for part in self.survey.parts:
            for unit in _joints_of(part):
                yield from (((part.tag, unit.pins[0]), (part.tag, pin)) for pin in unit.pins[1:])

    @cached_property
    def sources(self) -> dict[int, list[str]]:
        """By potential, what comes in there."""
        names: dict[int, list[str]] = defaultdict(list)
        for source in self.survey.sources:
            names[self.of[source.clamp]].append(source.name)
        return dict(names)

    @cached_property
    def numbers(self) -> dict[int, list[str]]:
        """By potential, the numbers that its wires carry, the most frequent first."""
        counts: dict[int, Counter[str]] = defaultdict(Counter)
        for wire in self.survey.wires:
            at = wire.start or wire.end
            if at and wire.number:
                counts[self.of[at]][wire.number] += 1
        return {potential: [number for number, _ in counted.most_common()] for potential, counted in counts.items()}

    @cached_property
    def clamps(self) -> dict[int, list[Clamped]]:
        """By potential, its clamps."""
        clamps: dict[int, list[Clamped]] = defaultdict(list)
        for clamp, potential in self.of.items():
            clamps[potential].append(clamp)
        return dict(clamps)


def _joints_of(part: SurveyedPart) -> list[Unit]:
    return [unit for unit in part.kind.units if unit.behaviour is Behaviour.JOINT]


def _clamp_name(clamp: Clamped | None) -> str:
    return ":".join(clamp) if clamp else "an end that was not found"


def survey_findings(found: FoundPotentials) -> tuple[SurveyFinding, ...]:
    """What contradicts itself, and what is not known: nothing is put right, the panel itself is to be looked at.

    Args:
        found: The potentials of the survey.
    """
    return (
        *_of_ends(found),
        *_of_numbers(found),
        *_of_sources(found),
        *_of_clamps(found),
        *_of_earth(found),
        *_of_parts(found),
    )


def _of_ends(found: FoundPotentials) -> Iterator[SurveyFinding]:
    for wire in found.survey.wires:
        if not (wire.start and wire.end):
            where = _clamp_name(wire.start or wire.end)
            text = f"The wire {wire.number or 'without a number'} at {where} was not followed to its other end."
            yield SurveyFinding("not known", where, text)
    for clamp in dict.fromkeys(_ends(found.survey.wires)):
        part = found.parts.get(clamp[0])
        if part is None:
            yield SurveyFinding(
                "contradicts", clamp[0], f"A wire lands at {_clamp_name(clamp)}, and no {clamp[0]} was noted."
            )
        elif clamp[1] not in {pin.name for pin in part.kind.pins}:
            text = f"A wire lands at {_clamp_name(clamp)}; a {part.kind.name} has no such clamp."
            yield SurveyFinding("contradicts", _clamp_name(clamp), text)


def _ends(wires: Iterable[SurveyedWire]) -> Iterator[Clamped]:
    for wire in wires:
        yield from (end for end in (wire.start, wire.end) if end)


def _of_numbers(found: FoundPotentials) -> Iterator[SurveyFinding]:
    at: dict[str, list[int]] = defaultdict(list)
    for potential, numbers in found.numbers.items():
        for number in numbers:
            at[number].append(potential)
        if len(numbers) > 1:
            where = _clamp_name(found.clamps[potential][0])
            text = f"The potential of {where} carries the numbers {', '.join(numbers)}: one is wrong, or a wire is."
            yield SurveyFinding("contradicts", where, text)
    for number, potentials in at.items():
        if len(potentials) > 1:
            where = " and ".join(_clamp_name(found.clamps[potential][0]) for potential in potentials)
            text = f"The number {number} stands at {where}, which no wire that was traced joins."
            yield SurveyFinding("contradicts", number, text)


def _of_sources(found: FoundPotentials) -> Iterator[SurveyFinding]:
    if not found.survey.sources:
        yield SurveyFinding("not known", "sources", "No source was noted: where current comes in is not known.")
    for names in found.sources.values():
        if len(set(names)) > 1:
            text = f"{' and '.join(sorted(set(names)))} are joined: two sources meet, or a wire was noted wrongly."
            yield SurveyFinding("contradicts", names[0], text)
    for name, potentials in _entries(found).items():
        if len(potentials) > 1 and name != EARTH:
            where = " and ".join(_clamp_name(found.clamps[potential][0]) for potential in potentials)
            yield SurveyFinding("contradicts", name, f"{name} comes in at {where}, which nothing joins.")


def _entries(found: FoundPotentials) -> dict[str, list[int]]:
    """By the name of a source, the potentials at which it comes in."""
    entries: dict[str, list[int]] = defaultdict(list)
    for potential, names in found.sources.items():
        for name in dict.fromkeys(names):
            entries[name].append(potential)
    return entries


def _of_clamps(found: FoundPotentials) -> Iterator[SurveyFinding]:
    for clamp, count in Counter(_ends(found.survey.wires)).items():
        if count > MOST_IN_CLAMP:
            text = (
                f"{count} conductors were noted in the clamp {_clamp_name(clamp)}; {MOST_IN_CLAMP} is the most for one."
            )
            yield SurveyFinding("contradicts", _clamp_name(clamp), text)


def _of_earth(found: FoundPotentials) -> Iterator[SurveyFinding]:
    roots = _entries(found).get(EARTH, [])
    if not roots:
        yield SurveyFinding("not known", EARTH, "The single earth point was not noted: a source PE with its clamp.")
    if len(roots) > 1:
        where = " and ".join(_clamp_name(found.clamps[root][0]) for root in roots)
        yield SurveyFinding("contradicts", EARTH, f"There is more than one earth point: {where}, which nothing joins.")
    for part in found.survey.parts:
        for pin in part.kind.pins:
            clamp = (part.tag, pin.name)
            if pin.name == EARTH and roots and found.of.get(clamp) not in roots:
                text = f"{_clamp_name(clamp)} has no way to the earth point that was traced."
                yield SurveyFinding("contradicts", _clamp_name(clamp), text)
    for wire in found.survey.wires:
        at = wire.start or wire.end
        if at is None or not wire.colour or not roots:
            continue
        earth = wire.colour.casefold() in GREEN_YELLOW
        if earth != (found.of[at] in roots):
            what = "is green-yellow and no earth" if earth else f"is an earth and {wire.colour}"
            yield SurveyFinding("contradicts", _clamp_name(at), f"The wire {wire.number} at {_clamp_name(at)} {what}.")


def _of_parts(found: FoundPotentials) -> Iterator[SurveyFinding]:
    landed = {tag for tag, _ in _ends(found.survey.wires)}
    for part in found.survey.parts:
        if part.tag not in landed and part.kind.pins:
            yield SurveyFinding("not known", part.tag, f"No wire was traced to {part.tag}, {part.kind.name}.")


def circuit_found(found: FoundPotentials, title: str = "as found") -> WrittenCircuit:
    """The surveyed circuits as rungs, to be taken into a job: chains of contacts and coils between potentials.

    Every unit that a wire was traced to on both sides is crossed once; clamps that nothing crosses are touched. A
    potential is called as its source, else by a name of its own. What was not found is not in it.

    Args:
        found: The potentials of the survey.
        title: What the circuit is called.
    """
    return _Rungs(found).circuit(title)


@dataclass(frozen=True, slots=True)
class _Crossing:
    """A unit of a part between two potentials, as a path writes it in either direction."""

    item: str
    back: str
    ends: tuple[int, int]


class _Rungs:
    def __init__(self, found: FoundPotentials) -> None:
        self._found = found
        self._crossings: list[_Crossing] = []
        self._touched: list[tuple[str, int]] = []
        for part in found.survey.parts:
            self._look_at(part)
        self._at: dict[int, list[int]] = defaultdict(list)
        for number, crossing in enumerate(self._crossings):
            for end in crossing.ends:
                self._at[end].append(number)

    def _look_at(self, part: SurveyedPart) -> None:
        of, crossed = self._found.of, set[str]()
        for unit in part.kind.units:
            if len(unit.pins) != 2 or unit.behaviour not in _CROSSED:
                continue
            first, last = ((part.tag, pin) for pin in unit.pins)
            if first in of and last in of and of[first] != of[last]:
                item = f"{part.tag}:{unit.name}"
                self._crossings.append(_Crossing(item, f"<{item}", (of[first], of[last])))
                crossed |= set(unit.pins)
        for pin in part.kind.pins:
            clamp = (part.tag, pin.name)
            if pin.name not in crossed and clamp in of:
                self._touched.append((f"@{part.tag}:{pin.name}", of[clamp]))

    def _name(self, potential: int) -> str:
        for name in self._found.sources.get(potential, ()):
            if _entries(self._found)[name][0] == potential:  # what nothing joins is not joined by a name
                return name
        return f"found.{potential + 1}"

    def _ends_here(self, potential: int) -> bool:
        """Whether a rung ends at a potential: it has a name from outside, or not just one way on."""
        touched = any(at == potential for _, at in self._touched)
        return potential in self._found.sources or len(self._at[potential]) != 2 or touched

    def _chains(self) -> Iterator[tuple[int, str, int]]:
        """Ways from one potential where a rung ends to the next, each unit once."""
        used: set[int] = set()
        starts = sorted(self._at, key=lambda potential: (not self._ends_here(potential), potential))
        for start in starts:
            for number in self._at[start]:
                if number in used:
                    continue
                path, at = [], start
                step: int | None = number
                while step is not None:
                    used.add(step)
                    crossing = self._crossings[step]
                    forward = crossing.ends[0] == at
                    path.append(crossing.item if forward else crossing.back)
                    at = crossing.ends[1] if forward else crossing.ends[0]
                    onward = [other for other in self._at[at] if other not in used]
                    step = onward[0] if not self._ends_here(at) and onward else None
                yield start, " ".join(path), at

    def circuit(self, title: str) -> WrittenCircuit:
        rungs = [
            OwnRung(f"r{number}", "", self._name(first), path, self._name(last), "control")
            for number, (first, path, last) in enumerate(self._chains(), 1)
        ]
        by_potential: dict[int, list[str]] = defaultdict(list)
        for item, potential in self._touched:
            by_potential[potential].append(item)
        for number, (potential, items) in enumerate(sorted(by_potential.items()), len(rungs) + 1):
            rungs.append(OwnRung(f"r{number}", "", self._name(potential), " ".join(items), "", "control"))
        devices = [
            OwnDevice(part.tag, part.kind.id, part.place, part.note or part.kind.name, "", "", "")
            for part in self._found.survey.parts
        ]
        return WrittenCircuit(title, tuple(devices), tuple(rungs), self._names())

    def _names(self) -> FoundNames:
        """The tags as noted, and every number that stands on one potential alone and is its only one."""
        found_names = self._found
        alone = Counter(number for numbers in found_names.numbers.values() for number in numbers)
        numbers = [
            (numbers[0], tuple(":".join(clamp) for clamp in found_names.clamps[potential]))
            for potential, numbers in found_names.numbers.items()
            if len(numbers) == 1 and alone[numbers[0]] == 1 and potential not in found_names.sources
        ]
        return FoundNames(tuple((part.tag, part.tag) for part in found_names.survey.parts), tuple(numbers))
