"""Recipes of loads that are switched: how the power goes, and how the load is commanded.

The drawing is of rest: nothing pressed, nothing energised, the overload reset, the protector off.
"""

from collections.abc import Callable

from riktig.core.catalogue import AUX_BLOCK, SIGNAL_BLOCK
from riktig.core.job import (
    Circuit,
    Command,
    EarthScheme,
    Load,
    OverloadContact,
    OverloadDirection,
    OverloadMount,
    Practice,
    Protection,
    RunLamp,
    Signal,
    StarDeltaOverload,
    Start,
    TripLamp,
)
from riktig.core.schematic.model.elements import Band
from riktig.core.schematic.templates.circuit_builder import BuiltCircuit, CircuitBuilder, DoorLamp
from riktig.core.schematic.templates.commands import Asked, alarm_rungs, command_path, interlock_path, lamp
from riktig.core.schematic.templates.supply_context import DC_BACK, DC_DEVICES, INDICATION, SupplyContext

__all__ = ["breaker_signals", "starter"]

POLES = ("1-2", "3-4", "5-6")
ENDS = ("U1", "V1", "W1", "W2", "U2", "V2")
"""Terminals of a motor with six ends: each end of the second three below the phase that feeds it in triangle."""
LEADS = {"U1": "T1", "V1": "T2", "W1": "T3", "U2": "T4", "V2": "T5", "W2": "T6"}
"""North American marks of the leads of a motor: one winding from T1 to T4 (NEMA MG 1 section 2, from memory)."""


def starter(
    circuit: Circuit,
    load: Load,
    context: SupplyContext,
    signals: tuple[Signal, ...] = (),
    on: tuple[int, ...] = (0, 1, 2),
) -> BuiltCircuit:
    """The circuit of a load that is switched: guard, what switches it, overload, command, lamps.

    Method:
        Stop and start stand in series with the coil, the contactor's own contact across the start
        button; the hold path re-joins ahead of whatever follows the button. A motor protector takes
        the overload's place with its own contacts; a soft starter and a drive bring their own.

    Args:
        circuit: The circuit.
        load: The load of the Brief.
        context: Supply and practice, and where control takes its voltage from.
        signals: The field devices that serve the load.
        on: The lines it sits on, when it does not take all three.
    """
    return _Starter(circuit, load, context, signals, on).made()


def breaker_signals(load: Load, practice: Practice) -> bool:
    """Whether the breaker of a load lights its trip lamp by a contact of its own.

    Not where practice taps control behind the breaker: the lamp would be dark with it.

    Args:
        load: The load.
        practice: The practice of the job.
    """
    own_guard = load.start in (Start.SOFT, Start.DRIVE)
    breaker = own_guard or not load.is_motor or load.protection is Protection.BREAKER
    lit = load.trip_lamp and load.start is not Start.WAY and (load.is_motor or own_guard)
    return practice.trip_lamp is TripLamp.BREAKER_TOO and practice.control_tap.ahead and breaker and lit


class _Starter:
    def __init__(
        self, circuit: Circuit, load: Load, context: SupplyContext, signals: tuple[Signal, ...], on: tuple[int, ...]
    ) -> None:
        self.sk = CircuitBuilder(circuit.id, load.name, context)
        self.load, self.context, self.practice = load, context, context.practice
        self.asked = Asked(circuit, load, signals, self.practice)
        lines = context.load_lines
        self.start = lines if load.phases == 3 else tuple(lines[n] for n in on[: load.phases])
        self.own_guard = load.start in (Start.SOFT, Start.DRIVE)
        self.protector = load.is_motor and load.protection is Protection.PROTECTOR and not self.own_guard
        self.overload = load.is_motor and not self.protector and not self.own_guard
        self.plugged = self.overload and (
            (load.start is Start.DIRECT and self.practice.overload_mount is OverloadMount.PLUGGED)
            or (load.start is Start.STAR_DELTA and self.practice.star_delta_overload is not StarDeltaOverload.LINE)
        )
        self.controlled = load.command is Command.CONTROLLER

    def made(self) -> BuiltCircuit:
        """All of it, in the order in which tags are counted."""
        sk, load = self.sk, self.load
        sk.plate("F", self._guard_kind(), "motor" if load.is_motor else "load")
        sk.plate("FC", "control_breaker", "control")
        by_start: dict[Start, Callable[[], None]] = {
            Start.REVERSING: self._reversing_parts,
            Start.STAR_DELTA: self._star_delta_parts,
            Start.SOFT: self._soft_parts,
            Start.DRIVE: self._drive_parts,
        }
        by_start.get(load.start, self._contactor_parts)()
        if self.controlled and load.start is not Start.DRIVE:
            sk.plate("KA", "relay_dc", "command")
        if self.overload:
            kind = "overload" if self.plugged else "overload_wired"
            sk.plate("FO", kind, "overload", under="K" if self.plugged else "")
        self._field()
        self._legs()
        self._earth()
        if load.start is Start.STAR_DELTA:
            self._star_delta_power()
        else:
            self._power()
        live = sk.tap()
        shown = INDICATION if self.context.stops else live
        if load.start is Start.REVERSING:
            self._both_ways(live, shown)
        else:
            self._one_way(live, shown)
        if self.asked.status:
            self._status()
        if load.level_alarm:
            alarm_rungs(sk, self.asked.floats.alarm, shown)
        if load.trip_lamp and (load.is_motor or self.own_guard):
            lamp(sk, DoorLamp("trip", "tripped", f"{sk.title} TRIPPED", "yellow"), shown, self._lights())
        return sk.done()

    def _guard_kind(self) -> str:
        if self.protector:
            return "motor_protector"
        if self.overload and self.load.protection is Protection.FUSES:
            return "fuse_switch"
        kind = {3: "motor_breaker", 2: "breaker_two"}.get(self.load.phases, "way_breaker")
        kind = "panel_breaker" if self.context.north_american else kind
        return kind + SIGNAL_BLOCK if self._breaker_signals() else kind

    def _breaker_signals(self) -> bool:
        """Whether the breaker has a contact that lights the trip lamp too; a motor protector's own contact does."""
        return breaker_signals(self.load, self.practice)

    def _lights(self) -> str:
        """What lights the trip lamp."""
        trip = self._trip(lit=True)
        if not self._breaker_signals():
            return trip
        return f"({trip} | F:95-98)" if trip else "F:95-98"

    def _contactor_parts(self) -> None:
        self.sk.plate("K", self._contactor("contactor" if self.plugged else "contactor_wired"))

    def _contactor(self, kind: str, *, more_contacts: bool = False) -> str:
        """The kind of a contactor: with an auxiliary block where the controller or a lamp reads it besides."""
        return kind + AUX_BLOCK if self.asked.status or more_contacts else kind

    def _reversing_parts(self) -> None:
        self.sk.plate("K", self._contactor("contactor_wired"), "forward")
        if self.asked.interlock_block:
            self.sk.plate("KI", "interlock_block", "interlock")
        self.sk.plate("KR", self._contactor("contactor_wired"), "reverse")

    def _star_delta_parts(self) -> None:
        kind = "contactor" if self.plugged else "contactor_wired"
        lamp_on_contact = self.load.run_lamp and self.practice.run_lamp is RunLamp.AUXILIARY
        self.sk.plate("K", self._contactor(kind, more_contacts=lamp_on_contact), "line")
        self.sk.plate("KD", "contactor_wired", "delta")
        if self.asked.interlock_block:
            self.sk.plate("KI", "interlock_block", "interlock")
        self.sk.plate("KS", "contactor_wired", "star")
        self.sk.plate("KT", "timer", "timer")

    def _soft_parts(self) -> None:
        self.sk.plate("U", "soft_starter", "soft starter")
        self.sk.plate("K", "relay", "start")
        if self.asked.bypass:
            self.sk.plate("KB", "contactor_wired", "bypass")

    def _drive_parts(self) -> None:
        self.sk.plate("U", "drive", "drive")
        self.sk.bond("U", "PE")
        self.sk.plate("K", "relay_dc" if self.controlled else "relay", "run")
        if self.controlled and self.context.stops:
            self.sk.plate("KE", "relay", "enable")

    def _field(self) -> None:
        kinds = {3: "load_three", 2: "load_two", 1: "load"}
        if self.load.is_motor and self.load.phases == 3:
            kind = "motor6" if self.load.start is Start.STAR_DELTA else "motor"
            self.sk.outside("M", f"{kind}_t" if self.context.north_american else kind)
        else:
            self.sk.outside("E", kinds[self.load.phases])

    def _legs(self) -> None:
        motor = self.load.is_motor and self.load.phases == 3
        legs: tuple[str, ...] = ("U", "V", "W") if motor else ("L1", "L2", "L3")[: self.load.phases]
        if self.load.start is Start.STAR_DELTA:
            legs = ENDS
        elif self.load.phases == 1:
            legs = ("L",)
        for leg in legs:
            mark = self._motor_mark(leg) if motor else leg
            self.sk.terminal(f"X.{leg}", mark, mark)
        if self.load.phases == 1:
            self.sk.terminal("X.N", "N", "N", "neutral_terminal")

    def _motor_mark(self, leg: str) -> str:
        """How a lead of the motor is marked: “U”, “U2”, or “T1” by the North American rulebook."""
        return LEADS[leg if len(leg) > 1 else f"{leg}1"] if self.context.north_american else leg

    def _motor_ends(self, ends: tuple[str, ...]) -> str:
        """The pins of the motor in a path."""
        return "@M:" + "/".join(self._motor_mark(end) for end in ends)

    def _power(self) -> None:
        """The power path: guard, what switches, overload, terminals, load."""
        n = self.load.phases
        poles = "/".join(POLES[:n])
        switching = {
            Start.REVERSING: f"(K:{poles} | KR:{poles}^132)",
            Start.SOFT: f"(U:{poles} | KB:{poles})" if self.asked.bypass else f"U:{poles}",
            Start.DRIVE: "U:L1-U/L2-V/L3-W",
        }.get(self.load.start, f"K:{poles}")
        path = [f"F:{poles}", switching]
        if self.overload:
            path.append(f"FO:{poles}")
        if n == 1:
            self.sk.rung("power", "", self.start, " ".join([*path, "X.L E:L-N <X.N"]), "N", Band.POWER)
            return
        legs = ("U", "V", "W") if self.sk.has("M") else ("L1", "L2", "L3")[:n]
        ends = self._motor_ends(ENDS[:3]) if self.sk.has("M") else "@E:" + "/".join(("L1", "L2", "L3")[:n])
        path += ["/".join(f"X.{leg}" for leg in legs), ends]
        self.sk.rung("power", "", self.start, " ".join(path), "", Band.POWER)

    def _star_delta_power(self) -> None:
        """Power paths of a star-delta starter, joined at named nodes.

        In triangle the ends are fed U1-W2, V1-U2, W1-V2 (IEC 60034-8, from memory); in star the second
        three are joined.
        """
        sk, poles = self.sk, "/".join(POLES)
        fed = tuple(sk.node(f"fed.{n}") for n in ("L1", "L2", "L3"))
        tails = tuple(sk.node(end) for end in ENDS[3:])
        relay = f"FO:{poles} " if self.overload else ""
        first, second = ("/".join(f"X.{leg}" for leg in legs) for legs in (ENDS[:3], ENDS[3:]))
        in_line = relay if not self.plugged else ""
        inside = relay if self.plugged else ""
        sk.rung("power", "", self.start, f"F:{poles} {in_line}", fed, Band.POWER)
        sk.rung("line", "", fed, f"K:{poles} {inside}{first} {self._motor_ends(ENDS[:3])}", "", Band.POWER)
        sk.rung("triangle", "", fed, f"KD:{poles}", tails, Band.POWER)
        sk.rung("ends", "", tails, f"{second} {self._motor_ends(ENDS[3:])}", "", Band.POWER)
        sk.rung("star", "", tails, f"KS:{poles}", (sk.node("star"),) * 3, Band.POWER)

    def _trip(self, *, lit: bool) -> str:
        """The contact that opens the control path on a trip, or with ``lit`` the one that lights the lamp."""
        if self.load.start is Start.DRIVE:
            return "U:RC-RD" if lit else "U:RA-RB"
        if self.load.start is Start.SOFT:
            return "U:97-98" if lit else "U:95-96"
        if self.protector:
            return "F:21-22" if lit else "F:13-14"
        if not self.overload:
            return ""
        way = "<" if self.practice.overload_direction is OverloadDirection.DOWN else ""
        return f"{way}FO:97-98" if lit else f"{way}FO:95-96"

    def _ordered(self, *path: str) -> str:
        """The control path with the trip contact first or last, as practice has it."""
        trip = self._trip(lit=False)
        whole = [trip, *path] if self.practice.overload_contact is OverloadContact.FIRST else [*path, trip]
        return " ".join(part for part in whole if part)

    def _one_way(self, live: str, shown: str) -> None:
        sk, load = self.sk, self.load
        coil_lamp = load.run_lamp and self.practice.run_lamp is RunLamp.COIL
        let = interlock_path(sk, self.asked)
        command = command_path(sk, self.asked, "K:13-14")
        if self.controlled and load.start is Start.DRIVE:
            sk.rung("run", "run", sk.node("command"), "K:A1-A2", DC_BACK)
            if self.context.stops:
                sk.rung("enable", "stops with the emergency stop", live, "KE:A1-A2", self.context.back)
        else:
            if self.controlled:
                sk.rung("command", "command", sk.node("command"), "KA:A1-A2", DC_BACK)
                command = "KA:11-14"
            coil = "K:A1-A2"
            if coil_lamp:
                sk.lamp(DoorLamp("run", "runs", f"{sk.title} RUNS", "green"))
                coil = "(K:A1-A2 | H.run:X1-X2)"
            if load.start is Start.STAR_DELTA:
                coil = (
                    f"((KS:13-14 | K:43-44) {coil} | KT:17-18 KD:21-22 KS:A1-A2 | KT:17-28 KS:21-22 KD:A1-A2"
                    " | KT:A1-A2)"
                )
            sk.rung("run", self.asked.words, live, self._ordered(let, command, coil), self.context.back)
        if load.start in (Start.SOFT, Start.DRIVE):
            self._loop(live)
        if load.start is Start.DRIVE and self.controlled:
            sk.rung("reference", "speed reference", sk.node("ref"), "U:REF-COM", sk.node("ref.com"))
        if load.run_lamp and not coil_lamp:
            # The line contactor is in from the start in star on; both of its own contacts are taken.
            runs = {Start.STAR_DELTA: "K:83-84", Start.SOFT: "U:13-14"}.get(load.start, "K:43-44")
            if load.start is Start.DRIVE and self.controlled:
                runs = "U:RA-RB K:21-24"  # a drive that has tripped is not running, whatever the controller asks
            lamp(sk, DoorLamp("run", "runs", f"{sk.title} RUNS", "green"), shown, runs, role="lamp")

    def _loop(self, live: str) -> None:
        """What starts a soft starter or a drive: its own loop over the contact of the relay that is commanded."""
        sk, load = self.sk, self.load
        contact = "K:11-14" if self.controlled and load.start is Start.DRIVE else "K:33-34"
        if self.controlled and load.start is Start.DRIVE and self.context.stops:
            contact = f"{contact} KE:13-14"
        loop = f"@U:24 {contact} @U:R1" if load.start is Start.DRIVE else f"@U:S1 {contact} @U:S2"
        if load.start is Start.SOFT:
            sk.rung("feed", "soft starter", live, "U:A1-A2", self.context.back)
            if self.asked.bypass:
                sk.rung("bypass", "bypass at full voltage", live, "U:23-24 KB:A1-A2", self.context.back)
        sk.rung("loop", "run command", "", loop)

    def _both_ways(self, live: str, shown: str) -> None:
        """Both coils: each behind the other's opening contact, each hold re-joining ahead of it."""
        sk, load = self.sk, self.load
        let = interlock_path(sk, self.asked)
        stop = sk.door("S.stop", "stop_button", "stop", f"{sk.title} STOP")
        branches, lamps = [], []
        ways = (("K", "KR", "S.start", "run", "forward"), ("KR", "K", "S.reverse", "reverse.run", "reverse"))
        for n, (contactor, other, role, lit, way) in enumerate(ways, 1):
            sk.door(role, "start_button", way, f"{sk.title} {way.upper()}")
            path = [f"({role}:3-4 | {contactor}:13-14)"]
            if n <= len(self.asked.ends):
                path.append(sk.across(f"end{n}", "end_switch", self.asked.ends[n - 1].name))
            branches.append(" ".join([*path, f"{other}:21-22", f"{contactor}:A1-A2"]))
            lamps.append((lit, f"runs {way}", f"{sk.title} RUNS {way.upper()}", f"{contactor}:43-44", f"lamp{n}"))
        path_text = self._ordered(let, f"{stop}:1-2", f"({' | '.join(branches)})")
        sk.rung("run", "both ways, interlocked", live, path_text, self.context.back)
        if load.run_lamp:
            for lit, purpose, legend, contact, rung in lamps:
                lamp(sk, DoorLamp(lit, purpose, legend, "green"), shown, contact, role=rung)

    def _status(self) -> None:
        """A contact of each contactor to the controller: in means on, whatever the lamp says."""
        self.sk.rung("status", "status", DC_DEVICES, "K:53-54", self.sk.node("status"))
        if self.sk.has("KR"):
            self.sk.rung("status2", "status, reverse", DC_DEVICES, "KR:53-54", self.sk.node("status2"))

    def _earth(self) -> None:
        role = "M" if self.sk.has("M") else "E"
        if self.practice.earths is EarthScheme.BAR:
            self.sk.rung("earth", "PE", "PE", f"@{role}:PE", "", Band.POWER)
        else:
            self.sk.earth_of(role)
