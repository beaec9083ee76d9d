"""The command ``rungs``: prints a circuit as a rung file."""

import argparse

from riktig.cli.files import read_job
from riktig.core.errors import RiktigError
from riktig.core.job import CircuitId
from riktig.core.schematic import CIRCUITS, as_written
from riktig.core.store import WrittenCircuit, dump_rungs

__all__ = ["rungs"]


def rungs(arguments: argparse.Namespace) -> int:
    """Prints a circuit as a rung file."""
    plan, file = read_job(arguments.file)
    file.close()
    circuits = plan.get(CIRCUITS)
    titles = {str(cid): title for cid, title in circuits.titles}
    if arguments.circuit not in titles:
        raise RiktigError(
            f"There is no circuit {arguments.circuit}.", hint=f"There are {', '.join(titles)}.", where="CIRCUIT"
        )
    devices, rungs = as_written(circuits, CircuitId(arguments.circuit))
    print(dump_rungs(WrittenCircuit(titles[arguments.circuit], devices, rungs)))
    return 0
