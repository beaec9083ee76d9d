"""Edits of the door and of openings in any surface; and the remedies of findings."""

from dataclasses import dataclass

from riktig.core.door import DOOR, add_opening, door_for_me, drop_opening, fix_door, lock_on_door, move_on_door
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.job import DeviceId, Job, Opening
from riktig.core.rules import QuickFix, apply_mend

__all__ = [
    "AddOpening",
    "ApplyRemedy",
    "FixDoor",
    "LockOperators",
    "MoveOperators",
    "OperatorPlace",
    "PlanDoor",
    "RemoveOpening",
]


@dataclass(frozen=True)
class OperatorPlace:
    """The middle of an operator's hole from the (left) door's datum, mm."""

    device: DeviceId
    x: float
    y: float


@dataclass(frozen=True)
class MoveOperators:
    """Operators to where they are said to be; all others are fixed where they are."""

    places: tuple[OperatorPlace, ...]

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the operators there."""
        door = evaluation.get(DOOR)
        moved = []
        for place in self.places:
            seat = door.seat(place.device)
            if seat is None:
                raise RiktigError(f"{place.device} is not on the door, so nothing was moved.")
            moved.append(seat.at(place.x, place.y))
        return move_on_door(evaluation.document, door, moved)


@dataclass(frozen=True)
class LockOperators:
    """Operators locked where they are, or unlocked."""

    devices: tuple[DeviceId, ...]
    locked: bool

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the operators locked or not."""
        return lock_on_door(evaluation.document, evaluation.get(DOOR), frozenset(self.devices), self.locked)


@dataclass(frozen=True)
class PlanDoor:
    """Every operator that is not locked back to Riktig's own plan."""

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the door planned anew."""
        return door_for_me(evaluation.document)


@dataclass(frozen=True)
class FixDoor:
    """Every operator fixed where it is: the door is begun, and no later edit moves a hole."""

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the door fixed."""
        return fix_door(evaluation.document, evaluation.get(DOOR))


@dataclass(frozen=True)
class AddOpening:
    """A hole of the builder's own."""

    opening: Opening

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the opening."""
        return add_opening(evaluation.document, self.opening)


@dataclass(frozen=True)
class RemoveOpening:
    """The opening at a place of the list, counted from 0, less."""

    at: int

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job without the opening."""
        return drop_opening(evaluation.document, self.at)


@dataclass(frozen=True)
class ApplyRemedy:
    """The remedy that a finding offers."""

    remedy: QuickFix

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the remedy carried out."""
        return apply_mend(evaluation.document, self.remedy)
