"""What is looked at before anything is measured: the visual inspection, point by point."""

from collections.abc import Iterable
from dataclasses import dataclass

from riktig.core.job import Rulebook
from riktig.core.production.work_model import BuildStage, WorkTask
from riktig.core.records import TaskDone
from riktig.core.rules import ClauseResult, Verdict
from riktig.core.standards import clause_look

__all__ = ["LookedAt", "clauses_to_look_at", "inspection_points"]

POINTS = (
    (
        "11.2", "Degree of protection of the enclosure", "NEMA 250, UL 50E",
        ("every hole closed by its fitting, seals in place", "doors close all round, locks catch"),
    ),
    (
        "11.3", "Clearances and creepage distances", "UL 508A Table 10.1",
        ("no strand, screw or cut-off between bare parts", "bare bars and terminals apart as their parts demand"),
    ),
    (
        "11.4", "Protection against electric shock, protective circuits", "NFPA 79 8.2",
        ("covers over what stays live, with their marks", "protective conductors tight, paint off under each"),
    ),
    (
        "11.5", "Parts as the list has them", "UL 508A supplement SA",
        ("type and rating of each part read off the part itself", "settings of overloads and timers as listed"),
    ),
    (
        "11.6", "Internal circuits and connections", "NFPA 79 13.1",
        ("one tug at each end, no insulation in a clamp, no strand beside it", "screws marked when tightened"),
    ),
    (
        "11.7", "Terminals for external conductors", "UL 508A 54",
        ("number, type and mark as the plan has them", "room to bring the cables in and bend them"),
    ),
    (
        "11.8", "Mechanical operation", "NFPA 79 5.3",
        ("switches, handle and interlocks move through all positions", "door locked in on, padlock takes in off"),
    ),
    (
        "8.2", "Protective conductors from one root", "NFPA 79 8.2, NEC 250.6",
        (
            "bar to door, plate, sections and every part of metal, one conductor a way",
            "green-yellow, or green, and nothing else in that colour",
        ),
    ),
    (
        "13.2", "Colours, numbers and ends of conductors", "NFPA 79 13.2",
        (
            "each family in its colour: power, neutral, control, direct current, what stays live",
            "the number at both ends, as drawn and legible",
            "a ferrule or lug that fits the clamp",
        ),
    ),
    (
        "16.4", "Nameplate and labels of the sources", "NEC 409.110, NFPA 79 16.4",
        (
            "outside, every field filled, the short-circuit rating that of the panel",
            "a plate at each source with its voltage; what the main switch leaves live is named",
        ),
    ),
    (
        "16.3", "Tags, legends and warnings", "NFPA 79 16.3 and 16.5",
        (
            "the tag beside each part and on it, as drawn",
            "each operator says what it does; the sign of electricity outside",
        ),
    ),
)  # fmt: skip
"""Clause, what it is about, where North America has it, and what to look at.

Clauses that begin with 11 are of IEC 61439-1:2011, the others of IEC 60204-1:2016; all are from memory. What to look at
is common practice.
"""
MINUTES_A_POINT = 6.0
"""Chosen by us."""


MINUTES_A_CLAUSE = 1.0
"""Chosen by us."""


@dataclass(frozen=True, slots=True)
class LookedAt:
    """A clause of the rulebook that is looked at on the panel: its code, what it is called and what it rests on."""

    code: str
    title: str
    source: str


def clauses_to_look_at(results: Iterable[ClauseResult]) -> tuple[LookedAt, ...]:
    """The clauses that apply to a panel and of which something can be seen on it, in the order of an inspector's walk.

    Args:
        results: All clauses, judged.
    """
    return tuple(
        LookedAt(result.code, result.title, result.clause)
        for result in results
        if result.verdict is not Verdict.NOT_APPLICABLE and clause_look(result.code)
    )


def inspection_points(rulebook: Rulebook, clauses: Iterable[LookedAt]) -> tuple[WorkTask, ...]:
    """A task for each point of the routine inspection, then one for each clause that can be seen on the panel.

    Args:
        rulebook: Of the job.
        clauses: The clauses of the rulebook that apply.
    """
    tasks: list[WorkTask] = []
    for clause, about, north_american, look in POINTS:
        european = f"IEC 61439-1 {clause}" if clause.startswith("11.") else f"IEC 60204-1 {clause}"
        source = f"{north_american if rulebook.north_american else european}, from memory"
        facts = TaskDone(BuildStage.INSPECTION.value, about, "; ".join(look))
        how = (*look, f"source: {source}")
        tasks.append(WorkTask(BuildStage.INSPECTION, f"task:look {clause}", about, how, facts, minutes=MINUTES_A_POINT))
    for seen in clauses:
        title, visible = f"{seen.code} {seen.title}", clause_look(seen.code)
        facts = TaskDone(BuildStage.INSPECTION.value, title, visible)
        how = (visible, f"source: {seen.source}")
        tasks.append(
            WorkTask(BuildStage.INSPECTION, f"task:clause {seen.code}", title, how, facts, minutes=MINUTES_A_CLAUSE)
        )
    return tuple(tasks)
