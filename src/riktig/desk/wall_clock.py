"""The clock of this machine, which records are dated by."""

from collections.abc import Callable
from datetime import datetime

__all__ = ["Clock", "wall_clock"]

Clock = Callable[[], str]
"""Says what time it is now, ISO 8601 with zone."""


def wall_clock() -> str:
    """Now, ISO 8601 with zone."""
    return datetime.now().astimezone().isoformat(timespec="seconds")
