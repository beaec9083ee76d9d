"""Whether the wires of the power circuits bear what their guards let through (IEC 60364-4-43 434.5.2: I²t ≤ k²S²)."""

from collections.abc import Iterator
from dataclasses import dataclass

from riktig.core.ids import DeviceId, WireId
from riktig.core.short_circuit.iec import lets_through
from riktig.core.short_circuit.power_paths import PowerPaths
from riktig.core.wiring import Wiring

__all__ = ["WireEnergy", "wire_energies"]

K = 115.0
"""Of a copper conductor with PVC insulation, A·s^½ a mm² (IEC 60364-4-43 table 43A, from memory, sure)."""


@dataclass(frozen=True, slots=True)
class WireEnergy:
    """One wire: up to which prospective current its guard protects it, kA; None where that is not known."""

    wire: WireId
    mm2: float
    guard: DeviceId
    bears: float
    """A²s."""
    up_to_ka: float | None
    lets_through: float | None
    """A²s at that current, or at the least current that the guard's figure is given for."""


def wire_energies(paths: PowerPaths, wiring: Wiring) -> tuple[WireEnergy, ...]:
    """Every wire behind a guard of the power circuits, and up to which prospective current it bears it.

    Args:
        paths: The power circuits.
        wiring: All wires.
    """
    return tuple(_energies(paths, wiring))


def _energies(paths: PowerPaths, wiring: Wiring) -> Iterator[WireEnergy]:
    for wire in wiring.wires:
        ahead = paths.of_net.get(wire.net)
        if not ahead:
            continue
        guard, bears = paths.part(ahead[-1]), (K * wire.mm2) ** 2
        given = lets_through(guard)
        borne = next(((ka, energy) for ka, energy in given if energy <= bears), None)
        up_to = borne[0] if borne else 0.0 if given else None
        energy = borne[1] if borne else given[-1][1] if given else None
        yield WireEnergy(wire.key, wire.mm2, guard.id, bears, up_to, energy)
