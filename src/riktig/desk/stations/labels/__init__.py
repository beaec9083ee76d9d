"""Labels: every medium as it will print."""

from riktig.desk.stations.labels.station import LabelsStation

__all__ = ["LabelsStation"]
