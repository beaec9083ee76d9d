"""The whole proposal for one load: values with their reasons, parts, space and heat."""

from dataclasses import dataclass, replace
from math import sqrt

from riktig.core.catalogue import Mounting, parts_of
from riktig.core.job import CableLaying, Load, LoadId, Start, TerminalTemperature
from riktig.core.sizing.motor import load_current, needs_overload, overload_setting, starting_current
from riktig.core.sizing.protection import Chosen, drive_input, local_isolator, overload_part, protection
from riktig.core.sizing.sections import Laid, Section, control_section, section_of, smallest_section
from riktig.core.sizing.switching import Conductors, clamps_short, contactors, starter_device
from riktig.core.sizing.value import Basis, Value, weakest
from riktig.core.standards import (
    Why,
    conductor_name,
    nec_protective_size,
    next_section,
    protective_section,
    rule,
    warm_resistance,
    wire_resistance,
)

__all__ = ["LoadProposal", "in_panel", "in_room", "size_load", "volt_drop"]


@dataclass(frozen=True, slots=True)
class LoadProposal:
    """What Riktig proposes for one load. ``control`` is the section of its control conductors."""

    load: LoadId
    values: tuple[Value, ...]
    chosen: tuple[Chosen, ...]
    section: Section
    control: Section
    cable: Section
    legs: Section | None = None
    """Conductors between a star-delta starter's contactors and its motor."""
    neutral_a: float = 0.0
    """What a neutral that it shares with other loads carries, A; 0 where it is its own."""

    def value(self, name: str) -> Value | None:
        """The value by the last part of its key, such as “breaker”."""
        key = f"{self.load}.{name}"
        return next((value for value in self.values if value.key == key), None)

    def amount(self, name: str) -> float:
        """The amount of a value, 0 when there is none."""
        value = self.value(name)
        return value.amount if value else 0.0

    @property
    def space(self) -> float:
        """Rail that the parts take, mm; what is plugged under another part takes none."""
        on_plate = (Mounting.RAIL, Mounting.SCREWED)
        return sum(c.part.width * c.count for c in self.chosen if c.part.kind.mounting in on_plate)

    @property
    def loss_w(self) -> float:
        """Heat of the parts that are in while it runs, W."""
        return round(sum(c.loss_w for c in self.chosen), 1)

    @property
    def shortfall(self) -> tuple[Value, ...]:
        """Values that are not enough."""
        return tuple(value for value in self.values if value.shortfall)


def _terminal_c(basis: Basis) -> float:
    """The column of the North American tables for clamps up to 100 A, °C."""
    return 75.0 if basis.practice.terminal_c is TerminalTemperature.C75 else 60.0


def in_panel(basis: Basis, circuits: int = 1) -> Laid:
    """How the power conductors lie inside the panel: in its air, ``circuits`` of them in one duct."""
    return Laid(
        "B1", basis.enclosure.ambient_c, circuits, north_american=basis.north_american, terminal_c=_terminal_c(basis)
    )


def in_room(load: Load, basis: Basis) -> Laid:
    """How the cable to a load lies outside, in the room's air; that of a star-delta motor has six loaded conductors."""
    method = {CableLaying.WALL: "C", CableLaying.CONDUIT: "B2", CableLaying.PERFORATED: "E"}[load.laying]
    circuits = load.cables_together + (1 if load.start is Start.STAR_DELTA else 0)
    return Laid(
        method, basis.enclosure.room_c, circuits, north_american=basis.north_american, terminal_c=_terminal_c(basis)
    )


def size_load(load: Load, basis: Basis) -> LoadProposal:
    """Sizes everything for one load. Nothing is refused: what does not suffice says so.

    Args:
        load: The load.
        basis: Supply, practice, enclosure and what the builder overrode.

    Returns:
        The values and parts of the load; a value that does not suffice says so.
    """
    current = load_current(load, basis)
    setting = overload_setting(load, current, basis)
    guard, guard_parts = protection(load, current, setting, basis)
    relay, relay_parts = overload_part(load, setting)
    panel, panel_value = _panel_conductor(load, current, guard, basis)
    legs = _legs(load, current, panel, guard, basis)
    switching, switch_parts = contactors(load, current, Conductors(panel.mm2, legs.mm2 if legs else 0.0), basis)
    device, device_parts = starter_device(load, current, panel.mm2, basis)
    cable, cable_values = _cable(load, current, guard, basis)
    control = control_section(basis.enclosure.ambient_c, north_american=basis.north_american)
    guard = _landed_on(guard, guard_parts, panel.mm2)
    relay = _landed_on(relay, relay_parts, legs.mm2 if legs else panel.mm2) if relay else None
    values = [
        current,
        starting_current(load, current, basis),
        guard,
        *switching,
        device,
        relay,
        setting,
        panel_value,
        *cable_values,
        _protective(load, panel.mm2, guard, basis),
        local_isolator(load, current, basis),
    ]
    lamp_count = (load.run_lamp + load.trip_lamp) if load.start is not Start.WAY else 0
    parts = [*guard_parts, *switch_parts, *device_parts, *relay_parts]
    if load.is_motor and load.start is not Start.WAY:
        parts.append(Chosen("control breaker", parts_of("control_breaker")[0]))
        parts.append(Chosen("lamps", parts_of("lamp")[0], lamp_count))
    parts = [_loaded(c, current, setting) for c in parts if c.count]
    return LoadProposal(load.id, tuple(v for v in values if v), tuple(parts), panel, control, cable, legs)


def _landed_on(value: Value, parts: tuple[Chosen, ...], mm2: float) -> Value:
    """The value with what the clamps of its part do not take of the panel's conductors."""
    for chosen in parts:
        value = clamps_short(value, chosen.part, mm2)
    return value


def _loaded(chosen: Chosen, current: Value, setting: Value | None) -> Chosen:
    """A protective part with the share of its rating that it carries."""
    if chosen.role in ("breaker", "fuse switch"):
        return replace(chosen, loading=current.amount / chosen.part.rated_a)
    if chosen.role in ("overload", "motor protector") and setting:
        return replace(chosen, loading=setting.amount / chosen.part.max_a)
    return chosen


def _panel_conductor(load: Load, current: Value, guard: Value, basis: Basis) -> tuple[Section, Value]:
    """The conductors of the circuit inside the panel."""
    laid = in_panel(basis, basis.circuits)
    needs, text, sure = _must_carry(load, current, guard, basis)
    section = smallest_section(needs, text, laid)
    value = Value(f"{load.id}.section", "Panel conductors", section.mm2, "mm²", _with(section.why, sure))
    value = basis.with_override(value, conductor_name)
    if value.overridden:
        section = _given(value.amount, needs, text, laid)
    return section, _judged(value, section)


def _legs(load: Load, current: Value, panel: Section, guard: Value, basis: Basis) -> Section | None:
    """The conductors inside the triangle, where each winding draws its own current; never thicker than the line.

    Six of them are two circuits beside the others in their duct. None is so thin that the breaker ahead does not
    protect it in a short circuit.
    """
    if load.start is not Start.STAR_DELTA:
        return None
    laid = in_panel(basis, basis.circuits + 1)
    share = rule("nec star-delta conductor" if basis.north_american else "triangle share")
    needs, text = round(share.value * current.amount, 2), "the current of one winding"
    short = round(guard.amount / rule("short circuit share").value, 2)
    if short > needs:
        needs, text = short, f"a third of the {guard.amount:g} A ahead, which protect it in a short circuit"
    section = smallest_section(needs, text, laid)
    return section if section.mm2 < panel.mm2 else panel


def _given(mm2: float, needs: float, text: str, laid: Laid) -> Section:
    """A section of the builder's own; one that no table has carries nothing we could vouch for."""
    if mm2 in laid.sizes:
        return section_of(mm2, needs, text, laid)
    why = Why(f"Why {mm2:g} mm²", "No table has this size, so what it carries is not known.", (), "", "unsure")
    return Section(mm2, 0.0, needs, why)


def _judged(value: Value, section: Section) -> Value:
    if section.enough:
        return value
    return replace(value, shortfall=f"carries {section.carries_a:.1f} A of {section.needs_a:g} A")


def _with(why: Why, sure: str) -> Why:
    return replace(why, confidence=weakest(why.confidence, sure))


def _must_carry(load: Load, current: Value, guard: Value, basis: Basis) -> tuple[float, str, str]:
    """What the conductors of the circuit must carry, A, why, and how sure that is."""
    amps = current.amount
    if basis.north_american:
        if load.is_motor and load.start is not Start.DRIVE:
            margin = rule("nec branch conductor")
            return round(margin.value * amps, 2), f"{margin.value:.0%} of {amps:g} A (NEC 430.22)", margin.confidence
        if load.start is Start.DRIVE:
            margin, drawn = rule("nec drive conductor"), drive_input(current)
            return round(margin.value * drawn.value, 2), f"125 % of the drive's {drawn.value:g} A", drawn.confidence
        return max(guard.amount, amps), "the breaker ahead of it", "sure"
    if needs_overload(load, basis):
        return amps, "the overload is set to the motor's current and guards the conductors too", "sure"
    if load.start is Start.SOFT:
        return amps, "the soft starter's own overload guards the conductors", "sure"
    return max(guard.amount, amps), "the protective device ahead of it", "sure"


def _cable(load: Load, current: Value, guard: Value, basis: Basis) -> tuple[Section, list[Value]]:
    """The cable to the load: by what it carries in the room's air, then by the drop along it."""
    laid = in_room(load, basis)
    needs, text, sure = _cable_carries(load, current, guard, basis)
    section = smallest_section(needs, text, laid)
    limit = rule("nec volt drop limit" if basis.north_american else "iec volt drop limit")
    offered = [mm2 for mm2 in laid.sizes if mm2 >= section.mm2]
    mm2 = next((m for m in offered if volt_drop(load, current.amount, m, basis) <= limit.value), offered[-1])
    why = _with(section.why, sure)
    if mm2 != section.mm2:
        line = f"{section.name} would carry it, but drop {volt_drop(load, current.amount, section.mm2, basis):.1%}"
        section = section_of(mm2, needs, text, laid)
        why = _with(replace(section.why, lines=(*section.why.lines, line)), sure)
    value = basis.with_override(Value(f"{load.id}.cable", "Cable", mm2, "mm²", why), conductor_name)
    if value.overridden:
        section = _given(value.amount, needs, text, laid)
    values = [_judged(value, section)]
    if section.mm2 in laid.sizes:
        values.append(_drop(load, current, section.mm2, limit.value, limit.source, basis))
    if load.phases == 1:
        words = f"{conductor_name(section.mm2)}, one for this way alone"
        neutral = Why(
            f"Why {conductor_name(section.mm2)}",
            "The neutral of one way carries what its line carries. A neutral shared by two ways of one phase would "
            "carry their sum, and both must then be cut off together.",
            (),
            f"{basis.cites('IEC 60204-1 12.4', 'NEC 220.61')}; sharing: common practice, no source",
            "fairly sure",
        )
        values.append(Value(f"{load.id}.neutral", "Neutral", section.mm2, "mm²", neutral, words, settable=False))
    return section, values


def _cable_carries(load: Load, current: Value, guard: Value, basis: Basis) -> tuple[float, str, str]:
    amps = current.amount
    if load.start is Start.STAR_DELTA:
        if basis.north_american:
            share = rule("nec star-delta conductor")
            return round(share.value * amps, 2), f"{share.value:.0%} of {amps:g} A (NEC 430.22(C))", share.confidence
        share = rule("triangle share")
        return round(share.value * amps, 2), f"each of the six conductors carries {amps:g} A / √3", share.confidence
    if load.start is Start.DRIVE and not basis.north_american:
        return amps, "the drive holds the motor's current", "sure"
    if load.start is Start.DRIVE:
        margin = rule("nec branch conductor")
        return round(margin.value * amps, 2), f"{margin.value:.0%} of {amps:g} A (NEC 430.22)", margin.confidence
    return _must_carry(load, current, guard, basis)


def volt_drop(load: Load, amps: float, mm2: float, basis: Basis, cos: float | None = None) -> float:
    """Drop along the cable as a share of the load's voltage.

    Method:
        ΔU = k × I × L × (R cos φ + X sin φ) / U, k = √3 for three lines, 2 for one and two; R at the
        conductor's working temperature, X 0.08 Ω/km.

    Source:
        IEC 60364-5-52 Annex G (formula), IEC 60228 or NEC Chapter 9 Table 8 (resistance), from memory.

    Args:
        load: The load.
        amps: The current, A.
        mm2: The section of the conductor, mm².
        basis: Supply, practice, enclosure and what the builder overrode.
        cos: Power factor; None takes the usual one.
    """
    volts = load.voltage_v or basis.supply.voltage_of(load.phases)
    phi = cos if cos is not None else rule("motor power factor").value if load.is_motor else 1.0
    ohm = warm_resistance(mm2).value
    reactance = rule("conductor reactance").value
    k = sqrt(3) if load.phases == 3 else 2.0
    share = 1 / sqrt(3) if load.start is Start.STAR_DELTA else 1.0
    per_km = ohm * phi + reactance * sqrt(1 - phi * phi)
    return k * amps * share * load.cable_m / 1000 * per_km / volts


def _drop(load: Load, current: Value, mm2: float, limit: float, source: str, basis: Basis) -> Value:
    share = volt_drop(load, current.amount, mm2, basis)
    lines = [
        f"{load.cable_m:g} m of {conductor_name(mm2)}: {wire_resistance(mm2).value:g} Ω/km at 20 °C, "
        f"{warm_resistance(mm2).value:.4g} Ω/km warm",
        f"{share:.2%} of the voltage; at most {limit:.0%}",
    ]
    starting = starting_current(load, current, basis)
    most = rule("iec starting drop")
    if starting:
        large = current.amount > rule("large motors from").value
        cos = rule("starting power factor of large motors" if large else "starting power factor")
        at_start = volt_drop(load, starting.amount, mm2, basis, cos=cos.value)
        lines.append(
            f"on start, at cos φ {cos.value:g}: {at_start:.1%}; beyond {most.value:.0%} a contactor may drop out"
        )
    why = Why(f"Why {share:.1%}", "What the cable takes from the voltage at full load.", tuple(lines), source)
    shortfall = f"more than {limit:.0%}" if share > limit else ""
    return Value(f"{load.id}.drop", "Drop", round(share * 100, 2), "%", why, shortfall=shortfall, settable=False)


def _protective(load: Load, panel_mm2: float, guard: Value, basis: Basis) -> Value:
    """The protective conductor to the load."""
    if basis.north_american:
        figure = nec_protective_size(guard.amount)
        mm2 = min(figure.value, panel_mm2)
        line = f"behind {guard.amount:g} A; never larger than the conductors of the circuit"
        source, sure = f"{figure.source}, from memory", figure.confidence
    else:
        figure = protective_section(panel_mm2)
        mm2 = next_section(figure.value)
        line = f"{panel_mm2:g} mm² phase: at least {figure.value:g} mm²"
        source, sure = f"{figure.source}, from memory", figure.confidence
    lines = [line]
    if load.start is Start.DRIVE:
        leak = rule("leakage protective size")
        lines.append(
            f"a drive may leak more than 10 mA: then {leak.value:g} mm² or a second one beside it ({leak.source})"
        )
    why = Why(f"Why {conductor_name(mm2)}", "It is sized by what the fault current can be.", tuple(lines), source, sure)
    value = basis.with_override(Value(f"{load.id}.pe", "Protective conductor", mm2, "mm²", why), conductor_name)
    shortfall = "smaller than the rulebook's least" if value.amount < mm2 - 1e-9 else ""
    return replace(value, shortfall=shortfall)
