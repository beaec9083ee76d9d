"""Edits of field cables: what shares one, how its cores are called, how many it is bought with."""

from dataclasses import dataclass, replace

from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.ids import DeviceId, read_pin
from riktig.core.job import Job, OwnCable
from riktig.core.schematic import NETS
from riktig.core.terminals import STRIPS, carried, may_share

__all__ = ["DropCable", "PlanCable"]


@dataclass(frozen=True)
class PlanCable:
    """A cable as the builder has it, in place of what was planned for all that it goes to."""

    cable: OwnCable

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the cable.

        Raises:
            RiktigError: a thing that no cable goes to, power, a network or what is fed otherwise in a shared cable, a
                pin that has no core in it, or fewer cores than are used.
        """
        wanted = set(self.cable.devices)
        touched = [cable for cable in evaluation.get(STRIPS).cables if wanted & set(cable.devices)]
        reached = {device for cable in touched for device in cable.devices}
        if wanted - reached:
            raise RiktigError(f"No cable goes to {sorted(wanted - reached)[0]}, so no cable was changed.")
        if len(wanted) > 1 and not all(may_share(cable) for cable in touched):
            raise RiktigError(
                "Only control cables can share a sheath, so no cable was changed.",
                hint="Power, the supply, protective conductors and networks keep a cable of their own.",
            )
        of_pin = evaluation.get(NETS).of_pin
        if len({carried(cable, of_pin) for cable in touched}) > 1:
            raise RiktigError(
                "These cables carry different circuits, so no cable was changed.",
                hint="Alternating control, direct control and what stays live with the switch off keep apart.",
            )
        cores = [core for cable in touched for core in cable.cores if core.field_pin.device in wanted]
        pins = {str(core.field_pin) for core in cores}
        strange = [pin for pin, _ in self.cable.cores if pin not in pins]
        if strange:
            raise RiktigError(f"No core of that cable leads to {strange[0]}, so no cable was changed.")
        if 0 < self.cable.bought < len(cores):
            raise RiktigError(
                f"{len(cores)} cores are used, {self.cable.bought} would be bought: no cable was changed.",
                hint="Take a cable with as many cores as are used, or more.",
            )
        return replace(evaluation.document, cables=(*_without(evaluation.document, wanted), self.cable))


@dataclass(frozen=True)
class DropCable:
    """The cables to what shares one with a device back as they are planned."""

    device: DeviceId

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job without the builder's plan of that cable.

        Raises:
            RiktigError: nothing was planned by hand there.
        """
        job = evaluation.document
        other_cables = tuple(cable for cable in job.cables if self.device not in cable.devices)
        if len(other_cables) == len(job.cables):
            raise RiktigError("That cable is as it was planned, so nothing was changed.")
        return replace(job, cables=other_cables)


def _without(job: Job, devices: set[DeviceId]) -> tuple[OwnCable, ...]:
    """The cables planned by hand without some devices; one that goes nowhere any more is gone."""
    other_cables: list[OwnCable] = []
    for cable in job.cables:
        left = tuple(device for device in cable.devices if device not in devices)
        if left == cable.devices:
            other_cables.append(cable)
        elif left:
            cores = tuple((pin, name) for pin, name in cable.cores if read_pin(pin).device in left)
            other_cables.append(OwnCable(left, cores))
    return tuple(other_cables)
