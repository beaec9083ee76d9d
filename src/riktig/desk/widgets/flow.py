"""A layout that runs like text: words and fields, line after line."""

from PySide6.QtCore import QRect, QSize, Qt
from PySide6.QtWidgets import QLayout, QLayoutItem, QWidget

__all__ = ["FlowLayout"]


class FlowLayout(QLayout):
    """Puts its widgets side by side and breaks the line where the width ends."""

    def __init__(self, parent: QWidget | None = None, gap: int = 6, lead: int = 5) -> None:
        super().__init__(parent)
        self._items: list[QLayoutItem] = []
        self._gap, self._lead = gap, lead
        self._hints: list[QSize] | None = None
        self._heights: dict[int, int] = {}
        """By width. A page asks for it a hundred times before it is painted once."""
        self.setContentsMargins(0, 0, 0, 0)

    def addItem(self, item: QLayoutItem) -> None:
        """Takes an item at the end."""
        self._items.append(item)
        self._forget()

    def count(self) -> int:
        """How many items there are."""
        return len(self._items)

    def itemAt(self, index: int) -> QLayoutItem:
        """One of the items; Qt expects None beyond the end."""
        return self._items[index] if 0 <= index < len(self._items) else None  # type: ignore[return-value]

    def takeAt(self, index: int) -> QLayoutItem:
        """Gives an item back; Qt expects None beyond the end."""
        self._forget()
        return self._items.pop(index) if 0 <= index < len(self._items) else None  # type: ignore[return-value]

    def expandingDirections(self) -> Qt.Orientation:
        """Neither way."""
        return Qt.Orientation(0)

    def hasHeightForWidth(self) -> bool:
        """The height follows from the width, as with text."""
        return True

    def heightForWidth(self, width: int) -> int:
        """How high the lines are at a width."""
        if width not in self._heights:
            edge = self.contentsMargins()
            inner = self._run(QRect(0, 0, width - edge.left() - edge.right(), 0), place=False)
            self._heights[width] = inner + edge.top() + edge.bottom()
        return self._heights[width]

    def invalidate(self) -> None:
        """An item has another size, or is shown or hidden: everything is measured again."""
        self._forget()
        super().invalidate()

    def _forget(self) -> None:
        self._hints = None
        self._heights.clear()

    def _sizes(self) -> list[QSize]:
        """The size of each item."""
        if self._hints is None:
            self._hints = [item.sizeHint() for item in self._items]
        return self._hints

    def setGeometry(self, rect: QRect) -> None:
        """Places the items."""
        super().setGeometry(rect)
        self._run(rect.marginsRemoved(self.contentsMargins()), place=True)

    def sizeHint(self) -> QSize:
        """As little as the largest item."""
        return self.minimumSize()

    def minimumSize(self) -> QSize:
        """The largest item's own least size."""
        size = QSize()
        for item in self._items:
            size = size.expandedTo(item.minimumSize())
        edge = self.contentsMargins()
        return size + QSize(edge.left() + edge.right(), edge.top() + edge.bottom())

    def _run(self, rect: QRect, *, place: bool) -> int:
        x, y, line = rect.x(), rect.y(), 0
        row: list[tuple[QLayoutItem, QSize, int]] = []

        def lay_out_again() -> None:
            if place:
                for item, hint, left in row:
                    top = y + (line - hint.height()) // 2
                    item.setGeometry(QRect(left, top, hint.width(), hint.height()))
            row.clear()

        for item, hint in zip(self._items, self._sizes(), strict=True):
            if item.isEmpty():  # what is hidden takes no gap
                continue
            if row and x + hint.width() > rect.right():
                lay_out_again()
                x, y, line = rect.x(), y + line + self._lead, 0
            row.append((item, hint, x))
            x += hint.width() + self._gap
            line = max(line, hint.height())
        lay_out_again()
        return y + line - rect.y()
