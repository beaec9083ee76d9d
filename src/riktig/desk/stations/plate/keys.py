"""What the keys do on the plate: arrows move by 1 or 10 mm, L locks, M measures, Delete takes a rail or duct away."""

from collections.abc import Callable, Sequence

from PySide6.QtCore import QObject, Qt, Signal
from PySide6.QtGui import QKeyEvent

from riktig.core.job import DeviceId
from riktig.core.keys import DuctKey, RailKey
from riktig.core.plate import LAYOUT, Duct, Rail, RailsAndDucts, Stand, duct_changed, moved_to, rail_changed
from riktig.desk.session import Session
from riktig.desk.stations.plate.actions import PlateActions

__all__ = ["PlateKeys"]


class PlateKeys(QObject):
    """Keys for what is chosen: parts, or a rail or duct."""

    lock_asked = Signal()
    measure_asked = Signal()

    def __init__(
        self,
        session: Session,
        actions: PlateActions,
        chosen: Callable[[], Sequence[DeviceId]],
        thing: Callable[[], Stand | Rail | Duct | None],
    ) -> None:
        super().__init__()
        self._session, self._actions, self._chosen, self._thing = session, actions, chosen, thing

    def take(self, event: QKeyEvent) -> bool:
        """Whether a key was for the plate."""
        if event.text() in ("m", "M"):
            self.measure_asked.emit()
            return True
        chosen = self._session.selection
        if isinstance(chosen, RailKey | DuctKey):
            return self._to_furniture(event, chosen.name)
        if not self._chosen():
            return False
        if event.text() in ("l", "L"):
            self.lock_asked.emit()
            return True
        return self._nudge(event)

    def _steps(self, event: QKeyEvent) -> tuple[float, float]:
        by = 10.0 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1.0
        key = Qt.Key(event.key())
        dx = {Qt.Key.Key_Left: -by, Qt.Key.Key_Right: by}.get(key, 0.0)
        return dx, {Qt.Key.Key_Up: -by, Qt.Key.Key_Down: by}.get(key, 0.0)

    def _nudge(self, event: QKeyEvent) -> bool:
        layout = self._session.evaluation.get(LAYOUT)
        dx, dy = self._steps(event)
        if not dx and not dy:
            return False
        numbers, chosen = [rail.number for rail in layout.rails], self._chosen()
        moved = []
        for stand in (s for s in layout.stands if s.block.lead in chosen):
            rail = layout.rail(stand.rail)
            if rail and dy:
                turn = 1 if dy > 0 else -1
                to = numbers[min(max(numbers.index(rail.number) + turn, 0), len(numbers) - 1)]
                moved.append(moved_to(layout, stand, to, stand.x - rail.x1))
            else:
                moved.append(Stand(stand.block, stand.rail, round(stand.x + dx, 2), round(stand.y + dy, 2)))
        self._actions.place(moved, merge=f"nudge {' '.join(chosen)}" if dx else "")
        return True

    def _to_furniture(self, event: QKeyEvent, name: str) -> bool:
        if event.key() == Qt.Key.Key_Delete:
            self._actions.take_away(name)
            return True
        dx, dy = self._steps(event)
        changed = self._nudged(dx, dy) if dx or dy else None
        if changed:
            self._actions.furnish(f"move {name}", changed, merge=f"nudge {name}")
        return changed is not None

    def _nudged(self, dx: float, dy: float) -> RailsAndDucts | None:
        layout, thing = self._session.evaluation.get(LAYOUT), self._thing()
        if isinstance(thing, Rail):
            return rail_changed(layout, thing.number, y=thing.y + dy, x1=thing.x1 + dx, x2=thing.x2 + dx)
        return duct_changed(layout, thing.number, thing.rect.moved(dx, dy)) if isinstance(thing, Duct) else None
