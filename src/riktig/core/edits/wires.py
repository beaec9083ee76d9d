"""Edits of the wires: the order of a potential, and clamps that take one conductor."""

from dataclasses import dataclass, replace

from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.ids import read_pin
from riktig.core.job import Job, WireOrder
from riktig.core.schematic import NETS, NetClass

__all__ = ["DropWireOrder", "SetOneConductor", "SetWireOrder"]


@dataclass(frozen=True)
class SetWireOrder:
    """The order in which the clamps of a potential are joined, in place of the shortest; a chain more splits it."""

    order: WireOrder

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the order.

        Raises:
            RiktigError: its clamps are not all on one potential, or that is the protective earth.
        """
        job, of_pin = evaluation.document, evaluation.get(NETS).of_pin
        nets = {of_pin[pin].id if pin in of_pin else None for pin in self.order.pins}
        if len(nets) != 1 or None in nets:
            raise RiktigError(
                "The clamps of that order are not on one potential, so no wire was changed.",
                hint="An order names clamps of one potential; Numbers in Wires shows which they are.",
            )
        if of_pin[self.order.pins[0]].net_class is NetClass.EARTH:
            raise RiktigError(
                "Protective conductors have no order, so no wire was changed.",
                hint="Each runs to a clamp of its own on the earth bar, so that none is lost when another is loosened.",
            )
        others = tuple(order for order in job.wire_orders if not set(order.pins) & set(self.order.pins))
        return replace(job, wire_orders=(*others, self.order))


@dataclass(frozen=True)
class DropWireOrder:
    """The order that names a clamp taken back: its potential is joined with the least wire again."""

    pin: str

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job without the order."""
        job = evaluation.document
        other_orders = tuple(order for order in job.wire_orders if read_pin(self.pin) not in order.pins)
        if len(other_orders) == len(job.wire_orders):
            raise RiktigError("No order of yours names that clamp, so no wire was changed.")
        return replace(job, wire_orders=other_orders)


@dataclass(frozen=True)
class SetOneConductor:
    """A clamp that is to take one conductor only, or may take as many as its part allows again."""

    pin: str
    one: bool

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the choice."""
        job = evaluation.document
        if read_pin(self.pin) not in evaluation.get(NETS).of_pin:
            raise RiktigError("There is no such clamp, so no wire was changed.")
        others = tuple(pin for pin in job.one_conductor if pin != self.pin)
        return replace(job, one_conductor=(*others, self.pin) if self.one else others)
