"""What the dial of each overload relay and motor protector is set to, and the motor current of each drive."""

from collections.abc import Callable, Iterable

from riktig.core.catalogue import Can
from riktig.core.job import Circuit, DeviceId
from riktig.core.schematic import Circuits, Device
from riktig.core.sizing.electrical import ElectricalProposal

__all__ = ["dial_settings", "motor_currents"]

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
    return _amounts(circuits, own_circuits, proposal, "setting", lambda device: device.kind.sized_as in _DIALS)


def motor_currents(
    circuits: Circuits, own_circuits: Iterable[Circuit], proposal: ElectricalProposal
) -> dict[DeviceId, float]:
    """The motor current that is entered in every drive and soft starter, A.

    Args:
        circuits: All devices and rungs of the job.
        own_circuits: The circuits of the job, with their loads.
        proposal: What Riktig proposes for the job.
    """
    return _amounts(circuits, own_circuits, proposal, "current", _is_electronic)


def _is_electronic(device: Device) -> bool:
    can = device.kind.can
    return can(Can.VARIES_SPEED) or can(Can.STARTS_SOFTLY)


def _amounts(
    circuits: Circuits,
    own_circuits: Iterable[Circuit],
    proposal: ElectricalProposal,
    what: str,
    of: Callable[[Device], bool],
) -> dict[DeviceId, float]:
    """A figure of the load of each device of a kind."""
    loads = {circuit.id: circuit.load for circuit in own_circuits if circuit.load}
    amounts: dict[DeviceId, float] = {}
    for device in circuits.devices:
        load = loads.get(device.circuit) if of(device) else None
        load_proposal = proposal.of_load(load) if load else None
        amount = load_proposal.amount(what) if load_proposal else 0.0
        if amount:
            amounts[device.id] = amount
    return amounts
