"""A live panel for a job: its supply, its control voltage, its wires as far as they are planned."""

from collections.abc import Mapping

from riktig.core.catalogue import Part
from riktig.core.job import ControlSupply, DeviceId, Job, Load, Practice, Supply
from riktig.core.schematic import Circuits, Nets, control_source
from riktig.core.simulation.conductors import Conductor
from riktig.core.simulation.run import Panel

__all__ = ["control_volts", "panel_of"]


def control_volts(loads: tuple[Load, ...], supply: Supply, practice: Practice) -> float:
    """The voltage of the control transformer's secondary, V.

    Args:
        loads: The loads of the job.
        supply: The supply of the job.
        practice: The practice of the job.
    """
    control, _ = control_source(loads, supply, practice)
    if control is ControlSupply.DIRECT:
        return supply.voltage_to_neutral_v
    return practice.transformer_v


def panel_of(
    job: Job,
    circuits: Circuits,
    nets: Nets,
    conductors: tuple[Conductor, ...] = (),
    parts: Mapping[DeviceId, Part] | None = None,
) -> Panel:
    """The panel at rest with power on; ``parts`` where they are chosen, for what their coils and lamps draw.

    Args:
        job: The job; it is not changed.
        circuits: All devices and rungs of the job.
        nets: All nets of these circuits.
        conductors: The conductors with their ends.
        parts: The part of every device; None for ideal ones.
    """
    return Panel(circuits, nets, job.supply, control_volts(job.loads, job.supply, job.practice), conductors, parts)
