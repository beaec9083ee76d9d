"""What the mark on the enclosure covers, and what the panel as a whole carries: asked for, never claimed."""

from riktig.core.keys import PartKey
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.rules.view import View

__all__ = ["MARKS"]


def marks_of_approval(view: View) -> ClauseResult:
    """The enclosure's own mark covers the empty box alone; whether the panel carries one its maker says."""
    clause = view.source("M06")
    american = view.rulebook.north_american
    evidence = [f"enclosure {view.enclosure.rating}, as bought", "a mark of the panel is not to be seen in its plan"]
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
    words = f"The mark on the enclosure covers the enclosure alone. Whether the panel as a whole is marked, {whole}."
    remedy = "Sign with the number of the mark, or of the declaration, as the evidence; or that none is asked for."
    finding = Finding("M06", Verdict.JUDGE, words, PartKey("nameplate"), clause, remedy)
    return ClauseResult("M06", Group.MARKING, "Marks of approval", clause, tuple(evidence), (finding,))


MARKS = (marks_of_approval,)
