"""What a passport is made of."""

from dataclasses import dataclass, field

from riktig.core.keys import Key
from riktig.core.standards import Why
from riktig.core.wiring import Wire

__all__ = ["Passport", "PassportRow", "PassportSection"]


@dataclass(frozen=True, slots=True)
class PassportRow:
    """A line: what, its value, and where the value leads (a selection key or "")."""

    name: str
    value: str
    link: Key | None = None


@dataclass(frozen=True, slots=True)
class PassportSection:
    """A group of lines."""

    title: str
    rows: tuple[PassportRow, ...]


@dataclass(frozen=True, slots=True)
class Passport:
    """Title, what it is, sections and reasons. ``wires`` and ``devices`` to show on the plate."""

    title: str
    kind: str
    text: str
    sections: tuple[PassportSection, ...] = ()
    whys: tuple[Why, ...] = ()
    wires: tuple[Wire, ...] = ()
    devices: frozenset[str] = field(default_factory=frozenset)
