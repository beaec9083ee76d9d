from .derived import CLAUSES, RULES, VIEW, findings_of
from .judgements import StandOfClauses, judgement_facts, judgements_of, stand_of_clauses
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
    "StandOfClauses",
    "Verdict",
    "View",
    "apply_mend",
    "findings_of",
    "judgement_facts",
    "judgements_of",
    "larger_enclosure",
    "proposed_box",
    "stand_of_clauses",
]
