"""All sheets at a glance: a click turns to one."""

from collections.abc import Callable, Sequence

from PySide6.QtCore import QSize, Qt
from PySide6.QtWidgets import QPushButton, QScrollArea, QToolButton, QVBoxLayout, QWidget

from riktig.core.geometry import Drawing
from riktig.desk.canvas import thumb
from riktig.desk.theme import Theme
from riktig.desk.widgets import FlowLayout, row_of

__all__ = ["Overview"]

PAGE = QSize(212, 152)


class Overview(QWidget):
    """The sheets as small pages, each with its number and title."""

    def __init__(self, turn_to: Callable[[int], None], back: Callable[[], None]) -> None:
        super().__init__()
        self._turn_to = turn_to
        self._shown: Sequence[Drawing] = ()
        self._theme = ""
        self.pages: list[QToolButton] = []
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        self.back = QPushButton("Back to the sheet")
        self.back.clicked.connect(back)
        column.addLayout(row_of([self.back, None]))
        body = QWidget()
        self._flow = FlowLayout(body, gap=10, lead=10)
        area = QScrollArea()
        area.setWidgetResizable(True)
        area.setWidget(body)
        column.addWidget(area, 1)

    def show_sheets(self, drawings: Sequence[Drawing], theme: Theme) -> None:
        """Shows the sheets of now; those that did not change are not painted again."""
        same_theme = theme.name == self._theme
        self._theme = theme.name
        while len(self.pages) > len(drawings):
            page = self.pages.pop()
            self._flow.removeWidget(page)
            page.deleteLater()
        for n, drawing in enumerate(drawings):
            if n >= len(self.pages):
                self.pages.append(self._page(n))
            elif same_theme and n < len(self._shown) and self._shown[n] is drawing:
                continue
            self.pages[n].setIcon(thumb(drawing, PAGE, theme, self.devicePixelRatioF()))
            words = drawing.title.removeprefix("Sheet ")
            self.pages[n].setText(words if len(words) < 32 else words[:30].rstrip(" ,:") + "…")
            self.pages[n].setToolTip(drawing.title)
            self.pages[n].setAccessibleName(drawing.title)
        self._shown = tuple(drawings)

    def _page(self, n: int) -> QToolButton:
        page = QToolButton()
        page.setToolButtonStyle(Qt.ToolButtonStyle.ToolButtonTextUnderIcon)
        page.setIconSize(PAGE)
        page.setFixedSize(PAGE.width() + 20, PAGE.height() + 38)
        page.clicked.connect(lambda _=False, i=n: self._turn_to(i))
        self._flow.addWidget(page)
        return page
