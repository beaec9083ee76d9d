"""The command ``trace``: follows a label through the panel."""

import argparse

from riktig.cli.files import read_job
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.job import JOB_CIRCUIT_INPUTS, Job
from riktig.core.keys import Key, NetKey, PinKey, WireKey
from riktig.core.labels import INDEX, find
from riktig.core.proving import ENERGISED, PANEL_FACTS, ToMeasure, what_to_measure
from riktig.core.schematic import NETS
from riktig.core.views import trace_page
from riktig.core.wiring import WIRING

__all__ = ["trace"]


def trace(arguments: argparse.Namespace) -> int:
    """Follows a label back to its source and on to its load."""
    plan, file = read_job(arguments.file)
    file.close()
    entry = next(
        (e for e in find(plan.get(INDEX), arguments.label) if e.label.lower() == arguments.label.lower()), None
    )
    if entry is None:
        raise RiktigError(
            f"Nothing in the job is called {arguments.label}.", hint="See show FILE terminals, wires or bom for labels."
        )
    page = trace_page(plan, entry.key)
    if page is None:
        raise RiktigError(
            f"{arguments.label} stands on no path that could be followed.", hint="Try what it is wired to."
        )
    print(f"Trace of {page.title}")
    columns = zip(page.headings, page.ends, page.columns, strict=True)
    for number, (heading, (before, after), stops) in enumerate(columns, 1):
        print(f"\n{number}  {heading}")
        for line in (before, *(stop.words for stop in stops), after):
            if line:
                print(f"  {line}")
    rows = _to_measure(plan, entry.key)
    if rows:
        print("\nTo measure, by a skilled person")
    for row in rows:
        print(f"  {row.points}, {row.state}: {row.expected}")
    return 0


def _to_measure(plan: Evaluation[Job], key: Key | None) -> tuple[ToMeasure, ...]:
    """What must be read at the potential of a number, a wire or a pin; nothing for anything else."""
    nets = plan.get(NETS)
    match key:
        case NetKey(net_id):
            net = nets.net(net_id)
        case WireKey(wire_id):
            wire = plan.get(WIRING).wire(wire_id)
            net = nets.net(wire.net) if wire else None
        case PinKey(pin):
            net = nets.of_pin.get(pin)
        case _:
            net = None
    if net is None:
        return ()
    return what_to_measure(plan.get(PANEL_FACTS), plan.get(ENERGISED), plan.get(JOB_CIRCUIT_INPUTS), net)
