"""What the customer wants run."""

import math
from dataclasses import dataclass

from riktig.core.errors import RiktigError
from riktig.core.job.ids import LoadId

__all__ = ["LARGEST_KW", "Load", "read_current", "read_power"]

LARGEST_KW = 400.0
"""The end of the published current table (IEC 60947-4-1 Annex G)."""


@dataclass(frozen=True, slots=True)
class Load:
    """A three-phase motor, started direct-on-line by start and stop on the door.

    ``kw`` is the rated output. ``nameplate_a`` is the current on the motor's plate when it is
    known: it wins over the table. ``cable_m`` is the run to the motor.

    Raises:
        ValueError: a power or current that is not a positive number.
    """

    id: LoadId
    name: str
    kw: float
    place: str = ""
    nameplate_a: float | None = None
    cable_m: float = 10.0
    run_lamp: bool = True
    trip_lamp: bool = True

    def __post_init__(self) -> None:
        if not (math.isfinite(self.kw) and 0 < self.kw <= LARGEST_KW):
            raise ValueError(
                f"a motor of {self.kw:g} kW cannot be planned; it must be above 0 and at most {LARGEST_KW:g} kW"
            )
        amps = self.nameplate_a
        if amps is not None and not (math.isfinite(amps) and 0 < amps < 2000):
            raise ValueError(f"a nameplate current of {amps:g} A cannot be right")
        if not 0 <= self.cable_m <= 2000:
            raise ValueError(f"a motor cable of {self.cable_m:g} m cannot be planned")


def read_power(text: str, *, where: str = "") -> float:
    """Reads a motor power such as “4”, “4 kW” or “0,75 kW”, in kW.

    Raises:
        RiktigError: not a number, not above zero, beyond the table, or in another unit.
    """
    kw = _read_number(text, "kW", "motor power", where)
    if not 0 < kw <= LARGEST_KW:
        raise RiktigError(
            f"“{text.strip()}” cannot be a motor power: it must be above 0 and at most "
            f"{LARGEST_KW:g} kW, so no current, breaker or conductor could be chosen.",
            hint="Give the rated output from the motor's plate, such as 4 kW.",
            where=where,
        )
    return kw


def read_current(text: str, *, where: str = "") -> float | None:
    """Reads a nameplate current, A; empty gives None (“take it from the table”).

    Raises:
        RiktigError: not a number of A above zero and below 2000.
    """
    if not text.strip():
        return None
    amps = _read_number(text, "A", "nameplate current", where)
    if not 0 < amps < 2000:
        raise RiktigError(
            f"“{text.strip()}” cannot be a motor's current, so the overload could not be set.",
            hint="Give the current on the motor's plate in A, or leave it empty for the table.",
            where=where,
        )
    return amps


def _read_number(text: str, unit: str, what: str, where: str) -> float:
    body = text.strip().replace(" ", " ")
    if body.lower().endswith(unit.lower()):
        body = body[: -len(unit)].strip()
    try:
        value = float(body.replace(",", ".")) if body.isascii() else math.nan
    except ValueError:
        value = math.nan
    if not math.isfinite(value):
        raise RiktigError(
            f"“{text.strip()}” cannot be read as a {what} in {unit}.",
            hint=f"Give a plain number, such as {'4' if unit == 'kW' else '8.1'}, in {unit}.",
            where=where,
        )
    return value
