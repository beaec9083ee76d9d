"""Prove: one test at a time on a bench card."""

from riktig.desk.stations.prove.station import ProveStation

__all__ = ["ProveStation"]
