"""The door from the front and from behind; operators placed by hand; marked out, measured, printed at true size."""

from collections.abc import Callable, Sequence

from PySide6.QtCore import QPoint, Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QMenu, QWidget

from riktig.core.door import (
    DOOR,
    DOOR_BEHIND,
    DOOR_DRAWING,
    LEGENDS,
    SHAFTS,
    DoorPlan,
    PlacedOperator,
    draw_section,
    engagement_of,
    in_column,
    in_row,
    shadow_shapes,
    spread_on_door,
    things_behind,
)
from riktig.core.edits import LockOperators, MoveOperators, OperatorPlace, PlanDoor
from riktig.core.geometry import Align, Drawing, Face, Point, Rect, Shape, Text
from riktig.core.holes import BLOCKERS, METAL_HOLES
from riktig.core.job import DeviceId
from riktig.core.keys import DeviceKey, HoleKey, Key
from riktig.core.plate import LAYOUT, RULER
from riktig.core.schematic import NAMES
from riktig.core.views import device_of
from riktig.desk.canvas import DrawingView
from riktig.desk.machining import MetalPages
from riktig.desk.session import Session
from riktig.desk.stations.door.gestures import DoorGesture, DoorHost, moved_shapes
from riktig.desk.stations.door.openings_row import OpeningsRow
from riktig.desk.theme import Theme
from riktig.desk.widgets import Station, plain_label, row_of, show_only

__all__ = ["DoorStation"]

WHOLE = 0.8
"""A door whose operators reach over so much of it is shown whole (chosen by us)."""
SMALL_DOOR = 800.0
"""A door up to this height is legible as a whole, mm (chosen by us)."""
NOTHING_CUT = Drawing(
    260,
    120,
    (Text(130, 60, "Choose an operator: how deep it reaches is shown here.", 6.0, "third", align=Align.MIDDLE),),
    "Nothing chosen",
)
HINT = (
    "Drag operators; they snap into line with each other. Ctrl and click, or a frame, chooses several. Arrow keys: "
    "1 mm, with Shift 10 mm; L locks. The handle stands over the isolator: move that on the plate."
)
BEHIND_HINT = (
    "The door as it stands open: left and right are changed over, the datum stays the same corner. Blocks with their "
    "terminals as they are wired; “deep” is how far each reaches behind the door, wires not counted."
)


def _home(door: DoorPlan, *, behind: bool) -> Rect | None:
    """The corner of a large door that has everything but its nameplate; None: the whole door is shown."""
    if not door.seats:
        return None
    right = max(seat.body.right for seat in door.seats) + 2.5 * RULER
    low = max(seat.body.bottom for seat in door.seats) + 2.5 * RULER
    small = door.face.height <= SMALL_DOOR
    if small or (right > WHOLE * door.face.width and low > WHOLE * door.face.height):
        return None
    right, low = min(right, door.face.width + 2 * RULER), min(low, door.face.height + RULER)
    return Rect(door.face.width + 2 * RULER - right if behind else 0.0, 0.0, right, low)


class DoorStation(Station):
    """A true-scale drawing of the door, and what is done to its metal."""

    waits_for = (
        "The door is empty. Its operators come from how each load in the Brief is controlled; openings are added here."
    )
    usable_empty = True

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.view = DrawingView("Door")
        self.view.chosen.connect(self._choose_by_click)
        self.view.clicked.connect(self._choose_one)
        self.view.use_menu(self._ask_menu)
        self.view.on_key = self._key
        self.chosen: tuple[DeviceId, ...] = ()
        self.view.gesture = DoorGesture(
            DoorHost(
                self.view,
                self._door,
                lambda: session.evaluation.get(LAYOUT),
                lambda: session.job.enclosure,
                lambda: session.evaluation.get(NAMES).tag,
                lambda: session.evaluation.get(LEGENDS),
                lambda: self.chosen,
                self._place,
                self._choose,
                lambda: self.behind.isChecked(),
            )
        )
        self.plan_button = self.button(
            "Plan for me", "Puts every operator that is not locked in its group, clear of what stands behind", main=True
        )
        self.plan_button.clicked.connect(lambda: session.edit("plan the door", PlanDoor()))
        self.lock = self.button("Lock", "Keeps the chosen operators where they are (L)", checkable=True)
        self.lock.clicked.connect(self._lock)
        self.arrange = self.button("Arrange …", "Rows, columns, even distances")
        menu = QMenu(self.arrange)
        menu.aboutToShow.connect(lambda: self.fill_menu(menu))
        self.arrange.setMenu(menu)
        self.behind = self.button("From behind", "The door as it stands open (B)", checkable=True)
        self.behind.clicked.connect(self.refresh)
        self.shadows = self.button("What stands behind", "Parts and ducts of the plate, dashed", checkable=True)
        self.shadows.clicked.connect(self.refresh)
        self.marking = self.button("Mark-out", "Holes from the datum, measured twice, template", checkable=True)
        self.marking.clicked.connect(self.refresh)
        self.words = plain_label("", "second", wraps=True)
        self.shaft = plain_label("", "second", wraps=True)
        self.hint = plain_label("", "quiet", wraps=True)
        self.metal = MetalPages(session, "door")
        self.metal.hide()
        self.openings = OpeningsRow(session)
        bar = (self.plan_button, self.lock, self.arrange, self.behind, self.shadows, self.marking, None)
        self.add_bar(bar)
        self.add_body(self.words, 0)
        self.section = DrawingView("Cut from the side")
        self.section.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        pictures = row_of(())
        pictures.addWidget(self.view, 5)
        pictures.addWidget(self.section, 3)
        pictures.setContentsMargins(0, 0, 0, 0)
        self.pictures = QWidget()
        self.pictures.setLayout(pictures)
        self.add_body(self.pictures)
        self.add_body(self.metal)
        self.add_body(self.shaft, 0)
        self.add_body(self.openings, 0)
        self.add_body(self.hint, 0)

    def _door(self) -> DoorPlan:
        return self.session.evaluation.get(DOOR)

    def refresh(self) -> None:
        """Shows the door of now, and what does not fit."""
        marking = self.marking.isChecked()
        normal = (self.pictures, self.shaft, self.openings, self.hint, self.words)
        show_only((self.metal, marking), *((widget, not marking) for widget in normal))
        for button in (self.plan_button, self.lock, self.arrange, self.behind, self.shadows):
            button.setVisible(not marking)
        if marking:
            self.metal.refresh()
            return
        plan, door, behind = self.session.evaluation, self._door(), self.behind.isChecked()
        self.shadows.setEnabled(not behind)
        self.view.show_drawing(plan.get(DOOR_BEHIND if behind else DOOR_DRAWING))
        self.view.set_home(_home(door, behind=behind))
        names = plan.get(NAMES)
        wrong = [m.said(names.tag) for m in door.misfits]
        blocked = [blocker.text for blocker in plan.get(BLOCKERS) if "door" in blocker.face]
        if wrong or blocked:
            self.words.setText(f"Does not fit: {'; '.join([*wrong, *blocked][:3])}")
        else:
            faces = {leaf.name for leaf in door.leaves}
            holes = sum(hole.face in faces for hole in plan.get(METAL_HOLES))
            sizes = " and ".join(f"{leaf.face.width:g} × {leaf.face.height:g} mm" for leaf in door.leaves)
            self.words.setText(f"{holes} holes, ready to drill once measured  ·  {sizes}")
        self.words.setObjectName("fails" if wrong or blocked else "second")
        self.words.style().polish(self.words)
        self.shaft.setText(self._said_of_shaft())
        self.hint.setText(BEHIND_HINT if behind else HINT)
        self.openings.refresh()
        there = {seat.device for seat in door.seats}
        self.chosen = tuple(device for device in self.chosen if device in there)
        self._mark()

    def _said_of_shaft(self) -> str:
        lines = []
        for shaft in self.session.evaluation.get(SHAFTS):
            tag = self.session.evaluation.get(NAMES).tag[shaft.device]
            where = f"{shaft.on_leaf.x:g}, {shaft.on_leaf.y:g} mm"
            engaged = engagement_of(shaft, self.session.job.practice)
            place = self.session.job.practice.shaft.value
            lines.append(f"Shaft of {tag}: centre {where}, cut it to {shaft.length:g} mm, hole {place}. {engaged.said}")
        return "  ".join(lines)

    def _mark(self) -> None:
        """What is chosen, what stands behind, what does not fit."""
        owner = device_of(self.session.selection)
        keys: set[Key | None] = {self.session.selection} | {DeviceKey(device) for device in self.chosen}
        keys |= {DeviceKey(owner)} if owner else set()
        self.view.select(frozenset(keys))
        door = self._door()
        seats = self._seats()
        self.lock.setEnabled(bool(seats))
        self.lock.setChecked(bool(seats) and all(seat.locked for seat in seats))
        behind = self.behind.isChecked()
        laid: list[Shape] = []
        if self.shadows.isChecked() and not behind:
            tags = self.session.evaluation.get(NAMES).tag
            things = things_behind(self.session.evaluation.get(LAYOUT), self.session.job.enclosure)
            shadows = [(tags.get(DeviceId(t.name.strip("{}")), t.name), t.shadow) for t in things]
            laid = shadow_shapes(shadows, Point(RULER, RULER))
        self.view.set_laid(laid)
        wrong = {m.device for m in door.misfits}
        bad = [seat for seat in door.seats if seat.device in wrong]
        tags_of, legends = self.session.evaluation.get(NAMES).tag, self.session.evaluation.get(LEGENDS)
        shapes = moved_shapes(door, bad, tags_of, legends, self.view.legible()) if bad and not behind else []
        if not behind and len(seats) == 1 and not bad:
            shapes = self._legend_of(seats[0])
        self.view.set_overlay(shapes)
        self._show_section()

    def _show_section(self) -> None:
        """The cut through what is chosen, when it is one."""
        door, plan = self._door(), self.session.evaluation
        seat = door.seat(self.chosen[0]) if len(self.chosen) == 1 else None
        if seat is None:
            self.section.show_drawing(NOTHING_CUT)
            return
        box = self.session.job.enclosure
        shaft = next((own_shaft for own_shaft in plan.get(SHAFTS) if own_shaft.device == seat.device), None)
        things = things_behind(plan.get(LAYOUT), box)
        self.section.show_drawing(draw_section(seat, things, box, plan.get(NAMES).tag, shaft))

    def _legend_of(self, seat: PlacedOperator) -> list[Shape]:
        """The legend of the one that is chosen, large enough to read at this zoom."""
        size, plate = self.view.legible() * 1.1, seat.legend_plate
        top = (plate.y if plate else seat.body.y) + RULER - 3
        return [Text(seat.x + RULER, top, seat.legend, size, "act", Face.BOLD, Align.MIDDLE, backed=True)]

    def _seats(self) -> list[PlacedOperator]:
        """What is chosen, the first chosen first."""
        door = self._door()
        seats = [door.seat(device) for device in self.chosen]
        return [seat for seat in seats if seat and not seat.is_shaft]

    def _place(self, moved: Sequence[PlacedOperator], name: str = "", *, merge: str = "") -> None:
        tags = self.session.evaluation.get(NAMES).tag
        name = name or f"move {', '.join(tags[seat.device] for seat in moved[:3])}"
        places = tuple(OperatorPlace(seat.device, seat.x, seat.y) for seat in moved)
        self.session.edit(name, MoveOperators(places), merge=merge)

    def _choose(self, devices: Sequence[DeviceId]) -> None:
        self.chosen = tuple(devices)
        self.session.select(DeviceKey(devices[0]) if devices else None)
        self._mark()

    def _choose_by_click(self, key: Key | None) -> None:
        device = device_of(key)
        if not device:
            return
        if self.view.modifiers & Qt.KeyboardModifier.ControlModifier:
            rest = tuple(device_id for device_id in self.chosen if device_id != device)
            self.chosen = rest if device in self.chosen else (*rest, device)
        elif device not in self.chosen:
            self.chosen = (device,)
        self.session.select(key)
        self._mark()

    def _choose_one(self, key: Key | None) -> None:
        if self.view.modifiers & Qt.KeyboardModifier.ControlModifier:
            return
        device = device_of(key)
        self._choose((device,) if device else ())

    def _lock(self) -> None:
        devices, locked = tuple(seat.device for seat in self._seats()), self.lock.isChecked()
        self.session.edit("lock" if locked else "unlock", LockOperators(devices, locked))

    def fill_menu(self, menu: QMenu) -> None:
        """Puts in what can be done to the operators that are chosen."""
        menu.clear()
        seats = self._seats()
        several: tuple[tuple[str, Callable[[Sequence[PlacedOperator]], tuple[PlacedOperator, ...]], int], ...] = (
            ("In one row", in_row, 2),
            ("In one column", in_column, 2),
            ("At even distances", spread_on_door, 3),
        )
        for words, how, least in several:
            act = menu.addAction(words)
            act.setEnabled(len(seats) >= least)
            act.triggered.connect(lambda _=False, words=words, how=how: self._place(how(self._seats()), words.lower()))

    def _ask_menu(self, key: Key | None, at: QPoint) -> None:
        menu = QMenu(self)
        menu.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.fill_menu(menu)
        self.add_common(menu, key)
        menu.popup(at)

    def _key(self, event: QKeyEvent) -> bool:
        if event.text() in ("b", "B"):
            self.behind.toggle()
            self.refresh()
            return True
        if not self._seats():
            return False
        if event.text() in ("l", "L"):
            self.lock.toggle()
            self._lock()
            return True
        by = 10.0 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1.0
        key = Qt.Key(event.key())
        dx = {Qt.Key.Key_Left: -by, Qt.Key.Key_Right: by}.get(key, 0.0) * (-1 if self.behind.isChecked() else 1)
        dy = {Qt.Key.Key_Up: -by, Qt.Key.Key_Down: by}.get(key, 0.0)
        if not dx and not dy:
            return False
        moved = [seat.at(seat.x + dx, seat.y + dy) for seat in self._seats()]
        self._place(moved, merge=f"nudge {' '.join(self.chosen)}")
        return True

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        super().set_theme(theme)
        self.view.set_theme(theme)
        self.section.set_theme(theme)
        self.metal.set_theme(theme)

    def open_thing(self, key: Key | None) -> None:
        """A hole is shown on its surface, marked out."""
        if isinstance(key, HoleKey):
            self.marking.setChecked(True)
            self.refresh()
            self.metal.show_hole(key.number)
        self.show_selection(key)

    def show_selection(self, key: Key | None) -> None:
        """Marks what is chosen."""
        if self.marking.isChecked():
            return
        device = device_of(key)
        if device and device not in self.chosen and self._door().seat(device):
            self.chosen = (device,)
        self._mark()
