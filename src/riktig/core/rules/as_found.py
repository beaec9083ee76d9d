"""Findings about what stood in the panel before it came to the house, apart from those about what is new."""

from riktig.core.ids import CircuitId
from riktig.core.job import Job
from riktig.core.rules.draw_walk import circuit_at
from riktig.core.rules.model import Finding
from riktig.core.wiring import Wiring

__all__ = ["found_circuits", "is_as_found"]


def found_circuits(job: Job) -> frozenset[CircuitId]:
    """The circuits that a survey found."""
    return frozenset(circuit.id for circuit in job.circuits if circuit.found)


def is_as_found(finding: Finding, circuits: frozenset[CircuitId], wiring: Wiring) -> bool:
    """Whether a finding is about one of the circuits that a survey found; what is about the whole panel is not.

    Args:
        finding: The finding.
        circuits: Those circuits.
        wiring: All wires: each belongs to a circuit.
    """
    return bool(circuits) and circuit_at(finding.where, wiring) in circuits
