from .dead_panel import DeadPanel, Piece, PieceKind, dead_panel
from .dead_readings import bounds, resistances
from .derived import (
    DEAD_PANEL,
    ENERGISED,
    FUNCTION,
    LIVE_PLAN,
    LIVE_SCRIPTS,
    OPERATING,
    PANEL_FACTS,
    PIN_PLACES,
    STILL_LIVE,
    SWITCH_BOX,
    TESTS,
)
from .effort import minutes_of
from .fault_effects import Effects, Faults
from .fault_words import fault_keys, fault_words, repair_words
from .function import FunctionStep, Scripts, live_script, live_scripts, plan_function
from .instrument import Instrument
from .live_evidence import LiveEvidence, live_evidence, seen_after
from .live_plan import plan_live
from .live_results import LiveGate, LiveResult, live_facts, live_gate, live_results, read_value
from .live_seen import (
    MakesPanel,
    SeenAfterStep,
    positions_seen,
    read_seen,
    seen_of,
    seen_words,
    states_after,
    watched_in,
)
from .live_step import LiveStep
from .live_trial import LiveTrial
from .locate import NextProbe, Probe, Suspect, locate, next_probe
from .locate_live import locate_live
from .meter_help import ToMeasure, what_to_measure
from .neighbours import neighbours
from .operating import Operating, how_it_is_operated
from .places import pin_places
from .plan import plan_tests
from .planner import PanelFacts, Planner
from .practice import HINT_COST, Lesson, Score, lesson_faults, noted_before, score_of
from .probe_order import best_order, costs_of, order_tests, path_cost
from .repair import repair_entries, repeated_after
from .settings import plan_settings
from .switch_box import BoxPlace, Imitates, draw_switch_box, places_in, plan_switch_box
from .switch_drawing import draw_switches
from .switch_state import NOT_CONNECTED, SwitchState, change_words, closed_in, state_of, state_words
from .telephone import (
    NEVER,
    Cause,
    LampRow,
    Likely,
    Sighting,
    TelephoneTable,
    lamp_table,
    likely_causes,
    next_question,
    telephone_table,
    what_nobody_does,
    who_resets,
)
from .tests import Expected, ProvingStage, Test, TestPlan, TestPoint
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
    without_leads,
)
from .where_drawing import bounds_of_all, draw_close, draw_outlines, is_on_door, mark_points
from .wrong_panel import single_faults, with_faults

__all__ = [
    "DEAD_PANEL",
    "ENERGISED",
    "FUNCTION",
    "HINT_COST",
    "LIVE_PLAN",
    "LIVE_SCRIPTS",
    "NEVER",
    "NOT_CONNECTED",
    "OPEN_LINE",
    "OPERATING",
    "PANEL_FACTS",
    "PIN_PLACES",
    "STILL_LIVE",
    "SWITCH_BOX",
    "TESTS",
    "BoxPlace",
    "Cause",
    "CountedReading",
    "DeadPanel",
    "Effects",
    "Expected",
    "Faults",
    "FunctionStep",
    "Imitates",
    "Instrument",
    "LampRow",
    "Lesson",
    "Likely",
    "LiveEvidence",
    "LiveGate",
    "LiveResult",
    "LiveStep",
    "LiveTrial",
    "MakesPanel",
    "NextProbe",
    "Operating",
    "Outcome",
    "PanelFacts",
    "Piece",
    "PieceKind",
    "Planner",
    "Probe",
    "ProvingStage",
    "Results",
    "Score",
    "Scripts",
    "SeenAfterStep",
    "Sighting",
    "Suspect",
    "SwitchState",
    "TelephoneTable",
    "Test",
    "TestPlan",
    "TestPoint",
    "ToMeasure",
    "best_order",
    "bounds",
    "bounds_of_all",
    "change_words",
    "closed_in",
    "costs_of",
    "dead_panel",
    "draw_close",
    "draw_outlines",
    "draw_switch_box",
    "draw_switches",
    "fault_keys",
    "fault_words",
    "how_it_is_operated",
    "is_on_door",
    "judge",
    "lamp_table",
    "lesson_faults",
    "likely_causes",
    "live_evidence",
    "live_facts",
    "live_gate",
    "live_results",
    "live_script",
    "live_scripts",
    "locate",
    "locate_live",
    "mark_points",
    "minutes_of",
    "neighbours",
    "next_probe",
    "next_question",
    "noted_before",
    "ohm_text",
    "order_tests",
    "path_cost",
    "pin_places",
    "places_in",
    "plan_function",
    "plan_live",
    "plan_settings",
    "plan_switch_box",
    "plan_tests",
    "positions_seen",
    "read_ohm",
    "read_seen",
    "read_value",
    "reading_facts",
    "repair_entries",
    "repair_words",
    "repeated_after",
    "resistances",
    "results_of",
    "score_of",
    "seen_after",
    "seen_of",
    "seen_words",
    "single_faults",
    "state_of",
    "state_words",
    "states_after",
    "telephone_table",
    "watched_in",
    "what_nobody_does",
    "what_to_measure",
    "who_resets",
    "with_faults",
    "without_leads",
]
