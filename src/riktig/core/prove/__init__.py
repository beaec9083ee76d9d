"""Proof of the dead panel: one test at a time, expected reading, reading, verdict.

Words: *black* and *red* are the two points to touch; a test is *true of* the wires it reads, and
a reading is out of date when they change; live stages stay *shut*.
"""

from riktig.core.circuit import CIRCUITS, NAMES, NETS
from riktig.core.plan import Derived
from riktig.core.prove.tests import Expected, Stage, Test, TestPlan, TestPoint, plan_tests
from riktig.core.prove.verdicts import (
    OPEN_LINE,
    Outcome,
    Reading,
    Results,
    judge,
    ohm_text,
    read_ohm,
    reading_facts,
    results_of,
    shut_because,
)
from riktig.core.sizing import SIZING
from riktig.core.wiring import WIRING

__all__ = [
    "OPEN_LINE",
    "TESTS",
    "Expected",
    "Outcome",
    "Reading",
    "Results",
    "Stage",
    "Test",
    "TestPlan",
    "TestPoint",
    "judge",
    "ohm_text",
    "plan_tests",
    "read_ohm",
    "reading_facts",
    "results_of",
    "shut_because",
]

TESTS = Derived("tests", (CIRCUITS, NETS, NAMES, SIZING, WIRING), plan_tests)
