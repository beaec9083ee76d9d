"""What several steps ask of a job together: its circuits with what they are drawn for."""

from dataclasses import dataclass

from riktig.core.evaluation import reads
from riktig.core.job.circuit import Circuit
from riktig.core.job.enclosure import Ventilation
from riktig.core.job.job import Job
from riktig.core.job.load import Load
from riktig.core.job.own_strip import OwnStrip
from riktig.core.job.practice import Practice
from riktig.core.job.reading import (
    JOB_CIRCUITS,
    JOB_LOADS,
    JOB_PRACTICE,
    JOB_SIGNALS,
    JOB_SOURCES,
    JOB_STRIPS,
    JOB_SUPPLY,
    JOB_VENTILATION,
)
from riktig.core.job.signal import Signal, Source
from riktig.core.job.supply import Supply

__all__ = ["JOB_CIRCUIT_INPUTS", "CircuitInputs", "circuit_inputs"]


@dataclass(frozen=True, slots=True, eq=False)
class CircuitInputs:
    """What all circuits of a job follow from."""

    circuits: tuple[Circuit, ...]
    """As the job holds them, without those that the Brief implies."""
    loads: tuple[Load, ...]
    supply: Supply
    practice: Practice
    signals: tuple[Signal, ...] = ()
    ventilation: Ventilation = Ventilation.NONE
    """How the enclosure is cooled: a fan is a circuit."""
    sources: tuple[Source, ...] = ()
    """Supplies that arrive from elsewhere."""
    strips: tuple[OwnStrip, ...] = ()
    """Terminals as the builder ordered them."""

    @property
    def parts(self) -> tuple[object, ...]:
        """The objects one by one, for a cache that compares by identity."""
        return (
            self.circuits, self.loads, self.supply, self.practice, self.signals, self.ventilation, self.sources,
            self.strips,
        )  # fmt: skip


def circuit_inputs(job: Job) -> CircuitInputs:
    """What the circuits of a job follow from."""
    return CircuitInputs(
        job.circuits,
        job.loads,
        job.supply,
        job.practice,
        job.signals,
        job.enclosure.ventilation,
        job.sources,
        job.strips,
    )


JOB_CIRCUIT_INPUTS = (
    reads(JOB_CIRCUITS)
    & JOB_LOADS
    & JOB_SUPPLY
    & JOB_PRACTICE
    & JOB_SIGNALS
    & JOB_VENTILATION
    & JOB_SOURCES
    & JOB_STRIPS
).derive("circuit inputs", CircuitInputs)
