"""A recipe as it is written down: devices by their role, rungs as paths in words."""

from dataclasses import dataclass, replace
from typing import TypedDict, Unpack

from riktig.core.catalogue import kind as kind_of
from riktig.core.job import CircuitId, ControlSupply, DeviceId, PinRef, Source
from riktig.core.schematic.model.elements import Band, Device, Rung, Zone
from riktig.core.schematic.model.notation import parse_path
from riktig.core.schematic.templates.supply_context import LAMP_TEST, LINES, SupplyContext

__all__ = ["LINES", "BuiltCircuit", "CircuitBuilder"]

BuiltCircuit = tuple[list[Device], list[Rung], list[PinRef]]


@dataclass(frozen=True, slots=True)
class DoorLamp:
    """A lamp on the door: its device is ``H.`` and its name."""

    name: str
    purpose: str
    legend: str
    colour: str


class DeviceDetails(TypedDict, total=False):
    """What may be said of a device beside its role, kind, place and purpose."""

    strip: str
    """The terminal strip of the circuit that it stands in."""
    mark: str
    """The marking of a terminal."""
    legend: str
    """What its legend plate says."""
    least_a: float
    """What it must carry at least, A."""
    under: str
    """The role of the device that it plugs into."""
    colour: str
    """Of its lens or head."""
    volts: float
    """What a supply from elsewhere gives, V."""
    direct: bool
    """Whether that is direct current."""
    protected_a: float
    """What protects it where it comes from, A."""
    tied: DeviceId | None
    """The breaker of another circuit whose handle moves this one's too."""


class CircuitBuilder:
    """Collects the devices, rungs and bonds of one circuit in the order they are given."""

    def __init__(self, cid: CircuitId, name: str, context: SupplyContext) -> None:
        self.cid, self.name, self.context = cid, name, context
        self.title = name[:1].upper() + name[1:]
        self._devices: dict[str, Device] = {}
        self._field: list[str] = []
        self._rungs: list[Rung] = []
        self._earths: list[PinRef] = []
        self._marks = 0

    def node(self, name: str) -> str:
        """A named node of this circuit alone."""
        return f"{self.cid}.{name}"

    def plate(self, role: str, kind: str, purpose: str = "", *, least_a: float = 0.0, under: str = "") -> str:
        """A device on the plate; gives its role back.

        Behind a small source a control circuit is guarded by a fuse: a breaker would not open before the source's own.
        """
        if kind == "control_breaker" and self.context.control is not ControlSupply.DIRECT and not least_a:
            kind = "control_fuse"
        return self.add(role, kind, Zone.PLATE, purpose, least_a=least_a, under=under)

    def door(self, role: str, kind: str, purpose: str, legend: str, *, colour: str = "") -> str:
        """A device on the door with the text of its legend plate."""
        return self.add(role, kind, Zone.DOOR, purpose, legend=legend, colour=colour)

    def lamp(self, lit: DoorLamp, back: str = "", *, role: str = "") -> None:
        """A lamp on the door; where all lamps can be tested it has an input of its own for that.

        A lamp on another supply than the test has none: its return would join the two.

        Args:
            lit: The lamp.
            back: What it returns to, where that is not the return of control.
            role: Its role in the circuit; empty: by its name.
        """
        role = role or f"H.{lit.name}"
        if not self.context.lamp_test or (back and back != self.context.back):
            self.door(role, "lamp", lit.purpose, lit.legend, colour=lit.colour)
            return
        self.door(role, "test_lamp", lit.purpose, lit.legend, colour=lit.colour)
        self.rung(f"{lit.name}.test", f"{lit.purpose}, tested", LAMP_TEST, f"{role}:X3-X2", self.context.back)

    def outside(self, role: str, kind: str, purpose: str = "", *, source: Source | None = None) -> str:
        """A device in the field without terminals of its own; of a supply from elsewhere, which one it is."""
        if source is None:
            return self.add(role, kind, Zone.FIELD, purpose)
        volts, direct, amps = source.voltage_v, source.is_direct, source.protected_a
        return self.add(role, kind, Zone.FIELD, purpose, volts=volts, direct=direct, protected_a=amps)

    def terminal(self, role: str, mark: str, purpose: str = "", kind: str = "terminal") -> str:
        """A terminal of the circuit's strip."""
        return self.add(role, kind, Zone.PLATE, purpose, strip="X", mark=mark)

    def across(self, role: str, kind: str, purpose: str, *, unit: str = "", terminals: str = "terminal") -> str:
        """A device in the field between two numbered terminals: the text of that stretch of path."""
        self.add(role, kind, Zone.FIELD, purpose)
        ends = []
        for end in "ab":
            self._marks += 1
            ends.append(self.terminal(f"{role}.X{end}", str(self._marks), purpose, terminals))
        inner = f"{role}:{unit}" if unit else role
        return f"{ends[0]} {inner} <{ends[1]}"

    def rung(
        self, role: str, what: str, start: str | tuple[str, ...], path: str, end: str | tuple[str, ...] = "",
        band: Band = Band.CONTROL,
    ) -> None:  # fmt: skip
        """A rung from ``start`` to ``end`` along a path in words."""
        title = ": ".join(part for part in (self.title, what) if part)
        self._rungs.append(
            Rung(f"{self.cid}.{role}", self.cid, band, title, _nodes(start), _nodes(end), parse_path(path, self._find))
        )

    def tap(self, breaker: str = "FC", guard: str = "F", name: str = "") -> str:
        """The feed of the circuit's control paths, as the job's practice has it; gives the node behind it."""
        live = self.node(name or "control")
        if self.context.live:
            self.rung("tap", "", self.context.live, f"{breaker}:1-2", live, Band.TAP)
        elif self.context.practice.control_tap.ahead or guard not in self._devices:
            self.rung("tap", "", LINES[0], f"{breaker}:1-2", live, Band.TAP)
        else:
            self.rung("tap", "", "", f"@{guard}:2 {breaker}:1-2", live, Band.TAP)
        return live

    def bond(self, role: str, pin: str) -> None:
        """A pin to be bonded to the earth bar."""
        self._earths.append(self._devices[role].pin(pin))

    def earth_of(self, role: str, pin: str = "PE", *, by: str = "X.PE", mark: str = "PE") -> None:
        """The protective conductor of a device in the field, by a terminal of the circuit's strip with its mark."""
        self.terminal(by, mark, f"{self.name}, PE", "earth_terminal")
        self.rung("earth" if mark == "PE" else f"earth{mark}", "PE", "PE", f"{by} @{role}:{pin}", "", Band.POWER)
        self.bond(by, "i")

    def done(self, *, as_given: bool = False) -> BuiltCircuit:
        """Everything, plate and door first, then terminals, then the field; or in the order given."""
        if as_given:
            return list(self._devices.values()), self._rungs, self._earths
        order = {Zone.PLATE: 0, Zone.DOOR: 0, Zone.FIELD: 2}
        devices = sorted(self._devices.values(), key=lambda d: 1 if d.strip else order[d.zone])
        return devices, self._rungs, self._earths

    def has(self, role: str) -> bool:
        """Whether there is a device with that role."""
        return role in self._devices

    def add(self, role: str, kind: str, zone: Zone, purpose: str, **details: Unpack[DeviceDetails]) -> str:
        """A device with everything said of it; gives its role back.

        Args:
            role: The name of the device within its circuit.
            kind: The id of its kind.
            zone: Where it is.
            purpose: What it is for, without the name of its circuit.
            details: What else is said of it.

        Raises:
            ValueError: it cannot be plugged under that device.
        """
        wanted, under, strip = kind_of(kind).plugs_onto, details.get("under", ""), details.get("strip", "")
        if under and not (wanted and self._devices[under].kind.can(wanted)):
            raise ValueError(f"{kind} does not plug under {self._devices[under].kind_id}")
        text = ", ".join(part for part in (self.name, purpose) if part)
        above = self._devices[under].id if under else None
        group = f"{self.cid}.{strip}" if strip else ""
        mark, legend = details.get("mark", ""), details.get("legend", "")
        made = Device(DeviceId(f"{self.cid}.{role}"), self.cid, kind, zone, text, group, mark, above, legend)
        self._devices[role] = replace(
            made,
            least_a=details.get("least_a", 0.0),
            colour=details.get("colour", ""),
            volts=details.get("volts", 0.0),
            direct=details.get("direct", False),
            protected_a=details.get("protected_a", 0.0),
            tied=details.get("tied"),
        )
        return role

    def _find(self, role: str) -> Device | None:
        return self._devices.get(role)


def _nodes(given: str | tuple[str, ...]) -> tuple[str, ...]:
    if isinstance(given, tuple):
        return given
    return (given,) if given else ()
