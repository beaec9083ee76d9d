"""What this step offers the evaluation."""

from collections.abc import Callable, Mapping, Sequence

from riktig.core.door import DOOR
from riktig.core.evaluation import reads
from riktig.core.ids import DeviceId
from riktig.core.job import JOB_CIRCUIT_INPUTS, JOB_PRACTICE, CircuitInputs, Practice
from riktig.core.plate import LAYOUT
from riktig.core.proving.dead_panel import DeadPanel, dead_panel
from riktig.core.proving.function import FunctionStep, live_scripts, plan_function
from riktig.core.proving.live_plan import plan_live
from riktig.core.proving.live_seen import MakesPanel
from riktig.core.proving.live_step import LiveStep
from riktig.core.proving.lockout import still_live_text
from riktig.core.proving.operating import how_it_is_operated
from riktig.core.proving.places import pin_places
from riktig.core.proving.plan import plan_tests
from riktig.core.proving.planner import PanelFacts
from riktig.core.proving.settings import plan_settings
from riktig.core.proving.switch_box import plan_switch_box
from riktig.core.schematic import CIRCUITS, NAMES, NETS, Circuits, Nets
from riktig.core.simulation import (
    CONDUCTORS,
    LIVE_WITH_MAIN_OFF,
    NETWORK,
    PRESSED_TOGETHER,
    RATINGS,
    RESTARTS,
    Conductor,
    InjectedFault,
    Panel,
    Restart,
    conductors_with_faults,
    control_volts,
    inject_faults,
)
from riktig.core.sizing import DIAL_SETTINGS, MOTOR_CURRENTS, SIZING, Sizing
from riktig.core.wiring import WIRING

__all__ = [
    "DEAD_PANEL", "ENERGISED", "FUNCTION", "LIVE_PLAN", "LIVE_SCRIPTS", "OPERATING", "PANEL_FACTS", "PIN_PLACES",
    "STILL_LIVE", "SWITCH_BOX", "TESTS",
]  # fmt: skip


def _north_american(practice: Practice) -> bool:
    return practice.rulebook.north_american


def _reads_control_wires(practice: Practice) -> bool:
    return practice.reads_control_wires


def _dead(facts: PanelFacts) -> DeadPanel:
    return dead_panel(facts.circuits, facts.nets, facts.wiring, facts.sizing.parts, facts.ratings)


def _energised(
    circuits: Circuits, nets: Nets, conductors: tuple[Conductor, ...], sizing: Sizing, inputs: CircuitInputs
) -> MakesPanel:
    """Makes the panel anew whenever it is asked for: the plan switches it."""
    volts = control_volts(inputs.loads, inputs.supply, inputs.practice)

    def make(faults: Sequence[InjectedFault] = ()) -> Panel:
        wired = conductors_with_faults(conductors, faults)
        panel = Panel(circuits, nets, inputs.supply, volts, wired, sizing.parts)
        if faults:
            inject_faults(panel.operator_state, faults)
            panel.run_until_stable()
        return panel

    return make


def _live(
    facts: PanelFacts,
    panel: Callable[[], Panel],
    steps: tuple[FunctionStep, ...],
    dials: Mapping[DeviceId, float],
    motors: Mapping[DeviceId, float],
    restarts: tuple[Restart, ...],
) -> tuple[LiveStep, ...]:
    return (*plan_settings(facts, dials, motors), *plan_live(facts, panel(), steps, restarts))


STILL_LIVE = (reads(LIVE_WITH_MAIN_OFF) & CIRCUITS & NAMES).derive("cut off first", still_live_text)
FUNCTION = (reads(JOB_CIRCUIT_INPUTS) & CIRCUITS & NAMES & PRESSED_TOGETHER).derive("function tests", plan_function)
LIVE_SCRIPTS = reads(JOB_CIRCUIT_INPUTS).derive("scripts at the panel", live_scripts)
"""The script of every circuit as it is done at the panel."""
_MARKET = reads(JOB_PRACTICE).derive("market", _north_american)
_CONTROL = reads(JOB_PRACTICE).derive("control wires are read", _reads_control_wires)
PANEL_FACTS = (reads(CIRCUITS) & NETS & NAMES & SIZING & WIRING & RATINGS & NETWORK & _MARKET).derive(
    "panel as it is tested", PanelFacts
)
DEAD_PANEL = reads(PANEL_FACTS).derive("dead panel", _dead)
"""The panel as a meter finds it without power."""
ENERGISED = (reads(CIRCUITS) & NETS & CONDUCTORS & SIZING & JOB_CIRCUIT_INPUTS).derive(
    "panel with power on", _energised
)
"""Makes the panel as it is wired, with power on and at rest."""
OPERATING = (reads(ENERGISED) & LIVE_SCRIPTS).derive("how it is operated", how_it_is_operated)
"""What is done at the door, and what the panel then does."""
LIVE_PLAN = (reads(PANEL_FACTS) & ENERGISED & FUNCTION & DIAL_SETTINGS & MOTOR_CURRENTS & RESTARTS).derive(
    "live tests", _live
)
"""The settings, and the steps under voltage."""
SWITCH_BOX = (reads(PANEL_FACTS) & ENERGISED & JOB_CIRCUIT_INPUTS).derive("switch box", plan_switch_box)
"""What stands in for the field when the panel is tested."""
PIN_PLACES = (reads(CIRCUITS) & LAYOUT & DOOR).derive("places of pins", pin_places)
"""Where every pin is for somebody with two probes."""
TESTS = (reads(PANEL_FACTS) & DEAD_PANEL & PIN_PLACES & _CONTROL).derive("tests", plan_tests)
