"""A bench for learning: a panel with something wrong in it, lessons by difficulty, and what finding it cost."""

from collections import Counter
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from enum import Enum
from math import ceil, log2
from random import Random

from riktig.core.catalogue import Can
from riktig.core.ids import read_pin
from riktig.core.proving.dead_panel import DeadPanel
from riktig.core.proving.fault_effects import BETWEEN, JOINED, OPEN, PERHAPS, Effects, Faults
from riktig.core.proving.locate import Probe, locate
from riktig.core.proving.tests import Test
from riktig.core.proving.wrong_panel import single_faults
from riktig.core.simulation import FaultKind, InjectedFault

__all__ = ["HINT_COST", "Lesson", "Score", "lesson_faults", "noted_before", "score_of"]

HINT_COST = 3
"""What a hint costs against a probe (chosen by us)."""
FEW_PINS = 8
"""So few pins joined are a free contact, no supply (chosen by us)."""
TRIES = 400
"""Faults drawn until one shows on a card (chosen by us)."""


class Lesson(Enum):
    """The lessons, the easiest first; each is one kind of fault, the last two faults at once."""

    OPEN_WIRE = "A wire is missing"
    SWAPPED = "Two wires are swapped"
    NEIGHBOUR = "A wire is in the clamp beside"
    SHORT = "Two clamps touch"
    CONTACT = "A contact is not as it should be"
    BACK_FEED = "Two supplies meet where they must not"
    ANY = "Anything"
    TWO = "Two things at once"


BRIDGES = (FaultKind.SHORT, FaultKind.NEIGHBOUR)
"""Faults that bring two potentials together."""
_KINDS = {
    Lesson.OPEN_WIRE: (FaultKind.OFF,),
    Lesson.SWAPPED: (FaultKind.SWAPPED,),
    Lesson.NEIGHBOUR: (FaultKind.NEIGHBOUR,),
    Lesson.SHORT: (FaultKind.SHORT,),
    Lesson.BACK_FEED: BRIDGES,
    Lesson.CONTACT: (FaultKind.WELDED, FaultKind.STUCK, FaultKind.WRONG_BLOCK, FaultKind.BLOWN),
}
WIRED = (FaultKind.OFF, FaultKind.NEIGHBOUR, FaultKind.SWAPPED)


@dataclass(frozen=True, slots=True)
class Score:
    """What finding cost, in probes with hints counted as such, against the best there can be."""

    probes: int
    hints: int
    best: int
    found: bool

    @property
    def cost(self) -> int:
        """Probes and hints together."""
        return self.probes + HINT_COST * self.hints


def lesson_faults(panel: DeadPanel, tests: Sequence[Test], lesson: Lesson, seed: int) -> Faults:
    """What is wrong in a lesson: drawn by chance, and such that a card of the plan shows it. None where there is none.

    Args:
        panel: The panel as it should be.
        tests: The dead tests of its plan, insulation aside.
        lesson: Which lesson.
        seed: The same seed draws the same.
    """
    chance = Random(f"{lesson.name} {seed}")
    kinds = _KINDS.get(lesson, WIRED if lesson is Lesson.TWO else tuple(FaultKind))
    choice = [fault for fault in single_faults(panel) if fault.wrong in kinds]
    if lesson is Lesson.BACK_FEED:
        choice = _joining_supplies(panel, choice)
    for _ in range(TRIES if choice else 0):
        drawn: Faults = tuple(chance.sample(choice, 2 if lesson is Lesson.TWO else 1))
        if len({name for fault in drawn for name in {fault.what, fault.to} - {""}}) < len(drawn):
            continue
        if _shows(panel, tests, drawn):
            return drawn
    return ()


def _joining_supplies(panel: DeadPanel, choice: Sequence[InjectedFault]) -> list[InjectedFault]:
    """The faults that bring two supplies together, as on both sides of a transformer; a fault to earth is another."""
    earths = (Can.EARTH_BAR, Can.EARTH_TERMINAL, Can.EARTH_STUD)
    devices = {device.id for device in panel.devices.values() if any(device.kind.can(able) for able in earths)}
    earthed = {panel.potentials[number] for pin, number in panel.node.items() if pin.device in devices}
    feeding = {supply for supply, count in Counter(panel.supplies).items() if count > FEW_PINS}

    def joins(fault: InjectedFault) -> bool:
        nodes = [panel.node[read_pin(text)] for text in (fault.where, fault.to)]
        supplies = {panel.supplies[node] for node in nodes}
        return len(supplies & feeding) == 2 and not earthed & {panel.potentials[node] for node in nodes}

    return [fault for fault in choice if joins(fault)]


def _shows(panel: DeadPanel, tests: Sequence[Test], faults: Faults) -> bool:
    """Whether a card fails: what must be joined is open, or what must not be is joined."""
    effects = Effects(panel, [(), faults])
    for state in dict.fromkeys(test.state for test in tests):
        state_pairs = [(test.black.pin, test.red.pin) for test in tests if test.state == state]
        sound, wrong = effects.classes(state, state_pairs)
        opened = (sound <= PERHAPS) & (wrong == OPEN)
        joined = (sound >= BETWEEN) & (wrong == JOINED)
        if (opened | joined).any():
            return True
    return False


def noted_before(tests: Sequence[Test], read: Callable[[Test], float]) -> tuple[Probe, ...]:
    """What a tester noted before he called: the cards in their order up to the first that fails.

    Args:
        tests: The dead tests of the plan.
        read: Gives what the panel reads for a test, ohm.
    """
    probes: list[Probe] = []
    for test in tests:
        ohm = read(test)
        probes.append(Probe(test.state, test.black.pin, test.red.pin, ohm))
        if not test.expected.passes(ohm):
            break
    return tuple(probes)


def score_of(panel: DeadPanel, noted: Sequence[Probe], probes: int, hints: int, *, found: bool) -> Score:
    """The score of a lesson.

    Args:
        panel: The panel as it should be.
        noted: What was noted before: what may be wrong after it is what there is to find.
        probes: The readings that were taken since.
        hints: The hints that were taken.
        found: Whether what is wrong was named.

    Method:
        The best there can be is as many readings as halve the suspects down to one.
    """
    suspects = len(locate(panel, noted))
    return Score(probes, hints, ceil(log2(suspects)) if suspects > 1 else 0, found)
