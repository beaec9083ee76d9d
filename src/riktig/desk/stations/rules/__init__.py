"""Rules: the clauses that apply, as an inspector walks them."""

from riktig.desk.stations.rules.station import RulesStation

__all__ = ["RulesStation"]
