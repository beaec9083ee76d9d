"""Measures numbering, the trace and the finder on a job of over 10,000 pins and over 5,000 wires.

Run: .venv/bin/python benchmarks/names.py
"""

import time
from dataclasses import replace

from circuits import panel, timed
from measure import median

from riktig.core.evaluation import Evaluation
from riktig.core.job import Job, Numbering, set_practice
from riktig.core.keys import DeviceKey, Key, NetKey, PinKey, WireKey
from riktig.core.labels import INDEX, find
from riktig.core.schematic import CIRCUITS, NAMES, NETS, SHEETS, GivenNames, name_all
from riktig.core.views import trace_page
from riktig.core.wiring import WIRING

STARTERS = 160
TYPED = ("K1", "k1:1", "x5", "M12-U", "WM7", "trunking", "isolator", "seal-in", "hold K3", "pump 11", "10", "nothing")


def numbering(job: Job) -> None:
    """Every school, from nothing and with all numbers kept; the sheets stand already, as on the screen."""
    evaluation = Evaluation(job)
    circuits, nets = evaluation.get(CIRCUITS), evaluation.get(NETS)
    evaluation.get(SHEETS)
    for scheme in Numbering:
        other = set_practice(job, numbering=scheme)
        for how, kept in (("from nothing", replace(other, tags=(), numbers=())), ("kept", other)):

            def act(kept: Job = kept) -> None:
                fresh = evaluation.memory.copy()  # the sheets stand, as on the screen
                name_all(circuits, nets, GivenNames(kept.practice, kept.tags, kept.numbers, kept.last_number), fresh)

            act()
            median(f"numbered {how}, {scheme.value[:34]}", timed(act, 15))


def tracing(evaluation: Evaluation[Job]) -> None:
    """A page of the trace from every seventh thing of each kind."""
    circuits, nets = evaluation.get(CIRCUITS), evaluation.get(NETS)
    begin = time.perf_counter()
    trace_page(evaluation, DeviceKey(circuits.devices[0].id))
    print(f"the first trace after an edit {(time.perf_counter() - begin) * 1000:.0f} ms")
    keys: list[Key] = [DeviceKey(device.id) for device in circuits.devices[::7]]
    keys += [PinKey(pin) for pin in list(nets.of_pin)[::40]]
    keys += [NetKey(net.id) for net in nets.nets[::12]]
    keys += [WireKey(wire.key) for wire in evaluation.get(WIRING).wires[::25]]
    found = []
    for key in keys:
        begin = time.perf_counter()
        trace_page(evaluation, key)
        found.append(time.perf_counter() - begin)
    median(f"a trace, {len(keys)} of them", found)
    worst = sorted(zip(found, keys, strict=True))
    print(f"    of them 95 in 100 under {worst[int(len(worst) * 0.95)][0] * 1000:.1f} ms; longest {worst[-3:]}")


def finding(evaluation: Evaluation[Job]) -> None:
    """Every text as it is typed, letter by letter."""
    index = evaluation.get(INDEX)
    found = []
    for text in TYPED:
        for end in range(1, len(text) + 1):
            begin = time.perf_counter()
            find(index, text[:end])
            found.append(time.perf_counter() - begin)
    median(f"the finder among {len(index.entries)} entries, a letter typed", found)


def main() -> None:
    """Numbers, traces and finds."""
    job = panel(STARTERS)
    evaluation = Evaluation(job)
    nets = evaluation.get(NETS)
    print(
        f"{STARTERS} starters: {len(nets.of_pin)} pins, {len(nets.nets)} nets, "
        f"{len(evaluation.get(SHEETS).sheets)} sheets"
    )
    numbering(replace(job, printed=()))
    begin = time.perf_counter()
    wires = len(evaluation.get(WIRING).wires)
    print(f"{wires} wires, led in {time.perf_counter() - begin:.0f} s; {len(evaluation.get(NAMES).number)} numbers")
    tracing(evaluation)
    finding(evaluation)


if __name__ == "__main__":
    main()
