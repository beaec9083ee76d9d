"""Plug-in jumpers as they lie on their strip: the terminals they join, and those they pass over."""

from dataclasses import dataclass

from riktig.core.ids import DeviceId
from riktig.core.job import OwnJumper
from riktig.core.terminals.strips import Strip, TerminalRow
from riktig.core.wiring import JUMPER

__all__ = ["Jumper", "joined_to", "jumper_of", "jumpers_on", "parted_left"]


@dataclass(frozen=True, slots=True)
class Jumper:
    """A jumper on a strip: the terminals that it joins and those between them that it passes, from left to right."""

    joins: tuple[TerminalRow, ...]
    passes: tuple[TerminalRow, ...]

    @property
    def ways(self) -> int:
        """How many terminals wide it is: so many contacts it is bought with."""
        return len(self.joins) + len(self.passes)

    @property
    def kind(self) -> str:
        """What is bought: “plug-in jumper, 5 ways, 2 contacts taken out”."""
        taken = len(self.passes)
        words = f", {taken} {'contact' if taken == 1 else 'contacts'} taken out" if taken else ""
        return f"plug-in jumper, {self.ways} ways{words}"


def jumpers_on(strip: Strip) -> tuple[Jumper, ...]:
    """The jumpers of a strip, in the order of their first terminals."""
    joined: dict[str, list[int]] = {}
    for place, row in enumerate(strip.rows):
        if row.jumper.startswith(JUMPER):
            joined.setdefault(row.jumper, []).append(place)
    jumpers = []
    for places in joined.values():
        between = [place for place in range(places[0], places[-1]) if place not in places]
        jumpers.append(Jumper(tuple(strip.rows[n] for n in places), tuple(strip.rows[n] for n in between)))
    return tuple(jumpers)


def jumper_of(strip: Strip, terminal: DeviceId) -> tuple[DeviceId, ...]:
    """The terminals that the jumper of a terminal joins, from left to right; itself alone where none lies on it.

    Raises:
        KeyError: the terminal stands in another strip.
    """
    for row in strip.rows:
        if row.device == terminal:
            return tuple(r.device for r in strip.rows if r is row or (row.jumper and r.jumper == row.jumper))
    raise KeyError(terminal)


def parted_left(strip: Strip, terminal: DeviceId) -> tuple[OwnJumper, ...]:
    """What parts the jumper of a terminal left of it: a jumper of its own for it and those on its right."""
    joined = jumper_of(strip, terminal)
    return (OwnJumper(joined[joined.index(terminal) :]),)


def joined_to(strip: Strip, terminal: DeviceId, other: DeviceId) -> tuple[OwnJumper, ...]:
    """What joins two terminals, with all that lies under their jumpers, to one jumper."""
    wanted = {*jumper_of(strip, terminal), *jumper_of(strip, other)}
    return (OwnJumper(tuple(row.device for row in strip.rows if row.device in wanted)),)
