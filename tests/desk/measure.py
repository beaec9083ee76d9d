"""Measures the texts of a window: what is cut, and what lies over what."""

from collections.abc import Iterator
from itertools import combinations

from PySide6.QtCore import QPoint, QRect, Qt
from PySide6.QtWidgets import (
    QAbstractButton,
    QAbstractScrollArea,
    QComboBox,
    QHeaderView,
    QLabel,
    QLineEdit,
    QTableView,
    QWidget,
)

from riktig.core.geometry import Text, bounds_of
from riktig.desk.canvas import DrawingView
from riktig.desk.widgets import ElidedLabel, ScrolledPages

__all__ = ["cut_cells", "cut_texts", "overlapping_texts", "overlapping_widgets"]

SLACK = 1
"""A pixel of rounding is not seen."""


def _shown(window: QWidget) -> Iterator[QWidget]:
    """Every widget of a window that can be seen at least in part."""
    for widget in window.findChildren(QWidget):
        if widget.isVisible() and not widget.visibleRegion().isEmpty():
            yield widget


def _text(widget: QWidget) -> str:
    if isinstance(widget, QLineEdit):
        return widget.text() or widget.placeholderText()
    if isinstance(widget, QLabel | QAbstractButton):
        return widget.text()
    return widget.currentText() if isinstance(widget, QComboBox) else ""


def _scrolls(widget: QWidget, window: QWidget) -> bool:
    """Whether it lies in something that scrolls."""
    parent = widget.parentWidget()
    while parent is not None and parent is not window:
        if isinstance(parent, ScrolledPages):
            return parent.verticalScrollBar().maximum() > 0
        if isinstance(parent, QAbstractScrollArea):
            return True
        parent = parent.parentWidget()
    return False


def _advance(widget: QWidget, text: str) -> int:
    metrics = widget.fontMetrics()
    return max(metrics.horizontalAdvance(line) for line in text.replace("&&", "&").splitlines())


def cut_texts(window: QWidget) -> list[tuple[str, str]]:
    """Labels, buttons and choices that are narrower or lower than their text; each with its class.

    A text that ends with “…” and says all of itself in its tip is not cut.
    """
    cut = []
    for widget in _shown(window):
        text = _text(widget)
        if not text.strip():
            continue
        if isinstance(widget, ElidedLabel) and text.endswith("…"):
            if not widget.toolTip():
                cut.append((type(widget).__name__, text))
        elif isinstance(widget, QLabel):
            metrics, lines = widget.fontMetrics(), len(text.splitlines())
            low = widget.heightForWidth(widget.width()) if widget.wordWrap() else metrics.height() * lines
            narrow = not widget.wordWrap() and _advance(widget, text) > widget.width() + SLACK
            # a line may lose what stands empty above its capitals, no more
            if narrow or low - (metrics.ascent() - metrics.capHeight()) > widget.height() + SLACK:
                cut.append((type(widget).__name__, text))
        elif isinstance(widget, QAbstractButton | QComboBox) and _advance(widget, text) > widget.width() - 2 + SLACK:
            cut.append((type(widget).__name__, text))
        elif isinstance(widget, QLineEdit) and not widget.text() and _advance(widget, text) > widget.width() - 8:
            cut.append(("placeholder", text))
        if not _scrolls(widget, window) and widget.visibleRegion().boundingRect() != widget.rect():
            cut.append((f"{type(widget).__name__} covered", text))
    return cut


def overlapping_widgets(window: QWidget) -> list[tuple[str, str]]:
    """Pairs of texts of widgets that lie over each other, of which neither holds the other."""
    boxes = [(w, QRect(w.mapTo(window, QPoint(0, 0)), w.size())) for w in _shown(window) if _text(w).strip()]
    over = []
    for (a, box_a), (b, box_b) in combinations(boxes, 2):
        both = box_a.intersected(box_b)
        if both.width() > SLACK and both.height() > SLACK and not a.isAncestorOf(b) and not b.isAncestorOf(a):
            seen = a.visibleRegion().translated(box_a.topLeft()) & b.visibleRegion().translated(box_b.topLeft())
            if not seen.isEmpty():
                over.append((_text(a), _text(b)))
    return over


def cut_cells(window: QWidget) -> list[tuple[str, str]]:
    """Cells and headings of tables that are narrower than their text and say it nowhere else."""
    cut = []
    for table in _shown(window):
        if not isinstance(table, QTableView):
            continue
        model, metrics, area = table.model(), table.fontMetrics(), table.viewport().rect()
        header: QHeaderView = table.horizontalHeader()
        for column in range(model.columnCount()):
            words = str(model.headerData(column, Qt.Orientation.Horizontal) or "")
            lines = max((metrics.horizontalAdvance(line) for line in words.splitlines()), default=0)
            if not header.isSectionHidden(column) and header.isVisible() and lines > header.sectionSize(column):
                cut.append((table.accessibleName(), words))
            for row in range(model.rowCount()):
                index = model.index(row, column)
                box = table.visualRect(index)
                if not box.intersects(area) or table.isColumnHidden(column):
                    continue
                text, tip = str(index.data() or ""), index.data(Qt.ItemDataRole.ToolTipRole)
                widest = max((metrics.horizontalAdvance(line) for line in text.splitlines()), default=0)
                if widest > box.width() and not tip and not table.wordWrap():
                    cut.append((table.accessibleName(), text))
    return cut


def overlapping_texts(view: DrawingView) -> list[tuple[str, str]]:
    """Pairs of texts of a drawing that lie over each other as it is painted now."""
    laid = view.readable(view.laid)
    standing = tuple(mark for mark in laid if isinstance(mark, Text))
    marks = [*laid, *view.readable(view.drawing.shapes, standing)]
    texts = [mark for mark in marks if isinstance(mark, Text) and mark.text.strip()]
    boxes = [(mark, bounds_of(mark)) for mark in texts]
    over = []
    boxes.sort(key=lambda item: item[1].x)
    for n, (a, box_a) in enumerate(boxes):
        for b, box_b in boxes[n + 1 :]:
            if box_b.x >= box_a.right:
                break
            wide = min(box_a.right, box_b.right) - box_b.x
            high = min(box_a.y + a.size, box_b.y + b.size) - max(box_a.y, box_b.y)
            if wide > 0.15 * a.size and high > 0.2 * a.size:
                over.append((a.text, b.text))
    return over
