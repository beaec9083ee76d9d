"""Going on in a new file after something went wrong: the messages that offer it, and what their buttons do."""

from collections.abc import Callable
from pathlib import Path
from typing import Protocol

from PySide6.QtWidgets import QMessageBox, QWidget

from riktig.core.errors import RiktigError
from riktig.core.store import JobFile, go_on_from_text, go_on_in_copy
from riktig.desk.session import Session

__all__ = ["COPY_WORDS", "Offer", "go_on_from_broken", "go_on_from_rescued", "show_message"]

Offer = tuple[str, Callable[[], object]]
"""The words on a button, and what it does."""
COPY_WORDS = (
    "You can go on in a copy: it has the job as it is here, and no ticks and readings, for it is not known which of "
    "them to believe. This file stays as it is."
)


class _Window(Protocol):
    """What is needed of the main window."""

    session: Session

    def go_to(self, name: str) -> None: ...


def show_message(parent: QWidget, text: str, offer: Offer | None = None) -> None:
    """Shows a message; the program goes on behind it."""
    box = QMessageBox(parent)
    box.setWindowTitle("Riktig")
    box.setText(text)
    box.addButton(QMessageBox.StandardButton.Ok)
    box.setEscapeButton(QMessageBox.StandardButton.Ok)  # with two buttons Qt does not know which one Esc means
    if offer:
        button = box.addButton(offer[0], QMessageBox.ButtonRole.ActionRole)
        button.clicked.connect(lambda: offer[1]())
    box.open()


def go_on_from_broken(window: _Window) -> None:
    """Makes and opens a new file with the job of the open one, which may only be looked at."""
    session, file = window.session, window.session.file
    if file:
        _go_on(window, lambda: go_on_in_copy(file, who=session.who, at=session.clock(), signer=session.signer))


def go_on_from_rescued(window: _Window, rescued: Path) -> None:
    """Makes and opens a new file with the job that a fault of the program left behind."""
    session = window.session
    _go_on(window, lambda: go_on_from_text(rescued, who=session.who, at=session.clock(), signer=session.signer))


def _go_on(window: _Window, make: Callable[[], JobFile]) -> None:
    before = window.session.file.path.name if window.session.file else "The job"
    try:
        file = make()
        window.session.open(file)
    except RiktigError as error:
        window.session.say(str(error), wrong=True)
        return
    window.go_to("Brief")
    window.session.say(
        f"You go on in {file.path.name}. {before} stays as it was, with its ticks and readings; "
        "the new file begins without any."
    )
