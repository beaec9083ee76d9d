from .bound import least_wire
from .problem import Problem, Tie, problem_of
from .result import boxes_that_do, reached, realised
from .search import FIRST_STEPS, Found, Run, cost, improve, is_small, now_of, one_after_another

__all__ = [
    "FIRST_STEPS",
    "Found",
    "Problem",
    "Run",
    "Tie",
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
