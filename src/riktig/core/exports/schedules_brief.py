"""Schedules of the Brief: loads, field devices, supplies, the proposal, the practice."""

from riktig.core.evaluation import Evaluation
from riktig.core.exports.schedule_model import Schedule
from riktig.core.ids import LoadId
from riktig.core.job import CHOICES, Job
from riktig.core.sizing import PROPOSAL

__all__ = ["SCHEDULES"]


def _loads(evaluation: Evaluation[Job]) -> Schedule:
    proposal = evaluation.get(PROPOSAL)
    lines, names = dict(proposal.incoming.on_line), evaluation.document.practice.phase_names.names
    rows = tuple(
        (
            load.name,
            load.kind.value,
            load.kw,
            load.hp,
            load.nameplate_a,
            load.phases,
            "-".join(names[n] for n in lines[load.id]),
            load.start.value,
            load.command.value,
            load.access.value,
            load.isolation.value,
            load.place,
            load.cable_m,
            load.laying.value,
            load.cables_together,
            "yes" if load.maintained else "",
            sized.amount("current"),
            sized.space,
            sized.loss_w,
            load.fitting.value,
            load.reason,
        )
        for load, sized in zip(evaluation.document.loads, proposal.loads, strict=True)
    )
    columns = (
        ("load", "Load"),
        ("kind", "Kind"),
        ("kw", "kW"),
        ("hp", "hp"),
        ("nameplate_a", "Plate A"),
        ("phases", "Lines"),
        ("on", "On"),
        ("start", "Started"),
        ("command", "Commanded by"),
        ("access", "Moved by"),
        ("isolation", "Cut off by"),
        ("place", "Place"),
        ("cable_m", "Cable m"),
        ("laying", "Cable lies"),
        ("cables_together", "Together"),
        ("maintained", "Stays live"),
        ("current_a", "Current A"),
        ("rail_mm", "Rail mm"),
        ("heat_w", "Heat W"),
        ("fitting", "Work done"),
        ("reason", "Because"),
    )
    return Schedule("loads", "Loads", columns, rows)


def _signals(evaluation: Evaluation[Job]) -> Schedule:
    names = {load.id: load.name for load in evaluation.document.loads}
    rows = tuple(
        (
            s.name,
            s.place,
            s.direction.value,
            s.form.value,
            s.wetting.value,
            s.watts,
            names.get(s.load, "") if s.load else "",
        )
        for s in evaluation.document.signals
    )
    columns = (
        ("signal", "Field device"),
        ("place", "Place"),
        ("direction", "Direction"),
        ("form", "Form"),
        ("fed_by", "Fed by"),
        ("watts", "W"),
        ("load", "Load"),
    )
    return Schedule("signals", "Field devices and signals", columns, rows)


def _sources(evaluation: Evaluation[Job]) -> Schedule:
    job = evaluation.document
    main_source = (
        job.supply.name,
        job.supply.voltage_v,
        job.supply.fed_from,
        job.supply.upstream_a,
        "this panel's main switch",
    )
    elsewhere = "elsewhere: stays live"
    rows = (main_source, *((s.name, s.voltage_v, s.comes_from, s.protected_a or "", elsewhere) for s in job.sources))
    columns = (
        ("source", "Supply"),
        ("voltage_v", "V"),
        ("from", "From"),
        ("protected_a", "Protected at A"),
        ("cut_off_by", "Cut off by"),
    )
    return Schedule("sources", "Supplies that enter", columns, rows)


def _proposal(evaluation: Evaluation[Job]) -> Schedule:
    names: dict[LoadId | None, str] = {load.id: load.name for load in evaluation.document.loads}
    rows = tuple(
        (
            value.key,
            names.get(value.load, "panel"),
            value.name,
            value.text,
            value.amount,
            value.unit,
            value.proposed,
            value.reason,
            value.shortfall,
            value.why.reason,
            "; ".join(value.why.lines),
            value.why.source,
            value.why.confidence,
        )
        for value in evaluation.get(PROPOSAL).values
    )
    columns = (
        ("key", "Key"),
        ("of", "Of"),
        ("what", "What"),
        ("value", "Value"),
        ("amount", "Amount"),
        ("unit", "Unit"),
        ("proposed", "Riktig proposes"),
        ("own_reason", "Own reason"),
        ("short", "Not enough"),
        ("reason", "Reason"),
        ("formula", "Formula"),
        ("source", "Source"),
        ("confidence", "Confidence"),
    )
    return Schedule("proposal", "Proposal, with the reasons", columns, rows)


def _practice(evaluation: Evaluation[Job]) -> Schedule:
    practice = evaluation.document.practice
    default = type(practice)()
    rows = tuple(
        (
            choice.field,
            choice.group,
            choice.question,
            str(getattr(practice, choice.field).value),
            "" if getattr(practice, choice.field) == getattr(default, choice.field) else "differs",
            choice.argument,
        )
        for choice in CHOICES
    )
    columns = (
        ("field", "Field"),
        ("group", "Group"),
        ("question", "Question"),
        ("answer", "Answer"),
        ("default", "Against the default"),
        ("argument", "Why the default"),
    )
    return Schedule("practice", "Practice of this job", columns, rows)


SCHEDULES = {"loads": _loads, "signals": _signals, "sources": _sources, "practice": _practice, "proposal": _proposal}
