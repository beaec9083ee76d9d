"""Pages of which one is shown, as low as that one may be; where there is less height still, they scroll."""

from PySide6.QtCore import QSize, Qt
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
        """That of the page that is shown."""
        page = self.currentWidget()
        return page.minimumSizeHint() if page else super().minimumSizeHint()

    def sizeHint(self) -> QSize:
        """That of the page that is shown."""
        page = self.currentWidget()
        return page.sizeHint() if page else super().sizeHint()


class ScrolledPages(QScrollArea):
    """Pages that fill their room, as wide as they need, and scroll up and down only where it is too low for them.

    Args:
        pages: What is shown.
    """

    def __init__(self, pages: PageStack) -> None:
        super().__init__()
        self._pages = pages
        self.setWidget(pages)
        self.setWidgetResizable(True)
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        pages.currentChanged.connect(self.updateGeometry)

    def minimumSizeHint(self) -> QSize:
        """As wide as the page that is shown, and low."""
        return QSize(self._pages.minimumSizeHint().width(), LOWEST)
