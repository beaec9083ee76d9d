"""The sheets, and what can be done to what is chosen on them."""

from PySide6.QtCore import QPoint
from PySide6.QtWidgets import QInputDialog, QMenu, QPushButton, QWidget

from riktig.core.circuit import (
    CIRCUITS,
    NAMES,
    SHEET_DRAWINGS,
    SHEETS,
    SheetKind,
    insert_contact,
    remove_element,
    rename,
    renumber,
)
from riktig.core.job import DeviceId, ElementId, Insertable
from riktig.core.papers import device_of
from riktig.core.wiring import WIRING
from riktig.desk.canvas import DrawingView
from riktig.desk.session import Session
from riktig.desk.theme import Theme
from riktig.desk.widgets import FlowLayout, Station, plain_label

__all__ = ["CircuitsStation"]

_DEFAULT_TEXT = {
    Insertable.STOP_BUTTON: "second stop",
    Insertable.START_BUTTON: "second start",
    Insertable.FIELD_CONTACT: "interlock",
}


class CircuitsStation(Station):
    """Shows one sheet at a time; a chosen element can be added to, taken out or renamed."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.view = DrawingView("Circuit sheet")
        self.view.chosen.connect(session.select)
        self.view.menu_asked.connect(self._menu)
        self.after = self.button("Put in after …", "Puts a contact into the path after the element")
        self.across = self.button("Put in across …", "Puts a contact across the element")
        self.out = self.button("Take out", "Takes the element out of its path (Delete)")
        self.name = self.button("Rename …", "Gives the device another tag (F2)")
        self.count = self.button("Number anew", "Counts all wire numbers from the supply again")
        self.after.clicked.connect(lambda: self._put(parallel=False))
        self.across.clicked.connect(lambda: self._put(parallel=True))
        self.out.clicked.connect(self._take_out)
        self.name.clicked.connect(self._rename)
        self.count.clicked.connect(lambda: session.edit("number anew", renumber))
        self.hint = plain_label("", "quiet")
        tabs = QWidget()
        self._tabs = FlowLayout(tabs, gap=4, lead=4)
        self.add_bar((None, self.after, self.across, self.out, self.name, self.count))
        self.add_body(tabs, 0)
        self.add_body(self.view)
        self.add_body(self.hint, 0)
        self.sheet = 0

    def refresh(self) -> None:
        """Shows the sheets of now."""
        drawings = self.session.plan.get(SHEET_DRAWINGS)
        sheets = self.session.plan.get(SHEETS).sheets
        self.sheet = min(self.sheet, len(drawings) - 1)
        while self._tabs.count():
            item = self._tabs.takeAt(0)
            widget = item.widget() if item else None
            if widget:
                widget.hide()
                widget.deleteLater()
        for index, sheet in enumerate(sheets):
            tab = QPushButton(f"Sheet {sheet.number}")
            tab.setToolTip(sheet.title)
            tab.setCheckable(True)
            tab.setChecked(index == self.sheet)
            tab.setAccessibleName(f"Sheet {sheet.number}, {sheet.title}")
            tab.clicked.connect(lambda _=False, i=index: self.show_sheet(i))
            self._tabs.addWidget(tab)
        self.view.show_drawing(drawings[self.sheet])

    def show_sheet(self, index: int) -> None:
        """Turns to a sheet."""
        self.sheet = index
        self.refresh()

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        super().set_theme(theme)
        self.view.set_theme(theme)

    def show_selection(self, key: str) -> None:
        """Marks every place of the device or net on the sheet, and turns to it if needed."""
        keys = {key}
        plan = self.session.plan
        owner = device_of(key)
        wire = plan.get(WIRING).wire(key.removeprefix("wire:")) if key.startswith("wire:") else None
        if wire:
            keys.add(f"net:{wire.net}")
        if owner and not key.startswith("element:"):
            drawings = plan.get(SHEET_DRAWINGS)
            keys |= {mark.key for drawing in drawings for mark in drawing.marks if device_of(mark.key) == owner}
        here = {mark.key for mark in self.view.drawing.marks}
        if key and not keys & here:
            sheets = plan.get(SHEET_DRAWINGS)
            for index, drawing in enumerate(sheets):
                if any(mark.key in keys for mark in drawing.marks):
                    self.show_sheet(index)
                    break
        self.view.select(frozenset(keys))
        element = self._element()
        control = element is not None and self._in_control(element)
        for button in (self.after, self.across, self.out):
            button.setEnabled(control)
        self.name.setEnabled(bool(owner))
        if control:
            self.hint.setText(
                "Ctrl and the wheel zoom, 0 fits, comma and point step on. Right button: what can be done here."
            )
        else:
            self.hint.setText(
                "Choose a contact, a coil or a lamp on a control sheet to add to its "
                "path. Comma and point step through the sheet."
            )

    def _element(self) -> ElementId | None:
        key = self.session.selection
        return ElementId(key.removeprefix("element:")) if key.startswith("element:") else None

    def _in_control(self, element: ElementId) -> bool:
        places = self.session.plan.get(SHEETS)
        place = places.places.get(element)
        return bool(place and places.sheets[place.sheet - 1].kind is SheetKind.CONTROL)

    def _menu(self, key: str, at: QPoint) -> None:
        menu = QMenu(self)
        for button in (self.after, self.across, self.out, self.name):
            action = menu.addAction(button.text())
            action.setEnabled(button.isEnabled())
            action.triggered.connect(button.click)
        menu.popup(at)

    def _put(self, *, parallel: bool) -> None:
        element = self._element()
        if element is None:
            return
        menu = QMenu(self)
        for what in Insertable:
            action = menu.addAction(what.value)
            action.triggered.connect(
                lambda _=False, w=what: self.put_in(element, w, _DEFAULT_TEXT[w], parallel=parallel)
            )
        source: QWidget = self.across if parallel else self.after
        menu.popup(source.mapToGlobal(QPoint(0, source.height())))
        menu.setActiveAction(menu.actions()[0])

    def put_in(self, element: ElementId, what: Insertable, text: str, *, parallel: bool = False) -> None:
        """Puts a contact in, as one edit."""
        self.session.edit(
            f"put in a {what.value}", lambda job: insert_contact(job, element, what, text, parallel=parallel)
        )

    def _take_out(self) -> None:
        element = self._element()
        if element:
            self.session.edit("take out an element", lambda job: remove_element(job, element))

    def _rename(self) -> None:
        owner = device_of(self.session.selection)
        if not owner:
            return
        device = DeviceId(owner)
        now = self.session.plan.get(NAMES).tag[device]
        kind = self.session.plan.get(CIRCUITS).device(device).kind.name
        text, done = QInputDialog.getText(self, "Rename", f"New tag of the {kind} {now}:", text=now)
        if done:
            self.session.edit(f"rename {now}", lambda job: rename(job, device, text))
