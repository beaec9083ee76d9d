"""Numbers and tags once given, so that an edit keeps every one it can."""

from dataclasses import dataclass

from riktig.core.job.ids import DeviceId, PinId

__all__ = ["GivenNumber", "GivenTag"]


@dataclass(frozen=True, slots=True)
class GivenNumber:
    """A number and the pins of the net that carried it last, in order of their ids."""

    number: int
    pins: tuple[PinId, ...]


@dataclass(frozen=True, slots=True)
class GivenTag:
    """A device's tag: given by the tag style, or the builder's own."""

    device: DeviceId
    tag: str
