"""Labels at true size, a medium at a time."""

from PySide6.QtWidgets import QHBoxLayout

from riktig.core.labels import LABELS, Medium, draw_medium
from riktig.desk.canvas import DrawingView
from riktig.desk.session import Session
from riktig.desk.theme import Theme
from riktig.desk.widgets import Station, plain_label

__all__ = ["LabelsStation"]


class LabelsStation(Station):
    """Shows what is printed on each medium."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.medium = Medium.DEVICE
        self.view = DrawingView("Labels")
        self.view.pages = True
        self.view.chosen.connect(session.select)
        tabs = QHBoxLayout()
        tabs.setSpacing(4)
        self._buttons = {}
        for medium in Medium:
            button = self.button(medium.value.split()[0].capitalize(), f"Shows the {medium.value}", checkable=True)
            button.clicked.connect(lambda _=False, m=medium: self.turn(m))
            self._buttons[medium] = button
            tabs.addWidget(button)
        self.words = plain_label("", "second")
        self.add_bar((tabs, None))
        self.add_body(self.words, 0)
        self.add_body(self.view)

    def turn(self, medium: Medium) -> None:
        """Shows another medium."""
        self.medium = medium
        self.refresh()

    def refresh(self) -> None:
        """Shows the labels of now."""
        for medium, button in self._buttons.items():
            button.setChecked(medium is self.medium)
        labels = self.session.plan.get(LABELS)
        here = labels.on(self.medium)
        self.view.show_drawing(draw_medium(labels, self.medium))
        width, height = here[0].size if here else (0.0, 0.0)
        count = sum(label.copies for label in here)
        text = f"{count} to print, {width:g} × {height:g} mm each"
        if self.medium is Medium.WIRE:
            text += ", in pairs for both ends, in the order of the batches"
        self.words.setText(text)

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        super().set_theme(theme)
        self.view.set_theme(theme)

    def show_selection(self, key: str) -> None:
        """Marks the labels of what is chosen."""
        self.view.select(frozenset({key}))
