from .air import cooling_area, temperature_rise
from .alternatives import Alternative, alternatives_of, control_alternatives, take
from .choose import LoadSize, Sizing, size_all
from .control import DC_VOLTS
from .derived import DIAL_SETTINGS, ELECTRICAL, INSIDE_AIR, MOTOR_CURRENTS, PROPOSAL, SIZING
from .electrical import ElectricalProposal, basis_of
from .inside_air import InsideAir, Loss, Losses, box_that_cools, inside_air_of, losses_of
from .issues import InputIssue
from .proposal import Proposal, propose
from .sections import Laid, Section, circuit_of_net, least_control_section, section_of, smallest_section
from .starter import LoadProposal, size_load, volt_drop
from .value import Basis, Value

__all__ = [
    "DC_VOLTS",
    "DIAL_SETTINGS",
    "ELECTRICAL",
    "INSIDE_AIR",
    "MOTOR_CURRENTS",
    "PROPOSAL",
    "SIZING",
    "Alternative",
    "Basis",
    "ElectricalProposal",
    "InputIssue",
    "InsideAir",
    "Laid",
    "LoadProposal",
    "LoadSize",
    "Loss",
    "Losses",
    "Proposal",
    "Section",
    "Sizing",
    "Value",
    "alternatives_of",
    "basis_of",
    "box_that_cools",
    "circuit_of_net",
    "control_alternatives",
    "cooling_area",
    "inside_air_of",
    "least_control_section",
    "losses_of",
    "propose",
    "section_of",
    "size_all",
    "size_load",
    "smallest_section",
    "take",
    "temperature_rise",
    "volt_drop",
]
