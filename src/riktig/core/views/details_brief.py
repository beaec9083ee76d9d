"""The details of what stands in the Brief: a sized value, a load."""

from riktig.core.evaluation import Evaluation
from riktig.core.job import Job
from riktig.core.keys import LoadKey, ValueKey
from riktig.core.sizing import PROPOSAL, Value
from riktig.core.views.details_model import Details, DetailsRow, DetailsSection

__all__ = ["load_details", "value_details"]


def value_details(evaluation: Evaluation[Job], key: str) -> Details | None:
    """Everything about a sized value: where it is from, whose it is, what is wrong with it."""
    value = evaluation.get(PROPOSAL).value(key)
    if value is None:
        return None
    load = next((load for load in evaluation.document.loads if load.id == value.load), None)
    rows = [DetailsRow("Value", value.text)]
    if value.overridden:
        rows += [
            DetailsRow("Riktig proposes", f"{value.proposed:g} {value.unit}".strip()),
            DetailsRow("Your reason", value.reason),
        ]
    if value.shortfall:
        rows.append(DetailsRow("Not enough", value.shortfall))
    if value.unsure:
        rows.append(DetailsRow("Mark ?", "a figure we are not sure of decided it: compare it with the print"))
    whose = DetailsSection(
        "Of", (DetailsRow("Load", load.name, LoadKey(load.id)),) if load else (DetailsRow("Panel", "as a whole"),)
    )
    mark = " (yours)" if value.overridden else ""
    return Details(
        f"{value.name}{mark}",
        "value of the proposal",
        f"{load.name}, {load.power_name}." if load else "The panel as a whole.",
        (DetailsSection("As it stands", tuple(rows)), whose),
        (value.why,),
    )


def load_details(evaluation: Evaluation[Job], load_id: str) -> Details | None:
    """Everything about a load: what the customer said, and every value it led to."""
    job, proposal = evaluation.document, evaluation.get(PROPOSAL)
    load = next((load for load in job.loads if load.id == load_id), None)
    if load is None:
        return None
    sized = proposal.of_load(load.id)
    rows = [
        DetailsRow("Power", load.power_name),
        DetailsRow("Started", load.start.value),
        DetailsRow("Commanded", load.command.value),
        DetailsRow("Moved by", load.access.value),
        DetailsRow("Cut off by", load.isolation.value),
        DetailsRow("Work done", load.fitting.value),
        DetailsRow("Cable", f"{load.cable_m:g} m {load.laying.value}, {load.cables_together} together"),
    ]
    if load.maintained:
        rows.append(DetailsRow("Main switch off", "stays live"))
    if load.reason:
        rows.append(DetailsRow("Because", load.reason))
    values = tuple(DetailsRow(v.name, _value_words(v), ValueKey(v.key)) for v in (sized.values if sized else ()))
    sections = [DetailsSection("As the customer says it", tuple(rows)), DetailsSection("What follows", values)]
    if sized:
        cost = (DetailsRow("Rail", f"{sized.space:g} mm"), DetailsRow("Heat", f"{sized.loss_w:g} W"))
        parts = tuple(
            DetailsRow(c.role, f"{c.count} × {c.part.ref}" if c.count > 1 else c.part.ref) for c in sized.chosen
        )
        sections += [DetailsSection("Parts", parts), DetailsSection("Room and heat", cost)]
    field = tuple(DetailsRow(s.name, s.wetting.value) for s in job.signals if s.load == load.id)
    if field:
        sections.append(DetailsSection("Field devices", field))
    issues = tuple(DetailsRow("", d.text) for d in proposal.issues if d.where == LoadKey(load.id))
    if issues:
        sections.append(DetailsSection("Outstanding", issues))
    return Details(load.name, load.kind.value, f"{load.place}." if load.place else "", tuple(sections))


def _value_words(value: Value) -> str:
    signs = (" (yours)" if value.overridden else "") + (" ?" if value.unsure else "")
    return f"{value.text}{signs}"
