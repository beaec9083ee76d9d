from .derived import FUNCTION, STILL_LIVE, TESTS
from .function import FunctionStep, plan_function
from .tests import Expected, ProvingStage, Test, TestPlan, TestPoint, plan_tests
from .verdicts import (
    OPEN_LINE,
    CountedReading,
    Outcome,
    Results,
    judge,
    ohm_text,
    read_ohm,
    reading_facts,
    results_of,
    shut_because,
)

__all__ = [
    "FUNCTION",
    "OPEN_LINE",
    "STILL_LIVE",
    "TESTS",
    "CountedReading",
    "Expected",
    "FunctionStep",
    "Outcome",
    "ProvingStage",
    "Results",
    "Test",
    "TestPlan",
    "TestPoint",
    "judge",
    "ohm_text",
    "plan_function",
    "plan_tests",
    "read_ohm",
    "reading_facts",
    "results_of",
    "shut_because",
]
