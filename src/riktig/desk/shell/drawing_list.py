"""The drawing that is open as a list at the foot: for screen readers, and for whoever looks for a thing by name."""

from collections.abc import Callable, Iterable

from PySide6.QtCore import Qt, QTimer, Signal
from PySide6.QtWidgets import QHBoxLayout, QLineEdit, QListWidget, QListWidgetItem, QPushButton, QVBoxLayout, QWidget

from riktig.core.geometry import Drawing
from riktig.core.keys import Key
from riktig.core.labels import IndexEntry
from riktig.core.views import drawing_lines
from riktig.desk.canvas import DrawingView
from riktig.desk.widgets import Station, plain_label

__all__ = ["DrawingList"]

LOW, TALL = 60, 210
"""Least and usual height of the list, pixels: it never makes the window grow."""
_KEY = Qt.ItemDataRole.UserRole


class DrawingList(QWidget):
    """Follows the largest drawing of the open station; walking the list selects what it names.

    Args:
        station: Gives the station that is open.
        entries: Gives what things are called.
    """

    chosen = Signal(object)

    def __init__(self, station: Callable[[], Station | None], entries: Callable[[], Iterable[IndexEntry]]) -> None:
        super().__init__()
        self._station, self._entries = station, entries
        self._shown: tuple[Drawing, str] | None = None
        self._quiet = False
        self.setObjectName("card")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setAccessibleName("The drawing as a list")
        self.words = plain_label("", "second")
        self.filter = QLineEdit()
        self.filter.setPlaceholderText("Only lines with …")
        self.filter.setAccessibleName("Only lines with these words")
        self.filter.setMaximumWidth(220)
        self.away = QPushButton("Close list")
        self.away.setToolTip("Puts the list away (F7)")
        self.list = QListWidget()
        self.list.setMinimumHeight(LOW)
        self.list.setMaximumHeight(TALL)
        self.list.setUniformItemSizes(True)
        self.list.setSelectionMode(QListWidget.SelectionMode.ExtendedSelection)
        top = QHBoxLayout()
        top.addWidget(self.words, 1)
        top.addWidget(self.filter)
        top.addWidget(self.away)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(12, 3, 12, 3)
        whole.setSpacing(3)
        whole.addLayout(top)
        whole.addWidget(self.list)
        self._later = QTimer(self, singleShot=True, interval=0)
        self._later.timeout.connect(self._fill)
        self.filter.textChanged.connect(lambda text: self._sift())
        self.away.clicked.connect(self.turn)
        self.list.currentItemChanged.connect(self._walked)
        self.list.itemActivated.connect(self._walked)
        self.hide()

    def watch(self, station: Station) -> None:
        """Follows every drawing of a station."""
        for view in station.findChildren(DrawingView):
            view.drawn.connect(self.follow)

    def follow(self) -> None:
        """Something else may be drawn now."""
        if self.isVisible():
            self._later.start()

    def turn(self) -> None:
        """Opens the list with the focus in it, or puts it away and goes back to the drawing."""
        if self.isVisible():
            self.hide()
            station = self._station()
            if station is not None:
                station.take_focus()
            return
        self.show()
        self._fill()
        self.list.setFocus()

    def view(self) -> DrawingView | None:
        """The largest drawing that is seen in the open station."""
        station = self._station()
        views = [view for view in station.findChildren(DrawingView) if view.isVisible()] if station else []
        return max(views, key=lambda view: view.width() * view.height(), default=None)

    def show_selection(self, key: Key | None, name: str) -> None:
        """Marks what is selected, and says it of the drawing.

        Args:
            key: What is selected.
            name: What it is called.
        """
        view = self.view()
        if view is not None:
            view.say_chosen(name)
        if self.isVisible() and not self.list.hasFocus():
            self._mark(key)

    def _fill(self) -> None:
        """Writes the lines anew where another drawing is shown."""
        view = self.view()
        if view is None:
            self._shown = None
            self.list.clear()
            self.words.setText("There is no drawing here." if self._station() else "Open a job first.")
            return
        shown = (view.drawing, view.accessibleName())
        if self._shown is not None and self._shown[0] is shown[0]:
            return
        self._shown = shown
        now = self.list.currentItem()
        key = now.data(_KEY) if now else None
        lines = drawing_lines(view.drawing, self._entries())
        self._quiet = True
        self.list.clear()
        for line in lines:
            item = QListWidgetItem(line.text, self.list)
            item.setData(_KEY, line.key)
            item.setToolTip(line.text)
        self._quiet = False
        self.list.setAccessibleName(f"{view.accessibleName()}: {view.drawing.title}")
        self._sift()
        self._mark(key)

    def _sift(self) -> None:
        """Hides the lines that do not have the words of the filter."""
        words = self.filter.text().lower().split()
        left = 0
        for row in range(self.list.count()):
            item = self.list.item(row)
            hidden = not all(word in item.text().lower() for word in words)
            item.setHidden(hidden)
            left += not hidden
        name = self._shown[1] if self._shown else ""
        of = f"{left} of {self.list.count()}" if words else f"{self.list.count()}"
        self.words.setText(f"{name}: {of} lines. Walk with the arrow keys; what a line names is selected.")

    def _mark(self, key: Key | None) -> None:
        if key is None:
            return
        self._quiet = True
        for row in range(self.list.count()):
            if self.list.item(row).data(_KEY) == key:
                self.list.setCurrentRow(row)
                break
        self._quiet = False

    def _walked(self, item: QListWidgetItem | None) -> None:
        key = item.data(_KEY) if item is not None else None
        if key is not None and not self._quiet:
            self.chosen.emit(key)
