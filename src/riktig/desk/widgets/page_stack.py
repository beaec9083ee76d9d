"""Pages of which one is shown, as low as that one may be; where there is less height still, they scroll."""

from PySide6.QtCore import QEvent, QObject, QSize, Qt
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QFrame, QScrollArea, QSizePolicy, QStackedWidget

__all__ = ["PageStack", "ScrolledPages"]

LOWEST = 180
"""So much of a page is seen at least, pixels."""


class PageStack(QStackedWidget):
    """Asks for what the page that is shown asks for; Qt's own asks for the most that any page does."""

    def __init__(self) -> None:
        super().__init__()
        self.currentChanged.connect(self.updateGeometry)

    def minimumSizeHint(self) -> QSize:
        """That of the page that is shown, as high as it is at its width: rows of buttons break their line."""
        page = self.currentWidget()
        if page is None:
            return super().minimumSizeHint()
        return QSize(
            page.minimumSizeHint().width(), self.least_height(max(self.width(), page.minimumSizeHint().width()))
        )

    def least_height(self, width: int) -> int:
        """How low the page that is shown may be at a width."""
        page = self.currentWidget()
        layout = page.layout() if page else None
        if page is None or layout is None or not layout.hasHeightForWidth():
            return page.minimumSizeHint().height() if page else 0
        return layout.minimumHeightForWidth(width)

    def sizeHint(self) -> QSize:
        """That of the page that is shown."""
        page = self.currentWidget()
        return page.sizeHint() if page else super().sizeHint()


class ScrolledPages(QScrollArea):
    """Pages that fill their room, as wide as they need, and scroll up and down only where it is too low for them.

    Qt's own resizing gives a page the height that it would like; here it is given what there is, down to its least.

    Args:
        pages: What is shown.
    """

    def __init__(self, pages: PageStack) -> None:
        super().__init__()
        self._pages = pages
        self.setWidget(pages)
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        pages.currentChanged.connect(self._page_turned)
        pages.installEventFilter(self)

    def minimumSizeHint(self) -> QSize:
        """As wide as the page that is shown, and low."""
        return QSize(self._pages.minimumSizeHint().width(), LOWEST)

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        """A page that asks for other room gets it."""
        if watched is self._pages and event.type() is QEvent.Type.LayoutRequest:
            self._page_turned()
        return super().eventFilter(watched, event)

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Gives the pages the room that there is."""
        super().resizeEvent(event)
        self._fit()

    def _page_turned(self) -> None:
        self.updateGeometry()
        self._fit()

    def _fit(self) -> None:
        """Once for the width, and once more where that leaves less height than the page needs: then a bar stands."""
        for _ in range(2):
            room = self.viewport().size()
            self._pages.resize(room.width(), max(room.height(), self._pages.least_height(room.width())))
