"""Measures the live panel: a click, a meter reading, a long script, at 100 starters.

Run: .venv/bin/python benchmarks/energise.py
"""

import os
import random
import tempfile
import time
from pathlib import Path

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from circuits import panel
from measure import median

from riktig.core.evaluation import Evaluation
from riktig.core.job import CircuitId, DeviceId
from riktig.core.schematic import CIRCUITS, NETS, SHEETS, Circuits, Nets
from riktig.core.simulation import Panel, Runner, meter_of
from riktig.core.store import JobFile

STARTERS = 100


def clicks(live: Panel, count: int) -> list[float]:
    """Buttons pressed and let go, overloads tripped and reset, breakers opened and closed, at random."""
    chance = random.Random(6)
    kinds = ("start_button", "stop_button", "overload", "motor_breaker", "selector_hoa", "float_no", "float_nc")
    able = [d for d in live.circuits.devices if d.kind_id in kinds]
    found = []
    for _ in range(count):
        device = chance.choice(able)
        did: DeviceId = device.id
        operator_state = live.operator_state
        place = {"overload": operator_state.tripped, "motor_breaker": operator_state.opened}.get(
            device.kind_id, operator_state.pressed
        )
        begin = time.perf_counter()
        if device.kind_id == "selector_hoa":
            operator_state.position[did] = chance.choice(["hand", "off", "auto"])
        elif did in place:
            place.discard(did)
        else:
            place.add(did)
        live.run_until_stable()
        found.append(time.perf_counter() - begin)
    return found


def script(circuits: Circuits, nets: Nets) -> float:
    """A thousand steps: each starter with buttons started and stopped, and looked at every time."""
    known = {device.id for device in circuits.devices}
    owners = [d.circuit for d in circuits.devices if d.kind_id == "start_button"]
    able = [c for c in owners if {f"{c}.S.start", f"{c}.S.stop", f"{c}.K"} <= known]
    runner = Runner(Panel(circuits, nets), CircuitId(""))
    begin = time.perf_counter()
    for number in range(250):
        c = able[number % len(able)]
        runner.step(f"press {c}.S.start: {c}.K on")
        runner.step(f"release {c}.S.start: {c}.K on")
        runner.step(f"press {c}.S.stop: {c}.K off")
        runner.step(f"release {c}.S.stop: {c}.K off")
    return time.perf_counter() - begin


def on_screen() -> None:
    """An operation until the live sheet is painted, with wires and rules worked out already (or stopped)."""
    from riktig.desk.app import application, make_window

    app = application()
    window = make_window()
    window.resize(1280, 800)
    window.session.open(JobFile.create(Path(tempfile.mkdtemp()) / "b.riktig", panel(STARTERS), who="a", at="t"))
    window.show()
    window.go_to("Circuits")
    app.processEvents()
    station = window.stations["Circuits"]
    station.show_sheet(40)  # type: ignore[attr-defined]
    station.energise()  # type: ignore[attr-defined]
    app.processEvents()
    window.deriver.close()
    live = station.live  # type: ignore[attr-defined]
    here = window.session.evaluation.get(SHEETS).sheets[40].circuits
    able = [one for one in live.model.operators if one.circuit in here and len(one.positions) > 1]
    found = []
    for number in range(60):
        one = able[number % len(able)]
        begin = time.perf_counter()
        live.model.do(one, one.positions[(number // len(able) + 1) % len(one.positions)])
        live.show_state()
        live.view.repaint()
        found.append(time.perf_counter() - begin)
    median("an operation until it is painted", found)
    window.close()


def main() -> None:
    """Clicks, readings, a script, the screen."""
    evaluation = Evaluation(panel(STARTERS))
    circuits, nets = evaluation.get(CIRCUITS), evaluation.get(NETS)
    begin = time.perf_counter()
    live = Panel(circuits, nets)
    print(
        f"{STARTERS} starters, {live.network.count} points: power on in {(time.perf_counter() - begin) * 1000:.0f} ms"
    )
    runs = sorted(clicks(live, 2000))
    median("a click", runs)
    print(f"    of them 99 in 100 under {runs[int(len(runs) * 0.99)] * 1000:.2f} ms")
    meter = meter_of(live)
    pins = list(nets.of_pin)
    chance = random.Random(7)
    main_switch = next(d.id for d in circuits.devices if d.kind.family == "isolator")
    for word, read in (("volts", meter.volts), ("ohms", meter.ohms)):
        if word == "ohms":
            live.operator_state.opened.add(main_switch)
        found = []
        for _ in range(60):
            black, red = chance.sample(pins, 2)
            live.run_until_stable()
            begin = time.perf_counter()
            read(black, red)
            found.append(time.perf_counter() - begin)
        median(f"a reading of {word}", found)
    live.operator_state.opened.discard(main_switch)
    live.run_until_stable()
    begin = time.perf_counter()
    clicks(live, 1000)
    print(f"1,000 clicks more, breakers among them {time.perf_counter() - begin:.2f} s")
    median("a script of 1,000 steps, each looked at", [script(circuits, nets) for _ in range(5)], "s", 1.0)
    on_screen()


if __name__ == "__main__":
    main()
