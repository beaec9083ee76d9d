from .behaviour import ScriptOutcome, behaviour_of, behaviours_of, with_tags
from .conductors import Conductor, conductors_of, drawn_conductors
from .derived import (
    BEHAVIOURS,
    CONDUCTORS,
    FEED_FAULTS,
    INPUTS_FOLLOW,
    ISOLATIONS,
    LIVE_WITH_MAIN_OFF,
    NETWORK,
    PRESSED_TOGETHER,
    RATINGS,
    RESTARTS,
    TRANSFERS,
)
from .draw_front import front_shapes, lit_lamps
from .draw_live import LEGEND, live_shapes
from .explain import Role, called, path_words, roles_of, why
from .fault_injection import IN_WIRES, FaultKind, InjectedFault, conductors_with_faults, faults_at, inject_faults
from .feeds import Feed, FeedFault, FeedKind, PolesInReach, feed_faults, feeds_of
from .handover import go_on_from
from .inputs_follow import InputFollows, inputs_follow
from .isolation_points import LockOff, lock_off, lock_off_text
from .live import IsolationResult, LiveNet, isolations_of, live_nets, live_off
from .meter import Meter, MeterReading, meter_of
from .network import MAINS, Network, SupplyPole
from .nodal import islands
from .operators import Operator, Touch, operate, operators_of, position_of
from .panel import control_volts, panel_of
from .pressed_together import PressedTogether, pressed_together
from .ratings import Rating, described, ratings_of
from .restart import Restart, restarts_of
from .run import Event, Panel
from .script import Runner, StepResult, guard_of, read_script, run_script, try_script
from .state import CHANGED_OVER, ContactStage, OperatorState, is_closed
from .tank import Carriage, Tank, carriages_of, set_level, set_travel, tanks_of
from .transfers import Transfer, transfers_of

__all__ = [
    "BEHAVIOURS",
    "CHANGED_OVER",
    "CONDUCTORS",
    "FEED_FAULTS",
    "INPUTS_FOLLOW",
    "IN_WIRES",
    "ISOLATIONS",
    "LEGEND",
    "LIVE_WITH_MAIN_OFF",
    "MAINS",
    "NETWORK",
    "PRESSED_TOGETHER",
    "RATINGS",
    "RESTARTS",
    "TRANSFERS",
    "Carriage",
    "Conductor",
    "ContactStage",
    "Event",
    "FaultKind",
    "Feed",
    "FeedFault",
    "FeedKind",
    "InjectedFault",
    "InputFollows",
    "IsolationResult",
    "LiveNet",
    "LockOff",
    "Meter",
    "MeterReading",
    "Network",
    "Operator",
    "OperatorState",
    "Panel",
    "PolesInReach",
    "PressedTogether",
    "Rating",
    "Restart",
    "Role",
    "Runner",
    "ScriptOutcome",
    "StepResult",
    "SupplyPole",
    "Tank",
    "Touch",
    "Transfer",
    "behaviour_of",
    "behaviours_of",
    "called",
    "carriages_of",
    "conductors_of",
    "conductors_with_faults",
    "control_volts",
    "described",
    "drawn_conductors",
    "faults_at",
    "feed_faults",
    "feeds_of",
    "front_shapes",
    "go_on_from",
    "guard_of",
    "inject_faults",
    "inputs_follow",
    "is_closed",
    "islands",
    "isolations_of",
    "lit_lamps",
    "live_nets",
    "live_off",
    "live_shapes",
    "lock_off",
    "lock_off_text",
    "meter_of",
    "operate",
    "operators_of",
    "panel_of",
    "path_words",
    "position_of",
    "pressed_together",
    "ratings_of",
    "read_script",
    "restarts_of",
    "roles_of",
    "run_script",
    "set_level",
    "set_travel",
    "tanks_of",
    "transfers_of",
    "try_script",
    "why",
    "with_tags",
]
