"""A field cable with its cores, and where both ends of each land."""

from dataclasses import dataclass

from riktig.core.job import DeviceId, PinRef
from riktig.core.standards import conductor_name, cores_sold, is_awg

__all__ = ["EARTH_CORE", "Cable", "Core"]

EARTH_CORE = "green-yellow"


@dataclass(frozen=True, slots=True)
class Core:
    """One core of a field cable: its colour or number, and where both of its ends land."""

    name: str
    number: str
    panel_end: str
    field_end: str
    panel_pin: PinRef
    field_pin: PinRef
    mm2: float = 0.0
    """Its own section: above 16 mm² a protective conductor may be thinner than the others."""


@dataclass(frozen=True, slots=True)
class Cable:
    """A field cable: its tag, what it goes to, its cores and their section; length m (0: unknown).

    Without cores it is the ready-made cable of a network.
    """

    tag: str
    device: DeviceId
    to: str
    mm2: float
    cores: tuple[Core, ...]
    length_m: float
    is_supply: bool = False
    enters: bool = True
    """Whether it comes into the panel; on a network the next cable runs from thing to thing."""
    others: tuple[DeviceId, ...] = ()
    """What shares it with ``device``."""
    bought: int = 0
    """How many cores it is bought with; 0: what is sold for those that are used."""
    screen: str = ""
    """Where its screen is landed; empty of a cable without one."""

    @property
    def devices(self) -> tuple[DeviceId, ...]:
        """All that it goes to, that which it is called after first."""
        return (self.device, *self.others)

    @property
    def sold(self) -> int:
        """How many cores it has as it is bought; 0 for the ready-made cable of a network.

        In North America single conductors are pulled into conduit, as many as are used.
        """
        if not self.cores or is_awg(self.mm2):
            return max(len(self.cores), self.bought)
        return max(cores_sold(len(self.cores)), self.bought)

    @property
    def spare(self) -> int:
        """Cores that nothing lands on."""
        return self.sold - len(self.cores)

    @property
    def make_up(self) -> str:
        """“4 G 1.5 mm²”: G with a protective conductor, × without; “3 × 35 mm² + 16 mm²” where that is thinner."""
        if not self.cores:
            return "network cable"
        return f"{self._copper}, screened" if self.screen else self._copper

    @property
    def _copper(self) -> str:
        earths = [core for core in self.cores if core.name == EARTH_CORE]
        if earths and earths[0].mm2 != self.mm2:
            live = self.sold - len(earths)
            return f"{live} × {conductor_name(self.mm2)} + {conductor_name(earths[0].mm2)}"
        return f"{self.sold} {'G' if earths else '×'} {conductor_name(self.mm2)}"
