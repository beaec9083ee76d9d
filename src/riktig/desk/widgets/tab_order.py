"""Tab goes through a page as the eye does, whatever the order in which it was made."""

from collections.abc import Iterator
from itertools import pairwise

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLayout, QWidget

__all__ = ["TabOrder", "first_field"]


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


class TabOrder:
    """The order in which Tab goes through a page; set anew only when a widget has come or gone."""

    def __init__(self) -> None:
        self._widgets: list[QWidget] = []

    def set(self, page: QWidget) -> None:
        """Puts the widgets of a page in the order in which they are laid out."""
        widgets = page.findChildren(QWidget)
        if widgets == self._widgets:
            return
        self._widgets = widgets
        layout = page.layout()
        for first, second in pairwise(_seen(layout) if layout else ()):
            QWidget.setTabOrder(first, second)
