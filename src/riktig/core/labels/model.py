"""Labels as they are: what each says, on what, in how many copies, at which size."""

from collections import Counter
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from enum import Enum
from functools import cached_property

from riktig.core.door import LEGEND_PLATE, NAMEPLATE
from riktig.core.keys import Key
from riktig.core.labels.fit import USUAL_LIMITS, LetterLimits
from riktig.core.labels.nameplate import NameplateField

__all__ = ["SIZES", "Label", "Labels", "Medium", "label_names"]


class Medium(Enum):
    """What is printed on."""

    DEVICE = "device labels"
    WIRE = "wire markers"
    CORE = "core marks"
    TERMINAL = "terminal markers"
    CABLE = "cable tags"
    PIECE = "piece labels"
    EARTH = "earth marks"
    TORQUE = "torque marks"
    LEGEND = "door legends"
    WARNING = "warning plates"
    NOTICE = "door notices"
    NAMEPLATE = "nameplate"


SIZES = {
    Medium.DEVICE: (27.0, 12.5),
    Medium.WIRE: (12.0, 4.0),
    Medium.CORE: (12.0, 4.0),
    Medium.TERMINAL: (6.0, 10.0),
    Medium.CABLE: (40.0, 10.0),
    Medium.PIECE: (50.0, 10.0),
    Medium.EARTH: (12.0, 18.0),
    Medium.TORQUE: (45.0, 12.0),
    Medium.LEGEND: LEGEND_PLATE,
    Medium.WARNING: (100.0, 30.0),
    Medium.NOTICE: (150.0, 100.0),
    Medium.NAMEPLATE: NAMEPLATE,
}
"""Width and height, mm (chosen by us: common sizes of print media, no source)."""


@dataclass(frozen=True, slots=True)
class Label:
    """A label: its lines of text, how many copies, and the key of what it goes on."""

    medium: Medium
    lines: tuple[str, ...]
    copies: int
    where: str
    key: Key | None
    code: str = ""
    """What its code says to a scanner; "" without one."""
    on_sheet: tuple[float, float] | None = None
    """Width and height of the sheet's labels, mm, where the medium has a sheet of its own."""
    short: tuple[str, ...] = ()
    """The lines with the house's abbreviations, taken one by one where the whole line does not fit."""
    limits: LetterLimits = USUAL_LIMITS
    """What its medium takes."""
    batch: int = 0
    """The batch of a wire, 0 for everything else."""
    stage: str = ""
    """Of a wire when it goes in, "" for everything else."""
    place: str = ""
    """Where on the panel: “R2”, “door”, “X1”."""
    own: str = ""
    """Why its words are the builder's own, "" where they are Riktig's."""

    @property
    def size(self) -> tuple[float, float]:
        """Width and height, mm; what carries a code beside its words is wider by the code."""
        if self.on_sheet:
            return self.on_sheet
        width, height = SIZES[self.medium]
        return (width + height, height) if self.code and self.medium is not Medium.NAMEPLATE else (width, height)


@dataclass(frozen=True)
class Labels:
    """All labels, in the order they are put on, and the fields of the nameplate."""

    labels: tuple[Label, ...]
    nameplate: tuple[NameplateField, ...]
    untranslated: tuple[str, ...] = ()
    """Texts that the house's table does not say in the language of the labels."""
    strays: tuple[str, ...] = ()
    """Labels by name that have a text of the builder's own and are not there any more, or say something else now."""

    @cached_property
    def by_name(self) -> Mapping[str, Label]:
        """Every label by the name that stays its own, in their order."""
        return dict(zip(label_names(self.labels), self.labels, strict=True))

    def on(self, medium: Medium) -> tuple[Label, ...]:
        """Those on one medium."""
        return tuple(label for label in self.labels if label.medium is medium)


def label_names(labels: Iterable[Label]) -> list[str]:
    """A name for each label that stays its own through edits: its medium, what it goes on, which of those it is."""
    seen: Counter[tuple[Medium, Key | None]] = Counter()
    names = []
    for label in labels:
        place = (label.medium, label.key)
        names.append(f"{label.medium.name.lower()}/{label.key}/{seen[place]}")
        seen[place] += 1
    return names
