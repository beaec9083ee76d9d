"""What the house keeps of numbers and letters for itself: reserved numbers, ranges, its scheme, its table."""

from dataclasses import replace
from typing import cast

from PySide6.QtWidgets import QWidget

from riktig.core.catalogue import classes
from riktig.core.edits import Edit, SetPractice
from riktig.core.job import (
    POTENTIALS,
    SCHEME_FIELDS,
    ClassLetters,
    Job,
    Letters,
    Numbering,
    PracticeFields,
    ReservedNumber,
)
from riktig.core.schematic import CIRCUITS, NETS, GivenNames, name_all
from riktig.desk.session import Session
from riktig.desk.stations.brief.fields import sentence
from riktig.desk.stations.brief.part import BriefPart, Change
from riktig.desk.widgets import plain_label

__all__ = ["NamesPart"]

POINTS = 10.5
SHOWN = 8
"""Numbers shown as an example of the house's scheme."""


class NamesPart(BriefPart):
    """Numbers kept for common potentials, ranges for growth; scheme and letters when the house has its own."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.head("Company numbering and letters")
        self.body.addWidget(self._ranges())
        self.body.addWidget(self._kept())
        self._scheme = self._of_scheme()
        self._example = plain_label("", "quiet", wraps=True)
        self._letters = self._of_letters()
        for widget in (self._scheme, self._example, self._letters):
            self.body.addWidget(widget)

    def _ranges(self) -> QWidget:
        def whole(field: str) -> Change:
            return lambda value: SetPractice(cast(PracticeFields, {field: int(value)}))

        return sentence(
            "The first",
            self.number("reserved_numbers", "Reserved numbers", whole("reserved_numbers"), "", 46),
            "wire numbers are given to no wire. Each circuit has a range of",
            self.number("number_step", "Range of a circuit", whole("number_step"), "", 46),
            "numbers to grow in; with 0 they run on without a gap.",
            points=POINTS,
        )

    def _kept(self) -> QWidget:
        parts: list[str | QWidget] = ["Numbers reserved for common potentials:"]
        for node, words in POTENTIALS.items():
            parts += [words, self.text(f"reserved.{node}", f"Number of the {words}", self._reserve(node), 56), ","]
        return sentence(*parts[:-1], ".", points=POINTS)

    def _of_scheme(self) -> QWidget:
        def change(text: str) -> Edit:
            return SetPractice({"scheme": text})

        fields = ", ".join(f"{{{name}}}" for name in SCHEME_FIELDS)
        return sentence(
            "The company's numbering scheme:",
            self.text("scheme", "Numbering scheme", change, 190),
            f". It may hold {fields} ; {{count:02}} has at least two figures.",
            points=POINTS,
        )

    def _of_letters(self) -> QWidget:
        parts: list[str | QWidget] = ["Company letters; a class left empty keeps its own:"]
        for of in classes():
            parts += [of, self.text(f"letters.{of}", f"Letters of {of}", self._letter(of), 46), ","]
        return sentence(*parts[:-1], ".", points=POINTS)

    def _reserve(self, node: str) -> Change:
        def change(text: str) -> Edit:
            other_numbers = tuple(
                reserved for reserved in self.session.job.practice.reserved if reserved.potential != node
            )
            return SetPractice({"reserved": (*other_numbers, ReservedNumber(node, text)) if text else other_numbers})

        return change

    def _letter(self, of: str) -> Change:
        def change(text: str) -> Edit:
            other_letters = tuple(
                house_letter for house_letter in self.session.job.practice.house_letters if house_letter.of != of
            )
            return SetPractice(
                {"house_letters": (*other_letters, ClassLetters(of, text.upper())) if text else other_letters}
            )

        return change

    def values(self, job: Job) -> dict[str, object]:
        """What is kept now."""
        practice = job.practice
        values: dict[str, object] = {
            "reserved_numbers": practice.reserved_numbers,
            "number_step": practice.number_step,
            "scheme": practice.scheme,
        }
        values |= {f"reserved.{reserved.potential}": reserved.number for reserved in practice.reserved}
        return values | {f"letters.{house_letter.of}": house_letter.letters for house_letter in practice.house_letters}

    def fill(self) -> None:
        """Shows what is kept, and what the house's scheme would give here."""
        super().fill()
        practice = self.session.job.practice
        scheme = practice.numbering is Numbering.HOUSE
        self._scheme.setVisible(scheme)
        self._example.setVisible(scheme)
        self._letters.setVisible(practice.letters is Letters.HOUSE)
        if scheme:
            self._example.setText(self._first_numbers())

    def _first_numbers(self) -> str:
        plan, job = self.session.evaluation, self.session.job
        nets = plan.get(NETS)
        names = name_all(plan.get(CIRCUITS), nets, GivenNames(replace(job.practice), job.tags))
        counted = [given_number.number for given_number in names.given_numbers]
        text = ", ".join(counted[:SHOWN])
        twice = len(counted) - len(set(counted))
        if twice:
            return f"Here it gives {text} …: {twice} of {len(counted)} potentials would share a number. Add {{count}}."
        return f"Here it gives {text} …, each once." if text else "Nothing is numbered yet."
