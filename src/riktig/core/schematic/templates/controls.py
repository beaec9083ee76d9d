"""Recipes of control and indication that serve no single load: emergency stop, alarms, switches, the controller."""

from collections.abc import Sequence
from dataclasses import dataclass

from riktig.core.job import Circuit, CircuitId, Command, ControlSupply, Direction, Form, Load, Signal, Start, Wetting
from riktig.core.schematic.model.elements import Band, Zone
from riktig.core.schematic.templates.circuit_builder import BuiltCircuit, CircuitBuilder, DoorLamp
from riktig.core.schematic.templates.commands import alarm_rungs, foreign_relay, lamp
from riktig.core.schematic.templates.field_signals import is_switched, is_value_given, is_value_read, sees_light
from riktig.core.schematic.templates.supply_context import (
    DC_BACK,
    DC_DEVICES,
    DC_LIVE,
    LAMP_TEST,
    LIMITED_BACK,
    LIMITED_LIVE,
    LINES,
    SupplyContext,
)
from riktig.core.standards import rule

__all__ = [
    "ADDRESSES",
    "ControllerPoint",
    "controller",
    "foreign_interlock",
    "fused_branches",
    "lamp_test",
    "level_alarm",
    "lit_button",
    "network",
    "screen",
    "season_switch",
    "selected_lamp",
    "sensor_terminals",
    "valve",
]

ADDRESSES = ("%IX", "%QX", "%QW")
"""Addresses of inputs, outputs and analogue outputs (IEC 61131-3, from memory)."""
INPUTS_FROM, OUTPUTS_FROM = "inputs from byte", "outputs from byte"
FIRST_BYTES = ("0", "4", "8", "16", "32", "64", "100", "256")
"""From which byte on the controller's program counts (common practice, no source)."""
VALUE_ADDRESS, VALUES_CARD = "%IW", 4
"""How values are called that the controller reads, and how many of them a card takes."""
CARD = 8


@dataclass(frozen=True, slots=True)
class _Addresses:
    """What the points are called: inputs and values count from one byte on, outputs from another."""

    first_in: int
    first_out: int

    def point_in(self, card: int, point: int) -> str:
        """An input by its card and place."""
        return f"{ADDRESSES[0]}{self.first_in + card}.{point}"

    def point_out(self, card: int, point: int) -> str:
        """An output by its card and place."""
        return f"{ADDRESSES[1]}{self.first_out + card}.{point}"

    def value_in(self, number: int) -> str:
        """A value that is read, counted from 0."""
        return f"{VALUE_ADDRESS}{self.first_in + number}"

    def value_out(self, number: int) -> str:
        """A value that is set, counted from 0."""
        return f"{ADDRESSES[2]}{self.first_out + number}"


BRANCH_FUSE_A = 0.2
"""The least link there is: for a branch of which nothing is known yet (IEC 60127-2, from memory)."""


@dataclass(frozen=True, slots=True)
class ControllerPoint:
    """What another circuit wants of the controller: a node to read, or with ``into`` false to command."""

    node: str
    name: str
    into: bool


def level_alarm(circuit: Circuit, context: SupplyContext, signals: Sequence[Signal] = ()) -> BuiltCircuit:
    """A high-level alarm of its own: float, lamp, buzzer, test and silence."""
    sk = CircuitBuilder(circuit.id, circuit.title or "high level", context)
    sk.plate("FC", "control_breaker", "control")
    live = sk.tap(guard="")
    alarm_rungs(sk, signals[0] if signals else None, live)
    return sk.done()


def lamp_test(circuit: Circuit, context: SupplyContext) -> BuiltCircuit:
    """One button lights every lamp of the panel by its test input: no circuit behind a lamp is fed."""
    sk = CircuitBuilder(circuit.id, circuit.title or "lamp test", context)
    sk.door("S", "start_button", "lamp test", "LAMP TEST")
    sk.plate("FC", "control_breaker", "control")
    live = sk.tap(guard="")
    sk.rung("test", "all lamps", live, "S:3-4", LAMP_TEST)
    return sk.done()


def season_switch(circuit: Circuit, context: SupplyContext) -> BuiltCircuit:
    """A key switch with two positions and a relay for each: their contacts enable what runs in that season."""
    sk = CircuitBuilder(circuit.id, circuit.title or "season", context)
    names = [circuit.param("first season", "summer"), circuit.param("second season", "winter")]
    legend = f"{names[0].upper()} – {names[1].upper()}"
    sk.door("S", "key_two", "select", legend)
    sk.plate("FC", "control_breaker", "control")
    sk.plate("K1", "relay", names[0])
    sk.plate("K2", "relay", names[1])
    live = sk.tap(guard="")
    sk.rung("one", names[0], live, "S:21-22 K1:A1-A2", context.back)
    sk.rung("two", names[1], live, "S:13-14 K2:A1-A2", context.back)
    return sk.done()


def foreign_interlock(circuit: Circuit, context: SupplyContext) -> BuiltCircuit:
    """A relay that another panel pulls in, over orange disconnect terminals; a lamp shows that it is in."""
    sk = CircuitBuilder(circuit.id, circuit.title or "interlock from another panel", context)
    contact = foreign_relay(sk, "KF", sk.name, context.source(circuit.param("source", "")))
    sk.plate("FC", "control_breaker", "control")
    live = sk.tap(guard="")
    lamp(sk, DoorLamp("in", "released", f"{sk.title} RELEASED".upper(), "white"), live, contact)
    return sk.done()


def valve(circuit: Circuit, context: SupplyContext) -> BuiltCircuit:
    """A solenoid valve behind a selector on the door, with its lamp."""
    sk = CircuitBuilder(circuit.id, circuit.title or "valve", context)
    sk.plate("FC", "control_breaker", "control")
    sk.plate("K", "relay", "valve")
    sk.door("S", "selector_two", "select", f"{sk.title} SHUT – OPEN")
    live = sk.tap(guard="")
    sk.rung("run", "open", live, "S:13-14 K:A1-A2", context.back)
    sk.rung("valve", "valve", live, f"K:13-14 {sk.across('Y', 'valve', 'valve')}", context.back)
    lamp(sk, DoorLamp("open", "open", f"{sk.title} OPEN", "green"), live, "K:43-44")
    return sk.done()


def fused_branches(circuit: Circuit, context: SupplyContext) -> BuiltCircuit:
    """A breaker with a fuse a branch, behind a small source a fuse: a blown fuse leaves the other branch alive."""
    sk = CircuitBuilder(circuit.id, circuit.title or "branches", context)
    if context.control is ControlSupply.DIRECT:
        sk.plate("Q", "control_breaker", "both branches", least_a=2.0)
    else:
        sk.add("Q", "control_fuse", Zone.PLATE, "both branches", least_a=BRANCH_FUSE_A * rule("fuse selectivity").value)
    sk.plate("F1", "fuse", "first branch", least_a=BRANCH_FUSE_A)
    sk.plate("F2", "fuse", "second branch", least_a=BRANCH_FUSE_A)
    live = sk.tap("Q", guard="")
    for n, words in ((1, "first"), (2, "second")):
        branch = DoorLamp(f"branch{n}", f"{words} branch alive", f"{words} BRANCH ALIVE".upper(), "white")
        sk.lamp(branch, role=f"H{n}")
        sk.rung(f"branch{n}", f"{words} branch", live, f"F{n}:1-2", sk.node(f"b{n}"))
        sk.rung(f"lamp{n}", f"{words} branch alive", sk.node(f"b{n}"), f"H{n}:X1-X2", context.back)
    return sk.done()


def selected_lamp(circuit: Circuit, context: SupplyContext) -> BuiltCircuit:
    """Hand, off, auto with a relay and a lamp behind it: hand at once, auto as the field contact says."""
    sk = CircuitBuilder(circuit.id, circuit.title or "selected", context)
    sk.plate("FC", "control_breaker", "control")
    sk.plate("K", "relay", "selected")
    sk.door("S", "selector_hoa", "select", f"{sk.title} HAND – OFF – AUTO")
    sk.lamp(DoorLamp("selected", "selected", f"{sk.title} ON", "green"), role="H")
    auto = sk.across("B", "field_contact_no", "condition")
    live = sk.tap(guard="")
    path = f"(S:13-14 | {auto} S:23-24) (H:X1-X2 | K:A1-A2)"
    sk.rung("run", "hand, off, auto", live, path, context.back)
    return sk.done()


def lit_button(circuit: Circuit, context: SupplyContext) -> BuiltCircuit:
    """An illuminated button: its contact pulls in a relay, its lamp lights by the relay, not by the press."""
    sk = CircuitBuilder(circuit.id, circuit.title or "step", context)
    sk.plate("FC", "control_breaker", "control")
    sk.plate("K", "relay", "step")
    sk.door("S.off", "stop_button", "off", f"{sk.title} OFF")
    sk.door("S", "lit_button", "on", f"{sk.title} ON", colour="green")
    live = sk.tap(guard="")
    sk.rung("run", "on, hold", live, "S.off:1-2 (S:3-4 | K:13-14) K:A1-A2", context.back)
    sk.rung("lamp", "lit", live, "K:43-44 S:X1-X2", context.back)
    return sk.done()


def screen(circuit: Circuit, context: SupplyContext) -> BuiltCircuit:
    """A screen on the door, fed from the devices' group of the 24 V supply, and a lamp that says it is healthy."""
    sk = CircuitBuilder(circuit.id, circuit.title or "screen", context)
    sk.door("A", "screen", "screen", sk.title.upper())
    sk.rung("power", "24 V", DC_DEVICES, "A:24-0", DC_BACK)
    meaning = circuit.param("door lamp", "healthy")
    if meaning != "none":
        colour = "green" if meaning == "healthy" else "red"
        sk.lamp(DoorLamp("door", meaning, f"PANEL {meaning.upper()}", colour), DC_BACK)
        sk.rung("lamp", f"panel {meaning}", sk.node("lamp"), "H.door:X1-X2", DC_BACK)
    return sk.done()


def network(circuit: Circuit, context: SupplyContext) -> BuiltCircuit:
    """A switch with ports, a socket on the door, and a chain of devices on the bus."""
    sk = CircuitBuilder(circuit.id, circuit.title or "network", context)
    count = min(max(int(circuit.param("devices", "2")), 1), 12)
    sk.plate("A", "network_switch", "switch")
    sk.door("XB", "bus_socket", "network socket", "NETWORK")
    sk.rung("power", "24 V", DC_DEVICES, "A:24-0", DC_BACK)
    sk.rung("door", "cable to the door", "", "@A:P1 @XB:P1")
    last = "@A:P2"
    for n in range(1, count + 1):
        sk.outside(f"B{n}", "bus_device", f"bus device {n}")
        sk.rung(f"chain{n}", f"cable {n}", "", f"{last} @B{n}:P1")
        last = f"@B{n}:P2"
    return sk.done()


def sensor_terminals(circuit: Circuit, context: SupplyContext) -> BuiltCircuit:
    """Three-wire sensors from the limited supply: supply, signal, supply, signal; commons bridged, signals apart."""
    sk = CircuitBuilder(circuit.id, circuit.title or "sensors", context)
    count = min(max(int(circuit.param("sensors", "4")), 1), 8)
    live, back = (LIMITED_LIVE, LIMITED_BACK) if context.limited else (DC_DEVICES, DC_BACK)
    sk.plate("AI", "inputs", "sensor inputs")
    for n in range(1, count + 1):
        sk.outside(f"B{n}", "sensor", f"sensor {n}")
        for pin, words in (("P", "supply"), ("O", "signal"), ("M", "0 V")):
            kind = "terminal" if pin == "O" else "common_terminal"
            sk.terminal(f"X{n}.{pin}", f"{n}{pin}", f"sensor {n} {words}", kind)
    for n in range(1, count + 1):
        fed = sk.node(f"p{n}")
        sk.rung(f"feed{n}", f"sensor {n}", live, f"X{n}.P", fed)
        sk.rung(f"sensor{n}", f"sensor {n}", fed, f"B{n}:P-M <X{n}.M", back)
        sk.rung(f"signal{n}", f"sensor {n} signal", fed, f"B{n}:P-O <X{n}.O AI:I{n - 1}-M", back)
    return sk.done()


def controller(
    circuit: Circuit,
    context: SupplyContext,
    loads: Sequence[tuple[CircuitId, Load]],
    signals: Sequence[Signal],
    asked: Sequence[ControllerPoint] = (),
    behind: SupplyContext | None = None,
) -> BuiltCircuit:
    """The controller: its supply, an output for each load it commands, an input for each 24 V contact and each value.

    A field device on the control supply is switched by a relay of its own. What draws current of its own has three
    conductors.

    Args:
        circuit: The circuit.
        context: Supply and practice, and where control takes its voltage from.
        loads: The loads that it commands, with their circuits.
        signals: The field devices of the job.
        asked: Points that other circuits end at: status contacts, lamps.
        behind: The same behind an emergency stop, where there is one.
    """
    sk = CircuitBuilder(circuit.id, circuit.title or "controller", context)
    inputs = [
        s for s in signals if s.wetting is Wetting.DC and s.direction is Direction.INTO and s.form is Form.DIGITAL
    ]
    outputs = [
        s for s in signals if s.wetting is Wetting.DC and s.direction is Direction.OUT and s.form is Form.DIGITAL
    ]
    values = [s for s in signals if is_value_read(s)]
    switched = [s for s in signals if is_switched(s)]
    driven = [(cid, load) for cid, load in loads if load.start is Start.DRIVE]
    commands = [
        *((f"{cid}.command", load.name) for cid, load in loads if load.command is Command.CONTROLLER),
        *((point.node, point.name) for point in asked if not point.into),
        *((sk.node(f"switch{n}"), signal.name) for n, signal in enumerate(switched)),
    ]
    read = [point for point in asked if point.into]
    sk.plate("A", "controller")
    called = _Addresses(int(circuit.param(INPUTS_FROM, "0")), int(circuit.param(OUTPUTS_FROM, "0")))
    cards_in = -(-(len(inputs) + len(read)) // CARD)
    behind = behind or context
    apart = bool(behind.stops and outputs)
    first = -(-len(commands) // CARD) * CARD if apart else len(commands)
    cards_out = -(-(first + len(outputs)) // CARD)
    for n in range(cards_in):
        sk.plate(f"AI{n}", "inputs", f"inputs {called.point_in(n, 0)} to {called.first_in + n}.7")
    for n in range(cards_out):
        sk.plate(f"AQ{n}", "outputs", f"outputs {called.point_out(n, 0)} to {called.first_out + n}.7")
    given = [s for s in signals if is_value_given(s, loads)]
    for n in range(-(-(len(driven) + len(given)) // 2)):
        sk.plate(
            f"AO{n}", "analogue_out", f"analogue outputs {called.value_out(2 * n)} to {called.value_out(2 * n + 1)}"
        )
    for n in range(-(-len(values) // VALUES_CARD)):
        low = VALUES_CARD * n
        sk.plate(f"AV{n}", "analogue_in", f"values {called.value_in(low)} to {called.value_in(low + VALUES_CARD - 1)}")
    sk.rung("power", "24 V", DC_DEVICES, "A:24-0", DC_BACK)
    for n, signal in enumerate(inputs):
        card, point = divmod(n, CARD)
        role, text, end = f"B{n + 1}", f"{called.point_in(card, point)} {signal.name}", f"AI{card}:I{point}-M"
        if signal.watts:
            _three_wires(sk, role, f"in{n}", signal, text, end)
        else:
            field = sk.across(role, "field_contact_no", signal.name)
            sk.rung(f"in{n}", text, DC_DEVICES, f"{field} {end}", DC_BACK)
    for n, controller_point in enumerate(read, len(inputs)):
        card, point = divmod(n, CARD)
        sk.rung(
            f"in{n}",
            f"{called.point_in(card, point)} {controller_point.name}",
            controller_point.node,
            f"AI{card}:I{point}-M",
            DC_BACK,
        )
    for n, (node, name) in enumerate(commands):
        card, point = divmod(n, CARD)
        sk.rung(f"out{n}", f"{called.point_out(card, point)} {name}", DC_LIVE, f"AQ{card}:L-Q{point}", node)
    fed = _released(sk, behind.live) if apart else DC_LIVE
    for n, signal in enumerate(outputs, first):
        card, point = divmod(n, CARD)
        field = sk.across(f"Y{n + 1}", "valve", signal.name)
        text = f"{called.point_out(card, point)} {signal.name}"
        sk.rung(f"out{n}", text, fed, f"AQ{card}:L-Q{point} {field}", DC_BACK)
    for n, (cid, load) in enumerate(driven):
        card, point = divmod(n, 2)
        text = f"{called.value_out(n)} {load.name}, speed"
        sk.rung(f"ref{n}", text, f"{cid}.ref", f"AO{card}:AO{point}-C{point}", f"{cid}.ref.com")
    _values(sk, values, given, len(driven), called)
    _switched(sk, switched, behind.live)
    return sk.done()


def _released(sk: CircuitBuilder, stopped: str) -> str:
    """24 V for what the controller moves in the field, while the emergency stop lets it: a card of its own hangs on it.

    Args:
        sk: The circuit of the controller.
        stopped: The control supply that the emergency stop takes away.
    """
    sk.plate("KR", "relay", "field devices released")
    node = sk.node("released")
    sk.rung("release", "field devices released", stopped, "KR:A1-A2", sk.context.back)
    sk.rung("released", "24 V of field devices", DC_LIVE, "KR:13-14", node)
    return node


def _values(
    sk: CircuitBuilder, read: Sequence[Signal], given: Sequence[Signal], taken: int, called: _Addresses
) -> None:
    """What the controller reads as a value, and what it sets by one; so many outputs are taken by drives."""
    for n, signal in enumerate(read):
        card, point = divmod(n, VALUES_CARD)
        field = sk.across(f"BV{n + 1}", "transmitter", signal.name)
        text, end = f"{called.value_in(n)} {signal.name}", f"AV{card}:AI{point}-C{point}"
        sk.rung(f"value{n}", text, DC_DEVICES, f"{field} {end}", DC_BACK)
    for n, signal in enumerate(given, taken):
        card, point = divmod(n, 2)
        a, b, text = sk.node(f"value{n}"), sk.node(f"value{n}.com"), f"{called.value_out(n)} {signal.name}"
        sk.rung(f"given{n}", text, a, f"AO{card}:AO{point}-C{point}", b)
        sk.rung(f"set{n}", text, a, sk.across(f"YV{n + 1}", "positioner", signal.name), b)


def _three_wires(sk: CircuitBuilder, role: str, rung: str, signal: Signal, text: str, end: str) -> None:
    """A sensor that draws current of its own: its supply, its signal, and its 0 V."""
    sk.outside(role, "photocell" if sees_light(signal) else "sensor", signal.name)
    for pin, words in (("P", "supply"), ("O", "signal"), ("M", "0 V")):
        sk.terminal(f"{role}.X{pin}", f"{role}{pin}", f"{signal.name} {words}")
    fed = sk.node(f"{role}.fed")
    sk.rung(f"{rung}.feed", f"{text}, supply", DC_DEVICES, f"{role}.XP", fed)
    sk.rung(f"{rung}.zero", f"{text}, 0 V", fed, f"{role}:P-M <{role}.XM", DC_BACK)
    sk.rung(rung, text, fed, f"{role}:P-O <{role}.XO {end}", DC_BACK)


def _switched(sk: CircuitBuilder, switched: Sequence[Signal], live: str) -> None:
    """Devices of the field on the control supply: a relay each, and what guards their circuit."""
    if not switched:
        return
    sk.plate("FY", "control_breaker", "field devices")
    node = sk.node("devices")
    sk.rung("tap", "field devices", live or LINES[0], "FY:1-2", node, Band.TAP)
    for n, signal in enumerate(switched):
        sk.plate(f"KY{n}", "relay_dc", signal.name)
        sk.rung(f"relay{n}", signal.name, sk.node(f"switch{n}"), f"KY{n}:A1-A2", DC_BACK)
        field = sk.across(f"YC{n + 1}", "valve", signal.name)
        sk.rung(f"device{n}", signal.name, node, f"KY{n}:11-14 {field}", sk.context.back)
