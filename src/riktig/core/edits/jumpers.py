"""Edits of plug-in jumpers: which terminals of a strip one jumper joins, and back to the usual ones."""

from collections.abc import Iterable
from dataclasses import dataclass, replace

from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.ids import DeviceId
from riktig.core.job import Job, OwnJumper
from riktig.core.schematic import CIRCUITS, NETS
from riktig.core.wiring import can_be_jumped

__all__ = ["DropJumpers", "PlanJumpers"]


@dataclass(frozen=True)
class PlanJumpers:
    """Jumpers as the builder chooses them; a jumper of one terminal leaves it to a wire.

    Their terminals leave the jumpers that they were on; what stays there keeps its jumper.
    """

    jumpers: tuple[OwnJumper, ...]

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the jumpers.

        Raises:
            RiktigError: no terminal, one that no jumper may lie on, or terminals of several strips or potentials.
        """
        known, nets = evaluation.get(CIRCUITS).by_id, evaluation.get(NETS)
        for jumper in self.jumpers:
            places: set[tuple[str, object]] = set()
            for terminal in jumper.terminals:
                device = known.get(terminal)
                if device is None or not device.strip:
                    raise RiktigError(f"{terminal} is no terminal of this panel, so no jumper was changed.")
                if not can_be_jumped(device, nets):
                    raise RiktigError(
                        f"No jumper lies on {terminal}, so none was changed.",
                        hint="Plug-in jumpers carry control. Power, neutral and protective terminals are wired.",
                    )
                places.add((device.strip, nets.of_pin[device.pin("i")].id))
            if len(places) > 1:
                raise RiktigError(
                    "A jumper joins terminals of one strip and one potential, so none was changed.",
                    hint="Put the terminals into one strip first (Order …, Move to strip).",
                )
        moved = {terminal for jumper in self.jumpers for terminal in jumper.terminals}
        if sum(len(jumper.terminals) for jumper in self.jumpers) > len(moved):
            raise RiktigError("A terminal was to lie under two jumpers of one potential, so none was changed.")
        job = evaluation.document
        return replace(job, jumpers=(*_without(job.jumpers, moved), *self.jumpers))


@dataclass(frozen=True)
class DropJumpers:
    """The jumpers of a terminal's strip and potential back to the usual one, which joins all of them."""

    terminal: DeviceId

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the usual jumper there.

        Raises:
            RiktigError: there is no such terminal, or its jumper is the usual one.
        """
        devices, nets = evaluation.get(CIRCUITS), evaluation.get(NETS)
        device = devices.by_id.get(self.terminal)
        if device is None or not device.strip:
            raise RiktigError(f"{self.terminal} is no terminal of this panel, so no jumper was changed.")
        net = nets.of_pin.get(device.pin("i"))
        alike = {
            other.id
            for other in devices.devices
            if other.strip == device.strip and net is not None and nets.of_pin.get(other.pin("i")) == net
        }
        job = evaluation.document
        # What is gone from the panel is forgotten with the jumper that still names it.
        jumpers = tuple(
            jumper
            for jumper in _without(job.jumpers, alike | {self.terminal})
            if any(terminal in devices.by_id for terminal in jumper.terminals)
        )
        if jumpers == job.jumpers:
            raise RiktigError("The jumper of that terminal is the usual one, so nothing was changed.")
        return replace(job, jumpers=jumpers)


def _without(jumpers: Iterable[OwnJumper], terminals: set[DeviceId]) -> tuple[OwnJumper, ...]:
    """The jumpers without these terminals; one that keeps none goes."""
    remaining = []
    for jumper in jumpers:
        left = tuple(terminal for terminal in jumper.terminals if terminal not in terminals)
        if left:
            remaining.append(jumper if left == jumper.terminals else OwnJumper(left))
    return tuple(remaining)
