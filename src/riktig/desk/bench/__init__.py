"""What whoever stands at the bench sees, for building and for proving: one card over the whole screen, and its keys."""

from riktig.desk.bench.bench_card import BenchCard, BenchWords
from riktig.desk.bench.bench_keys import common_key

__all__ = ["BenchCard", "BenchWords", "common_key"]
