from .as_found import found_circuits, is_as_found
from .derived import CLAUSES, RULES, VIEW, WALK_DRAWING, findings_of
from .draw_walk import circuit_at, draw_walk, group_key, group_of_key
from .inspection import NotedFinding, comparison_facts, comparisons_of, findings_noted
from .judgements import StandOfClauses, judgement_facts, judgements_of, signers_of, stand_of_clauses
from .model import ClauseResult, Finding, Group, QuickFix, Verdict
from .quick_fixes import apply_mend, larger_enclosure, proposed_box
from .view import View

__all__ = [
    "CLAUSES",
    "RULES",
    "VIEW",
    "WALK_DRAWING",
    "ClauseResult",
    "Finding",
    "Group",
    "NotedFinding",
    "QuickFix",
    "StandOfClauses",
    "Verdict",
    "View",
    "apply_mend",
    "circuit_at",
    "comparison_facts",
    "comparisons_of",
    "draw_walk",
    "findings_noted",
    "findings_of",
    "found_circuits",
    "group_key",
    "group_of_key",
    "is_as_found",
    "judgement_facts",
    "judgements_of",
    "larger_enclosure",
    "proposed_box",
    "signers_of",
    "stand_of_clauses",
]
