"""Setting the order of connection of one potential: the clamps in a row, what the wires come to, and their way."""

from collections.abc import Iterable
from dataclasses import replace

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeySequence, QShortcut
from PySide6.QtWidgets import (
    QAbstractItemView,
    QCheckBox,
    QComboBox,
    QDialog,
    QDialogButtonBox,
    QHBoxLayout,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from riktig.core.door import DOOR
from riktig.core.edits import DropWireOrder, Edit, SetOneConductor, SetWireOrder
from riktig.core.errors import RiktigError
from riktig.core.ids import PinRef, read_pin
from riktig.core.job import WireOrder
from riktig.core.plate import LAYOUT
from riktig.core.schematic import CIRCUITS, NAMES, PinLabels
from riktig.core.wiring import WIRING, Wire, areas_of, mini_plate, order_of, wire_key
from riktig.desk.canvas import DrawingView
from riktig.desk.session import Session
from riktig.desk.theme import Theme
from riktig.desk.widgets import plain_label

__all__ = ["OrderAsked"]

ABOVE, BEGINS = "above", "begins"
"""Where a clamp is wired from, when not from a named one: the clamp above it, or nowhere."""


class OrderAsked(QDialog):
    """The clamps of a potential in the order in which they are joined; dragged, split, or back to the least wire.

    ``edits`` are what was decided, in the order in which they are made.

    Args:
        session: The job; it is not changed here.
        net: The potential, by its id.
        theme: Of the window.
        parent: What it stands over.
    """

    def __init__(self, session: Session, net: PinRef, theme: Theme, parent: QWidget) -> None:
        super().__init__(parent)
        self._session, self._net = session, net
        self._trial = session.evaluation.fork(lambda: None)
        evaluation = session.evaluation
        self._label = PinLabels(evaluation.get(CIRCUITS), evaluation.get(NAMES))
        self._area = areas_of(evaluation.get(CIRCUITS).by_id, evaluation.get(LAYOUT), evaluation.get(DOOR))
        before = self._wires()
        self._before = order_of(before)
        self._alone = set(session.job.one_conductor)
        self._from: dict[str, str] = {}
        self._is_shortest = not self._named_in(self._trial.document.wire_orders)
        self._least = self._metres(self._shortest_wires())
        self.setWindowTitle(f"Order of connection, {before[0].number if before else ''}")
        self.resize(900, 580)
        self.clamps = QListWidget()
        self.clamps.setAccessibleName("Clamps in the order in which they are joined")
        self.clamps.setDragDropMode(QAbstractItemView.DragDropMode.InternalMove)
        self.clamps.setMinimumWidth(400)
        self.plate = DrawingView("The plate with the wires of this potential")
        self.plate.set_theme(theme)
        self.plate.setMinimumSize(300, 300)
        self.up, self.down = QPushButton("Up"), QPushButton("Down")
        self.origin = QComboBox()
        self.origin.setAccessibleName("Wired from")
        self.one = QCheckBox("One conductor only")
        self.one.setToolTip("This clamp stands at an end of the chain, with one conductor in it")
        self.sum = plain_label("", wraps=True)
        self.wrong = plain_label("", "judgement", wraps=True)
        self.buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Ok | QDialogButtonBox.StandardButton.Cancel)
        self.buttons.button(QDialogButtonBox.StandardButton.Ok).setText("Use this order")
        self.shortest = self.buttons.addButton("Least wire", QDialogButtonBox.ButtonRole.ResetRole)
        self.shortest.setToolTip("Back to the order with the least wire, as it is planned")
        self._lay_out()
        for keys, button, by in (("Alt+Up", self.up, -1), ("Alt+Down", self.down, 1)):
            QShortcut(QKeySequence(keys), self, lambda by=by: self._move(by))
            button.clicked.connect(lambda _=False, by=by: self._move(by))
            button.setToolTip(f"Moves the chosen clamp ({keys})")
        self.clamps.currentRowChanged.connect(self._show_chosen)
        self.clamps.model().rowsMoved.connect(self._dragged)
        self.origin.activated.connect(self._choose_origin)
        self.one.clicked.connect(self._choose_one)
        self.shortest.clicked.connect(self.take_shortest)
        self.buttons.accepted.connect(self.accept)
        self.buttons.rejected.connect(self.reject)
        self._fill(self._before)
        self.clamps.setCurrentRow(0)

    def _lay_out(self) -> None:
        row = QHBoxLayout()
        for item in (self.up, self.down, plain_label("Wired from"), self.origin, self.one):
            row.addWidget(item)
        row.setStretchFactor(self.origin, 1)
        left = QVBoxLayout()
        left.addWidget(self.clamps, 1)
        left.addLayout(row)
        middle = QHBoxLayout()
        middle.addLayout(left, 3)
        middle.addWidget(self.plate, 2)
        column = QVBoxLayout(self)
        column.addWidget(
            plain_label(
                "Drag a clamp to its place. Each is wired from the one above it, unless you choose another.",
                "second",
                wraps=True,
            )
        )
        column.addLayout(middle, 1)
        column.addWidget(self.sum)
        column.addWidget(self.wrong)
        column.addWidget(self.buttons)

    def _wires(self) -> list[Wire]:
        return [wire for wire in self._trial.get(WIRING).wires if wire.net == self._net]

    def _metres(self, wires: Iterable[Wire]) -> float:
        return sum(wire.length for wire in wires) / 1000

    def _named_in(self, orders: Iterable[WireOrder]) -> list[WireOrder]:
        """Orders of the builder that name a clamp of this potential."""
        ends = {end.pin for wire in self._wires() for end in (wire.start, wire.end)}
        return [order for order in orders if ends & set(order.pins)]

    def _shortest_wires(self) -> list[Wire]:
        job = self._session.job
        others = tuple(order for order in job.wire_orders if order not in self._named_in(job.wire_orders))
        self._trial.move_to(replace(job, wire_orders=others, one_conductor=tuple(sorted(self._alone))))
        return self._wires()

    def take_shortest(self) -> None:
        """The order with the least wire, in place of the builder's."""
        self._is_shortest = True
        self._fill(order_of(self._shortest_wires()))

    @property
    def order(self) -> WireOrder:
        """The order as it stands in the list."""
        rows: list[tuple[str, str | None]] = []
        for at, pin in enumerate(self._pins()):
            origin = self._from.get(pin, ABOVE)
            if origin not in (ABOVE, BEGINS) and origin not in [earlier for earlier, _ in rows]:
                origin = ABOVE  # the clamp it was wired from stands below it now
            above = rows[at - 1][0] if at else None
            rows.append((pin, above if origin == ABOVE else None if origin == BEGINS else origin))
        return WireOrder.of_rows(rows)

    @property
    def edits(self) -> list[Edit]:
        """What was decided, as edits of the job."""
        job = self._session.job
        changed = sorted(self._alone ^ set(job.one_conductor))
        edits: list[Edit] = [SetOneConductor(pin, pin in self._alone) for pin in changed]
        mine = self._named_in(job.wire_orders)
        if self._is_shortest:
            edits += [DropWireOrder(order.chains[0][0]) for order in mine]
        elif self.order != self._before or not mine:
            edits.append(SetWireOrder(self.order))
        return edits

    def _pins(self) -> list[str]:
        return [str(self.clamps.item(n).data(Qt.ItemDataRole.UserRole)) for n in range(self.clamps.count())]

    def _fill(self, order: WireOrder | None) -> None:
        """Lists the clamps of an order."""
        chosen = self._chosen()
        self.clamps.clear()
        self._from = {}
        above = None
        for pin, origin in order.rows if order else ():
            item = QListWidgetItem()
            item.setData(Qt.ItemDataRole.UserRole, pin)
            self.clamps.addItem(item)
            if origin != above:
                self._from[pin] = origin or BEGINS
            above = pin
        self._choose(chosen)
        self._work_out()

    def _chosen(self) -> str:
        item = self.clamps.currentItem()
        return str(item.data(Qt.ItemDataRole.UserRole)) if item else ""

    def _choose(self, pin: str) -> None:
        pins = self._pins()
        if pin in pins:
            self.clamps.setCurrentRow(pins.index(pin))

    def _move(self, by: int) -> None:
        at = self.clamps.currentRow()
        if at < 0 or not 0 <= at + by < self.clamps.count():
            return
        item = self.clamps.takeItem(at)
        self.clamps.insertItem(at + by, item)
        self.clamps.setCurrentRow(at + by)
        self._dragged()

    def _dragged(self) -> None:
        self._is_shortest = False
        self._work_out()

    def _choose_origin(self) -> None:
        pin = self._chosen()
        if pin:
            self._from[pin] = str(self.origin.currentData())
            self._dragged()

    def _choose_one(self) -> None:
        self._alone ^= {self._chosen()} - {""}
        if self._is_shortest:
            self.take_shortest()
        else:
            self._work_out()

    def _work_out(self) -> None:
        """Works the wires out in the order of the list, and says what they come to."""
        job, text = self._session.job, ""
        try:
            if self._is_shortest:
                wires = self._shortest_wires()
            else:
                self._trial.move_to(replace(job, one_conductor=tuple(sorted(self._alone))))
                self._trial.move_to(SetWireOrder(self.order).apply(self._trial))
                wires = self._wires()
            metres = self._metres(wires)
            more = f"; the least is {self._least:.2f} m" if metres > self._least + 0.005 else ", the least there is"
            self.sum.setText(f"{len(wires)} wires, {metres:.2f} m{more}.")
            labels = {self._label(end.pin) for wire in wires for end in (wire.start, wire.end)}
            crowded = [c for c in self._trial.get(WIRING).crowded if c.label in labels]
            text = "; ".join(f"{c.label}: {c.text}" for c in crowded[:3])
        except (RiktigError, ValueError) as error:
            text = str(error)
        self.wrong.setText(text)
        self.wrong.setVisible(bool(text))
        self._write_rows()
        self._show_chosen()

    def _write_rows(self) -> None:
        by_key = self._trial.get(WIRING).by_key
        origins = dict(self.order.rows) if self.clamps.count() > 1 else {}
        above: str | None = None
        for at in range(self.clamps.count()):
            item = self.clamps.item(at)
            pin = str(item.data(Qt.ItemDataRole.UserRole))
            origin = origins.get(pin)
            words = [self._label(read_pin(pin)), self._area(read_pin(pin).device)]
            wire = by_key.get(wire_key(read_pin(origin), read_pin(pin))) if origin else None
            if origin is None and at:
                words.append("a row of its own")
            elif origin and origin != above:
                words.append(f"from {self._label(read_pin(origin))}")
            words += [f"{wire.length:g} mm"] if wire else []
            words += ["one conductor"] if pin in self._alone else []
            item.setText(f"{at + 1}.  " + "  ·  ".join(words))
            above = pin

    def _show_chosen(self) -> None:
        pin, at, pins = self._chosen(), self.clamps.currentRow(), self._pins()
        self.origin.clear()
        if at > 0:
            self.origin.addItem(f"{self._label(read_pin(pins[at - 1]))}, the one above", ABOVE)
            for other in pins[: at - 1]:
                self.origin.addItem(self._label(read_pin(other)), other)
        self.origin.addItem("nothing: a row begins here", BEGINS)
        place = self.origin.findData(self._from.get(pin, ABOVE))
        self.origin.setCurrentIndex(max(place, 0))
        self.origin.setEnabled(at > 0)
        self.one.setChecked(pin in self._alone)
        self.up.setEnabled(at > 0)
        self.down.setEnabled(0 <= at < len(pins) - 1)
        chosen = frozenset({str(read_pin(pin).device)}) if pin else frozenset[str]()
        self.plate.show_drawing(mini_plate(self._session.evaluation.get(LAYOUT), self._wires(), chosen))
