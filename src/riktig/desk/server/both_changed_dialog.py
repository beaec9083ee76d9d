"""Two changed the same part of the plan: both are shown side by side, and somebody chooses."""

import json
from collections.abc import Callable
from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QButtonGroup,
    QDialog,
    QDialogButtonBox,
    QGridLayout,
    QRadioButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from riktig.core.job import Job
from riktig.desk.widgets import plain_label

if TYPE_CHECKING:
    from riktig.server.handing_in import UnmergedRevision

__all__ = ["BothChangedDialog", "part_words"]

MOST_SHOWN = 60
"""Letters of a value that are shown."""


class BothChangedDialog(QDialog):
    """A row for each part that both changed: what it is, how it is here, how it is there; one of the two is chosen.

    Args:
        unmerged: What cannot be merged.
        job: The job at this bench, for names.
        settle: Called with the paths of the parts that stay as they are here.
        parent: What it stands over.
    """

    def __init__(
        self, unmerged: "UnmergedRevision", job: Job, settle: Callable[[list[str]], None], parent: QWidget | None = None
    ) -> None:
        super().__init__(parent)
        self.setWindowTitle("Both changed the same part")
        self.setObjectName("paper")
        self._settle = settle
        who = unmerged.who or "somebody"
        self.here: dict[str, QRadioButton] = {}
        self.there: dict[str, QRadioButton] = {}
        grid = QGridLayout()
        grid.setHorizontalSpacing(18)
        for column, text in enumerate(("Part", "Here", f"On the server, by {who}")):
            grid.addWidget(plain_label(text, "second"), 0, column)
        for row, part in enumerate(unmerged.both_changed, 1):
            words = part_words(part.path, job)
            grid.addWidget(plain_label(words, wraps=True), row, 0)
            group = QButtonGroup(self)
            for column, side, value in ((1, self.here, part.here), (2, self.there, part.there)):
                button = QRadioButton(_value_words(value))
                button.setAccessibleName(f"{words}: {'here' if column == 1 else 'on the server'} {_value_words(value)}")
                button.setToolTip(value or "taken out")
                group.addButton(button)
                grid.addWidget(button, row, column, Qt.AlignmentFlag.AlignTop)
                side[part.path] = button
            self.there[part.path].setChecked(True)
        grid.setColumnStretch(0, 1)
        grid.setRowStretch(len(unmerged.both_changed) + 1, 1)
        rows = QWidget()
        rows.setLayout(grid)
        scroll = QScrollArea()
        scroll.setWidgetResizable(True)
        scroll.setWidget(rows)
        buttons = QDialogButtonBox()
        for text, keep in (("All as here", self.here), ("All as on the server", self.there)):
            every = buttons.addButton(text, QDialogButtonBox.ButtonRole.ActionRole)
            every.setAutoDefault(False)
            every.clicked.connect(partial(_choose_all, keep))
        done = buttons.addButton("Hand in as chosen", QDialogButtonBox.ButtonRole.AcceptRole)
        done.setDefault(True)
        done.setToolTip("Makes a new revision of both together; nothing of the record is lost")
        later = buttons.addButton("Later", QDialogButtonBox.ButtonRole.RejectRole)
        later.setToolTip("The change waits at this bench; work goes on")
        buttons.accepted.connect(self.hand_in)
        buttons.rejected.connect(self.reject)
        layout = QVBoxLayout(self)
        layout.addWidget(
            plain_label(
                f"{who} changed the plan while this bench had its own change. What concerns different parts is brought "
                "together by itself; here both changed the same. Choose for each part.",
                wraps=True,
            )
        )
        layout.addWidget(scroll, 1)
        layout.addWidget(buttons)
        self.resize(720, 380)

    def hand_in(self) -> None:
        """Settles it as it is chosen."""
        self._settle([path for path, button in self.here.items() if button.isChecked()])
        self.accept()


def _choose_all(side: dict[str, QRadioButton]) -> None:
    for button in side.values():
        button.setChecked(True)


def part_words(path: str, job: Job) -> str:
    """The path of a part in words: “loads · l2 · kw” is “loads, Intake fan: kw”.

    Args:
        path: As ``merge_jobs`` says it.
        job: For the names of loads.
    """
    names = {str(load.id): load.name for load in job.loads}
    *parts, last = path.split(" · ")
    words = [names.get(part, part).replace("_", " ") for part in parts]
    last = names.get(last, last).replace("_", " ")
    return f"{', '.join(words)}: {last}" if words else last


def _value_words(value: str) -> str:
    """A value as JSON in words: what it is called where it is more than a figure."""
    if not value:
        return "taken out"
    plain = json.loads(value)
    if isinstance(plain, dict):
        plain = plain.get("name") or plain.get("title") or ", ".join(f"{k} {v}" for k, v in list(plain.items())[:4])
    words = {True: "yes", False: "no", "": "nothing"}.get(plain) if isinstance(plain, bool | str) else None
    text = words or str(plain)
    return text if len(text) <= MOST_SHOWN else text[: MOST_SHOWN - 1] + "…"
