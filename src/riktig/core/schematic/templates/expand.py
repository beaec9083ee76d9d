"""From the job's circuits to all devices and rungs, with the builder's changes worked in."""

from dataclasses import dataclass, replace

from riktig.core.evaluation import Memory
from riktig.core.ids import is_circuit_id, read_contact
from riktig.core.job import (
    INCOMER_ID,
    Change,
    Circuit,
    CircuitId,
    CircuitInputs,
    Command,
    DeviceId,
    Distribution,
    Load,
    LoadKind,
    OwnStrip,
    PhaseNames,
    PinRef,
    Recipe,
    StripOrder,
    circuit_of,
)
from riktig.core.schematic.layout.power_sheets import is_bus
from riktig.core.schematic.model.elements import Band, Circuits, Clash, Device, Rung, elements_of, touched
from riktig.core.schematic.templates.circuit_builder import BuiltCircuit
from riktig.core.schematic.templates.circuit_templates import circuit_template_of
from riktig.core.schematic.templates.controls import ControllerPoint, controller
from riktig.core.schematic.templates.emergency import BEHIND_STOP
from riktig.core.schematic.templates.feed_loops import loops_fit
from riktig.core.schematic.templates.function_strips import strips_by_function
from riktig.core.schematic.templates.implied_circuits import all_circuits, controller_points, job_supply_context
from riktig.core.schematic.templates.inserts import changed, own_device, own_rung, said, still_used, with_unit, without
from riktig.core.schematic.templates.load_lines import lines_of
from riktig.core.schematic.templates.own_strips import with_own_strips
from riktig.core.schematic.templates.services import maintained, ventilation, way
from riktig.core.schematic.templates.spare_terminals import with_spare_terminals
from riktig.core.schematic.templates.starters import starter
from riktig.core.schematic.templates.supplies import (
    AHEAD,
    IncomerNeeds,
    control_supply,
    dc_supply,
    incomer,
    limited_supply,
    phase_monitor,
    through_feed,
)
from riktig.core.schematic.templates.supply_context import DC_BACK, SAFE, SYSTEMS

__all__ = ["expand", "whole_node"]

THICK_A = 40.0
"""Above this the neutral terminal takes no control conductor: each neutral gets a way of a bar (chosen by us)."""
THREE_LINES = {Recipe.REVERSING, Recipe.STAR_DELTA, Recipe.SOFT_START, Recipe.DRIVE}
"""Starters that only a three-phase motor has."""
STARTERS = {
    Recipe.DIRECT_ON_LINE,
    Recipe.REVERSING,
    Recipe.STAR_DELTA,
    Recipe.SOFT_START,
    Recipe.DRIVE,
    Recipe.CONTACTOR,
}


def whole_node(name: str, circuit: CircuitId) -> str:
    """The whole name of a node: a supply of the panel, one of a circuit by its id, or else the circuit's own.

    “main.L1”, “control.live” and “N” are the panel's, “c2.control” is that of circuit c2; “out” and “fed.L1” are the
    circuit's own, so that one written twice into a job joins nothing.
    """
    system, point, _ = name.partition(".")
    if name in ("N", "PE") or (point and (system in SYSTEMS or is_circuit_id(system))):
        return name
    return f"{circuit}.{name}"


def expand(inputs: CircuitInputs, doors: int = 1, memory: Memory | None = None) -> Circuits:
    """Devices and rungs of the whole job.

    A change that finds no hold becomes a ``Clash``. A circuit of which nothing changed is not made again.

    Args:
        inputs: What the circuits follow from.
        doors: Of the enclosure: each is bonded by itself.
        memory: What earlier expansions made of single circuits.
    """
    memory = memory or Memory()
    recent = memory.recent(Circuits, "circuits")
    return recent.get((*inputs.parts, doors), lambda: _Expansion(inputs, doors, memory).done())


@dataclass(slots=True)
class _Drawn:
    circuit: Circuit
    devices: list[Device]
    rungs: list[Rung]
    earths: list[PinRef]


@dataclass(frozen=True, slots=True)
class _Made:
    """What one circuit yields with its changes worked in; ``drawn`` is None where nothing can be drawn."""

    drawn: tuple[tuple[Device, ...], tuple[Rung, ...], tuple[PinRef, ...]] | None
    clashes: tuple[Clash, ...]
    undrawn: tuple[CircuitId, ...]


class _Expansion:
    def __init__(self, inputs: CircuitInputs, doors: int, memory: Memory) -> None:
        self.doors = doors
        self.kept = memory.memo(_Made, "circuit")
        self.circuits = all_circuits(inputs)
        self.ground = job_supply_context(inputs)
        self.loads = {load.id: load for load in inputs.loads}
        self.practice, self.signals = inputs.practice, inputs.signals
        self.lines = dict(lines_of(inputs.loads, inputs.supply, inputs.practice))
        self.strips = inputs.strips
        self.clashes: list[Clash] = []
        self.undrawn: list[CircuitId] = []
        stops = any(c.recipe is Recipe.EMERGENCY_STOP for c in self.circuits)
        self.behind = replace(self.ground, live=SAFE, stops=True) if stops else self.ground

    def done(self) -> Circuits:
        """Everything in order."""
        drawn: list[_Drawn] = []
        incoming: Circuit | None = None
        for circuit in self.circuits:
            if circuit.recipe is Recipe.INCOMER:
                incoming = circuit
                continue
            made = self.kept.get(circuit.id, self._reads(circuit), lambda c=circuit: self._built_alone(c))  # type: ignore[misc]
            self.clashes += made.clashes
            self.undrawn += made.undrawn
            if made.drawn is not None:
                drawn.append(_Drawn(circuit, *(list(part) for part in made.drawn)))  # type: ignore[arg-type]
        self._zero_bars(drawn)
        self._held_blocks(drawn)
        if incoming:
            drawn.insert(0, self._with_changes(incoming, self._incomer(incoming, drawn)))
        self._own_rungs(drawn)
        self._blocks(drawn)
        devices = tuple(device for drawn_circuit in drawn for device in drawn_circuit.devices)
        if self.practice.strip_order is StripOrder.BY_FUNCTION:
            devices = strips_by_function(devices)
        devices = with_spare_terminals(devices, self.practice.spare_terminals)
        devices, lost = with_own_strips(devices, self.strips)
        self.clashes += [self._lost_terminal(strip) for strip in lost]
        if self.practice.phase_names is not PhaseNames.L:
            of = self.practice.phase_names.of
            devices = tuple(replace(d, mark=of(d.mark)) if d.strip and d.mark != of(d.mark) else d for d in devices)
        return Circuits(
            devices,
            tuple(rung for drawn_circuit in drawn for rung in drawn_circuit.rungs),
            tuple(pin for drawn_circuit in drawn for pin in drawn_circuit.earths),
            tuple(self.clashes),
            tuple(self.undrawn),
            tuple((drawn_circuit.circuit.id, self._title(drawn_circuit.circuit)) for drawn_circuit in drawn),
        )

    def _lost_terminal(self, strip: OwnStrip) -> Clash:
        """Said of the circuit whose terminals the strip has, else of the supply."""
        owners = {circuit_of(terminal) for terminal in strip.terminals}
        circuit = next((c for c in reversed(self.circuits) if c.id in owners), None)
        of = f" with terminals of {self._title(circuit)}" if circuit else ""
        text = f"the order of a strip{of} names a terminal that is no longer there"
        return Clash(circuit.id if circuit else INCOMER_ID, text)

    def _zero_bars(self, drawn: list[_Drawn]) -> None:
        """As many 0 V bars as circuits return to: known when all are drawn."""
        returns = {rung.circuit for of_circuit in drawn for rung in of_circuit.rungs if DC_BACK in rung.end}
        for place, of_circuit in enumerate(drawn):
            if of_circuit.circuit.recipe is Recipe.DC_SUPPLY and len(returns) > 1:
                made = dc_supply(of_circuit.circuit, self.ground, len(returns))
                drawn[place] = self._with_changes(of_circuit.circuit, made)

    def _reads(self, circuit: Circuit) -> tuple[object, ...]:
        """Everything that decides what a circuit yields."""
        load = self.loads.get(circuit.load) if circuit.load else None
        others: tuple[object, ...] = ()
        if circuit.recipe is Recipe.CONTROLLER:
            others = (*self._commanded(), *self._wanted_points())
        elif load and load.neutral_of:
            others = (self._shared_neutral(load),)
        on = self.lines.get(circuit.load) if circuit.load else None
        return (circuit, load, self.ground, self.behind, self.signals, on, *others)

    def _built_alone(self, circuit: Circuit) -> _Made:
        """One circuit with its changes, apart from all others."""
        self.clashes, before = [], self.clashes
        self.undrawn, undrawn = [], self.undrawn
        made = self._build(circuit)
        done = self._with_changes(circuit, made) if made is not None else None
        drawn = (tuple(done.devices), tuple(done.rungs), tuple(done.earths)) if done else None
        result = _Made(drawn, tuple(self.clashes), tuple(self.undrawn))
        self.clashes, self.undrawn = before, undrawn
        return result

    def _commanded(self) -> list[tuple[CircuitId, Load]]:
        """The loads that the controller commands, with their circuits."""
        return [
            (c.id, self.loads[c.load])
            for c in self.circuits
            if c.load in self.loads and self.loads[c.load].command is Command.CONTROLLER
        ]

    def _wanted_points(self) -> list[ControllerPoint]:
        return controller_points(self.circuits, tuple(self.loads.values()))

    def _shared_neutral(self, load: Load) -> CircuitId | None:
        """The way whose neutral a load joins; None where it has its own."""
        sharing = (load, self.loads.get(load.neutral_of)) if load.neutral_of else ()
        if any(sharer is not None and sharer.kind is LoadKind.SOCKETS for sharer in sharing):
            return None  # a residual-current breaker sees only what returns through itself
        head = next((c for c in self.circuits if c.load == load.neutral_of and c.recipe is Recipe.WAY), None)
        return head.id if head and load.neutral_of and load.phases == 1 else None

    def _title(self, circuit: Circuit) -> str:
        name = self.loads[circuit.load].name if circuit.load in self.loads else circuit.title or circuit.recipe.value
        return {Recipe.CONTROLLER: "Controller"}.get(circuit.recipe, name[:1].upper() + name[1:])

    def _incomer(self, circuit: Circuit, drawn: list[_Drawn]) -> BuiltCircuit:
        """The incoming supply, with as many bars and blocks as what was drawn asks for."""
        rungs = [rung for drawn_circuit in drawn for rung in drawn_circuit.rungs]
        cables = sum("PE" in rung.end or ("PE" in rung.start and not any(elements_of(rung.path))) for rung in rungs)
        earths = sum(len(drawn_circuit.earths) for drawn_circuit in drawn) + cables
        back = [rung for rung in rungs if "N" in rung.end or ("N" in rung.start and rung.band is Band.POWER)]
        neutrals = len({(rung.circuit, rung.id if rung.band is Band.POWER else "") for rung in back})
        ways = any("N" in rung.start and rung.band is Band.POWER for rung in rungs) or any(
            "N" in rung.end and (rung.band is Band.POWER or is_bus(rung.start[0])) for rung in rungs
        )
        ahead = tuple(sorted({node for rung in rungs if len(rung.start) < 3 for node in rung.start if node in AHEAD}))
        of_line = self._taps("main.", drawn)
        thick = self.ground.supply.upstream_a > THICK_A
        needs = IncomerNeeds(earths, of_line, neutrals + 1 if ways or thick else 0, ahead, self.doors)
        return incomer(circuit, self.ground, needs)

    def _taps(self, lines: str, drawn: list[_Drawn]) -> int:
        """Feeds that distribution blocks are made for on the fullest of some lines; 0 where loops, a comb or a bar do.

        Args:
            lines: What the names of the lines begin with: “main.” behind the main switch, “held.” behind the main
                contactor.
            drawn: All circuits that hang on them.
        """
        rungs = [rung for drawn_circuit in drawn for rung in drawn_circuit.rungs]
        feeds = [sum(f"{lines}{line}" in rung.start for rung in rungs) for line in ("L1", "L2", "L3")]
        first = self._first_on(rungs, drawn, lines)
        starts = {rung.start for rung in rungs if any(node.startswith(lines) for node in rung.start)}
        how = self.practice.distribution
        on_one = how is Distribution.BAR or (how is Distribution.COMB and len(first) == len(starts) == 1)
        blocks = how is Distribution.BLOCKS or not (on_one or loops_fit(self.ground, self.loads.values(), first))
        return max(feeds) if blocks else 0

    def _held_blocks(self, drawn: list[_Drawn]) -> None:
        """Distribution blocks behind the main contactor: how many feeds they serve is known when all are drawn."""
        for place, of_circuit in enumerate(drawn):
            taps = self._taps("held.", drawn) if of_circuit.circuit.recipe is Recipe.PHASE_MONITOR else 0
            if taps > 1:
                made = phase_monitor(of_circuit.circuit, self.behind, taps)
                drawn[place] = self._with_changes(of_circuit.circuit, made)

    @staticmethod
    def _first_on(rungs: list[Rung], drawn: list[_Drawn], lines: str) -> set[str]:
        """The kinds of what each path from some lines meets first."""
        kinds = {device.id: device.kind_id for drawn_circuit in drawn for device in drawn_circuit.devices}
        paths = (rung.path for rung in rungs if any(node.startswith(lines) for node in rung.start))
        first = (next(iter(elements_of(path)), None) for path in paths)
        return {kinds[element.device] for element in first if element and element.device in kinds}

    def _build(self, circuit: Circuit) -> BuiltCircuit | None:
        """What the recipe of a circuit yields; None when it cannot be drawn."""
        by_brief = {
            Recipe.CONTROL_SUPPLY: control_supply,
            Recipe.DC_SUPPLY: dc_supply,
            Recipe.LIMITED_SUPPLY: limited_supply,
            Recipe.THROUGH_FEED: through_feed,
            Recipe.VENTILATION: ventilation,
        }
        if circuit.recipe in by_brief:
            return by_brief[circuit.recipe](circuit, self.ground)
        if circuit.recipe is Recipe.CONTROLLER:
            return controller(circuit, self.ground, self._commanded(), self.signals, self._wanted_points(), self.behind)
        if circuit.load is not None:
            return self._of_load(circuit)
        make = circuit_template_of(circuit.recipe).make
        if make is None:
            self.undrawn.append(circuit.id)
            return None
        return make(circuit, self.behind if circuit.recipe in BEHIND_STOP else self.ground)

    def _of_load(self, circuit: Circuit) -> BuiltCircuit | None:
        assert circuit.load is not None
        load = self.loads.get(circuit.load)
        if load is None:
            self.clashes.append(Clash(circuit.id, "its load is no longer in the Brief"))
            return None
        on = self.lines[load.id]
        if load.phases > self.ground.supply.system.lines:
            self.undrawn.append(circuit.id)
            return None
        if circuit.recipe is Recipe.MAINTAINED:
            return maintained(circuit, load, self.ground, on[0])
        if circuit.recipe is Recipe.WAY and (self.ground.neutral or load.phases > 1):
            return way(circuit, load, self.ground, on[0], self._shared_neutral(load))
        whole = load.phases == 3 and load.is_motor
        possible = whole or (circuit.recipe not in THREE_LINES and (self.ground.neutral or load.phases > 1))
        if circuit.recipe in STARTERS and possible:
            signals = tuple(s for s in self.signals if s.load == load.id)
            return starter(circuit, load, self.behind, signals, on)
        self.undrawn.append(circuit.id)
        return None

    def _with_changes(self, circuit: Circuit, made: BuiltCircuit) -> _Drawn:
        devices, rungs, earths = made
        before = {device_id for rung in rungs for device_id in touched(rung.path)}
        mark = max((int(d.mark) for d in devices if d.mark.isdecimal()), default=0)
        for change in circuit.changes:
            done = changed(circuit, change, devices, rungs, mark)
            if done is None:
                self.clashes.append(Clash(circuit.id, said(change), change))
            else:
                devices, rungs = done
        if circuit.changes:
            devices = still_used(before, devices, rungs)
        for written in circuit.devices:
            device = own_device(circuit, written)
            if isinstance(device, str):
                self.clashes.append(Clash(circuit.id, device))
            else:
                devices = [*devices, device]
        known = {device.id for device in devices}
        return _Drawn(circuit, devices, rungs, [pin for pin in earths if pin.device in known])

    def _own_rungs(self, drawn: list[_Drawn]) -> None:
        """The builder's own rungs: they may go through devices of any circuit."""
        devices: dict[str, Device] = {device.id: device for drawn_circuit in drawn for device in drawn_circuit.devices}
        for drawn_circuit in drawn:

            def node(name: str, cid: CircuitId = drawn_circuit.circuit.id) -> str:
                return whole_node(name, cid)

            for index in range(len(drawn_circuit.circuit.rungs)):
                made = own_rung(drawn_circuit.circuit, index, devices, node)
                if isinstance(made, str):
                    self.clashes.append(Clash(drawn_circuit.circuit.id, made))
                else:
                    drawn_circuit.rungs = [*drawn_circuit.rungs, made]

    def _blocks(self, drawn: list[_Drawn]) -> None:
        """Auxiliary blocks on devices whose own contacts do not suffice for what was put in elsewhere."""
        wanted: dict[DeviceId, set[str]] = {}
        for drawn_circuit in drawn:
            for change in drawn_circuit.circuit.changes:
                _note(change, wanted)
        if not wanted:
            return
        for drawn_circuit in drawn:
            drawn_circuit.devices = [
                _blocked(device, wanted[device.id]) if device.id in wanted else device
                for device in drawn_circuit.devices
            ]
        units = {
            (device.id, unit.name)
            for drawn_circuit in drawn
            for device in drawn_circuit.devices
            for unit in device.kind.units
        }
        for drawn_circuit in drawn:
            for index, rung in enumerate(drawn_circuit.rungs):
                lost = [e for e in elements_of(rung.path) if any((p.device, p.unit) not in units for p in e.poles)]
                for element in lost:
                    made_by = next(
                        (c for c in drawn_circuit.circuit.changes if c.to.replace(":", "/") == element.id), None
                    )
                    text = f"{element.id} is in “{rung.title}”, but there is no such contact any more"
                    self.clashes.append(Clash(drawn_circuit.circuit.id, text, made_by))
                    rung = replace(rung, path=without(rung.path, element.id))
                drawn_circuit.rungs = [*drawn_circuit.rungs[:index], rung, *drawn_circuit.rungs[index + 1 :]]


def _note(change: Change, wanted: dict[DeviceId, set[str]]) -> None:
    if change.what is not None and change.to:
        contact = read_contact(change.to)
        wanted.setdefault(contact.device, set()).add(contact.unit)


def _blocked(device: Device, units: set[str]) -> Device:
    for unit in sorted(units):
        device = with_unit(device, unit)
    return device
