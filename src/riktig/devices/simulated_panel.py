"""A simulated panel: as it is wired, every part a little off its data, with faults that can be put in."""

from collections.abc import Iterable
from math import isinf
from random import Random

import numpy as np

from riktig.core.ids import PinRef
from riktig.core.proving import DeadPanel, SwitchState, resistances, with_faults
from riktig.core.simulation import InjectedFault

__all__ = ["SimulatedPanel"]

OPEN_SHARE = 0.5
"""Of what is electronic, so much shows open at a meter; the rest reads what it draws (chosen by us)."""


class SimulatedPanel:
    """The dead panel with resistances drawn between the bounds of its parts; the same seed draws the same.

    Args:
        panel: The panel as it should be.
        seed: Draws the resistances.
        faults: What is wrong with it.
    """

    def __init__(self, panel: DeadPanel, seed: int = 1, faults: Iterable[InjectedFault] = ()) -> None:
        self.sound, self.seed = panel, seed
        self.faults: tuple[InjectedFault, ...] = tuple(faults)
        self.put_in(self.faults)

    def put_in(self, faults: Iterable[InjectedFault]) -> None:
        """Puts other faults in; none makes it sound."""
        self.faults = tuple(faults)
        drawn = Random(self.seed)
        self.panel = with_faults(self.sound, self.faults)
        ohm: list[float] = []
        for piece in self.panel.pieces:
            share, high = drawn.random(), piece.ohms.high
            if isinf(high):
                high = float("inf") if share < OPEN_SHARE else max(piece.ohms.usual, piece.ohms.low)
                ohm.append(high)
            else:
                ohm.append(piece.ohms.low + share * (high - piece.ohms.low))
        self._ohm = np.array(ohm, dtype=np.float64)

    def ohm(self, state: SwitchState, black: PinRef, red: PinRef) -> float:
        """What lies between two pins, ohm; infinite where nothing joins them.

        Args:
            state: How the switches stand.
            black: Where one probe is.
            red: Where the other is.
        """
        ends = np.array([(self.panel.node[black], self.panel.node[red])], dtype=np.int64)
        return float(resistances(self.panel, self.panel.closed(state), self._ohm, ends)[0])
