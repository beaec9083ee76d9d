"""Whether an earth fault at the end of a load's cable trips what guards it at once (IEC 60364-4-41 411.4.4)."""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass

from riktig.core.catalogue import Can, Part
from riktig.core.ids import CircuitId, DeviceId, LoadId
from riktig.core.job import Load, Supply
from riktig.core.short_circuit.power_paths import PowerPart, PowerPaths
from riktig.core.sizing import Sizing

__all__ = ["EarthFault", "earth_faults", "trips_at"]

OHM_MM2_M = 0.0225
"""Of copper at its working temperature, Ω·mm² a metre (IEC 60364-5-52 annex G, from memory, sure)."""
TRIPS = {"B": 5.0, "C": 10.0, "D": 20.0}
"""So many times its rated current trips a miniature breaker at once (IEC 60898-1 table 7, from memory, sure)."""
PROTECTOR_TRIPS = 15.6
"""A motor protector trips at once at 13 times its largest setting, 20 % more at worst (part data, common practice)."""
RETURN = 2.0
"""The way back of the supply is at most as long as the way there (chosen by us: where it is not known)."""


@dataclass(frozen=True, slots=True)
class EarthFault:
    """One load: what trips at once at which current, and what flows in an earth fault at the end of its cable, A.

    ``least`` reckons with a supply whose return is as weak as its lines, ``most`` with one that adds nothing for it.
    ``needs`` is None where it is not known, as behind a drive; ``residual``: a residual-current breaker opens it.
    """

    load: LoadId
    guard: DeviceId
    needs: float | None
    least: float
    most: float
    residual: bool
    behind_drive: bool = False


def trips_at(part: Part, *, protector: bool) -> float | None:
    """The current at which a breaker trips at once, A; None of fuses and of what has no such figure.

    Args:
        part: The breaker.
        protector: Whether it is a motor protector.
    """
    if protector:
        return PROTECTOR_TRIPS * (part.max_a or part.rated_a)
    letter = part.characteristic[:1]
    return TRIPS[letter] * part.rated_a if letter in TRIPS else None


def earth_faults(
    paths: PowerPaths, sizing: Sizing, loads: Iterable[Load], supply: Supply, prospective_ka: float
) -> tuple[EarthFault, ...]:
    """Every load with a cable and a guard.

    Args:
        paths: The power circuits.
        sizing: The sections of the loads' cables.
        loads: The loads of the job, with the lengths of their cables.
        supply: Of the panel.
        prospective_ka: What the supply gives at its terminals, kA.
    """
    return tuple(_faults(paths, sizing, {load.id: load for load in loads}, supply, prospective_ka))


def _faults(
    paths: PowerPaths, sizing: Sizing, loads: Mapping[LoadId, Load], supply: Supply, prospective_ka: float
) -> Iterator[EarthFault]:
    volts = supply.voltage_to_neutral_v
    ahead = volts / (1000 * prospective_ka)
    for sized in sizing.loads:
        load, guard = loads.get(sized.load), _guard_of(paths, sized.circuit)
        if load is None or guard is None or not load.cable_m or not sized.section.mm2 or not sized.pe_mm2:
            continue
        cable = OHM_MM2_M * load.cable_m * (1 / sized.section.mm2 + 1 / sized.pe_mm2)
        drive = any(p.device.circuit == sized.circuit and p.device.kind.can(Can.VARIES_SPEED) for p in paths.parts)
        needs = None if drive else trips_at(guard.part, protector=guard.figures.guard == "protector")
        residual = guard.device.kind.can(Can.RESIDUAL)
        yield EarthFault(
            sized.load, guard.id, needs, volts / (RETURN * ahead + cable), volts / (ahead + cable), residual, drive
        )


def _guard_of(paths: PowerPaths, circuit: CircuitId) -> PowerPart | None:
    """The last guard ahead of what carries the load of a circuit; its only one where nothing else stands there."""
    carrying = [part for part in paths.parts if part.device.circuit == circuit and not part.is_guard and part.ahead]
    if carrying:
        return paths.part(max(carrying, key=lambda part: len(part.ahead)).ahead[-1])
    return next((part for part in paths.parts if part.device.circuit == circuit and part.is_guard), None)
