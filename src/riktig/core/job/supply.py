"""The supply as the customer brings it to the panel."""

from dataclasses import dataclass
from enum import Enum

from riktig.core.errors import ImpossibleValueError

__all__ = ["Earthing", "Supply"]


class Earthing(Enum):
    """How the supply system is earthed (IEC 60364-1)."""

    TN_S = "TN-S"
    TN_C_S = "TN-C-S"
    TT = "TT"


@dataclass(frozen=True, slots=True)
class Supply:
    """The supply of the panel.

    Voltage between phases and to neutral, V; frequency, Hz; what protects it upstream, A; prospective fault current at
    the panel, kA. ``through_a`` is what passes on unswitched to a further panel, A; ``fed_from`` is the board it comes
    from.

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
        if not 0 <= self.through_a < 10_000:
            raise ImpossibleValueError(f"a through-feed of {self.through_a:g} A cannot be planned")

    @property
    def voltage_name(self) -> str:
        """The one name of the voltage on this job, such as “400/230 V”."""
        if self.neutral:
            return f"{self.voltage_v:g}/{self.voltage_to_neutral_v:g} V"
        return f"{self.voltage_v:g} V"

    def voltage_of(self, phases: int) -> float:
        """The voltage a load with so many lines is fed with, V."""
        return self.voltage_to_neutral_v if phases == 1 else self.voltage_v

    @property
    def system_name(self) -> str:
        """Conductors that enter: “3/N/PE” or “3/PE”."""
        return "3/N/PE" if self.neutral else "3/PE"
