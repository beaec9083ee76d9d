"""What can be laid over the plate and taken off again: wires, fill, heat, room, clamps, what is mounted."""

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QMenu, QPushButton, QWidget

from riktig.core.geometry import Drawing, Shape
from riktig.core.keys import PinKey, WireKey
from riktig.core.plate import Layout, clamp_shapes, heat_shapes, mounted_shapes, room_shapes
from riktig.core.production import mounted_of
from riktig.core.sizing import INSIDE_AIR
from riktig.core.views import device_of
from riktig.core.wiring import WIRING, Wire, route_shapes
from riktig.desk.session import Session

__all__ = ["PlateLayers"]

WIRES, MINE, FILL, HEAT, ROOM, CLAMPS, DONE = (
    "Wires, all",
    "Wires of what is chosen",
    "Fill of the ducts",
    "Heat",
    "Room around parts",
    "Clamps",
    "Already mounted",
)
TIPS = {
    WIRES: "The way of every wire",
    MINE: "The ways of the wires that land on what is chosen",
    FILL: "How full each duct is, along its length",
    HEAT: "A tint on every warm part, by what it loses with the loads running",
    ROOM: "What each part needs free around it",
    CLAMPS: "Every clamp that takes a wire",
    DONE: "A tick on what is mounted; what the plan has moved since says so",
}


class PlateLayers(QPushButton):
    """The button with the switches, and the marks of those that are on."""

    turned = Signal()

    def __init__(self, parent: QWidget, session: Session) -> None:
        super().__init__("Layers …", parent)
        tip = "Wires, fill, heat, the room that parts need, clamps, what is mounted"
        self.setToolTip(tip)
        self.setAccessibleDescription(tip)
        self._session = session
        menu = QMenu(self)
        self.shown = {}
        for name, tip in TIPS.items():
            action = menu.addAction(name)
            action.setCheckable(True)
            action.setChecked(name in (MINE, FILL))
            action.setToolTip(tip)
            action.toggled.connect(self.turned)
            self.shown[name] = action
        self.setMenu(menu)

    def on(self, name: str) -> bool:
        """Whether a layer is shown."""
        return self.shown[name].isChecked()

    def without_hidden(self, drawing: Drawing) -> Drawing:
        """The drawing without what is switched off; the same object when nothing is."""
        if self.on(FILL):
            return drawing
        shapes = tuple(mark for mark in drawing.shapes if mark.layer != "fill")
        return Drawing(drawing.width, drawing.height, shapes, drawing.title)

    def shapes(self, layout: Layout) -> list[Shape]:
        """Everything that is switched on."""
        plan, shapes = self._session.evaluation, list[Shape]()
        if self.on(HEAT):
            shapes += heat_shapes(layout, plan.get(INSIDE_AIR).losses)
        if self.on(ROOM):
            shapes += room_shapes(layout)
        if self.on(CLAMPS):
            shapes += clamp_shapes(layout)
        if self.on(DONE):
            moved = {mounted.lead: mounted.moved for mounted in mounted_of(layout, self._session.records)}
            shapes += mounted_shapes(layout, moved)
        if not self._session.shows_wires:
            return shapes
        wires = plan.get(WIRING).wires
        if self.on(WIRES):
            shapes += route_shapes(wires, width=0.5)
        if self.on(MINE):
            shapes += route_shapes(self._mine(wires))
        return shapes

    def _mine(self, wires: tuple[Wire, ...]) -> list[Wire]:
        """The wire that is chosen, or those that land on the device or pin that is."""
        key = self._session.selection
        if isinstance(key, WireKey):
            return [wire for wire in wires if wire.key == key.wire]
        if isinstance(key, PinKey):
            return [wire for wire in wires if key.pin in (wire.start.pin, wire.end.pin)]
        owner = device_of(key)
        return list(self._session.evaluation.get(WIRING).on_device.get(owner, ())) if owner else []
