"""Which part and which section everything is, from the published tables, with the reasons.

Words: the *proposal* is everything sized from the Brief, before a circuit is drawn; a *value* is one
sized figure with its why; the *setting* is what the overload's dial is set to; the *feeder* runs from
the supply terminals to the breakers; an *alternative* is another answer with what it costs; a *doubt*
is an answer that cannot stand; a *shortfall* is a device the catalogue has nothing large enough for.
"""

from riktig.core.sizing.alternatives import Alternative, alternatives_of, control_alternatives, take
from riktig.core.sizing.choose import LoadSize, Sizing, size_all
from riktig.core.sizing.derived import PROPOSAL, SIZING
from riktig.core.sizing.heat import cooling_area, temperature_rise
from riktig.core.sizing.issues import InputIssue
from riktig.core.sizing.proposal import Proposal, propose
from riktig.core.sizing.sections import Laid, Section, circuit_of_net, section_of, smallest_section
from riktig.core.sizing.starter import LoadProposal, size_load, volt_drop
from riktig.core.sizing.value import Basis, Value

__all__ = [
    "PROPOSAL",
    "SIZING",
    "Alternative",
    "Basis",
    "InputIssue",
    "Laid",
    "LoadProposal",
    "LoadSize",
    "Proposal",
    "Section",
    "Sizing",
    "Value",
    "alternatives_of",
    "circuit_of_net",
    "control_alternatives",
    "cooling_area",
    "propose",
    "section_of",
    "size_all",
    "size_load",
    "smallest_section",
    "take",
    "temperature_rise",
    "volt_drop",
]
