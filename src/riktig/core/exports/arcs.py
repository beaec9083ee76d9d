"""Arcs as their end points."""

from math import cos, radians, sin

from riktig.core.geometry import Arc

__all__ = ["arc_ends"]


def arc_ends(arc: Arc) -> tuple[tuple[float, float], tuple[float, float]]:
    """Where an arc begins and ends (y down)."""

    def at(degrees: float) -> tuple[float, float]:
        angle = radians(degrees)
        return arc.x + arc.radius * cos(angle), arc.y + arc.radius * sin(angle)

    return at(arc.start), at(arc.start + arc.span)
