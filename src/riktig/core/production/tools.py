"""The tool that screws are tightened with, and whether its calibration holds."""

from dataclasses import dataclass

from riktig.core.inputs import is_day

__all__ = ["TorqueTool"]


@dataclass(frozen=True, slots=True)
class TorqueTool:
    """A torque tool: its name with its serial number, and the day its calibration ends, as year-month-day.

    Raises:
        ValueError: no name, or a day that is none.
    """

    name: str
    calibrated_to: str

    def __post_init__(self) -> None:
        if not self.name.strip():
            raise ValueError("a tool has a name and a serial number")
        if not is_day(self.calibrated_to):
            raise ValueError(f"“{self.calibrated_to}” is no day; write it as 2027-03-31")

    @property
    def noted(self) -> str:
        """What a record says of it."""
        return f"{self.name.strip()}, calibrated to {self.calibrated_to}"

    def fault(self, now: str) -> str:
        """Why it may not be used, "" when it may.

        Args:
            now: The moment of the tick, in ISO 8601.
        """
        if now[:10] > self.calibrated_to:
            return f"the calibration of {self.name.strip()} ended on {self.calibrated_to}"
        return ""
