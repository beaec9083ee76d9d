"""Each strip as it is built and each cable as it opens into its cores; the list of all terminals behind."""

from functools import partial
from itertools import islice

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeySequence, QShortcut
from PySide6.QtWidgets import QMenu, QPushButton, QStackedWidget, QWidget

from riktig.core.exports import schedule
from riktig.core.keys import DeviceKey, Key
from riktig.core.terminals import STRIP_DRAWINGS, STRIPS
from riktig.core.views import device_of
from riktig.desk.canvas import PAGES, DrawingView
from riktig.desk.session import Session
from riktig.desk.stations.terminals.cables import CablePlan
from riktig.desk.stations.terminals.ordering import StripDrag, StripOrder
from riktig.desk.theme import Theme
from riktig.desk.widgets import FlowLayout, ScheduleTable, Station, plain_label

__all__ = ["TerminalsStation"]


class TerminalsStation(Station):
    """One strip at a time with its cables, or every terminal in a list."""

    needs = (STRIPS,)

    waits_for = "No terminal strips yet. They are made from what each circuit connects in the field."

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.view = DrawingView("Terminal strip")
        self.view.opening = PAGES
        self.view.chosen.connect(session.select)
        self.table = ScheduleTable("Terminals", "mark")
        self.table.row_chosen.connect(self._row_chosen)
        tabs = QWidget()
        self._tabs = FlowLayout(tabs, gap=4, lead=4)
        self._buttons: list[QPushButton] = []
        self.listed = self.button("List", "Every terminal of all strips, one below the other", checkable=True)
        self.listed.clicked.connect(self._turn_page)
        self.ordering = StripOrder(session)
        self.order = self.button(
            "Order …", "Moves the chosen terminal, parts its strip, adds a spare one, counts markings"
        )
        menu = QMenu(self.order)
        menu.aboutToShow.connect(lambda: self.ordering.fill(menu))
        self.order.setMenu(menu)
        self.cables = CablePlan(session, self)
        self.cable = self.button("Cable …", "Shares the chosen cable, names its cores, buys it with spare ones")
        of_cable = QMenu(self.cable)
        of_cable.aboutToShow.connect(lambda: self.cables.fill(of_cable))
        self.cable.setMenu(of_cable)
        self.view.gesture = StripDrag(self.view, self.ordering, lambda: not session.read_only)
        for keys, by in (("Alt+Left", -1), ("Alt+Right", 1)):
            shortcut = QShortcut(QKeySequence(keys), self)
            shortcut.setContext(Qt.ShortcutContext.WidgetWithChildrenShortcut)
            shortcut.activated.connect(partial(self.ordering.shift, by))
        self.words = plain_label("", "second")
        self.pages = QStackedWidget()
        self.pages.addWidget(self.view)
        self.pages.addWidget(self.table)
        self.add_body(tabs, 0)
        self.add_bar((self.listed, self.order, self.cable, self.words, None))
        self.add_body(self.pages)
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
        self.listed.setChecked(False)
        self._turn_page()
        self.refresh()

    def _turn_page(self) -> None:
        self.pages.setCurrentWidget(self.table if self.listed.isChecked() else self.view)
        for tab in self._buttons:
            tab.setEnabled(not self.listed.isChecked())

    def _row_chosen(self, mark: str) -> None:
        """A row of the list selects its terminal."""
        rows = (row for strip in self.session.evaluation.get(STRIPS).strips for row in strip.rows)
        index = self.table.chosen_row
        row = next(islice(rows, index, None), None)
        if row is not None:
            self.session.select(DeviceKey(row.device))

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        super().set_theme(theme)
        self.view.set_theme(theme)

    def show_selection(self, key: Key | None) -> None:
        """Marks the chosen terminal and turns to its strip."""
        owner = device_of(key)
        every = self.session.evaluation.get(STRIPS)
        cable = next((cable for cable in every.cables if owner in cable.devices and cable.cores), None)
        landed = {owner} | ({core.panel_pin.device for core in cable.cores[:1]} if cable else set())
        for index, strip in enumerate(every.strips):
            here = any(row.device in landed for row in strip.rows)
            if here and index != self.strip and not self.listed.isChecked():
                self._turn(index)
        self.view.select(frozenset({DeviceKey(owner), key}) if owner else frozenset())
