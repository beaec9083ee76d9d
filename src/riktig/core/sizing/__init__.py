"""Which part and which section everything is, from the published tables, with the reasons.

Words: the *setting* is what the overload's dial is set to; the *feeder* runs from the supply
terminals to the breakers; a *shortfall* is a device the catalogue has nothing large enough for.
"""

from riktig.core.sizing.choose import LoadSize, Sizing, motor_why, size_all
from riktig.core.sizing.derived import SIZING
from riktig.core.sizing.sections import Section, circuit_of_net

__all__ = ["SIZING", "LoadSize", "Section", "Sizing", "circuit_of_net", "motor_why", "size_all"]
