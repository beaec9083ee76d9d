"""The test plan of the dead panel: which two points, in which switch state, what should be read."""

from collections import defaultdict
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from enum import Enum
from itertools import combinations

import numpy as np

from riktig.core.catalogue import Behaviour, Can
from riktig.core.ids import device_id
from riktig.core.job import INCOMER_ID, DeviceId, PinRef
from riktig.core.schematic import INCOMING_EARTH, Circuits, Device, Names, Net, Nets
from riktig.core.simulation import Rating
from riktig.core.sizing import Sizing
from riktig.core.standards import wire_resistance
from riktig.core.wiring import Wire, Wiring

__all__ = ["Expected", "ProvingStage", "Test", "TestPlan", "TestPoint", "plan_tests"]

LEADS_OHM = 0.2
"""Test leads and probe contact (common practice, no source)."""
CLOSED_BELOW_OHM = 0.5
"""A sound wire reads less, leads included (common practice, no source)."""
CATALOGUE_V = 230.0
"""The voltage of the coils whose resistance the catalogue has, V."""
OPEN_ABOVE_OHM = 1_000_000.0
"""No continuity: above this (IEC 60204-1 18.3 asks 1 MΩ at 500 V, from memory)."""
BAND = (0.6, 1.4)
"""A coil or lamp in the way reads within these shares of its data (chosen by us)."""


class ProvingStage(Enum):
    """Stages of the proof in order; the last two are live and stay shut."""

    BONDS = "Bonds"
    WIRES = "Wire by wire"
    SHORTS = "No shorts"
    ENERGISE = "Energise"
    FUNCTION = "Function"

    @property
    def live(self) -> bool:
        """Whether the panel is under voltage in this stage."""
        return self in (ProvingStage.ENERGISE, ProvingStage.FUNCTION)


@dataclass(frozen=True, slots=True)
class TestPoint:
    """Where to touch: the pin, how it is called, and where it is in words."""

    __test__ = False

    pin: PinRef
    label: str
    place: str


@dataclass(frozen=True, slots=True)
class Expected:
    """What should be read: a range in ohm, and why."""

    low: float
    high: float
    why: str

    @property
    def text(self) -> str:
        """“below 0.5 Ω”, “above 1 MΩ” or “340 to 780 Ω”."""
        if self.high == float("inf"):
            return f"above {self.low / 1e6:g} MΩ"
        if self.low == 0:
            return f"below {self.high:.1f} Ω"
        return f"{self.low:.0f} to {self.high:.0f} Ω"

    def passes(self, ohm: float) -> bool:
        """Whether a reading is as expected."""
        return self.low <= ohm <= self.high


@dataclass(frozen=True, slots=True)
class Test:
    """One test: two points, the switch positions, the expectation, and what it is true of.

    ``switch_state`` says the positions by the devices' ids, which stay when a tag changes.
    """

    __test__ = False

    key: str
    stage: ProvingStage
    title: str
    black: TestPoint
    red: TestPoint
    switches: str
    expected: Expected
    true_of: str
    wire: str = ""
    switch_state: str = ""


@dataclass(frozen=True, slots=True)
class TestPlan:
    """All tests, in order."""

    __test__ = False

    tests: tuple[Test, ...]

    def of(self, stage: ProvingStage) -> tuple[Test, ...]:
        """The tests of one stage."""
        return tuple(test for test in self.tests if test.stage is stage)


def plan_tests(
    circuits: Circuits,
    nets: Nets,
    names: Names,
    sizing: Sizing,
    wiring: Wiring,
    ratings: Mapping[DeviceId, tuple[Rating, ...]],
) -> TestPlan:
    """Bonds, then every wire end to end, then no continuity between potentials.

    Method:
        A wire reads its own resistance (IEC 60228 class 5, from memory) and the leads. Pairs of
        potentials read open, unless at rest a coil or lamp lies between them: then its resistance.

    Args:
        circuits: All devices and rungs of the job.
        nets: All nets of these circuits.
        names: Tags of devices and numbers of nets.
        sizing: The part of every device.
        wiring: All wires, in the order of their batches.
        ratings: For which voltages coils and lamps are bought.
    """
    planner = _Planner(circuits, nets, names, sizing, wiring, ratings)
    return TestPlan((*planner.bonds(), *planner.wires(), *planner.jumpers(), *planner.links(), *planner.shorts()))


class _Planner:
    def __init__(
        self,
        circuits: Circuits,
        nets: Nets,
        names: Names,
        sizing: Sizing,
        wiring: Wiring,
        ratings: Mapping[DeviceId, tuple[Rating, ...]],
    ) -> None:
        self._circuits, self._nets, self._names = circuits, nets, names
        self._sizing, self._wiring, self._ratings = sizing, wiring, ratings
        self._devices = circuits.by_id
        self._at_rest = self._rest_groups()
        self._consumers = self._take_current()
        self._signs: dict[PinRef, list[str]] = defaultdict(list)
        for wire in wiring.wires:
            self._signs[wire.net].append(_sign(wire))
        ids = " ".join(d.id for d in circuits.devices if d.kind.is_protective or d.kind.can(Can.ISOLATES))
        self._off_ids, self._on_ids = f"off {ids}", f"on {ids}"
        breakers = [names.tag[d.id] for d in circuits.devices if d.kind.is_protective or d.kind.can(Can.ISOLATES)]
        self._off = f"{', '.join(breakers)} off. Supply and field cables not connected."
        self._on = f"{', '.join(breakers)} on, nothing pressed. Supply and field cables off."

    def _point(self, pin: PinRef) -> TestPoint:
        device, marking = self._devices[pin.device], pin.marking
        label = f"{self._names.tag[device.id]}:{device.mark if device.strip else marking}"
        side = device.kind.pin(marking).side.value
        where = "door" if device.zone.value == "door" else "plate"
        return TestPoint(pin, label, f"{where}, {device.kind.name}, {device.purpose}, {side}")

    def bonds(self) -> list[Test]:
        """From the incoming protective conductor to every bonded point, also those that earth through their rail."""
        wires = [w for w in self._wiring.wires if w.colour == "green-yellow"]
        root_pin = PinRef(device_id(INCOMER_ID, INCOMING_EARTH), "i")
        root = next((w for w in wires if w.end.pin == root_pin), None)
        if root is None:
            return []
        landed = {wire.end.pin for wire in wires}
        tests = []
        for wire in wires:
            if wire is not root:
                others = [pin for pin in self._wiring.joined_with(wire.end.pin) if pin not in landed]
                tests += [self._bond(root, wire, pin) for pin in (wire.end.pin, *others)]
        return tests

    def _bond(self, root: Wire, wire: Wire, pin: PinRef) -> Test:
        """Of one point, which a wire bonds itself or through the rail."""
        ohm = _wire_ohm(wire) + _wire_ohm(root) + LEADS_OHM
        way = "conductor and bar" if pin == wire.end.pin else "conductor, bar and rail"
        why = f"{_wire_ohm(wire) + _wire_ohm(root):.3f} Ω of {way}, {LEADS_OHM:g} Ω of leads."
        point = self._point(pin)
        return Test(
            f"bond:{pin}",
            ProvingStage.BONDS,
            f"Bond of {point.label}",
            self._point(root.end.pin),
            point,
            self._off,
            Expected(0.0, round(ohm + 0.1, 1), why),
            f"{_sign(root)} {_sign(wire)}",
            wire.key,
            self._off_ids,
        )

    def wires(self) -> list[Test]:
        """Every wire, end to end, in the order it went in."""
        tests = []
        for wire in self._wiring.wires:
            why = f"{_wire_ohm(wire):.3f} Ω of wire, {LEADS_OHM:g} Ω of leads."
            limit = max(CLOSED_BELOW_OHM, round(_wire_ohm(wire) + LEADS_OHM + 0.1, 1))
            tests.append(
                Test(
                    f"wire:{wire.key}",
                    ProvingStage.WIRES,
                    f"Wire {wire.number}",
                    self._point(wire.start.pin),
                    self._point(wire.end.pin),
                    self._off,
                    Expected(0.0, limit, why),
                    _sign(wire),
                    wire.key,
                    self._off_ids,
                )
            )
        return tests

    def jumpers(self) -> list[Test]:
        """Every plug-in jumper: from its first terminal to each of the others."""
        return [self._link("jumper", first, pin) for first, *others in self._wiring.jumpers for pin in others]

    def links(self) -> list[Test]:
        """Every link module, comb and busbar: from the first clamp of each potential on it to each of the others."""
        return [self._link("link", first, pin) for first, *others in self._wiring.links for pin in others]

    def _link(self, what: str, first: PinRef, pin: PinRef) -> Test:
        """What joins two clamps without a wire."""
        black, red = self._point(first), self._point(pin)
        return Test(
            f"{what}:{first}~{pin}",
            ProvingStage.WIRES,
            f"{what.capitalize()} {black.label} to {red.label}",
            black,
            red,
            self._off,
            Expected(0.0, CLOSED_BELOW_OHM, f"A {what}, {LEADS_OHM:g} Ω of leads."),
            f"{first} {pin}",
            "",
            self._off_ids,
        )

    def shorts(self) -> list[Test]:
        """Between the supply's conductors, and between a motor's conductors and earth."""
        sides = [self._terminals(strip) for strip in self._strips()]
        tests = []
        for side in sides:
            for a, b in combinations(side, 2):
                net_a, net_b = self._nets.of_pin[a], self._nets.of_pin[b]
                if net_a.id == net_b.id:
                    continue
                group_a, group_b = self._joined(net_a), self._joined(net_b)
                black, red = self._point(a), self._point(b)
                tests.append(
                    Test(
                        f"short:{a}~{b}",
                        ProvingStage.SHORTS,
                        f"{black.label} against {red.label}",
                        black,
                        red,
                        self._on,
                        self._between(group_a, group_b),
                        self._wires_in(group_a | group_b),
                        switch_state=self._on_ids,
                    )
                )
        return tests

    def _strips(self) -> Iterable[str]:
        return dict.fromkeys(d.strip for d in self._circuits.devices if d.strip)

    def _terminals(self, strip: str) -> list[PinRef]:
        """The power terminals of a strip, by their inner pin."""
        return [d.pin("i") for d in self._circuits.devices if d.strip == strip and not d.mark.isdigit()]

    def _joined(self, net: Net) -> frozenset[PinRef]:
        """Nets joined to one at rest with all breakers on."""
        return self._at_rest[net.id]

    def _rest_groups(self) -> dict[PinRef, frozenset[PinRef]]:
        """The nets that are one with each net at rest: joined by closed contacts, poles and heaters."""
        from scipy.sparse import coo_array  # late: its import takes a quarter of a second
        from scipy.sparse.csgraph import connected_components

        index = {net.id: n for n, net in enumerate(self._nets.nets)}
        if not index:
            return {}
        closed = (Behaviour.POLE, Behaviour.NC, Behaviour.HEATER)
        joints: list[tuple[int, int]] = []
        for device in self._circuits.devices:
            for unit in device.kind.units:
                if unit.behaviour in closed:
                    ends = [self._nets.of_pin.get(device.pin(pin)) for pin in unit.pins]
                    if ends[0] and ends[-1]:
                        joints.append((index[ends[0].id], index[ends[-1].id]))
        a, b = np.array(joints, dtype=np.int64).reshape(-1, 2).T
        graph = coo_array((np.ones(len(joints)), (a, b)), shape=(len(index), len(index)))
        label = connected_components(graph, directed=False)[1].tolist()
        members: dict[int, set[PinRef]] = defaultdict(set)
        for net, number in zip(self._nets.nets, label, strict=True):
            members[number].add(net.id)
        groups = {number: frozenset(nets) for number, nets in members.items()}
        return {net.id: groups[number] for net, number in zip(self._nets.nets, label, strict=True)}

    def _take_current(self) -> list[tuple[str, PinRef, PinRef, float]]:
        """Coils and lamps: the tag, the nets of their two ends, and their resistance, Ω; 0 where it is not known."""
        consumers = []
        for device in self._circuits.devices:
            for unit in device.kind.units:
                if unit.behaviour not in (Behaviour.COIL, Behaviour.LAMP):
                    continue
                ends = [self._nets.of_pin.get(device.pin(pin)) for pin in unit.pins]
                ids = [end.id for end in ends if end]
                ohm = self._coil_ohm(device)
                if len(ids) == 2:
                    consumers.append((self._names.tag[device.id], ids[0], ids[1], ohm))
        return consumers

    def _coil_ohm(self, device: Device) -> float:
        """What an ohm-meter reads of a coil or lamp, Ω; 0 where it is not known.

        The catalogue has the figure of a coil for 230 V. One for another alternating voltage takes the same power, so
        its resistance goes with the square of the voltage; one for direct current is another coil, unless the kind is
        made for nothing else.
        """
        ohm, ratings = self._sizing.parts[device.id].coil_ohm, self._ratings.get(device.id, ())
        if device.kind.draw is not None and device.kind.draw.dc:
            return ohm
        if len(ratings) != 1 or not ratings[0].hz:
            return 0.0
        return ohm * (ratings[0].volts / CATALOGUE_V) ** 2

    def _between(self, a: frozenset[PinRef], b: frozenset[PinRef]) -> Expected:
        conductance = 0.0
        named: list[str] = []
        unknown: list[str] = []
        for tag, first, last, ohm in self._consumers:
            if (first in a and last in b) or (first in b and last in a):
                conductance += 1 / ohm if ohm else 0.0
                unknown += [] if ohm else [tag]
                named.append(tag)
        if a & b:
            return Expected(0.0, CLOSED_BELOW_OHM, "Joined at rest.")
        if unknown:
            why = f"{', '.join(named)} lies between them at rest; see the data sheet of {', '.join(unknown)}."
            return Expected(CLOSED_BELOW_OHM, OPEN_ABOVE_OHM, why)
        if conductance:
            ohm = 1 / conductance
            why = f"{', '.join(named)} lies between them at rest."
            return Expected(round(ohm * BAND[0]), round(ohm * BAND[1]), why)
        return Expected(OPEN_ABOVE_OHM, float("inf"), "Nothing joins them at rest.")

    def _wires_in(self, group: frozenset[PinRef]) -> str:
        return " ".join(sorted(sign for net in group for sign in self._signs.get(net, ())))


def _wire_ohm(wire: Wire) -> float:
    return wire_resistance(wire.mm2).value * wire.length / 1e6


def _sign(wire: Wire) -> str:
    """What a reading of a wire is true of: its clamps and its conductor."""
    return f"{wire.key} {wire.mm2:g} {wire.colour}"
