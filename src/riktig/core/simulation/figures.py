"""What coils, lamps and loads draw, what a meter reads of them, and how quick contacts are."""

from riktig.core.catalogue import Behaviour, Draw, Kind, Quickness, Unit

__all__ = ["BY_HAND", "CONTACT_OHM", "LINK_OHM", "USUAL_QUICKNESS", "draw_of"]

CONTACT_OHM, LINK_OHM = 0.01, 0.001
"""A closed contact, and a terminal or a plugged joint (common practice, no source)."""


_USUAL = Draw(100.0, pick=0.6, hold=0.55)
"""Of what the catalogue says nothing (chosen by us)."""


def draw_of(kind: Kind, unit: Unit) -> Draw:
    """What a unit of a kind draws."""
    return kind.draw or Draw(_USUAL.va, dc=unit.behaviour is Behaviour.INPUT, pick=_USUAL.pick, hold=_USUAL.hold)


USUAL_QUICKNESS = Quickness(0.015, 0.022, 0.008, 0.014)
"""Of contactors and all others: typical, from memory. Contacts that open do so before others close."""

BY_HAND = Quickness(0.03, 0.06, 0.008, 0.014)
"""An armature pushed in with a finger: slower than any coil (chosen by us)."""
