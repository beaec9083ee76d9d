"""Clauses, verdicts and findings."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from enum import Enum

from riktig.core.keys import Key

__all__ = ["ClauseResult", "Finding", "Group", "QuickFix", "Verdict", "with_the_rest"]


class Verdict(Enum):
    """What a clause says of the panel. Riktig judges; it never certifies."""

    MEETS = "meets"
    FAILS = "fails"
    JUDGE = "needs judgement"
    NOT_APPLICABLE = "does not apply"


class Group(Enum):
    """The order in which an inspector walks a panel."""

    BRIEF = "The Brief"
    SUPPLY = "Supply and main switch"
    PROTECTION = "Protection"
    EARTHING = "Protective conductors"
    CONTROL = "Control circuits"
    WIRING = "Conductors and clamps"
    PLATE = "Plate and door"
    MARKING = "Marking and papers"


@dataclass(frozen=True, slots=True)
class QuickFix:
    """A remedy that Riktig can carry out: the words on the button, and which edit with what."""

    text: str
    action: str
    argument: str = ""


@dataclass(frozen=True, slots=True)
class Finding:
    """One thing to see to. ``where`` is a selection key; ``remedy`` says what would mend it."""

    code: str
    verdict: Verdict
    message: str
    where: Key | None
    clause: str
    remedy: str
    quick_fix: QuickFix | None = None


def with_the_rest(findings: Sequence[Finding], most: int) -> list[Finding]:
    """The first so many findings of one kind; the last of them says how many more there are, so that none is hidden.

    Args:
        findings: Of one kind, in their order.
        most: How many are named.
    """
    shown, rest = list(findings[:most]), len(findings) - most
    if rest > 0:
        shown[-1] = replace(shown[-1], message=f"{shown[-1].message} And {rest} more like it.")
    return shown


@dataclass(frozen=True, slots=True)
class ClauseResult:
    """One clause, judged: its verdict, the evidence, and what it found."""

    code: str
    group: Group
    title: str
    clause: str
    evidence: tuple[str, ...]
    findings: tuple[Finding, ...] = ()
    not_applicable: str = ""
    """Why it does not apply to this panel; "" where it does."""

    @property
    def grounds(self) -> tuple[str, ...]:
        """What the verdict rests on: the evidence, or why the clause does not apply."""
        return (self.not_applicable,) if self.verdict is Verdict.NOT_APPLICABLE else self.evidence

    @property
    def verdict(self) -> Verdict:
        """The worst of its findings; without any it is met, or does not apply."""
        verdicts = {finding.verdict for finding in self.findings}
        if Verdict.FAILS in verdicts:
            return Verdict.FAILS
        if verdicts:
            return Verdict.JUDGE
        return Verdict.NOT_APPLICABLE if self.not_applicable else Verdict.MEETS
