from .bound import least_wire
from .problem import PanelToPlan, Problem, Tie, problem_of
from .result import boxes_that_do, reached, realised
from .search import FIRST_STEPS, Found, Run, Watch, cost, improve, is_small, now_of, one_after_another

__all__ = [
    "FIRST_STEPS",
    "Found",
    "PanelToPlan",
    "Problem",
    "Run",
    "Tie",
    "Watch",
    "boxes_that_do",
    "cost",
    "improve",
    "is_small",
    "least_wire",
    "now_of",
    "one_after_another",
    "problem_of",
    "reached",
    "realised",
]
