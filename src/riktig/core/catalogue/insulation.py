"""Whether a part may be touched while it is live, and the voltage its insulation is made for."""

import csv
from dataclasses import dataclass
from functools import cache
from importlib import resources

from riktig.core.catalogue.part_table import Part, parts

__all__ = ["Insulation", "insulation_of"]


@dataclass(frozen=True, slots=True)
class Insulation:
    """How a part is insulated. ``touch`` is “finger-safe” or “bare”; rated insulation voltage V, impulse voltage kV."""

    touch: str
    rated_v: float
    impulse_kv: float


def insulation_of(part: Part) -> Insulation | None:
    """The insulation of a generic part; None where nobody has given it, as of a part of the builder's own."""
    ref = part.ref.partition(" + ")[0]  # a contactor with a block of contacts is insulated like the contactor
    return _by_family().get(ref.partition("-")[0]) if ref in _generic() else None


@cache
def _generic() -> frozenset[str]:
    """The references of the catalogue: a part of the builder's own may begin like one of them."""
    return frozenset(part.ref for part in parts())


@cache
def _by_family() -> dict[str, Insulation]:
    path = resources.files("riktig.core.catalogue") / "data" / "insulation.csv"
    rows = csv.DictReader(path.read_text(encoding="utf-8").splitlines()[1:])
    return {row["family"]: Insulation(row["touch"], float(row["ui_v"]), float(row["uimp_kv"])) for row in rows}
