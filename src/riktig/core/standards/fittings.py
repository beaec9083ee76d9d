"""What is fitted in the holes of an enclosure: glands, hubs, and the class each fitting keeps."""

import re
from dataclasses import dataclass

from riktig.core.standards.tables import table

__all__ = ["EntryFitting", "class_keeps", "conduit_hub", "fitting_class", "gland_for"]

_IP = re.compile(r"\bIP\s?([0-6])([0-9])", re.IGNORECASE)
_TYPE = re.compile(r"\b(?:type|nema)s?\b[\s:]*((?:(?:12K|3R|3S|4X|6P|1[23]?|[2-6])\b[\s,/]*)+)", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class EntryFitting:
    """A gland or hub: its size, its hole, and how wide its nut is, mm."""

    size: str
    hole: float
    nut: float


def gland_for(diameter: float) -> EntryFitting | None:
    """The smallest gland that holds a cable of an outer diameter, mm; None when none does.

    Source:
        EN 60423 threads, clamping ranges of common glands, from memory.
    """
    for row in table("cable_glands").rows:
        if float(row["min_mm"]) <= diameter <= float(row["max_mm"]):
            return EntryFitting(row["thread"], float(row["hole_dia_mm"]), float(row["nut_mm"]))
    return None


def conduit_hub(conductors: int, area_mm2: float) -> EntryFitting | None:
    """The smallest hub whose conduit is not filled too much; None when none is large enough.

    Source:
        NFPA 70 Chapter 9 Table 1 (53 % for one conductor, 31 % for two, 40 % for more), Table 4 (EMT) and UL 514A-50
        knockouts, from memory.

    Args:
        conductors: How many lie in it, one or more.
        area_mm2: Of all of them with their insulation, mm².
    """
    share = next(
        float(row["share"]) for row in reversed(table("conduit_fill").rows) if int(row["conductors"]) <= conductors
    )
    for row in table("conduit_hubs").rows:
        whole = float(row["area40_in2"]) / 0.40
        if area_mm2 / 25.4**2 <= share * whole + 1e-9:
            return EntryFitting(f"{row['trade_size']} in", float(row["hole_dia_mm"]), float(row["nut_mm"]))
    return None


def fitting_class(family: str) -> str:
    """The class that a family of fittings is commonly sold in, such as “IP65, Type 12, 4X”; "" when not known."""
    return next((row["class"] for row in table("fitting_classes").rows if row["family"] == family), "")


def class_keeps(fitting: str, box: str) -> bool | None:
    """Whether a fitting of a class keeps the class of its enclosure; None when the two cannot be compared.

    A box with both an IP code and a type must be kept in both.

    Source:
        IEC 60529 (each digit by itself), NEMA 250 (which type covers which), from memory.

    Args:
        fitting: The class of what is fitted.
        box: The class of the enclosure.
    """
    verdicts: list[bool | None] = []
    wanted = _IP.search(box)
    if wanted:
        given = _IP.search(fitting)
        verdicts.append(
            all(int(a) >= int(b) for a, b in zip(given.groups(), wanted.groups(), strict=True)) if given else None
        )
    types = _types(box)
    if types:
        has = _types(fitting)
        rows = {row["type"]: set(row["covered_by"].split()) for row in table("enclosure_types").rows}
        verdicts.append(all(has & (rows.get(type_name, set()) | {type_name}) for type_name in types) if has else None)
    if not verdicts or (None in verdicts and False not in verdicts):
        return None
    return False not in verdicts


def _types(text: str) -> set[str]:
    matched = _TYPE.search(text)
    return (
        {type_name.upper() for type_name in re.split(r"[\s,/]+", matched.group(1)) if type_name} if matched else set()
    )
