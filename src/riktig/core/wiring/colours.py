"""Which colour a conductor has, by the practice of the job."""

from collections.abc import Mapping

from riktig.core.job import EARTHED_LINE, HIGH_LINE, Colours, MaintainedColour, Practice, Supply, SupplySystem
from riktig.core.schematic import Net, NetClass
from riktig.core.standards import conductor_colours

__all__ = ["colour_table", "conductor_colour"]

_SCHEMES = {
    Colours.RULEBOOK: "rulebook",
    Colours.THREE_PHASE: "phases",
    Colours.OLD_PHASES: "older phases",
    Colours.HOUSE: "rulebook",
}
_LINES = ("L1", "L2", "L3")


def colour_table(practice: Practice, supply: Supply | None = None) -> Mapping[str, str]:
    """The colour of everything a conductor can be, as the practice of the job has it.

    The house's own table says six of them; the rest follow the rulebook, and both sides of a circuit have one colour.
    A line that is farther from the neutral than the others is orange in North America (NEC 110.15, from memory), one
    that is earthed has the colour of the neutral.
    """
    colours = dict(conductor_colours(_SCHEMES[practice.colours], practice.rulebook.north_american))
    if practice.colours is Colours.HOUSE:
        own = practice.house_colours
        colours |= dict(zip(_LINES, own[:3], strict=True))
        colours |= {"neutral": own[3], "neutral of what stays live": own[3]}
        colours |= {"control": own[4], "control earthed": own[4], "direct": own[5], "direct earthed": own[5]}
    if supply and supply.system is SupplySystem.HIGH_LEG and practice.rulebook.north_american:
        colours[_LINES[HIGH_LINE]] = "orange"
    if supply and supply.system is SupplySystem.CORNER:
        colours[_LINES[EARTHED_LINE]] = colours["neutral"]
    if practice.maintained_colour is not MaintainedColour.RULEBOOK:
        rulebook, chosen = colours["stays live"], practice.maintained_colour.value
        colours = {
            what: colour.replace(rulebook, chosen) if "stays" in what else colour for what, colour in colours.items()
        }
    return colours


def conductor_colour(net: Net, colours: Mapping[str, str], *, tapped: bool = False) -> str:
    """The insulation colour of a conductor.

    Args:
        net: What it carries.
        colours: Those of the practice.
        tapped: Whether it leads from ahead of the main switch to a circuit that the switch does not cut off.
    """
    match net.net_class:
        case NetClass.EARTH:
            return colours["earth"]
        case NetClass.NEUTRAL:
            return colours["neutral of what stays live" if net.stays_live else "neutral"]
        case NetClass.EXCEPTED:
            return colours["stays live earthed" if net.earthed else "stays live"]
        case NetClass.POWER:
            return colours["stays live" if tapped else _LINES[max(net.line, 0)]]
        case NetClass.DC:
            return colours["direct earthed" if net.earthed else "direct"]
        case NetClass.CONTROL:
            return colours["control earthed" if net.earthed else "control"]
