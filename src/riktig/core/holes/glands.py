"""The gland plate: a gland or hub for every cable, in the order of the cables, and its hole."""

from collections.abc import Iterable
from dataclasses import dataclass
from math import pi, sqrt

from riktig.core.door import DoorPlan
from riktig.core.holes.make import numbered, sheets_of
from riktig.core.holes.model import Hole, HoleSurface, Tool
from riktig.core.job import DeviceId, DoorHoles, Enclosure, EntrySide, Practice, Surface
from riktig.core.keys import DeviceKey
from riktig.core.standards import EntryFitting, cable_core_diameter, conduit_hub, fitting_class, gland_for
from riktig.core.terminals import Cable, Strips

__all__ = ["CableEntry", "Entries", "cable_diameter", "entries_of"]

SHEATH = 1.8
"""Of a cable's outer sheath, mm (common size, no source)."""
BUNDLE = {1: 1.0, 2: 2.0, 3: 2.16, 4: 2.42, 5: 2.7, 6: 3.0, 7: 3.0}
"""How many times as thick as a core so many laid together are (geometry of equal circles)."""
NETWORK_CABLE = 6.5
"""Diameter of a network cable of four pairs, screened, mm (common size, from memory)."""
BETWEEN = 8.0
"""Between the nuts of neighbours, for the spanner (chosen by us)."""
EDGE = 12.0


@dataclass(frozen=True, slots=True)
class CableEntry:
    """Where a cable comes in: its tag, what it goes to, its outer diameter as reckoned, mm, and its gland or hub.

    No fitting: none holds it.
    """

    cable: str
    device: DeviceId
    diameter: float
    fitting: EntryFitting | None
    hole: Hole | None


@dataclass(frozen=True, slots=True)
class Entries:
    """All cable entries, and the cables that find no room on their gland plate."""

    entries: tuple[CableEntry, ...]
    crowded: tuple[str, ...]

    @property
    def holes(self) -> tuple[Hole, ...]:
        """The holes of the gland plates, row by row."""
        made = (entry.hole for entry in self.entries if entry.hole)
        return tuple(sorted(made, key=lambda hole: (hole.face, round(hole.y, 1), round(hole.x, 1))))


def cable_diameter(cores: int, mm2: float) -> float:
    """Outer diameter of a cable of so many cores, mm, as reckoned from its cores; measure the cable itself.

    Source:
        Geometry of circles laid together; core by EN 50525-2-31, sheath a common size; from memory.

    Args:
        cores: How many cores.
        mm2: The section of the conductor, mm².
    """
    factor = BUNDLE.get(cores) or 1.17 * sqrt(cores)
    return round(factor * cable_core_diameter(mm2).value + 2 * SHEATH, 1)


def entries_of(strips: Strips, enclosure: Enclosure, door: DoorPlan, practice: Practice) -> Entries:
    """A gland for every cable by the IEC rulebook, a hub by the North American one, in rows from the left.

    The supply comes in on its side, the cables of the field on theirs.

    Args:
        strips: The terminal strips and the cables that land on them.
        enclosure: The enclosure.
        door: The doors with what is fitted in them.
        practice: The practice of the job.
    """
    sheets = {sheet.name: sheet for sheet in sheets_of(enclosure, door)}
    sides = {EntrySide.BOTTOM: Surface.GLAND.value, EntrySide.TOP: Surface.TOP_GLAND.value}
    wanted: dict[str, list[tuple[Cable, float, EntryFitting | None]]] = {}
    american = practice.rulebook.north_american
    for cable in strips.cables:
        side = enclosure.entry if cable.is_supply else enclosure.field_entry
        if not cable.enters:
            continue
        diameter = cable_diameter(cable.sold, cable.mm2) if cable.cores else NETWORK_CABLE
        area = 0.0 if cable.cores else pi / 4 * NETWORK_CABLE**2
        area += sum(pi / 4 * cable_core_diameter(core.mm2).value ** 2 for core in cable.cores)
        area += cable.spare * pi / 4 * cable_core_diameter(cable.mm2).value ** 2
        fitting = conduit_hub(max(cable.sold, 1), area) if american else gland_for(diameter)
        wanted.setdefault(sides[side], []).append((cable, diameter, fitting))
    tool = Tool.PUNCH if practice.door_holes is DoorHoles.PUNCH else Tool.HOLE_SAW
    family = "hub" if american else "gland"
    made: list[tuple[Cable, float, EntryFitting | None, Hole | None]] = []
    crowded: list[str] = []
    for name, cables in wanted.items():
        spots = _in_rows([fitting.nut if fitting else 0.0 for _, _, fitting in cables], sheets[name])
        for (cable, diameter, fitting), spot in zip(cables, spots, strict=True):
            hole = None
            if fitting and spot:
                what = f"{'hub' if american else 'gland'} {fitting.size}, {cable.tag}"
                key = f"gland:{cable.tag}"
                hole = Hole(
                    "", name, spot[0], spot[1], fitting.hole, "", what, "", tool, 0.0, 0.0, key,
                    DeviceKey(cable.device), fitting_class(family),
                )  # fmt: skip
            elif fitting:
                crowded.append(cable.tag)
            made.append((cable, diameter, fitting, hole))
    by_key = {hole.key: hole for hole in numbered((h for *_, h in made if h), tuple(sheets.values()))}
    entries = tuple(
        CableEntry(cable.tag, cable.device, diameter, fitting, by_key[hole.key] if hole else None)
        for cable, diameter, fitting, hole in made
    )
    return Entries(entries, tuple(crowded))


def _in_rows(nuts: Iterable[float], sheet: HoleSurface) -> list[tuple[float, float] | None]:
    """The middles of nuts in rows from the left, front row first; None where the plate is full."""
    places: list[tuple[float, float] | None] = []
    x, y, high = EDGE, EDGE, 0.0
    for nut in nuts:
        if nut <= 0:
            places.append(None)
            continue
        if x + nut > sheet.width - EDGE:
            x, y, high = EDGE, y + high + BETWEEN, 0.0
        if y + nut > sheet.height - EDGE or nut > sheet.width - 2 * EDGE:
            places.append(None)
            continue
        high = max(high, nut)
        places.append((round(x + nut / 2, 1), round(y + nut / 2, 1)))
        x += nut + BETWEEN
    return places
