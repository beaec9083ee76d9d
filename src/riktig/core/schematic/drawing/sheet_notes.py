"""What the sheets say beside the circuits: ratings, conductors, cables and voltages, worked out by later steps."""

from collections.abc import Mapping
from dataclasses import dataclass, field

from riktig.core.job import DeviceId, PinRef

__all__ = ["PinConductor", "SheetNotes"]


@dataclass(frozen=True, slots=True)
class PinConductor:
    """The conductors that land on a pin inside the panel: their sizes and colours in words, “1 mm²” and “red”."""

    size: str
    colour: str
    thickest: str = ""
    """The size of the thickest of them, where they are of several."""

    @property
    def text(self) -> str:
        """“1 mm² red”."""
        return f"{self.size} {self.colour}".strip()


@dataclass(frozen=True, slots=True, eq=False)
class SheetNotes:
    """What is written beside symbols and lines; what is not known is not there.

    Args:
        ratings: By device, what it is rated or set to, one line each: “13 A D”; “7 to 10 A”, “set 8.5 A”.
        conductors: By pin; a pin that a link or a plugged device joins has none.
        cables: By device in the field, the tag of its cable and its make-up: “WM2”, “4 G 1.5 mm², 12 m”.
        voltages: By net, “230 V AC”, “24 V DC”, “0 V”.
        supply: Of the lines of the supply, one line each: “400/230 V 50 Hz”, “3/N/PE”.
    """

    ratings: Mapping[DeviceId, tuple[str, ...]] = field(default_factory=dict)
    conductors: Mapping[PinRef, PinConductor] = field(default_factory=dict)
    cables: Mapping[DeviceId, tuple[str, str]] = field(default_factory=dict)
    voltages: Mapping[PinRef, str] = field(default_factory=dict)
    supply: tuple[str, ...] = ()
