"""Proof of the dead panel: one test at a time, expected reading, reading, verdict.

Words: *black* and *red* are the two points to touch; a test is *true of* the wires it reads, and
a reading is out of date when they change; live stages stay *shut*.
"""

from riktig.core.evaluation import reads
from riktig.core.job import JOB_CIRCUITS, JOB_LOADS, JOB_PRACTICE, JOB_SIGNALS, JOB_SUPPLY
from riktig.core.proving.function import FunctionStep, plan_function
from riktig.core.proving.lockout import still_live_text
from riktig.core.proving.tests import Expected, ProvingStage, Test, TestPlan, TestPoint, plan_tests
from riktig.core.proving.verdicts import (
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
from riktig.core.schematic import CIRCUITS, NAMES, NETS
from riktig.core.simulation import LIVE_WITH_MAIN_OFF
from riktig.core.sizing import SIZING
from riktig.core.wiring import WIRING

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

STILL_LIVE = (reads(LIVE_WITH_MAIN_OFF) & CIRCUITS & NAMES).derive("cut off first", still_live_text)
FUNCTION = (reads(JOB_CIRCUITS) & JOB_LOADS & JOB_SUPPLY & JOB_PRACTICE & JOB_SIGNALS & CIRCUITS & NAMES).derive(
    "function tests", plan_function
)
TESTS = (reads(CIRCUITS) & NETS & NAMES & SIZING & WIRING).derive("tests", plan_tests)
