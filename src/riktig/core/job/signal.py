"""Field devices and their signals, and what arrives live from elsewhere."""

from dataclasses import dataclass
from enum import Enum

from riktig.core.errors import ImpossibleValueError
from riktig.core.ids import LoadId, SignalId, SourceId
from riktig.core.job.number_ranges import SIGNAL_WATTS

__all__ = ["Direction", "Form", "Signal", "Source", "Wetting"]


class Direction(Enum):
    """Seen from the panel."""

    INTO = "sends to the panel"
    OUT = "receives from the panel"

    @classmethod
    def _missing_(cls, value: object) -> "Direction | None":
        """What stood in jobs up to format 2."""
        return {"tells the panel": cls.INTO, "is told by the panel": cls.OUT}.get(str(value))


class Form(Enum):
    """What kind of signal it is."""

    DIGITAL = "on or off"
    ANALOGUE = "a value"


class Wetting(Enum):
    """What feeds a signal."""

    CONTROL = "the panel's control supply"
    DC = "the panel's 24 V"
    LIMITED = "the panel's limited-energy supply"
    FOREIGN = "another panel"


@dataclass(frozen=True, slots=True)
class Signal:
    """A field device: a float, a limit switch, a valve, an instrument.

    ``watts`` is what it draws from the supply that feeds it. ``load`` is the load it serves.

    Raises:
        ValueError: a draw that cannot be.
    """

    id: SignalId
    name: str
    place: str = ""
    direction: Direction = Direction.INTO
    form: Form = Form.DIGITAL
    wetting: Wetting = Wetting.CONTROL
    watts: float = 0.0
    load: LoadId | None = None
    source: SourceId | None = None
    """The supply of another panel that feeds it; None: the only one that the Brief names."""

    def __post_init__(self) -> None:
        SIGNAL_WATTS.see(self.watts)


USUALLY_DIRECT_V = 60.0


@dataclass(frozen=True, slots=True)
class Source:
    """A supply beside the main one: what arrives live from elsewhere.

    Raises:
        ValueError: a voltage that no supply has.
    """

    id: SourceId
    name: str
    voltage_v: float
    comes_from: str = ""
    direct: bool | None = None
    """Whether it is direct current; None: as usual for its voltage."""
    protected_a: float = 0.0
    """What protects it where it comes from, A; 0: not known."""

    @property
    def is_direct(self) -> bool:
        """Whether it is direct current: up to 60 V it mostly is (common practice, no source)."""
        return self.voltage_v <= USUALLY_DIRECT_V if self.direct is None else self.direct

    @property
    def volts(self) -> str:
        """“24 V DC”, “230 V AC”."""
        return f"{self.voltage_v:g} V {'DC' if self.is_direct else 'AC'}"

    def __post_init__(self) -> None:
        if not 0 < self.voltage_v <= 1000:
            raise ImpossibleValueError(f"a supply of {self.voltage_v:g} V cannot be planned")
        if not 0 <= self.protected_a <= 1000:
            raise ImpossibleValueError(f"a further supply protected at {self.protected_a:g} A cannot be planned")
