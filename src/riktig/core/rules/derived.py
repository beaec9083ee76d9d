"""What this step offers the evaluation."""

from dataclasses import dataclass, replace

from riktig.core.door import DOOR, SHAFTS
from riktig.core.evaluation import Memory, reads
from riktig.core.holes import BLOCKERS, GLAND_BLOCKERS, HOLES
from riktig.core.job import (
    JOB_CIRCUITS,
    JOB_DOOR,
    JOB_ENCLOSURE,
    JOB_LOADS,
    JOB_MARKS,
    JOB_OPENINGS,
    JOB_PLATE,
    JOB_PRACTICE,
    JOB_SIGNALS,
    JOB_SOURCES,
    JOB_SUPPLY,
    JOB_UNMARKED,
    ApprovalMarks,
    Enclosure,
    Practice,
    Rulebook,
    Supply,
)
from riktig.core.labels import LABELS
from riktig.core.plate import LAYOUT
from riktig.core.rules.applicability import why_not_applicable
from riktig.core.rules.behaviour import BEHAVIOUR
from riktig.core.rules.bending import BENDING
from riktig.core.rules.brief import BRIEF
from riktig.core.rules.by_person import BY_PERSON
from riktig.core.rules.circuits import CIRCUIT_CLAUSES
from riktig.core.rules.clamps import CLAMPS
from riktig.core.rules.colours import COLOURS
from riktig.core.rules.coordination import COORDINATION
from riktig.core.rules.disconnection import DISCONNECTION
from riktig.core.rules.distribution import DISTRIBUTION
from riktig.core.rules.door import DOOR_CLAUSES
from riktig.core.rules.draw_walk import draw_walk
from riktig.core.rules.earthing import EARTHING
from riktig.core.rules.electrical import ELECTRICAL
from riktig.core.rules.emergency import EMERGENCY
from riktig.core.rules.fed_from_top import FED_FROM_TOP
from riktig.core.rules.field import FIELD
from riktig.core.rules.floats import FLOATS
from riktig.core.rules.joined_potentials import JOINED_POTENTIALS
from riktig.core.rules.jumpers import JUMPERS
from riktig.core.rules.labelling import LABELLING
from riktig.core.rules.marks import MARKS
from riktig.core.rules.mechanical import MECHANICAL
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.rules.names import NAMES_CLAUSES
from riktig.core.rules.operation import OPERATION
from riktig.core.rules.plate import PLATE_CLAUSES
from riktig.core.rules.protected_wires import PROTECTED_WIRES
from riktig.core.rules.reach import REACH
from riktig.core.rules.roles import ROLES
from riktig.core.rules.selectivity import SELECTIVITY
from riktig.core.rules.shared_ducts import SHARED_DUCTS
from riktig.core.rules.shock import SHOCK
from riktig.core.rules.short_circuit import SHORT_CIRCUIT_CLAUSES
from riktig.core.rules.sockets import SOCKETS
from riktig.core.rules.supply_watch import SUPPLY_WATCH
from riktig.core.rules.transformers import TRANSFORMERS
from riktig.core.rules.view import View
from riktig.core.rules.watched_view import Shared, WatchedView, value_read
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
from riktig.core.sizing import INSIDE_AIR, PROPOSAL, SIZING, Laid
from riktig.core.terminals import STRIPS
from riktig.core.wiring import DUCT_USES, WIRING

__all__ = ["CLAUSES", "RULES", "VIEW", "WALK_DRAWING", "findings_of"]

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
    *LABELLING,
    *MARKS,
    *SHOCK,
    *DISTRIBUTION,
    *BENDING,
    *FIELD,
    *REACH,
    *BY_PERSON,
    *COORDINATION,
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
    & JOB_MARKS
    & JOB_UNMARKED
).derive("view", View)


_SMALL = (Rulebook, Laid, Enclosure, Practice, Supply, ApprovalMarks)
"""Of these a comparison costs nothing."""


@dataclass(frozen=True, slots=True)
class _Judged:
    """The result of one clause with what it read of the panel."""

    read: tuple[str, ...]
    values: tuple[object, ...]
    result: ClauseResult


@dataclass(frozen=True, slots=True)
class _Asked:
    """What clauses of one view asked in one."""

    shared: dict[object, Shared]


def _holds(entry: _Judged | Shared, view: View) -> bool:
    """Whether everything that was read is the same in another view: the very object, or an equal small one."""
    for name, old in zip(entry.read, entry.values, strict=True):
        new = value_read(view, name)
        if new is not old and not ((isinstance(new, _SMALL) or "." in name) and new == old):
            return False
    return True


def _judge(memory: Memory, view: View) -> tuple[ClauseResult, ...]:
    """Every clause in the order in which an inspector walks; what read nothing new is not judged again."""
    judged, asked_in_one = memory.memo(_Judged, "clauses"), memory.memo(_Asked, "asked in one")
    before = asked_in_one.last("all")
    shared = {compute: entry for compute, entry in before.shared.items() if _holds(entry, view)} if before else {}
    watched = WatchedView(view, shared)
    order = {group: number for number, group in enumerate(Group)}
    results: list[ClauseResult] = []
    for clause in CLAUSES:
        last = judged.last(clause)
        if last is None or not _holds(last, view):
            watched.watch()
            result = _where_it_applies(clause(watched), watched)
            read = watched.read()
            last = judged.put(clause, _Judged(read, tuple(value_read(view, name) for name in read), result))
        results.append(last.result)
    asked_in_one.put("all", _Asked({**shared, **watched.shared()}))
    return tuple(sorted(results, key=lambda result: (order[result.group], result.code)))


def _where_it_applies(result: ClauseResult, view: View) -> ClauseResult:
    return replace(result, not_applicable=result.not_applicable or why_not_applicable(result.code, view))


RULES = reads(VIEW).derive_with_memory("rules", _judge)


WALK_DRAWING = (reads(RULES) & CIRCUITS & NAMES & WIRING & DOOR).derive("picture of the walk", draw_walk)
"""The panel as an inspector walks it, with what every clause says where it says it."""


def findings_of(results: tuple[ClauseResult, ...]) -> tuple[Finding, ...]:
    """All findings, failures first."""
    findings = [finding for result in results for finding in result.findings]
    return tuple(sorted(findings, key=lambda finding: finding.verdict is not Verdict.FAILS))
