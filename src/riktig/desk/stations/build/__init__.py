"""Build: today's batch in big type, a tick for everything done to a wire."""

from riktig.desk.stations.build.station import BuildStation

__all__ = ["BuildStation"]
