"""Recipes of what feeds: the incoming supply, control transformer, 24 V, monitor, ways, maintained services."""

from dataclasses import dataclass

from riktig.core.job import Circuit, DcInput, RelayCommons
from riktig.core.schematic.model.elements import Band, Zone
from riktig.core.schematic.model.roles import BOX_BOND, DOOR_BONDS, PLATE_BOND
from riktig.core.schematic.templates.circuit_builder import BuiltCircuit, CircuitBuilder, DoorLamp
from riktig.core.schematic.templates.commands import lamp
from riktig.core.schematic.templates.supply_context import (
    BACK,
    DC_BACK,
    DC_DEVICES,
    DC_LIVE,
    HELD,
    INDICATION,
    LIMITED_BACK,
    LIMITED_LIVE,
    LINES,
    LIVE,
    SupplyContext,
)

__all__ = [
    "AHEAD",
    "BAR_POINTS",
    "DOOR_SWITCH",
    "MAIN_SWITCH",
    "SELECTOR",
    "SWITCHED_BY",
    "control_supply",
    "dc_supply",
    "incomer",
    "limited_supply",
    "phase_lamps",
    "phase_monitor",
    "surge",
    "through_feed",
]

DOOR_SWITCH = "door switch"
SWITCHED_BY, SELECTOR, MAIN_SWITCH = "switched by", "a selector on the door", "the main switch alone"
"""What lets the main contactor in."""
AHEAD = ("in.L1", "in.L2", "in.L3")
"""The lines ahead of the main switch: alive whatever its position."""
PHASES = ("L1", "L2", "L3")
POLES = "1-2/3-4/5-6"
BAR_POINTS = 7
"""Points the first eight-way bar serves: one way links a further bar, which gives two of its own for its links."""
BLOCK_TAPS = 7
"""Feeds a block serves on each line."""


@dataclass(frozen=True, slots=True)
class IncomerNeeds:
    """What the other circuits and the enclosure ask of the incomer."""

    earth_points: int
    """Bonds that the other circuits ask for, and protective conductors of cables that land on a bar straight away."""
    taps: int = 0
    """Feeds of the first line that distribution blocks are made for; 0 without blocks."""
    neutrals: int = 0
    """Neutrals, that of the supply too; each gets a way of the neutral bar."""
    ahead: tuple[str, ...] = ()
    """Lines that something is tapped from ahead of the main switch."""
    doors: int = 1
    """Of the enclosure: a bond each."""


def incomer(circuit: Circuit, context: SupplyContext, needs: IncomerNeeds) -> BuiltCircuit:
    """The supply terminals, the main isolator, the earth bar and the bonds of the box.

    Args:
        circuit: The incomer of the job.
        context: Supply and practice, and where control takes its voltage from.
        needs: What the other circuits and the enclosure ask of it.
    """
    sk = CircuitBuilder(circuit.id, "", context)
    supply = context.supply
    sk.add("W", "supply", Zone.FIELD, supply.name)
    count = supply.system.lines
    phases, poles = PHASES[:count], "/".join(POLES.split("/")[:count])
    conductors = (*phases, "N", "PE") if supply.neutral else (*phases, "PE")
    kinds = {"N": "neutral_terminal", "PE": "earth_terminal"}
    kinds |= {node.split(".")[1]: "tap_terminal" for node in needs.ahead}
    for name in conductors:
        sk.add(f"X.{name}", kinds.get(name, "terminal"), Zone.PLATE, f"incoming {name}", strip="X", mark=name)
    handle = circuit.param("handle inside", "by the rulebook")
    inner = handle == "yes" or (handle == "by the rulebook" and context.north_american)
    sk.add("Q", "isolator_inner" if inner else "isolator", Zone.PLATE, "main isolator", legend="MAIN SWITCH")
    blocks = [f"XD{n or ''}" for n in range(-(-needs.taps // BLOCK_TAPS))]
    for block in blocks:
        sk.add(block, "dist_block", Zone.PLATE, "distribution")
    bars = [f"NB{n or ''}" for n in range(_bars_for(needs.neutrals))] if supply.neutral else []
    for bar in bars:
        sk.add(bar, "neutral_bar", Zone.PLATE, "neutral bar")
    second = ((DOOR_BONDS[1], "stud", Zone.DOOR, "bond of the right door"),) if needs.doors > 1 else ()
    bonds = (
        (DOOR_BONDS[0], "stud", Zone.DOOR, "bond of the left door" if second else "door bond"),
        *second,
        (PLATE_BOND, "stud", Zone.PLATE, "mounting plate bond"),
        (BOX_BOND, "stud", Zone.PLATE, "enclosure bond"),
    )
    points = needs.earth_points + len(bonds) + 1
    earths = [f"PE{n or ''}" for n in range(_bars_for(points))]
    for bar in earths:
        sk.add(bar, "earth_bar", Zone.PLATE, "earth bar")
    for role, kind, zone, purpose in bonds:
        sk.add(role, kind, zone, purpose)
    all_lines = "/".join(phases)
    terminals = "/".join(f"X.{name}" for name in phases)
    sk.rung("in", "Incoming supply", "", f"@W:{all_lines} <{terminals}", AHEAD[:count], Band.INCOMING)
    spread = f" @{blocks[0]}:{all_lines}" if blocks else ""
    sk.rung("main", "Main switch", AHEAD[:count], f"Q:{poles}{spread}", context.lines, Band.INCOMING)
    for name in conductors[count:]:
        sk.rung(name, name, "", f"@W:{name} <X.{name}", name, Band.INCOMING)
    for bar in earths:
        sk.rung(f"{bar}.root", "PE", "PE", f"@{bar}:1", "", Band.INCOMING)
    for bar in bars:
        sk.rung(f"{bar}.root", "N", "N", f"@{bar}:1", "", Band.INCOMING)
    for block in blocks[1:]:
        sk.rung(f"{block}.on", "", context.lines, f"@{block}:{all_lines}", "", Band.INCOMING)
    sk.bond("X.PE", "i")
    for role, *_ in bonds:
        sk.bond(role, "1")
    return sk.done(as_given=True)


def _bars_for(points: int) -> int:
    """How many eight-way bars serve so many points, linked one to the next."""
    if points <= BAR_POINTS:
        return int(points > 0)
    return 1 + -(-(points - BAR_POINTS) // (BAR_POINTS - 1))


def control_supply(circuit: Circuit, context: SupplyContext) -> BuiltCircuit:
    """A transformer with separate windings between two lines; one side of its secondary is earthed over a link."""
    sk = CircuitBuilder(circuit.id, "control transformer", context)
    single_line = len(context.lines) == 1
    sk.plate("F", "fuse" if single_line else "fuse_two", "primary")
    sk.plate("T", "transformer")
    sk.plate("FS", "fuse", "secondary")
    sk.plate("XL", "earth_link", "secondary earthed")
    if single_line:
        sk.rung("primary", "", LINES[0], "F:1-2 T:1-3", "N", Band.POWER)
    else:
        sk.rung("primary", "", context.pair, "F:1-2/3-4 @T:1/3", "", Band.POWER)
    sk.rung("source", "secondary", sk.node("out"), "T:5-7", BACK)
    sk.rung("live", "control supply", sk.node("out"), "FS:1-2", LIVE)
    sk.rung("earthed", "earthed side", BACK, "XL:1-2", sk.node("earth"))
    sk.bond("XL", "2")
    return sk.done()


def dc_supply(circuit: Circuit, context: SupplyContext, returns: int = 1) -> BuiltCircuit:
    """A 24 V supply with two protected groups, relays and devices; 0 V is earthed over a link.

    Args:
        circuit: The circuit.
        context: Supply and practice.
        returns: Circuits that return to its 0 V; each gets a way of a bar where commons are bridged.
    """
    sk = CircuitBuilder(circuit.id, "24 V supply", context)
    _dc_input_guard(sk, context)
    sk.plate("T", "dc_supply", "supply")
    sk.plate("F1", "fuse", "24 V relays and outputs", least_a=4.0)
    sk.plate("F2", "fuse", "24 V devices and sensors", least_a=4.0)
    sk.plate("XL", "earth_link", "0 V earthed")
    _dc_input(sk, context)
    sk.rung("source", "output", sk.node("out"), "T:P-M", DC_BACK)
    if context.practice.relay_commons is RelayCommons.BRIDGES:
        for n in range(max(_bars_for(returns), 1)):
            bar = sk.plate(f"XB{n or ''}", "zero_bar", "0 V")
            sk.rung(f"bridge{n or ''}", "0 V, bridged", DC_BACK, f"@{bar}:1")
    sk.rung("one", "24 V, relays and outputs", sk.node("out"), "F1:1-2", DC_LIVE)
    sk.rung("two", "24 V, devices and sensors", sk.node("out"), "F2:1-2", DC_DEVICES)
    sk.rung("earthed", "0 V earthed", DC_BACK, "XL:1-2", sk.node("earth"))
    sk.bond("XL", "2")
    return sk.done()


def _dc_input_guard(sk: CircuitBuilder, context: SupplyContext) -> None:
    """What guards the input of a 24 V supply: of two lines both at once; a fuse behind the control transformer."""
    match _fed_from(context):
        case DcInput.NEUTRAL:
            sk.plate("F", "control_breaker", "input", least_a=2.0)
        case DcInput.TRANSFORMER:
            sk.plate("F", "control_breaker", "input")
        case DcInput.LINES:
            sk.plate("F", "fuse_two", "input", least_a=2.0)


def _dc_input(sk: CircuitBuilder, context: SupplyContext) -> None:
    """The input: from what ``_fed_from`` says."""
    match _fed_from(context):
        case DcInput.NEUTRAL:
            sk.rung("input", "24 V supply", LINES[0], "F:1-2 T:L-N", "N")
        case DcInput.TRANSFORMER:
            sk.rung("input", "24 V supply", LIVE, "F:1-2 T:L-N", BACK)
        case DcInput.LINES:
            sk.rung("input", "24 V supply", context.pair, "F:1-2/3-4 @T:L/N", "", Band.POWER)


def _fed_from(context: SupplyContext) -> DcInput:
    """What a 24 V supply of this job hangs on: its practice, as far as the supply and the transformer allow it.

    A supply of line and neutral only has no second line; one without a neutral has none to return to.
    """
    transformer, wanted = context.live == LIVE, context.practice.dc_input
    if wanted is DcInput.TRANSFORMER and transformer:
        return DcInput.TRANSFORMER
    if wanted is DcInput.LINES and len(context.lines) > 1:
        return DcInput.LINES
    if context.neutral:
        return DcInput.NEUTRAL
    return DcInput.TRANSFORMER if transformer and wanted is not DcInput.LINES else DcInput.LINES


def limited_supply(circuit: Circuit, context: SupplyContext) -> BuiltCircuit:
    """A supply of limited energy of its own: what stands behind it touches nothing else."""
    sk = CircuitBuilder(circuit.id, "limited-energy supply", context)
    _dc_input_guard(sk, context)
    sk.plate("T", "limited_dc_supply", "supply", least_a=3.0)
    _dc_input(sk, context)
    sk.rung("source", "limited-energy output", LIMITED_LIVE, "T:P-M", LIMITED_BACK)
    return sk.done()


def phase_monitor(circuit: Circuit, context: SupplyContext, taps: int = 0) -> BuiltCircuit:
    """A monitor fed ahead of the main contactor it lets in; what hangs behind drops when a phase is lost.

    An emergency stop lets the main contactor go too, and so does a door that is opened where the circuit has a switch
    at it. That is control, no protection of whoever reaches in: behind the door all stays live up to the contactor.

    Args:
        circuit: The circuit.
        context: Supply and practice, behind an emergency stop where there is one.
        taps: Feeds of the fullest line behind the contactor that distribution blocks are made for; 0 without blocks.
    """
    sk = CircuitBuilder(circuit.id, circuit.title or "main contactor", context)
    count = len(context.lines)
    poles = "/".join(POLES.split("/")[:count])
    monitored = circuit.param("monitor", "yes") == "yes" and count == len(LINES)
    if monitored:
        sk.plate("F", "fuse_three", "monitor", least_a=2.0)
        sk.plate("PM", "phase_monitor", "phase monitor")
    sk.plate("FC", "control_breaker", "control")
    rated = circuit.param("rated A", "as the supply")
    amps = context.supply.upstream_a if rated == "as the supply" else float(rated)
    sk.plate("K", "contactor_wired", "main contactor", least_a=amps)
    by_selector = circuit.param(SWITCHED_BY, SELECTOR) == SELECTOR
    if by_selector:
        sk.door("S", "selector_two", "select", "SUPPLY OFF – ON")
    blocks = [sk.plate(f"XD{n or ''}", "dist_block", "distribution") for n in range(-(-taps // BLOCK_TAPS))]
    all_lines = "/".join(PHASES[:count])
    spread = f" @{blocks[0]}:{all_lines}" if blocks else ""
    sk.rung("power", "", context.lines, f"K:{poles}{spread}", HELD[:count], Band.POWER)
    for block in blocks[1:]:
        sk.rung(f"{block}.on", "", HELD[:count], f"@{block}:{all_lines}", "", Band.POWER)
    live = sk.tap(guard="")
    by_door = circuit.param(DOOR_SWITCH, "no") == "yes"
    if by_door:
        sk.plate("S.door", "door_switch", "door")
    if monitored:
        sk.rung("monitor", "", LINES, f"F:{POLES} @PM:L1/L2/L3", "", Band.POWER)
    in_series = (
        ("PM:15-18", "phases present", monitored),
        ("S.door:13-14", "door shut", by_door),
        ("S:13-14", "switched on", by_selector),
    )
    path = " ".join((*(contact for contact, _, there in in_series if there), "K:A1-A2"))
    parts = tuple(words for _, words, there in in_series if there)
    sk.rung("run", ", ".join(parts) or "with the main switch", live, path, context.back)
    lamp(sk, DoorLamp("in", "in", "SUPPLY ON", "green"), INDICATION if context.stops else live, "K:43-44")
    return sk.done()


def phase_lamps(circuit: Circuit, context: SupplyContext) -> BuiltCircuit:
    """A lamp a phase, each behind its own fuse: one dark says which phase is gone.

    All are white unless the circuit says otherwise: red, yellow and blue tell the phases apart from afar, but red says
    danger elsewhere on the door.
    """
    sk = CircuitBuilder(circuit.id, circuit.title or "phases present", context)
    phases = PHASES[: len(context.lines)]
    for n, name in enumerate(phases, 1):
        sk.plate(f"F{n}", "fuse", f"lamp {name}")
    colours = circuit.param("colours", "white").split(", ")
    for n, name in enumerate(phases, 1):
        colour = colours[(n - 1) % len(colours)]
        sk.door(f"H{n}", "lamp", f"{name} present", f"{name} PRESENT", colour=colour)
    numbers = range(1, len(phases) + 1)
    for n in numbers:
        if context.neutral:
            sk.rung(f"lamp{n}", PHASES[n - 1], LINES[n - 1], f"F{n}:1-2 H{n}:X1-X2", "N")
        else:
            sk.rung(f"fuse{n}", PHASES[n - 1], LINES[n - 1], f"F{n}:1-2", sk.node(f"l{n}"))
    if not context.neutral:
        for n in numbers:
            sk.rung(f"lamp{n}", PHASES[n - 1], sk.node(f"l{n}"), f"H{n}:X1-X2", sk.node(f"l{n % len(phases) + 1}"))
    return sk.done()


def through_feed(circuit: Circuit, context: SupplyContext) -> BuiltCircuit:
    """What passes on to the next panel, unswitched: a second set of terminals beside the incoming ones.

    Their studs take two conductors a side, so that the feed goes on from one to the next where several panels follow.
    """
    sk = CircuitBuilder(circuit.id, circuit.title or "through-feed", context)
    phases = PHASES[: len(context.lines)]
    names = (*phases, "N") if context.neutral else phases
    for name in names:
        sk.terminal(f"X.{name}", name, f"onward {name}", "neutral_terminal" if name == "N" else "stud_terminal")
    sk.outside("W", "onward", "next panel")
    ends = "/".join(f"X.{name}" for name in phases)
    sk.rung("power", "unswitched", AHEAD[: len(phases)], f"{ends} @W:{'/'.join(phases)}", "", Band.POWER)
    if context.neutral:
        sk.rung("N", "N", "N", "X.N @W:N", "", Band.POWER)
    sk.earth_of("W")
    return sk.done()


def surge(circuit: Circuit, context: SupplyContext) -> BuiltCircuit:
    """A surge protector behind its own fuses near the main switch, and a lamp when its module is spent."""
    sk = CircuitBuilder(circuit.id, circuit.title or "surge protector", context)
    sk.plate("F", "fuse_three", "surge protector", least_a=25.0)
    sk.plate("SP", "surge")
    sk.plate("FC", "control_breaker", "control")
    count = len(context.lines)
    poles, ends = "/".join(POLES.split("/")[:count]), "/".join(PHASES[:count])
    sk.rung("power", "", context.lines, f"F:{poles} @SP:{ends}", "", Band.POWER)
    sk.bond("SP", "PE")
    live = sk.tap()
    lamp(sk, DoorLamp("spent", "surge protector spent", "SURGE PROTECTOR SPENT", "yellow"), live, "SP:13-14")
    return sk.done()
