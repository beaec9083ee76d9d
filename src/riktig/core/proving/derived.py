"""What this step offers the evaluation."""

from riktig.core.door import DOOR
from riktig.core.evaluation import reads
from riktig.core.job import JOB_CIRCUIT_INPUTS, JOB_PRACTICE, Practice
from riktig.core.plate import LAYOUT
from riktig.core.proving.dead_panel import DeadPanel, dead_panel
from riktig.core.proving.function import plan_function
from riktig.core.proving.lockout import still_live_text
from riktig.core.proving.plan import plan_tests
from riktig.core.proving.planner import PanelFacts
from riktig.core.schematic import CIRCUITS, NAMES, NETS
from riktig.core.simulation import LIVE_WITH_MAIN_OFF, NETWORK, PRESSED_TOGETHER, RATINGS
from riktig.core.sizing import SIZING
from riktig.core.wiring import WIRING

__all__ = ["DEAD_PANEL", "FUNCTION", "PANEL_FACTS", "STILL_LIVE", "TESTS"]


def _north_american(practice: Practice) -> bool:
    return practice.rulebook.north_american


def _dead(facts: PanelFacts) -> DeadPanel:
    return dead_panel(facts.circuits, facts.nets, facts.wiring, facts.sizing.parts, facts.ratings)


STILL_LIVE = (reads(LIVE_WITH_MAIN_OFF) & CIRCUITS & NAMES).derive("cut off first", still_live_text)
FUNCTION = (reads(JOB_CIRCUIT_INPUTS) & CIRCUITS & NAMES & PRESSED_TOGETHER).derive("function tests", plan_function)
_MARKET = reads(JOB_PRACTICE).derive("market", _north_american)
PANEL_FACTS = (reads(CIRCUITS) & NETS & NAMES & SIZING & WIRING & RATINGS & NETWORK & _MARKET).derive(
    "panel as it is tested", PanelFacts
)
DEAD_PANEL = reads(PANEL_FACTS).derive("dead panel", _dead)
"""The panel as a meter finds it without power."""
TESTS = (reads(PANEL_FACTS) & DEAD_PANEL & LAYOUT & DOOR).derive("tests", plan_tests)
