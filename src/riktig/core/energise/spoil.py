"""Faults put in on purpose: wires off, on the neighbour's clamp or swapped, shorts, welded contacts, open coils."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from enum import Enum

from riktig.core.energise.conductors import Conductor
from riktig.core.energise.figures import LINK_OHM
from riktig.core.energise.state import Hands
from riktig.core.errors import RiktigError
from riktig.core.job import DeviceId, PinId

__all__ = ["Fault", "Wrong", "spoil_conductors", "spoil_hands"]


class Wrong(Enum):
    """What is wrong."""

    OFF = "wire off at one end"
    NEIGHBOUR = "wire on another clamp"
    SWAPPED = "two wires swapped at their ends"
    SHORT = "short between two clamps"
    WELDED = "contact welded"
    OPEN_COIL = "coil open inside"
    BLOWN = "fuse blown"


@dataclass(frozen=True, slots=True)
class Fault:
    """One fault. ``what`` and ``where`` are by kind:

    OFF: wire key, pin. NEIGHBOUR: wire key and pin it belongs on; ``to`` the pin it is on. SWAPPED: the two
    wires' keys in ``what`` and ``to``, the pins they belong on in ``where`` and ``other``. SHORT: two pins
    in ``where`` and ``to``. WELDED, OPEN_COIL and BLOWN: device in ``what``, unit in ``where``.
    """

    wrong: Wrong
    what: str
    where: str
    to: str = ""
    other: str = ""


def spoil_conductors(conductors: Sequence[Conductor], faults: Iterable[Fault]) -> tuple[Conductor, ...]:
    """The conductors with the faults that lie in them.

    Raises:
        RiktigError: a wire that is not there, or does not land on that pin.
    """
    found = list(conductors)
    for fault in faults:
        where, to, other = PinId(fault.where), PinId(fault.to), PinId(fault.other)
        if fault.wrong is Wrong.OFF:
            found.remove(_wire(found, fault.what, where))
        elif fault.wrong is Wrong.NEIGHBOUR:
            _move(found, fault.what, where, to)
        elif fault.wrong is Wrong.SWAPPED:
            _move(found, fault.what, where, PinId("~"))
            _move(found, fault.to, other, where)
            _move(found, fault.what, PinId("~"), other)
        elif fault.wrong is Wrong.SHORT:
            found.append(Conductor(where, to, LINK_OHM))
    return tuple(found)


def _wire(conductors: Sequence[Conductor], key: str, pin: PinId) -> Conductor:
    for one in conductors:
        if one.key == key and pin in (one.a, one.b):
            return one
    raise RiktigError(f"No wire {key} lands on {pin}.", hint="Choose a wire and one of its two ends.")


def _move(conductors: list[Conductor], key: str, pin: PinId, to: PinId) -> None:
    one = _wire(conductors, key, pin)
    conductors[conductors.index(one)] = replace(one, a=to) if one.a == pin else replace(one, b=to)


def spoil_hands(hands: Hands, faults: Iterable[Fault]) -> None:
    """Puts in the faults that lie in devices."""
    place = {Wrong.WELDED: hands.welded, Wrong.OPEN_COIL: hands.dead, Wrong.BLOWN: hands.blown}
    for one in place.values():
        one.clear()
    for fault in faults:
        if fault.wrong in place:
            place[fault.wrong].add((DeviceId(fault.what), fault.where))
