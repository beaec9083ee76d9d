"""Asking for a rung or a device of the builder's own; what is wrong is said while it is written."""

from collections.abc import Callable

from PySide6.QtWidgets import QComboBox, QDialog, QDialogButtonBox, QFormLayout, QLineEdit, QVBoxLayout, QWidget

from riktig.core.catalogue import Mounting, kinds
from riktig.core.errors import RiktigError
from riktig.core.job import OwnDevice, OwnRung
from riktig.desk.widgets import plain_label

__all__ = ["DeviceAsked", "RungAsked"]


class _Asked(QDialog):
    """A short form whose last line says what is wrong; it can be accepted only when nothing is."""

    def __init__(self, title: str, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle(title)
        self.setMinimumWidth(560)
        self.form = QFormLayout()
        self.wrong = plain_label("", "judgement", wraps=True)
        self.buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Ok | QDialogButtonBox.StandardButton.Cancel)
        self.buttons.accepted.connect(self.accept)
        self.buttons.rejected.connect(self.reject)
        column = QVBoxLayout(self)
        column.addLayout(self.form)
        column.addWidget(self.wrong)
        column.addWidget(self.buttons)

    def field(self, name: str, words: str, hint: str = "") -> QLineEdit:
        """A line to fill in."""
        edit = QLineEdit()
        edit.setPlaceholderText(hint)
        edit.setAccessibleName(words)
        edit.setObjectName(name)
        edit.textChanged.connect(self.look)
        self.form.addRow(words, edit)
        return edit

    def look(self) -> None:
        """Looks whether it can be accepted."""
        try:
            self.check()
            text = ""
        except RiktigError as error:
            text = str(error)
        self.wrong.setText(text)
        self.buttons.button(QDialogButtonBox.StandardButton.Ok).setEnabled(not text)

    def check(self) -> None:
        """Raises what is wrong."""


class RungAsked(_Asked):
    """A rung: from which potential, along which path, to which potential."""

    def __init__(self, nodes: dict[str, str], number: int, check: Callable[[OwnRung], None], parent: QWidget) -> None:
        super().__init__("A rung of your own", parent)
        self._check, self._number = check, number
        self.title = self.field("title", "What it is for", "second run lamp")
        self.start = self._node("From", nodes)
        self.path = self.field("path", "Path", "S.stop:1-2 (S.start:3-4 | K:13-14) K:A1-A2")
        self.end = self._node("To", nodes)
        self.form.addRow(
            "",
            plain_label(
                "Devices by their role in this circuit and their contact; ( … | … ) side by side; c2.K:43-44 reaches "
                "into another circuit.",
                "quiet",
                wraps=True,
            ),
        )
        self.look()

    def _node(self, words: str, nodes: dict[str, str]) -> QComboBox:
        box = QComboBox()
        box.setAccessibleName(words)
        for node, text in nodes.items():
            box.addItem(f"{text}   ({node})", node)
        box.currentIndexChanged.connect(self.look)
        self.form.addRow(words, box)
        return box

    def rung(self) -> OwnRung:
        """The rung as it is written now."""
        return OwnRung(
            f"own{self._number}",
            self.title.text().strip(),
            str(self.start.currentData()),
            self.path.text().strip(),
            str(self.end.currentData()),
        )

    def check(self) -> None:
        """The path must be readable, and something must be said of it."""
        if not self.title.text().strip() or not self.path.text().strip():
            raise RiktigError("Say what the rung is for, and its path.", hint="")
        self._check(self.rung())


class DeviceAsked(_Asked):
    """A device: its role, what it is, where it stands, what it is for."""

    def __init__(self, check: Callable[[OwnDevice], None], parent: QWidget) -> None:
        super().__init__("A device of your own", parent)
        self._check = check
        self.role = self.field("role", "Role in this circuit", "K.extra")
        self.kind = QComboBox()
        self.kind.setAccessibleName("What it is")
        for kind in kinds():
            if kind.units and kind.mounting is not Mounting.FIXED:
                self.kind.addItem(kind.name, kind.id)
        self.kind.currentIndexChanged.connect(self.look)
        self.form.addRow("What it is", self.kind)
        self.purpose = self.field("purpose", "What it is for", "second run lamp")
        self.look()

    def device(self) -> OwnDevice:
        """The device as it is written now; its kind decides where it stands."""
        kind = next(known_kind for known_kind in kinds() if known_kind.id == self.kind.currentData())
        zone = {Mounting.DOOR: "door", Mounting.FIELD: "field"}.get(kind.mounting, "plate")
        purpose = self.purpose.text().strip()
        return OwnDevice(self.role.text().strip(), kind.id, zone, purpose, purpose if zone == "door" else "")

    def check(self) -> None:
        """The role must be free and without spaces, the purpose said."""
        role = self.role.text().strip()
        if not role or any(c.isspace() or c in ":/|()<@^" for c in role):
            raise RiktigError("A role is one word without signs, such as K.extra.", hint="")
        if not self.purpose.text().strip():
            raise RiktigError("Say what the device is for.", hint="")
        self._check(self.device())
