"""Plan for me: the plate as a problem, the search for a better plan, and what may honestly be said of it.

Words: a *unit* is a block as numbers; a *tie* is a wire whose length the plan decides; a *wish* is anything
beside wire that makes a plan better, counted in mm of wire.
"""

from riktig.core.optimiser.bound import least_wire
from riktig.core.optimiser.problem import Problem, Tie, problem_of
from riktig.core.optimiser.result import boxes_that_do, reached, realised
from riktig.core.optimiser.search import FIRST_STEPS, Found, Run, cost, improve, is_small, now_of, one_after_another

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
