"""The steps under voltage: one device at a time with the voltage that must then stand at its outgoing side."""

from collections.abc import Iterator, Sequence

from riktig.core.catalogue import Behaviour, Can
from riktig.core.ids import DeviceId, PinRef
from riktig.core.proving.function import FunctionStep
from riktig.core.proving.live_seen import seen_words
from riktig.core.proving.live_step import DEAD_V, LiveStep, dead_at
from riktig.core.proving.main_off import dip_steps, idle_load_steps, main_off_steps
from riktig.core.proving.planner import PanelFacts, earths_a_circuit
from riktig.core.proving.tests import ProvingStage
from riktig.core.proving.zero_point import zero_of
from riktig.core.schematic import Device, Zone
from riktig.core.simulation import MAINS, Meter, Panel, Restart, SupplyPole, meter_of

__all__ = ["plan_live"]

SHARE = 0.10
"""A supply may lie so far from its rated voltage (IEC 60038, ±10 %, from memory, sure)."""
TRANSFORMER_HIGH = 0.15
"""A transformer without load gives so much more than rated (common practice, no source)."""
TRIM = (23.5, 24.5)
"""Where a 24 V supply is left after trimming (chosen by us; IEC 61131-2 lets 20.4 to 28.8 V, from memory)."""
RCD_MS = 300.0
"""A residual-current device of the general type opens within, at its rated residual current (IEC 61008-1 table 1 and
IEC 61009-1 table 2, from memory, sure)."""
PROVING_UNIT = "Prove the voltage tester on a source that is known to be live."


def plan_live(
    facts: PanelFacts, panel: Panel, steps: Sequence[FunctionStep], restarts: Sequence[Restart] = ()
) -> tuple[LiveStep, ...]:
    """All steps under voltage, in order; the voltages are those of the panel in simulation, switched on step by step.

    Args:
        facts: The panel as it is drawn, named, bought and wired.
        panel: The same with power on, at rest; it is switched here.
        steps: The function tests of its circuits.
        restarts: What each load does when power returns.
    """
    energise = tuple(_Energise(facts, panel).steps())
    function = (_function_step(step) for step in steps)
    return (*energise, *function, *dip_steps(facts, restarts))


def _function_step(step: FunctionStep) -> LiveStep:
    key, seen = f"function:{step.circuit}:{step.number}", tuple(map(seen_words, step.expected))
    done = _sentence(step.done)
    return LiveStep(key, ProvingStage.FUNCTION, step.title, done, seen, circuit=step.circuit, number=step.number)


def _sentence(words: str) -> str:
    """With a capital at its beginning; tags keep theirs."""
    first, _, rest = words.partition(" ")
    if first == "wait" and rest:
        return f"Wait {rest} s"
    return "As at rest" if words == "rest" else words[:1].upper() + words[1:]


class _Energise:
    def __init__(self, facts: PanelFacts, panel: Panel) -> None:
        self._facts, self._panel = facts, panel
        self._tags, self._devices = facts.names.tag, facts.circuits.by_id
        self._meter: Meter = meter_of(panel)

    def steps(self) -> Iterator[LiveStep]:
        """From the proving of the tester to its proving once more."""
        yield self._step("unit", "Tester", PROVING_UNIT, ("it shows the voltage",))
        switches = [d for d in self._facts.circuits.devices if _switches(d)]
        self._panel.operator_state.opened |= {d.id for d in switches}
        self._panel.run_until_stable()
        yield from self._incoming()
        main = next((d for d in switches if d.kind.can(Can.MAIN_SWITCH)), None)
        if main:
            tag = self._tags[main.id]
            for pair in self._pairs(main):
                name = f"Dead behind {tag}"
                points = [f"{self._facts.label(pair[0])} to {self._facts.label(pair[1])}"]
                yield dead_at(f"dead:{pair[0]}~{pair[1]}", name, f"{tag} off", points)
        for device in self._in_order(switches):
            yield from self._switched(device)
        yield from idle_load_steps(self._facts, self._panel)
        yield from main_off_steps(self._facts, self._panel, self._measured_behind(switches))
        yield self._step("unit again", "Tester", PROVING_UNIT, ("it still shows the voltage",))

    def _measured_behind(self, switches: Sequence[Device]) -> list[tuple[PinRef, PinRef]]:
        """Where the outgoing side of every switch, transformer and supply is measured."""
        made = [(d, ("5", "7")) for d in self._facts.circuits.devices if d.kind.can(Can.TRANSFORMS)]
        made += [(d, ("P", "M")) for d in self._facts.circuits.devices if d.kind.can(Can.MAKES_DC)]
        known = self._panel.network.point
        supplies = [(device.pin(a), device.pin(b)) for device, (a, b) in made]
        pairs = [pair for device in switches for pair in self._pairs(device)[:1]]
        return [pair for pair in (*pairs, *supplies) if pair[0] in known and pair[1] in known]

    def _step(self, key: str, title: str, done: str, expected: tuple[str, ...]) -> LiveStep:
        return LiveStep(f"energise:{key}", ProvingStage.ENERGISE, title, done, expected)

    def _incoming(self) -> Iterator[LiveStep]:
        """The incoming supply at its terminals, everything off, and the order of its lines."""
        at = {pole.name: self._touched(pole) for pole in self._panel.network.poles if pole.system == MAINS}
        lines = [name for name in ("L1", "L2", "L3") if at.get(name)]
        pairs = [(a, b) for n, a in enumerate(lines) for b in lines[n + 1 :]]
        pairs += [(lines[0], other) for other in ("N", "PE") if lines and at.get(other)]
        for first, last in pairs:
            yield from self._measured("Incoming supply", "Everything off", (at[first], at[last]), f"{first} to {last}")
        if len(lines) == len(("L1", "L2", "L3")):
            points = ", ".join(self._facts.label(pin) for name in lines if (pin := at[name]))
            yield self._step("rotation", "Rotation", f"Everything off: phase rotation at {points}", ("turns right",))

    def _touched(self, pole: SupplyPole) -> PinRef | None:
        return self._facts.inside(pole.pin) if pole.pin else None

    def _in_order(self, switches: Sequence[Device]) -> Iterator[Device]:
        """Each switch once something stands at its incoming side; those that nothing reaches come last."""
        left = list(switches)
        while left:
            fed = [device for device in left if self._has_voltage(self._ways(device)[0][0])]
            chosen = fed[0] if fed else left[0]
            left.remove(chosen)
            yield chosen

    def _ways(self, device: Device) -> list[tuple[PinRef, PinRef]]:
        """The incoming and outgoing pin of every pole."""
        poles = [unit for unit in device.kind.units if unit.behaviour is Behaviour.POLE]
        return [(device.pin(unit.pins[0]), device.pin(unit.pins[-1])) for unit in poles]

    def _pairs(self, device: Device) -> list[tuple[PinRef, PinRef]]:
        """Where the outgoing side of a switch is measured: its poles among themselves, or a single one to zero."""
        known = self._panel.network.point
        outs = [out for _, out in self._ways(device) if out in known]
        if len(outs) > 1:
            return [(outs[n], outs[n + 1]) for n in range(len(outs) - 1)]
        return [(out, zero) for out in outs if (zero := zero_of(self._facts, self._panel, out))]

    def _switched(self, device: Device) -> Iterator[LiveStep]:
        tag = self._tags[device.id]
        before = set(self._live_supplies())
        self._panel.operator_state.opened.discard(device.id)
        self._panel.run_until_stable()
        for first, last in self._pairs(device):
            yield from self._measured(f"{tag} on", f"Switch {tag} on", (first, last), "")
        if device.kind.can(Can.RESIDUAL):
            yield from _residual(device, tag)
        for maker in self._live_supplies():
            if maker not in before:
                yield from self._supply(maker)

    def _live_supplies(self) -> list[DeviceId]:
        """Transformers and direct current supplies that give voltage now."""
        made = [d for d in self._facts.circuits.devices if d.kind.can(Can.TRANSFORMS) or d.kind.can(Can.MAKES_DC)]
        return [d.id for d in made if self._has_voltage(d.pin("5" if d.kind.can(Can.TRANSFORMS) else "P"))]

    def _has_voltage(self, pin: PinRef) -> bool:
        """Whether a supply that gives voltage now reaches a pin."""
        at = self._panel.network.point.get(pin)
        known = self._panel.volts.at[at] if at is not None else None
        return known is not None and abs(known[0]) + abs(known[1]) > DEAD_V

    def _supply(self, maker: DeviceId) -> Iterator[LiveStep]:
        device, tag = self._devices[maker], self._tags[maker]
        if device.kind.can(Can.MAKES_DC):
            low, high = TRIM
            words = f"Measure {tag}:P to {tag}:M, trim it to 24 V"
            yield LiveStep(f"supply:{maker}", ProvingStage.ENERGISE, f"{tag}, adjusted", words,
                           (f"{low:g} to {high:g} V as left",), low, high, "V", trimmed=True)  # fmt: skip
            return
        yield from self._measured(f"{tag}, secondary", "Nothing switched", (device.pin("5"), device.pin("7")), "")

    def _measured(
        self, title: str, before: str, points: tuple[PinRef | None, PinRef | None], name: str
    ) -> Iterator[LiveStep]:
        first, last = points
        if first is None or last is None:
            return
        reading = self._meter.volts(last, first)
        volts = abs(reading.value or 0.0)
        where = f"{self._facts.label(first)} to {self._facts.label(last)}" + (f" ({name})" if name else "")
        key = f"volts:{first}~{last}"
        if volts < DEAD_V:
            yield dead_at(key, title, before, [where])
            return
        pole = self._panel.source_of(self._panel.network.point[first])
        mains = pole is None or pole.system == MAINS or reading.kind != "AC"
        low, top = volts * (1 - SHARE), volts * (1 + (SHARE if mains else TRANSFORMER_HIGH))
        expected = f"{volts:.0f} V {reading.kind}".rstrip() + f", {low:.0f} to {top:.0f} V"
        yield LiveStep(key, ProvingStage.ENERGISE, title, f"{before}: measure {where}", (expected,),
                       float(f"{low:.0f}"), float(f"{top:.0f}"), "V", points=(first, last))  # fmt: skip


def _residual(device: Device, tag: str) -> Iterator[LiveStep]:
    """Of a residual-current device its own test button, and the time it takes at its rated residual current."""
    stage = ProvingStage.ENERGISE
    yield LiveStep(f"rcd button:{device.id}", stage, f"{tag}, residual current", f"Press the test button of {tag}",
                   (f"{tag} opens; switch it on again",))  # fmt: skip
    words = f"Trip {tag} with a residual-current tester at its rated residual current, both half-waves"
    yield LiveStep(f"rcd time:{device.id}", stage, f"{tag}, residual current", words,
                   (f"opens within {RCD_MS:g} ms",), 0.0, RCD_MS, "ms")  # fmt: skip


def _switches(device: Device) -> bool:
    if device.zone is Zone.FIELD or earths_a_circuit(device):
        return False
    return device.kind.is_protective or device.kind.can(Can.ISOLATES)
