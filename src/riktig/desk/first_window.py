"""The top-level window: painted at once with the first screen, while the rest of the program is still being loaded."""

from collections.abc import Callable

from PySide6.QtCore import QByteArray, QSettings, QTimer
from PySide6.QtGui import QCloseEvent, QPaintEvent
from PySide6.QtWidgets import QHBoxLayout, QMainWindow, QVBoxLayout, QWidget

from riktig.desk.shell.start_page import StartPage, newest_jobs
from riktig.desk.theme import LIGHT, palette, style_sheet
from riktig.desk.widgets.small import plain_label
from riktig.places import jobs_folder

__all__ = ["FirstWindow"]

SIZE = (1280, 800)
GEOMETRY = "geometry"
SIDES = (198, 0)
"""Widths of the route card and of the details, so that nothing moves when they come, px."""


class FirstWindow(QMainWindow):
    """Shows the first screen, or which job is being opened, and then the window of the program in its place.

    Keys and clicks that come meanwhile wait, and reach the program.

    Args:
        make: Loads and makes the window of the program; called once, after the first painting.
        opening: The name of the job that is being opened; "" for the first screen.
        settings: Keeps where the window stood; None keeps nothing.
    """

    def __init__(self, make: Callable[[], QMainWindow], opening: str = "", settings: QSettings | None = None) -> None:
        super().__init__()
        self._settings = settings
        self._make: Callable[[], QMainWindow] | None = make
        self.inner: QMainWindow | None = None
        self.setWindowTitle("Riktig")
        self.setPalette(palette(LIGHT))
        self.setStyleSheet(style_sheet(LIGHT))
        self.resize(*SIZE)
        stood = settings.value(GEOMETRY) if settings is not None else None
        if isinstance(stood, QByteArray):
            self.restoreGeometry(stood)
        self.setCentralWidget(_opening_page(opening) if opening else _first_page())

    def paintEvent(self, event: QPaintEvent) -> None:
        """Paints, and then lets the program be loaded."""
        super().paintEvent(event)
        if self._make is not None:
            make, self._make = self._make, None
            QTimer.singleShot(0, self, lambda: self._take_in(make()))

    def _take_in(self, window: QMainWindow) -> None:
        self.inner, wanted = window, window.focusWidget()
        window.windowTitleChanged.connect(self.setWindowTitle)
        self.setWindowTitle(window.windowTitle())
        self.setCentralWidget(window)
        window.show()
        if wanted is not None:
            wanted.setFocus()

    def closeEvent(self, event: QCloseEvent) -> None:
        """Closes the program; it may say that something is not in the file yet."""
        if self.inner is not None and not self.inner.close():
            event.ignore()
            return
        if self._settings is not None:
            self._settings.setValue(GEOMETRY, self.saveGeometry())
        event.accept()


def _first_page() -> QWidget:
    start = StartPage()
    start.show_recent(newest_jobs(jobs_folder()))
    return _framed(start)


def _opening_page(name: str) -> QWidget:
    page = QWidget()
    page.setObjectName("paper")
    layout = QVBoxLayout(page)
    layout.addStretch(1)
    layout.addWidget(plain_label(f"Opening {name} …", "second"))
    layout.addStretch(2)
    layout.setContentsMargins(60, 0, 60, 0)
    return _framed(page)


def _framed(page: QWidget) -> QWidget:
    """A page between empty places for what stands beside it later."""
    body = QWidget()
    layout = QHBoxLayout(body)
    layout.setContentsMargins(0, 43, 0, 36)
    layout.setSpacing(0)
    for width, middle in ((SIDES[0], page), (SIDES[1], None)):
        side = QWidget()
        side.setFixedWidth(width)
        layout.addWidget(side)
        if middle is not None:
            layout.addWidget(middle, 1)
    return body
