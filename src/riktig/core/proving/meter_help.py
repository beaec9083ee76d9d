"""What a voltmeter must show at a potential in service: at rest, and after each step that changes it."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from riktig.core.errors import RiktigError
from riktig.core.ids import PinRef
from riktig.core.job import CircuitId, CircuitInputs
from riktig.core.proving.function import live_script
from riktig.core.proving.planner import PanelFacts
from riktig.core.proving.zero_point import zero_of
from riktig.core.schematic import Net, Zone, all_circuits
from riktig.core.simulation import Meter, Panel, Runner, meter_of, with_tags

__all__ = ["ToMeasure", "what_to_measure"]

MOST_ROWS = 7
"""States told (chosen by us: those of one start, stop and trip)."""
MOST_CIRCUITS = 3
"""Circuits whose steps are gone through (chosen by us: a potential of many is a supply)."""
DEAD_V = 5.0
"""No more than this is dead (chosen by us)."""
DEAD = "dead"
AT_REST = "at rest, everything on"
SAME_SHARE = 0.03
"""Voltages nearer to each other are one to a meter (chosen by us)."""


@dataclass(frozen=True, slots=True)
class ToMeasure:
    """In which state, between which two points, and what must then be read."""

    state: str
    points: str
    expected: str


def what_to_measure(
    facts: PanelFacts, energised: Callable[[], Panel], inputs: CircuitInputs, net: Net
) -> tuple[ToMeasure, ...]:
    """The voltage of a potential against its zero, at rest and through the steps of its circuits that change it.

    Args:
        facts: The panel as it is drawn, named, bought and wired.
        energised: Makes the panel with power on, at rest.
        inputs: What the circuits follow from.
        net: The potential.

    Returns:
        Empty where nothing of the potential lies inside the panel, or nothing feeds it in any of these states.
    """
    devices = facts.circuits.by_id
    inside = [pin for pin in net.pins if devices[pin.device].zone is not Zone.FIELD]
    if not inside:
        return ()
    rows: list[ToMeasure] = []
    for circuit in list(dict.fromkeys(devices[pin.device].circuit for pin in net.pins))[:MOST_CIRCUITS]:
        panel = energised()
        watched = _Watched(facts, panel, inside[0])
        told = watched.look(AT_REST)
        runner = Runner(panel, circuit)
        for text in _script(inputs, circuit):
            done = text.partition(":")[0].strip()
            try:
                runner.step(text)
            except RiktigError:
                break  # the builder took out what it names
            told += watched.look(f"then {with_tags(done, circuit, facts.names.tag)}")
        rows += told[1:] if rows and told else told
    shown_rows = tuple(rows[:MOST_ROWS])
    return shown_rows if any(not row.expected.startswith("dead") for row in shown_rows) else ()


def _script(inputs: CircuitInputs, circuit_id: CircuitId) -> Sequence[str]:
    whole = all_circuits(inputs)
    circuit = next((circuit for circuit in whole if circuit.id == circuit_id), None)
    return live_script(circuit, inputs, whole) if circuit else ()


class _Watched:
    """A pin of a panel whose voltage is told whenever it has changed."""

    def __init__(self, facts: PanelFacts, panel: Panel, pin: PinRef) -> None:
        self._facts, self._panel, self._pin = facts, panel, pin
        self._meter: Meter = meter_of(panel)
        self._zero: PinRef | None = None
        self._last: float | None = None

    def look(self, state: str) -> list[ToMeasure]:
        """What must be read now; nothing where it is as before, or before anything has reached the pin."""
        if self._zero is None:
            self._zero = zero_of(self._facts, self._panel, self._pin)
            if self._zero is not None and state != AT_REST:
                self._last = 0.0
                return [self._row(AT_REST, DEAD), *self.look(state)]
        if self._zero is None or self._zero == self._pin:
            return []
        reading = self._meter.volts(self._zero, self._pin)
        volts = abs(reading.value or 0.0)
        if self._last is not None and abs(volts - self._last) < max(DEAD_V, SAME_SHARE * volts):
            return []
        self._last = volts
        return [self._row(state, f"{volts:.0f} V {reading.kind}".rstrip() if volts > DEAD_V else DEAD)]

    def _row(self, state: str, expected: str) -> ToMeasure:
        points = " to ".join(self._facts.label(pin) for pin in (self._pin, self._zero) if pin)
        return ToMeasure(state, points, expected)
