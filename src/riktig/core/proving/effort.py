"""How long the tests that are left take."""

from collections.abc import Sequence
from itertools import pairwise

from riktig.core.proving.tests import ProvingStage, Test

__all__ = ["minutes_of"]

CARD_MINUTES = 0.4
"""Finding two points, touching, reading (chosen by us)."""
SWITCH_MINUTES = 0.15
"""One switch to move (chosen by us)."""
FIRST_MINUTES = 10.0
"""To disconnect and bridge before insulation is measured, and to put back (chosen by us)."""


def minutes_of(tests: Sequence[Test]) -> float:
    """The minutes that some tests take one after the other.

    Args:
        tests: The tests that are left, in order.
    """
    switching = sum(len(after.state.changes_from(before.state)) for before, after in pairwise(tests))
    insulation = sum(test.stage is ProvingStage.INSULATION for test in tests)
    return CARD_MINUTES * len(tests) + SWITCH_MINUTES * switching + FIRST_MINUTES * insulation
