"""The passport of what stands in the Brief: a sized value, a load."""

from riktig.core.evaluation import Evaluation
from riktig.core.job import Job
from riktig.core.keys import LoadKey, ValueKey
from riktig.core.sizing import PROPOSAL, Value
from riktig.core.views.passport_model import Passport, PassportRow, PassportSection

__all__ = ["load_passport", "value_passport"]


def value_passport(evaluation: Evaluation[Job], key: str) -> Passport | None:
    """Everything about a sized value: where it is from, whose it is, what is wrong with it."""
    value = evaluation.get(PROPOSAL).value(key)
    if value is None:
        return None
    load = next((load for load in evaluation.document.loads if load.id == value.load), None)
    rows = [PassportRow("Value", value.text)]
    if value.overridden:
        rows += [
            PassportRow("Riktig proposes", f"{value.proposed:g} {value.unit}".strip()),
            PassportRow("Your reason", value.reason),
        ]
    if value.shortfall:
        rows.append(PassportRow("Not enough", value.shortfall))
    if value.unsure:
        rows.append(PassportRow("Mark ?", "a figure we are not sure of decided it: compare it with the print"))
    whose = PassportSection(
        "Of", (PassportRow("Load", load.name, LoadKey(load.id)),) if load else (PassportRow("Panel", "as a whole"),)
    )
    mark = " (yours)" if value.overridden else ""
    return Passport(
        f"{value.name}{mark}",
        "value of the proposal",
        f"{load.name}, {load.power_name}." if load else "The panel as a whole.",
        (PassportSection("As it stands", tuple(rows)), whose),
        (value.why,),
    )


def load_passport(evaluation: Evaluation[Job], load_id: str) -> Passport | None:
    """Everything about a load: what the customer said, and every value it led to."""
    job, proposal = evaluation.document, evaluation.get(PROPOSAL)
    load = next((load for load in job.loads if load.id == load_id), None)
    if load is None:
        return None
    sized = proposal.of_load(load.id)
    passport_rows = [
        PassportRow("Power", load.power_name),
        PassportRow("Started", load.start.value),
        PassportRow("Commanded", load.command.value),
        PassportRow("Moved by", load.access.value),
        PassportRow("Cut off by", load.isolation.value),
        PassportRow("Work done", load.fitting.value),
        PassportRow("Cable", f"{load.cable_m:g} m {load.laying.value}, {load.cables_together} together"),
    ]
    if load.maintained:
        passport_rows.append(PassportRow("Main switch off", "stays live"))
    if load.reason:
        passport_rows.append(PassportRow("Because", load.reason))
    values = tuple(PassportRow(v.name, _shown(v), ValueKey(v.key)) for v in (sized.values if sized else ()))
    sections = [
        PassportSection("As the customer says it", tuple(passport_rows)),
        PassportSection("What follows", values),
    ]
    if sized:
        cost = (PassportRow("Rail", f"{sized.space:g} mm"), PassportRow("Heat", f"{sized.loss_w:g} W"))
        parts = tuple(
            PassportRow(c.role, f"{c.count} × {c.part.ref}" if c.count > 1 else c.part.ref) for c in sized.chosen
        )
        sections += [PassportSection("Parts", parts), PassportSection("Room and heat", cost)]
    field = tuple(PassportRow(s.name, s.wetting.value) for s in job.signals if s.load == load.id)
    if field:
        sections.append(PassportSection("Field devices", field))
    issues = tuple(PassportRow("", d.text) for d in proposal.issues if d.where == LoadKey(load.id))
    if issues:
        sections.append(PassportSection("To settle", issues))
    return Passport(load.name, load.kind.value, f"{load.place}." if load.place else "", tuple(sections))


def _shown(value: Value) -> str:
    signs = (" (yours)" if value.overridden else "") + (" ?" if value.unsure else "")
    return f"{value.text}{signs}"
