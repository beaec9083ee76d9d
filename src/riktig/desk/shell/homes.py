"""Which station shows a thing best, and from which one need not go there."""

from riktig.core.keys import (
    BatchKey,
    CircuitKey,
    DeviceKey,
    DuctKey,
    ElementKey,
    HoleKey,
    Key,
    LoadKey,
    NetKey,
    OpeningKey,
    PieceKey,
    PinKey,
    PlaceKey,
    RailKey,
    ValueKey,
    WireKey,
)

__all__ = ["HOME_OF", "HOME_OF_PART", "STAYS"]

HOME_OF: dict[type[Key], str] = {
    DeviceKey: "Circuits",
    PinKey: "Circuits",
    ElementKey: "Circuits",
    NetKey: "Circuits",
    CircuitKey: "Circuits",
    PlaceKey: "Circuits",
    RailKey: "Plate",
    DuctKey: "Plate",
    PieceKey: "Plate",
    HoleKey: "Door",
    OpeningKey: "Door",
    WireKey: "Wires",
    BatchKey: "Wires",
    LoadKey: "Brief",
    ValueKey: "Brief",
}
"""The station that shows a kind of thing best, for the finder and the findings."""
HOME_OF_PART = {"control": "Circuits", "circuit": "Circuits", "plate": "Plate", "door": "Door", "warning": "Labels"}
"""That of a part that there is once; the Brief for the others."""
STAYS: dict[type[Key], tuple[str, ...]] = {
    DeviceKey: ("Brief", "Circuits", "Plate", "Door", "Terminals", "Labels", "Rules"),
    PinKey: ("Circuits", "Plate"),
    HoleKey: ("Plate", "Door"),
    NetKey: ("Circuits", "Wires"),
    WireKey: ("Wires", "Plate", "Build", "Labels"),
}
"""Stations from which one need not move to see a kind of thing."""
