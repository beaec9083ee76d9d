"""Circuits with a transformer of their own: where no neutral arrives, ways and sockets hang on one."""

from riktig.core.catalogue import Can
from riktig.core.job import CircuitId
from riktig.core.schematic import Circuits

__all__ = ["behind_own_transformers"]


def behind_own_transformers(circuits: Circuits) -> dict[CircuitId, float]:
    """By circuits that have a transformer of their own: what the breakers behind it let through together, A.

    Args:
        circuits: All devices of the job.
    """
    transforming = {device.circuit for device in circuits.devices if device.kind.can(Can.TRANSFORMS)}
    sums: dict[CircuitId, float] = {}
    for device in circuits.devices:
        if device.circuit in transforming and device.kind.is_protective:
            sums[device.circuit] = sums.get(device.circuit, 0.0) + device.least_a
    return sums
