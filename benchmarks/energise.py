"""Measures the live panel: a click, a meter reading, a long script, at 100 starters.

Run: .venv/bin/python benchmarks/energise.py
"""

import random
import time

from circuits import panel
from measure import median

from riktig.core.circuit import CIRCUITS, NETS
from riktig.core.energise import Panel, meter_of
from riktig.core.job import DeviceId
from riktig.core.plan import Plan

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
        hands = live.hands
        place = {"overload": hands.tripped, "motor_breaker": hands.opened}.get(device.kind_id, hands.pressed)
        begin = time.perf_counter()
        if device.kind_id == "selector_hoa":
            hands.position[did] = chance.choice(["hand", "off", "auto"])
        elif did in place:
            place.discard(did)
        else:
            place.add(did)
        live.settle()
        found.append(time.perf_counter() - begin)
    return found


def main() -> None:
    """Clicks, readings, a script."""
    plan = Plan(panel(STARTERS))
    circuits, nets = plan.get(CIRCUITS), plan.get(NETS)
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
            live.hands.opened.add(main_switch)
        found = []
        for _ in range(60):
            black, red = chance.sample(pins, 2)
            live.settle()
            begin = time.perf_counter()
            read(black, red)
            found.append(time.perf_counter() - begin)
        median(f"a reading of {word}", found)
    live.hands.opened.discard(main_switch)
    live.settle()
    begin = time.perf_counter()
    clicks(live, 1000)
    print(f"1,000 steps {time.perf_counter() - begin:.2f} s")


if __name__ == "__main__":
    main()
