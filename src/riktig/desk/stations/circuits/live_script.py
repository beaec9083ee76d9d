"""Scripts of the builder's own: written a step a line, tried while they are written, watched on the sheets."""

from collections.abc import Callable

from PySide6.QtWidgets import QDialog, QDialogButtonBox, QLineEdit, QPlainTextEdit, QVBoxLayout, QWidget

from riktig.core.errors import RiktigError
from riktig.core.simulation import read_script
from riktig.desk.widgets import plain_label

__all__ = ["ScriptAsked"]

HELP = (
    "A step a line: what is done, a colon, what must then be so; things by their tags: “press S1: K1 in, M1 forward”. "
    "Done: press, release, turn S8 to auto, raise B4, lower B4, trip F3, reset F3, open F1, close F1, wait 40, "
    "lose L2, restore L2, push K1, let go K1, weld K1 1-2, blow F1 1-2, break K1, mend K1, give A3 Q0, take A3 Q0, "
    "foreign on."
)


class ScriptAsked(QDialog):
    """Asks for a name and the steps. ``check`` raises what is wrong with them on the panel of now."""

    def __init__(self, parent: QWidget, name: str, text: str, check: Callable[[tuple[str, ...]], None]) -> None:
        super().__init__(parent)
        self.setWindowTitle("A script of your own")
        self.setMinimumSize(640, 420)
        self._check = check
        self.name = QLineEdit(name)
        self.name.setPlaceholderText("name, such as “Emergency stop”")
        self.name.setAccessibleName("Name of the script")
        self.text = QPlainTextEdit(text)
        self.text.setAccessibleName("Steps")
        self.wrong = plain_label("", "judgement", wraps=True)
        self.buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Ok | QDialogButtonBox.StandardButton.Cancel)
        self.buttons.accepted.connect(self.accept)
        self.buttons.rejected.connect(self.reject)
        column = QVBoxLayout(self)
        column.addWidget(self.name)
        column.addWidget(self.text, 1)
        column.addWidget(plain_label(HELP, "quiet", wraps=True))
        column.addWidget(self.wrong)
        column.addWidget(self.buttons)
        self.name.textChanged.connect(self.look)
        self.text.textChanged.connect(self.look)
        self.look()

    def steps(self) -> tuple[str, ...]:
        """The steps as written.

        Raises:
            RiktigError: they cannot be read.
        """
        return read_script(self.text.toPlainText())

    def look(self) -> None:
        """Looks whether it can be accepted."""
        text = "" if self.name.text().strip() else "Give it a name."
        try:
            steps = self.steps()
            if not steps:
                text = text or "Write a step."
            self._check(steps)
        except RiktigError as error:
            text = str(error)
        self.wrong.setText(text)
        self.buttons.button(QDialogButtonBox.StandardButton.Ok).setEnabled(not text)
