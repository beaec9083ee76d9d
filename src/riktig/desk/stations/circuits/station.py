"""The sheets, and what can be done to what is chosen on them."""

from PySide6.QtCore import QPoint, Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QMenu, QPushButton, QStackedWidget, QWidget

from riktig.core.annotation import SHEET_DRAWINGS
from riktig.core.edits import AddCircuit, MoveElement, PutIn, TakeOut
from riktig.core.ids import LoadId, circuit_of
from riktig.core.job import Act, CircuitId, ElementId, Insertable, Param, PinRef
from riktig.core.keys import ElementKey, Key, LoadKey, NetKey, PlaceKey, WireKey
from riktig.core.schematic import (
    CIRCUITS,
    NAMES,
    NETS,
    SHEETS,
    CircuitTemplate,
    SheetKind,
    cell_frame,
    line_frame,
    net_shapes,
    sheets_with,
)
from riktig.core.simulation import ScriptOutcome, behaviour_of
from riktig.core.views import device_of
from riktig.core.wiring import WIRING
from riktig.desk.canvas import SHEET, DrawingView
from riktig.desk.session import Session
from riktig.desk.stations.circuits.behaviour import BehaviourPage
from riktig.desk.stations.circuits.chooser import RecipeChooser
from riktig.desk.stations.circuits.live import LivePage
from riktig.desk.stations.circuits.menus import DEFAULT_TEXT, Changes
from riktig.desk.stations.circuits.overview import Overview
from riktig.desk.stations.circuits.renaming import RenamingPage
from riktig.desk.stations.circuits.sheet_pen import sheet_pen
from riktig.desk.stations.circuits.tabs import SheetTabs
from riktig.desk.stations.circuits.trace import TraceView
from riktig.desk.theme import Theme
from riktig.desk.widgets import FlowLayout, Station, plain_label

__all__ = ["CircuitsStation"]

KEYS = (
    "Enter: all actions. T trace, I insert in series, A insert in parallel, M move, Del delete, F2 rename. "
    "Use , and . for previous and next."
)


class CircuitsStation(Station):
    """Shows one sheet at a time; a chosen element can be added to, moved, taken out or renamed."""

    waits_for = "No circuits yet. They are drawn from the loads in the Brief; others are added here."
    usable_empty = True

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.view = DrawingView("Circuit sheet")
        self.view.opening = SHEET
        self.view.hovers = True
        self.view.chosen.connect(self._chosen)
        self.view.hovered.connect(self.show_hovered)
        self.view.use_menu(self._menu)
        self.view.on_key = self._key
        self.power = self.button("Energise", "Power on: operate the circuits and watch them (E)", checkable=True)
        self.power.clicked.connect(self.energise)
        self.all = self.button("All sheets", "Shows every sheet at a glance (O)")
        self.add = self.button("Add …", "A circuit that serves no single load: opens the recipe book")
        self.circuit = self.button("Circuit …", "This circuit: its parameters, rungs and devices of your own")
        self.after = self.button("Insert …", "Inserts an element in series after this one (I)")
        self.across = self.button("In parallel …", "Inserts an element in parallel with this one (A)")
        self.out = self.button("Delete", "Deletes the element from its path (Delete)")
        self.more = self.button("More …", "Move, replace, wire elsewhere, use a spare contact, rename")
        self.follow = self.button("Trace", "Follows what is chosen back to its source and on to its load (T)")
        self.name = self.button("Rename …", "Gives the device another tag (F2)")
        self.count = self.button("Renumber or retag …", "Numbers and tags, old and new, and what they affect")
        self.changes = Changes(self, session)
        self.all.clicked.connect(self.show_all)
        self.add.clicked.connect(self.open_book)
        self.circuit.clicked.connect(lambda: self.popup_under(self.circuit, self.changes.circuit_menu(self._here())))
        self.after.clicked.connect(lambda: self._offer_put_menu(self.after, parallel=False))
        self.across.clicked.connect(lambda: self._offer_put_menu(self.across, parallel=True))
        self.out.clicked.connect(self._take_out)
        self.more.clicked.connect(self._more)
        self.follow.clicked.connect(self.show_trace)
        self.name.clicked.connect(lambda: self.changes.rename(session.selection))
        self.count.clicked.connect(lambda: self._page(self.renaming))
        self.hint = plain_label("", "quiet", wraps=True)
        self.chooser = RecipeChooser(self._add, self._to_sheets, lambda: self.asked.emit(LoadKey(LoadId(""))))
        self.behaviour = BehaviourPage(self._to_sheets, self._watch)
        self.overview: Overview = Overview(self._turn, self._to_sheets)
        self.renaming: RenamingPage = RenamingPage(session, self._to_sheets)
        self.trace = TraceView(session, self._to_sheets, self._show_on_sheet)
        self.live = LivePage(session, self._to_sheets, self._wires_known)
        self.live.turned.connect(self.show_sheet)
        self.tabs = SheetTabs(self._turn)
        self.pages = QStackedWidget()
        for page in (self.view, self.chooser, self.overview, self.behaviour, self.trace, self.renaming, self.live):
            self.pages.addWidget(page)
        bar = QWidget()
        row = FlowLayout(bar, gap=6, lead=6)
        self.editing = (self.add, self.circuit, self.follow, self.after, self.across, self.out, self.more, self.count)
        for button in (self.power, self.all, *self.editing):
            row.addWidget(button)
        self.add_body(bar, 0)
        self.add_body(self.tabs, 0)
        self.add_body(self.pages)
        self.add_body(self.hint, 0)
        self.pages.currentChanged.connect(self._turned)
        self.sheet = 0
        self._moving: ElementId | None = None

    def refresh(self) -> None:
        """Shows the sheets of now."""
        evaluation = self.session.evaluation
        self.sheet = min(self.sheet, len(evaluation.get(SHEETS).sheets) - 1)
        self.tabs.show_sheets(evaluation.get(SHEETS).sheets, self.sheet)
        self.view.show_drawing(sheet_pen(self.session).drawing(self.sheet))
        if self.pages.currentWidget() is self.live:
            self.live.show_sheet(self.sheet)
        if self.pages.currentWidget() is self.overview:
            self.overview.show_sheets(evaluation.get(SHEET_DRAWINGS), self.theme)
        if self.pages.currentWidget() is self.renaming:
            self.renaming.show_changes()
        if self.pages.currentWidget() is self.trace and not self.trace.follow(self.trace.key):
            self._to_sheets()

    def show_derived(self) -> None:
        """Sizes and cables of a large job are known later than its circuits."""
        self.view.show_drawing(sheet_pen(self.session).drawing(self.sheet))

    def show_sheet(self, index: int) -> None:
        """Turns to a sheet."""
        self.sheet = index
        self.refresh()

    def _turn(self, index: int) -> None:
        if self.pages.currentWidget() is not self.live:
            self._to_sheets()
        self.show_sheet(index)

    def energise(self) -> None:
        """Power on, or off again."""
        if self.pages.currentWidget() is self.live:
            self._to_sheets()
            return
        self._page(self.live)
        self.live.view.setFocus()

    def _wires_known(self) -> bool:
        """Whether wires are worked out, so that asking for them costs nothing."""
        return self.session.evaluation.has(WIRING)

    def _watch(self, outcome: ScriptOutcome) -> None:
        """Watches what a circuit must do on the live sheets."""
        self._page(self.live)
        self.live.watch_circuit(outcome.circuit)

    def show_all(self) -> None:
        """Shows every sheet at a glance."""
        self._page(self.overview)

    def _page(self, page: QWidget) -> None:
        self.pages.setCurrentWidget(page)
        self.refresh()

    def _turned(self) -> None:
        """The hint speaks of the sheets."""
        self.hint.setVisible(self.pages.currentWidget() is self.view)
        on = self.pages.currentWidget() is self.live
        self.power.setChecked(on)
        for button in self.editing:
            button.setVisible(not on)
        if not on:
            self.live.run.setChecked(False)

    def _to_sheets(self) -> None:
        self.pages.setCurrentWidget(self.view)
        self.view.setFocus()

    def show_behaviour(self, circuit: CircuitId) -> None:
        """Shows what a circuit must do, tried on the circuit of now."""
        evaluation = self.session.evaluation
        outcome = behaviour_of(self.session.job, evaluation.get(CIRCUITS), circuit)
        self.behaviour.show_behaviour(outcome, evaluation.get(NAMES).tag)
        self.pages.setCurrentWidget(self.behaviour)

    def show_trace(self) -> None:
        """Shows the ways of what is chosen; says so where nothing can be followed."""
        if self.trace.follow(self.session.selection):
            self.pages.setCurrentWidget(self.trace)
            self.trace.view.setFocus()
        else:
            self.session.say("Choose a device, a contact, a wire or a number first: then it can be followed.")

    def _show_on_sheet(self, key: Key | None) -> None:
        """Leaves the trace for where a step of it stands."""
        self._to_sheets()
        self.session.select(key)
        self.show_selection(key)

    def open_book(self) -> None:
        """Opens the recipe book."""
        north_american = self.session.job.practice.rulebook.north_american
        self.chooser.paint_pictures(self.theme, north_american=north_american)
        self._page(self.chooser)

    def _add(self, entry: CircuitTemplate, title: str, params: tuple[Param, ...]) -> None:
        """Adds a circuit and turns to where it stands."""
        name = title.strip() or entry.recipe.value
        if self.session.edit(f"add {name}", AddCircuit(entry.recipe, title, params)):
            self._to_sheets()
            added = self.session.job.circuits[-1].id
            sheets = self.session.evaluation.get(SHEETS).sheets
            sheet_numbers = [n for n, sheet in enumerate(sheets) if added in sheet.circuits]
            self.show_sheet(sheet_numbers[-1] if sheet_numbers else 0)

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        super().set_theme(theme)
        self.view.set_theme(theme)
        self.trace.set_theme(theme)
        self.live.set_theme(theme)
        self.renaming.set_theme(theme)

    def _chosen(self, key: Key | None) -> None:
        """A place leads there; while an element is moved, the next one says where it goes."""
        if isinstance(key, PlaceKey):
            self.jump(key.place)
        elif self._moving is not None and isinstance(key, ElementKey):
            moving, self._moving = self._moving, None
            self.session.edit("move an element", MoveElement(moving, key.element))
        else:
            self.session.select(key)

    def jump(self, place: str) -> None:
        """Turns to a place such as “2”, “2.3” or “2.3.C”, of a ladder sheet and line, and frames it."""
        sheets = self.session.evaluation.get(SHEETS).sheets
        sheet, _, rest = place.partition(".")
        number = int(sheet) if sheet.isdecimal() else 0
        if not 0 < number <= len(sheets):
            self.session.say(f"There is no sheet {sheet}; the last is {len(sheets)}.", wrong=True)
            return
        self._turn(number - 1)
        column, _, row = rest.partition(".")
        there = sheets[number - 1]
        frame = line_frame(there, int(column)) if column and there.is_ladder else None
        self.view.set_overlay([frame or cell_frame(int(column), row)] if column else [])

    def show_hovered(self, key: Key | None) -> None:
        """Thickens the net under the pointer everywhere on the sheet, and says where it goes."""
        evaluation = self.session.evaluation
        nets = evaluation.get(NETS)
        net = next((n for n in nets.nets if key == NetKey(n.id)), None)
        if net is None:
            self._say_keys()
            self.view.set_overlay([])
            return
        devices = evaluation.get(CIRCUITS).by_id
        sheets = evaluation.get(SHEETS).sheets
        shown = {sheet.number: net_shapes(sheet, devices, nets.of_pin, net) for sheet in sheets}
        names = evaluation.get(NAMES)
        pins = ", ".join(self._label(pin) for pin in net.pins[:14]) + (" …" if len(net.pins) > 14 else "")
        on = ", ".join(str(number) for number, shapes in shown.items() if shapes)
        self.hint.setText(f"{names.number.get(net.id, 'without number')}:  {pins}.  On sheet {on}.")
        self.view.set_overlay(shown[self.sheet + 1])

    def _label(self, pin: PinRef) -> str:
        return f"{self.session.evaluation.get(NAMES).tag.get(pin.device, pin.device)}:{pin.marking}"

    def show_selection(self, key: Key | None) -> None:
        """Marks every place of the device or net on the sheet, and turns to it if needed."""
        keys = {key}
        evaluation = self.session.evaluation
        owner = device_of(key)
        wire = evaluation.get(WIRING).wire(key.wire) if isinstance(key, WireKey) else None
        there: Key | None = NetKey(wire.net) if wire else key
        keys.add(there)
        if isinstance(key, PlaceKey):
            self.jump(key.place)
        elif key and self.pages.currentWidget() not in (self.trace, self.live):
            on = sheets_with(evaluation.get(SHEETS), evaluation.get(CIRCUITS), evaluation.get(NETS), there)
            if on and self.sheet + 1 not in on:
                self._turn(on[0] - 1)
        if owner and not isinstance(key, ElementKey):
            keys |= {mark.key for mark in self.view.drawing.shapes if device_of(mark.key) == owner}
        self.view.select(frozenset(keys))
        element = self.element()
        control = element is not None and self.in_control(element)
        for button in (self.after, self.across, self.out):
            button.setEnabled(control)
        self.more.setEnabled(control or bool(owner))
        self.name.setEnabled(bool(owner))
        self.follow.setEnabled(bool(owner) or isinstance(key, NetKey | WireKey | LoadKey))
        self._say_keys()

    def _say_keys(self) -> None:
        element = self.element()
        if self._moving is not None:
            self.hint.setText("Choose the element after which it goes. Esc cancels.")
        elif element is not None and self.in_control(element):
            self.hint.setText(KEYS)
        else:
            self.hint.setText(
                "Choose a contact, a coil or a lamp on a control sheet to change its path. Numbers in colour lead to "
                "where something goes on. O shows all sheets."
            )

    def element(self) -> ElementId | None:
        """The element that is chosen."""
        key = self.session.selection
        return key.element if isinstance(key, ElementKey) else None

    def in_control(self, element: ElementId) -> bool:
        """Whether an element stands on a control sheet, where paths may be changed."""
        places = self.session.evaluation.get(SHEETS)
        place = places.places.get(element)
        return bool(place and places.sheets[place.sheet - 1].kind is SheetKind.CONTROL)

    def _here(self) -> CircuitId | None:
        """The circuit of what is chosen, or of the sheet."""
        owner = device_of(self.session.selection)
        if owner:
            return circuit_of(owner)
        circuits = self.session.evaluation.get(SHEETS).sheets[self.sheet].circuits
        return circuits[-1] if circuits else None

    def _menu(self, key: Key | None, at: QPoint) -> None:
        self.full_menu().popup(at)

    def _more(self) -> None:
        self.popup_under(self.more, self.full_menu())

    def full_menu(self) -> QMenu:
        """Everything that can be done to what is selected."""
        element = self.element()
        control = element if element and self.in_control(element) else None
        menu = self.changes.menu(control, self.session.selection)
        self.add_common(menu, self.session.selection)
        return menu

    def popup_under(self, button: QPushButton, menu: QMenu) -> None:
        """Shows a menu below its button."""
        menu.popup(button.mapToGlobal(QPoint(0, button.height())))
        if menu.actions():
            menu.setActiveAction(menu.actions()[0])

    def _key(self, event: QKeyEvent) -> bool:
        """The keys of the sheet; True when one was meant."""
        element = self.element()
        control = element is not None and self.in_control(element)
        text = event.text().lower()
        if event.key() == Qt.Key.Key_Escape and self._moving is not None:
            self._moving = None
            self._say_keys()
        elif text == "e" and not event.modifiers():
            self.energise()
        elif text == "o":
            self.show_all()
        elif text == "t":
            self.show_trace()
        elif event.key() == Qt.Key.Key_F2:
            self.changes.rename(self.session.selection)
        elif event.key() == Qt.Key.Key_Delete and control:
            self._take_out()
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and self._moving is not None and element:
            self._chosen(ElementKey(element))
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and self.session.selection:
            self._more()
        elif control and text == "i":
            self.after.click()
        elif control and text == "a":
            self.across.click()
        elif control and text == "m":
            self.start_move()
        else:
            return False
        return True

    def start_move(self) -> None:
        """The next element chosen says after which one it goes."""
        self._moving = self.element()
        self._say_keys()

    def _offer_put_menu(self, button: QPushButton, *, parallel: bool) -> None:
        element = self.element()
        if element is not None:
            self.popup_under(button, self.changes.put_menu(element, parallel=parallel))

    def put_in(self, element: ElementId, what: Insertable, text: str, *, parallel: bool = False) -> None:
        """Puts something in, as one edit."""
        text = text or DEFAULT_TEXT.get(what, what.value)
        self.session.edit(f"put in a {what.value}", PutIn(element, what, text, Act.ACROSS if parallel else Act.AFTER))

    def _take_out(self) -> None:
        element = self.element()
        if element:
            self.session.edit("take out an element", TakeOut(element))
