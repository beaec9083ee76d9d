"""What the drawn circuits take: coils and lamps from their supplies, ways and sockets from the lines."""

from collections import defaultdict
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field

from riktig.core.catalogue import Behaviour, Can, Part, Unit, kind, parts_of
from riktig.core.job import IMPLIED, CircuitId, Recipe, Supply
from riktig.core.schematic import OUT_WHILE_RUNNING, Circuits, Device, Nets, SourceReach, source_reach
from riktig.core.sizing.starter import LoadProposal

__all__ = ["Burden", "DrawnLoad", "DrawnLoads", "drawn_loads"]

TAKES = {Behaviour.COIL, Behaviour.LAMP, Behaviour.LOAD, Behaviour.INPUT}


@dataclass(frozen=True, slots=True)
class DrawnLoad:
    """Something that no load of the Brief is, on lines of the supply: a way, a socket, the light. Current in A."""

    circuit: CircuitId
    name: str
    lines: tuple[int, ...]
    amps: float


@dataclass(frozen=True, slots=True)
class Burden:
    """What the coils, lamps and small devices of one circuit take from control, VA, and from 24 V, W."""

    circuit: CircuitId
    title: str
    held_va: float = 0.0
    pull_va: float = 0.0
    """With its largest coil pulling in."""
    dc_w: float = 0.0
    least_a: float = 0.0
    """What the fuse ahead of it must be at the least, A: fuses behind it open first."""

    def fuse_a(self, volts: float) -> float:
        """What a slow fuse ahead of the circuit must be for, A: it carries what is held and lets it pull in.

        Source:
            A quarter above what is held; four times its rating for a tenth of a second (IEC 60127-2, slow links,
            from memory).

        Args:
            volts: Of the control circuits, V.
        """
        return max(1.25 * self.held_va / volts, self.pull_va / volts / 4, self.least_a)


@dataclass(frozen=True, slots=True)
class DrawnLoads:
    """All that the drawn circuits take besides the loads of the Brief."""

    ways: tuple[DrawnLoad, ...] = ()
    burdens: tuple[Burden, ...] = ()
    dc_from_control: bool = False
    """Whether 24 V supplies hang on the control transformer."""
    dc_between_lines: bool = False
    """Whether one hangs between two lines."""


@dataclass(slots=True)
class _Sums:
    held: float = 0.0
    largest: float = 0.0
    """By how much the largest coil takes more while it pulls in, VA."""
    dc: float = 0.0


def drawn_loads(
    circuits: Circuits, nets: Nets, sized: Mapping[CircuitId, LoadProposal], supply: Supply, secondary_v: float
) -> DrawnLoads:
    """Everything that takes current and is no load of the Brief.

    Method:
        A coil or lamp counts what its part holds, in the circuits of loads by the part that was proposed. What has no
        figure, a way or a socket, counts what the breaker before it is asked for.

    Args:
        circuits: All devices and rungs of the job.
        nets: All nets of these circuits.
        sized: What is proposed for the load of each circuit that has one.
        supply: The supply of the job.
        secondary_v: What transformers in the panel give, V.
    """
    reach = source_reach(circuits, nets)
    direct = not any(device.circuit in (IMPLIED[Recipe.CONTROL_SUPPLY],) for device in circuits.devices)
    taker = _Taker(circuits, nets, sized, supply, reach, secondary_v, direct)
    for device in circuits.devices:
        for unit in device.kind.units:
            if unit.behaviour in TAKES:
                taker.add(device, unit)
    titles = dict(circuits.titles)
    least = {d.circuit: d.least_a for d in circuits.devices if d.kind.can(Can.GUARDS_CONTROL) and d.least_a}
    burdens = tuple(
        Burden(
            circuit,
            titles.get(circuit, ""),
            round(sums.held, 2),
            round(sums.held + sums.largest, 2),
            round(sums.dc, 2),
            least.get(circuit, 0.0),
        )
        for circuit, sums in taker.sums.items()
    )
    return DrawnLoads(tuple(taker.ways), burdens, taker.dc_from_control, taker.dc_between_lines)


@dataclass(slots=True)
class _Taker:
    circuits: Circuits
    nets: Nets
    sized: Mapping[CircuitId, LoadProposal]
    supply: Supply
    reach: SourceReach
    secondary_v: float
    direct: bool
    """Whether control is taken from a line and the neutral."""
    sums: dict[CircuitId, _Sums] = field(default_factory=lambda: defaultdict(_Sums))
    ways: list[DrawnLoad] = field(default_factory=list)
    dc_from_control: bool = False
    dc_between_lines: bool = False

    def add(self, device: Device, unit: Unit) -> None:
        """Counts one consumer where its current comes from."""
        nets = [net.id for name in unit.pins if (net := self.nets.of_pin.get(device.pin(name)))]
        if len(nets) < 2:
            return
        source = next((net_source for net in nets if (net_source := self.reach.source_of(net))), None)
        lines = tuple(dict.fromkeys(line for net in nets for line in self.reach.lines_of(net)))
        if source is None and device.kind.can(Can.MAKES_DC) and len(lines) > 1:
            self.dc_between_lines = True
        if source is not None:
            self._on_source(device, unit, self.circuits.by_id[source])
        elif lines and self.direct and unit.behaviour in (Behaviour.COIL, Behaviour.LAMP):
            self._on_control(device, unit)
        elif lines and device.circuit not in self.sized and not device.kind.can(Can.MAKES_DC):
            self.ways.append(
                DrawnLoad(device.circuit, device.purpose or device.kind.name, lines, self._amps(device, unit))
            )

    def _on_source(self, device: Device, unit: Unit, source: Device) -> None:
        by_dc = source.kind.can(Can.MAKES_DC)
        if source.circuit not in (IMPLIED[Recipe.CONTROL_SUPPLY], IMPLIED[Recipe.DC_SUPPLY]):
            self._on_own_transformer(device, unit, source)
        elif device.kind.can(Can.MAKES_DC):
            self.dc_from_control = self.dc_from_control or not by_dc
        elif by_dc and device.kind.draw is not None and device.kind.draw.dc:
            self.sums[device.circuit].dc += device.kind.draw.va
        else:
            self._on_control(device, unit)

    def _on_own_transformer(self, device: Device, unit: Unit, source: Device) -> None:
        """What hangs on a transformer of its own takes its power from the lines that feed that."""
        primary = [self.nets.of_pin.get(device_pin) for device_pin in map(source.pin, ("1", "3"))]
        lines = tuple(dict.fromkeys(line for net in primary if net for line in self.reach.lines_of(net.id)))
        if source.kind.can(Can.TRANSFORMS) and lines and device.circuit not in self.sized:
            amps = self._amps(device, unit) * self.secondary_v / self.supply.voltage_v
            self.ways.append(DrawnLoad(device.circuit, device.purpose or device.kind.name, lines, round(amps, 3)))

    def _on_control(self, device: Device, unit: Unit) -> None:
        if device.role in OUT_WHILE_RUNNING:
            return
        sums, part = self.sums[device.circuit], self._part(device)
        draw = device.kind.draw
        if unit.behaviour is Behaviour.COIL:
            held_va = part.coil_va_hold or (draw.va if draw else 0.0)
            sums.held += held_va
            sums.largest = max(sums.largest, part.coil_va_in - held_va)
        elif unit.behaviour is not Behaviour.INPUT:
            sums.held += draw.va if draw else self._amps(device, unit) * self.supply.voltage_to_neutral_v

    def _amps(self, device: Device, unit: Unit) -> float:
        """What a load on the lines takes, A."""
        draw = device.kind.draw
        if draw is not None:
            return round(draw.va / self.supply.voltage_to_neutral_v, 3)
        unit_nets = {net.id for name in unit.pins if (net := self.nets.of_pin.get(device.pin(name)))}
        for guard in self.circuits.devices:
            if guard.circuit == device.circuit and guard.kind.is_protective:
                pins = (
                    pin for name in (p.name for p in guard.kind.pins) if (pin := guard.pin(name)) in self.nets.of_pin
                )
                if any(self.nets.of_pin[pin].id in unit_nets and not self.nets.of_pin[pin].is_shared for pin in pins):
                    return max(guard.least_a, parts_of(guard.kind_id)[0].rated_a)
        return 0.0

    def _part(self, device: Device) -> Part:
        proposed = self.sized.get(device.circuit)
        if proposed and device.kind.sized_as:
            chosen: Iterable[Part] = (
                c.part for c in proposed.chosen if c.part.kind.shares_parts_with(kind(device.kind_id))
            )
            return next(iter(chosen), parts_of(device.kind_id)[0])
        offered = parts_of(device.kind_id)
        return next((p for p in offered if p.rating >= device.least_a), offered[-1])
