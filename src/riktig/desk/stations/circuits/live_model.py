"""The live panel behind the screen: built from the job of now, kept over edits as far as its things remain."""

from riktig.core.ids import unit_of_element
from riktig.core.job import CircuitId, DeviceId, PinRef
from riktig.core.keys import ElementKey, Key, NetKey, PinKey
from riktig.core.schematic import CIRCUITS, NAMES, NETS, by_tags, elements_of
from riktig.core.simulation import (
    CONDUCTORS,
    MAINS,
    Carriage,
    Conductor,
    InjectedFault,
    Meter,
    Operator,
    Panel,
    Role,
    Tank,
    called,
    carriages_of,
    conductors_with_faults,
    go_on_from,
    inject_faults,
    meter_of,
    operate,
    operators_of,
    panel_of,
    path_words,
    roles_of,
    set_travel,
    tanks_of,
)
from riktig.core.sizing import SIZING
from riktig.desk.session import Session

__all__ = ["LiveModel"]

TRAVEL_S = 8.0
"""How long a carriage takes from end to end, s (chosen by us)."""


class LiveModel:
    """One panel with power on, and what was done to it."""

    def __init__(self, session: Session) -> None:
        self._session = session
        self._made_of: tuple[object, ...] = ()
        self.faults: tuple[InjectedFault, ...] = ()
        self.roles: dict[int, Role] = {}
        self.moved: frozenset[DeviceId] = frozenset()
        self.panel: Panel
        self.meter: Meter
        self.operators: tuple[Operator, ...] = ()
        self.tanks: tuple[Tank, ...] = ()
        self._heights: dict[CircuitId, dict[str, float]] = {}
        self.carriages: tuple[Carriage, ...] = ()
        self.wired = False

    def _float_heights(self) -> dict[CircuitId, dict[str, float]]:
        """Where floats hang by the Brief, by circuit."""
        job = self._session.job
        loads = {load.id: load for load in job.loads}
        return {c.id: loads[c.load].float_heights for c in job.circuits if c.load in loads}

    def follow(self, *, wires: bool) -> bool:
        """Makes the panel anew where the circuits are others; True when it did.

        Args:
            wires: Whether the wires are worked out, so that readings and faults know them.
        """
        evaluation = self._session.evaluation
        circuits, nets = evaluation.get(CIRCUITS), evaluation.get(NETS)
        conductors: tuple[Conductor, ...] = evaluation.get(CONDUCTORS) if wires or self.faults else ()
        made_of = (circuits, nets, conductors, self._session.job.supply, self.faults)
        if len(made_of) == len(self._made_of) and all(a is b for a, b in zip(made_of, self._made_of, strict=True)):
            return False
        before = self.panel if self._made_of else None
        spoilt = conductors_with_faults(conductors, self.faults) if conductors else ()
        parts = evaluation.get(SIZING).parts if conductors else None
        self.panel = panel_of(self._session.job, circuits, nets, spoilt, parts)
        self._made_of = made_of
        self.wired = bool(conductors)
        self.operators = operators_of(circuits)
        heights = self._float_heights()
        known = {t.circuit: t for t in self.tanks if self._heights.get(t.circuit) == heights.get(t.circuit)}
        self._heights = heights
        self.tanks = tuple(known.get(tank.circuit, tank) for tank in tanks_of(circuits, heights))
        carried = {carriage.circuit: carriage for carriage in self.carriages}
        self.carriages = tuple(carried.get(carriage.circuit, carriage) for carriage in carriages_of(circuits))
        if before is not None:
            go_on_from(self.panel, before)
        inject_faults(self.panel.operator_state, self.faults)
        self.panel.run_until_stable()
        self.meter = meter_of(self.panel)
        self.look()
        return True

    def rest(self) -> None:
        """Power on anew, with nothing touched and no fault put in."""
        self.faults = ()
        self._made_of = ()
        self.tanks = self.carriages = ()
        self.follow(wires=self.wired)

    def put(self, fault: InjectedFault) -> None:
        """Puts a fault in; the wires must be known."""
        self.faults = (*self.faults, fault)
        self.follow(wires=True)

    def mend(self) -> None:
        """Takes all faults out."""
        self.faults = ()
        self.follow(wires=self.wired)

    def do(self, operator: Operator, position: str) -> None:
        """Moves one thing."""
        first = len(self.panel.events)
        operate(self.panel, operator, position)
        self.look(first, operator.device)

    def wait(self, seconds: float) -> None:
        """Lets time pass; carriages travel with their motors."""
        first = len(self.panel.events)
        self.panel.wait(seconds)
        moved = []
        for carriage in self.carriages:
            by = {"forward": 1.0, "reverse": -1.0}.get(self.panel.turns(carriage.motor), 0.0) * seconds / TRAVEL_S
            moved.append(set_travel(self.panel, carriage, carriage.at + by) if by else carriage)
        self.carriages = tuple(moved)
        self.look(first)

    def look(self, since: int | None = None, device: DeviceId | None = None) -> None:
        """Takes in what is so now: what closed contacts mean, and what moved since an event."""
        self.roles = roles_of(self.panel)
        events = self.panel.events[since:] if since is not None else []
        moved = {event.device for event in events if event.device} | ({device} if device else set())
        self.moved = frozenset(device_id for device_id in moved if device_id)

    def pins_of(self, key: Key | None) -> tuple[PinRef, ...]:
        """The pins that a key on the sheet stands for: of an element both, of a net all."""
        circuits = self._session.evaluation.get(CIRCUITS)
        if isinstance(key, NetKey):
            return self.panel.nets.of_pin[key.net].pins
        for rung in circuits.rungs if isinstance(key, ElementKey) else ():
            for element in elements_of(rung.path):
                if ElementKey(element.id) == key:
                    device = self.panel.network.devices[element.poles[0].device]
                    pins = device.kind.unit(element.poles[0].unit).pins
                    return (device.pin(pins[0]), device.pin(pins[-1]))
        return (key.pin,) if isinstance(key, PinKey) else ()

    def path_of(self, key: ElementKey) -> str:
        """What a contact of the sheet means for what works now, with its name; empty for anything else."""
        pins = self.pins_of(key)
        unit = unit_of_element(key.element)
        words = path_words(self.panel, self.roles, pins[0].device, unit) if pins else ""
        return self.tagged(f"{{{pins[0].device}}} {unit}: {words}.") if words else ""

    def said_of(self, net: PinRef) -> str:
        """A potential in words: its number, its voltage, the source and the way from it."""
        panel = self.panel
        number = self._session.evaluation.get(NAMES).number.get(net, "")
        point = panel.network.point[net]
        known, pole = panel.volts.at[point], panel.source_of(point)
        volts = abs(complex(abs(known[0]), known[1])) if known else 0.0
        if pole is None:
            return f"{number}: {volts:.0f} V through a load." if volts > 1.0 else f"{number}: dead, nothing reaches it."
        whence = "the incoming supply" if pole.system == MAINS else f"{{{pole.system.partition(':')[0]}}}"
        way = (
            ", ".join(called(panel, device) for device in reversed(panel.connectivity.way(point)))
            or "nothing that opens"
        )
        what = "the return to" if pole.is_zero else f"{volts:.0f} V from"
        return self.tagged(f"{number}: {what} {pole.name} of {whence}, through {way}.")

    def tagged(self, text: str) -> str:
        """A text with ids in braces called by their tags."""
        return by_tags(text, self._session.evaluation.get(NAMES).tag)
