"""Numbers and tags once given, so that an edit keeps every one it can."""

from dataclasses import dataclass

from riktig.core.ids import DeviceId, PinRef

__all__ = ["FoundNames", "GivenNumber", "GivenTag"]


@dataclass(frozen=True, slots=True)
class GivenNumber:
    """A number and the pins of the net that carried it last, in order of their ids.

    ``marks`` says which ident each pin has within the net, where every wire has a number of its own.
    """

    number: str
    pins: tuple[PinRef, ...]
    marks: tuple[int, ...] = ()


@dataclass(frozen=True, slots=True)
class GivenTag:
    """A device's tag: given by the tag style, or the builder's own."""

    device: DeviceId
    tag: str
    own: bool = False


@dataclass(frozen=True, slots=True)
class FoundNames:
    """What stands on a panel that is there already: by role its tag, by number the clamps (“K1:13”) of its wires."""

    tags: tuple[tuple[str, str], ...] = ()
    numbers: tuple[tuple[str, tuple[str, ...]], ...] = ()
