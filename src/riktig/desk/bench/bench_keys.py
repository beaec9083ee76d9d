"""The keys that every page of the bench has in common."""

from collections.abc import Callable

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent

__all__ = ["common_key"]

_STEPS = {Qt.Key.Key_Down: 1, Qt.Key.Key_Right: 1, Qt.Key.Key_Up: -1, Qt.Key.Key_Left: -1}


def common_key(
    event: QKeyEvent, do_next: Callable[[], None], take_back: Callable[[], None], step: Callable[[int], None]
) -> bool:
    """Does what a key of the bench stands for; True when it was one of them.

    Space, and Page Down from a foot switch, do the next thing, Backspace takes the last back, arrows go to another.

    Args:
        event: The key.
        do_next: Does the next thing.
        take_back: Takes the last thing back.
        step: Goes to another, forward by 1 or back by -1.
    """
    key = Qt.Key(event.key())
    if key in (Qt.Key.Key_Space, Qt.Key.Key_PageDown):
        do_next()
    elif key == Qt.Key.Key_Backspace:
        take_back()
    elif key in _STEPS:
        step(_STEPS[key])
    else:
        return False
    return True
