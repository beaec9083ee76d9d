"""A job of the shop's server in the window: handed in and followed aside, clashes side by side, the shop board."""

from riktig.desk.server.server_bench import ServerBench
from riktig.desk.server.showing import show_board, show_clash

__all__ = ["ServerBench", "show_board", "show_clash"]
