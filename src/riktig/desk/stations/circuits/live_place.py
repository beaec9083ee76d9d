"""Where on the sheets one sees what moved, and what to lock to work on it."""

from collections.abc import Collection, Sequence

from riktig.core.evaluation import Evaluation
from riktig.core.job import DeviceId, Job
from riktig.core.keys import ElementKey
from riktig.core.schematic import CIRCUITS, NETS, Sheet
from riktig.core.simulation import lock_off, lock_off_text, panel_of

__all__ = ["locks_text", "place_of"]


def place_of(moved: Collection[DeviceId], sheets: Sequence[Sheet], now: int) -> tuple[int, ElementKey] | None:
    """The sheet and the element where most of what moved is seen; the sheet of now where it shows any of it.

    Args:
        moved: The devices that moved.
        sheets: All sheets.
        now: The index of the sheet that is shown.
    """
    seen = [[seat.element for seat in sheet.seats if seat.element.device in moved] for sheet in sheets]
    best = now if seen[now] else max(range(len(sheets)), key=lambda n: len(seen[n]))
    return (best, ElementKey(seen[best][-1].id)) if seen[best] else None


def locks_text(plan: Evaluation[Job], device: DeviceId) -> str:
    """Which switches must be off and locked to work on a device, with its devices by their ids in braces."""
    circuits = plan.get(CIRCUITS)
    points = lock_off(circuits, panel_of(plan.document, circuits, plan.get(NETS)).network, device)
    return lock_off_text(points, circuits, device)
