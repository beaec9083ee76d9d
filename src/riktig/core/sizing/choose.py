"""Which part every device is: by current from the published tables, each with its why."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass

from riktig.core.catalogue import Part, part, parts_of
from riktig.core.circuit import Circuits, Device, NetClass
from riktig.core.job import Circuit as JobCircuit
from riktig.core.job import CircuitId, DeviceId, Enclosure, Load, LoadId, Recipe, Supply
from riktig.core.sizing.sections import Section, smallest_section
from riktig.core.standards import (
    COMMON_PRACTICE,
    Figure,
    Why,
    bonding_section,
    motor_current,
    next_section,
    protective_section,
)

__all__ = ["LoadSize", "Sizing", "size_all"]

BREAKER_MARGIN = 1.25
"""Breaker rating over motor current (common practice, no source): it shall not trip on start."""
STARTING_MULTIPLE = 7.2
"""Starting current over rated current (the test multiple of IEC 60947-4-1 Table 2, from memory)."""
TYPE_D_TRIP = 10
"""A type D breaker may trip at once from ten times its rating (IEC 60898-1, from memory)."""
CONTROL_BREAKER_A = 2.0
"""Control breaker: the smallest made carries any one starter's coil and lamps."""


@dataclass(frozen=True, slots=True)
class LoadSize:
    """What was sized for one load. Currents in A."""

    load: LoadId
    circuit: CircuitId
    current: Figure
    setting_a: float
    section: Section
    control: Section
    pe_mm2: float


@dataclass(frozen=True, slots=True)
class Sizing:
    """The part and the reasons of every device, the sections, and the panel's totals, A."""

    parts: dict[DeviceId, Part]
    whys: dict[DeviceId, tuple[Why, ...]]
    loads: tuple[LoadSize, ...]
    feeder: Section
    feeder_pe_mm2: float
    door_bond_mm2: float
    full_load_a: float
    largest_a: float
    shortfalls: tuple[tuple[DeviceId, str], ...]
    """Devices for which the catalogue has nothing large enough: the largest stands in."""

    def load_of(self, circuit: CircuitId) -> LoadSize | None:
        """What was sized for the load of a circuit."""
        return next((one for one in self.loads if one.circuit == circuit), None)


def size_all(
    circuits: Circuits,
    job_circuits: tuple[JobCircuit, ...],
    loads: tuple[Load, ...],
    supply: Supply,
    enclosure: Enclosure,
) -> Sizing:
    """Sizes everything. Nothing is refused: what does not suffice is listed in ``shortfalls``."""
    by_id = {load.id: load for load in loads}
    sized = [
        _size_load(circuit.id, by_id[circuit.load], supply, enclosure, len(loads))
        for circuit in job_circuits
        if circuit.recipe is Recipe.DIRECT_ON_LINE and circuit.load in by_id
    ]
    currents = [one.current.value for one in sized]
    full_load = round(sum(currents) + 0.1 * len(sized), 1)
    feeder = smallest_section(
        supply.upstream_a,
        "the rating of the protection upstream",
        ambient_c=enclosure.ambient_c,
        circuits=1,
        net_class=NetClass.POWER,
    )
    feeder_pe = next_section(protective_section(feeder.mm2).value)
    bond = bonding_section(supply.upstream_a, feeder.mm2).value
    chooser = _Chooser(supply, full_load, feeder, {one.circuit: one for one in sized})
    parts: dict[DeviceId, Part] = {}
    whys: dict[DeviceId, tuple[Why, ...]] = {}
    for device in circuits.devices:
        parts[device.id], whys[device.id] = chooser.part_for(device)
    return Sizing(
        parts,
        whys,
        tuple(sized),
        feeder,
        feeder_pe,
        bond,
        full_load,
        max(currents, default=0.0),
        tuple(chooser.shortfalls),
    )


def _size_load(circuit: CircuitId, load: Load, supply: Supply, enclosure: Enclosure, loads: int) -> LoadSize:
    if load.nameplate_a is not None:
        current = Figure(load.nameplate_a, "the motor's nameplate", "sure")
    else:
        current = motor_current(load.kw, supply.voltage_v)
    breaker = _first(parts_of("motor_breaker"), lambda p: p.rated_a >= BREAKER_MARGIN * current.value)[0]
    section = smallest_section(
        max(breaker.rated_a, current.value),
        "the motor breaker ahead of it",
        ambient_c=enclosure.ambient_c,
        circuits=loads,
        net_class=NetClass.POWER,
    )
    control = smallest_section(
        CONTROL_BREAKER_A,
        "the control breaker ahead of it",
        ambient_c=enclosure.ambient_c,
        circuits=1,
        net_class=NetClass.CONTROL,
    )
    pe_mm2 = next_section(protective_section(section.mm2).value)
    return LoadSize(load.id, circuit, current, current.value, section, control, pe_mm2)


def _first(offered: Iterable[Part], fits: Callable[[Part], bool]) -> tuple[Part, bool]:
    """The first part that fits, or the last offered and False."""
    last: Part | None = None
    for last in offered:
        if fits(last):
            return last, True
    if last is None:
        raise LookupError("the catalogue has no part of this kind")
    return last, False


class _Chooser:
    def __init__(self, supply: Supply, full_load: float, feeder: Section, sized: dict[CircuitId, LoadSize]) -> None:
        self._supply, self._full_load = supply, full_load
        self._feeder, self._sized = feeder, sized
        self.shortfalls: list[tuple[DeviceId, str]] = []

    def part_for(self, device: Device) -> tuple[Part, tuple[Why, ...]]:
        size = self._sized.get(device.circuit)
        match device.kind_id:
            case "isolator":
                return self._isolator(device)
            case "motor_breaker" if size:
                return self._breaker(device, size)
            case "contactor" if size:
                return self._contactor(device, size)
            case "overload" if size:
                return self._overload(device, size)
            case "control_breaker":
                return self._control_breaker(device)
            case "terminal" | "neutral_terminal" | "earth_terminal":
                mm2 = size.section.mm2 if size else self._feeder.mm2
                return self._clamp(device, mm2)
            case "earth_bar" | "stud":
                return self._clamp(device, self._feeder.mm2)
            case "lamp":
                ref = "LP-GN" if device.id.endswith("H.run") else "LP-YE"
                return part(ref), (_LAMP_WHY[ref],)
        return parts_of(device.kind_id)[0], ()

    def _pick(self, device: Device, fits: Callable[[Part], bool], need: str) -> Part:
        found, enough = _first(parts_of(device.kind_id), fits)
        if not enough:
            self.shortfalls.append((device.id, need))
        return found

    def _isolator(self, device: Device) -> tuple[Part, tuple[Why, ...]]:
        need = max(self._supply.upstream_a, self._full_load)
        found = self._pick(device, lambda p: p.rated_a >= need, f"an isolator of {need:g} A")
        return found, (
            Why(
                f"Why {found.rated_a:g} A",
                "The main switch carries what the protection upstream lets through, and the full load of the panel.",
                (
                    f"upstream {self._supply.upstream_a:g} A, full load {self._full_load:g} A",
                    f"next made size {found.rated_a:g} A",
                ),
                "IEC 60204-1 5.3, from memory",
            ),
        )

    def _breaker(self, device: Device, size: LoadSize) -> tuple[Part, tuple[Why, ...]]:
        amps = size.current.value
        need = BREAKER_MARGIN * amps
        found = self._pick(device, lambda p: p.rated_a >= need, f"a breaker of {need:.1f} A")
        return found, (
            Why(
                f"Why {found.rated_a:g} A type D",
                "It guards against short circuit and must let the motor start; the overload "
                "behind it guards the motor.",
                (
                    f"{BREAKER_MARGIN:g} × {amps:g} A = {need:.1f} A, next {found.rated_a:g} A",
                    f"trips at once from {TYPE_D_TRIP} × {found.rated_a:g} = "
                    f"{TYPE_D_TRIP * found.rated_a:g} A; the motor starts with about "
                    f"{STARTING_MULTIPLE} × {amps:g} = {STARTING_MULTIPLE * amps:.0f} A",
                ),
                "ratings and type: IEC 60898-1, from memory; margin: " + COMMON_PRACTICE,
            ),
        )

    def _contactor(self, device: Device, size: LoadSize) -> tuple[Part, tuple[Why, ...]]:
        amps = size.current.value
        found = self._pick(device, lambda p: p.rated_a >= amps, f"a contactor of {amps:g} A AC-3")
        return found, (
            Why(
                f"Why {found.rated_a:g} A AC-3",
                "A motor switched on at rest and off while running is duty AC-3; the contactor "
                "carries the motor current.",
                (f"{amps:g} A, next made size {found.rated_a:g} A AC-3",),
                "utilization category: IEC 60947-4-1 Table 1, from memory",
            ),
            motor_why(size),
        )

    def _overload(self, device: Device, size: LoadSize) -> tuple[Part, tuple[Why, ...]]:
        amps = size.setting_a
        ranges = [p for p in parts_of("overload") if p.min_a <= amps <= p.max_a]
        if ranges:
            found = max(ranges, key=lambda p: min(amps - p.min_a, p.max_a - amps) / p.max_a)
        else:
            found = self._pick(
                device, lambda p: p.min_a <= amps <= p.max_a, f"an overload that can be set to {amps:g} A"
            )
        return found, (
            Why(
                f"Why set to {amps:g} A",
                "The dial is set to the motor's full-load current, which must lie inside the range of the dial.",
                (f"{found.min_a:g} A ≤ {amps:g} A ≤ {found.max_a:g} A",),
                f"{size.current.source}; setting: IEC 60204-1 7.3, from memory",
                size.current.confidence,
            ),
            motor_why(size),
        )

    def _control_breaker(self, device: Device) -> tuple[Part, tuple[Why, ...]]:
        found = self._pick(device, lambda p: p.rated_a >= CONTROL_BREAKER_A, "a control breaker")
        pull = part("CON-9").coil_va_in / self._supply.voltage_to_neutral_v
        return found, (
            Why(
                f"Why {found.rated_a:g} A",
                "One coil pulling in and two lamps take well under the smallest breaker; the "
                "smallest gives the thin control wire the best protection.",
                (f"{part('CON-9').coil_va_in:g} VA / {self._supply.voltage_to_neutral_v:g} V = {pull:.2f} A",),
                COMMON_PRACTICE,
            ),
        )

    def _clamp(self, device: Device, mm2: float) -> tuple[Part, tuple[Why, ...]]:
        found = self._pick(device, lambda p: p.power.max_mm2 >= mm2, f"a clamp for {mm2:g} mm²")
        if device.kind_id == "stud":
            return found, ()
        why = Why(
            f"Why {found.power.max_mm2:g} mm²",
            "The clamp takes the conductor of its circuit.",
            (f"{found.power.min_mm2:g} ≤ {mm2:g} ≤ {found.power.max_mm2:g} mm²",),
            "part data",
        )
        return found, (why,)


def motor_why(size: LoadSize) -> Why:
    """Why the motor current is what it is."""
    return Why(
        f"Why {size.current.value:g} A",
        "The rated current of the motor at the supply's voltage. The nameplate wins once it is "
        "known: give it in the Brief.",
        (),
        size.current.source + ("" if "nameplate" in size.current.source else ", from memory"),
        size.current.confidence,
    )


_LAMP_WHY = {
    "LP-GN": Why(
        "Why green",
        "Green says that the condition is normal: the motor runs.",
        (),
        "IEC 60204-1:2016 Table 4, from memory",
    ),
    "LP-YE": Why(
        "Why yellow",
        "Yellow says that the condition is abnormal: the overload tripped. Red is kept for danger.",
        (),
        "IEC 60204-1:2016 Table 4, from memory",
    ),
}
