"""Which colour a conductor has, by the practice of the job."""

from collections.abc import Mapping

from riktig.core.catalogue import Behaviour, Can
from riktig.core.job import (
    DC_COLOURS,
    EARTHED_LINE,
    HIGH_LINE,
    Colours,
    MaintainedColour,
    PinRef,
    Practice,
    Supply,
    SupplySystem,
)
from riktig.core.schematic import Circuits, Net, NetClass, Nets
from riktig.core.standards import conductor_colours

__all__ = ["analogue_nets", "colour_table", "conductor_colour", "controller_conductors"]

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
        house = practice.house_colours
        colours |= dict(zip(_LINES, house[:3], strict=True))
        colours |= {"neutral": house[3], "neutral of what stays live": house[3]}
        colours |= {"control": house[4], "control earthed": house[4], "direct": house[5], "direct earthed": house[5]}
        apart = dict(zip(DC_COLOURS, practice.dc_colours, strict=True))
        colours |= {"direct earthed": apart["0 V"] or house[5]}
        colours |= {what: colour for what, colour in apart.items() if colour}
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


def controller_conductors(circuits: Circuits, nets: Nets) -> Mapping[PinRef, str]:
    """By net id, what a conductor is to a controller: a digital input, one side of an analogue signal.

    Args:
        circuits: All devices of the job.
        nets: All nets of these circuits.
    """
    _, digital, plus, minus = DC_COLOURS
    side_of: dict[PinRef, str] = {}
    for device in circuits.devices:
        if device.kind.point_pin is None:
            continue
        for unit in device.kind.units:
            first, last = (nets.of_pin.get(device.pin(pin)) for pin in (unit.pins[0], unit.pins[-1]))
            if device.kind.can(Can.ANALOGUE):
                side_of |= {net.id: side for net, side in ((first, plus), (last, minus)) if net}
            elif unit.behaviour is Behaviour.INPUT and first:
                side_of[first.id] = digital
    return side_of


def analogue_nets(circuits: Circuits, nets: Nets) -> frozenset[PinRef]:
    """The potentials that carry an analogue signal of a controller, by their ids.

    Args:
        circuits: All devices of the job.
        nets: All nets of these circuits.
    """
    _, _, plus, minus = DC_COLOURS
    return frozenset(net for net, is_for in controller_conductors(circuits, nets).items() if is_for in (plus, minus))


def conductor_colour(net: Net, colours: Mapping[str, str], *, tapped: bool = False, carries: str = "") -> str:
    """The insulation colour of a conductor.

    Args:
        net: What it carries.
        colours: Those of the practice.
        tapped: Whether it leads from ahead of the main switch to a circuit that the switch does not cut off.
        carries: What it is to a controller, as ``controller_conductors`` says; empty for all else.
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
            usual = colours["direct earthed" if net.earthed else "direct"]
            return usual if net.earthed else colours.get(carries, usual)
        case NetClass.CONTROL:
            return colours["control earthed" if net.earthed else "control"]
