"""The things one can operate, as buttons: the supply, then what belongs to the circuits of the sheet."""

from collections.abc import Callable, Collection

from PySide6.QtCore import QPointF, QSize, Qt
from PySide6.QtGui import QColor, QGuiApplication, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QScrollArea, QSlider, QWidget

from riktig.core.catalogue import Can
from riktig.core.job import CircuitId
from riktig.core.schematic import NAMES
from riktig.core.simulation import Operator, Tank, Touch, position_of, set_level, set_travel
from riktig.desk.session import Session
from riktig.desk.stations.circuits.live_model import LiveModel
from riktig.desk.theme import LIGHT, Theme
from riktig.desk.widgets import FlowLayout, plain_label

__all__ = ["Board", "TankView"]

SHORT = {"pushed in": "push", "spent": "spend", "tripped": "trip"}


class Board(QScrollArea):
    """``touched`` is called after every operation. ``hold``: buttons stay where they were put."""

    def __init__(self, session: Session, model: LiveModel, touched: Callable[[], None]) -> None:
        super().__init__()
        self._session, self._model, self._touched = session, model, touched
        self.hold = False
        self.setWidgetResizable(True)
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setAccessibleName("What can be operated")
        self.setMinimumHeight(120)
        self.side = QWidget()
        """Tanks: beside the board, always seen."""
        self._tanks = QHBoxLayout(self.side)
        self._tanks.setContentsMargins(0, 0, 0, 0)
        self.buttons: dict[tuple[str, str], QPushButton] = {}
        self.tanks: list[TankView] = []
        self._shown: list[Operator] = []
        self._back: tuple[Operator, str] | None = None
        """A selector held against its spring, and where it goes back to."""
        self._sliders: dict[CircuitId, QSlider] = {}
        self.theme: Theme = LIGHT

    def show_for(self, circuits: Collection[CircuitId]) -> None:
        """Shows the supply and what belongs to these circuits."""
        body = QWidget()
        flow = FlowLayout(body, gap=6, lead=4)
        for view in self.tanks:
            self._tanks.removeWidget(view)
            view.hide()
            view.deleteLater()
        self.buttons, self.tanks, self._sliders = {}, [], {}
        tags = self._session.evaluation.get(NAMES).tag
        self._shown = []
        for operator in self._model.operators:
            is_here = operator.circuit is None or operator.circuit in circuits
            by_hand = operator.unit == "armature"  # pushed on the sheet: click its coil
            if by_hand or (not is_here and not self._isolates(operator)):
                continue
            self._shown.append(operator)
            name = tags.get(operator.device, "") if operator.device else operator.unit
            flow.addWidget(self._group(operator, name))
        for tank in self._model.tanks:
            if tank.circuit in circuits:
                view = TankView(self._model, tank, self._touched, tags.get(tank.floats[0][1], ""))
                view.theme = self.theme
                self.tanks.append(view)
                self._tanks.addWidget(view)
        self.side.setVisible(bool(self.tanks))
        for carriage in self._model.carriages:
            if carriage.circuit in circuits:
                flow.addWidget(self._carriage(carriage.circuit))
        self.setWidget(body)
        self.show_state()

    def _isolates(self, operator: Operator) -> bool:
        device = self._model.panel.network.devices.get(operator.device) if operator.device else None
        return device is not None and device.kind.can(Can.MAIN_SWITCH)

    def _group(self, operator: Operator, name: str) -> QWidget:
        box = QWidget()
        box.setObjectName("card")
        row = QHBoxLayout(box)
        row.setContentsMargins(6, 2, 6, 2)
        row.setSpacing(4)
        label = plain_label(name)
        label.setToolTip(operator.said)
        row.addWidget(label)
        text = operator.said.split(", ")[-1]
        if operator.device is not None:
            row.addWidget(plain_label(text if len(text) <= 18 else text[:17] + "…", "second"))
        if operator.touch is Touch.SIGNAL:
            slider = QSlider(Qt.Orientation.Horizontal)
            slider.setRange(0, 100)
            slider.setFixedWidth(90)
            slider.setAccessibleName(f"{name} {operator.said}, percent")
            slider.valueChanged.connect(lambda value, o=operator: self._do(o, str(value)))
            row.addWidget(slider)
            return box
        momentary = operator.touch is Touch.HOLD
        shown = operator.positions if operator.touch is Touch.TURN else operator.positions[1:]
        for position in shown:
            button = QPushButton({"held": "press"}.get(position, SHORT.get(position, position)))
            button.setObjectName("small")
            button.setCheckable(True)
            button.setAccessibleName(f"{name} {operator.said}: {position}")
            button.setToolTip(f"{name}, {operator.said}")
            if momentary:
                button.pressed.connect(lambda o=operator, p=position: self._press(o, p))
                button.released.connect(lambda o=operator: self._let_go(o))
            else:
                if operator.touch is Touch.TURN:
                    button.pressed.connect(lambda o=operator, p=position: self._spring(o, p))
                    button.setToolTip(f"{name}, {operator.said}. With Shift it springs back when let go")
                button.clicked.connect(
                    lambda on=False, o=operator, p=position: self._do(o, p if on else o.positions[0])
                )
            self.buttons[operator.key, position] = button
            row.addWidget(button)
        return box

    def _do(self, operator: Operator, position: str) -> None:
        if self._back and self._back[0] is operator and position_of(self._model.panel, operator) == position:
            position, self._back = self._back[1], None
        self._model.do(operator, position)
        self._touched()

    def _press(self, operator: Operator, position: str) -> None:
        is_held = position_of(self._model.panel, operator) != operator.positions[0]
        self._do(operator, operator.positions[0] if self.hold and is_held else position)

    def _let_go(self, operator: Operator) -> None:
        if not self.hold:
            self._do(operator, operator.positions[0])
        else:
            self.show_state()

    def _spring(self, operator: Operator, position: str) -> None:
        """With Shift a selector is held against its spring, and goes back when it is let go."""
        if QGuiApplication.keyboardModifiers() & Qt.KeyboardModifier.ShiftModifier:
            self._back = (operator, position_of(self._model.panel, operator))
            self._do(operator, position)

    def _carriage(self, circuit: CircuitId) -> QWidget:
        box = QWidget()
        box.setObjectName("card")
        row = QHBoxLayout(box)
        row.setContentsMargins(6, 2, 6, 2)
        slider = QSlider(Qt.Orientation.Horizontal)
        slider.setRange(0, 1000)
        slider.setFixedWidth(140)
        slider.setAccessibleName("Where the carriage stands")
        slider.valueChanged.connect(lambda value: self._travel(circuit, value / 1000))
        self._sliders[circuit] = slider
        row.addWidget(plain_label("carriage: behind"))
        row.addWidget(slider)
        row.addWidget(plain_label("ahead"))
        return box

    def _travel(self, circuit: CircuitId, at: float) -> None:

        first = len(self._model.panel.events)
        self._model.carriages = tuple(
            set_travel(self._model.panel, carriage, at) if carriage.circuit == circuit else carriage
            for carriage in self._model.carriages
        )
        self._model.look(first)
        self._touched()

    def show_state(self) -> None:
        """Shows where everything stands now."""
        panel = self._model.panel
        for operator in self._shown:
            now = position_of(panel, operator)
            for position in operator.positions:
                button = self.buttons.get((operator.key, position))
                if button is not None:
                    button.setChecked(position == now)
        for view in self.tanks:
            view.follow()
        for carriage in self._model.carriages:
            slider = self._sliders.get(carriage.circuit)
            if slider is not None and not slider.isSliderDown():
                slider.blockSignals(True)
                slider.setValue(round(1000 * carriage.at))
                slider.blockSignals(False)


class TankView(QWidget):
    """A tank whose level is dragged; its floats can be hung elsewhere. Arrow keys move the level too."""

    def __init__(self, model: LiveModel, tank: Tank, touched: Callable[[], None], name: str) -> None:
        super().__init__()
        self._model, self.tank, self._touched = model, tank, touched
        self.theme: Theme = LIGHT
        self._dragged = ""
        self.setFixedSize(QSize(210, 112))
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(f"Tank with the floats of {name}")
        self.setToolTip("Drag the water, or a float by its name. Up and down keys move the water.")

    def follow(self) -> None:
        """Shows the tank of now."""
        self.tank = next((tank for tank in self._model.tanks if tank.circuit == self.tank.circuit), self.tank)
        self.update()

    def _y(self, share: float) -> float:
        return 104 - share * 96

    def set_level(self, level: float) -> None:
        """Fills the tank so far."""
        first = len(self._model.panel.events)
        self._put(set_level(self._model.panel, self.tank, level))
        self._model.look(first)
        self._touched()

    def _put(self, tank: Tank) -> None:
        self._model.tanks = tuple(tank if other.circuit == tank.circuit else other for other in self._model.tanks)
        self.tank = tank

    def hang(self, role: str, height: float) -> None:
        """Hangs a float elsewhere."""
        self._put(self.tank.moved(role, height))
        self.set_level(self.tank.level)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Takes hold of a float by its name, or of the water."""
        at = event.position()
        near = [role for role, _, height in self.tank.floats if at.x() > 84 and abs(self._y(height) - at.y()) < 9]
        self._dragged = near[0] if near else "water"
        self.mouseMoveEvent(event)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        """Moves what is held."""
        share = (104 - event.position().y()) / 96
        if self._dragged == "water":
            self.set_level(share)
        elif self._dragged:
            self.hang(self._dragged, share)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        """Lets go."""
        self._dragged = ""

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Up and down move the water by a twentieth."""
        key = event.key()
        if key in (Qt.Key.Key_Up, Qt.Key.Key_Down):
            self.set_level(self.tank.level + (0.05 if key == Qt.Key.Key_Up else -0.05))
        else:
            super().keyPressEvent(event)

    def paintEvent(self, event: QPaintEvent) -> None:
        """The tank, its water and its floats: hanging down, or lying on the water."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        colour = self.theme.colour
        top = self._y(self.tank.level)
        water = QColor(colour("return"))
        water.setAlpha(90)
        painter.fillRect(6, round(top), 74, round(104 - top), water)
        painter.setPen(QPen(colour("ink"), 1.6))
        painter.drawPolyline([_point(6, 6), _point(6, 104), _point(80, 104), _point(80, 6)])
        wrong = bool(self.tank.faults())
        for role, device_id, height in self.tank.floats:
            y = self._y(height)
            up = device_id in self._model.panel.operator_state.pressed
            painter.setPen(QPen(colour("fails" if wrong else "ink"), 1.4))
            painter.setBrush(colour("act" if up else "paper"))
            painter.drawLine(_point(80, y), _point(56, y if up else min(y + 14, 104)))
            painter.drawEllipse(_point(54, y if up else min(y + 14, 100)), 6, 4)
            painter.drawText(_point(86, y + 4), f"{role} {100 * height:.0f} %, {'up' if up else 'down'}")
        if self.hasFocus():
            painter.setPen(colour("act"))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(self.rect().adjusted(0, 0, -1, -1))
        painter.end()


def _point(x: float, y: float) -> QPointF:
    return QPointF(x, y)
