from .alternatives import Alternative, alternatives_of, control_alternatives, take
from .choose import LoadSize, Sizing, size_all
from .derived import PROPOSAL, SIZING
from .heat import cooling_area, temperature_rise
from .issues import InputIssue
from .proposal import Proposal, propose
from .sections import Laid, Section, circuit_of_net, least_control_section, section_of, smallest_section
from .starter import LoadProposal, size_load, volt_drop
from .value import Basis, Value

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
    "least_control_section",
    "propose",
    "section_of",
    "size_all",
    "size_load",
    "smallest_section",
    "take",
    "temperature_rise",
    "volt_drop",
]
