"""Progress and cancelling of long work. The core knows no threads: it only reports and asks."""

from collections.abc import Callable

__all__ = ["Cancelled", "Progress"]


class Cancelled(BaseException):
    """The user stopped the work. Not an ``Exception``, so that no handler takes it for a bug."""


class Progress:
    """Says how far a piece of work is, and stops it when asked to.

    Args:
        on_step: Called with (share done 0..1, what is being done).
        stopped: Asked at each step; true raises ``Cancelled``.
    """

    def __init__(
        self,
        on_step: Callable[[float, str], None] = lambda share, text: None,
        stopped: Callable[[], bool] = lambda: False,
    ) -> None:
        self._on_step = on_step
        self._stopped = stopped

    def step(self, share: float, text: str) -> None:
        """Reports ``share`` (0..1) and raises ``Cancelled`` if the user asked to stop."""
        if self._stopped():
            raise Cancelled
        self._on_step(min(max(share, 0.0), 1.0), text)
