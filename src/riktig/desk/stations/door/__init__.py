"""Door: what the operator sees and touches, and the holes for it."""

from riktig.desk.stations.door.station import DoorStation

__all__ = ["DoorStation"]
