"""Clauses about what the circuits do, tried on the drawing, and about what feeds their loads."""

from collections.abc import Callable

from riktig.core.job import DeviceId, LoadId
from riktig.core.keys import CircuitKey, DeviceKey
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.rules.view import View
from riktig.core.schematic import by_tags
from riktig.core.simulation import FeedKind, ScriptOutcome, StepResult, with_tags

__all__ = ["BEHAVIOUR"]

SMALL_MOTOR_KW = 0.5
"""Up to here a motor needs no overload protection: IEC 60204-1 7.3.1, from memory."""


def circuits_do_what_they_are_for(view: View) -> ClauseResult:
    """Each circuit, tried by the script of its recipe, does what it promises and stops when it must."""
    clause = view.source("C11")
    tried = [outcome for outcome in view.behaviours if outcome.steps]
    untried = [outcome for outcome in view.behaviours if not outcome.steps]
    findings: list[Finding] = []
    for outcome in tried:
        unsafe = [step for step in outcome.steps if step.is_unsafe]
        other = [step for step in outcome.steps if not step.passed and not step.is_unsafe]
        if unsafe:
            findings.append(_finding(view, outcome, unsafe, Verdict.FAILS, clause))
        elif other:
            findings.append(_finding(view, outcome, other, Verdict.JUDGE, clause))
    findings += [
        Finding(
            "C11",
            Verdict.JUDGE,
            f"{outcome.title} has no script of what it must do, so it was not tried.",
            CircuitKey(outcome.circuit),
            clause,
            "Try it under Live, step by step, and sign what you saw.",
        )
        for outcome in untried
    ]
    steps = sum(len(outcome.steps) for outcome in tried)
    evidence = (f"{len(tried)} circuits tried in {steps} steps on the drawing, {len(untried)} without a script",)
    return ClauseResult("C11", Group.CONTROL, "Circuits do what they are for", clause, evidence, tuple(findings))


def _finding(view: View, outcome: ScriptOutcome, steps: list[StepResult], verdict: Verdict, clause: str) -> Finding:
    """The first step of some that went otherwise, in tags; how many more there are."""

    def tagged(text: str) -> str:
        return by_tags(with_tags(text, outcome.circuit, view.names.tag), view.names.tag)

    step = steps[0]
    if step.refused:
        wanted = f"; expected was {' and '.join(map(tagged, step.expected))}" if step.expected else ""
        what = f"what it names is no longer in the circuit{wanted}"
    else:
        what = "; ".join(map(tagged, step.otherwise))
    rest = len(steps) - 1
    more = f" {rest} more {'step goes' if rest == 1 else 'steps go'} otherwise." if rest else ""
    remedy = (
        "Put back what was taken out, or change the path until the step does what it must; Circuits shows it live."
        if verdict is Verdict.FAILS
        else "If the change is meant, try the circuit under Live and sign what you saw."
    )
    text = f"{outcome.title}, “{tagged(step.done)}”: {what.rstrip('.')}.{more}"
    return Finding("C11", verdict, text, CircuitKey(outcome.circuit), clause, remedy)


def _of_feeds(
    code: str, group: Group, title: str, remedies: dict[FeedKind, str], evidence: Callable[[View], str]
) -> Callable[[View], ClauseResult]:
    """A clause about some kinds of faults of feeds, each kind with what mends it."""

    def judged(view: View) -> ClauseResult:
        findings = tuple(
            Finding(
                code,
                Verdict.JUDGE if fault.kind in (FeedKind.PAST_STARTER, FeedKind.UNSTATED) else Verdict.FAILS,
                by_tags(fault.text, view.names.tag),
                DeviceKey(fault.device),
                view.source(code),
                remedies[fault.kind],
            )
            for fault in view.feed_faults
            if fault.kind in remedies and not _small_motor(view, fault.kind, fault.device)
        )
        return ClauseResult(code, group, title, view.source(code), (evidence(view),), findings)

    judged.__name__ = f"clause_{code}"
    judged.__doc__ = title
    return judged


def _small_motor(view: View, kind: FeedKind, device: DeviceId) -> bool:
    """Whether a fault is the missing overload protection of a motor that needs none."""
    if kind is not FeedKind.NO_OVERLOAD or view.rulebook.north_american:
        return False
    circuit = next(d.circuit for d in view.circuits.devices if d.id == device)
    load_id: LoadId | None = next((c.load for c in view.own_circuits if c.id == circuit), None)
    load = next((load for load in view.loads if load.id == load_id), None)
    return load is not None and 0 < (load.kw or 0.0) <= SMALL_MOTOR_KW


def _motors(view: View) -> str:
    count = sum(d.kind.is_motor for d in view.circuits.devices)
    return f"{count} motor{'' if count == 1 else 's'} followed back to the supply"


def _loads(view: View) -> str:
    return f"the loads of {len(view.circuits.rungs)} paths followed to their poles, every contact closed"


BEHAVIOUR: tuple[Callable[[View], ClauseResult], ...] = (
    circuits_do_what_they_are_for,
    _of_feeds(
        "E10",
        Group.PROTECTION,
        "Motors watched for overload",
        {
            FeedKind.NO_OVERLOAD: "Put an overload relay or a motor protector into its path.",
            FeedKind.PAST_STARTER: "Compare with the starter's papers; else put an overload relay behind both.",
        },
        _motors,
    ),
    _of_feeds(
        "E11",
        Group.CONTROL,
        "Every load between the poles of its source",
        {
            FeedKind.TWO_SOURCES: "Bring its return back to the source that feeds it.",
            FeedKind.WRONG_CURRENT: "Take a part made for what feeds it, or feed it from its own source.",
            FeedKind.UNSTATED: "Name the supply in the Brief, with its voltage and where it comes from.",
            FeedKind.WRONG_VOLTS: "Take a part made for what feeds it, or feed it from its own source.",
        },
        _loads,
    ),
    _of_feeds(
        "E12",
        Group.EARTHING,
        "No current through the protective conductor",
        {FeedKind.EARTH_RETURN: "Bring it back to the neutral or the zero of its source."},
        _loads,
    ),
)
"""Clauses that read what the simulation knows."""
