"""Circuits: drawn sheets, changed by choosing an element."""

from riktig.desk.stations.circuits.station import CircuitsStation

__all__ = ["CircuitsStation"]
