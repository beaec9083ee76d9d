"""Terminals: the strips as they stand on the rail."""

from riktig.desk.stations.terminals.station import TerminalsStation

__all__ = ["TerminalsStation"]
