"""The front of the panel beside the live sheet: lamps that are lit, what is pressed; a click operates."""

from collections.abc import Callable, Collection

from PySide6.QtGui import QKeyEvent

from riktig.core.door import DOOR, DOOR_DRAWING, DoorPlan
from riktig.core.geometry import Point, Rect
from riktig.core.ids import CircuitId
from riktig.core.keys import Key
from riktig.core.plate import RULER
from riktig.core.schematic import NAMES
from riktig.core.simulation import front_shapes, lit_lamps
from riktig.desk.canvas import FITS, DrawingView
from riktig.desk.session import Session
from riktig.desk.stations.circuits.live_model import LiveModel

__all__ = ["FrontView"]

AROUND, LEAST_MM = 40.0, 150.0
"""What is seen around the operators of a sheet, and the least that is seen across, mm (chosen by us)."""


class FrontView(DrawingView):
    """Shows the door of now with the state of now.

    Args:
        session: What the window works on.
        model: The panel with power on.
        touched: Called with what is clicked.
    """

    def __init__(self, session: Session, model: LiveModel, touched: Callable[[Key | None], None]) -> None:
        super().__init__("Front of the panel")
        self._session, self._model = session, model
        self._touched = touched
        self.opening = FITS
        self._circuits: frozenset[CircuitId] = frozenset()
        self.setMinimumSize(180, 120)
        self.chosen.connect(touched)
        self.on_key = self._key

    def show_for(self, circuits: Collection[CircuitId]) -> None:
        """Turns to the operators of these circuits; “0” shows the whole front."""
        self._circuits = frozenset(circuits)
        self.show_state()

    def _part(self, door: DoorPlan) -> Rect | None:
        """Where the operators of these circuits sit, or all of them; None: the whole front."""
        devices = self._model.panel.network.devices
        circuit_seats = [
            seat for seat in door.seats if seat.device in devices and devices[seat.device].circuit in self._circuits
        ]
        seats = circuit_seats or door.seats
        if not seats:
            return None
        left, right = min(seat.x for seat in seats), max(seat.x for seat in seats)
        top, bottom = min(seat.y for seat in seats), max(seat.y for seat in seats)
        wide, high = max(right - left + 2 * AROUND, LEAST_MM), max(bottom - top + 2 * AROUND, LEAST_MM)
        middle = Point((left + right) / 2 + RULER, (top + bottom) / 2 + RULER)
        return Rect(middle.x - wide / 2, middle.y - high / 2, wide, high)

    def show_state(self) -> None:
        """Lays over the door what is so now; nothing while it is put away."""
        if self.isHidden():
            return
        evaluation = self._session.evaluation
        door, panel = evaluation.get(DOOR), self._model.panel
        self.show_drawing(evaluation.get(DOOR_DRAWING))
        self.set_home(self._part(door))
        self.set_overlay(self.readable(front_shapes(panel, door, self._model.operators)))
        tags = evaluation.get(NAMES).tag
        lit = sorted(tags[device] for device in lit_lamps(panel, door) if device in tags)
        self.setAccessibleDescription(f"Lit: {', '.join(lit)}" if lit else "No lamp is lit")

    def _key(self, event: QKeyEvent) -> bool:
        """Space operates what is selected."""
        if event.text() != " ":
            return False
        self._touched(self._session.selection)
        return True
