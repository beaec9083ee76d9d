"""Tab goes through a page as the eye does, whatever the order in which it was made."""

from collections.abc import Iterator
from itertools import pairwise

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLayout, QScrollArea, QWidget

__all__ = ["TabOrder", "first_field"]


def _within(widget: QWidget) -> Iterator[QWidget]:
    """A widget and what it holds, as far as they take the focus, in the order they are laid out."""
    if widget.focusPolicy() & Qt.FocusPolicy.TabFocus:
        yield widget
    inner = widget.widget() if isinstance(widget, QScrollArea) else None
    layout = widget.layout()
    if inner is not None:
        yield from _within(inner)
    elif layout is not None:
        yield from _seen(layout)


def _seen(layout: QLayout) -> Iterator[QWidget]:
    """The widgets of a layout that take the focus, in the order they are laid out."""
    for place in range(layout.count()):
        item = layout.itemAt(place)
        if item is None:
            continue
        inner, widget = item.layout(), item.widget()
        if inner is not None:
            yield from _seen(inner)
        if widget is not None:
            yield from _within(widget)


def first_field(part: QWidget) -> QWidget | None:
    """The first widget of a part that takes the focus, as seen."""
    layout = part.layout()
    return next((w for w in _seen(layout) if w.isVisible() and w.isEnabled()), None) if layout else None


class TabOrder:
    """The order in which Tab goes through a page; set anew only when a widget has come or gone."""

    def __init__(self) -> None:
        self._widgets: list[QWidget] = []
        self._known: set[QWidget] = set()

    def __contains__(self, widget: QWidget) -> bool:
        """Whether it has its place."""
        return widget in self._known

    def set(self, *parts: QWidget) -> None:
        """Puts the widgets of these parts of a window one after the other, each part as it is laid out."""
        widgets = [widget for part in parts for widget in _within(part)]
        if widgets == self._widgets:
            return
        self._widgets, self._known = widgets, set(widgets)
        for first, second in pairwise(widgets):
            QWidget.setTabOrder(first, second)
