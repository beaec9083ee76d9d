"""Tab goes through a page as the eye does, whatever the order in which it was made."""

from collections.abc import Iterator
from itertools import pairwise

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLayout, QWidget

__all__ = ["first_field", "tab_as_seen"]


def _seen(layout: QLayout) -> Iterator[QWidget]:
    """The widgets of a layout that take the focus, in the order they are laid out."""
    for place in range(layout.count()):
        item = layout.itemAt(place)
        if item is None:
            continue
        inner, widget = item.layout(), item.widget()
        if inner is not None:
            yield from _seen(inner)
        if widget is None:
            continue
        within = widget.layout()
        if widget.focusPolicy() & Qt.FocusPolicy.TabFocus:
            yield widget
        elif within is not None:
            yield from _seen(within)


def first_field(part: QWidget) -> QWidget | None:
    """The first widget of a part that takes the focus, as seen."""
    layout = part.layout()
    return next((w for w in _seen(layout) if w.isVisible()), None) if layout else None


def tab_as_seen(page: QWidget, before: list[QWidget]) -> list[QWidget]:
    """Sets the order of Tab on a page; returns it, so that nothing is done when it has not changed.

    Returns:
        The order set.
    """
    layout = page.layout()
    order = list(_seen(layout)) if layout else []
    if order != before:
        for first, second in pairwise(order):
            QWidget.setTabOrder(first, second)
    return order
