"""Which colour a conductor has, by the practice of the job."""

from riktig.core.job import Colours, MaintainedColour, Practice
from riktig.core.schematic import Net, NetClass

__all__ = ["conductor_colour"]

_THREE = ("brown", "black", "grey")
_OLDER = ("red", "yellow", "blue")


def conductor_colour(net: Net, practice: Practice) -> str:
    """The insulation colour of the conductors of a net.

    Source:
        IEC 60204-1 13.2.4 and NFPA 79 13.2 (power black, AC control red, DC control blue, neutral light blue
        or white, excepted circuits orange), from memory; older phase colours: BS 7671 before 2004, from memory.
    """
    if net.net_class is NetClass.EARTH:
        return "green-yellow"
    line = max(net.line, 0)
    neutral = "white" if practice.rulebook.north_american else "light blue"
    power, control, direct = "black", "red", "blue"
    excepted = "yellow" if practice.maintained_colour is MaintainedColour.YELLOW else "orange"
    match practice.colours:
        case Colours.HOUSE:
            power, neutral, control = practice.house_colours[line], practice.house_colours[3], practice.house_colours[4]
            direct = practice.house_colours[5]
        case Colours.OLD_PHASES:
            power, neutral, control = _OLDER[line], "black", "grey"
        case Colours.THREE_PHASE if net.line >= 0:
            power = _THREE[line]
    by_class = {NetClass.POWER: power, NetClass.NEUTRAL: neutral, NetClass.DC: direct, NetClass.EXCEPTED: excepted}
    return by_class.get(net.net_class, control)
