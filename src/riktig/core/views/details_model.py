"""What details are made of."""

from dataclasses import dataclass, field

from riktig.core.keys import Key
from riktig.core.standards import Why
from riktig.core.wiring import Wire

__all__ = ["Details", "DetailsRow", "DetailsSection", "Note", "Photo"]


@dataclass(frozen=True, slots=True)
class DetailsRow:
    """A line: what, its value, and where the value leads (a selection key or "")."""

    name: str
    value: str
    link: Key | None = None


@dataclass(frozen=True, slots=True)
class DetailsSection:
    """A group of lines."""

    title: str
    rows: tuple[DetailsRow, ...]


@dataclass(frozen=True, slots=True)
class Photo:
    """A photo of the thing: where it is kept, its digest there, and who kept it when."""

    file: str
    digest: str
    text: str


@dataclass(frozen=True, slots=True)
class Note:
    """A note on the thing: what it says, and who wrote it when."""

    text: str
    by: str


@dataclass(frozen=True, slots=True)
class Details:
    """Title, what it is, sections and reasons. ``wires`` and ``devices`` to show on the plate."""

    title: str
    kind: str
    text: str
    sections: tuple[DetailsSection, ...] = ()
    whys: tuple[Why, ...] = ()
    wires: tuple[Wire, ...] = ()
    devices: frozenset[str] = field(default_factory=frozenset)
    photos: tuple[Photo, ...] = ()
    notes: tuple[Note, ...] = ()
    reason: Note | None = None
    """Why it is so, in the words of whoever gave the reason."""
