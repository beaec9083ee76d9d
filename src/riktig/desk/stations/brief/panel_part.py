"""The end of the letter: the box, what the panel comes to, and the practice of this job."""

from collections.abc import Callable
from textwrap import wrap
from typing import cast

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QPushButton, QVBoxLayout, QWidget

from riktig.core.catalogue import boxes
from riktig.core.edits import Edit, SetBox, SetEnclosure, SetPractice, TakeAlternative
from riktig.core.errors import RiktigError
from riktig.core.job import (
    CHOICES,
    COLOUR_NAMES,
    DC_COLOURS,
    Colours,
    EnclosureFields,
    EnclosureMounting,
    EntrySide,
    HingeSide,
    Job,
    Practice,
    PracticeFields,
    Ventilation,
    read_quantity,
)
from riktig.core.keys import Key
from riktig.core.labels import NAMEPLATE
from riktig.core.sizing import PROPOSAL, Alternative, control_alternatives
from riktig.core.store import keep_user_practice, user_practice
from riktig.desk import user_settings
from riktig.desk.session import Session
from riktig.desk.stations.brief.chips import Chips
from riktig.desk.stations.brief.fields import Answer, sentence
from riktig.desk.stations.brief.load_part import instead_of
from riktig.desk.stations.brief.part import BriefPart, Change
from riktig.desk.theme import words_font
from riktig.desk.widgets import plain_label

__all__ = ["EnclosurePart", "PanelPart", "PracticePart"]


def _height(text: str) -> float | None:
    """A height, mm; empty where nobody knows it yet."""
    return read_quantity(text, "mm", "height above the floor") if text.strip() else None


LONGEST_LINE = 84
"""Letters of an argument that stand in one line of the narrowest letter (measured)."""


def _box(key: str) -> Change:
    return lambda value: SetEnclosure(cast(EnclosureFields, {key: value}))


def _practice(key: str) -> Change:
    return lambda value: SetPractice(cast(PracticeFields, {key: value}))


class EnclosurePart(BriefPart):
    """The box and where it stands."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.head("The enclosure")
        sizes: list[tuple[str, object]] = [
            (f"{b.width:g} × {b.height:g} × {b.depth:g}", (b.width, b.height, b.depth)) for b in boxes()
        ]

        def side(key: str, name: str) -> QWidget:
            return self.pick(key, name, [(f"at the {side.value}", side) for side in EntrySide], _box(key))

        hinges: list[tuple[str, object]] = [(f"on the {side.value}", side) for side in HingeSide]
        self.body.addWidget(
            sentence(
                "An enclosure of",
                self.pick("size", "Enclosure size", sizes, lambda size: SetBox(*size)),
                "mm,",
                self.text("rating", "Degree of protection", _box("rating"), 70),
                ",",
                self.text("material", "Material", _box("material"), 170),
                ",",
                self.pick("doors", "Doors", [("one door", 1), ("two doors", 2)], _box("doors")),
                "hung",
                self.pick("hinge", "Door hinge", hinges, _box("hinge")),
                ",",
                self.pick_of("standing", "How it stands", EnclosureMounting, _box("standing")),
                ",",
                self.text("environment", "Environment", _box("environment"), 210),
                ". The supply comes in",
                side("entry", "Supply entry"),
                ", the field cables",
                side("field_entry", "Field entry"),
                ". The room reaches",
                self.number("room_c", "Room temperature", _box("room_c"), "°C", 48),
                "°C; its lower edge hangs",
                self.text("above_floor", "Height above the floor", _box("above_floor"), 58, _height),
                "mm above the floor (empty: not known); the box is",
                self.pick_of("ventilation", "Ventilation", Ventilation, _box("ventilation")),
                ", and everything inside is sized for",
                self.number("ambient_c", "Air temperature", _box("ambient_c"), "°C", 48),
                "°C.",
            )
        )

    def values(self, job: Job) -> dict[str, object]:
        """The box's fields."""
        box = job.enclosure
        values: dict[str, object] = {key: getattr(box, key) for key in self.fields if key != "size"}
        return values | {"size": (box.width, box.height, box.depth)}


class PanelPart(BriefPart):
    """Totals, supply side, control, heat: what the panel comes to; and what its nameplate says so far."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.head("Panel ratings")
        card = QWidget()
        card.setObjectName("card")
        inside = QVBoxLayout(card)
        inside.setContentsMargins(10, 8, 10, 8)
        inside.setSpacing(6)
        self.chips: dict[str, Chips] = {}
        for title in ("Supply side", "Control", "Heat and room"):
            inside.addWidget(plain_label(title, "second"))
            self.chips[title] = Chips(session, "panel")
            inside.addWidget(self.chips[title])
            if title == "Control":
                self._instead_room = QVBoxLayout()
                inside.addLayout(self._instead_room)
        self._plate = plain_label("", "second", wraps=True)
        inside.addWidget(self._plate)
        self.body.addWidget(card)
        self._instead: QWidget | None = None
        self._alternatives: tuple[Alternative, ...] = ()

    def fill(self) -> None:
        """Shows the values of now."""
        super().fill()
        evaluation = self.session.evaluation
        proposal = evaluation.get(PROPOSAL)
        self.chips["Supply side"].show_values((*proposal.incoming.values, *proposal.shared))
        self.chips["Control"].show_values(proposal.control.values)
        self.chips["Heat and room"].show_values(proposal.heat.values)
        alternatives = control_alternatives(self.session.job, proposal) if self.session.job.loads else ()
        if alternatives != self._alternatives or self._instead is None:
            self._alternatives = alternatives
            if self._instead is not None:
                self._instead_room.removeWidget(self._instead)
                self._instead.hide()
                self._instead.deleteLater()
            self._instead = instead_of(alternatives, self.take)
            self._instead_room.addWidget(self._instead)
        plate = evaluation.get(NAMEPLATE)  # not LABELS, which waits for the wires
        texts = [f"{f.name} {f.value}" for f in plate if f.value]
        missing = [f.name.lower() for f in plate if f.required and not f.value]
        text = "The nameplate says so far: " + "; ".join(texts) + "."
        self._plate.setText(text + (f" Still missing: {', '.join(missing)}." if missing else ""))

    def take(self, alternative: Alternative) -> None:
        """Takes another control supply."""
        self.edit(f"control from {alternative.words}", TakeAlternative(alternative))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Alt with a digit takes the alternative of that number."""
        digit = event.key() - Qt.Key.Key_1
        if event.modifiers() == Qt.KeyboardModifier.AltModifier and 0 <= digit < len(self._alternatives):
            self.take(self._alternatives[digit])
            event.accept()
            return
        super().keyPressEvent(event)

    def show_selection(self, key: Key | None) -> None:
        """Opens the line to change the value that is selected."""
        for chips in self.chips.values():
            chips.show_selection(key)


class PracticePart(BriefPart):
    """Workshop standards: every choice with its default argued."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.head("Workshop standards")
        keep = QPushButton("Save as company standard")
        keep.setToolTip("New jobs start from what is chosen here")
        keep.clicked.connect(self.keep)
        use = QPushButton("Use company standard")
        use.clicked.connect(self.take_house)
        self._differs = plain_label("", "second", wraps=True)
        self.body.addWidget(sentence("For this job; new jobs start from the company standard.", keep, use, points=10.5))
        self.body.addWidget(self._differs)
        group = ""
        for choice in CHOICES:
            if choice.group != group:
                group = choice.group
                label = plain_label(group, "second")
                label.setFont(words_font(10.5, bold=True))
                self.body.addWidget(label)
            pick = self.pick_of(f"practice.{choice.field}", choice.question, choice.values, _practice(choice.field))
            why = [plain_label(run, "quiet") for run in wrap(f"The default: {choice.argument}", LONGEST_LINE)]
            self.body.addWidget(sentence(f"{choice.question}", pick, *why, points=10.5))
        self._house = self._colours()
        self.body.addWidget(self._house)
        self.body.addWidget(self._lengths())

    def _colours(self) -> QWidget:
        names: list[tuple[str, object]] = [(name, name) for name in COLOUR_NAMES]
        parts: list[str | QWidget] = ["Company colours:"]
        for place, what in enumerate(("L1", "L2", "L3", "neutral", "AC control", "DC control")):
            parts += [what, self.pick(f"colour.{place}", f"Company colour of {what}", names, self._colour(place)), ","]
        alike: list[tuple[str, object]] = [("as DC control", ""), *names]
        parts[-1] = "; apart from DC control:"
        for place, what in enumerate(DC_COLOURS):
            key, name = f"dc colour.{place}", f"Company colour of {what}"
            parts += [what, self.pick(key, name, alike, self._dc_colour(place)), ","]
        return sentence(*parts[:-1], points=10.5)

    def _dc_colour(self, place: int) -> Change:
        def change(name: str) -> Edit:
            colours = list(self.session.job.practice.dc_colours)
            colours[place] = name
            return SetPractice({"dc_colours": tuple(colours)})

        return change

    def _colour(self, place: int) -> Change:
        def change(name: str) -> Edit:
            colours = list(self.session.job.practice.house_colours)
            colours[place] = name
            return SetPractice({"house_colours": tuple(colours)})

        return change

    def _lengths(self) -> QWidget:
        def number(key: str, name: str, width: int = 50) -> Answer:
            return self.number(key, name, _practice(key), "mm", width)

        return sentence(
            "Spare room",
            self.number("spare", "Spare room", lambda v: SetPractice({"spare_share": v / 100}), "%", 46, "spare_share"),
            "% of the rails,",
            self.number(
                "spare_terminals_%",
                "Spare terminals",
                lambda v: SetPractice({"spare_terminals": v / 100}),
                "%",
                46,
                "spare_terminals",
            ),
            "% of the terminals of a strip,",
            self.number(
                "spare_duct_%",
                "Spare room in ducts",
                lambda v: SetPractice({"spare_duct": v / 100}),
                "%",
                46,
                "spare_duct",
            ),
            "% of the ducts,",
            self.number(
                "wire_spare_%", "Spare conductor", lambda v: SetPractice({"wire_spare": v / 100}), "%", 46, "wire_spare"
            ),
            "% more conductor than is cut; fingers have",
            number("finger_room", "Finger room"),
            "mm between clamp and duct; ducts are",
            number("duct_width", "Duct width"),
            "mm wide, cut from bars of",
            number("bar_length", "Bars of rail and duct", 56),
            "mm with a saw of",
            number("saw_kerf", "Saw kerf", 40),
            "mm, lids between uprights",
            number("lid_gap", "Lids shorter by", 40),
            "mm shorter; the door loop is",
            number("door_loop", "Door loop", 56),
            "mm and each end gets",
            number("end_allowance", "End allowance"),
            "mm more. To begin a batch of wires takes",
            number("batch_minutes", "Minutes to begin a batch", 40),
            "min at",
            number("hour_price", "Price of an hour", 46),
            "an hour; a metre of conductor costs",
            number("metre_price", "Price of a metre for each mm²", 46),
            "for each mm². The isolator's shaft goes",
            number("shaft_in_switch", "Shaft in its switch", 44),
            "mm into the switch and",
            number("shaft_in_handle", "Shaft in its handle", 44),
            "mm into the handle, which takes it",
            number("handle_tolerance", "Tolerance of the handle", 40),
            "mm off its middle; walls are up to",
            number("wall_skew", "Wall out of square", 40),
            "mm/m out of square. Two readings may differ by",
            number("reading_tolerance", "Readings may differ by", 40),
            "mm; pieces from",
            number("long_piece", "Long pieces from", 56),
            "mm on are measured twice.",
            points=10.5,
        )

    def values(self, job: Job) -> dict[str, object]:
        """Every choice of now."""
        practice = job.practice
        values: dict[str, object] = {f"practice.{c.field}": getattr(practice, c.field) for c in CHOICES}
        values |= {key: getattr(practice, key) for key in self.fields if hasattr(practice, key)}
        values |= {f"colour.{n}": name for n, name in enumerate(practice.house_colours)}
        values |= {f"dc colour.{n}": name for n, name in enumerate(practice.dc_colours)}
        shares = {
            "spare_terminals_%": practice.spare_terminals,
            "spare_duct_%": practice.spare_duct,
            "wire_spare_%": practice.wire_spare,
        }
        values |= {key: round(share * 100, 6) for key, share in shares.items()}
        return values | {"spare": practice.spare_share * 100}

    def fill(self) -> None:
        """Shows the choices of now, and which differ from Riktig's defaults."""
        super().fill()
        practice, default = self.session.job.practice, Practice()
        differs = [c.question.lower() for c in CHOICES if getattr(practice, c.field) != getattr(default, c.field)]
        text = f"Other than Riktig's default: {'; '.join(differs)}." if differs else "All as Riktig's defaults."
        self._differs.setText(text)
        self._house.setVisible(practice.colours is Colours.HOUSE)

    def keep(self) -> None:
        """Keeps the practice of this job as the house's own."""
        self._try(
            lambda: keep_user_practice(user_settings.settings_file(), self.session.job.practice),
            "Saved: new jobs start from it.",
        )

    def take_house(self) -> None:
        """Turns this job to the company standard."""

        def turn() -> None:
            practice = user_practice(user_settings.settings_file())
            fields = cast(PracticeFields, {name: getattr(practice, name) for name in Practice.__slots__})
            self.edit("the company standard", SetPractice(fields))

        self._try(turn, "")

    def _try(self, do: Callable[[], None], done: str) -> None:
        try:
            do()
        except RiktigError as error:
            self.session.say(str(error), wrong=True)
            return
        if done:
            self.session.say(done)
