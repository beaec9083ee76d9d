"""What this step offers the evaluation."""

from collections.abc import Callable, Mapping

from riktig.core.door import DOOR
from riktig.core.evaluation import reads
from riktig.core.ids import DeviceId
from riktig.core.job import JOB_CIRCUIT_INPUTS, JOB_PRACTICE, CircuitInputs, Practice
from riktig.core.plate import LAYOUT
from riktig.core.proving.dead_panel import DeadPanel, dead_panel
from riktig.core.proving.function import FunctionStep, plan_function
from riktig.core.proving.live_plan import LiveStep, plan_live
from riktig.core.proving.lockout import still_live_text
from riktig.core.proving.places import pin_places
from riktig.core.proving.plan import plan_tests
from riktig.core.proving.planner import PanelFacts
from riktig.core.proving.settings import plan_settings
from riktig.core.schematic import CIRCUITS, NAMES, NETS, Circuits, Nets
from riktig.core.simulation import (
    CONDUCTORS,
    LIVE_WITH_MAIN_OFF,
    NETWORK,
    PRESSED_TOGETHER,
    RATINGS,
    Conductor,
    Panel,
    control_volts,
)
from riktig.core.sizing import DIAL_SETTINGS, SIZING, Sizing
from riktig.core.wiring import WIRING

__all__ = ["DEAD_PANEL", "ENERGISED", "FUNCTION", "LIVE_PLAN", "PANEL_FACTS", "PIN_PLACES", "STILL_LIVE", "TESTS"]


def _north_american(practice: Practice) -> bool:
    return practice.rulebook.north_american


def _dead(facts: PanelFacts) -> DeadPanel:
    return dead_panel(facts.circuits, facts.nets, facts.wiring, facts.sizing.parts, facts.ratings)


def _energised(
    circuits: Circuits, nets: Nets, conductors: tuple[Conductor, ...], sizing: Sizing, inputs: CircuitInputs
) -> Callable[[], Panel]:
    """Makes the panel anew whenever it is asked for: the plan switches it."""
    volts = control_volts(inputs.loads, inputs.supply, inputs.practice)
    return lambda: Panel(circuits, nets, inputs.supply, volts, conductors, sizing.parts)


def _live(
    facts: PanelFacts, panel: Callable[[], Panel], steps: tuple[FunctionStep, ...], dials: Mapping[DeviceId, float]
) -> tuple[LiveStep, ...]:
    return (*plan_settings(facts, dials), *plan_live(facts, panel(), steps))


STILL_LIVE = (reads(LIVE_WITH_MAIN_OFF) & CIRCUITS & NAMES).derive("cut off first", still_live_text)
FUNCTION = (reads(JOB_CIRCUIT_INPUTS) & CIRCUITS & NAMES & PRESSED_TOGETHER).derive("function tests", plan_function)
_MARKET = reads(JOB_PRACTICE).derive("market", _north_american)
PANEL_FACTS = (reads(CIRCUITS) & NETS & NAMES & SIZING & WIRING & RATINGS & NETWORK & _MARKET).derive(
    "panel as it is tested", PanelFacts
)
DEAD_PANEL = reads(PANEL_FACTS).derive("dead panel", _dead)
"""The panel as a meter finds it without power."""
ENERGISED = (reads(CIRCUITS) & NETS & CONDUCTORS & SIZING & JOB_CIRCUIT_INPUTS).derive(
    "panel with power on", _energised
)
"""Makes the panel as it is wired, with power on and at rest."""
LIVE_PLAN = (reads(PANEL_FACTS) & ENERGISED & FUNCTION & DIAL_SETTINGS).derive("live tests", _live)
"""The settings, and the steps under voltage."""
PIN_PLACES = (reads(CIRCUITS) & LAYOUT & DOOR).derive("places of pins", pin_places)
"""Where every pin is for somebody with two probes."""
TESTS = (reads(PANEL_FACTS) & DEAD_PANEL & PIN_PLACES).derive("tests", plan_tests)
