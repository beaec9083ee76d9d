"""A simulated bench meter: reads a simulated panel, for practice. What it shows proves nothing."""

from math import isinf
from random import Random

from riktig.core.proving import OPEN_LINE, ProvingStage, Test
from riktig.devices.simulated_panel import SimulatedPanel

__all__ = ["BenchMeter"]

LEADS_OHM = 0.2
"""What its leads read short-circuited, ohm."""
INSULATION_OHM = 2e9
"""What it shows of sound insulation, ohm."""
DECIMALS = 1


class BenchMeter:
    """Reads ohms between two points of a simulated, dead panel. The same test reads the same each time."""

    name = "bench meter (simulated)"

    def read(self, test: Test, panel: SimulatedPanel) -> float:
        """The reading in ohm, leads and all, as the display rounds it; ``OPEN_LINE`` when open."""
        ohm = panel.ohm(test.state, test.black.pin, test.red.pin)
        if test.stage is ProvingStage.INSULATION:
            return INSULATION_OHM  # whatever had to be disconnected is
        if isinf(ohm):
            return OPEN_LINE
        noise = Random(test.key).uniform(-0.04, 0.06)
        if test.stage is ProvingStage.BONDS:
            return round(ohm + LEADS_OHM, 2)  # a meter for low resistances
        return max(round(ohm + LEADS_OHM + noise, DECIMALS if ohm < 100 else 0), 0.0)
