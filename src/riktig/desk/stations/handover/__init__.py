"""Hand over: the papers, what they lack, and where they go."""

from riktig.desk.stations.handover.station import HandoverStation

__all__ = ["HandoverStation"]
