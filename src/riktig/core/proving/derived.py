"""What this step offers the evaluation."""

from riktig.core.evaluation import reads
from riktig.core.job import JOB_CIRCUIT_INPUTS
from riktig.core.proving.function import plan_function
from riktig.core.proving.lockout import still_live_text
from riktig.core.proving.tests import plan_tests
from riktig.core.schematic import CIRCUITS, NAMES, NETS
from riktig.core.simulation import LIVE_WITH_MAIN_OFF, PRESSED_TOGETHER, RATINGS
from riktig.core.sizing import SIZING
from riktig.core.wiring import WIRING

__all__ = ["FUNCTION", "STILL_LIVE", "TESTS"]

STILL_LIVE = (reads(LIVE_WITH_MAIN_OFF) & CIRCUITS & NAMES).derive("cut off first", still_live_text)
FUNCTION = (reads(JOB_CIRCUIT_INPUTS) & CIRCUITS & NAMES & PRESSED_TOGETHER).derive("function tests", plan_function)
TESTS = (reads(CIRCUITS) & NETS & NAMES & SIZING & WIRING & RATINGS).derive("tests", plan_tests)
