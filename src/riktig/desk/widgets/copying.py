"""Tables and lists as text: rows on lines, cells parted by tabs, as spreadsheets and letters take them."""

from PySide6.QtCore import QItemSelectionModel, QModelIndex, Qt
from PySide6.QtWidgets import QAbstractItemView, QTableView, QTreeView

__all__ = ["all_of_list", "chosen_of_list"]


def chosen_of_list(view: QAbstractItemView) -> str:
    """The rows that are chosen; all of them where none is.

    Args:
        view: A table, a list or a tree.
    """
    chosen = view.selectionModel()
    rows = [row for row in _rows(view) if _is_chosen(chosen, row, view)]
    return _text(view, rows) if rows else all_of_list(view)


def all_of_list(view: QAbstractItemView) -> str:
    """Every row, of a table below its headings.

    Args:
        view: A table, a list or a tree.
    """
    text = _text(view, _rows(view))
    if not isinstance(view, QTableView):
        return text
    headings = (str(view.model().headerData(column, Qt.Orientation.Horizontal) or "") for column in _columns(view))
    return "\t".join(headings) + "\n" + text


def _rows(view: QAbstractItemView) -> list[QModelIndex]:
    """The first cell of every row; of a tree with those below each."""
    model, rows = view.model(), list[QModelIndex]()

    def take(parent: QModelIndex) -> None:
        for row in range(model.rowCount(parent)):
            index = model.index(row, 0, parent)
            rows.append(index)
            if isinstance(view, QTreeView):
                take(index)

    take(QModelIndex())
    return rows


def _columns(view: QAbstractItemView) -> list[int]:
    if not isinstance(view, QTableView):
        return [0]
    return [column for column in range(view.model().columnCount()) if not view.isColumnHidden(column)]


def _is_chosen(chosen: QItemSelectionModel, row: QModelIndex, view: QAbstractItemView) -> bool:
    return any(chosen.isSelected(row.siblingAtColumn(column)) for column in _columns(view))


def _text(view: QAbstractItemView, rows: list[QModelIndex]) -> str:
    columns = _columns(view)
    lines = ("\t".join(_cell(row.siblingAtColumn(column)) for column in columns) for row in rows)
    return "\n".join(lines)


def _cell(index: QModelIndex) -> str:
    """The text of a cell on one line: a tab or a line break in it would make two cells of it."""
    return " ".join(str(index.data() or "").split())
