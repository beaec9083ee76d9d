"""The panel's side of the supply: lines, totals, main switch, feeder, through-feed, balance."""

from dataclasses import dataclass, replace

from riktig.core.catalogue import parts_of
from riktig.core.job import Load, LoadId, Start
from riktig.core.schematic import lines_of
from riktig.core.sizing.drawn_loads import DrawnLoad
from riktig.core.sizing.protection import drive_input
from riktig.core.sizing.sections import Section, section_of, smallest_section
from riktig.core.sizing.starter import LoadProposal, in_panel
from riktig.core.sizing.value import Basis, Value, first_part, weakest
from riktig.core.standards import (
    Why,
    bonding_section,
    conductor_name,
    nec_protective_size,
    nec_rating_below,
    next_section,
    protective_section,
    rule,
)

__all__ = ["Incoming", "drawn", "line_loads", "size_incoming"]


@dataclass(frozen=True, slots=True)
class Incoming:
    """The supply side: values, sections, A on each line, and which line each load sits on."""

    values: tuple[Value, ...]
    feeder: Section
    pe_mm2: float
    bond_mm2: float
    full_load_a: float
    largest_a: float
    largest: LoadId | None
    lines: tuple[float, float, float]
    on_line: tuple[tuple[LoadId, tuple[int, ...]], ...]


def drawn(load: Load, sized: LoadProposal) -> float:
    """What a load draws from the supply, A: behind a drive not quite what the motor takes."""
    current = sized.value("current")
    assert current is not None
    return drive_input(current).value if load.start is Start.DRIVE else current.amount


def line_loads(
    loads: tuple[Load, ...], sized: tuple[LoadProposal, ...], on_line: tuple[tuple[LoadId, tuple[int, ...]], ...]
) -> tuple[float, float, float]:
    """Current on each line with everything running, A: the sum of the amounts, which errs to the safe side."""
    totals = [0.0, 0.0, 0.0]
    where = dict(on_line)
    for load, load_proposal in zip(loads, sized, strict=True):
        for line in where[load.id]:
            totals[line] += drawn(load, load_proposal)
    return round(totals[0], 2), round(totals[1], 2), round(totals[2], 2)


def size_incoming(
    loads: tuple[Load, ...],
    sized: tuple[LoadProposal, ...],
    ways: tuple[DrawnLoad, ...],
    control_a: float,
    basis: Basis,
) -> Incoming:
    """Totals and the supply side.

    Args:
        loads: The loads of the job.
        sized: What is proposed for each.
        ways: What is drawn besides them: ways, sockets, the light.
        control_a: What the control supply draws from the lines, A.
        basis: Supply, practice, enclosure and what the builder overrode.

    Returns:
        The values of the supply side and the panel's totals.
    """
    on_line = lines_of(loads, basis.supply, basis.practice)
    lines = _with_ways(line_loads(loads, sized, on_line), ways)
    turning = [
        (load_proposal.amount("current"), load)
        for load, load_proposal in zip(loads, sized, strict=True)
        if load.is_motor
    ]
    largest = max(turning, key=lambda pair: pair[0], default=None)
    largest_a = largest[0] if largest else 0.0
    full = _full_load(lines, ways, control_a, basis)
    switch = _switch(loads, sized, full, basis)
    clamp, _ = first_part(parts_of("isolator"), lambda p: p.rated_a >= switch[0].amount)
    feeder, feeder_value = _feeder(loads, sized, full, largest_a, clamp.power.min_mm2, basis)
    pe = _protective(feeder, basis)
    american = basis.north_american
    bond = (
        nec_protective_size(basis.supply.upstream_a)
        if american
        else bonding_section(basis.supply.upstream_a, feeder.mm2)
    )
    values = [
        full,
        _largest(largest),
        *_lines(lines, on_line, loads, sized, basis),
        *switch,
        _upstream(loads, sized, ways, full, basis),
        feeder_value,
        pe,
        *_through(feeder, basis),
    ]
    return Incoming(
        tuple(v for v in values if v),
        feeder,
        pe.amount,
        bond.value,
        full.amount,
        largest_a,
        largest[1].id if largest else None,
        lines,
        on_line,
    )


def _with_ways(lines: tuple[float, float, float], ways: tuple[DrawnLoad, ...]) -> tuple[float, float, float]:
    totals = list(lines)
    for way in ways:
        for line in way.lines:
            totals[line] += way.amps
    return round(totals[0], 2), round(totals[1], 2), round(totals[2], 2)


def _full_load(lines: tuple[float, float, float], ways: tuple[DrawnLoad, ...], control_a: float, basis: Basis) -> Value:
    names = basis.practice.phase_names.names
    counted = [f"{way.name}: {way.amps:g} A on {' and '.join(names[n] for n in way.lines)}" for way in ways if way.amps]
    amps = round(max(lines) + control_a, 1)
    why = Why(
        f"Why {amps:g} A",
        "The fullest line with everything running at once. If the process never runs everything, give the smaller "
        "figure and say why.",
        (
            "lines "
            + ", ".join(f"{name} {a:g}" for name, a in zip(names[: basis.supply.system.lines], lines, strict=False))
            + " A",
            f"control {control_a:.2f} A",
            *counted,
        ),
        "sum of the load list and of what is drawn besides; a way or a socket counts what its breaker lets through",
    )
    return basis.with_override(Value("panel.full_load", "Full-load current", amps, "A", why))


def _largest(largest: tuple[float, Load] | None) -> Value | None:
    if largest is None:
        return None
    amps, load = largest
    why = Why(f"Why {amps:g} A", f"The largest motor is the {load.name}; the nameplate states it.", (), "load list")
    words = f"{load.power_name}, {amps:g} A"
    return Value("panel.largest", "Largest motor", amps, "A", why, words, settable=False)


def _lines(
    lines: tuple[float, float, float],
    on_line: tuple[tuple[LoadId, tuple[int, ...]], ...],
    loads: tuple[Load, ...],
    sized: tuple[LoadProposal, ...],
    basis: Basis,
) -> list[Value]:
    where, names = dict(on_line), basis.practice.phase_names.names
    count = basis.supply.system.lines
    ways = [load for load in loads if len(where[load.id]) < count]
    if not ways:
        return []
    taken_lines = lines[:count]
    mean = sum(taken_lines) / count
    skew = (max(taken_lines) - min(taken_lines)) / mean if mean else 0.0
    limit = rule("phase imbalance")
    texts = tuple(f"{load.name}: {'–'.join(names[n] for n in where[load.id])}" for load in ways)
    why = Why(
        f"Why {skew:.0%} apart",
        f"Single-phase loads go {basis.practice.way_order.value}, unless the Brief gives a line.",
        (*texts, f"(largest − smallest) / mean = {skew:.0%}; above {limit.value:.0%} is uneven"),
        limit.source,
        limit.confidence,
    )
    words = " · ".join(f"{name} {a:.1f} A" for name, a in zip(names, taken_lines, strict=False))
    shortfall = f"the lines are {skew:.0%} apart" if skew > limit.value else ""
    values = [Value("panel.lines", "Lines", round(skew * 100), "%", why, words, shortfall=shortfall, settable=False)]
    neutral = [0.0, 0.0, 0.0]
    for load, load_proposal in zip(loads, sized, strict=True):
        if load.phases == 1:
            neutral[where[load.id][0]] += drawn(load, load_proposal)
    if max(neutral):
        worst = max(neutral)
        reason = (
            "With only one line's loads switched on, the neutral carries all of them; that decides it, and it is "
            "never thinner than the lines up to 16 mm²."
        )
        neutral_why = Why(
            f"Why {worst:g} A",
            reason,
            tuple(f"{name} to neutral {a:g} A" for name, a in zip(names, neutral, strict=True)),
            basis.cites("IEC 60204-1 12.4 and IEC 60364-5-52 524.2", "NEC 220.61"),
            "fairly sure",
        )
        values.append(Value("panel.neutral", "Neutral carries", round(worst, 2), "A", neutral_why, settable=False))
    return values


def _switch(loads: tuple[Load, ...], sized: tuple[LoadProposal, ...], full: Value, basis: Basis) -> tuple[Value, ...]:
    """The main switch: what it carries, and what it must be able to break."""
    if basis.north_american:
        margin = rule("nec disconnect")
        need = max(margin.value * full.amount, basis.supply.upstream_a)
        line, source = f"{margin.value:g} × {full.amount:g} A = {margin.value * full.amount:.1f} A", margin.source
    else:
        need = max(full.amount, basis.supply.upstream_a)
        line, source = f"full load {full.amount:g} A", "IEC 60204-1 5.3, from memory"
    offered = parts_of("isolator")
    part, enough = first_part(offered, lambda p: p.rated_a >= need)
    why = Why(
        f"Why {part.rated_a:g} A",
        "The main switch carries the full load and what the protection upstream lets through.",
        (line, f"upstream {basis.supply.upstream_a:g} A", f"next made size {part.rated_a:g} A"),
        source,
    )
    switch = basis.with_override(Value("panel.main_switch", "Main switch", part.rated_a, "A", why))
    if switch.amount < need or not enough:
        switch = replace(switch, shortfall=f"{need:.4g} A is needed")
    starts = [
        (load_proposal.amount("start") - load_proposal.amount("current"), load)
        for load, load_proposal in zip(loads, sized, strict=True)
    ]
    worst = max((s for s in starts if s[1].is_motor), key=lambda pair: pair[0], default=None)
    if worst is None:
        return (switch,)
    breaks = rule("isolator breaking multiple")
    stalled = round(full.amount + worst[0])
    able = breaks.value * switch.amount
    breaking = Why(
        f"Why {stalled:g} A",
        f"The main switch must break the {worst[1].name} stalled together with everything else running.",
        (f"{full.amount:g} A + {worst[0]:.0f} A", f"it can break {breaks.value:g} × {switch.amount:g} = {able:g} A"),
        f"{basis.cites('IEC 60204-1 5.3.3', 'NFPA 79 5.3.3, NEC 430.109')}; {breaks.source}",
        weakest(breaks),
    )
    shortfall = "" if able >= stalled else f"the switch breaks {able:g} A only"
    return switch, Value(
        "panel.breaking", "Breaking current needed", stalled, "A", breaking, shortfall=shortfall, settable=False
    )


def _upstream(
    loads: tuple[Load, ...], sized: tuple[LoadProposal, ...], ways: tuple[DrawnLoad, ...], full: Value, basis: Basis
) -> Value:
    """What the protection upstream may be (North America) or has to be at least (IEC)."""
    has = basis.supply.upstream_a
    if not basis.north_american:
        why = Why(
            f"Why {full.amount:g} A",
            "The protection upstream must let the full load through, and it guards the conductors of the feed.",
            (f"full load {full.amount:g} A, protected at {has:g} A",),
            "IEC 60204-1 7.2.2, from memory",
        )
        shortfall = f"the supply is protected at {has:g} A" if full.amount + basis.supply.through_a > has else ""
        return Value("panel.upstream", "Supply at least", full.amount, "A", why, shortfall=shortfall, settable=False)
    branch = max((load_proposal.amount("breaker") for load_proposal in sized), default=0.0)
    largest = next((i for i, proposed in enumerate(sized) if proposed.amount("breaker") == branch), -1)
    others = sum(
        drawn(load, proposed) for i, (load, proposed) in enumerate(zip(loads, sized, strict=True)) if i != largest
    )
    others += max(_with_ways((0.0, 0.0, 0.0), ways))
    most = nec_rating_below(branch + others)
    why = Why(
        f"Why {most:g} A",
        "The feeder's protection is at most the largest branch device and the other loads' currents, rounded down.",
        (f"{branch:g} A + {others:.1f} A = {branch + others:.1f} A, standard not above: {most:g} A",),
        "NEC 430.62(A) and 240.6(A), from memory",
    )
    shortfall = f"the supply is protected at {has:g} A" if has > most or full.amount > has else ""
    return Value("panel.upstream", "Feeder protected at most", most, "A", why, shortfall=shortfall, settable=False)


def _feeder(
    loads: tuple[Load, ...],
    sized: tuple[LoadProposal, ...],
    full: Value,
    largest_a: float,
    least_mm2: float,
    basis: Basis,
) -> tuple[Section, Value]:
    """The conductors from the supply terminals to the breakers; no thinner than the main switch's clamps hold."""
    if basis.north_american:
        share = rule("nec feeder largest")
        heat = sum(drawn(load, proposed) for load, proposed in zip(loads, sized, strict=True) if not load.is_motor)
        need = round(full.amount + (share.value - 1) * (largest_a + heat), 2)
        text = f"the full load and a quarter of the largest motor and of what heats ({share.source})"
    else:
        need = max(basis.supply.upstream_a, full.amount)
        text = "the rating of the protection upstream, and never less than the full load"
    laid = in_panel(basis)
    section = smallest_section(need, text, laid)
    if section.mm2 < least_mm2:
        fitting_mm2 = next((mm2 for mm2 in laid.sizes if mm2 >= least_mm2), section.mm2)
        section = section_of(
            fitting_mm2, need, f"{text}; the main switch holds none below {conductor_name(fitting_mm2)}", laid
        )
    value = basis.with_override(Value("panel.feeder", "Feed", section.mm2, "mm²", section.why), conductor_name)
    if value.overridden and value.amount in laid.sizes:
        section = section_of(value.amount, need, text, laid)
    if not section.enough:
        value = replace(value, shortfall=f"carries {section.carries_a:.1f} A of {section.needs_a:g} A")
    return section, value


def _protective(feeder: Section, basis: Basis) -> Value:
    if basis.north_american:
        figure = nec_protective_size(basis.supply.upstream_a)
        mm2 = figure.value
        line = f"behind {basis.supply.upstream_a:g} A"
    else:
        figure = protective_section(feeder.mm2)
        mm2, line = next_section(figure.value), f"{feeder.mm2:g} mm² phase: at least {figure.value:g} mm²"
    source = f"{figure.source}, from memory"
    why = Why(f"Why {conductor_name(mm2)}", "It is sized by the supply conductor.", (line,), source, figure.confidence)
    return Value("panel.pe", "Incoming earth", mm2, "mm²", why, conductor_name(mm2), settable=False)


def _through(feeder: Section, basis: Basis) -> tuple[Value, ...]:
    """What passes on unswitched to a further panel."""
    amps = basis.supply.through_a
    if not amps:
        return ()
    laid = in_panel(basis)
    section = smallest_section(amps, "what the next panel draws", laid)
    larger = [mm2 for mm2 in laid.sizes if mm2 > feeder.mm2]
    if section.mm2 <= feeder.mm2 and larger:
        section = section_of(larger[0], amps, "one size above this panel's own feed", laid)
    why = replace(
        section.why,
        reason=f"{section.why.reason} It stays live when this panel is switched off, and it is one size larger than "
        "this panel's own feed (common practice).",
    )
    value = Value("panel.through", "Through-feed", section.mm2, "mm²", why, section.name)
    return (basis.with_override(value, conductor_name),)
