"""Clauses about the circuits as they are drawn: contacts, sources, returns, interlocks, lamps."""

from collections.abc import Callable

from riktig.core.catalogue import Behaviour, Can
from riktig.core.job import OverloadDirection
from riktig.core.keys import CircuitKey, DeviceKey
from riktig.core.rules.model import ClauseResult, Finding, Group, QuickFix, Verdict
from riktig.core.rules.view import View
from riktig.core.schematic import by_tags, elements_of
from riktig.core.standards import COMMON_PRACTICE

__all__ = ["CIRCUIT_CLAUSES"]

Clause = Callable[[View], ClauseResult]
JUDGED = {"coil without contact"}
"""Faults that may be meant: a person decides."""


def _clause(code: str, title: str, kinds: tuple[str, ...], evidence: Callable[[View], str]) -> Clause:
    def judged(view: View) -> ClauseResult:
        findings = [
            Finding(
                code,
                Verdict.JUDGE if fault.kind in JUDGED else Verdict.FAILS,
                by_tags(fault.text, view.names.tag),
                fault.where,
                view.source(code),
                fault.remedy,
            )
            for fault in view.faults
            if fault.kind in kinds
        ]
        if code == "C01":
            findings += _clashes(view)
        if code == "C10":
            findings += _reversed(view)
        return ClauseResult(code, Group.CONTROL, title, view.source(code), (evidence(view),), tuple(findings))

    judged.__name__ = f"clause_{code}"
    judged.__doc__ = title
    return judged


def _clashes(view: View) -> list[Finding]:
    """Changes of the builder that have lost their hold: kept, and said, until he decides."""
    findings = []
    for clash in view.circuits.clashes:
        number = ""
        if clash.change is not None:
            circuit = next(c for c in view.own_circuits if c.id == clash.circuit)
            number = f"{clash.circuit}/{circuit.changes.index(clash.change)}"
        findings.append(
            Finding(
                "C01",
                Verdict.FAILS,
                f"A change has nothing to hold on to: {clash.text}.",
                CircuitKey(clash.circuit),
                COMMON_PRACTICE,
                "Take the change back, or choose an element and make it there.",
                QuickFix("Take the change back", "change back", number) if number else None,
            )
        )
    return findings


def _reversed(view: View) -> list[Finding]:
    """Contacts entered at the other number than all others: the same electrically, but lists and habits differ."""
    down = view.practice.overload_direction is OverloadDirection.DOWN
    findings = []
    for rung in view.circuits.rungs:
        for pole in (pole for element in elements_of(rung.path) for pole in element.poles):
            device = view.circuits.device(pole.device)
            unit = device.kind.unit(pole.unit)
            turned = down and device.kind.can(Can.OVERLOAD)
            if unit.behaviour not in (Behaviour.NO, Behaviour.NC) or pole.flipped is turned:
                continue
            first, last = unit.pins[0], unit.pins[-1]
            at, usual = (last, first) if pole.flipped else (first, last)
            text = f"{view.tag(device.id)} {unit.name} is wired in at {at}; the practice of this job is in at {usual}."
            remedy = "Turn the contact round, or sign that it is meant."
            findings.append(Finding("C10", Verdict.JUDGE, text, DeviceKey(device.id), view.source("C10"), remedy))
    return findings


def _count(what: str) -> Callable[[View], str]:
    def said(view: View) -> str:
        counts = {
            "devices": len(view.circuits.devices),
            "paths": len(view.circuits.rungs),
            "nets": len(view.nets.nets),
            "lamps": sum(d.kind.can(Can.INDICATES) for d in view.circuits.devices),
            "coils": sum(d.kind.has_coil for d in view.circuits.devices),
        }
        return f"{counts[what]} {what} looked at"

    return said


CIRCUIT_CLAUSES: tuple[Clause, ...] = (
    _clause(
        "C01",
        "Contacts and coils",
        ("more contacts than the device has", "contact without coil", "coil without contact"),
        _count("coils"),
    ),
    _clause("C04", "Sources kept apart, nothing short-circuited", ("short", "two sources on one net"), _count("nets")),
    _clause(
        "C05",
        "Every load has its return",
        ("load without return", "path ends nowhere", "loop", "no supply"),
        _count("paths"),
    ),
    _clause("C06", "Every lamp says what it means", ("lamp without meaning",), _count("lamps")),
    _clause("C07", "Interlocks that nothing bypasses", ("interlock bypassed",), _count("coils")),
    _clause("C08", "Phases exchanged exactly once", ("phase exchange",), _count("paths")),
    _clause("C09", "Supply monitor ahead of the contactor it controls", ("monitor downstream",), _count("devices")),
    _clause("C10", "Contact numbers in their pairs", ("contact numbers",), _count("devices")),
)
