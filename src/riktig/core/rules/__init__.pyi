from .derived import CLAUSES, RULES, VIEW, findings_of
from .judgements import judgement_facts, judgements_of
from .model import ClauseResult, Finding, Group, QuickFix, Verdict
from .quick_fixes import apply_mend, larger_enclosure, proposed_box
from .view import View

__all__ = [
    "CLAUSES",
    "RULES",
    "VIEW",
    "ClauseResult",
    "Finding",
    "Group",
    "QuickFix",
    "Verdict",
    "View",
    "apply_mend",
    "findings_of",
    "judgement_facts",
    "judgements_of",
    "larger_enclosure",
    "proposed_box",
]
