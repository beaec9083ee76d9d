"""A job of the shop's server in the window: followed and handed in aside; both sides of a part; the board."""

from riktig.desk.server.server_bench import ServerBench
from riktig.desk.server.showing import show_board, show_unmerged

__all__ = ["ServerBench", "show_board", "show_unmerged"]
