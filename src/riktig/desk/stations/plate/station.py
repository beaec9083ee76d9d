"""The plate, with views for planning, marking out and cutting."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QMenu

from riktig.core.circuit import NAMES
from riktig.core.geometry import Drawing, Mark
from riktig.core.job import DeviceId
from riktig.core.papers import device_of, holes_of
from riktig.core.plate import (
    CUTS,
    HOLES,
    LAYOUT,
    WARMTH,
    Layout,
    clamp_marks,
    draw_cuts,
    heat_marks,
    mark_out,
    move_block,
    plan_for_me,
    room_marks,
    set_lock,
)
from riktig.core.wiring import PLATE_DRAWING, WIRING, route_marks
from riktig.desk.canvas import DrawingView
from riktig.desk.session import Session
from riktig.desk.stations.plate.drag import DragBlock, preview
from riktig.desk.theme import Theme
from riktig.desk.widgets import ScheduleTable, Station, plain_label, row_of

__all__ = ["PlateStation"]

LAYERS = {
    "Heat": "A tint on every warm part, by what it loses with the loads running",
    "Room around parts": "What each part needs free around it",
    "Clamps": "Every clamp that takes a wire",
}


class PlateStation(Station):
    """A true-scale workshop drawing: drag parts, nudge by keys, mark out, cut."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.view = DrawingView("Mounting plate")
        self.view.chosen.connect(session.select)
        self.view.gesture = DragBlock(self.view, self._layout, self._place)
        self.view.on_key = self._key
        self.plan_button = self.button("Plan for me", "Gives every part that is not locked back to the plan", main=True)
        self.plan_button.clicked.connect(lambda: session.edit("plan for me", plan_for_me))
        self.lock = self.button("Lock", "Keeps the chosen part where it is (L)", checkable=True)
        self.lock.clicked.connect(self._lock)
        self.marking = self.button("Mark-out", "Holes from the datum", checkable=True)
        self.cutting = self.button("Cut list", "Rail, duct and lids by piece", checkable=True)
        self.wires = self.button("Wires", "The way of every wire", checkable=True)
        self.layers = self.button("Layers …", "Heat, the room that parts need, clamps: laid over the plate")
        menu = QMenu(self.layers)
        self.shown = {}
        for name, tip in LAYERS.items():
            action = menu.addAction(name)
            action.setCheckable(True)
            action.setToolTip(tip)
            action.toggled.connect(self.refresh)
            self.shown[name] = action
        self.layers.setMenu(menu)
        self.marking.clicked.connect(lambda: self._turn(self.marking))
        self.cutting.clicked.connect(lambda: self._turn(self.cutting))
        self.wires.clicked.connect(self.refresh)
        self.words = plain_label("", "second")
        self.hint = plain_label("", "quiet", wraps=True)
        self.table = ScheduleTable("Holes", "hole")
        self.table.row_chosen.connect(lambda hole: session.select(f"hole:{hole}"))
        self.table.hide()
        self.add_bar((self.plan_button, self.lock, self.marking, self.cutting, self.wires, self.layers, None))
        self.add_body(self.words, 0)
        row = row_of(())
        row.addWidget(self.view, 3)
        row.addWidget(self.table, 2)
        self.add_body(row)
        self.add_body(self.hint, 0)

    def _layout(self) -> Layout:
        return self.session.plan.get(LAYOUT)

    def _turn(self, to: object) -> None:
        for button in (self.marking, self.cutting):
            if button is not to:
                button.setChecked(False)
        self.refresh()

    def _drawing(self) -> Drawing:
        plan = self.session.plan
        if self.cutting.isChecked():
            return draw_cuts(plan.get(CUTS))
        drawing = plan.get(PLATE_DRAWING)
        if self.marking.isChecked():
            return mark_out(drawing, plan.get(HOLES), "plate")
        return drawing

    def refresh(self) -> None:
        """Shows the plate of now, and what does not fit."""
        plan = self.session.plan
        layout, wiring = self._layout(), plan.get(WIRING)
        self.view.show_drawing(self._drawing())
        planning = not (self.cutting.isChecked() or self.marking.isChecked())
        self.table.setVisible(self.marking.isChecked())
        if self.marking.isChecked():
            self.table.show_schedule(holes_of(plan, "plate"))
        metres = sum(wire.length for wire in wiring.wires) / 1000
        total = sum(rail.length for rail in layout.rails) or 1
        free = sum(layout.free_on(rail) for rail in layout.rails) / total
        self.words.setText(f"wire {metres:.1f} m  ·  {free:.0%} of the rail free")
        if layout.misfits:
            self.hint.setText("Does not fit: " + "; ".join(m.said(plan.get(NAMES).tag) for m in layout.misfits[:3]))
            self.hint.setObjectName("fails")
        elif not planning:
            self.hint.setText(
                "Every piece is marked with its name; level lids run exactly between the uprights. Holes are measured "
                "from the datum in the upper left corner: measure twice before the drill."
            )
            self.hint.setObjectName("quiet")
        else:
            self.hint.setText(
                "Drag a part along its rail or to another. Arrow keys move it by 1 mm, with Shift "
                "by 10 mm; up and down change the rail. Esc while dragging: nothing happened."
            )
            self.hint.setObjectName("quiet")
        self.hint.style().unpolish(self.hint)
        self.hint.style().polish(self.hint)
        if planning:
            self._overlay()
        else:
            self.view.set_overlay(())

    def _tag(self, device: DeviceId) -> str:
        return self.session.plan.get(NAMES).tag[device]

    def _overlay(self) -> None:
        plan, marks = self.session.plan, list[Mark]()
        wiring, key = plan.get(WIRING), self.session.selection
        wire = wiring.wire(key.removeprefix("wire:"))
        if self.wires.isChecked():
            marks += route_marks(wiring.wires, width=0.5)
        if wire:
            marks += route_marks((wire,))
        layout = self._layout()
        if self.shown["Heat"].isChecked():
            marks += heat_marks(layout, plan.get(WARMTH).losses)
        if self.shown["Room around parts"].isChecked():
            marks += room_marks(layout)
        if self.shown["Clamps"].isChecked():
            marks += clamp_marks(layout)
        lead = {m.device for m in self._layout().misfits}
        for device in sorted(lead):
            marks += preview(self._layout(), device)
        self.view.set_overlay(marks)

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        super().set_theme(theme)
        self.view.set_theme(theme)

    def show_selection(self, key: str) -> None:
        """Marks the chosen device with all that moves with it."""
        keys = {key}
        owner = device_of(key)
        found = self._layout().block_of(DeviceId(owner)) if owner else None
        if owner:
            keys.add(f"device:{owner}")
        self.lock.setEnabled(found is not None)
        fix = self.session.job.plate
        locked = {p.device for p in fix.placements if p.locked} if fix else set()
        self.lock.setChecked(found is not None and found[0].lead in locked)
        self.view.select(frozenset(keys))
        if not (self.marking.isChecked() or self.cutting.isChecked()):
            self._overlay()

    def _place(self, device: DeviceId, rail: int, offset: float, merge: str = "") -> None:
        layout = self._layout()
        self.session.edit(
            f"move {self._tag(device)}", lambda job: move_block(job, layout, device, rail, offset), merge=merge
        )

    def _lock(self) -> None:
        owner = DeviceId(device_of(self.session.selection))
        layout, locked = self._layout(), self.lock.isChecked()
        self.session.edit("lock" if locked else "unlock", lambda job: set_lock(job, layout, owner, locked))

    def _key(self, event: QKeyEvent) -> bool:
        """Arrow keys nudge the chosen block; L locks it."""
        owner = device_of(self.session.selection)
        found = self._layout().block_of(DeviceId(owner)) if owner else None
        if found is None:
            return False
        if event.text() in ("l", "L"):
            self.lock.toggle()
            self._lock()
            return True
        block, rail, offset = found
        by = 10.0 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1.0
        step = {Qt.Key.Key_Left: -by, Qt.Key.Key_Right: by}.get(Qt.Key(event.key()))
        turn = {Qt.Key.Key_Up: -1, Qt.Key.Key_Down: 1}.get(Qt.Key(event.key()))
        if step is not None:
            self._place(block.lead, rail, offset + step, merge=f"nudge {block.lead}")
        elif turn is not None:
            numbers = [one.number for one in self._layout().rails]
            at = min(max(numbers.index(rail) + turn, 0), len(numbers) - 1)
            self._place(block.lead, numbers[at], offset)
        else:
            return False
        return True
