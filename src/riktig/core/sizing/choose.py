"""Which part every drawn device is: what was proposed for its load, each with its why."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field

from riktig.core.catalogue import Can, Part, every_part_of, part, parts_of
from riktig.core.job import (
    IMPLIED,
    INCOMER_ID,
    CircuitId,
    CircuitInputs,
    DeviceId,
    Distribution,
    LoadId,
    OwnPart,
    Pick,
    Recipe,
)
from riktig.core.schematic import BYPASS, DOOR_BONDS, STAR, Circuits, Device, roughly_carries
from riktig.core.sizing.electrical import ElectricalProposal
from riktig.core.sizing.own_transformers import behind_own_transformers
from riktig.core.sizing.picks import with_picks
from riktig.core.sizing.sections import CONTROL_BREAKER_A, Section
from riktig.core.sizing.starter import LoadProposal
from riktig.core.sizing.value import Value, first_part
from riktig.core.standards import (
    COMMON_PRACTICE,
    Figure,
    Why,
    clamp_range,
    conductor_name,
    next_section,
    protective_section,
)

__all__ = ["LoadSize", "Onward", "Sizing", "size_all"]


@dataclass(frozen=True, slots=True)
class LoadSize:
    """What was sized for one load that is drawn. Currents in A."""

    load: LoadId
    circuit: CircuitId
    current: Figure
    setting_a: float
    section: Section
    control: Section
    pe_mm2: float
    proposal: LoadProposal


@dataclass(frozen=True, slots=True)
class Onward:
    """The circuits that lead on to a further panel, and their conductors, mm²."""

    circuits: frozenset[CircuitId]
    mm2: float
    pe_mm2: float


@dataclass(frozen=True, slots=True)
class Sizing:
    """The part and the reasons of every device, the sections, and the panel's totals, A."""

    parts: dict[DeviceId, Part]
    whys: dict[DeviceId, tuple[Why, ...]]
    loads: tuple[LoadSize, ...]
    control: Section
    """The conductors of control circuits."""
    feeder: Section
    feeder_pe_mm2: float
    door_bond_mm2: float
    onward: "Onward"
    full_load_a: float
    largest_a: float
    shortfalls: tuple[tuple[DeviceId, str], ...]
    """Devices whose part is not large enough, and in words by what."""
    _by_circuit: Mapping[CircuitId, LoadSize] = field(init=False, repr=False, compare=False)

    def __post_init__(self) -> None:
        object.__setattr__(self, "_by_circuit", {load.circuit: load for load in reversed(self.loads)})

    def load_of(self, circuit: CircuitId) -> LoadSize | None:
        """What was sized for the load of a circuit."""
        return self._by_circuit.get(circuit)


def size_all(
    circuits: Circuits,
    inputs: CircuitInputs,
    proposal: ElectricalProposal,
    own_parts: tuple[OwnPart, ...] = (),
    picks: tuple[Pick, ...] = (),
) -> Sizing:
    """The part of every device. Nothing is refused: what does not suffice is in ``shortfalls``.

    Args:
        circuits: All devices and rungs of the job.
        inputs: What the circuits follow from.
        proposal: What Riktig proposes for the job.
        own_parts: Parts of one's own.
        picks: Parts that the builder chose for devices.
    """
    drawn = {device.circuit for device in circuits.devices}
    sized = [
        _load_size(circuit.id, load_proposal)
        for circuit in inputs.circuits
        if circuit.recipe is not Recipe.INCOMER and circuit.id in drawn and circuit.load
        if (load_proposal := proposal.of_load(circuit.load))
    ]
    incoming, onward = proposal.incoming, _onward(circuits, inputs, proposal)
    of_circuit = {load_size.circuit: load_size for load_size in sized}
    chooser = _Chooser(circuits, inputs, proposal, of_circuit, onward)
    parts: dict[DeviceId, Part] = {}
    whys: dict[DeviceId, tuple[Why, ...]] = {}
    for device in circuits.devices:
        parts[device.id], whys[device.id] = chooser.part_for(device)
    chooser.shortfalls += with_picks(circuits, own_parts, picks, parts, whys)
    return Sizing(
        parts,
        whys,
        tuple(sized),
        proposal.control.conductors,
        incoming.feeder,
        incoming.pe_mm2,
        incoming.bond_mm2,
        onward,
        incoming.full_load_a,
        incoming.largest_a,
        tuple(chooser.shortfalls),
    )


def _onward(circuits: Circuits, inputs: CircuitInputs, proposal: ElectricalProposal) -> Onward:
    """What passes on is protected upstream like the feed: never thinner, and thicker where the Brief says so."""
    leading_on = frozenset(device.circuit for device in circuits.devices if device.kind.can(Can.LEADS_ON))
    value = proposal.value("panel.through")
    mm2 = max(proposal.incoming.feeder.mm2, value.amount if value else 0.0)
    if inputs.practice.rulebook.north_american:
        return Onward(leading_on, mm2, proposal.incoming.pe_mm2)
    return Onward(leading_on, mm2, next_section(protective_section(mm2).value))


def _load_size(circuit: CircuitId, load_proposal: LoadProposal) -> LoadSize:
    current = load_proposal.value("current")
    assert current is not None
    return LoadSize(
        load_proposal.load,
        circuit,
        Figure(current.amount, current.why.source, current.why.confidence),
        load_proposal.amount("setting") or current.amount,
        load_proposal.section,
        load_proposal.control,
        load_proposal.amount("pe"),
        load_proposal,
    )


class _Chooser:
    def __init__(
        self,
        circuits: Circuits,
        inputs: CircuitInputs,
        proposal: ElectricalProposal,
        sized: dict[CircuitId, LoadSize],
        onward: Onward,
    ) -> None:
        supply, practice = inputs.supply, inputs.practice
        self._american = practice.rulebook.north_american
        self._together = behind_own_transformers(circuits)
        main = any(d.kind.can(Can.SWITCHES_LOAD) and d.circuit not in sized for d in circuits.devices)
        self._feeds_whole = main or practice.distribution is Distribution.COMB
        self._supply, self._proposal, self._sized, self._onward = supply, proposal, sized, onward
        self._feeder = proposal.incoming.feeder
        self._burdens = {burden.circuit: burden for burden in reversed(proposal.drawn.burdens)}
        self.shortfalls: list[tuple[DeviceId, str]] = []

    def _offered(self, device: Device) -> tuple[Part, ...]:
        return parts_of(device.kind_id, north_american=self._american)

    def part_for(self, device: Device) -> tuple[Part, tuple[Why, ...]]:
        size = self._sized.get(device.circuit)
        if size and device.kind.sized_as and _is_role(device, size.proposal):
            return self._chosen(device, size.proposal)
        if size and device.role == BYPASS:
            return self._bypass(device, size)
        if device.circuit in SUPPLY_VALUES:
            return self._supply_part(device)
        kind = device.kind
        if kind.can(Can.MAIN_SWITCH):
            value = self._proposal.value("panel.main_switch")
            assert value is not None
            amount = value.amount
            mm2 = max(self._feeder.mm2, self._onward.mm2 if self._onward.circuits else 0.0)
            offered = self._offered(device)
            roomy = any(p.rated_a >= amount and p.takes(mm2) for p in offered)
            fitted = self._pick(device, lambda p: p.rated_a >= amount and (p.takes(mm2) or not roomy), value)
            return fitted, (value.why,)
        if kind.can(Can.GUARDS_CONTROL):
            fuse = any(unit.symbol == "fuse" for unit in kind.units)
            return self._control_fuse(device) if fuse else self._control_breaker(device)
        if kind.can(Can.CHOSEN_BY_CLAMP):
            return self._clamp(device, self._conductor_of(device, size))
        if kind.can(Can.SHOWS):
            offered = self._offered(device)
            fitted = next((p for p in offered if p.colour == device.colour), offered[0])
            source = f"{'NFPA 79 10.3.2' if self._american else 'IEC 60204-1:2016 Table 4'}, from memory"
            says = _LAMP_SAYS.get(fitted.colour)
            return fitted, (Why(f"Why {fitted.colour}", says, (), source),) if says else ()
        if kind.can(Can.SWITCHES_LOAD) and size is None:  # the main contactor, on the conductors of the feed
            mm2, offered = self._feeder.mm2, self._offered(device)
            large = [p for p in offered if p.rating >= device.least_a and p.power.max_mm2 >= mm2] or [offered[-1]]
            return next((p for p in large if p.takes(mm2)), large[0]), ()
        least = device.least_a or (FUSE_A if kind.is_protective and kind.units[0].symbol == "fuse" else 0.0)
        fitted, enough = first_part(self._offered(device), lambda p: p.rating >= least)
        if not enough:
            unit = "VA" if kind.can(Can.TRANSFORMS) else "A"
            self.shortfalls.append((device.id, f"{device.least_a:.0f} {unit} {NOT_OFFERED}"))
        return fitted, ()

    def _conductor_of(self, device: Device, size: LoadSize | None) -> float:
        """The conductor that a terminal, bar or block has to take, mm²."""
        kind = device.kind
        feeder = self._onward.mm2 if self._onward.circuits else self._feeder.mm2  # it carries the next panel too
        if not kind.can(Can.TERMINAL):
            incoming = self._proposal.incoming
            if kind.can(Can.EARTH_BAR) or (kind.can(Can.EARTH_STUD) and device.role in DOOR_BONDS):
                onward = self._onward.pe_mm2 if self._onward.circuits else 0.0
                return max(incoming.pe_mm2, incoming.bond_mm2, onward)
            return incoming.pe_mm2 if kind.can(Can.EARTH_STUD) else feeder
        if device.mark.isdecimal() and size:
            return size.control.mm2
        if size:
            cable = max(size.proposal.cable.mm2, size.proposal.amount("neutral"))
            return max(size.section.mm2, cable)  # the cable may be the thicker for its drop or a shared neutral
        if device.circuit in self._onward.circuits:
            return self._onward.pe_mm2 if kind.can(Can.EARTH_TERMINAL) else self._onward.mm2
        if device.circuit in self._together and (kind.can(Can.COMMON_TERMINAL) or kind.can(Can.EARTH_TERMINAL)):
            return roughly_carries(self._together[device.circuit], north_american=self._american)
        if device.circuit == INCOMER_ID:
            return self._proposal.incoming.pe_mm2 if kind.can(Can.EARTH_TERMINAL) else feeder
        return WAY_AWG_MM2 if self._american else WAY_MM2

    def _bypass(self, device: Device, size: LoadSize) -> tuple[Part, tuple[Why, ...]]:
        """A contactor that only carries a motor which runs already: neither makes nor breaks its starting current."""
        need = size.current.value
        fitted, enough = first_part(self._offered(device), lambda p: p.ac1_a >= need)
        if not enough:
            self.shortfalls.append((device.id, f"a bypass for {need:g} A {NOT_OFFERED}"))
        why = Why(
            f"Why {fitted.ac1_a:g} A by AC-1",
            "The bypass closes at full voltage and opens after the soft starter has taken over: it carries, no more.",
            (f"{fitted.ac1_a:g} ≥ {need:g} A",),
            f"{'UL' if self._american else 'IEC'} 60947-4-1 (AC-1); common practice, from memory",
        )
        return fitted, (why,)

    def _supply_part(self, device: Device) -> tuple[Part, tuple[Why, ...]]:
        """Parts of the control supplies: as the Brief's proposal has them."""
        name = SUPPLY_VALUES[device.circuit].get(device.role, "")
        value = self._proposal.value(f"panel.{name}") if name else None
        offered = self._offered(device)
        if value is None and device.kind.can(Can.GUARDS_CONTROL) and not device.least_a:
            return self._control_fuse(device)
        if value is None:
            need = max(device.least_a, self._input_a(device))
            fitted, enough = first_part(offered, lambda p: p.rating >= need)
            if not enough:
                self.shortfalls.append((device.id, f"{need:.1f} A at its input {NOT_OFFERED}"))
            return fitted, ()
        fitted, enough = first_part(offered, lambda p: p.rating >= value.amount - 1e-9)
        if value.shortfall or not enough:
            self.shortfalls.append((device.id, f"{value.name.lower()}: {value.shortfall or value.text}"))
        return fitted, (value.why,)

    def _input_a(self, device: Device) -> float:
        """What the guard of a 24 V supply's input has to carry, A; 0 for everything else."""
        control = self._proposal.control
        inputs = {
            IMPLIED[Recipe.DC_SUPPLY]: control.dc_input_a,
            IMPLIED[Recipe.LIMITED_SUPPLY]: control.limited_input_a,
        }
        return inputs.get(device.circuit, 0.0) if device.role == "F" else 0.0

    def _chosen(self, device: Device, load_proposal: LoadProposal) -> tuple[Part, tuple[Why, ...]]:
        """The part the proposal chose for the device's role, with the values that decided it."""
        role = "star contactor" if device.role == STAR else device.kind.sized_as
        offered = every_part_of(device.kind_id)
        ref = next((c.part.ref for c in load_proposal.chosen if c.role == role), self._offered(device)[-1].ref)
        chosen = next((p for p in offered if p.ref.split(" + ")[0] == ref), offered[-1])
        names = {
            "breaker": ("breaker",),
            "fuse switch": ("breaker",),
            "contactor": ("contactor", "current"),
            "overload": ("setting", "overload", "current"),
            "motor protector": ("breaker", "setting", "current"),
            "star contactor": ("star", "current"),
            "timer": (),
            "soft starter": ("device", "current"),
            "drive": ("device", "current"),
        }[role]
        values = [value for name in names if (value := load_proposal.value(name))]
        self.shortfalls += [(device.id, f"{v.name.lower()}: {v.shortfall}") for v in values if v.shortfall]
        return chosen, tuple(value.why for value in values)

    def _pick(self, device: Device, fits: Callable[[Part], bool], value: Value) -> Part:
        fitted, enough = first_part(self._offered(device), fits)
        if not enough or value.shortfall:
            self.shortfalls.append((device.id, f"{value.name.lower()}: {value.shortfall or value.text}"))
        return fitted

    def _control_fuse(self, device: Device) -> tuple[Part, tuple[Why, ...]]:
        """The fuse of a control circuit behind a small source: small enough to open before the source's own."""
        volts = self._proposal.value("panel.control")
        burden = self._burdens.get(device.circuit)
        need = burden.fuse_a(volts.amount) if burden and volts else 0.0
        need = self._input_a(device) or need
        fitted, enough = first_part(self._offered(device), lambda p: p.rated_a >= need)
        if not enough:
            self.shortfalls.append((device.id, f"a control fuse for {need:.2f} A {NOT_OFFERED}"))
        line = f"{burden.held_va:g} VA held, {burden.pull_va:g} VA pulling in" if burden else "nothing with a figure"
        why = Why(
            f"Why {fitted.rated_a:g} A",
            "It carries its circuit and opens before the fuse of the control supply, so the others stay alive.",
            (line, f"at least {need:.2f} A, next link {fitted.rated_a:g} A, slow"),
            f"{'UL 248-14' if self._american else 'IEC 60127-2'}, from memory",
            "fairly sure",
        )
        return fitted, (why,)

    def _control_breaker(self, device: Device) -> tuple[Part, tuple[Why, ...]]:
        fitted, _ = first_part(self._offered(device), lambda p: p.rated_a >= CONTROL_BREAKER_A)
        pull = part("CON-9").coil_va_in / self._supply.voltage_to_neutral_v
        return fitted, (
            Why(
                f"Why {fitted.rated_a:g} A",
                "One coil pulling in and two lamps take well under the smallest breaker; the "
                "smallest gives the thin control wire the best protection.",
                (f"{part('CON-9').coil_va_in:g} VA / {self._supply.voltage_to_neutral_v:g} V = {pull:.2f} A",),
                COMMON_PRACTICE,
            ),
        )

    def _clamp(self, device: Device, mm2: float) -> tuple[Part, tuple[Why, ...]]:
        taps = [load_size.section.mm2 for load_size in self._sized.values()] if device.kind.can(Can.DISTRIBUTES) else []
        taps += [self._feeder.mm2] if taps and self._feeds_whole else []
        outlet = min(max(taps, default=0.0), max(p.control.max_mm2 for p in self._offered(device))) if taps else 0.0
        chosen, enough = first_part(
            self._offered(device), lambda p: p.power.max_mm2 >= mm2 and p.control.max_mm2 >= outlet
        )
        if not enough:
            self.shortfalls.append((device.id, f"a clamp for {conductor_name(mm2)} {NOT_OFFERED}"))
        if device.kind.can(Can.EARTH_STUD):
            return chosen, ()
        taken = clamp_range(chosen.power.min_mm2, chosen.power.max_mm2, awg=self._american)
        why = Why(
            f"Why {chosen.ref}",
            "The clamp takes the conductor of its circuit.",
            (f"{conductor_name(mm2)}; it takes {taken}",),
            "part data",
        )
        return chosen, (why,)


def _is_role(device: Device, load_proposal: LoadProposal) -> bool:
    """Whether a device is what the proposal chose for its role, rather than a helper of the same kind."""
    role = device.kind.sized_as
    return any(c.role.startswith(role) and c.part.kind.shares_parts_with(device.kind) for c in load_proposal.chosen)


SUPPLY_VALUES: dict[CircuitId, dict[str, str]] = {
    IMPLIED[Recipe.CONTROL_SUPPLY]: {"F": "primary", "T": "transformer", "FS": "secondary"},
    IMPLIED[Recipe.DC_SUPPLY]: {"T": "dc_supply"},
    IMPLIED[Recipe.LIMITED_SUPPLY]: {},
}
"""Which value of the panel a device of a control supply is sized by."""
NOT_OFFERED = "is needed, more than the catalogue has"
FUSE_A = 2.0
"""The link of a fuse for which nothing is asked, A (chosen by us)."""
WAY_MM2, WAY_AWG_MM2 = 2.5, 2.08  # conductors of a small circuit outside the Brief (common practice, no source)
_LAMP_SAYS = {
    "green": "Green says that the condition is normal.",
    "yellow": "Yellow says that the condition is abnormal. Red is kept for danger.",
    "red": "Red says that someone must act at once.",
    "white": "White says a plain fact: something is there.",
}
