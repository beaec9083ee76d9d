"""The instrument a reading was taken with: no instrument, no reading."""

from dataclasses import dataclass

from riktig.core.inputs import is_day

__all__ = ["MOST_ZERO_OHM", "Instrument"]

MOST_ZERO_OHM = 2.0
"""Leads that read more short-circuited are broken, or not short-circuited (chosen by us)."""


@dataclass(frozen=True, slots=True)
class Instrument:
    """A meter at the bench: what it is called, its serial number, the day its calibration ends as year-month-day.

    ``zero`` is what the leads read with their tips together, ohm; ``simulated`` whether it stands in for a
    real one.
    """

    name: str
    serial: str
    calibrated: str
    zero: float
    simulated: bool = False

    def fault(self, today: str) -> str:
        """Why it must not be used, "" when it may.

        Args:
            today: The date, YYYY-MM-DD, or a moment that begins with it.
        """
        if self.simulated:
            return f"{self.name} is simulated: what it shows proves nothing of this panel. Use it for practice."
        if not self.name.strip() or not self.serial.strip():
            return "Say what the meter is called and its serial number: a reading without its instrument is none."
        if not is_day(self.calibrated):
            return "Say until when the meter is calibrated, as 2027-03-31."
        if self.calibrated < today[:10]:
            return f"The calibration of {self.name} ended on {self.calibrated}: take another meter."
        if not 0 <= self.zero <= MOST_ZERO_OHM:
            return f"The leads cannot read {self.zero:g} Ω short-circuited: hold their tips together and look again."
        return ""

    @property
    def noted(self) -> str:
        """What a record says of it."""
        return f"{self.name} {self.serial}, calibrated to {self.calibrated}"
