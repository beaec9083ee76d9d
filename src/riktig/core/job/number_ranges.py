"""From where to where an answer is accepted, and that of the answers about a load."""

from collections.abc import Mapping
from dataclasses import dataclass

from riktig.core.errors import ImpossibleValueError

__all__ = ["BOX_LIMITS", "LARGEST_HP", "LARGEST_KW", "LOAD_LIMITS", "PRACTICE_LIMITS", "SIGNAL_WATTS", "Range"]

LARGEST_KW = 400.0
"""The end of the published current table (IEC 60947-4-1 Annex G), from memory."""
LARGEST_HP = 500.0
"""The end of the published current table (NEC 430.250), from memory."""


@dataclass(frozen=True, slots=True)
class Range:
    """From and to, both accepted; the unit, what the number is, and why it ends there."""

    low: float
    high: float
    unit: str
    what: str
    why: str = ""
    zero: str = ""
    """What 0 says, where 0 is accepted below the least."""
    share: bool = False
    """Whether it is kept as a share of 1 and stated in per cent."""

    @property
    def words(self) -> str:
        """“24 to 1000 V”, “6 to 6300 A; 0: none”."""
        scale, unit = (100, "%") if self.share else (1, self.unit)
        words = f"{self.low * scale:g} to {self.high * scale:g} {unit}".strip()
        return f"{words}; 0: {self.zero}" if self.zero else words

    def see(self, value: float) -> None:
        """Refuses a number that is not accepted.

        Raises:
            ImpossibleValueError: it is outside, with the range and why it ends there.
        """
        if not self.takes(value):
            scale, unit = (100, "%") if self.share else (1, self.unit)
            because = f": {self.why}" if self.why else ""
            given = f"{value * scale:g} {unit}".rstrip()
            raise ImpossibleValueError(f"{self.what} must be {self.words}, not {given}{because}")

    def takes(self, value: float) -> bool:
        """Whether a number is accepted."""
        return self.low <= value <= self.high or (bool(self.zero) and value == 0)


LOAD_LIMITS: Mapping[str, Range] = {
    "kw": Range(0.001, LARGEST_KW, "kW", "the power", "the published table of currents ends there"),
    "hp": Range(0.001, LARGEST_HP, "hp", "the power", "the published table of currents ends there"),
    "nameplate_a": Range(0.001, 2000, "A", "the nameplate current"),
    "cable_m": Range(0, 2000, "m", "the length of the cable"),
    "cables_together": Range(1, 40, "cables", "the count side by side"),
    "load_v": Range(12, 1000, "V", "the voltage of a load"),
    "float_m": Range(0, 200, "m", "the height of a float"),
    "service_factor": Range(1, 2, "", "the service factor"),
}
"""Of a load, by the name of the answer. Where no source stands they are chosen by us: far beyond what a panel meets."""
PRACTICE_LIMITS: Mapping[str, Range] = {
    "spare_share": Range(0, 0.9, "", "spare room on the rails", share=True),
    "spare_terminals": Range(0, 0.9, "", "spare terminals", share=True),
    "spare_duct": Range(0, 0.9, "", "spare room in the ducts", share=True),
    "wire_spare": Range(0, 1, "", "spare conductor", share=True),
    "finger_room": Range(0, 200, "mm", "the room for fingers"),
    "door_loop": Range(0, 3000, "mm", "the loop at the door"),
    "end_allowance": Range(0, 500, "mm", "the allowance at an end"),
    "batch_minutes": Range(0, 120, "min", "the minutes to begin a batch"),
    "hour_price": Range(0, 1000, "", "the price of an hour"),
    "metre_price": Range(0, 100, "", "the price of a metre for each mm²"),
    "saw_kerf": Range(0, 10, "mm", "the kerf of the saw"),
    "bar_trim": Range(0, 100, "mm", "the trim of a bar's end"),
    "lid_gap": Range(0, 10, "mm", "the gap of a lid"),
    "shaft_in_switch": Range(0, 200, "mm", "the shaft in its switch"),
    "shaft_in_handle": Range(0, 200, "mm", "the shaft in its handle"),
    "handle_tolerance": Range(0, 50, "mm", "the tolerance of a handle"),
    "wall_skew": Range(0, 100, "mm", "the skew of a wall over a metre"),
    "reading_tolerance": Range(0, 10, "mm", "the difference of two readings"),
    "long_piece": Range(0, 6000, "mm", "the length from which a piece is measured twice"),
    "bar_length": Range(300, 6000, "mm", "the length of a bar", "others are not sold (common practice, no source)"),
    "duct_width": Range(15, 150, "mm", "the width of a duct", "others are not made (common practice, no source)"),
    "reserved_numbers": Range(0, 999, "numbers", "the count of reserved numbers"),
    "number_step": Range(0, 1000, "numbers", "the range of a circuit"),
}
"""Of the workshop's practice, by the name of its field; chosen by us where no source stands."""
BOX_LIMITS: Mapping[str, Range] = {
    "room_c": Range(-30, 70, "°C", "the room temperature"),
    "ambient_c": Range(-30, 70, "°C", "the air inside"),
    "above_floor": Range(0, 3000, "mm", "the height of the box above the floor"),
}
"""Of the enclosure, by the name of its field (chosen by us)."""
SIGNAL_WATTS = Range(0, 5000, "W", "the draw of a field device")
"""(chosen by us)"""
