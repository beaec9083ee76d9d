"""The supply as the customer brings it to the panel."""

import cmath
from dataclasses import dataclass
from enum import Enum
from math import pi, sqrt

from riktig.core.errors import ImpossibleValueError

__all__ = ["EARTHED_LINE", "HIGH_LINE", "Earthing", "Supply", "SupplySystem", "UpstreamDevice"]


class Earthing(Enum):
    """How the supply system is earthed (IEC 60364-1)."""

    TN_S = "TN-S"
    TN_C_S = "TN-C-S"
    TT = "TT"


class SupplySystem(Enum):
    """Which conductors arrive, and where the source is earthed."""

    THREE = "three phases"
    TWO = "two lines of one phase, or two phases"
    ONE = "one phase and its neutral"
    HIGH_LEG = "three phases of a delta, its neutral in the middle of one side"
    CORNER = "three phases of a delta, one of them earthed"

    @property
    def lines(self) -> int:
        """How many lines arrive."""
        return {SupplySystem.TWO: 2, SupplySystem.ONE: 1}.get(self, 3)


HIGH_LINE, EARTHED_LINE = 1, 1
"""The line farther from the neutral, and the one that is earthed: the middle one (NEC 110.15, from memory)."""


class UpstreamDevice(Enum):
    """What protects the panel upstream."""

    UNKNOWN = "not known"
    FUSES = "fuses"
    BREAKER = "a breaker"


@dataclass(frozen=True, slots=True)
class Supply:
    """The supply of the panel.

    Voltage between phases and to neutral, V; frequency, Hz; what protects it upstream, A; prospective fault current at
    the panel, kA. ``through_a`` is what passes on unswitched to a further panel, A; ``fed_from`` is the board it comes
    from, ``upstream_device`` what protects it. Where a transformer is given, kVA and short-circuit voltage in percent,
    with the length and section of the cable from it, m and mm², the fault current follows from them.

    Raises:
        ValueError: a value that no supply can have.
    """

    voltage_v: float = 400.0
    voltage_to_neutral_v: float = 230.0
    frequency_hz: float = 50.0
    neutral: bool = True
    earthing: Earthing = Earthing.TN_S
    upstream_a: float = 20.0
    fault_ka: float = 6.0
    name: str = "Incoming supply"
    through_a: float = 0.0
    fed_from: str = ""
    system: SupplySystem = SupplySystem.THREE
    upstream_device: UpstreamDevice = UpstreamDevice.UNKNOWN
    transformer_kva: float = 0.0
    transformer_uk: float = 4.0
    feeder_m: float = 0.0
    feeder_mm2: float = 0.0

    def __post_init__(self) -> None:
        for what, value in (
            ("the voltage", self.voltage_v),
            ("the voltage to neutral", self.voltage_to_neutral_v),
            ("the frequency", self.frequency_hz),
            ("the upstream protection", self.upstream_a),
            ("the fault current", self.fault_ka),
        ):
            if not 0 < value < 100_000:
                raise ImpossibleValueError(f"{what} of a supply cannot be {value:g}")
        for what, value in (
            ("transformer", self.transformer_kva),
            ("cable", self.feeder_m),
            ("cable", self.feeder_mm2),
        ):
            if not 0 <= value < 100_000:
                raise ImpossibleValueError(f"the {what} ahead of a supply cannot have {value:g}")
        if not 0 < self.transformer_uk <= 30:
            raise ImpossibleValueError(f"a short-circuit voltage of {self.transformer_uk:g} % cannot be")
        if not 0 <= self.through_a < 10_000:
            raise ImpossibleValueError(f"a through-feed of {self.through_a:g} A cannot be planned")

    @property
    def voltage_name(self) -> str:
        """The one name of the voltage on this job, such as “400/230 V”; “230 V” of one phase and its neutral."""
        if self.system is SupplySystem.ONE:
            return f"{self.voltage_to_neutral_v:g} V"
        if self.neutral:
            return f"{self.voltage_v:g}/{self.voltage_to_neutral_v:g} V"
        return f"{self.voltage_v:g} V"

    def voltage_of(self, phases: int) -> float:
        """The voltage a load with so many lines is fed with, V."""
        return self.voltage_to_neutral_v if phases == 1 else self.voltage_v

    @property
    def system_name(self) -> str:
        """Conductors that enter: “3/N/PE”, “2/PE”, “1/N/PE”; “3/N/PE, L2 high”, “3/PE, L2 earthed”."""
        name = f"{self.system.lines}/N/PE" if self.neutral else f"{self.system.lines}/PE"
        more = {SupplySystem.HIGH_LEG: ", L2 high", SupplySystem.CORNER: ", L2 earthed"}
        return name + more.get(self.system, "")

    @property
    def way_lines(self) -> tuple[int, ...]:
        """The lines that a load between line and neutral may hang on: not the one that is farther from the neutral."""
        lines = range(self.system.lines)
        return tuple(n for n in lines if self.system is not SupplySystem.HIGH_LEG or n != HIGH_LINE)

    @property
    def pair(self) -> tuple[int, int]:
        """The two lines that a transformer hangs between: neither of them earthed."""
        return (0, 2) if self.system is SupplySystem.CORNER else (0, 1)

    def phasors(self) -> tuple[complex, ...]:
        """The voltage of every line against earth, V.

        Source:
            Electrical relations. Two lines lie opposite each other where their voltage is twice that to the
            neutral, else a third of a turn apart.
        """
        star = tuple(cmath.rect(self.voltage_v / sqrt(3), -2 * pi * n / 3) for n in range(3))
        half = self.voltage_v / 2
        if self.system is SupplySystem.ONE:
            return (complex(self.voltage_to_neutral_v),)
        if self.system is SupplySystem.TWO:
            opposite = self.voltage_v > 1.85 * self.voltage_to_neutral_v or not self.neutral
            return (complex(half), complex(-half)) if opposite else star[:2]
        if self.system is SupplySystem.HIGH_LEG:
            return (complex(half), complex(0, -half * sqrt(3)), complex(-half))
        if self.system is SupplySystem.CORNER:
            return tuple(phasor - star[EARTHED_LINE] for phasor in star)
        return star
