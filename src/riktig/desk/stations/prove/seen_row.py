"""What was seen after a step under voltage: a button a device, pressed until it says what it did."""

from collections.abc import Mapping, Sequence

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QPushButton, QVBoxLayout, QWidget

from riktig.core.ids import DeviceId
from riktig.core.proving import positions_seen, seen_words
from riktig.core.schematic import Device
from riktig.desk.widgets import flowing, plain_label

__all__ = ["SeenRow"]


class SeenRow(QWidget):
    """The devices of a circuit as they should be after a step. ``changed`` says that one was set otherwise."""

    changed = Signal()

    def __init__(self) -> None:
        super().__init__()
        self._layout = QVBoxLayout(self)
        self._layout.setContentsMargins(0, 0, 0, 0)
        self._layout.addWidget(plain_label("What came: press what was otherwise", "quiet"))
        self._row: QWidget | None = None
        self.buttons: dict[DeviceId, QPushButton] = {}
        self._tags: Mapping[DeviceId, str] = {}
        self._asked: dict[DeviceId, str] = {}
        self._seen: dict[DeviceId, str] = {}

    def show_devices(
        self, devices: Sequence[Device], tags: Mapping[DeviceId, str], asked: Mapping[DeviceId, str]
    ) -> None:
        """Shows devices as they should be.

        Args:
            devices: The devices, in order.
            tags: Their tags.
            asked: What each should do; a device without it is left out.
        """
        self._tags, self._asked = tags, {d.id: asked[d.id] for d in devices if d.id in asked}
        self._seen = dict(self._asked)
        self.buttons = {}
        for device in devices:
            if device.id not in self._asked:
                continue
            button = QPushButton()
            button.setCheckable(True)
            button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            button.setToolTip(device.purpose)
            button.clicked.connect(lambda _=False, shown=device: self._turn(shown))
            self.buttons[device.id] = button
            self._name(device.id)
        if self._row is not None:
            self._layout.removeWidget(self._row)
            self._row.deleteLater()
        self._row = flowing(tuple(self.buttons.values()))
        self._layout.addWidget(self._row)
        self.setVisible(bool(self.buttons))

    def _turn(self, device: Device) -> None:
        positions = positions_seen(device)
        at = positions.index(self._seen[device.id]) if self._seen[device.id] in positions else 0
        self._seen[device.id] = positions[(at + 1) % len(positions)]
        self._name(device.id)
        self.changed.emit()

    def _name(self, device: DeviceId) -> None:
        button = self.buttons[device]
        button.setText(seen_words(f"{self._tags[device]} {self._seen[device]}"))
        button.setChecked(self._seen[device] != self._asked[device])

    @property
    def otherwise(self) -> str:
        """What was otherwise, in words; empty when everything was as it should be."""
        words = (
            f"{self._tags[device]} {sight}" for device, sight in self._seen.items() if sight != self._asked[device]
        )
        return ", ".join(map(seen_words, words))
