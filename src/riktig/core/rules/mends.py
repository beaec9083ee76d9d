"""The remedies that Riktig carries out itself: each a pure edit."""

from collections.abc import Callable

from riktig.core.errors import RiktigError
from riktig.core.job import Colours, Job, MarkerText, set_enclosure, set_practice, set_supply
from riktig.core.plate import plan_for_me
from riktig.core.rules.model import Mend

__all__ = ["ENCLOSURES", "apply_mend", "larger_enclosure"]

ENCLOSURES = (
    (300, 400, 200),
    (400, 500, 200),
    (400, 600, 200),
    (500, 600, 250),
    (600, 700, 250),
    (600, 800, 300),
    (800, 1000, 300),
    (1000, 1200, 300),
    (1000, 1400, 400),
    (1200, 1800, 400),
)
"""Width, height, depth, mm: common sheet steel sizes (common practice, no source)."""
PLATE_LESS = 50.0
DUCTS = (30.0, 40.0, 60.0, 80.0, 100.0, 120.0)


def larger_enclosure(job: Job) -> Job:
    """The next standard size in which the plate grows both ways."""
    now = job.enclosure
    for width, height, depth in ENCLOSURES:
        if width >= now.width and height >= now.height and width * height > now.width * now.height:
            return set_enclosure(
                job,
                width=float(width),
                height=float(height),
                depth=float(depth),
                plate_width=width - PLATE_LESS,
                plate_height=height - PLATE_LESS,
                plate_depth=depth - 30.0,
            )
    raise RiktigError(
        f"There is no standard enclosure larger than {now.size_name}.",
        hint="Split the panel, or give a size of your own in the Brief.",
    )


def _wider_duct(job: Job) -> Job:
    wider = [width for width in DUCTS if width > job.practice.duct_width]
    if not wider:
        raise RiktigError("There is no wider duct.", hint="Route wires another way.")
    return set_practice(job, duct_width=wider[0])


_ACTIONS: dict[str, Callable[[Job], Job]] = {
    "neutral": lambda job: set_supply(job, neutral=True),
    "colours": lambda job: set_practice(job, colours=Colours.RULEBOOK),
    "short markers": lambda job: set_practice(job, marker=MarkerText.NUMBER),
    "plan": plan_for_me,
    "larger enclosure": larger_enclosure,
    "wider duct": _wider_duct,
}


def apply_mend(job: Job, mend: Mend) -> Job:
    """Carries a remedy out.

    Raises:
        RiktigError: it cannot be carried out on this job.
    """
    return _ACTIONS[mend.action](job)
