"""What the sets of one folder of papers share: the same list or drawing is laid out once, not once a reader."""

from collections.abc import Callable
from typing import TypeVar, cast

__all__ = ["SharedLayouts"]

T = TypeVar("T")


class SharedLayouts:
    """Layouts by the very thing that they are of, as long as its papers are written.

    A set goes to each of five readers, and most lists and drawings to several of them.
    """

    def __init__(self) -> None:
        self._made: dict[tuple[object, ...], tuple[object, object]] = {}

    def once(self, of: object, how: tuple[object, ...], make: Callable[[], T]) -> T:
        """What ``make`` gives, made at the first call alone.

        Args:
            of: What it is a layout of, known by identity; it is kept alive, so that no other gets its identity.
            how: What else it follows from: sizes, and a word for the kind of layout.
            make: Makes it.
        """
        key = (id(of), *how)
        if key not in self._made:
            self._made[key] = (of, make())
        return cast("T", self._made[key][1])
