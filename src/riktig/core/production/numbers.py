"""The list of numbers: which are finished at every end, which begun, which not touched yet."""

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass
from enum import Enum

from riktig.core.job import PinRef
from riktig.core.production.ticks import BuildProgress, Done, WireState
from riktig.core.records import FieldEndDone, Record, Slot, counted, slot_of
from riktig.core.schematic import DOOR, PLATE, ConductorEnds, EndsInPlace, Names

__all__ = ["FieldEnd", "NumberState", "NumberStatus", "field_facts", "field_subject", "number_states"]


class NumberStatus(Enum):
    """How far a number is."""

    NONE = "none"
    PART = "part"
    COMPLETE = "complete"


@dataclass(frozen=True, slots=True)
class FieldEnd:
    """What a number needs at one thing in the field: a core pulled to it, and the links there."""

    ends: EndsInPlace
    done: Done | None


@dataclass(frozen=True, slots=True)
class NumberState:
    """One number: its tally, its wires in the panel with what is done to them, its ends in the field."""

    number: str
    ends_of_number: ConductorEnds
    wires: tuple[WireState, ...]
    field: tuple[FieldEnd, ...]

    @property
    def net(self) -> PinRef:
        """The potential."""
        return self.ends_of_number.net

    @property
    def finished(self) -> int:
        """Wires in the panel that are finished."""
        return sum(state.complete for state in self.wires)

    @property
    def standing(self) -> NumberStatus:
        """How far it is in the panel; a number with no wire in the panel is judged by its ends in the field."""
        if self.wires:
            begun = any(state.done for state in self.wires)
            whole = self.finished == len(self.wires)
        else:
            begun = any(end.done for end in self.field)
            whole = bool(self.field) and all(end.done for end in self.field)
        return NumberStatus.COMPLETE if whole else NumberStatus.PART if begun else NumberStatus.NONE


def field_subject(net: PinRef, ends: EndsInPlace) -> str:
    """The stable key of a number's ends at one thing in the field.

    Args:
        net: Which net.
        ends: The ends of one number in one place.
    """
    return f"{net}~{ends.place}"


def field_facts(number: str, ends: EndsInPlace) -> FieldEndDone:
    """What a tick in the field is true of.

    Args:
        number: The number.
        ends: The ends of one number in one place.
    """
    return FieldEndDone(number, " ".join(map(str, ends.pins)))


def number_states(
    conductor_ends: tuple[ConductorEnds, ...], names: Names, progress: BuildProgress, records: Iterable[Record]
) -> tuple[NumberState, ...]:
    """Every number with what is done, in the order of the potentials.

    A tick in the field counts as long as the number and its pins there are what they were.

    Args:
        conductor_ends: Of every number, its ends by place.
        names: Tags of devices and numbers of nets.
        progress: What has been done to the wires.
        records: The log, oldest first.
    """
    by_net: dict[PinRef, list[WireState]] = defaultdict(list)
    for state in progress.states:
        by_net[state.wire.net].append(state)
    outside = {
        ends_of_number.net: [ends for ends in ends_of_number.places if ends.place not in (PLATE, DOOR)]
        for ends_of_number in conductor_ends
        if ends_of_number.net in names.number
    }
    present: dict[Slot, FieldEndDone] = {}
    for net, places in outside.items():
        for ends in places:
            facts = field_facts(names.number[net], ends)
            present[slot_of(field_subject(net, ends), facts)] = facts
    done = {
        item.record.subject: Done(item.record.who, item.record.when)
        for item in counted(records, FieldEndDone, present)
        if item.counts
    }
    states = []
    for ends_of_number in conductor_ends:
        number = names.number.get(ends_of_number.net)
        if number is None:
            continue
        field = [
            FieldEnd(ends, done.get(field_subject(ends_of_number.net, ends))) for ends in outside[ends_of_number.net]
        ]
        states.append(NumberState(number, ends_of_number, tuple(by_net[ends_of_number.net]), tuple(field)))
    return tuple(states)
