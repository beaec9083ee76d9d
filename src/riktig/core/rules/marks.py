"""What the mark on the enclosure covers, and what the panel as a whole carries: asked for, never claimed."""

from riktig.core.job import ApprovalMarks
from riktig.core.keys import PartKey
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.rules.view import View

__all__ = ["MARKS"]


def marks_of_approval(view: View) -> ClauseResult:
    """The enclosure's own mark covers the empty box alone; whether the panel carries one its maker says."""
    clause = view.source("M06")
    american = view.rulebook.north_american
    marks = view.marks
    evidence = [
        f"enclosure {view.enclosure.rating}, as bought" + (f", marked “{marks.enclosure}”" if marks.enclosure else ""),
        _said_of_panel(marks),
    ]
    if american:
        evidence.append("who marks panels under a listing is inspected in his shop, commonly four times a year")
    if not view.loads:
        none = "nothing is built into the enclosure yet"
        return ClauseResult("M06", Group.MARKING, "Marks of approval", clause, tuple(evidence), (), none)
    whole = (
        "as an industrial control panel, with a number of its own, under whose file, is for its maker to say"
        if american
        else "its maker declares it by IEC 61439 and by the directives that apply, in his own name"
    )
    findings = []
    if marks.is_same_text:
        same = f"“{marks.panel}” is the mark of the empty enclosure, and it is given as that of the panel as well."
        away = "Write in the Brief what the panel itself carries, with its own number and date, or leave it empty."
        findings.append(Finding("M06", Verdict.FAILS, same, PartKey("nameplate"), clause, away))
    for part in marks.missing:
        lacking = f"The Brief says that the panel carries a mark, and not its {part}."
        findings.append(Finding("M06", Verdict.FAILS, lacking, PartKey("nameplate"), clause, "Write it in the Brief."))
    words = f"The mark on the enclosure covers the enclosure alone. Whether the panel as a whole is marked, {whole}."
    remedy = "Sign with what allows the mark in the Brief, or with the declaration; or that none is asked for."
    findings.append(Finding("M06", Verdict.JUDGE, words, PartKey("nameplate"), clause, remedy))
    return ClauseResult("M06", Group.MARKING, "Marks of approval", clause, tuple(evidence), tuple(findings))


def _said_of_panel(marks: ApprovalMarks) -> str:
    if not marks.panel:
        return "a mark of the panel is not in the Brief"
    number, date = (f"{word} {said}" if said else "" for word, said in (("number", marks.number), ("of", marks.date)))
    said = ", ".join(filter(None, (f"“{marks.panel}”", number, date)))
    return f"the panel, by the Brief: {said}; whether it may carry that is not to be seen here"


MARKS = (marks_of_approval,)
