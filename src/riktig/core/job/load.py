"""What the customer wants run."""

import math
from dataclasses import dataclass

from riktig.core.errors import ImpossibleValueError, RiktigError
from riktig.core.ids import LoadId
from riktig.core.job.load_values import (
    Access,
    CableLaying,
    Command,
    Duty,
    Fitting,
    Isolation,
    LoadKind,
    Protection,
    Start,
)
from riktig.core.job.number_ranges import LARGEST_HP, LARGEST_KW, LOAD_LIMITS

__all__ = [
    "LARGEST_HP",
    "LARGEST_KW",
    "Load",
    "read_count",
    "read_current",
    "read_power",
    "read_power_hp",
    "read_quantity",
]

LONGEST_QUANTITY = 40
"""Letters of a number with its unit; what is longer is something else (chosen by us)."""
KW_PER_HP = 0.746
"""Mechanical horsepower: 746 W, as NEC usage has it, from memory."""


@dataclass(frozen=True, slots=True)
class Load:
    """One load as the customer states it. What one answer contradicts in another is a finding.

    ``kw`` or ``hp`` is the rated output of a motor or the rating of anything else; one of them, or
    ``nameplate_a``, is given. ``nameplate_a`` is the current on the plate when it is known: it wins
    over the table. ``phases``: 3, 2 (between two lines) or 1 (line to neutral). ``voltage_v`` None is
    the supply's. ``phase`` 1 to 3 is the line a single-phase load sits on, 0 leaves it to Riktig.
    ``neutral_of`` is the load whose neutral it shares.
    ``cable_m`` is the run to it, ``laying`` how it lies and ``cables_together`` how many loaded cables lie side by
    side there, itself counted. ``maintained``: it stays alive with the main switch off. ``reason``
    is a note on why it is as it is, printed in the manual.

    Raises:
        ValueError: a value that no load can have.
    """

    id: LoadId
    name: str
    kw: float | None = None
    place: str = ""
    nameplate_a: float | None = None
    cable_m: float = 10.0
    run_lamp: bool = True
    trip_lamp: bool = True
    hp: float | None = None
    kind: LoadKind = LoadKind.MOTOR
    phases: int = 3
    voltage_v: float | None = None
    start: Start = Start.DIRECT
    command: Command = Command.BUTTONS
    isolation: Isolation = Isolation.STARTER
    duty: Duty = Duty.NORMAL
    protection: Protection = Protection.BREAKER
    access: Access = Access.ANYONE
    fitting: Fitting = Fitting.WORKSHOP
    service_factor: float = 1.0
    level_alarm: bool = False
    maintained: bool = False
    phase: int = 0
    reason: str = ""
    neutral_of: LoadId | None = None
    laying: CableLaying = CableLaying.WALL
    cables_together: int = 1
    stop_float_m: float = 0.0
    start_float_m: float = 0.0
    alarm_float_m: float = 0.0
    """Where its floats hang, above the bottom of the tank; 0: not known."""

    def __post_init__(self) -> None:
        if self.kw is None and self.hp is None and self.nameplate_a is None:
            raise ImpossibleValueError(f"the {self.name or 'load'} has neither a power nor a current")
        if self.phases not in (1, 2, 3) or self.phase not in (0, 1, 2, 3):
            raise ImpossibleValueError("a load has one, two or three lines")
        for name, value in (
            ("kw", self.kw),
            ("hp", self.hp),
            ("nameplate_a", self.nameplate_a),
            ("cable_m", self.cable_m),
            ("cables_together", self.cables_together),
            ("load_v", self.voltage_v),
            *(("float_m", height) for height in self.float_heights.values()),
            ("service_factor", self.service_factor),
        ):
            if value is not None:
                LOAD_LIMITS[name].see(value)

    @property
    def float_heights(self) -> dict[str, float]:
        """Where its floats hang above the bottom of the tank, m, by what they are; 0: not known."""
        return {"stop": self.stop_float_m, "start": self.start_float_m, "alarm": self.alarm_float_m}

    @property
    def is_motor(self) -> bool:
        """Whether it turns."""
        return self.kind is LoadKind.MOTOR

    @property
    def power_name(self) -> str:
        """The power as the customer said it: “4 kW”, “7.5 hp”, or the current."""
        if self.kw is not None:
            return f"{self.kw:g} kW" if self.kw >= 0.1 or self.is_motor else f"{self.kw * 1000:g} W"
        return f"{self.hp:g} hp" if self.hp is not None else f"{self.nameplate_a:g} A"

    @property
    def output_kw(self) -> float | None:
        """The rated output in kW, None when only a current is known."""
        if self.kw is not None:
            return self.kw
        return None if self.hp is None else self.hp * KW_PER_HP

    @property
    def output_hp(self) -> float | None:
        """The rated output in hp, None when only a current is known."""
        if self.hp is not None:
            return self.hp
        return None if self.kw is None else self.kw / KW_PER_HP


def read_power(text: str, *, where: str = "") -> float:
    """Reads a power such as “4”, “4 kW”, “0,75 kW” or “400 W”, in kW.

    Args:
        text: The text.
        where: What the text came from, for messages.

    Returns:
        The power, kW.

    Raises:
        RiktigError: not a number, not above zero, beyond the table, or in another unit.
    """
    body = text.strip()
    if body.lower().endswith("w") and not body.lower().endswith("kw"):
        value = read_quantity(body, "W", "motor power", where) / 1000
    else:
        value = read_quantity(body, "kW", "motor power", where)
    return _in_table(text, value, LARGEST_KW, "kW", where)


def read_power_hp(text: str, *, where: str = "") -> float:
    """Reads a power such as “7.5 hp” or “3/4”, in hp.

    Args:
        text: The text.
        where: What the text came from, for messages.

    Returns:
        The power, hp.

    Raises:
        RiktigError: not a number, not above zero, beyond the table, or in another unit.
    """
    body = text.strip()
    if len(body) > LONGEST_QUANTITY:
        return read_quantity(text, "hp", "motor power", where)
    if body.lower().endswith("hp"):
        body = body[:-2].strip()
    whole, _, part = body.replace(" ", "-").partition("-") if "/" in body else (body, "", "")
    if "/" in whole:
        whole, part = "0", whole
    top, _, bottom = part.partition("/")
    if part and top.isdecimal() and bottom.isdecimal() and int(bottom) and whole.isdecimal():
        return _in_table(text, int(whole) + int(top) / int(bottom), LARGEST_HP, "hp", where)
    return _in_table(text, read_quantity(body, "hp", "motor power", where), LARGEST_HP, "hp", where)


def _in_table(text: str, value: float, largest: float, unit: str, where: str) -> float:
    if not 0 < value <= largest:
        raise RiktigError(
            f"“{text.strip()}” cannot be a motor power: it must be above 0 and at most "
            f"{largest:g} {unit}, so no current, breaker or conductor could be chosen.",
            hint=f"Give the rated output from the motor's plate, such as 4 {unit}.",
            where=where,
        )
    return value


def read_current(text: str, *, where: str = "") -> float | None:
    """Reads a nameplate current, A; empty gives None (“take it from the table”).

    Args:
        text: The text.
        where: What the text came from, for messages.

    Returns:
        The current, A; None when it is to come from the table.

    Raises:
        RiktigError: not a number of A above zero and below 2000.
    """
    if not text.strip():
        return None
    amps = read_quantity(text, "A", "nameplate current", where)
    limit = LOAD_LIMITS["nameplate_a"]
    if not limit.takes(amps):
        raise RiktigError(
            f"“{text.strip()}” cannot be a motor's current ({limit.words}), so the overload could not be set.",
            hint="Give the current on the motor's plate in A, or leave it empty for the table.",
            where=where,
        )
    return amps


def _quoted(text: str) -> str:
    body = text.strip()
    return body if len(body) <= LONGEST_QUANTITY else f"{body[:LONGEST_QUANTITY]}…"


def read_quantity(text: str, unit: str, what: str, where: str = "") -> float:
    """Reads a number that may carry its unit and may use a comma or thousands separators.

    “1.234,5” and “1,234.5” and “1 234.5” are plain; “1,500” may mean two things and is refused.

    Args:
        text: The text.
        unit: The name of a unit of the device, such as “13-14”.
        what: What is read, for messages.
        where: What the text came from, for messages.

    Returns:
        The number in the unit asked for.

    Raises:
        RiktigError: not such a number, with what to write instead.
    """
    body = text.strip().replace("\u00a0", " ").replace("\u202f", " ")
    if unit and body.lower().endswith(unit.lower()):
        body = body[: -len(unit)].strip()
    value = math.nan
    plain = body.replace(" ", "").replace("'", "")
    points, commas = plain.count("."), plain.count(",")
    head, _, tail = plain.partition(",")
    if commas == 1 and not points and len(tail) == 3 and head.lstrip("+-0"):
        raise RiktigError(
            f"“{_quoted(text)}” can be read two ways, so the {what} was not taken.",
            hint=f"Write {head}.{tail} or {head}{tail}.",
            where=where,
        )
    if points and commas:
        last = max(plain.rfind("."), plain.rfind(","))
        plain = plain[:last].replace(".", "").replace(",", "") + "." + plain[last + 1 :]
    elif commas == 1:
        plain = plain.replace(",", ".")
    elif commas:
        plain = plain.replace(",", "")
    try:
        value = float(plain) if plain.isascii() and "_" not in plain and len(body) <= LONGEST_QUANTITY else math.nan
    except ValueError:
        value = math.nan
    if not math.isfinite(value):
        raise RiktigError(
            f"“{_quoted(text)}” cannot be read as a {what} in {unit}.",
            hint=f"Give a plain number, such as {'4' if unit != 'A' else '8.1'}, in {unit}.",
            where=where,
        )
    return value


def read_count(text: str, what: str, low: int, high: int, where: str = "") -> int:
    """Reads a whole number within bounds.

    Args:
        text: The text.
        what: What is counted, for messages.
        low: The least.
        high: The most.
        where: What the text came from, for messages.

    Returns:
        The number.

    Raises:
        RiktigError: not a number, not a whole one, or out of bounds.
    """
    value = read_quantity(text, "", what, where)
    if value != round(value) or not low <= value <= high:
        raise RiktigError(
            f"“{_quoted(text)}” cannot be a {what}.", hint=f"It is a whole number from {low} to {high}.", where=where
        )
    return round(value)
