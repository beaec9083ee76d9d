"""Schedules of the short-circuit rating: each part with its limit, and the ways to a higher one."""

from collections.abc import Callable

from riktig.core.evaluation import Evaluation
from riktig.core.exports.schedule_model import Schedule, Value
from riktig.core.job import Job
from riktig.core.keys import DeviceKey
from riktig.core.schematic import NAMES
from riktig.core.short_circuit import SHORT_CIRCUIT, limits_by_tag
from riktig.core.sizing import SIZING

__all__ = ["SCHEDULES"]


def _rating(evaluation: Evaluation[Job]) -> Schedule:
    """What each part lets the panel be connected to, the weakest first; what is not known on top."""
    short_circuit, tags = evaluation.get(SHORT_CIRCUIT), evaluation.get(NAMES).tag
    parts, rating = evaluation.get(SIZING).parts, short_circuit.rating
    limits = sorted(limits_by_tag(rating.limits, tags), key=lambda limit: -1.0 if limit.ka is None else limit.ka)
    rows: list[tuple[Value, ...]] = []
    for limit in limits:
        sets = "sets the rating" if limit.ka is not None and limit.ka == rating.ka else ""
        known = round(limit.ka, 3) if limit.ka is not None else "ask its maker"
        before = round(limit.raised_from, 3) if limit.raised_from is not None else None
        rows.append((tags[limit.device], parts[limit.device].ref, "feeder" if limit.is_feeder else "branch", known,
                     before, limit.basis.value, sets, limit.why, str(DeviceKey(limit.device))))  # fmt: skip
    columns = (
        ("tag", "Tag"), ("part", "Part"), ("where", "In a"), ("ka", "Bears, kA"), ("before", "Raised from, kA"),
        ("basis", "By"), ("sets", "Note"), ("why", "Why"), ("key", "Key"),
    )  # fmt: skip
    bears = f"{rating.ka:.3g} kA at {rating.volts:g} V" if rating.ka is not None else "not known"
    title = f"The {rating.name}: {bears}; the supply can give {short_circuit.prospective_ka:.3g} kA"
    return Schedule("rating", title, columns, tuple(rows))


def _ways(evaluation: Evaluation[Job]) -> Schedule:
    """What would raise the panel, and what each way costs in parts and in room."""
    tags = evaluation.get(NAMES).tag
    rows = tuple(
        (way.target_ka, way.words, way.reaches if way.reaches is not None else "as they say", way.changed,
         round(way.rail_mm, 1), ", ".join(dict.fromkeys(tags[device] for device in way.left)))
        for way in evaluation.get(SHORT_CIRCUIT).ways
    )  # fmt: skip
    columns = (
        ("target_ka", "For, kA"), ("way", "Way"), ("reaches_ka", "Reaches, kA"), ("parts", "Parts changed"),
        ("room_mm", "More room, mm"), ("held_by", "Held back by"),
    )  # fmt: skip
    return Schedule("ways", "Ways to a higher short-circuit rating", columns, rows)


SCHEDULES: dict[str, Callable[[Evaluation[Job]], Schedule]] = {"rating": _rating, "ways": _ways}
