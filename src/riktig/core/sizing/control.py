"""The control supply: burden held and at pick-up, transformer and its protection, 24 V, limited energy."""

from dataclasses import dataclass, replace
from math import ceil

from riktig.core.catalogue import Part, parts_of
from riktig.core.job import ControlSupply, Load, Signal, Wetting
from riktig.core.schematic import control_source
from riktig.core.sizing.drawn_loads import DrawnLoads
from riktig.core.sizing.sections import Section, control_section
from riktig.core.sizing.value import Basis, Value, first_part, weakest
from riktig.core.standards import (
    Why,
    limited_energy_va,
    rule,
    switch_ratings,
    transformer_primary_share,
    transformer_ratings,
    transformer_secondary,
)

__all__ = ["DC_VOLTS", "Control", "size_control"]

DC_VOLTS = 24.0


@dataclass(frozen=True, slots=True)
class Control:
    """The control supply: its kind, values, parts, what it draws from the lines, A, and its conductors."""

    kind: ControlSupply
    values: tuple[Value, ...]
    parts: tuple[Part, ...]
    line_a: float
    conductors: Section
    dc_input_a: float = 0.0
    """What is to carry the input of the 24 V supply, A."""
    limited_input_a: float = 0.0
    """What is to carry the input of the supply of limited energy, A."""

    @property
    def space(self) -> float:
        """Rail its parts take, mm."""
        return sum(part.width for part in self.parts)

    @property
    def loss_w(self) -> float:
        """Heat of its parts, W."""
        return sum(part.loss_w for part in self.parts)


def size_control(loads: tuple[Load, ...], drawn: DrawnLoads, signals: tuple[Signal, ...], basis: Basis) -> Control:
    """Sizes the control supply and the 24 V supplies behind it.

    Args:
        loads: The loads of the job: how many starters there are decides the kind of supply.
        drawn: What the drawn circuits take from control and from 24 V.
        signals: The field devices of the job.
        basis: Supply, practice, enclosure and what the builder overrode.

    Returns:
        The supplies with their values and what they draw.
    """
    kind, why_kind = control_source(loads, basis.supply, basis.practice)
    efficient = rule("dc supply efficiency").value
    dc_w = sum(s.watts for s in signals if s.wetting is Wetting.DC) + sum(burden.dc_w for burden in drawn.burdens)
    held_va, pick_up, lines = _burden(drawn, signals)
    if kind is ControlSupply.DC:
        dc_w += held_va * rule("dc coil share").value
    limited = sum(s.watts for s in signals if s.wetting is Wetting.LIMITED)
    on_transformer = kind is ControlSupply.TRANSFORMER and drawn.dc_from_control
    input_v = _input_v(drawn, basis, on_transformer=on_transformer)
    if on_transformer:
        for name, watts in (("24 V supply", dc_w), ("limited-energy supply", limited)):
            own_va = round(watts / efficient, 1)
            held_va, pick_up = round(held_va + own_va, 1), round(pick_up + own_va, 1)
            lines += [f"{name}: {watts:.0f} W / {efficient:g} = {own_va:g} VA"] if watts else []
    values = [_held_value(held_va, lines), _pick_up(pick_up, held_va)] if held_va else []
    parts: list[Part] = []
    line_a = held_va / basis.supply.voltage_to_neutral_v
    source = _kind_value(kind, why_kind, basis)
    values.append(source)
    if kind is ControlSupply.TRANSFORMER and held_va:
        inputs = max(_input_a(watts, input_v) for watts in (dc_w, limited))
        branch = max(_largest_branch(drawn, source.amount, basis), next_link(inputs, basis))
        more, part = _transformer(held_va, pick_up, branch, basis)
        values += more
        parts.append(part)
        line_a = more[0].amount / basis.supply.voltage_v
    if dc_w:
        more, part = _dc(dc_w, basis)
        values += more
        parts.append(part)
        if not drawn.dc_from_control:
            line_a += dc_w / efficient / basis.supply.voltage_to_neutral_v
    if limited:
        values.append(_limited(limited, signals))
        parts.append(parts_of("limited_dc_supply")[0])
        if not on_transformer:
            line_a += limited / efficient / basis.supply.voltage_to_neutral_v
    dc_a, limited_a = (_input_a(watts, input_v) for watts in (dc_w, limited))
    wires = control_section(basis.enclosure.ambient_c, north_american=basis.north_american)
    return Control(kind, tuple(values), tuple(parts), round(line_a, 3), wires, dc_a, limited_a)


def _input_v(drawn: DrawnLoads, basis: Basis, *, on_transformer: bool) -> float:
    """What the 24 V supplies hang between, V."""
    if on_transformer:
        return basis.practice.transformer_v
    return basis.supply.voltage_v if drawn.dc_between_lines else basis.supply.voltage_to_neutral_v


def _input_a(watts: float, volts: float) -> float:
    """What a 24 V supply takes at its input with a quarter more, A (common practice, no source)."""
    return 1.25 * watts / rule("dc supply efficiency").value / volts


def _burden(drawn: DrawnLoads, signals: tuple[Signal, ...]) -> tuple[float, float, list[str]]:
    """VA with everything held, and at the worst moment: the largest coil pulling in while the rest hold."""
    held_va, worst, lines = 0.0, 0.0, []
    for burden in drawn.burdens:
        if not burden.held_va:
            continue
        held_va += burden.held_va
        worst = max(worst, burden.pull_va - burden.held_va)
        lines.append(f"{burden.title}: {burden.held_va:g} VA held, {burden.pull_va:g} VA pulling in")
    field = sum(s.watts for s in signals if s.wetting is Wetting.CONTROL)
    if field:
        lines.append(f"field devices {field:g} VA")
    return round(held_va + field, 1), round(held_va + field + worst, 1), lines


def _held_value(held: float, lines: list[str]) -> Value:
    why = Why(f"Why {held:g} VA", "Every coil that may be in at once, and its lamps.", tuple(lines), "part data")
    return Value("panel.held", "Control held", held, "VA", why, settable=False)


def _pick_up(pick_up: float, held: float) -> Value:
    line = f"{held:g} VA held and the largest pull-in above it"
    why = Why(
        f"Why {pick_up:g} VA",
        "The worst moment: the largest starter pulls in while the rest holds.",
        (line,),
        "part data",
    )
    return Value("panel.pick_up", "At pick-up", pick_up, "VA", why, settable=False)


def _kind_value(kind: ControlSupply, why_kind: str, basis: Basis) -> Value:
    volts = {
        ControlSupply.DIRECT: basis.supply.voltage_to_neutral_v,
        ControlSupply.TRANSFORMER: basis.practice.transformer_v,
        ControlSupply.DC: DC_VOLTS,
    }[kind]
    words = f"{volts:g} V {'DC' if kind is ControlSupply.DC else 'AC'} from {kind.value}"
    why = Why(
        f"Why {kind.value}",
        why_kind,
        (),
        "NFPA 79 9.1, from memory" if basis.north_american else "IEC 60204-1:2016 9.1.1 and 9.1.2, from memory",
        "fairly sure",
    )
    return Value("panel.control", "Control supply", volts, "V", why, words, settable=False)


def _largest_branch(drawn: DrawnLoads, volts: float, basis: Basis) -> float:
    """The link of the largest control fuse, A."""
    needed = [burden.fuse_a(volts) for burden in drawn.burdens if burden.held_va]
    return next_link(max(needed, default=0.0), basis)


def next_link(amps: float, basis: Basis) -> float:
    """The smallest link of a control fuse that carries so much, A; the largest beyond it."""
    links = [part.rated_a for part in parts_of("control_fuse", north_american=basis.north_american)]
    return next((a for a in links if a >= amps), links[-1])


def _transformer(held: float, pick_up: float, branch_a: float, basis: Basis) -> tuple[list[Value], Part]:
    reserve, multiple, apart = rule("control reserve"), rule("transformer pick-up multiple"), rule("fuse selectivity")
    need = max(reserve.value * held, pick_up / multiple.value)
    offered = transformer_ratings(basis.north_american)
    selective = apart.value * branch_a
    va = next(
        (size for size in offered if size >= need - 1e-9 and _secondary_a(size, basis) >= selective - 1e-9), offered[-1]
    )
    why = Why(
        f"Why {va:g} VA",
        "It carries what is held with some reserve, and its voltage must not sag when the largest starter pulls in.",
        (
            f"held: {reserve.value:g} × {held:g} VA = {reserve.value * held:.0f} VA",
            f"pick-up: {pick_up:g} VA / {multiple.value:g} = {pick_up / multiple.value:.0f} VA",
            f"its fuse opens after its circuits' own: at least {apart.value:g} × {branch_a:g} A = {selective:.2g} A",
            f"next rating {va:g} VA, fuse {_secondary_a(va, basis):g} A",
        ),
        f"{reserve.source}; pick-up: {multiple.source}",
        weakest(reserve, multiple) if pick_up / multiple.value > reserve.value * held else reserve.confidence,
    )
    value = basis.with_override(Value("panel.transformer", "Transformer", va, "VA", why))
    if value.amount < need - 1e-9:
        value = replace(value, shortfall=f"{need:.0f} VA is needed")
    part, _ = first_part(parts_of("transformer"), lambda p: p.rated_va >= value.amount)
    return [value, *_transformer_protection(value.amount, basis)], part


def _secondary_a(va: float, basis: Basis) -> float:
    """The fuse that guards a transformer's secondary, A.

    The North American table is for 120 V; at another voltage the same share of the current counts.
    """
    small, volts = _small_links(basis), basis.practice.transformer_v
    allowed = va / volts
    if basis.north_american:
        allowed = transformer_secondary(va).value * 120.0 / volts
        if volts == 120.0:
            return allowed
    return max((a for a in small if a <= allowed + 1e-9), default=small[0])


def _small_links(basis: Basis) -> tuple[float, ...]:
    return switch_ratings("class CC" if basis.north_american else "small fuse-link")


def _transformer_protection(va: float, basis: Basis) -> list[Value]:
    small = _small_links(basis)
    primary = va / basis.supply.voltage_v
    volts = basis.practice.transformer_v
    secondary = va / volts
    if basis.north_american:
        share = transformer_primary_share(primary)
        first = max((a for a in small if a <= share.value * primary), default=small[0])
        line = f"at most {share.value:.0%} of {primary:.2f} A = {share.value * primary:.2f} A"
        figure = transformer_secondary(va)
        second, second_line = _secondary_a(va, basis), f"{va:g} VA at {volts:g} V: {secondary:.2f} A"
        second_source = f"{figure.source}, from memory"
        second_sure = figure.confidence
    else:
        share = rule("transformer primary margin")
        first = next((a for a in small if a >= share.value * primary), small[-1])
        line = f"{share.value:g} × {primary:.2f} A = {share.value * primary:.2f} A; slow, so that it can be switched on"
        second = _secondary_a(va, basis)
        second_line = f"not above {secondary:.2f} A, so the transformer is guarded against overload"
        second_source, second_sure = "IEC 60204-1 7.2.7 and 7.2.4, from memory", "fairly sure"
    names = (("panel.primary", "Primary protected at", first, line, share.source, share.confidence),)
    more = (("panel.secondary", "Secondary at", second, second_line, second_source, second_sure),)
    return [
        basis.with_override(
            Value(key, name, amps, "A", Why(f"Why {amps:g} A", "It guards the transformer.", (text,), source, sure))
        )
        for key, name, amps, text, source, sure in (*names, *more)
    ]


def _dc(watts: float, basis: Basis) -> tuple[list[Value], Part]:
    reserve, group = rule("supply reserve"), rule("dc group")
    amps = watts / DC_VOLTS
    need = reserve.value * amps
    offered = parts_of("dc_supply")
    part, _ = first_part(offered, lambda p: p.rated_a >= need)
    why = Why(
        f"Why {part.rated_a:g} A",
        "What everything on 24 V draws, with a reserve for what is added later.",
        (f"{watts:.0f} W / 24 V = {amps:.2f} A", f"{reserve.value:g} × {amps:.2f} A = {need:.2f} A"),
        reserve.source,
    )
    value = basis.with_override(Value("panel.dc_supply", "24 V supply", part.rated_a, "A", why))
    if value.overridden:
        part, _ = first_part(offered, lambda p: p.rated_a >= value.amount)
    if min(value.amount, part.rated_a) < need - 1e-9:
        value = replace(value, shortfall=f"{need:.1f} A is needed")
    groups = max(ceil(amps / group.value), 1)
    split = Why(
        f"Why {groups}",
        "Each group has its own protection, so a fault in one leaves the others.",
        (f"{amps:.2f} A in groups of at most {group.value:g} A",),
        group.source,
        group.confidence,
    )
    words = f"{groups} of up to {group.value:g} A"
    return [value, Value("panel.dc_groups", "24 V groups", groups, "", split, words, settable=False)], part


def _limited(watts: float, signals: tuple[Signal, ...]) -> Value:
    allowed = limited_energy_va(DC_VOLTS)
    names = [s.name for s in signals if s.wetting is Wetting.LIMITED]
    why = Why(
        f"Why {watts:g} of {allowed.value:g} VA",
        "What stands behind a limited-energy supply need not be judged by the panel's standard, as long as nothing "
        "else touches it.",
        (", ".join(names),),
        f"{allowed.source}, from memory",
        allowed.confidence,
    )
    shortfall = f"more than {allowed.value:g} VA" if watts > allowed.value else ""
    words = f"{watts:g} of {allowed.value:g} VA"
    return Value("panel.limited", "Limited energy", watts, "VA", why, words, shortfall=shortfall, settable=False)
