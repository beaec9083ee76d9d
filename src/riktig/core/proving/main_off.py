"""Live steps around the main switch: loads at rest are dead, what stays on stays on, and what restarts by itself."""

from collections.abc import Iterator, Mapping, Sequence
from itertools import groupby

from riktig.core.catalogue import Behaviour, Can
from riktig.core.ids import DeviceId, PinRef
from riktig.core.proving.live_step import DEAD_V, LiveStep, dead_at
from riktig.core.proving.planner import PanelFacts
from riktig.core.proving.tests import ProvingStage
from riktig.core.schematic import Device
from riktig.core.simulation import MAINS, Meter, Panel, Restart, meter_of

__all__ = ["dip_steps", "idle_load_steps", "main_off_steps"]

DIP_S = 5
"""How long the supply is off (chosen by us: longer than a contactor or a power supply rides through)."""


def idle_load_steps(facts: PanelFacts, panel: Panel) -> Iterator[LiveStep]:
    """With everything on and nothing started: every line behind the contacts of a load is dead.

    One welded contact of three lets nothing run, so that no function test finds it; it leaves one line live.

    Args:
        facts: The panel as it is drawn, named, bought and wired.
        panel: With every switch on, at rest; it is left as it is.
    """
    meter = meter_of(panel)
    for device in facts.circuits.devices:
        if not device.kind.can(Can.SWITCHES_LOAD):
            continue
        main = [u for u in device.kind.units if u.behaviour is Behaviour.NO and u.symbol == "contactor"]
        outs = [device.pin(unit.pins[-1]) for unit in main]
        lines = [pin for pin in outs if pin in panel.network.point and _line_ahead(panel, device, pin)]
        earth = _pole(facts, panel, "PE") or _pole(facts, panel, "N")
        if not lines or earth is None or any(_volts(meter, pin, earth) >= DEAD_V for pin in lines):
            continue
        tag = facts.names.tag[device.id]
        points = [*(facts.label(pin) for pin in lines[:-1]), f"{facts.label(lines[-1])} to {facts.label(earth)}"]
        yield dead_at(f"idle:{device.id}", f"{tag}, at rest", "Everything on, nothing started", points)


def _line_ahead(panel: Panel, device: Device, out: PinRef) -> bool:
    """Whether the other side of a main contact has voltage, so that it would show behind a welded one."""
    unit = next(unit for unit in device.kind.units if unit.pins and device.pin(unit.pins[-1]) == out)
    at = panel.network.point.get(device.pin(unit.pins[0]))
    known = panel.volts.at[at] if at is not None else None
    return known is not None and abs(known[0]) + abs(known[1]) > DEAD_V


def _pole(facts: PanelFacts, panel: Panel, name: str) -> PinRef | None:
    """Where a pole of the incoming supply is touched inside the panel."""
    pole = next((p for p in panel.network.poles if p.system == MAINS and p.name == name and p.pin), None)
    return facts.inside(pole.pin) or pole.pin if pole and pole.pin else None


def _volts(meter: Meter, pin: PinRef, to: PinRef) -> float:
    return abs(meter.volts(to, pin).value or 0.0)


def main_off_steps(facts: PanelFacts, panel: Panel, outs: Sequence[tuple[PinRef, PinRef]]) -> Iterator[LiveStep]:
    """The main switch off again with everything else on: what was fed through it is dead, the rest is live.

    Args:
        facts: The panel as it is drawn, named, bought and wired.
        panel: With every switch on, at rest; its main switch is opened.
        outs: Where the outgoing side of each switch and supply is measured.
    """
    main = next((d for d in facts.circuits.devices if d.kind.can(Can.MAIN_SWITCH)), None)
    if main is None:
        return
    meter = meter_of(panel)
    before = [pair for pair in outs if _volts(meter, *pair) >= DEAD_V]
    poles = {pair[0]: panel.source_of(panel.network.point[pair[0]]) for pair in before}
    supply_of = {pin: str(pole.system) for pin, pole in poles.items() if pole is not None}
    panel.operator_state.opened.add(main.id)
    panel.run_until_stable()
    tag, tags = facts.names.tag[main.id], facts.names.tag
    still_live = [pair for pair in before if _volts(meter, *pair) >= DEAD_V]
    if not still_live:  # everything hangs on the main switch: that it is dead was measured behind it
        return
    how = f"{tag} off again, everything else on"
    for device, pairs in groupby(still_live, lambda pair: pair[0].device):
        first, last = next(pairs)
        words = f"{how}: measure {facts.label(first)} to {facts.label(last)}"
        volts = _volts(meter, first, last)
        yield LiveStep(f"kept:{device}", ProvingStage.ENERGISE, f"{tags[device]} stays on", words,
                       (f"{volts:.0f} V, stays live",), float(f"{0.9 * volts:.0f}"), float(f"{1.15 * volts:.0f}"),
                       "V")  # fmt: skip
    for system, first_points in _by_supply(supply_of, [p for p in before if p not in still_live]):
        points = [f"{facts.label(first)} to {facts.label(last)}" for first, last in first_points]
        yield dead_at(f"main off:{system}", f"Dead with {tag} off", how, points)


def _by_supply(
    supply_of: Mapping[PinRef, str], pairs: Sequence[tuple[PinRef, PinRef]]
) -> Iterator[tuple[str, list[tuple[PinRef, PinRef]]]]:
    """The first points of each supply: behind the main switch, behind each transformer and each direct current."""
    first: dict[str, list[tuple[PinRef, PinRef]]] = {}
    for pair in pairs:
        first.setdefault(supply_of.get(pair[0], ""), [pair])
    yield from first.items()


def dip_steps(facts: PanelFacts, restarts: Sequence[Restart]) -> Iterator[LiveStep]:
    """Each load made to run, the supply off and on again: it stays off, or restarts by itself as the table says.

    Args:
        facts: The panel as it is drawn, named, bought and wired.
        restarts: What each load does when power returns.
    """
    main = next((d for d in facts.circuits.devices if d.kind.can(Can.MAIN_SWITCH)), None)
    supply = facts.names.tag[main.id] if main else "the supply"
    titles = dict(facts.circuits.titles)
    for number, restart in enumerate(ran for ran in restarts if ran.ran):
        load = facts.names.tag[DeviceId(restart.motor)]
        seen = "runs again by itself: keep clear, it must be accepted" if restart.after_power else "stays off"
        words = f"{load} runs {restart.how}: switch {supply} off, wait {DIP_S} s, on again"
        title = f"{titles.get(restart.circuit, '')}, power dip"
        yield LiveStep(f"dip:{restart.circuit}:{number}", ProvingStage.FUNCTION, title, words, (f"{load} {seen}",))
