"""Circuits of services: ways, sockets, the light, the heater and the fan of the box, and what stays alive."""

from riktig.core.job import Circuit, CircuitId, DeviceId, EarthScheme, Load, LoadKind
from riktig.core.schematic.model.elements import Band, Zone
from riktig.core.schematic.templates.circuit_builder import BuiltCircuit, CircuitBuilder, DoorLamp
from riktig.core.schematic.templates.commands import lamp
from riktig.core.schematic.templates.supplies import AHEAD, PHASES, POLES
from riktig.core.schematic.templates.supply_context import LINES, LIVE, SupplyContext
from riktig.core.schematic.templates.way_breakers import way_breaker

__all__ = ["maintained", "signalled_ways", "socket", "ventilation", "way"]


FUSED_VA = 500.0
"""Up to here no breaker is small enough to guard a transformer, so it has fuses on both sides (chosen by us)."""
INRUSH = 1.8
"""Time-delay links ahead of a transformer, as a multiple of its current: they live through its inrush and stay under
the 250 % of NEC 450.3(B), which the smallest breaker of 15 A does not (common practice, no source)."""
LARGEST_CC = 30.0
"""The largest link of class CC, A (UL 248-4, from memory)."""
SOCKET_VA, LIGHT_VA = 2400.0, 200.0
"""What a transformer must give for a socket of 10 A at 230 V, and for the light and the heater alone (chosen by us)."""


def _own_transformer(sk: CircuitBuilder, lines: tuple[str, ...], needs_va: float, ahead: str) -> tuple[str, str]:
    """Where there is no neutral: two lines through a transformer of its own, one side of it earthed.

    Args:
        sk: The circuit that is written down.
        lines: The two lines that feed it.
        needs_va: What hangs on it, VA.
        ahead: What its primary goes through first, as the path has it.

    Returns:
        The nodes of its live and of its earthed side.
    """
    rated_a = needs_va / sk.context.supply.voltage_v
    small, american = needs_va <= FUSED_VA, sk.context.north_american
    if small:
        sk.plate("FP", "fuse_two", "primary", least_a=1.25 * rated_a)
    elif american and INRUSH * rated_a <= LARGEST_CC:
        sk.plate("FP", "fuse_two", "primary", least_a=INRUSH * rated_a)
    else:
        breaker = "panel_breaker" if american else "breaker_two"
        sk.plate("FP", breaker, "primary", least_a=max(1.25 * rated_a, 2.0))
    sk.plate("T", "transformer", "services", least_a=needs_va)
    if small:
        sk.plate("FS", "fuse", "secondary", least_a=needs_va / sk.context.control_v)
    sk.plate("XL", "earth_link", "secondary earthed")
    out, back = sk.node("out"), sk.node("back")
    path = f"{ahead}FP:1-2/3-4 @T:1/3"
    title = "maintained, live with the main switch off" if ahead else "transformer of its own"
    sk.rung("primary", title, lines, path, "", Band.POWER)
    if small:
        given = sk.node("given")
        sk.rung("source", "secondary", given, "T:5-7", back)
        sk.rung("fused", "secondary fuse", given, "FS:1-2", out)
    else:
        sk.rung("source", "secondary", out, "T:5-7", back)
    sk.rung("earthed", "earthed side", back, "XL:1-2", sk.node("earth"))
    sk.bond("XL", "2")
    return out, back


def maintained(circuit: Circuit, load: Load | None, context: SupplyContext, line: int = 0) -> BuiltCircuit:
    """Services that stay alive with the main switch off: light by the door, socket, heater by a thermostat.

    Method:
        Taken ahead of the main switch, through an isolator inside with its own label, then protected.
    """
    sk = CircuitBuilder(circuit.id, load.name if load else circuit.title or "panel services", context)
    sk.plate("Q", "rail_isolator", "maintained supply")
    sk.plate("F", "panel_breaker" if context.north_american and load else "way_breaker", "services")
    sk.plate("E.light", "panel_light", "light")
    sk.plate("S.door", "door_switch", "door")
    sk.plate("E.heat", "heater", "heater")
    sk.plate("B.heat", "thermostat", "thermostat")
    services = ["S.door:21-22 E.light:L-N", "B.heat:1-2 E.heat:L-N"]
    if circuit.param("socket", "maintained") == "maintained":
        sk.plate("F.socket", "rcd_breaker", "socket")
        sk.plate("X.socket", "panel_socket", "socket")
        sk.bond("X.socket", "PE")
        services.insert(1, "F.socket:1-2 X.socket:L-N <F.socket:3-4")
    if context.neutral:
        path = f"Q:1-2 F:1-2 ({' | '.join(services)}) <Q:3-4"
        sk.rung("power", "maintained, live with the main switch off", AHEAD[line], path, "N")
    else:
        socket = "F.socket" in services[1]
        out, back = _own_transformer(sk, AHEAD[:2], SOCKET_VA if socket else LIGHT_VA, "Q:1-2/3-4 ")
        sk.rung("services", "services", out, f"F:1-2 ({' | '.join(services)})", back)
    return sk.done()


def signalled_ways(circuit: Circuit, context: SupplyContext) -> BuiltCircuit:
    """Single-phase ways whose breakers light a lamp when they trip or are off: one lamp a breaker."""
    sk = CircuitBuilder(circuit.id, circuit.title or "ways", context)
    count = min(max(int(circuit.param("ways", "3")), 1), 12)
    sk.plate("FC", "control_breaker", "lamps")
    for n in range(1, count + 1):
        sk.plate(f"F{n}", "breaker_signal", f"way {n}", least_a=float(circuit.param("rated A", "10")))
    live = sk.tap(guard="")
    out, back = "", "N"
    if not context.neutral:
        rated = float(circuit.param("rated A", "10"))
        out, back = _own_transformer(sk, context.pair, count * rated * context.control_v, "")
    for n in range(1, count + 1):
        lamp(sk, DoorLamp(f"way{n}", f"way {n} off", f"WAY {n} OFF", "yellow"), live, f"F{n}:95-98")
    ways = range(1, count + 1)
    for n in ways:
        sk.outside(f"E{n}", "load", f"way {n}")
    if context.neutral:
        order = [f"X{n}.{side}" for n in ways for side in ("L", "N", "PE")]
    else:
        # One jumper bridges the commons of a transformer: they stand side by side, with nothing else under it.
        order = [f"X{n}.{side}" for side in ("L", "N", "PE") for n in ways]
    for role in order:
        number, _, side = role[1:].partition(".")
        common = "neutral_terminal" if context.neutral else "common_terminal"
        kind = {"L": "terminal", "N": common, "PE": "earth_terminal"}[side]
        sk.terminal(role, "PE" if side == "PE" else f"{side}{number}", f"way {number}", kind)
    for n in ways:
        start, end = out, back
        if context.neutral:
            line = context.supply.way_lines[(n - 1) % len(context.supply.way_lines)]
            start, end = context.way_lines[line], "N"
        path = f"F{n}:1-2 X{n}.L E{n}:L-N <X{n}.N"
        sk.rung(f"power{n}", "", start, path, end, Band.POWER if context.neutral else Band.CONTROL)
        sk.rung(f"earth{n}", "PE", "PE", f"X{n}.PE @E{n}:PE", "", Band.POWER)
        sk.bond(f"X{n}.PE", "i")
    return sk.done()


def _socket_a(context: SupplyContext) -> float:
    """What a socket in the panel is guarded at, A: as its contacts are rated, behind a transformer of its own less."""
    if not context.neutral:
        return 10.0
    return 15.0 if context.north_american else 16.0


def socket(circuit: Circuit, context: SupplyContext) -> BuiltCircuit:
    """A socket in the panel: maintained, behind the panel's own breakers, or from a separate outside source."""
    sk = CircuitBuilder(circuit.id, circuit.title or "service socket", context)
    school = circuit.param("fed", "maintained, ahead of the main switch")
    sk.plate("F", "rcd_breaker", "socket", least_a=_socket_a(context))
    sk.plate("XS", "panel_socket", "socket")
    sk.bond("XS", "PE")
    if school.startswith("outside"):
        source = context.source(circuit.param("source", ""))
        sk.outside("W", "foreign_source", f"socket supply, {source.name}" if source else "socket supply", source=source)
        ends = [sk.terminal(f"X{n}", f"S{n}", "socket supply", "disconnect_terminal") for n in (1, 2)]
        a, b = sk.node("a"), sk.node("b")
        sk.rung("source", "supply from elsewhere", a, "W:1-2", b)
        sk.rung("power", "socket", a, f"<{ends[0]} F:1-2 XS:L-N <F:3-4 {ends[1]}", b)
        return sk.done()
    if not context.neutral:
        ahead = school.startswith("maintained")
        if ahead:
            sk.plate("Q", "rail_isolator", "maintained supply")
        out, back = _own_transformer(sk, AHEAD[:2] if ahead else context.pair, SOCKET_VA, "Q:1-2/3-4 " if ahead else "")
        sk.rung("power", "socket", out, "F:1-2 XS:L-N <F:3-4", back)
    elif school.startswith("maintained"):
        sk.plate("Q", "rail_isolator", "maintained supply")
        sk.rung("power", "socket, live with the main switch off", AHEAD[0], "Q:1-2 F:1-2 XS:L-N <F:3-4 <Q:3-4", "N")
    else:
        sk.rung("power", "socket", context.way_lines[0], "F:1-2 XS:L-N <F:3-4", "N")
    return sk.done()


def ventilation(circuit: Circuit, context: SupplyContext) -> BuiltCircuit:
    """The fan of the box with its filter, behind a breaker of its own; it runs while the panel is switched on."""
    sk = CircuitBuilder(circuit.id, circuit.title or "fan of the box", context)
    sk.plate("F", "control_breaker", "fan", least_a=2.0 if context.neutral else 0.0)
    sk.door("M", "filter_fan", "filter and fan", "")
    if context.neutral:
        sk.rung("power", "filter and fan", LINES[0], "F:1-2 M:L-N", "N")
    else:
        sk.rung("power", "filter and fan", context.live or LIVE, "F:1-2 M:L-N", context.back)
    return sk.done()


def way(circuit: Circuit, load: Load, context: SupplyContext, line: int, head: CircuitId | None = None) -> BuiltCircuit:
    """A way of its own: breaker, terminal, load, and its neutral back.

    Args:
        circuit: The circuit.
        load: What hangs on it.
        context: Supply and practice.
        line: The first line it is fed by.
        head: The way whose neutral it joins: one handle opens the breakers of both (IEC 60364-4-46 and NEC 210.4(B),
            from memory).
    """
    sk = CircuitBuilder(circuit.id, load.name, context)
    tied = DeviceId(f"{head}.F") if head else None
    sk.add("F", way_breaker(load, north_american=context.north_american), Zone.PLATE, "way", tied=tied)
    shared = f"{head}.neutral" if head else ""
    residual = load.kind is LoadKind.SOCKETS and load.phases == 1
    if load.phases == 1:
        sk.outside("E", "load")
        sk.terminal("X.L", "L", "L")
        node = sk.node("neutral")
        if not shared:
            sk.terminal("X.N", "N", "N", "neutral_terminal")
        sk.rung("power", "", context.way_lines[line], "F:1-2 X.L E:L-N", shared or node, Band.POWER)
        if not shared:
            sk.rung("back", "", node, "<X.N <F:3-4" if residual else "<X.N", "N", Band.POWER)
    else:
        pins = PHASES[: load.phases]
        sk.outside("E", "load_three" if load.phases == 3 else "load_two")
        poles = "/".join(POLES.split("/")[: load.phases])
        for leg in pins:
            sk.terminal(f"X.{leg}", leg, leg)
        lines = context.load_lines
        on = lines if load.phases == 3 else (lines[line], lines[(line + 1) % len(lines)])
        path = f"F:{poles} {'/'.join(f'X.{leg}' for leg in pins)} @E:{'/'.join(pins)}"
        sk.rung("power", "", on, path, "", Band.POWER)
    if context.practice.earths is EarthScheme.BAR:
        sk.rung("earth", "PE", "PE", "@E:PE", "", Band.POWER)
    else:
        sk.earth_of("E")
    return sk.done()
