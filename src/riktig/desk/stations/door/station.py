"""The door from the front, and its holes."""

from riktig.core.circuit import NAMES
from riktig.core.door import DOOR, DOOR_DRAWING
from riktig.core.holes import HOLES, mark_out
from riktig.core.papers import device_of, holes_of
from riktig.desk.canvas import DrawingView
from riktig.desk.session import Session
from riktig.desk.theme import Theme
from riktig.desk.widgets import ScheduleTable, Station, plain_label, row_of

__all__ = ["DoorStation"]


class DoorStation(Station):
    """A true-scale drawing of the door beside the list of its holes."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.view = DrawingView("Door, from the front")
        self.view.chosen.connect(session.select)
        self.marking = self.button("Mark-out", "Holes from the datum", checkable=True)
        self.marking.clicked.connect(self.refresh)
        self.words = plain_label("", "second")
        self.table = ScheduleTable("Holes of the door", "hole")
        self.table.row_chosen.connect(lambda hole: session.select(f"hole:{hole}"))
        self.hint = plain_label(
            "Measure twice before a hole is cut: a spoiled door is ordered again. The shaft centre "
            "is the isolator's middle, projected square onto the door.",
            "quiet",
            wraps=True,
        )
        self.add_bar((self.marking, None, self.words))
        row = row_of(())
        row.addWidget(self.view, 3)
        row.addWidget(self.table, 2)
        self.add_body(row)
        self.add_body(self.hint, 0)

    def refresh(self) -> None:
        """Shows the door of now."""
        plan = self.session.plan
        drawing, holes = plan.get(DOOR_DRAWING), plan.get(HOLES)
        if self.marking.isChecked():
            drawing = mark_out(drawing, holes, "door")
        self.view.show_drawing(drawing)
        listed = holes_of(plan, "door")
        self.table.show_schedule(listed)
        door, names = plan.get(DOOR), plan.get(NAMES)
        wrong = [m.said(names.tag) for m in door.misfits]
        self.words.setText(
            "; ".join(wrong[:2])
            if wrong
            else f"{len(listed.rows)} holes  ·  door {door.face.width:g} × {door.face.height:g} mm"
        )

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        super().set_theme(theme)
        self.view.set_theme(theme)

    def show_selection(self, key: str) -> None:
        """Marks what is chosen."""
        owner = device_of(key)
        self.view.select(frozenset({key, f"device:{owner}"}))
        if key.startswith("hole:"):
            self.table.choose(key.removeprefix("hole:"))
