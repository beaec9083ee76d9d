"""What is live, what works, what a meter reads, and whether circuits do what they must.

Words: *hands* is all that was done to a panel; a *pole* is one side of a supply, a *system* all poles of
one supply; a *point* is what joined pins share; a contact *leads on* while it is closed.
"""

from riktig.core.catalogue import Can
from riktig.core.evaluation import reads
from riktig.core.job import (
    JOB_CIRCUITS,
    JOB_LOADS,
    JOB_PRACTICE,
    JOB_SIGNALS,
    JOB_SUPPLY,
    Circuit,
    Load,
    Practice,
    Signal,
    Supply,
)
from riktig.core.schematic import CIRCUITS, NETS, Circuits, Nets, all_circuits
from riktig.core.simulation.behaviour import ScriptOutcome, behaviour_of, with_tags
from riktig.core.simulation.conductors import Conductor, conductors_of, drawn_conductors
from riktig.core.simulation.draw_live import LEGEND, live_marks
from riktig.core.simulation.explain import Role, called, roles_of, why
from riktig.core.simulation.fault_injection import (
    FaultKind,
    InjectedFault,
    conductors_with_faults,
    faults_at,
    inject_faults,
)
from riktig.core.simulation.handover import go_on_from
from riktig.core.simulation.live import IsolationResult, LiveNet, isolations_of, live_nets, live_off
from riktig.core.simulation.lock_off import LockOff, lock_off, lock_off_text
from riktig.core.simulation.meter import Meter, MeterReading, meter_of
from riktig.core.simulation.network import MAINS
from riktig.core.simulation.operators import Operator, Touch, operate, operators_of, position_of
from riktig.core.simulation.panel import control_volts, panel_of
from riktig.core.simulation.restart import Restart, restarts_of
from riktig.core.simulation.run import Event, Panel
from riktig.core.simulation.script import Runner, StepResult, read_script, run_script
from riktig.core.simulation.state import ContactStage, OperatorState
from riktig.core.simulation.tank import Carriage, Tank, carriages_of, set_level, set_travel, tanks_of
from riktig.core.terminals import STRIPS
from riktig.core.wiring import WIRING

__all__ = [
    "CONDUCTORS",
    "ISOLATIONS",
    "LEGEND",
    "LIVE_WITH_MAIN_OFF",
    "MAINS",
    "RESTARTS",
    "Carriage",
    "Conductor",
    "ContactStage",
    "Event",
    "FaultKind",
    "InjectedFault",
    "IsolationResult",
    "LiveNet",
    "LockOff",
    "Meter",
    "MeterReading",
    "Operator",
    "OperatorState",
    "Panel",
    "Restart",
    "Role",
    "Runner",
    "ScriptOutcome",
    "StepResult",
    "Tank",
    "Touch",
    "behaviour_of",
    "called",
    "carriages_of",
    "conductors_of",
    "conductors_with_faults",
    "control_volts",
    "drawn_conductors",
    "faults_at",
    "go_on_from",
    "inject_faults",
    "isolations_of",
    "live_marks",
    "live_nets",
    "live_off",
    "lock_off",
    "lock_off_text",
    "meter_of",
    "operate",
    "operators_of",
    "panel_of",
    "position_of",
    "read_script",
    "restarts_of",
    "roles_of",
    "run_script",
    "set_level",
    "set_travel",
    "tanks_of",
    "why",
    "with_tags",
]


def _with_main_off(circuits: Circuits, nets: Nets) -> tuple[LiveNet, ...]:
    main = frozenset(d.id for d in circuits.devices if d.kind.can(Can.MAIN_SWITCH))
    return live_off(circuits, nets, main)


def _isolations(
    circuits: Circuits, nets: Nets, loads: tuple[Load, ...], supply: Supply, practice: Practice
) -> tuple[IsolationResult, ...]:
    return isolations_of(Panel(circuits, nets, supply, control_volts(loads, supply, practice)))


def _restarts(
    circuits: Circuits,
    nets: Nets,
    own: tuple[Circuit, ...],
    loads: tuple[Load, ...],
    supply: Supply,
    practice: Practice,
    signals: tuple[Signal, ...],
) -> tuple[Restart, ...]:
    whole = all_circuits(own, loads, supply, practice, signals)
    panel = Panel(circuits, nets, supply, control_volts(loads, supply, practice))
    return restarts_of(whole, loads, signals, panel)


LIVE_WITH_MAIN_OFF = (reads(CIRCUITS) & NETS).derive("live with the main switch off", _with_main_off)
ISOLATIONS = (reads(CIRCUITS) & NETS & JOB_LOADS & JOB_SUPPLY & JOB_PRACTICE).derive("what stays live", _isolations)
RESTARTS = (reads(CIRCUITS) & NETS & JOB_CIRCUITS & JOB_LOADS & JOB_SUPPLY & JOB_PRACTICE & JOB_SIGNALS).derive(
    "what restarts by itself", _restarts
)
CONDUCTORS = (reads(CIRCUITS) & NETS & WIRING & STRIPS).derive("conductors", conductors_of)
