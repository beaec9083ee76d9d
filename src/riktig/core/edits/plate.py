"""Edits of the mounting plate, of the parts chosen for it, and of what is cut for it."""

from dataclasses import dataclass, replace

from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.geometry import Rect
from riktig.core.job import (
    DeviceId,
    DuctFix,
    Job,
    JoinHow,
    Offcut,
    OwnPart,
    PlateFix,
    Purchase,
    RailFix,
    pick_part,
    remove_part,
    set_part,
)
from riktig.core.plate import (
    LAYOUT,
    Duct,
    Rail,
    Stand,
    join_parts,
    move_stands,
    plan_for_me,
    separate_parts,
    set_lock,
    set_rails_and_ducts,
)

__all__ = [
    "AddOffcut",
    "ChoosePart",
    "JoinParts",
    "KeepParts",
    "LockParts",
    "MoveParts",
    "PartPlace",
    "PlanPlate",
    "RemoveOffcut",
    "RemovePart",
    "SeparateParts",
    "SetPlate",
    "SetPurchases",
    "SetRailsAndDucts",
]


@dataclass(frozen=True)
class PartPlace:
    """Where a block stands: its first device, its rail (0: screwed to the plate), its left upper corner, mm."""

    device: DeviceId
    rail: int
    x: float
    y: float


@dataclass(frozen=True)
class MoveParts:
    """Blocks to where they are said to stand; all others are fixed where they are."""

    places: tuple[PartPlace, ...]

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the blocks there."""
        layout = evaluation.get(LAYOUT)
        stands = {stand.block.lead: stand for stand in layout.stands}
        moved = []
        for place in self.places:
            stand = stands.get(place.device)
            if stand is None:
                raise RiktigError(f"{place.device} does not stand on the plate, so nothing was moved.")
            if place.rail and layout.rail(place.rail) is None:
                raise RiktigError(f"There is no rail R{place.rail}, so nothing was moved.")
            moved.append(Stand(stand.block, place.rail, place.x, place.y))
        return move_stands(evaluation.document, layout, moved)


@dataclass(frozen=True)
class SetRailsAndDucts:
    """Rails and ducts to where they are said to be; what stands on a rail goes with it. All ends are given."""

    rails: tuple[RailFix, ...]
    ducts: tuple[DuctFix, ...]

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with those rails and ducts."""
        rails = []
        for rail in self.rails:
            if rail.x1 is None or rail.x2 is None:
                raise RiktigError(f"The ends of rail R{rail.number} are not given, so nothing was changed.")
            rails.append(Rail(rail.number, rail.y, rail.x1, rail.x2))
        for duct in self.ducts:
            if duct.width < 0 or duct.height < 0:
                raise RiktigError(
                    f"W{duct.number} would be {duct.width:g} by {duct.height:g} mm, so nothing was changed."
                )
        ducts = tuple(
            Duct(duct_fix.number, Rect(duct_fix.x, duct_fix.y, duct_fix.width, duct_fix.height), duct_fix.upright)
            for duct_fix in self.ducts
        )
        return set_rails_and_ducts(evaluation.document, evaluation.get(LAYOUT), tuple(rails), ducts)


@dataclass(frozen=True)
class LockParts:
    """Blocks locked where they stand, or unlocked."""

    devices: tuple[DeviceId, ...]
    locked: bool

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the blocks locked or not."""
        job, layout = evaluation.document, evaluation.get(LAYOUT)
        for device in self.devices:
            job = set_lock(job, layout, device, self.locked)
        return job


@dataclass(frozen=True)
class SetPlate:
    """The whole plate as it is given, such as the best one of a search; None gives it back to Riktig."""

    plate: PlateFix | None

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with that plate."""
        return replace(evaluation.document, plate=self.plate)


@dataclass(frozen=True)
class PlanPlate:
    """Every block that is not locked back to Riktig's own plan."""

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job planned anew."""
        return plan_for_me(evaluation.document)


@dataclass(frozen=True)
class JoinParts:
    """Parts made one assembly."""

    devices: tuple[DeviceId, ...]
    how: JoinHow

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the assembly."""
        return join_parts(evaluation.document, evaluation.get(LAYOUT), self.devices, self.how)


@dataclass(frozen=True)
class SeparateParts:
    """The assembly of a part taken apart."""

    device: DeviceId

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job without the assembly."""
        return separate_parts(evaluation.document, self.device)


@dataclass(frozen=True)
class KeepParts:
    """Parts of the builder's own, kept under their references."""

    parts: tuple[OwnPart, ...]

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the parts."""
        job = evaluation.document
        for part in self.parts:
            job = set_part(job, part)
        return job


@dataclass(frozen=True)
class RemovePart:
    """A part of the builder's own out of the job."""

    ref: str

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job without the part."""
        return remove_part(evaluation.document, self.ref)


@dataclass(frozen=True)
class ChoosePart:
    """The part of a device by its reference; "" leaves the choice to Riktig."""

    device: DeviceId
    ref: str

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the choice."""
        return pick_part(evaluation.document, self.device, self.ref)


@dataclass(frozen=True)
class AddOffcut:
    """An offcut on the shelf, to be cut from before new stock."""

    offcut: Offcut

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the offcut."""
        return replace(evaluation.document, shelf=(*evaluation.document.shelf, self.offcut))


@dataclass(frozen=True)
class SetPurchases:
    """The purchasing table of the workshop in place of the one before: order numbers, prices, stock, lead times."""

    purchases: tuple[Purchase, ...]

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the table."""
        return replace(evaluation.document, purchases=self.purchases)


@dataclass(frozen=True)
class RemoveOffcut:
    """The offcut at a place of the shelf, counted from 0, off the shelf."""

    at: int

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job without the offcut."""
        job = evaluation.document
        if not 0 <= self.at < len(job.shelf):
            raise RiktigError("There is no such offcut on the shelf, so nothing was taken off.")
        return replace(job, shelf=tuple(offcut for n, offcut in enumerate(job.shelf) if n != self.at))
