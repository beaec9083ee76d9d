"""What the dial of each overload relay and motor protector is to be set to."""

from collections.abc import Iterable

from riktig.core.job import Circuit, DeviceId
from riktig.core.schematic import Circuits
from riktig.core.sizing.electrical import ElectricalProposal

__all__ = ["dial_settings"]

_DIALS = ("overload", "motor protector")


def dial_settings(
    circuits: Circuits, own_circuits: Iterable[Circuit], proposal: ElectricalProposal
) -> dict[DeviceId, float]:
    """The setting of every dial, A: that of its load, the builder's own where he gave one.

    Args:
        circuits: All devices and rungs of the job.
        own_circuits: The circuits of the job, with their loads.
        proposal: What Riktig proposes for the job.
    """
    loads = {circuit.id: circuit.load for circuit in own_circuits if circuit.load}
    settings: dict[DeviceId, float] = {}
    for device in circuits.devices:
        if device.kind.sized_as in _DIALS and (load := loads.get(device.circuit)):
            load_proposal = proposal.of_load(load)
            amps = load_proposal.amount("setting") if load_proposal else 0.0
            if amps:
                settings[device.id] = amps
    return settings
