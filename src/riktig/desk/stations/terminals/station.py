"""Both sides of every terminal, drawn; the list behind it."""

from PySide6.QtWidgets import QPushButton, QWidget

from riktig.core.exports import schedule
from riktig.core.keys import DeviceKey, Key
from riktig.core.terminals import STRIP_DRAWINGS, STRIPS
from riktig.core.views import device_of
from riktig.desk.canvas import DrawingView
from riktig.desk.session import Session
from riktig.desk.theme import Theme
from riktig.desk.widgets import FlowLayout, ScheduleTable, Station, plain_label

__all__ = ["TerminalsStation"]


class TerminalsStation(Station):
    """One strip at a time: inside above, field below."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.view = DrawingView("Terminal strip")
        self.view.chosen.connect(session.select)
        self.table = ScheduleTable("Terminals", "mark")
        self.table.setFixedHeight(210)
        tabs = QWidget()
        self._tabs = FlowLayout(tabs, gap=4, lead=4)
        self.words = plain_label("", "second")
        self.add_body(tabs, 0)
        self.add_bar((self.words, None))
        self.add_body(self.view)
        self.add_body(self.table, 0)
        self.strip = 0

    def refresh(self) -> None:
        """Shows the strips of now."""
        evaluation = self.session.evaluation
        strips, drawings = evaluation.get(STRIPS), evaluation.get(STRIP_DRAWINGS)
        self.strip = min(self.strip, len(drawings) - 1)
        while self._tabs.count():
            item = self._tabs.takeAt(0)
            widget = item.widget() if item else None
            if widget:
                widget.hide()
                widget.deleteLater()
        for index, strip in enumerate(strips.strips):
            tab = QPushButton(f"{strip.tag}  {strip.purpose}")
            tab.setCheckable(True)
            tab.setChecked(index == self.strip)
            tab.clicked.connect(lambda _=False, i=index: self._turn(i))
            self._tabs.addWidget(tab)
        if drawings:
            self.view.show_drawing(drawings[self.strip])
        self.table.show_schedule(schedule("terminals", evaluation))
        count = sum(len(strip.rows) for strip in strips.strips)
        self.words.setText(f"{count} terminals  ·  {len(strips.cables)} field cables")

    def _turn(self, index: int) -> None:
        self.strip = index
        self.refresh()

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        super().set_theme(theme)
        self.view.set_theme(theme)

    def show_selection(self, key: Key | None) -> None:
        """Marks the chosen terminal and turns to its strip."""
        owner = device_of(key)
        strips = self.session.evaluation.get(STRIPS).strips
        for index, strip in enumerate(strips):
            if any(row.device == owner for row in strip.rows) and index != self.strip:
                self._turn(index)
        self.view.select(frozenset({DeviceKey(owner), key}) if owner else frozenset())
