"""The list of numbers: which are finished at every end, which begun, which not touched yet."""

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass
from enum import Enum

from riktig.core.build.ticks import Done, Progress, WireState
from riktig.core.circuit import DOOR, PLATE, Ends, Names, Tally
from riktig.core.job import PinId, Record

__all__ = ["OUTSIDE", "FieldEnd", "NumberState", "Standing", "field_facts", "field_subject", "number_states"]

OUTSIDE = "field end"
"""The kind of record that says a number is finished at a thing in the field."""


class Standing(Enum):
    """How far a number is."""

    NONE = "none"
    PART = "part"
    COMPLETE = "complete"


@dataclass(frozen=True, slots=True)
class FieldEnd:
    """What a number needs at one thing in the field: a core pulled to it, and the links there."""

    ends: Ends
    done: Done | None


@dataclass(frozen=True, slots=True)
class NumberState:
    """One number: its tally, its wires in the panel with what is done to them, its ends in the field."""

    number: str
    tally: Tally
    wires: tuple[WireState, ...]
    field: tuple[FieldEnd, ...]

    @property
    def net(self) -> PinId:
        """The potential."""
        return self.tally.net

    @property
    def finished(self) -> int:
        """Wires in the panel that are finished."""
        return sum(state.complete for state in self.wires)

    @property
    def standing(self) -> Standing:
        """How far it is in the panel; a number with no wire in the panel is judged by its ends in the field."""
        if self.wires:
            begun = any(state.done for state in self.wires)
            whole = self.finished == len(self.wires)
        else:
            begun = any(one.done for one in self.field)
            whole = bool(self.field) and all(one.done for one in self.field)
        return Standing.COMPLETE if whole else Standing.PART if begun else Standing.NONE


def field_subject(net: PinId, ends: Ends) -> str:
    """The stable key of a number's ends at one thing in the field."""
    return f"{net}~{ends.place}"


def field_facts(number: str, ends: Ends) -> tuple[tuple[str, str], ...]:
    """What a tick in the field is true of."""
    return (("number", number), ("pins", " ".join(ends.pins)))


def number_states(
    tallies: tuple[Tally, ...], names: Names, progress: Progress, records: Iterable[Record]
) -> tuple[NumberState, ...]:
    """Every number with what is done, in the order of the potentials.

    A tick in the field counts as long as the number and its pins there are what they were.
    """
    by_net: dict[PinId, list[WireState]] = defaultdict(list)
    for state in progress.states:
        by_net[state.wire.net].append(state)
    corrected, ticks = set(), {}
    for record in records:
        if record.corrects:
            corrected.add(record.corrects)
        elif record.kind == OUTSIDE:
            ticks[record.subject] = record
    found = []
    for tally in tallies:
        number = names.number.get(tally.net)
        if number is None:
            continue
        field = []
        for ends in tally.places:
            if ends.place in (PLATE, DOOR):
                continue
            tick = ticks.get(field_subject(tally.net, ends))
            counts = tick and tick.id not in corrected and tick.facts == field_facts(number, ends)
            field.append(FieldEnd(ends, Done(tick.who, tick.when) if tick and counts else None))
        found.append(NumberState(number, tally, tuple(by_net[tally.net]), tuple(field)))
    return tuple(found)
