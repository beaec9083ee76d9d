"""The schools of numbering: what the next number of a potential is, by practice."""

import re
from collections import defaultdict
from collections.abc import Callable
from dataclasses import dataclass

from riktig.core.catalogue import Behaviour
from riktig.core.evaluation import Memory
from riktig.core.job import Numbering, PinRef, Practice, circuit_of
from riktig.core.schematic.layout.sheets import lay_out
from riktig.core.schematic.model.elements import Circuits, Landing, Parallel, Series, elements_of
from riktig.core.schematic.netlist.nets import Net, NetClass, Nets
from riktig.core.schematic.numbering.tags import LEFT_OUT

__all__ = ["NetPlace", "NumberingScheme", "net_places", "pairs_of", "without_suffix"]

GROUPS = {NetClass.POWER: 1, NetClass.NEUTRAL: 2, NetClass.CONTROL: 3, NetClass.DC: 4, NetClass.EXCEPTED: 5}
"""The leading figure by what a potential carries (chosen by us)."""
_SUFFIX = re.compile(rf"(?<=\d)[{LEFT_OUT}]$")


@dataclass(frozen=True, slots=True)
class NetPlace:
    """Where a potential is met first: sheet and column on paper, and the path, all counted from 1 (column from 0)."""

    sheet: int
    column: int
    rung: int


def net_places(
    circuits: Circuits, nets: Nets, memory: Memory | None = None, *, ladder: bool = False
) -> dict[PinRef, NetPlace]:
    """Where each potential is met first as the paths are read in order; by net id.

    A potential that only touches a motor or a cable has the place where that is drawn.
    """
    sheets = lay_out(circuits, memory, ladder=ladder)
    units = {(d.id, u.name): u.pins for d in circuits.devices for u in d.kind.units}
    places: dict[PinRef, NetPlace] = {}
    for number, rung in enumerate(circuits.rungs, 1):
        for element in elements_of(rung.path):
            place = sheets.places.get(element.id)
            for pole in element.poles:
                pins = units[pole.device, pole.unit]
                for pin in (pins[-1], pins[0]) if pole.flipped else (pins[0], pins[-1]):
                    net = nets.of_pin[PinRef(pole.device, pin)]
                    if net.id not in places and place is not None:
                        places[net.id] = NetPlace(place.sheet, place.column, number)
        for landing in _landings(rung.path):
            place = sheets.touched.get(landing.device)
            for pin in landing.pins:
                net_here = nets.of_pin.get(PinRef(landing.device, pin))
                if net_here is not None and net_here.id not in places and place is not None:
                    places[net_here.id] = NetPlace(place.sheet, place.column, number)
    return places


def _landings(branch: object) -> list[Landing]:
    match branch:
        case Landing():
            return [branch]
        case Series(parts) | Parallel(parts):
            return [landing for part in parts for landing in _landings(part)]
    return []


def pairs_of(circuits: Circuits, nets: Nets) -> dict[PinRef, tuple[PinRef, str]]:
    """Signal pairs: by net id, the net of the first conductor and the sign of this one.

    A pair is what a card's source of a signal drives between two potentials of its own.
    """
    marks: dict[PinRef, tuple[PinRef, str]] = {}
    for device in circuits.devices:
        for unit in device.kind.units:
            if unit.behaviour is not Behaviour.SOURCE or unit.symbol != "signal":
                continue
            first, second = (nets.of_pin.get(device.pin(pin)) for pin in (unit.pins[0], unit.pins[-1]))
            if first and second and not {first.id, second.id} & set(marks):
                marks[first.id], marks[second.id] = (first.id, "+"), (first.id, "-")
    return marks


def without_suffix(number: str) -> str:
    """A number without the letter that an insertion gave it: “14” for “14a”."""
    return _SUFFIX.sub("", number)


class NumberingScheme:
    """Gives new potentials their numbers, none that is taken.

    Args:
        practice: Which school, and what is kept free.
        places: Where each net is met first; asked for only when the school needs it.
        taken: Numbers in use or retired.
        last: The highest number ever given.
        highest: By circuit, the highest number in use, for ranges that are kept free.
    """

    def __init__(
        self,
        practice: Practice,
        places: Callable[[], dict[PinRef, NetPlace]],
        taken: set[str],
        last: int,
        highest: dict[str, int],
    ) -> None:
        self._practice, self._places, self._highest = practice, places, highest
        self.taken = taken
        self.last = max(last, practice.reserved_numbers)
        self._counts: dict[str, int] = defaultdict(int)

    def next(self, net: Net) -> str:
        """The number of a new potential."""
        text = self._next(net)
        self.taken.add(text)
        return text

    def suffixed(self, base: str) -> str:
        """The base with the first free letter; empty when all are taken."""
        text = next((base + letter for letter in LEFT_OUT if base + letter not in self.taken), "")
        if text:
            self.taken.add(text)
        return text

    def _next(self, net: Net) -> str:
        scheme = self._practice.numbering
        if scheme in (Numbering.BY_NODE, Numbering.BY_WIRE):
            return self._counted(circuit_of(net.pins[0].device))
        if scheme is Numbering.BY_GROUP:
            return self._running(str(GROUPS.get(net.net_class, 9)))
        place = self._places().get(net.id, NetPlace(1, 0, 1))
        if scheme is Numbering.BY_RUNG:
            return self._running(str(place.rung))
        if scheme is Numbering.BY_SHEET:
            return self._running(str(place.sheet))
        if scheme is Numbering.BY_PLACE:
            place_text = f"{place.sheet}.{place.column}"
            tries = (place_text, *(place_text + letter for letter in LEFT_OUT[1:]))
            return next((number for number in tries if number not in self.taken), "") or self._running(
                f"{place_text}.", 1
            )
        return self._by_scheme(net, place)

    def _counted(self, circuit: str) -> str:
        """One running number; with ranges, on in the circuit's own range while there is room."""
        step = self._practice.number_step
        number = self.last
        if step and circuit in self._highest:
            highest = self._highest[circuit]
            end = -(-highest // step) * step
            number = next((n for n in range(highest + 1, end + 1) if str(n) not in self.taken), 0)
            if number:
                self._note(circuit, number)
                return str(number)
        number = self.last + 1
        if step:
            number = -(-self.last // step) * step + 1
        while str(number) in self.taken:
            number += 1
        self._note(circuit, number)
        return str(number)

    def _note(self, circuit: str, number: int) -> None:
        self._highest[circuit] = max(self._highest.get(circuit, 0), number)
        self.last = max(self.last, number)

    def _running(self, prefix: str, width: int = 2) -> str:
        """The prefix and the next two figures; beyond 99 a point parts them, so that it reads one way only."""
        while True:
            self._counts[prefix] += 1
            count = self._counts[prefix]
            text = f"{prefix}{count:0{width}d}" if count < 100 or width == 1 else f"{prefix}.{count}"
            if text not in self.taken:
                return text

    def _by_scheme(self, net: Net, place: NetPlace) -> str:
        """As the house's scheme has it; one that does not count may give a number twice, which the rules say."""
        fields = {
            "sheet": place.sheet,
            "column": place.column,
            "rung": place.rung,
            "group": GROUPS.get(net.net_class, 9),
        }
        scheme = self._practice.scheme
        if "{count" not in scheme:
            return scheme.format(**fields)
        pattern = scheme.format(count=0, **fields)
        while True:
            self._counts[pattern] += 1
            text = scheme.format(count=self._counts[pattern], **fields)
            if text not in self.taken:
                return text
