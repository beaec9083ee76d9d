"""A part of the letter: answers bound to the job, filled in anew after every edit."""

from collections.abc import Callable
from enum import Enum
from functools import partial
from typing import Any

from PySide6.QtWidgets import QPushButton, QVBoxLayout, QWidget

from riktig.core.edits import Edit
from riktig.core.errors import RiktigError
from riktig.core.job import Job, read_quantity
from riktig.core.keys import Key
from riktig.desk.session import Session
from riktig.desk.stations.brief.fields import Answer, ChoiceField, say_range
from riktig.desk.theme import words_font
from riktig.desk.widgets import plain_label

__all__ = ["BriefPart"]

Change = Callable[[Any], Edit]
"""What an answer comes to."""


class BriefPart(QWidget):
    """Makes answers and remembers them by key; ``values`` says what they show."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.fields: dict[str, Answer | ChoiceField] = {}
        self.body = QVBoxLayout(self)
        self.body.setContentsMargins(0, 0, 0, 0)
        self.body.setSpacing(6)

    def values(self, job: Job) -> dict[str, object]:
        """What each answer shows for a job, by key."""
        return {}

    def fill(self) -> None:
        """Shows the answers of now."""
        values = self.values(self.session.job)
        for key, field in self.fields.items():
            value = values.get(key)
            if isinstance(field, ChoiceField):
                field.show_value(value)
            elif isinstance(value, float):
                field.show_value(f"{value:g}")
            else:
                field.show_value("" if value is None else str(value))

    def show_selection(self, key: Key | None) -> None:
        """Marks what is selected."""

    def edit(self, name: str, edit: Edit) -> bool:
        """Makes one edit under a name.

        Returns:
            Whether it was made.
        """
        return self.session.edit(name, edit)

    def text(
        self, key: str, name: str, change: Change, width: int, read: Callable[[str], Any] = str.strip, of: str = ""
    ) -> Answer:
        """An answer in words, or read by ``read``, which raises what is wrong with it.

        Where the answer is a number, the field says from where to where it is accepted, by the name ``of`` of it.
        """

        def take(text: str) -> bool:
            try:
                value = read(text)
            except RiktigError as error:
                self.session.say(str(error), wrong=True)
                return False
            return self.edit(name, change(value))

        field = Answer(name, "", take, width)
        say_range(field, of or key)
        self.fields[key] = field
        return field

    def number(self, key: str, name: str, change: Change, unit: str = "", width: int = 58, of: str = "") -> Answer:
        """An answer that is a number."""
        return self.text(key, name, change, width, partial(read_quantity, unit=unit, what=name.lower()), of)

    def pick(self, key: str, name: str, choices: list[tuple[str, object]], change: Change) -> ChoiceField:
        """An answer out of a few."""
        field = ChoiceField(name, choices, lambda value: self._chosen(name, change, value))
        self.fields[key] = field
        return field

    def pick_of(self, key: str, name: str, kind: type[Enum], change: Change) -> ChoiceField:
        """An answer out of an enumeration, in its own words."""
        return self.pick(key, name, [(str(choice.value), choice) for choice in kind], change)

    def _chosen(self, name: str, change: Change, value: object) -> None:
        self.edit(name, change(value))

    def head(self, text: str) -> None:
        """A heading of the letter."""
        label = plain_label(text)
        label.setFont(words_font(12, bold=True))
        label.setContentsMargins(0, 6, 0, 0)
        self.body.addWidget(label)

    def flat(self, text: str, name: str, do: Callable[[], object]) -> QPushButton:
        """A quiet action in a sentence."""
        button = QPushButton(text)
        button.setFlat(True)
        button.setAccessibleName(name)
        button.clicked.connect(lambda: do())
        return button
