"""Wires: batches as cards, the list behind them."""

from riktig.desk.stations.wires.station import WiresStation

__all__ = ["WiresStation"]
