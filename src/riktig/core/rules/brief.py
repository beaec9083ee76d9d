"""Clauses about the Brief: whether its answers can stand, and whether what was sized suffices."""

from riktig.core.catalogue import Can
from riktig.core.job import Command, Direction, Form, Signal, Start, WayOrder
from riktig.core.keys import CircuitKey, LoadKey, PartKey, ValueKey
from riktig.core.rules.model import ClauseResult, Finding, Group, QuickFix, Verdict
from riktig.core.rules.view import View
from riktig.core.schematic import Zone
from riktig.core.sizing import Value
from riktig.core.standards import COMMON_PRACTICE

__all__ = ["BRIEF"]

JUDGED = ("panel.box", "panel.lines")
"""Values that are estimates or matters of taste: a person decides."""


def answers_agree(view: View) -> ClauseResult:
    """No answer of the Brief contradicts another."""
    clause = COMMON_PRACTICE
    issues = [issue for issue in view.proposal.issues if not issue.asks]
    findings = [Finding("B01", Verdict.FAILS, d.text, d.where, clause, d.remedy) for d in issues]
    counts = ((len(view.loads), "load"), (len(view.signals), "field device"))
    evidence = (" and ".join(f"{n} {word}{'' if n == 1 else 's'}" for n, word in counts) + " read together",)
    return ClauseResult("B01", Group.BRIEF, "Answers that agree", clause, evidence, tuple(findings))


def every_source_named(view: View) -> ClauseResult:
    """Every supply that enters is named, and everything that was asked is answered."""
    clause = view.source("B02")

    findings = [
        Finding(
            "B02",
            Verdict.JUDGE,
            issue.text,
            issue.where,
            clause,
            issue.remedy,
            QuickFix("Nothing else arrives live", "no other source") if issue.where == PartKey("sources") else None,
        )
        for issue in view.proposal.issues
        if issue.asks
    ]
    names = [view.supply.name, *(source.name for source in view.sources)]
    return ClauseResult("B02", Group.BRIEF, "Every supply named", clause, (", ".join(names),), tuple(findings))


PLATE_DECIDES = ("panel.box", "panel.inside")
"""Estimates of the Brief that the drawn plate replaces."""


def sizes_suffice(view: View) -> ClauseResult:
    """Nothing that was sized or decided is too small."""
    clause = "the figure beside each value"
    findings = [
        Finding(
            "B03",
            Verdict.JUDGE if value.key in JUDGED else Verdict.FAILS,
            f"{_owner(view, value)}{value.name} {value.text}: {value.shortfall}.",
            ValueKey(value.key),
            clause,
            _remedy(value),
            _quick_fix(view, value),
        )
        for value in view.proposal.shortfall
        if value.key not in PLATE_DECIDES or view.circuits.undrawn or (value.key == "panel.box" and view.layout.misfits)
    ]
    evidence = (f"{len(view.proposal.values)} values sized", f"heat {view.inside_air.total_w:g} W")
    return ClauseResult("B03", Group.BRIEF, "Everything sized suffices", clause, evidence, tuple(findings))


def _owner(view: View, value: Value) -> str:
    return next((f"{load.name}: " for load in view.loads if load.id == value.load), "")


def _remedy(value: Value) -> str:
    if value.overridden:
        return "Go back to what Riktig proposes, or give a larger value."
    return {
        "panel.box": "Take the larger box, or plan the plate and judge it there.",
        "panel.inside": "Take a larger box, ventilate it, or size for warmer air.",
        "panel.lines": "Spread the single-phase loads otherwise.",
        "panel.upstream": "Agree the supply with the customer, and say so in the Brief.",
    }.get(value.key, "Choose another starter, split the load, or add a part of that size to the catalogue.")


def _quick_fix(view: View, value: Value) -> QuickFix | None:
    if value.overridden:
        return QuickFix("Go back to Riktig's value", "own value away", value.key)
    if value.key in ("panel.box", "panel.inside") and view.proposal.heat.box is not None:
        return QuickFix(f"Take a box of {view.proposal.heat.box.name}", "proposed box")
    if value.key == "panel.lines" and view.practice.way_order is WayOrder.IN_TURN:
        return QuickFix("Each way to the line that carries least", "even ways")
    return None


def own_values(view: View) -> ClauseResult:
    """What the builder decided otherwise than proposed, each with its reason."""
    clause = COMMON_PRACTICE
    overridden = [value for value in view.proposal.values if value.overridden]
    evidence = [
        f"{_owner(view, v)}{v.name} {v.text} instead of {v.proposed:g} {v.unit}: {v.reason}".replace("  ", " ")
        for v in overridden
    ]
    findings = [
        Finding(
            "B04",
            Verdict.JUDGE,
            f"A value of your own for {override.key} ({override.amount:g}: {override.reason}) no longer decides"
            " anything.",
            PartKey("brief"),
            clause,
            "Take it back if it is no longer meant.",
            QuickFix("Take it back", "own value away", override.key),
        )
        for override in view.proposal.strayed
    ]
    lines = tuple(evidence) or ("everything as Riktig proposes",)
    return ClauseResult("B04", Group.BRIEF, "Values of the builder's own", clause, lines, tuple(findings))


def all_drawn(view: View) -> ClauseResult:
    """What is sized has a circuit: nothing is left out of the panel in silence."""
    clause = COMMON_PRACTICE
    by_circuit = {circuit.id: circuit for circuit in view.own_circuits}
    load_names = {load.id: load.name for load in view.loads}
    undrawn = [by_circuit[circuit_id] for circuit_id in view.circuits.undrawn]
    names = [(load_names.get(c.load, "") if c.load else "") or c.title or f"circuit {c.id}" for c in undrawn]
    findings = [
        Finding(
            "B05",
            Verdict.JUDGE,
            f"{name[:1].upper()}{name[1:]} is sized in the Brief but has no circuit yet: its parts, wires and tests "
            "are in no list.",
            LoadKey(circuit.load) if circuit.load in load_names else CircuitKey(circuit.id),
            clause,
            "Draw it by hand beside the sheets until Riktig has the recipe.",
        )
        for circuit, name in zip(undrawn, names, strict=True)
    ]
    missing = _not_drawn(view)
    findings += [
        Finding(
            "B05",
            Verdict.JUDGE,
            f"The {signal.name} ({signal.form.value}, {signal.direction.value}, fed by {signal.wetting.value}) "
            "is in the Brief but in no circuit: it has no terminals, wires or test.",
            LoadKey(signal.load) if signal.load in load_names else PartKey("signals"),
            clause,
            "Draw it by hand, or remove it from the Brief.",
        )
        for signal in missing
    ]
    drawn = len(view.loads) - len(names)
    evidence = (
        f"{drawn} of {len(view.loads)} loads drawn",
        f"{len(view.signals) - len(missing)} of {len(view.signals)} field devices drawn",
    )
    return ClauseResult("B05", Group.BRIEF, "Everything sized is drawn", clause, evidence, tuple(findings))


def _not_drawn(view: View) -> list[Signal]:
    """The signals that no device in the field stands for; of several with one name, as many as lack a device."""
    of_field = [d for d in view.circuits.devices if d.zone is Zone.FIELD]
    texts = [f", {device.purpose.partition(', ')[2]}," for device in of_field]
    left = {signal.name: sum(f", {signal.name}," in text for text in texts) for signal in view.signals}
    missing = []
    for signal in view.signals:
        if _is_reference(view, signal):
            continue
        if left[signal.name]:
            left[signal.name] -= 1
        else:
            missing.append(signal)
    return missing


def _is_reference(view: View, signal: Signal) -> bool:
    """Whether a signal is the speed that the controller gives a drive: its conductors are drawn between the two."""
    load = next((load for load in view.loads if load.id == signal.load), None)
    is_reference = signal.form is Form.ANALOGUE and signal.direction is Direction.OUT
    return load is not None and is_reference and load.start is Start.DRIVE and load.command is Command.CONTROLLER


def sources_used(view: View) -> ClauseResult:
    """Every supply from elsewhere that the Brief names is one that something in the panel is on."""
    clause = view.source("B06")
    foreign = [device for device in view.circuits.devices if device.kind.can(Can.FOREIGN_SUPPLY)]
    findings = [
        Finding(
            "B06",
            Verdict.JUDGE,
            f"The {source.name} ({source.volts}) is said to arrive, and nothing in the panel is on it.",
            PartKey("sources"),
            clause,
            "Draw what it feeds, say which field device is on it, or remove it from the Brief.",
        )
        for source in view.sources
        if not any(source.name in device.purpose or device.volts == source.voltage_v for device in foreign)
    ]
    evidence = (f"{len(view.sources)} named, {len(foreign)} drawn",)
    return ClauseResult("B06", Group.BRIEF, "Supplies from elsewhere", clause, evidence, tuple(findings))


BRIEF = (answers_agree, every_source_named, sizes_suffice, own_values, all_drawn, sources_used)
