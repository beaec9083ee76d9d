"""What this step offers the evaluation."""

from dataclasses import replace

from riktig.core.door import DOOR, SHAFTS
from riktig.core.evaluation import reads
from riktig.core.holes import BLOCKERS, GLAND_BLOCKERS, HOLES
from riktig.core.job import (
    JOB_CIRCUITS,
    JOB_DOOR,
    JOB_ENCLOSURE,
    JOB_LOADS,
    JOB_OPENINGS,
    JOB_PLATE,
    JOB_PRACTICE,
    JOB_SIGNALS,
    JOB_SOURCES,
    JOB_SUPPLY,
)
from riktig.core.labels import LABELS
from riktig.core.plate import LAYOUT
from riktig.core.rules.applicability import why_not_applicable
from riktig.core.rules.behaviour import BEHAVIOUR
from riktig.core.rules.brief import BRIEF
from riktig.core.rules.circuits import CIRCUIT_CLAUSES
from riktig.core.rules.clamps import CLAMPS
from riktig.core.rules.colours import COLOURS
from riktig.core.rules.disconnection import DISCONNECTION
from riktig.core.rules.door import DOOR_CLAUSES
from riktig.core.rules.earthing import EARTHING
from riktig.core.rules.electrical import ELECTRICAL
from riktig.core.rules.emergency import EMERGENCY
from riktig.core.rules.fed_from_top import FED_FROM_TOP
from riktig.core.rules.floats import FLOATS
from riktig.core.rules.joined_potentials import JOINED_POTENTIALS
from riktig.core.rules.jumpers import JUMPERS
from riktig.core.rules.marks import MARKS
from riktig.core.rules.mechanical import MECHANICAL
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.rules.names import NAMES_CLAUSES
from riktig.core.rules.operation import OPERATION
from riktig.core.rules.plate import PLATE_CLAUSES
from riktig.core.rules.protected_wires import PROTECTED_WIRES
from riktig.core.rules.roles import ROLES
from riktig.core.rules.selectivity import SELECTIVITY
from riktig.core.rules.shared_ducts import SHARED_DUCTS
from riktig.core.rules.short_circuit import SHORT_CIRCUIT_CLAUSES
from riktig.core.rules.sockets import SOCKETS
from riktig.core.rules.supply_watch import SUPPLY_WATCH
from riktig.core.rules.transformers import TRANSFORMERS
from riktig.core.rules.view import View
from riktig.core.schematic import CIRCUITS, FAULTS, NAMES, NETS
from riktig.core.short_circuit import POWER_PATHS, SHORT_CIRCUIT, WIRE_ENERGIES
from riktig.core.simulation import (
    BEHAVIOURS,
    FEED_FAULTS,
    INPUTS_FOLLOW,
    LIVE_WITH_MAIN_OFF,
    PRESSED_TOGETHER,
    RESTARTS,
)
from riktig.core.sizing import INSIDE_AIR, PROPOSAL, SIZING
from riktig.core.terminals import STRIPS
from riktig.core.wiring import DUCT_USES, WIRING

__all__ = ["CLAUSES", "RULES", "VIEW", "findings_of"]

CLAUSES = (
    *BRIEF,
    *ELECTRICAL,
    *CIRCUIT_CLAUSES,
    *BEHAVIOUR,
    *EARTHING,
    *PLATE_CLAUSES,
    *DOOR_CLAUSES,
    *MECHANICAL,
    *COLOURS,
    *JUMPERS,
    *PROTECTED_WIRES,
    *CLAMPS,
    *JOINED_POTENTIALS,
    *SHARED_DUCTS,
    *FED_FROM_TOP,
    *SELECTIVITY,
    *SHORT_CIRCUIT_CLAUSES,
    *DISCONNECTION,
    *ROLES,
    *SOCKETS,
    *TRANSFORMERS,
    *EMERGENCY,
    *OPERATION,
    *FLOATS,
    *SUPPLY_WATCH,
    *NAMES_CLAUSES,
    *MARKS,
)


VIEW = (
    reads(CIRCUITS)
    & NETS
    & NAMES
    & FAULTS
    & PROPOSAL
    & SIZING
    & LAYOUT
    & DOOR
    & SHAFTS
    & INSIDE_AIR
    & HOLES
    & BLOCKERS
    & GLAND_BLOCKERS
    & WIRING
    & DUCT_USES
    & STRIPS
    & LABELS
    & LIVE_WITH_MAIN_OFF
    & JOB_LOADS
    & JOB_SIGNALS
    & JOB_SUPPLY
    & JOB_PRACTICE
    & JOB_ENCLOSURE
    & JOB_CIRCUITS
    & JOB_PLATE
    & JOB_DOOR
    & JOB_OPENINGS
    & JOB_SOURCES
    & BEHAVIOURS
    & FEED_FAULTS
    & RESTARTS
    & PRESSED_TOGETHER
    & INPUTS_FOLLOW
    & SHORT_CIRCUIT
    & WIRE_ENERGIES
    & POWER_PATHS
).derive("view", View)


def _judge(view: View) -> tuple[ClauseResult, ...]:
    order = list(Group)
    judged = (clause(view) for clause in CLAUSES)
    results = [_where_it_applies(result, view) for result in judged]
    return tuple(sorted(results, key=lambda result: (order.index(result.group), result.code)))


def _where_it_applies(result: ClauseResult, view: View) -> ClauseResult:
    return replace(result, not_applicable=result.not_applicable or why_not_applicable(result.code, view))


RULES = reads(VIEW).derive("rules", _judge)


def findings_of(results: tuple[ClauseResult, ...]) -> tuple[Finding, ...]:
    """All findings, failures first."""
    findings = [finding for result in results for finding in result.findings]
    return tuple(sorted(findings, key=lambda finding: finding.verdict is not Verdict.FAILS))
