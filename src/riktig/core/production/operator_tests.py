"""The bench test of operators before they are mounted: what every block must read in every position."""

from collections.abc import Callable
from dataclasses import dataclass

from riktig.core.catalogue import Behaviour, Can, Kind, Part, Unit
from riktig.core.door import DoorPlan, PlacedOperator
from riktig.core.ids import DeviceId
from riktig.core.keys import DeviceKey
from riktig.core.production.work_model import BuildStage, WorkTask
from riktig.core.records import ContactRead
from riktig.core.schematic import Names

__all__ = ["CLOSED_MOST", "OPEN_LEAST", "ContactVerdict", "judge_contact", "operator_tests", "positions_of"]

CLOSED_MOST = 1.0
"""A closed contact reads at most this, ohm, with the leads taken off (chosen by us: new blocks read below 0.1)."""
OPEN_LEAST = 1e6
"""An open contact reads at least this, ohm (chosen by us: what a hand meter shows as open)."""
ZERO_MOST = 1.0
"""Leads that read more short-circuited are replaced first, ohm (chosen by us)."""
MINUTES_A_READING = 0.3
CLOSED, OPEN = "closed", "open"
_CONTACTS = (Behaviour.NO, Behaviour.NC)


@dataclass(frozen=True, slots=True)
class ContactVerdict:
    """Whether a reading is as it should be, and why not in words."""

    passed: bool
    why: str = ""


def positions_of(kind: Kind) -> tuple[str, ...]:
    """The positions in which the contacts of an operator are read."""
    return kind.positions or ("at rest", "pressed")


def operator_tests(door: DoorPlan, names: Names, text_of: Callable[[DeviceId, Part], str]) -> tuple[WorkTask, ...]:
    """A task for each contact of each operator in each of its positions, and one for each lamp.

    Args:
        door: The doors with what is fitted in them.
        names: Tags of devices.
        text_of: A part as it is bought, with the voltage it is for.
    """
    tasks: list[WorkTask] = []
    for seat in sorted(door.seats, key=lambda seat: (seat.leaf, seat.y, seat.x)):
        tasks += _of_operator(seat, names.tag[seat.device], text_of(seat.device, seat.part))
    return tuple(tasks)


def _of_operator(seat: PlacedOperator, tag: str, bought: str) -> list[WorkTask]:
    kind = seat.part.kind
    if not kind.head:
        return []
    tasks: list[WorkTask] = []
    for position in positions_of(kind):
        for unit in (unit for unit in kind.units if unit.behaviour in _CONTACTS):
            expected = CLOSED if _is_closed(kind, unit, position) else OPEN
            tasks.append(_task(seat, tag, "-".join(unit.pins), position, expected, bought))
    lamps = [unit for unit in kind.units if unit.behaviour is Behaviour.LAMP]
    for unit in lamps[:1]:
        tasks.append(_task(seat, tag, "-".join(unit.pins), "on its voltage", "lights", bought))
    return tasks


def _is_closed(kind: Kind, unit: Unit, position: str) -> bool:
    if kind.can(Can.TURNED):
        return position in kind.closing_positions(unit)
    at_rest = positions_of(kind)[0]
    return (unit.behaviour is Behaviour.NO) == (position != at_rest)


def _task(seat: PlacedOperator, tag: str, contact: str, position: str, expected: str, bought: str) -> WorkTask:
    how = [f"{position}: {contact} must be {expected}"] if expected != "lights" else [
        f"{contact} {position}: it must light", f"{bought}; from a limited source"
    ]  # fmt: skip
    return WorkTask(
        BuildStage.OPERATOR_TESTS,
        f"operator:{seat.device}",
        f"{tag} {contact} {position}",
        (*how, f"legend “{seat.legend}”" if seat.legend else seat.part.description),
        ContactRead(tag, contact, position, expected),
        (DeviceKey(seat.device),),
        MINUTES_A_READING,
    )


def judge_contact(expected: str, ohm: float, zero: float) -> ContactVerdict:
    """Whether a contact reads as it should, the leads taken off.

    Args:
        expected: “closed” or “open”.
        ohm: The reading, infinite for an open circuit.
        zero: What the leads read short-circuited, ohm.

    Raises:
        ValueError: a reading below nothing, or leads that are no leads.
    """
    if not ohm >= 0 or not 0 <= zero <= ZERO_MOST:
        raise ValueError(f"leads read 0 to {ZERO_MOST:g} Ω short-circuited, and nothing reads less than 0 Ω")
    contact_ohm = max(ohm - zero, 0.0)
    if expected == CLOSED:
        return ContactVerdict(
            contact_ohm <= CLOSED_MOST, "" if contact_ohm <= CLOSED_MOST else f"{contact_ohm:.3g} Ω where it is closed"
        )
    return ContactVerdict(
        contact_ohm >= OPEN_LEAST, "" if contact_ohm >= OPEN_LEAST else f"{contact_ohm:.3g} Ω where it is open"
    )
