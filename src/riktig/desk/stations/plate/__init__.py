"""Plate: the mounting plate to scale, moved by hand, marked out, cut."""

from riktig.desk.stations.plate.station import PlateStation

__all__ = ["PlateStation"]
