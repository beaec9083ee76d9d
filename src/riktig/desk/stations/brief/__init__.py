"""Brief: the job as the customer says it, as a form letter."""

from riktig.desk.stations.brief.station import BriefStation

__all__ = ["BriefStation"]
