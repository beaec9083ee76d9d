"""What a test of the dead panel is: two points, how the switches stand, and between which bounds they must read."""

from dataclasses import dataclass, field
from enum import Enum
from math import inf

from riktig.core.ids import PinRef
from riktig.core.proving.switch_state import REST, SwitchState
from riktig.core.records import ReadingTaken, Slot

__all__ = ["OPEN_ABOVE_OHM", "Expected", "ProvingStage", "Test", "TestPlan", "TestPoint"]

OPEN_ABOVE_OHM = 1_000_000.0
"""No continuity: above this (IEC 60204-1 18.3 asks 1 MΩ at 500 V, from memory)."""


class ProvingStage(Enum):
    """Stages of the proof in order; the last two are live and stay shut."""

    BONDS = "Bonds"
    WIRES = "Wire by wire"
    SHORTS = "No shorts"
    INSULATION = "Insulation"
    SETTINGS = "Settings"
    ENERGISE = "Energise"
    FUNCTION = "Function"

    @property
    def by_steps(self) -> bool:
        """Whether it is gone through in steps, with no two points to touch."""
        return self.live or self is ProvingStage.SETTINGS

    @property
    def live(self) -> bool:
        """Whether the panel is under voltage in this stage."""
        return self in (ProvingStage.ENERGISE, ProvingStage.FUNCTION)


@dataclass(frozen=True, slots=True)
class TestPoint:
    """Where to touch: the pin, how it is called, and where it is in words."""

    __test__ = False

    pin: PinRef
    label: str
    place: str


@dataclass(frozen=True, slots=True)
class Expected:
    """What should be read when the leads' own resistance is taken off: a range in ohm, and why."""

    low: float
    high: float
    why: str

    @property
    def text(self) -> str:
        """“below 0.5 Ω”, “above 1 MΩ” or “340 to 780 Ω”."""
        if self.high == inf:
            return f"above {_ohm(self.low)}"
        if self.low == 0:
            return f"below {self.high:.2g} Ω" if self.high < 1 else f"below {self.high:.1f} Ω"
        low, high = _ohm(self.low), _ohm(self.high)
        same = low.split()[-1] == high.split()[-1]
        return f"{low.split()[0]} to {high}" if same else f"{low} to {high}"

    def passes(self, ohm: float) -> bool:
        """Whether a reading is as expected."""
        return self.low <= ohm <= self.high


def _ohm(ohm: float) -> str:
    for unit, size in (("MΩ", 1e6), ("kΩ", 1e3)):
        if ohm >= size:
            return f"{ohm / size:.3g} {unit}"
    return f"{ohm:.3g} Ω"


@dataclass(frozen=True, slots=True)
class Test:
    """One test: two points, the switch positions, the expectation, and what it is true of.

    ``switches`` says the positions in words, ``switch_state`` by the devices' ids, which stay when a tag changes.
    ``first`` is what must be done before it beside switching: taken off, opened, bridged; ``caution`` what can hurt.
    """

    __test__ = False

    key: str
    stage: ProvingStage
    title: str
    black: TestPoint
    red: TestPoint
    switches: str
    expected: Expected
    true_of: str
    wire: str = ""
    switch_state: str = ""
    state: SwitchState = REST
    first: str = ""
    caution: str = ""


@dataclass(frozen=True, slots=True)
class TestPlan:
    """All tests, in order.

    ``present`` is kept by whoever judges readings: what a reading taken now would say, for every test.
    """

    __test__ = False

    tests: tuple[Test, ...]
    present: dict[Slot, ReadingTaken] = field(default_factory=dict, init=False, compare=False, repr=False)

    def of(self, stage: ProvingStage) -> tuple[Test, ...]:
        """The tests of one stage."""
        return tuple(test for test in self.tests if test.stage is stage)
