"""What stands in for the field when a panel is tested: a box of switches at the field terminals, as a proposal."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from enum import Enum

from riktig.core.catalogue import Behaviour, Can
from riktig.core.errors import RiktigError
from riktig.core.geometry import Align, Drawing, Face, Line, Rect, Shape, Text
from riktig.core.ids import DeviceId, PinRef
from riktig.core.job import CircuitInputs
from riktig.core.keys import DeviceKey
from riktig.core.plate import box
from riktig.core.proving.function import live_script
from riktig.core.proving.live_step import DEAD_V
from riktig.core.proving.planner import PanelFacts
from riktig.core.proving.zero_point import zero_of
from riktig.core.schematic import Device, Zone, all_circuits
from riktig.core.simulation import Panel, Runner, meter_of

__all__ = ["BoxPlace", "Imitates", "draw_switch_box", "places_in", "plan_switch_box"]

WIDE, TALL, GAP = 84.0, 34.0, 3.0
"""A place of the box and the room between two, mm (chosen by us)."""
IN_A_ROW = 3
NOTHING_LIES = "no voltage seen: prove it dead"
MOST_WORDS, MOST_PRINTED = 36, 26
"""Letters of a line of a place in words and of one in printed letters (chosen by us: what fits its width)."""


class Imitates(Enum):
    """What takes the place of a field device at its terminals."""

    SWITCH = "switch"
    BUTTON = "button"
    SENSOR = "switch, + to the signal"
    SUPPLY = "supply of its own, fused"
    LAMPS = "lamps, or left open"
    DECIDES = "engineer decides"


@dataclass(frozen=True, slots=True)
class BoxPlace:
    """One place of the box: its number, the device it stands in for, and where its leads go.

    ``at_rest`` says how it stands before the first step, ``volts`` what lies on it, both "" where nothing is switched.
    """

    number: int
    device: DeviceId
    circuit: str
    tag: str
    purpose: str
    imitates: Imitates
    terminals: tuple[str, ...]
    at_rest: str
    volts: str


def plan_switch_box(facts: PanelFacts, energised: Callable[[], Panel], inputs: CircuitInputs) -> tuple[BoxPlace, ...]:
    """A place for every device outside the panel, circuit by circuit, numbered from 1.

    Args:
        facts: The panel as it is drawn, named, bought and wired.
        energised: Makes the panel with power on, at rest.
        inputs: What the circuits follow from.
    """
    titles = dict(facts.circuits.titles)
    field = [d for d in facts.circuits.devices if d.zone is Zone.FIELD and not d.kind.can(Can.SUPPLY)]
    pins_of = {d.id: [d.pin(pin.name) for pin in d.kind.pins if facts.inside(d.pin(pin.name))] for d in field}
    volts = _Volts(facts, energised, inputs)
    places: list[BoxPlace] = []
    for device in field:
        pins = [pin for pin in pins_of[device.id] if pin.marking != "PE"]
        if not pins:
            continue
        imitates = _imitates(device)
        terminals = tuple(dict.fromkeys(facts.label(at) for pin in pins if (at := facts.inside(pin))))
        switched = imitates in (Imitates.SWITCH, Imitates.BUTTON, Imitates.SENSOR)
        rest, lies = (_at_rest(device), volts.lies_on(device, pins)) if switched else ("", "")
        place = BoxPlace(len(places) + 1, device.id, titles.get(device.circuit, ""), facts.names.tag[device.id],
                         device.purpose, imitates, terminals, rest, lies)  # fmt: skip
        places.append(place)
    return tuple(places)


def _imitates(device: Device) -> Imitates:
    kind = device.kind
    does = {unit.behaviour for unit in kind.units}
    if kind.can(Can.FOREIGN_SUPPLY):
        return Imitates.SUPPLY
    if kind.can(Can.SENSOR):
        return Imitates.SENSOR
    if kind.can(Can.STATION) or any(unit.symbol == "push" for unit in kind.units):
        return Imitates.BUTTON
    if does & {Behaviour.NO, Behaviour.NC}:
        return Imitates.SWITCH
    takes = {Behaviour.WINDING, Behaviour.LOAD, Behaviour.LAMP, Behaviour.COIL}
    return Imitates.LAMPS if kind.is_motor or does & takes else Imitates.DECIDES


def _at_rest(device: Device) -> str:
    does = [unit.behaviour for unit in device.kind.units if unit.behaviour in (Behaviour.NO, Behaviour.NC)]
    words = dict.fromkeys("closed" if behaviour is Behaviour.NC else "open" for behaviour in does)
    return " and ".join(words) or "open"


def places_in(places: Sequence[BoxPlace], words: str) -> tuple[str, ...]:
    """Which places of the box a step needs: “B5 is place 10 of the switch box: X6:2 X6:4”.

    Args:
        places: What the box has.
        words: The step, with tags.
    """
    named = set(words.replace(",", " ").replace(".", " ").split())
    return tuple(
        f"{place.tag} is place {place.number} of the switch box: {' '.join(place.terminals)}."
        for place in places
        if place.tag in named
    )


class _Volts:
    """What lies on the contacts of field devices: at rest, or once a step of their circuit has called them."""

    def __init__(self, facts: PanelFacts, energised: Callable[[], Panel], inputs: CircuitInputs) -> None:
        self._facts, self._energised, self._inputs = facts, energised, inputs
        self._at_rest = energised()

    def lies_on(self, device: Device, pins: Sequence[PinRef]) -> str:
        """The voltage of the supply that reaches a device: what lies on a switch there once it is opened."""
        rest = self._volts(self._at_rest, pins)
        if rest:
            return rest
        whole = all_circuits(self._inputs)
        circuit = next((circuit for circuit in whole if circuit.id == device.circuit), None)
        if circuit is None:
            return NOTHING_LIES
        panel = self._energised()
        runner = Runner(panel, circuit.id)
        for text in live_script(circuit, self._inputs, whole):
            try:
                runner.do(text.partition(":")[0].strip())
            except RiktigError:
                break  # the builder took out what it names
            if called := self._volts(panel, pins):
                return f"then {called}"
        return NOTHING_LIES

    def _volts(self, panel: Panel, pins: Sequence[PinRef]) -> str:
        meter = meter_of(panel)
        for pin in pins:
            zero = zero_of(self._facts, panel, pin)
            reading = meter.volts(zero, pin) if zero else None
            if reading is not None and abs(reading.value or 0.0) >= DEAD_V:
                return f"{abs(reading.value or 0.0):.0f} V {reading.kind}".rstrip()
        return ""


def draw_switch_box(places: Sequence[BoxPlace]) -> Drawing:
    """The front of the box, place by place; what is switched has a bar that stands (closed) or lies (open).

    Args:
        places: What the box has.
    """
    shapes: list[Shape] = []
    for place in places:
        column, row = (place.number - 1) % IN_A_ROW, (place.number - 1) // IN_A_ROW
        shapes += _place(Rect(GAP + column * (WIDE + GAP), GAP + row * (TALL + GAP), WIDE, TALL), place)
    rows = max((len(places) - 1) // IN_A_ROW + 1, 1)
    return Drawing(GAP + IN_A_ROW * (WIDE + GAP), GAP + rows * (TALL + GAP), tuple(shapes), "Switch box")


def _place(at: Rect, place: BoxPlace) -> Iterator[Shape]:
    key = DeviceKey(place.device)
    yield box(at, "third", 0.4, "card", key)
    x, y = at.x + 3.0, at.y
    yield Text(x, y + 7.0, f"{place.number}  {place.tag}", 5.0, "ink", Face.PRINTED_BOLD, Align.LEFT)
    if place.at_rest:
        middle, is_closed = at.right - 7.0, place.at_rest == "closed"
        yield Line(middle, y + 2.5, middle, y + 9.5, "ink" if is_closed else "third", 1.4, key=key)
        yield Line(middle - 3.5, y + 6.0, middle + 3.5, y + 6.0, "third" if is_closed else "ink", 1.4, key=key)
    rest = ", ".join(part for part in (place.at_rest and f"{place.at_rest} at rest", place.volts) if part)
    lines = (place.purpose.partition(", ")[2] or place.purpose, place.imitates.value, _leads(place.terminals), rest)
    for line, words in enumerate(filter(None, lines)):
        face, most = (Face.PRINTED, MOST_PRINTED) if words == lines[2] else (Face.WORDS, MOST_WORDS)
        short = words if len(words) <= most else f"{words[: most - 1]}…"
        yield Text(x, y + 14.0 + 5.5 * line, short, 3.6, "second", face, Align.LEFT)


def _leads(terminals: Sequence[str]) -> str:
    """“X3:U1 V1 W1”: the strip is said once."""
    strip = ""
    words: list[str] = []
    for terminal in terminals:
        tag, _, mark = terminal.partition(":")
        words.append(mark if tag == strip else terminal)
        strip = tag
    return " ".join(words)
