"""How a load is commanded: buttons, selector, floats, a station in the field, the controller."""

from dataclasses import dataclass

from riktig.core.job import Access, Circuit, Command, Direction, Form, Load, Practice, Recipe, Signal, Source, Wetting
from riktig.core.schematic.model.roles import ALARM
from riktig.core.schematic.templates.circuit_builder import CircuitBuilder, DoorLamp
from riktig.core.schematic.templates.supply_context import LIMITED_BACK, LIMITED_LIVE

__all__ = ["WITH_STATUS", "Asked", "Floats", "alarm_rungs", "command_path", "floats_of", "interlock_path", "lamp"]

WORDS = {
    "stop": ("low", "stop", "off", "dry"),
    "start": ("start", "on ", "lead"),
    "alarm": ("high", "alarm", "overflow"),
}
"""Words in the name of a float that say what it is for; without them the order of the list counts."""
DEMANDS = (
    "thermostat", "hygrostat", "humidistat", "pressostat", "pressure", "level", "float", "timer", "clock", "light",
    "twilight", "frost", "demand", "call", "temperature", "humidity",
)  # fmt: skip
"""Words in the name of a contact that say that it feels a demand and does not merely let something run."""
WITH_STATUS = {Recipe.DIRECT_ON_LINE, Recipe.REVERSING, Recipe.STAR_DELTA, Recipe.CONTACTOR}
"""Starters whose contactor takes a contact for the controller."""


@dataclass(frozen=True, slots=True)
class Floats:
    """The floats of a pump: None where the Brief lists none."""

    stop: Signal | None
    start: Signal | None
    alarm: Signal | None


def floats_of(signals: tuple[Signal, ...]) -> Floats:
    """Which field device is which float: by its name, else by its place in the list (stop, start, alarm)."""
    by_use: dict[str, Signal] = {}
    left = list(signals)
    for what in ("alarm", "stop", "start"):
        named = next((s for s in left if any(word in f"{s.name} ".lower() for word in WORDS[what])), None)
        if named:
            by_use[what] = named
            left.remove(named)
    for what in ("stop", "start", "alarm"):
        if what not in by_use and left:
            by_use[what] = left.pop(0)
    return Floats(by_use.get("stop"), by_use.get("start"), by_use.get("alarm"))


@dataclass(frozen=True, slots=True)
class Asked:
    """What the Brief and the circuit's parameters ask of a command."""

    circuit: Circuit
    load: Load
    signals: tuple[Signal, ...]
    practice: Practice

    @property
    def wetted(self) -> tuple[Signal, ...]:
        """Contacts in the field that the control supply goes through."""
        return tuple(
            s
            for s in self.signals
            if s.wetting is Wetting.CONTROL and s.direction is Direction.INTO and s.form is Form.DIGITAL
        )

    @property
    def ends(self) -> tuple[Signal, ...]:
        """The two end switches of what travels."""
        return self.wetted[:2] if self.load.command is Command.BOTH_WAYS else ()

    @property
    def conditions(self) -> tuple[Signal, ...]:
        """What starts a load by itself in the automatic position: what feels a demand by its name, else the first."""
        felt = tuple(s for s in self.wetted if any(word in s.name.lower() for word in DEMANDS))
        return felt or self.wetted[:1]

    @property
    def permissives(self) -> tuple[Signal, ...]:
        """What must be closed besides, in hand too: the contacts of a selector that start nothing by themselves."""
        if self.load.command is not Command.SELECTOR:
            return ()
        return tuple(s for s in self.wetted if s not in self.conditions)

    @property
    def floats(self) -> Floats:
        """The floats of what is commanded by level."""
        return floats_of(self.wetted)

    @property
    def interlock_block(self) -> bool:
        """Whether a mechanical block holds the two contactors apart beside their contacts."""
        return self.circuit.param("mechanical interlock", "yes") == "yes"

    @property
    def filling(self) -> bool:
        """Whether the pump fills the tank: it starts low and stops high."""
        return self.circuit.param("pump", "empties") == "fills"

    @property
    def status(self) -> bool:
        """Whether the controller reads whether the contactor is in."""
        return self.circuit.recipe in WITH_STATUS and self.circuit.param("status to the controller", "no") == "yes"

    @property
    def bypass(self) -> bool:
        """Whether a contactor of its own bridges the soft starter once the motor runs."""
        return self.circuit.param("bypass", "built in") == "contactor"

    @property
    def key(self) -> bool:
        """Whether only the key holder moves the control."""
        return self.load.access is Access.KEY

    @property
    def words(self) -> str:
        """What the control path does, for its title."""
        return {
            Command.SELECTOR: "hand, off, auto",
            Command.LEVEL: "by level, with hand, off, auto",
            Command.STATION: "station in the field",
            Command.CONTROLLER: "by the controller",
            Command.ALWAYS: "always on",
        }.get(self.load.command, "start, stop, hold")


def command_path(sk: CircuitBuilder, asked: Asked, hold: str) -> str:
    """The stretch of path that the command makes, in words; ``hold`` is the contact that keeps it in."""
    match asked.load.command:
        case Command.SELECTOR:
            return _selector(sk, asked)
        case Command.LEVEL:
            return _level(sk, asked, hold)
        case Command.STATION:
            return _station(sk, hold)
        case Command.CONTROLLER | Command.ALWAYS:
            return ""
        case _:
            sk.door("S.stop", "stop_button", "stop", f"{sk.title} STOP")
            sk.door("S.start", "start_button", "start", f"{sk.title} START")
            return f"S.stop:1-2 (S.start:3-4 | {hold})"


def interlock_path(sk: CircuitBuilder, asked: Asked) -> str:
    """Contacts that must be closed for the load to run: foreign ones by a relay, the others straight."""
    path = []
    plain = asked.load.command in (Command.BUTTONS, Command.STATION, Command.CONTROLLER, Command.ALWAYS)
    lets = asked.wetted if plain else asked.wetted[2:] if asked.ends else asked.permissives
    for n, signal in enumerate(lets, 1):
        path.append(sk.across(f"let{n}", "field_contact", signal.name))
    told = [s for s in asked.signals if s.direction is Direction.INTO and s.form is Form.DIGITAL]
    foreign = [s for s in told if s.wetting is Wetting.FOREIGN]
    for n, signal in enumerate(foreign, 1):
        path.append(foreign_relay(sk, f"KF{n}", signal.name, sk.context.source(signal.source)))
    for n, signal in enumerate((s for s in told if s.wetting is Wetting.LIMITED), 1):
        path.append(_limited_relay(sk, f"KL{n}", signal.name))
    return " ".join(path)


def _limited_relay(sk: CircuitBuilder, role: str, name: str) -> str:
    """A relay that a contact in the field pulls in by the limited-energy supply; gives its contact."""
    sk.plate(role, "relay_dc", name)
    field = sk.across(f"{role}.B", "field_contact", name)
    sk.rung(f"{role}.coil", f"{name}, relay", LIMITED_LIVE, f"{field} {role}:A1-A2", LIMITED_BACK)
    return f"{role}:11-14"


def foreign_relay(sk: CircuitBuilder, role: str, name: str, source: Source | None) -> str:
    """A relay that another panel's supply pulls in, over orange disconnect terminals; gives its contact.

    Args:
        sk: The circuit that is written down.
        role: Of the relay.
        name: What it is for.
        source: The supply that pulls it in; None where the Brief names none.
    """
    usual = source is None or (source.is_direct and abs(source.voltage_v - 24.0) < 1.0)
    sk.plate(role, "relay_dc" if usual else "relay", name)
    sk.outside(f"{role}.W", "foreign_source", f"{name}, {source.name}" if source else name, source=source)
    ends = [sk.terminal(f"{role}.X{n}", f"{role[1:]}{n}", name, "disconnect_terminal") for n in (1, 2)]
    a, b = sk.node(f"{role}.a"), sk.node(f"{role}.b")
    sk.rung(f"{role}.source", f"{name}, live from elsewhere", a, f"{role}.W:1-2", b)
    sk.rung(f"{role}.coil", f"{name}, relay", a, f"<{ends[0]} {role}:A1-A2 {ends[1]}", b)
    return f"{role}:{'11-14' if usual else '13-14'}"


def lamp(sk: CircuitBuilder, lit: DoorLamp, live: str, contact: str, *, role: str = "") -> None:
    """A lamp on the door with what lights it."""
    sk.lamp(lit)
    sk.rung(role or lit.name, lit.purpose, live, f"{contact} H.{lit.name}:X1-X2".strip(), sk.context.back)


def _selector(sk: CircuitBuilder, asked: Asked) -> str:
    kind = ("key_hoa", "key_two") if asked.key else ("selector_hoa", "selector_two")
    if not asked.wetted:
        sk.door("S.select", kind[1], "select", f"{sk.title} OFF – ON")
        return "S.select:13-14"
    sk.door("S.select", kind[0], "select", f"{sk.title} HAND – OFF – AUTO")
    contacts = [
        sk.across(f"auto{n}", "field_thermostat" if "thermostat" in s.name else "field_contact_no", s.name)
        for n, s in enumerate(asked.conditions, 1)
    ]
    condition = contacts[0] if len(contacts) == 1 else f"({' | '.join(contacts)})"
    return f"(S.select:13-14 | {condition} S.select:23-24)"


def _level(sk: CircuitBuilder, asked: Asked, hold: str) -> str:
    """By level: the stop float lets the start float and the hold through; filling turns both round."""
    sk.door("S.select", "key_hoa" if asked.key else "selector_hoa", "select", f"{sk.title} HAND – OFF – AUTO")
    kind = "float_nc" if asked.filling else "float_no"
    floats = asked.floats
    names = [
        signal.name if signal else f"{what} float" for signal, what in ((floats.stop, "stop"), (floats.start, "start"))
    ]
    stop = sk.across("B.stop", kind, names[0])
    start = sk.across("B.start", kind, names[1])
    return f"(S.select:13-14 | {stop} ({start} | {hold}) S.select:23-24)"


def _station(sk: CircuitBuilder, hold: str) -> str:
    """Stop and start in the field over three conductors and its earth: the link between them is made in the station."""
    sk.outside("S.field", "station", "station")
    for n in (1, 2, 3):
        sk.terminal(f"S.X{n}", str(n), "station")
    sk.earth_of("S.field", by="S.XPE", mark="PES")
    return f"S.X1 S.field:1-2 (S.field:3-4 <S.X3 | <S.X2 {hold})"


def alarm_rungs(sk: CircuitBuilder, alarm: Signal | None, live: str, *, beacon: bool = True) -> None:
    """A high-level alarm: beacon and buzzer, silenced by a relay that drops out with the alarm; a test button."""
    name = alarm.name if alarm else "high-level float"
    raised = sk.across(ALARM, "float_no", name)
    sk.door("S.test", "start_button", "alarm test", f"{sk.title} ALARM TEST")
    sk.door("S.silence", "start_button", "alarm silence", f"{sk.title} ALARM SILENCE")
    sk.lamp(DoorLamp("alarm", "high level", f"{sk.title} HIGH LEVEL", "yellow"))
    sk.door("Z.alarm", "buzzer", "buzzer", f"{sk.title} ALARM")
    sk.plate("K.silence", "relay", "silence")
    sk.rung(
        "alarm",
        "high level",
        live,
        f"({raised} | S.test:3-4) (H.alarm:X1-X2 | K.silence:21-22 Z.alarm:X1-X2"
        " | (S.silence:3-4 | K.silence:13-14) K.silence:A1-A2)",
        sk.context.back,
    )
