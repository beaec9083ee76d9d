"""Both sides of every terminal, drawn; the list behind it."""

from functools import partial

from PySide6.QtWidgets import QPushButton, QWidget

from riktig.core.exports import schedule
from riktig.core.keys import DeviceKey, Key
from riktig.core.terminals import STRIP_DRAWINGS, STRIPS
from riktig.core.views import device_of
from riktig.desk.canvas import SHEET, DrawingView
from riktig.desk.session import Session
from riktig.desk.theme import Theme
from riktig.desk.widgets import FlowLayout, ScheduleTable, Station, plain_label

__all__ = ["TerminalsStation"]


class TerminalsStation(Station):
    """One strip at a time: inside above, field below."""

    needs = (STRIPS,)

    waits_for = "No terminal strips yet. They are made from what each circuit connects in the field."

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.view = DrawingView("Terminal strip")
        self.view.opening = SHEET
        self.view.chosen.connect(session.select)
        self.table = ScheduleTable("Terminals", "mark")
        self.table.setFixedHeight(210)
        tabs = QWidget()
        self._tabs = FlowLayout(tabs, gap=4, lead=4)
        self._buttons: list[QPushButton] = []
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
        self._show_tabs([f"{strip.tag}  {strip.purpose}" for strip in strips.strips])
        if drawings:
            self.view.show_drawing(drawings[self.strip])
        self.table.show_schedule(schedule("terminals", evaluation))
        count = sum(len(strip.rows) for strip in strips.strips)
        self.words.setText(f"{count} terminals  ·  {len(strips.cables)} field cables")

    def _show_tabs(self, texts: list[str]) -> None:
        """A button a strip; those that are there are written on anew."""
        while len(self._buttons) > len(texts):
            tab = self._buttons.pop()
            self._tabs.removeWidget(tab)
            tab.hide()
            tab.deleteLater()
        while len(self._buttons) < len(texts):
            tab = QPushButton()
            tab.setCheckable(True)
            tab.clicked.connect(partial(self._turn, len(self._buttons)))
            self._buttons.append(tab)
            self._tabs.addWidget(tab)
        for index, (tab, text) in enumerate(zip(self._buttons, texts, strict=True)):
            tab.setText(text)
            tab.setChecked(index == self.strip)

    def _turn(self, index: int, checked: bool = False) -> None:
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
